// Everything public of the computation, listed once.
export { InputError, describeRange, requireNumber, type NumberRange } from './base/errors';
export { LIMITS } from './base/limits';
export { cutText } from './base/text';
export {
  explain,
  type Explained,
  type Sensitivity,
  type Source,
  type SourceKind,
  type Working,
  type WorkingInput,
  type WorkingValue,
} from './working/working';

export {
  KG_PER_LB,
  MM_PER_INCH,
  MPS_PER_MPH,
  M_PER_FOOT,
  M_PER_MILE,
  NM_PER_LBF_FT,
  NM_PER_LBF_IN,
  N_PER_LBF,
  L_PER_QUART,
  SCALES,
  UNITS,
  WATT_PER_HP,
  WATT_PER_PS,
  fromBase,
  scaleUnit,
  toBase,
  type Quantity,
  type Scale,
  type ScaleUnit,
  type UnitName,
  type UnitSystem,
} from './units/quantities';
export { DECIMAL_SIGNS, numberReadings, type DecimalSign } from './units/number';
export {
  entryBase,
  entryOf,
  entrySays,
  entryText,
  parseEntry,
  parseLeast,
  parseRow,
  type Doubt,
  type Entry,
  type EntryRules,
  type UnderstoodEntry,
} from './units/entry';
export { formatIn, formatSmall, formatUnit, say, saySmall, unitLabel, type Shown } from './units/format';

export { tyreSize, type TyreForm, type TyreSize } from './gearing/tyre-size';
export {
  ROLLING_FACTORS,
  measuredCircumference,
  rollingCircumference,
  type RollingFactor,
  type RollingMeasure,
} from './gearing/rolling-circumference';
export {
  axleMismatch,
  engineRpm,
  roadSpeed,
  rpmAfterShift,
  totalRatio,
  type AxleGearing,
  type Gearing,
} from './gearing/road-speed';
export {
  BEARING_LIMITS,
  bearingOrders,
  orderFrequency,
  type BearingOrders,
  type RollingBearing,
} from './gearing/noise';
export { greatestCommonDivisor, nearestToothPair, toothPair, type Hunting, type ToothPair } from './gearing/tooth-pair';
export { BOX_LIMITS } from './box/limits';
export {
  LOOSE_SHARE,
  USUAL_SHIFT,
  involute,
  pairOnCentres,
  type PairFit,
  type PairOnCentres,
  type PairVerdict,
} from './box/pair';
export { gearLadder, type GearPair, type Rung } from './box/ladder';
export {
  axialForce,
  balancingHelixDeg,
  reduction,
  type Hand,
  type Reduction,
  type ReductionStage,
} from './box/reduction';
export {
  ARRANGEMENTS,
  faceOverlap,
  floatChangeMm,
  growthMm,
  heatedFloat,
  type Arrangement,
  type Face,
  type HeatedFloat,
} from './box/stack';
export {
  STEEPEST_DEG,
  checkDrum,
  travelAt,
  type AtDetent,
  type Drum,
  type DrumCheck,
  type DrumTrack,
  type Interval,
} from './box/drum';
export { circleOf, countedBack, type Counted, type CountedPlace } from './box/counted';
export { dogsMeet } from './box/dogs';
export {
  BOX_PIECES,
  BOX_SHAFTS,
  boxRatio,
  forwardPairs,
  handOn,
  isReverse,
  layStack,
  otherShaft,
  teethOn,
  type BoxPair,
  type BoxPiece,
  type BoxPieceKind,
  type BoxShaft,
  type BoxStack,
  type Closing,
  type Laid,
  type StackedBox,
} from './box/stacked';
export {
  idlerFit,
  judgeBox,
  rollingRadius,
  type BoxJudged,
  type DogGap,
  type Held,
  type IdlerFit,
  type PairJudged,
  type StackJudged,
} from './box/judge';
export { assemblyOrder, restack, takingApart, type BoxAct, type Restack, type RestackMove } from './box/restack';
export { boxThrusts, loadedEnd, type GearThrust } from './box/thrust';
export { LIFE_EXPONENT, wearAgainst, type Load } from './box/life';
export { courseLoads, flankStressRatio, wearOfSet, type SetOnCourse } from './box/wear';
export { closedRatio, type ClosedTurns } from './gearing/closed-ratio';

export {
  crawlRatio,
  effectiveRatio,
  equalGearing,
  growthFactor,
  grownSpeed,
  slippingRpm,
  speedReadingCorrection,
  wornDiameter,
  type SpeedReading,
  type TyreGrowth,
} from './gearing/corrections';
export {
  MOST_CANDIDATES,
  ABOVE_STALL,
  LEVEL,
  findFinals,
  goalOverRatio,
  type Bill,
  type BillItem,
  type Bought,
  type Candidate,
  type CarrierSeries,
  type Change,
  type FindGoal,
  type FindLimits,
  type FindProblem,
  type FoundFinal,
  type GoalAtRatio,
  type FindFigures,
  type Reason,
} from './road/find';
export { SHOCK, mostRingTorque, ringBounds, type RingBounds } from './road/ring-torque';
export { GRAVITY, VEHICLE_LIMITS, GRADE, MOST_CORNERS, MOST_SLOPES, LOG_SAMPLES, SEARCH_LIMITS } from './road/limits';

export { enginePower, engineTorque, powerTorque, torqueLookup, type TorquePoint } from './road/engine-torque';
export { motorCurve, quickCurve, type EnginePeaks, type MotorPeaks } from './road/quick-curve';
export {
  CONVERTER_CAPACITY,
  capacityShare,
  converterPeakEfficiency,
  converterPoint,
  mostTorqueRatio,
  type Converter,
  type ConverterPoint,
} from './road/converter';
export { converterHeat, type Climb, type ConverterHeat } from './road/converter-heat';
export {
  INERTIA,
  bestShiftSpeed,
  readyCar,
  wongInertiaFactor,
  type Car,
  type DriveLimit,
  type Engine,
  type Push,
  type Vehicle,
} from './road/vehicle';
export type { GearState } from './road/gear-state';
export {
  MARKS_M,
  ROLLOUT_M,
  TRAP_M,
  roadRun,
  shiftSpeeds,
  type LimitedBy,
  type Mark,
  type Run,
  type RunOptions,
  type Shift,
  type SlipMark,
  type TracePoint,
} from './road/run';
export { haleFit } from './road/hale';
export {
  checkCourse,
  courseFromTrace,
  meanGrade,
  slopesFrom,
  type Corner,
  type Course,
  type Slope,
  type TraceSample,
} from './road/course';
export { againstLog, logTime, thinLog, type AgainstLog, type LogSample, type LogStretch } from './road/log';
export { type Pace, type PacePoint } from './road/pace';
export {
  LEVEL_SET_S,
  coursePace,
  pairName,
  roadSearch,
  type FoundSet,
  type SearchProblem,
  type SearchProgress,
  type SearchResult,
  type SearchRules,
  type ShelfFinal,
  type ShelfPair,
} from './road/search';

export { biasRatio, lockingValue, wheelTorques } from './unit/bias';
export {
  RAMP_FRICTION,
  rampFrictionShare,
  rampFromRotationPlane,
  rampLockCoefficient,
  rampThrust,
  solidRampAngle,
  type PlateUnit,
  type Ramp,
} from './unit/ramp';
export {
  PRELOAD_ACTS,
  lockAt,
  preloadThat,
  restNm,
  unitLock,
  type Preload,
  type PreloadActs,
  type UnitLock,
} from './unit/unit-lock';
export { INSERT_FIT_MM, shimForBacklash, sideGearBacklashSlope } from './unit/side-gear';
export {
  SITUATIONS,
  compareUnit,
  coneTorquePerNewton,
  lockAtInput,
  lockLaw,
  sideGearThrust,
  factsOf,
  type AxleGround,
  type BevelGear,
  type CompareResult,
  type CompareSituation,
  type CompareType,
  type CompareUnit,
  type LockLaw,
  type SituationName,
  type SituationSettings,
  type WheelGround,
} from './unit/compare';

export { frictionInterfaces, type PackMember } from './pack/interfaces';
export {
  LISTED_TRAVEL,
  WANTED_LIMITS,
  wantedPack,
  plateOrders,
  type Plan,
  type WantedProblem,
  type WantedResult,
  type WantedSide,
  type WantedSideResult,
} from './pack/wanted';
export { waysToReach, type Way, type WaySide } from './pack/reach';
export { SHIM_LIMITS } from './pack/shim-limits';
export { packShims, type ShimChoice, type ShimResult, type ShimSide, type ShimStock } from './pack/shims';
export {
  SURE_LIMITS,
  packSure,
  type Influence,
  type Outcome,
  type PackSure,
  type SurePack,
  type UncertainValue,
} from './pack/sure';
export { normalFrom, seededRandom } from './base/random';
export { effectiveFriction, learnedFriction, studentT, type LearnedFriction } from './pack/friction';
export { frictionRadius, packBreakaway, type PackFriction, type WearModel } from './pack/breakaway';
export {
  HOLDS,
  perPackFromReading,
  wrenchReading,
  type AtTheWheel,
  type Hold,
  type WrenchReading,
} from './pack/wrench';
export {
  FORCE_PEAK_RATIO,
  SNAP_THROUGH_RATIO,
  SPRING_STEEL,
  discSpringForce,
  discSpringK1,
  type DiscSpring,
} from './pack/disc-spring';
export {
  columnPeak,
  groupFreeHeight,
  groupReach,
  isDiscs,
  nestedDiscs,
  springColumn,
  type ColumnState,
  type DiscGroup,
  type LinearGroup,
  type MeasuredGroup,
  type SpringGroup,
} from './pack/spring-column';
export { BACKLASH_GUARD, backlashRound, onceATurn, type BandMm, type Round } from './mesh/backlash';
export {
  adjusterNotches,
  carrierSides,
  carryOver,
  oneSidedMove,
  type CarrierMove,
  type CarrierSides,
  type Notches,
} from './mesh/carrier';
export {
  CONSTRUCTIONS,
  CONSTRUCTION_SIGNS,
  DEPTH_SHIMS,
  depthSign,
  type ConstructionSigns,
  type DepthShimPlace,
  type Depthwards,
  type MeshConstruction,
} from './mesh/construction';
export { depthChain, depthFromBore, depthShim, type ChainLink, type DepthByMarks } from './mesh/depth';
export { MESH_LIMITS } from './mesh/limits';
export { axialForBacklash, meshSensitivity, type MeshSensitivity } from './mesh/sensitivity';
export { WORTH_AN_ASSEMBLY, meshAdvise, type MeshAdvice, type MeshMove, type Needed } from './mesh/advise';
export { type Suspected } from './mesh/suspects';
export {
  PATTERN_BAND,
  SUSPECTS,
  type Suspect,
  type MeshJob,
  type MeshTry,
  type Patch,
  type PatternBand,
} from './mesh/job';
export { boldMove, type BoldMove } from './mesh/bold';
export { learnedChanges } from './mesh/learn';
export { meshMap, type MapPoint, type MeshMap } from './mesh/map';
export { OBSERVED, type AxlePrior, type Changes, type Observed } from './mesh/axle-model';
export {
  CRUSH_GUARD,
  CRUSH_STARTS,
  collapsiblePreload,
  type CollapsibleNext,
  type CrushStart,
  type NutReading,
} from './preload/collapsible';
export { solidPreload, type SolidNext, type SolidReading } from './preload/solid';
export { floatShim } from './mesh/float-shim';
export { carrierPreload } from './preload/total';
export { shimPack, shimPacker, type ShimPack, type ShimPackRules } from './shim/pack';
export {
  gaugeReader,
  gaugeUnit,
  unitNameOf,
  type GaugeLine,
  type GaugeQuantity,
  type GaugeReading,
  type GaugeUnit,
} from './gauge/line';
export { STAND_INS, standInReading, type StandIn } from './gauge/stand-in';
export { swings } from './gauge/swings';
export { threadOf, type Thread } from './joint/thread';
export { JOINT_LIMITS, type JointVerdict } from './joint/limits';
export { BOLT_GRADES, PRELOAD_SHARE, boltLoad, type BoltGrade, type BoltLoad } from './joint/bolt';
export { boltTorque, type BoltTorque } from './joint/torque';
export { FRICTION_SCATTER, boltClamp, type BoltClamp, type Clamp } from './joint/clamp';
export { adapterSetting } from './joint/adapter';
export { bottoming, type Bottoming } from './joint/bottoming';
export { jointCapacity } from './joint/capacity';
export { starPattern } from './joint/star';
export { EXPANSION, RING_HEAT_C, heatToFit, type JointMaterial } from './joint/heat';
export { SHAFT_LIMITS } from './shaft/limits';
export { SPLINE_ANGLES, spline, type Spline, type SplineAngle } from './shaft/spline';
export { torqueAt, torsion } from './shaft/torsion';
export { CRITICAL_SHARE, criticalSpeed } from './shaft/critical';
export { jointAngle } from './shaft/joint-angle';
export {
  ARRIVALS,
  BEARINGS,
  BOXES,
  BRAKES,
  GEARS,
  OUTER_SEALS,
  PERMITTED,
  RETENTIONS,
  RING_PLACES,
  SPACERS,
  SPREADS,
  UNIT_KINDS,
  UNIT_WORK,
  WHEEL_BEARINGS,
  bearingEarly,
  caseOf,
  coverFirst,
  crushes,
  hasAdjusters,
  hasCover,
  ownRetainer,
  pressedLate,
  seenThroughCover,
  stripped,
  tried,
  type Brake,
  type Case,
  type DepthShim,
  type Facts,
  type OuterSeal,
  type Retention,
  type RingPlace,
  type Spread,
  type UnitKind,
  type WheelBearing,
} from './plan/facts';
export { JOBS, presetOf, type Job, type JobFacts } from './plan/presets';
export { ACTS, ASKED, type Act, type Asked } from './plan/acts';
export {
  SECTION_PARTS,
  type DrawnPart,
  type Outline,
  type Point,
  type Section,
  type SectionPart,
  type Stand,
  type TurnsWith,
} from './section/parts';
export { bevelSection, type BevelSection, type SectionPlate } from './section/bevel';
export { axleSection, type SectionOf } from './section/section';
export { shimEffect, type ShimAxle, type ShimEffect, type ShimTouch } from './section/effect';
export {
  FIGURES,
  figure,
  section,
  undrawn,
  type FigureOfStep,
  type SectionAid,
  type StepDrawing,
} from './plan/drawing';
export {
  BLANK_STEP,
  PHASES,
  type AgreesWith,
  type Operation,
  type Phase,
  type Piece,
  type Recipe,
  type StepRecord,
} from './plan/operation';
export {
  gateAsks,
  orderAsWorked,
  orderFrom,
  recipesOf,
  type Moment,
  type Move,
  type OwnStep,
  type StepRun,
} from './plan/order';
export { planFaults, type PlanFault } from './plan/faults';
