import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';
import { normalAbove, normalBetween } from '../normal';
import type { ShimStock } from '../pack/shims';
import { normalFrom, seededRandom } from '../random';
import { shimPacker } from '../shim/pack';
import {
  OBSERVED,
  axlePrior,
  drawAxles,
  learnAxle,
  predictor,
  readingOf,
  type AxlePrior,
  type Observed,
  type Position,
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
  /** Evenly spaced round the ring. */
  readonly backlashMm: readonly number[];
  readonly drive: Patch;
  readonly coast: Patch;
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
  /** What is thought of such an axle before it was read, e.g. learned from the shop's own; ours unless told. */
  readonly prior?: AxlePrior;
}

export interface MeshMove {
  readonly pinionShimMm: number;
  readonly ringShiftMm: number;
  /** Pieces of the stock for that shim. */
  readonly piecesMm?: readonly number[];
}

export interface MeshExpected {
  /** Mean round the ring, as it would be read in this state. */
  readonly backlashMm: number;
  readonly drive: Patch;
  readonly coast: Patch;
}

export interface MeshAdvice {
  /** Every reading of the last try is in band. */
  readonly done: boolean;
  readonly next: MeshMove | null;
  readonly expected: MeshExpected | null;
  /** That backlash all round and both flanks are in band then. */
  readonly chanceInSpec: number | null;
  readonly secondBest: (MeshMove & { readonly chanceInSpec: number }) | null;
  /** What of the last try is out of band. */
  readonly out: readonly Observed[];
  /** Readings that don't fit the others, worst first; `chance` that they are simply wrong. */
  readonly doubtful: readonly { readonly try: number; readonly reading: Observed; readonly chance: number }[];
}

/** Ours: the loaded flank is held to less. */
export const PATTERN_BAND: PatternBand = { drive: { u: 0.32, v: 0.22 }, coast: { u: 0.36, v: 0.27 } };
/** Ours: a reading is named as one that does not fit from this chance on. */
const DOUBTFUL = 0.5;
const STEPS = { pinionMm: 0.025, ringMm: 0.025 };
const TRIES = { min: 1, max: 40, integer: true } as const;
/** Moves that are looked at closely, and draws of the axle for each. */
const CLOSE = 60;
const DRAWS = 500;
/** Farthest from the best guess that is looked at, in steps, and never more than so far in mm. */
const REACH = 40;
const FARTHEST_MM = 1.5;

const PATCH = { min: -1.5, max: 1.5 };

interface Limits {
  readonly low: number;
  readonly high: number;
}

/** A job that was checked. */
interface Ready {
  readonly sign: 1 | -1;
  readonly spec: BandMm;
  /** Limits of each reading's mean, in this state. */
  readonly limits: readonly Limits[];
  readonly closing: number;
  readonly closingSigma: number;
  readonly values: readonly Value[];
  readonly prior: AxlePrior;
  readonly first: MeshTry;
  readonly last: MeshTry;
  readonly places: readonly (readonly number[])[];
}

const valuesOf = ({ drive, coast }: MeshTry, backlash: number): readonly number[] => [
  backlash,
  drive.u,
  drive.v,
  coast.u,
  coast.v,
];
const meanOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

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

function check(job: MeshJob): Ready {
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
    for (const flank of ['drive', 'coast'] as const)
      for (const axis of ['u', 'v'] as const) requireNumber(`tries[${i}].${flank}.${axis}`, one[flank][axis], PATCH);
    return requireReadings(`tries[${i}].backlashMm`, one.backlashMm);
  });
  const closing = requireNumber('closingUpMm', job.closingUpMm ?? 0, { min: -1, max: 1, unit: 'mm' });
  const closingSigma = requireNumber('closingUpSigmaMm', job.closingUpSigmaMm ?? 0, { min: 0, max: 1, unit: 'mm' });
  requireNumber('ringTeeth', job.ringTeeth, LIMITS.teeth);
  requireNumber('pinionTeeth', job.pinionTeeth, LIMITS.teeth);
  const prior = job.prior ?? axlePrior({ ...job, middleMm: (spec[0] + spec[1]) / 2 + closing });
  const first = job.tries[0] as MeshTry;
  // What the ring runs out is taken off both ends: the mean alone says nothing of the least place.
  const runout = meanOf(places.map(wave));
  const limits = [
    { low: spec[0] + closing + runout, high: spec[1] + closing - runout },
    ...bandsOf(job).map((half) => ({ low: -half, high: half })),
  ];
  const values = job.tries.flatMap((one, i) =>
    valuesOf(one, meanOf(places[i] as readonly number[])).map((value, observed): Value => ({
      observed,
      value,
      at: positionOf(one, first, sign),
      scatter: prior.noise[observed] as number,
    })),
  );
  return { sign, spec, limits, closing, closingSigma, values, prior, first, last: job.tries.at(-1) as MeshTry, places };
}

const positionOf = (move: MeshMove, first: MeshTry, sign: 1 | -1): Position => ({
  deeperMm: sign * (move.pinionShimMm - first.pinionShimMm),
  closerMm: move.ringShiftMm - first.ringShiftMm,
});

type Predictor = ReturnType<typeof predictor>;

/** Chance that all is in band, each reading taken for itself: quick, and good enough to put moves in order. */
function roughChance(of: readonly Predictor[], { limits, closingSigma }: Ready, at: Position): number {
  let chance = 1;
  limits.forEach(({ low, high }, observed) => {
    const { mean, variance } = (of[observed] as Predictor)(at);
    const deviation = Math.sqrt(Math.max(0, variance) + (observed === 0 ? closingSigma ** 2 : 0));
    // A band that run-out has eaten up leaves an order all the same: nearest to the middle first.
    chance *=
      high > low
        ? normalBetween(low, high, mean, deviation)
        : 1e-3 * 2 * normalAbove(Math.abs(mean - (low + high) / 2) / Math.max(deviation, 1e-6));
  });
  return chance;
}

/** The steps round the best guess, or the packs that the stock holds. */
function moves(job: MeshJob, ready: Ready, of: readonly Predictor[]): readonly MeshMove[] {
  const { first, sign } = ready;
  const steps = job.steps ?? STEPS;
  const pinionStep = requireNumber('steps.pinionMm', steps.pinionMm, { above: 0, max: 5, unit: 'mm' });
  const ringStep = requireNumber('steps.ringMm', steps.ringMm, { above: 0, max: 5, unit: 'mm' });
  const guess = bestGuess(of, ready);
  const pinions = job.stock
    ? packs(job.stock, first.pinionShimMm + sign * guess.deeperMm, pinionStep)
    : about(first.pinionShimMm, first.pinionShimMm + sign * guess.deeperMm, pinionStep)
        .filter((mm) => mm >= 0)
        .map((pinionShimMm): Omit<MeshMove, 'ringShiftMm'> => ({ pinionShimMm }));
  const rings = about(first.ringShiftMm, first.ringShiftMm + guess.closerMm, ringStep);
  return pinions.flatMap((pinion) => rings.map((ringShiftMm) => ({ ...pinion, ringShiftMm })));
}

const tidy = (mm: number): number => Number(mm.toFixed(6)) + 0;

/** Whole steps from a place, round another one. */
function about(from: number, middle: number, step: number): readonly number[] {
  const at = Math.round((middle - from) / step);
  const reach = Math.min(REACH, Math.max(3, Math.ceil(0.3 / step)));
  return Array.from({ length: 2 * reach + 1 }, (_, i) => tidy(from + (at - reach + i) * step));
}

/** Packs of the stock near a shim, each sum once. */
function packs(stock: readonly ShimStock[], middle: number, step: number): readonly Omit<MeshMove, 'ringShiftMm'>[] {
  const packOf = shimPacker(stock, { maxPieces: 4, thinBelowMm: 0.1 });
  const found = new Map<number, readonly number[]>();
  for (const wanted of about(middle, middle, Math.min(step, 0.025))) {
    if (wanted < 0) continue;
    const { piecesMm } = packOf(wanted);
    const sum = tidy(piecesMm.reduce((a, b) => a + b, 0));
    if (piecesMm.length > 0) found.set(sum, piecesMm);
  }
  return [...found].map(([pinionShimMm, piecesMm]) => ({ pinionShimMm, piecesMm }));
}

/** Where what is expected comes nearest to the middle of every band: two equations, least squares weighed by the bands. */
function bestGuess(of: readonly Predictor[], { limits }: Ready): Position {
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

/** Chance that all is in band at once, by draws of what the axle may be; the same draws for every move. */
function closeChance(
  axles: readonly Float64Array[],
  closing: readonly number[],
  { limits }: Ready,
  at: Position,
): number {
  let inside = 0;
  axles.forEach((axle, i) => {
    for (let observed = 0; observed < limits.length; observed++) {
      const { low, high } = limits[observed] as Limits;
      const value = readingOf(axle, observed, at) + (observed === 0 ? (closing[i] as number) : 0);
      if (value < low || value > high) return;
    }
    inside++;
  });
  return inside / axles.length;
}

/** What of a try is out of band: every place of the backlash counts. */
function outOf({ last, places, spec, closing, limits }: Ready): readonly Observed[] {
  const round = places.at(-1) as readonly number[];
  return OBSERVED.filter((_, observed) => {
    if (observed === 0)
      return Math.min(...round) - closing < spec[0] - 1e-9 || Math.max(...round) - closing > spec[1] + 1e-9;
    const value = valuesOf(last, 0)[observed] as number;
    const { low, high } = limits[observed] as Limits;
    return value < low - 1e-9 || value > high + 1e-9;
  });
}

/**
 * The next move of a set-up: pinion shim and ring position with the best chance that backlash all round and both flanks are in
 * band, out of moves that exist. It believes an axle to be straight: each reading changes in proportion to depth and ring position,
 * with sensitivities that are uncertain, learned with every try, and readings that do not fit the others weighed down
 * [exact for what it assumes: Bayes on normal distributions; the first guesses are ours, from memory].
 *
 * Not counted: bends of the sensitivities over large moves, a state that changes between tries other than by `closingUpMm`, and
 * whether more than one assembly is planned: the best single move is taken.
 * @throws InputError naming the field
 */
export function meshAdvise(job: MeshJob): MeshAdvice {
  const ready = check(job);
  const { belief, wrong } = learnAxle(ready.prior, ready.values);
  const out = outOf(ready);
  const doubtful = wrong
    .map((chance, i) => ({
      try: Math.floor(i / OBSERVED.length),
      reading: OBSERVED[i % OBSERVED.length] as Observed,
      chance,
    }))
    .filter(({ chance }) => chance > DOUBTFUL)
    .sort((a, b) => b.chance - a.chance);
  if (out.length === 0)
    return { done: true, next: null, expected: null, chanceInSpec: null, secondBest: null, out, doubtful };
  const at = (move: MeshMove): Position => positionOf(move, ready.first, ready.sign);
  const of = OBSERVED.map((_, observed) => predictor(belief, observed));
  const rough = moves(job, ready, of)
    .map((move) => ({ move, chance: roughChance(of, ready, at(move)) }))
    .sort((a, b) => b.chance - a.chance)
    .slice(0, CLOSE);
  const normal = normalFrom(seededRandom(1));
  const axles = drawAxles(belief, DRAWS, normal);
  const closing = axles.map(() => normal() * ready.closingSigma);
  const [best, second] = rough
    .map(({ move, chance }) => ({ move, rough: chance, chance: closeChance(axles, closing, ready, at(move)) }))
    .sort((a, b) => b.chance - a.chance || b.rough - a.rough);
  if (!best) throw new InputError('stock', 'stock has no pack that can be built here.', 'shims for the pinion');
  const expected = of.map((predicted) => predicted(at(best.move)).mean) as [number, number, number, number, number];
  return {
    done: false,
    next: best.move,
    expected: {
      backlashMm: expected[0],
      drive: { u: expected[1], v: expected[2] },
      coast: { u: expected[3], v: expected[4] },
    },
    chanceInSpec: best.chance,
    secondBest: second ? { ...second.move, chanceInSpec: second.chance } : null,
    out,
    doubtful,
  };
}
