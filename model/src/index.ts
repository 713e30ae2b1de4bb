// Everything public of the model, listed once.
export * as z from 'zod';
export { fieldPath, parseOrRefuse, refusal, requireKeepable } from './base/refuse';
export {
  ACTIONS,
  COLOURS,
  DAMAGE,
  SPRING_KINDS,
  type Condition,
  type Member,
  type Pack,
  type PlateSpec,
} from './pack/schema';
export { AXLES, SIDES, USES, type AxleName, type Side, type Use } from './base/names';
export { COMPLAINTS, GOALS, type Brief, type Complaint, type Goal, type Wheel, type Where } from './identity/schema';
export { UNIT_PARTS, UNIT_TYPES, type Unit } from './unit/schema';
export { buildSchema, type Axle, type Build } from './document/schema';
export { courseSchema, type CourseSpec, type Road, type Shelf, type ShelfPairSpec } from './road/schema';
export type { KeptPoint } from './point/schema';
export type { Tyre } from './gearing/schema';
export { freshId } from './base/fresh-id';
export { newAxle, newBrief, newBuild, newConverter, newRoad } from './start/new-build';
export { newPlateSpec } from './pack/new-plates';
export { openUnit, unitAs } from './unit/new-unit';
export { assumedOfType } from './unit/assumed';
export {
  CONSTRUCTIONS,
  ORIGINS,
  ORIGIN_WORDS,
  leastOf,
  originOf,
  takenFromSchema,
  type TakenFrom,
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
export {
  BUILT_IN_SEQUENCE,
  adjusterMoveWords,
  sequenceFault,
  type AdjusterMove,
  type AdjusterSequence,
  type Until,
} from './library/adjuster-sequence';
export { USUAL_SCHOOLS, SCHOOLS, SCHOOL_KEYS, type SchoolKey, type Schools } from './library/schools';
export { peakPower, torqueCurve } from './road/torque-curve';
export { finishName } from './road/words';
export { vehicleOf } from './road/vehicle';
export { searchProblemOf } from './road/search-problem';
export { explainHeat } from './road/calc-heat';
export { climbOf, climbingVehicle } from './road/derive';
export { explainRun } from './road/calc-run';
export { lowRange } from './gearing/match';
export { goalOf, findProblemOf, findStandIns, limitsOf } from './road/find-problem';
export { againstLogWords } from './road/log-words';
export { changeWords, limitWords, reasonWords, scoreWords } from './road/find-words';
export { idSchema } from './base/fields';
export { decisionSchema, ledgerEntrySchema, signatureSchema, voidSchema } from './document/ledger';
export { EXACT, RESTS, type Figure, type Rests } from './frame/figure';
export {
  STATIONS,
  VERDICTS,
  type Fact,
  type Facts,
  type Finding,
  type Place,
  type StationKind,
  type Verdict,
} from './frame/finding';
export {
  readingBase,
  readingEntry,
  voidedBy,
  type Decision,
  type InForce,
  type GaugeSent,
  type LedgerEntry,
  type Reading,
  type Readings,
  type Signature,
  type Void,
} from './frame/readings';
export { defineSubject, type Subject, type SubjectOf } from './frame/subjects';
export { MOST_READINGS, countedEntry, numberValue, type ReadingValue, type ValueKind } from './frame/values';
export { defineCapability, type Capability, type Given, type Inputs } from './frame/capability';
export { HEAVY, calculations } from './assembly/calculations';
export { capabilities, type FigureId } from './assembly/capabilities';
export { subjects } from './assembly/subjects';
export { defineHeavy, unattended, type HeavyContext, type HeavyWork } from './frame/heavy';
export type { SearchNews } from './road/heavy';
export type { SureAsked } from './pack/heavy';
export {
  BuildDeriver,
  keyOfSubject,
  readingsInForce,
  deriveBuild,
  fitPoint,
  type AxleState,
  type Derived,
  type Looking,
} from './assembly/derive';
export { gearingFigures } from './gearing/ids';
export { pointFigures } from './point/ids';
export { roadFigures } from './road/ids';
export { packPrint } from './pack/print';
export { packFigures } from './pack/ids';
export { unitFigures } from './unit/ids';
export { breakaway, caseDepth, stackHeight, steadyTorque, thickness, turningTorque } from './pack/readings';
export { insertFit, sideGearBacklash } from './unit/readings';
export { type OperatingPoint } from './point/schema';
export { FORMAT_VERSION } from './base/version';
export { entryVersion, requireVersion, upgrade, type Kept } from './document/upgrade';
export { fileJsonSchema } from './files/file-schemas';
export { calculationRoutes } from './wire/calculation-routes';
export { SHOP_HEADER, routes } from './wire/index';
export { mayCall, type WireRoute } from './wire/route';
export {
  HOOK_EVENTS,
  type Hook,
  type HookEvent,
  type HookEventType,
  type HookWrite,
  type PartsToOrder,
} from './wire/hooks';
export { dateOf, dayNumber } from './base/days';
export { MOST_WEEKS, fitDays, type FitDay, type PromisedJob, type WeekHours } from './board/week';
export {
  PASSWORD,
  ROLES,
  ownerSchema,
  type Audit,
  type May,
  type Me,
  type People,
  type Person,
  type Role,
} from './wire/people';
export {
  setUpsSchema,
  type Board,
  type BoardRow,
  type BoardWeek,
  type Scanned,
  type BuildSummary,
  type Customer,
  type Changed,
  type CustomerWrite,
  type Recall,
  type SetUps,
  type Shop,
  type ShopSettings,
  type ShownFigures,
  type StoredBuild,
  type StoredSpec,
  type Arrival,
  type ArrivalPlan,
  type Damage,
  type HealthAnswer,
  type Presence,
} from './wire/bodies';
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
export {
  MET_WHERE,
  OF_A_WHEEL,
  TUNE_STEPS,
  WISHES,
  tuneFor,
  type Advice,
  type Behaviour,
  type SideEffect,
  type TuneChange,
} from './unit/tune';
export { FRICTION_SHARE, INSTRUMENTS, surePackOf } from './pack/sure';
export { PACK_GUARDS } from './pack/derive';
export {
  conditionVerdict,
  overhaulAdvice,
  inspectPack,
  type OverhaulAdvice,
  type InspectedPiece,
} from './pack/inspect';
export { HOLD_WORDS } from './pack/words';
export { packContext, platesOf } from './pack/plates';
export { measuredFriction, perPackOf, wantedBandNm, type FrictionKind } from './pack/wrench';
export { lockSlope, plateUnit, rampOn, type Flank, type Thrust } from './pack/ramps';
export { packStateOf, turningInForce, type PackContext } from './pack/pack-state';
export {
  isPlate,
  isSpring,
  memberTurns,
  plateRadius,
  type MemberState,
  type PackSideState,
  type PackState,
} from './pack/state';
export { lockCurve, unitHolds, unitState, type LockPoint, type UnitState } from './unit/derive';
export { UNIT_TYPE_WORDS, type UnitTypeWords } from './unit/types';
export { comparedGround, comparedSettings, comparedUnits, mostArriving, type ComparedUnit } from './unit/compare';
export { axleShares } from './point/derive';
export {
  CRITERION_WORDS,
  USE_WEIGHTS,
  rankUnits,
  speaks,
  type CriterionWeights,
  type Speaks,
  type UnitRank,
} from './unit/rank';
export { CRITERIA, type Criterion } from './identity/schema';
export { Registry, defineCalculation, type Calculation } from './frame/calculations';
export { openApi } from './wire/openapi';
export {
  buildFileSchema,
  readBuildFile,
  readFile,
  shopFileSchema,
  type BuildFile,
  type PhotoFile,
} from './files/build-file';
export { PHOTO_BYTES, PHOTO_TYPES, photosOf, type PhotoType } from './files/photos';
export {
  GonePlace,
  applyChanges,
  changesBetween,
  mergeChanges,
  share,
  type Change,
  type Merge,
  type Overlap,
} from './document/changes';
export { fieldWords, valueWords } from './document/field-words';
export { settleAssumed } from './document/assumed';
export { startBuild, startLike, type StartAnswers } from './start/start-build';
export { newAxleSpec, newShimBox } from './library/new-spec';
export { SEATS, type Instrument, type Seat, type SetUpBearing } from './library/schema';
export {
  SHEET_FIELDS,
  SHEET_KEYS,
  emptySheet,
  isWeak,
  sheetField,
  type SheetKey,
  type SpecSheet,
} from './library/sheet';
export {
  DEPTHWARDS,
  STACK_PARTS,
  TRIAL,
  TRIAL_KEYS,
  type Setup,
  type StackPart,
  type Trial,
  type TrialKey,
} from './mesh/schema';
export { AS_IT_CAME, FINAL_TRIAL, newSetup } from './mesh/new-setup';
export * as setupSubjects from './mesh/readings';
export { depthSchools, shimOut, stackError, type DepthSchool } from './mesh/depth';
export { patternBands, patternFits } from './mesh/derive';
export { tooCoarse } from './mesh/derive-before';
export { meshFigures } from './mesh/ids';
export { floatOf, floatShimOf, floatWanted } from './mesh/float';
export type { AssemblyState, BacklashRead, MeshAxle, PastSetup, PatternRead } from './mesh/axle';
export { pastOf, pastOfSpec } from './mesh/past';
export { freeIn, heldBy, holdingsOf, requireInStock, takenFrom, type Drawer, type Holding } from './mesh/stock';
export { backlashOf, headShimOf, impossible, isFinal, patternOf } from './mesh/state';
export { stateAfter } from './mesh/chips';
export { TRIAL_WORDS, moveWords, patchWords, type FlankPattern } from './mesh/words';
export { preloadVerdict } from './preload/derive';
export { preloadFigures } from './preload/ids';
export type { SideMethod, SideRead } from './preload/side';
export { PRELOAD_GUARDS, type PinionRead, type PreloadAxle } from './preload/state';
export { turningText } from './preload/words';
export { capital } from './base/names';
export { identityFigures } from './identity/ids';
export { TURNED, TURNED_WORDS, ratioTurns } from './identity/readings';
export { GATES, type GateName, type NeededPart, type StepNumber } from './frame/work';
export { TOOLS, toolOf, type ToolId } from './frame/tools';
export { PHASE_WORDS } from './frame/operation';
export { neededParts, orderOfWork, partOf, type StepId } from './assembly/steps';
export type { GateState } from './plan/gates';
export { ledgerWords } from './document/ledger-words';
export { NO_WORK, boardWork, facetsOf, stands, type BoardWork } from './board/board';
export { JOB_WORDS } from './plan/job-words';
export { listedParts, type ListedPart } from './plan/listed-parts';
export { RESTS_FOR, RESTS_FOR_WORDS, type RestsFor } from './board/board-states';
export type { Rest } from './board/rest';
export { BOARD_STATES, BOARD_STATE_WORDS, type BoardState } from './board/board-states';
export { overrideKey } from './plan';
export { faultText } from './plan/derive-work';
export { planFigures } from './plan/ids';
export * as workSubjects from './plan/readings';
export { HOLDS, PART_STATES, RUN_IN_SCHOOLS, TOOL_STATES, type Work } from './plan/schema';
export { UNIT_KIND, factStates, factsOf, sayFact, type FactFrom, type FactState, type SaidFact } from './plan/facts';
export { newParts, type WorkState } from './plan/work';
export type { RecordState, StepState } from './plan/stand';
export { concerns } from './plan/concerns';
export { newWork } from './plan/new-work';
export { ENOUGH_JOBS, promiseOf, type JobTimes } from './plan/promise';
export { timesOf } from './assembly/times';
export type { Metal } from './plan/metal';
export { wrenchFit, type WrenchFit } from './plan/wrench';
export { jointFigures } from './joint/ids';
export * as jointSubjects from './joint/readings';
export { FINISHES, FINISH_KEYS, type Joint } from './joint/schema';
export { usedTorque, type JointState, type RoundState } from './joint/state';
export { newJoint } from './joint/new-joint';
export { shaftFigures } from './shaft/ids';
export { MATERIALS, MATERIAL_KEYS, type Shaft, type Shafts, type Twisted } from './shaft/schema';
export { fastestProp, propState, shaftMargin, shearOf, thinnestMm, type ShaftTorque } from './shaft/state';
export { newEnd, newShafts } from './shaft/new-shafts';
export { weakestLinks, type Link } from './shaft/links';
export { boxFigures } from './box/ids';
export { hubName, pairName, teethText } from './box';
export * as boxSubjects from './box/readings';
export { WHOLE_BOX, boxRound, pieceName, piecesOf, stepWords, type BoxRound, type BoxRoundStep } from './box/round';
export type { BoxWork } from './box/schema';
export {
  NEW_BOX_ASSUMED,
  NEW_DRUM_ASSUMED,
  newBox,
  newPair,
  pairThatGoes,
  takeGears,
  unrun,
  withPair,
  type OtherTeeth,
} from './box/new-box';
export {
  REPEATS_MM,
  cutPieces,
  drumState,
  gearPairs,
  lastRunOf,
  runsOf,
  stackedBox,
  type BoxState,
  type DrumState,
  type FloatJob,
  type FloatTry,
} from './box/state';
export {
  CASE_ALLOYS,
  FITS,
  OVERLAP_PERCENT,
  type BoxInside,
  type BoxPairSpec,
  type BoxPieceSpec,
  type BoxShaftSpec,
  type CaseAlloy,
  type DrumSpec,
  type PlaceSpec,
  type WearingSpec,
} from './library/box';
export { DECISIONS, type PartDecision, type PartState } from './inspect';
export { wholeJob, type WholeJob } from './inspect/whole-job';
export * as inspectSubjects from './inspect/readings';
export * as runInSubjects from './runin/readings';
export type { RunInState, Trip } from './runin';
export { runInFigures } from './runin/ids';
export type { Practice } from './practice/schema';
export {
  DRAWN_RING_MM,
  OUTSIDE_OF_IT,
  PART_NAMES,
  STEP_MM,
  effectOn,
  effectWords,
  isInSection,
  looksOf,
  partsOfPiece,
  sectionOfAxle,
  touchesOf,
  type Look,
  type Looks,
  type Touchable,
} from './section';
