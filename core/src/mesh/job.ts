import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import type { ShimStock } from '../pack/shims';
import {
  COUNT,
  axlePrior,
  type AxlePrior,
  type Changes,
  type Position,
  type Predicted,
  type Value,
} from './axle-model';
import { onceATurn, requireBand, requireReadings, type BandMm } from './backlash';
import {
  CONSTRUCTION_SIGNS,
  DEPTH_SHIM_MOVES,
  depthSign,
  type DepthShimPlace,
  type Depthwards,
  type MeshConstruction,
} from './construction';
import { MESH_LIMITS } from './limits';

/** Where the patch lies on a flank: u −1 toe … +1 heel, v −1 root … +1 face. */
export interface Patch {
  readonly u: number;
  readonly v: number;
}

/** One assembly with what was read. */
export interface MeshTry {
  readonly pinionShimMm: number;
  /** Towards the pinion, from the first try. */
  readonly ringShiftMm: number;
  /** Evenly spaced round the ring; empty where it was not read. */
  readonly backlashMm: readonly number[];
  /** Null where no pattern was taken on the flank, or one that does not count. */
  readonly drive: Patch | null;
  readonly coast: Patch | null;
}

export interface PatternBand {
  readonly drive: Patch;
  readonly coast: Patch;
}

export interface MeshJob {
  /** Any but the electric unit, which has no depth to set. */
  readonly construction: Exclude<MeshConstruction, 'electric-reduction'>;
  readonly ringTeeth: number;
  readonly pinionTeeth: number;
  readonly specBacklashMm: BandMm;
  /** 1 to 40, in order. */
  readonly tries: readonly MeshTry[];
  /** What can be changed in steps of. */
  readonly steps?: { readonly pinionMm: number; readonly ringMm: number };
  /** Pieces for the pinion shim that exist, in place of its steps. */
  readonly stock?: readonly ShimStock[];
  /** Half of the way across within which a patch is right. */
  readonly patternBand?: PatternBand;
  /** What adding to the pinion shim does; a transaxle has to say. Else by `depthShim`, else by the construction's usual place. */
  readonly addingShimMovesPinion?: Depthwards;
  readonly depthShim?: DepthShimPlace;
  /** Which flank carries forward power; the other one weighs less. `convex` unless told. */
  readonly loadedFlank?: 'convex' | 'concave';
  /** What closing up will take off the backlash of this state, and one deviation of it. */
  readonly closingUpMm?: number;
  readonly closingUpSigmaMm?: number;
  /** What depth and ring are thought to do, learned from the shop's own axles of the spec; ours unless told. */
  readonly changesPerMm?: Changes;
  /** All that is thought of such an axle before it was read; ours unless told. */
  readonly prior?: AxlePrior;
}

/** Ours: the loaded flank is held to less. */
export const PATTERN_BAND: PatternBand = { drive: { u: 0.32, v: 0.22 }, coast: { u: 0.36, v: 0.27 } };
const TRIES = { min: 1, max: 40, integer: true } as const;
/** Farthest from the first try that a best guess may lie. */
const FARTHEST_MM = 1.5;
const PATCH = { min: -1.5, max: 1.5 };

export interface TryValue extends Value {
  readonly try: number;
}

/** What may have been told or read the wrong way round: what the shim does, the side of the ring, which flank is which. */
export const SUSPECTS = ['pinion-sign', 'ring-side', 'flanks-swapped'] as const;
export type Suspect = (typeof SUSPECTS)[number];

export interface Limits {
  readonly low: number;
  readonly high: number;
}

/** A job that was checked. */
export interface Ready {
  /** +1 where more shim is deeper, and where a shift of the ring is one towards the pinion. */
  readonly sign: 1 | -1;
  readonly ringSign: 1 | -1;
  readonly spec: BandMm;
  /** Limits of each reading's mean, in this state. */
  readonly limits: readonly Limits[];
  readonly closing: number;
  readonly closingSigma: number;
  readonly values: readonly TryValue[];
  readonly prior: AxlePrior;
  readonly first: MeshTry;
  readonly last: MeshTry;
  readonly places: readonly (readonly number[])[];
}

/** In the order of {@link OBSERVED}; null what was not read. */
export const valuesOf = ({ drive, coast }: MeshTry, backlash: number | null): readonly (number | null)[] => [
  backlash,
  drive && drive.u,
  drive && drive.v,
  coast && coast.u,
  coast && coast.v,
];
export const meanOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

const roundMean = (round: readonly number[]): number | null => (round.length === 0 ? null : meanOf(round));

/** Half of what the ring runs out; with fewer than three places half of what was read apart. */
const wave = (round: readonly number[]): number =>
  round.length < 3 ? (Math.max(...round) - Math.min(...round)) / 2 : onceATurn(round).amplitude;

function bandsOf({ patternBand, loadedFlank }: MeshJob): readonly number[] {
  const given = patternBand ?? PATTERN_BAND;
  for (const flank of ['drive', 'coast'] as const)
    for (const axis of ['u', 'v'] as const)
      requireNumber(`patternBand.${flank}.${axis}`, given[flank][axis], { above: 0, max: 1 });
  // Our own band follows the flank that carries; what was told stays as it was told.
  const turned = patternBand === undefined && loadedFlank === 'concave';
  const { drive, coast } = turned ? { drive: given.coast, coast: given.drive } : given;
  return [drive.u, drive.v, coast.u, coast.v];
}

function requireChanges(changes: Changes): Changes {
  requireNumber('changesPerMm', changes.length, { min: COUNT, max: COUNT, integer: true });
  changes.forEach((pair, i) => {
    pair.forEach(({ mean, deviation }, axis) => {
      requireNumber(`changesPerMm[${i}][${axis}].mean`, mean, { min: -100, max: 100 });
      requireNumber(`changesPerMm[${i}][${axis}].deviation`, deviation, { above: 0, max: 100 });
    });
  });
  return changes;
}

/** What adding to the pinion shim does. @throws InputError naming the field that has to say it */
function signOf({ construction, addingShimMovesPinion, depthShim }: MeshJob): 1 | -1 {
  const usual = CONSTRUCTION_SIGNS[construction];
  const known =
    addingShimMovesPinion ?? (depthShim === undefined ? usual.addingShimMovesPinion : DEPTH_SHIM_MOVES[depthShim]);
  if (known) return depthSign(known);
  if (usual.ringBy === 'none')
    throw new InputError(
      'construction',
      `construction ${construction} has no pinion depth to set.`,
      'one with a pinion shim',
    );
  throw new InputError(
    'addingShimMovesPinion',
    'addingShimMovesPinion is not said: on a box shaft a shim moves the pinion deeper or shallower by where it lies.',
    'deeper, or shallower',
  );
}

/**
 * @param as what is taken to be the other way round than it was told
 * @throws InputError naming the field
 */
export function checkJob(job: MeshJob, as: Suspect | null = null): Ready {
  const spec = requireBand('specBacklashMm', job.specBacklashMm);
  requireNumber('tries', job.tries.length, TRIES);
  const told = signOf(job);
  const sign = as === 'pinion-sign' ? (-told as 1 | -1) : told;
  const ringSign = as === 'ring-side' ? -1 : 1;
  const places = job.tries.map((one, i) => {
    requireNumber(`tries[${i}].pinionShimMm`, one.pinionShimMm, MESH_LIMITS.shimMm);
    requireNumber(`tries[${i}].ringShiftMm`, one.ringShiftMm, MESH_LIMITS.moveMm);
    for (const flank of ['drive', 'coast'] as const) {
      const patch = one[flank];
      if (patch)
        for (const axis of ['u', 'v'] as const) requireNumber(`tries[${i}].${flank}.${axis}`, patch[axis], PATCH);
    }
    if (one.backlashMm.length === 0) return [];
    return requireReadings(`tries[${i}].backlashMm`, one.backlashMm);
  });
  const closing = requireNumber('closingUpMm', job.closingUpMm ?? 0, { min: -1, max: 1, unit: 'mm' });
  const closingSigma = requireNumber('closingUpSigmaMm', job.closingUpSigmaMm ?? 0, { min: 0, max: 1, unit: 'mm' });
  requireNumber('ringTeeth', job.ringTeeth, LIMITS.teeth);
  requireNumber('pinionTeeth', job.pinionTeeth, LIMITS.teeth);
  const ours = job.prior ?? axlePrior({ ...job, middleMm: (spec[0] + spec[1]) / 2 + closing });
  const prior = job.changesPerMm ? { ...ours, perMm: requireChanges(job.changesPerMm) } : ours;
  const first = job.tries[0] as MeshTry;
  const where = { sign, ringSign, first } as const;
  const rounds = places.filter((round) => round.length > 0);
  // What the ring runs out is taken off both ends: the mean alone says nothing of the least place.
  const runout = rounds.length === 0 ? 0 : meanOf(rounds.map(wave));
  const limits = [
    { low: spec[0] + closing + runout, high: spec[1] + closing - runout },
    ...bandsOf(job).map((half) => ({ low: -half, high: half })),
  ];
  const values = job.tries.flatMap((one, i) =>
    valuesOf(turned(one, as), roundMean(places[i] as readonly number[])).flatMap((value, observed): TryValue[] =>
      value === null
        ? []
        : [
            {
              try: i,
              observed,
              value,
              at: positionOf(one, where),
              scatter: prior.noise[observed] as number,
              ...(observed === 0 && believed(job.tries, places, i) ? { wrongShare: 0 } : {}),
            },
          ],
    ),
  );
  return {
    ...where,
    last: turned(job.tries.at(-1) as MeshTry, as),
    spec,
    limits,
    closing,
    closingSigma,
    values,
    prior,
    places,
  };
}

/** Ours: two means round the ring so near, mm, confirm each other. */
const CONFIRMS_MM = 0.05;

/**
 * Whether the mean of a round is never simply wrong like what an eye saw: several places by a gauge, and the newest, which is read again
 * where all else speaks against it, or confirmed by another round of the same assembly.
 */
function believed(tries: readonly MeshTry[], places: readonly (readonly number[])[], i: number): boolean {
  const [here, round] = [tries[i] as MeshTry, places[i] as readonly number[]];
  if (round.length < 2) return false;
  const newest = places.findLastIndex((one) => one.length > 0) === i;
  const confirmed = tries.some(
    (one, k) =>
      k !== i &&
      (places[k] as readonly number[]).length > 1 &&
      Math.abs(one.pinionShimMm - here.pinionShimMm) < 1e-9 &&
      Math.abs(one.ringShiftMm - here.ringShiftMm) < 1e-9 &&
      Math.abs(meanOf(places[k] as readonly number[]) - meanOf(round)) <= CONFIRMS_MM,
  );
  return newest || confirmed;
}

/** A try with its flanks the other way round, where they are taken to be swapped. */
const turned = (one: MeshTry, as: Suspect | null): MeshTry =>
  as === 'flanks-swapped' ? { ...one, drive: one.coast, coast: one.drive } : one;

type Where = Pick<Ready, 'first' | 'sign' | 'ringSign'>;

export const positionOf = (
  move: { readonly pinionShimMm: number; readonly ringShiftMm: number },
  { first, sign, ringSign }: Where,
): Position => ({
  deeperMm: sign * (move.pinionShimMm - first.pinionShimMm),
  closerMm: ringSign * (move.ringShiftMm - first.ringShiftMm),
});

/** The shim and shift of a position: {@link positionOf} the other way. */
export const moveTo = (
  { deeperMm, closerMm }: Position,
  { first, sign, ringSign }: Where,
): { readonly pinionShimMm: number; readonly ringShiftMm: number } => ({
  pinionShimMm: first.pinionShimMm + sign * deeperMm,
  ringShiftMm: first.ringShiftMm + ringSign * closerMm,
});

/** Mean and variance of one reading by position. */
export type Predictor = (at: Position) => Predicted;

/** Where what is expected comes nearest to the middle of every band: two equations, least squares weighed by the bands. */
export function bestGuess(of: readonly Predictor[], { limits }: Ready): Position {
  const zero = { deeperMm: 0, closerMm: 0 };
  let [pp, pr, rr, py, ry] = [1e-6, 0, 1e-6, 0, 0];
  limits.forEach(({ low, high }, observed) => {
    const weight = 1 / Math.max((high - low) / 2, 0.02) ** 2;
    const at = of[observed] as Predictor;
    const base = at(zero).mean;
    const a = at({ deeperMm: 1, closerMm: 0 }).mean - base;
    const b = at({ deeperMm: 0, closerMm: 1 }).mean - base;
    const off = (low + high) / 2 - base;
    pp += weight * a * a;
    pr += weight * a * b;
    rr += weight * b * b;
    py += weight * a * off;
    ry += weight * b * off;
  });
  const determinant = pp * rr - pr * pr;
  const within = (mm: number): number => Math.min(FARTHEST_MM, Math.max(-FARTHEST_MM, mm));
  return {
    deeperMm: within((py * rr - ry * pr) / determinant),
    closerMm: within((ry * pp - py * pr) / determinant),
  };
}
