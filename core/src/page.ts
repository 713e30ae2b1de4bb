// What a page needs before anything is worked out: units, limits, words and the small laws of the document. A door of its own
// beside the whole core, for what is reached from the first page by one import stands in the first script. Names are the same.
export { SHIM_LIMITS } from './pack/shim-limits';
export { GRADE, MOST_CORNERS, MOST_SLOPES, LOG_SAMPLES, SEARCH_LIMITS, VEHICLE_LIMITS } from './road/limits';
export { type RingBounds, SHOCK, ringBounds } from './road/ring-torque';
export { InputError, type NumberRange, describeRange } from './base/errors';
export { LIMITS } from './base/limits';
export { cutText } from './base/text';
export { circleOf } from './box/counted';
export { BOX_LIMITS } from './box/limits';
export { ARRANGEMENTS, type Arrangement } from './box/stack';
export { BOX_PIECES, BOX_SHAFTS } from './box/stacked';
export { STAND_INS } from './gauge/stand-in';
export {
  type TyreGrowth,
  crawlRatio,
  effectiveRatio,
  equalGearing,
  speedReadingCorrection,
  wornDiameter,
} from './gearing/corrections';
export { BEARING_LIMITS } from './gearing/noise';
export { type Gearing, engineRpm, roadSpeed, rpmAfterShift } from './gearing/road-speed';
export { ROLLING_FACTORS, measuredCircumference, rollingCircumference } from './gearing/rolling-circumference';
export { type Hunting, type ToothPair, toothPair } from './gearing/tooth-pair';
export { type TyreSize, tyreSize } from './gearing/tyre-size';
export { EXPANSION, type JointMaterial } from './joint/heat';
export { JOINT_LIMITS } from './joint/limits';
export { CONSTRUCTIONS, DEPTH_SHIMS, type MeshConstruction } from './mesh/construction';
export { MESH_LIMITS } from './mesh/limits';
export { HOLDS, type Hold } from './pack/wrench';
export {
  ARRIVALS,
  BEARINGS,
  BOXES,
  BRAKES,
  GEARS,
  OUTER_SEALS,
  RETENTIONS,
  RING_PLACES,
  SPREADS,
  UNIT_WORK,
  WHEEL_BEARINGS,
} from './plan/facts';
export { JOBS } from './plan/presets';
export { CRUSH_STARTS } from './preload/collapsible';
export { CONVERTER_CAPACITY } from './road/converter';
export { type TorquePoint, enginePower } from './road/engine-torque';
export { type Vehicle } from './road/vehicle';
export { SHAFT_LIMITS } from './shaft/limits';
export { SPLINE_ANGLES } from './shaft/spline';
export type { BevelGear } from './unit/compare';
export { RAMP_FRICTION } from './unit/ramp';
export { PRELOAD_ACTS } from './unit/unit-lock';
export { type Entry, entryBase, entryOf, entrySays } from './units/entry';
export { say, saySmall } from './units/format';
export { DECIMAL_SIGNS, type DecimalSign } from './units/number';
export { type Quantity, type Scale, UNITS, type UnitName, type UnitSystem, fromBase } from './units/quantities';
export { type Working, explain } from './working/working';
