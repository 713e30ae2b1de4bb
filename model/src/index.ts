// Everything public of the model, listed once.
export { z } from './zod';
export { fieldPath, parseOrRefuse, refusal } from './refuse';
export {
  ACTIONS,
  AXLES,
  COLOURS,
  COMPLAINTS,
  DAMAGE,
  GOALS,
  SIDES,
  SPRING_KINDS,
  UNIT_PARTS,
  UNIT_TYPES,
  USES,
  buildSchema,
  courseSchema,
  type Axle,
  type AxleName,
  type Brief,
  type Build,
  type Complaint,
  type Condition,
  type CourseSpec,
  type Goal,
  type KeptPoint,
  type Road,
  type Shelf,
  type ShelfPairSpec,
  type Member,
  type Pack,
  type PlateSpec,
  type Side,
  type Tyre,
  type Unit,
  type Use,
} from './document/schema';
export {
  freshId,
  newAxle,
  newBrief,
  newBuild,
  newConverter,
  newPlateSpec,
  newRoad,
  openUnit,
  unitAs,
} from './document/new-build';
export {
  CONSTRUCTIONS,
  ORIGINS,
  axleSpecSchema,
  gearboxSpecSchema,
  libraryFileSchema,
  librarySpecSchema,
  type AxleSpec,
  type CarrierSpec,
  type Construction,
  type GearSetSpec,
  type GearboxSpec,
  type LibrarySpec,
  type Origin,
  type FrictionTable,
  type ShimBox,
} from './library/schema';
export { HANDBOOK_SCHOOLS, SCHOOLS, SCHOOL_KEYS, type SchoolKey, type Schools } from './library/schools';
export { LIBRARY_CSV_HEADER, libraryCsv, readLibraryCsv } from './library/library-csv';
export { readLibraryFile, type LibraryImport } from './library/library-file';
export { csvNumber, csvRows, csvText, type BadLine } from './document/csv';
export { peakPower, torqueCurve } from './road/torque-curve';
export { CURVE_UNITS, readTorqueCsv, type CurveUnit, type TorqueImport } from './road/torque-csv';
export { TraceReader, traceColumns, type TraceColumns, type TraceImport, type TraceSpeedUnit } from './road/trace-csv';
export { vehicleOf } from './road/vehicle';
export { searchProblemOf } from './road/search-problem';
export { explainRun } from './road/calc-run';
export { THUMB, lowRange } from './gearing/match';
export { goalOf, findProblemOf } from './gearing/find-problem';
export { changeWords, reasonWords, scoreWords } from './gearing/find-words';
export {
  idSchema,
  ledgerEntrySchema,
  type LedgerEntry,
  type Reading,
  type Subject,
  type VoidEntry,
} from './document/ledger';
export { readingsInForce, subjectKey, voidedBy } from './engine/readings';
export { VERDICTS, type Figure, type Finding, type Sheet, type Verdict } from './engine/figure';
export { CLUTCH_MARGIN_GUARD, deriveBuild, type AxleState, type Derived } from './engine/derive';
export {
  axleGearingState,
  drivenAxles,
  gearRatios,
  gearingAt,
  nominalDiameter,
  rangeRatio,
  speedFan,
  tallestGear,
  tyreCircumference,
  type AxleGearingState,
  type FanGear,
} from './gearing/axle-gearing';
export { GEARING_GUARDS, finalsOf, totalAtPoint } from './gearing/derive';
export { layPack, wantedProblemOf } from './pack/wanted';
export { TUNE_STEPS, WISHES, tuneFor, type Advice, type Behaviour, type TuneChange } from './unit/tune';
export { FRICTION_SHARE, INSTRUMENTS, surePackOf } from './pack/sure';
export { PACK_GUARDS } from './pack/derive';
export { conditionVerdict, overhaulAdvice, inspectPack, type OverhaulAdvice, type InspectedPiece } from './pack/inspect';
export { HOLD_WORDS, measuredFriction, wantedBandNm } from './pack/wrench';
export {
  isPlate,
  isSpring,
  memberTurns,
  plateRadius,
  type MemberState,
  type PackSideState,
  type PackState,
} from './pack/state';
export {
  lockCurve,
  plateUnit,
  platesOf,
  rampOn,
  unitHolds,
  unitState,
  type Flank,
  type LockPoint,
  type UnitState,
} from './unit/derive';
export { UNIT_TYPE_WORDS, type UnitTypeWords } from './unit/types';
export {
  comparedGround,
  comparedSettings,
  comparedUnits,
  rankUnits,
  USE_WEIGHTS,
  type UnitRank,
  type ComparedUnit,
} from './unit/compare';
export { calculations } from './definitions';
export { type Calculation } from './engine/calculations';
export { openApi } from './engine/openapi';
export {
  buildFileSchema,
  readBuildFile,
  readFile,
  shopFileSchema,
  type BuildFile,
  type PhotoFile,
} from './document/build-file';
export { PHOTO_BYTES, PHOTO_TYPES, photosOf, type PhotoType } from './document/photos';
