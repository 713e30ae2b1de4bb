import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';
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
import { CONSTRUCTION_SIGNS, depthSign, type Depthwards, type MeshConstruction } from './construction';
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
  /** Evenly spaced round the ring; empty where a pattern was read once more and backlash was not, the last try excepted. */
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
  readonly addingShimMovesPinion?: Depthwards;
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

export interface Limits {
  readonly low: number;
  readonly high: number;
}

/** A job that was checked. */
export interface Ready {
  readonly sign: 1 | -1;
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

/** @throws InputError naming the field */
export function checkJob(job: MeshJob): Ready {
  const spec = requireBand('specBacklashMm', job.specBacklashMm);
  requireNumber('tries', job.tries.length, TRIES);
  const known = job.addingShimMovesPinion ?? CONSTRUCTION_SIGNS[job.construction].addingShimMovesPinion;
  if (!known)
    throw new InputError(
      'construction',
      `construction ${job.construction} has no pinion depth to set.`,
      'one with a pinion shim',
    );
  const sign = depthSign(known);
  const places = job.tries.map((one, i) => {
    requireNumber(`tries[${i}].pinionShimMm`, one.pinionShimMm, MESH_LIMITS.shimMm);
    requireNumber(`tries[${i}].ringShiftMm`, one.ringShiftMm, MESH_LIMITS.moveMm);
    for (const flank of ['drive', 'coast'] as const) {
      const patch = one[flank];
      if (patch)
        for (const axis of ['u', 'v'] as const) requireNumber(`tries[${i}].${flank}.${axis}`, patch[axis], PATCH);
    }
    if (one.backlashMm.length === 0 && i < job.tries.length - 1 && (one.drive ?? one.coast)) return [];
    return requireReadings(`tries[${i}].backlashMm`, one.backlashMm);
  });
  const closing = requireNumber('closingUpMm', job.closingUpMm ?? 0, { min: -1, max: 1, unit: 'mm' });
  const closingSigma = requireNumber('closingUpSigmaMm', job.closingUpSigmaMm ?? 0, { min: 0, max: 1, unit: 'mm' });
  requireNumber('ringTeeth', job.ringTeeth, LIMITS.teeth);
  requireNumber('pinionTeeth', job.pinionTeeth, LIMITS.teeth);
  const ours = job.prior ?? axlePrior({ ...job, middleMm: (spec[0] + spec[1]) / 2 + closing });
  const prior = job.changesPerMm ? { ...ours, perMm: requireChanges(job.changesPerMm) } : ours;
  const first = job.tries[0] as MeshTry;
  // What the ring runs out is taken off both ends: the mean alone says nothing of the least place.
  const runout = meanOf(places.filter((round) => round.length > 0).map(wave));
  const limits = [
    { low: spec[0] + closing + runout, high: spec[1] + closing - runout },
    ...bandsOf(job).map((half) => ({ low: -half, high: half })),
  ];
  const values = job.tries.flatMap((one, i) =>
    valuesOf(one, roundMean(places[i] as readonly number[])).flatMap((value, observed): TryValue[] =>
      value === null
        ? []
        : [{ try: i, observed, value, at: positionOf(one, first, sign), scatter: prior.noise[observed] as number }],
    ),
  );
  return { sign, spec, limits, closing, closingSigma, values, prior, first, last: job.tries.at(-1) as MeshTry, places };
}

export const positionOf = (
  move: { readonly pinionShimMm: number; readonly ringShiftMm: number },
  first: MeshTry,
  sign: 1 | -1,
): Position => ({
  deeperMm: sign * (move.pinionShimMm - first.pinionShimMm),
  closerMm: move.ringShiftMm - first.ringShiftMm,
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
