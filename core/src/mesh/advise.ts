import { InputError, requireNumber } from '../base/errors';
import { chiSquaredAbove, normalAbove, normalBetween } from '../base/normal';
import type { ShimStock } from '../pack/shims';
import { normalFrom, seededRandom } from '../base/random';
import { shimPacker } from '../shim/pack';
import {
  OBSERVED,
  beliefBy,
  drawAxles,
  misfit,
  oddness,
  predictor,
  readingOf,
  type Belief,
  type Learned,
  type Observed,
  type Position,
} from './axle-model';
import {
  bestGuess,
  moveTo,
  positionOf,
  valuesOf,
  type Limits,
  type MeshJob,
  type Patch,
  type Predictor,
  type Ready,
  type Suspect,
  type TryValue,
} from './job';
import { likeliest, type Suspected } from './suspects';

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

/** What has to be read before anything can be judged. */
export type Needed = 'backlash' | 'pattern';

export interface MeshAdvice {
  /** Every reading of the last try is in band, and no other move is clearly likelier to be, by all that was read before. */
  readonly done: boolean;
  /** What is to be read first: nothing is proposed before. */
  readonly needs: Needed | null;
  /** Null only where it is done or something has to be read first. */
  readonly next: MeshMove | null;
  readonly expected: MeshExpected | null;
  /** That backlash all round and both flanks are in band then; where it is done, that they truly are. */
  readonly chanceInSpec: number | null;
  readonly secondBest: (MeshMove & { readonly chanceInSpec: number }) | null;
  /**
   * The reading of the last try to take again before anything is taken apart, and the chance then; null: none. `worth`: it brings
   * chance; `unlikely`: a gauge read what all else speaks against, and nobody has confirmed it.
   */
  readonly readAgain: {
    readonly reading: 'backlash' | 'pattern';
    readonly why: 'worth' | 'unlikely';
    readonly chanceInSpec: number;
  } | null;
  /** What of the last try is out of band. */
  readonly out: readonly Observed[];
  /** Readings that don't fit the others, worst first; `chance` that they are simply wrong. */
  readonly doubtful: readonly { readonly try: number; readonly reading: Observed; readonly chance: number }[];
  /** What may have been told the wrong way round, likeliest first; `next` and `expected` go by the likeliest way of reading it all. */
  readonly suspects: readonly Suspected[];
  /** What of it `next` goes by; null: as it was told. */
  readonly as: Suspect | null;
  /** Chance that an axle of this construction gives such readings, where it is too small to believe; null otherwise. */
  readonly contradiction: number | null;
  /** The shim that the readings ask for, where that is less than nothing: there is none. */
  readonly belowZeroMm: number | null;
}

/** Ours: a reading is named as one that does not fit from this chance on. */
const DOUBTFUL = 0.5;
/** Ours: a minute's reading is worth it from so much more chance on. */
const WORTH_READING = 0.08;
/** Ours: in band as it was read, but another move is likelier by so much: it is not called done. */
const LIKELIER = 0.15;
/** Ours: below this chance a move is not worth an assembly; the screen withholds it, the answer does not. */
export const WORTH_AN_ASSEMBLY = 0.1;
/** Ours: in band on fewer places than this is not known to be in band all round. */
const PLACES_FOR_DONE = 4;
/** Ours: a gauge's mean so many deviations off is read again before it is believed. */
const UNLIKELY = 4;
/** Ours: readings that fewer axles than this would give contradict each other. */
const CONTRADICTS = 0.001;
const STEPS = { pinionMm: 0.025, ringMm: 0.025 };
/** Moves that are looked at closely, and draws of the axle for each. */
const CLOSE = 50;
const DRAWS = 500;
/** Farthest from the best guess that is looked at, in steps. */
const REACH = 40;

/** Chance that all is in band, each reading taken for itself: quick, and good enough to put moves in order. */
export function roughChance(of: readonly Predictor[], { limits, closingSigma }: Ready, at: Position): number {
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
export function movesOf(job: MeshJob, ready: Ready, of: readonly Predictor[]): readonly MeshMove[] {
  const { first } = ready;
  const steps = job.steps ?? STEPS;
  const pinionStep = requireNumber('steps.pinionMm', steps.pinionMm, { above: 0, max: 5, unit: 'mm' });
  const ringStep = requireNumber('steps.ringMm', steps.ringMm, { above: 0, max: 5, unit: 'mm' });
  const guess = moveTo(bestGuess(of, ready), ready);
  // A shim of less than nothing is none: what comes nearest is looked at, and it is said (see `belowZeroMm`).
  const wanted = Math.max(0, guess.pinionShimMm);
  const pinions = job.stock
    ? packs(job.stock, wanted, pinionStep)
    : about(first.pinionShimMm, wanted, pinionStep)
        .filter((mm) => mm >= 0)
        .map((pinionShimMm): Omit<MeshMove, 'ringShiftMm'> => ({ pinionShimMm }));
  const rings = about(first.ringShiftMm, guess.ringShiftMm, ringStep);
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

/** Chance that all is in band at once, by draws of what the axle may be; the same draws for every move. */
export function closeChance(
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

/** What of the last try is out of band or was not read: every place of the backlash counts. */
function outOf({ last, places, spec, closing, limits }: Ready): readonly Observed[] {
  const round = places.at(-1) as readonly number[];
  return OBSERVED.filter((_, observed) => {
    if (observed === 0 && round.length === 0) return true;
    if (observed === 0)
      return Math.min(...round) - closing < spec[0] - 1e-9 || Math.max(...round) - closing > spec[1] + 1e-9;
    const value = valuesOf(last, 0)[observed] ?? null;
    const { low, high } = limits[observed] as Limits;
    // What was not read is not in band.
    return value === null || value < low - 1e-9 || value > high + 1e-9;
  });
}

/** The best moves out of those that exist, with their chance; best first. And the chance of leaving it as it is. */
function bestMoves(
  job: MeshJob,
  ready: Ready,
  belief: Belief,
): { readonly best: readonly (MeshMove & { readonly chanceInSpec: number })[]; readonly here: number } {
  const at = (move: MeshMove): Position => positionOf(move, ready);
  const of = OBSERVED.map((_, observed) => predictor(belief, observed));
  const rough = movesOf(job, ready, of)
    .map((move) => ({ move, chance: roughChance(of, ready, at(move)) }))
    .sort((a, b) => b.chance - a.chance)
    .slice(0, CLOSE);
  const normal = normalFrom(seededRandom(1));
  const axles = drawAxles(belief, DRAWS, normal);
  const closing = axles.map(() => normal() * ready.closingSigma);
  const fresh = drawAxles(belief, DRAWS, normal);
  const freshClosing = fresh.map(() => normal() * ready.closingSigma);
  const best = rough
    .map(({ move, chance }) => ({ move, rough: chance, chance: closeChance(axles, closing, ready, at(move)) }))
    .sort((a, b) => b.chance - a.chance || b.rough - a.rough)
    .slice(0, 2)
    // Told by other draws than it was chosen by: the luckiest of many looks better than it is.
    .map(({ move }) => ({ ...move, chanceInSpec: closeChance(fresh, freshClosing, ready, at(move)) }));
  return { best, here: closeChance(axles, closing, ready, at(ready.last)) };
}

/**
 * What reading the last try once more would be worth: the chance of the best move if a second reading said the same as the first,
 * so that both together scatter less.
 */
function readAgain(ready: Ready, { belief, wrong }: Learned, best: MeshMove, now: number): MeshAdvice['readAgain'] {
  // Nothing can bring so much more than certainty.
  if (now > 1 - WORTH_READING) return null;
  const last = ready.values.at(-1)?.try;
  const at = positionOf(best, ready);
  const once = (backlash: boolean): number => {
    const values = ready.values.map((value, i) => {
      const twice = value.try === last && (value.observed === 0) === backlash;
      const weight = Math.max(1e-4, 1 - (wrong[i] as number)) * (twice ? 2 : 1);
      return { ...value, scatter: value.scatter / Math.sqrt(weight) };
    });
    const again = beliefBy(ready.prior, values, belief);
    const normal = normalFrom(seededRandom(1));
    const axles = drawAxles(again, DRAWS, normal);
    return closeChance(
      axles,
      axles.map(() => normal() * ready.closingSigma),
      ready,
      at,
    );
  };
  const [pattern, backlash] = [once(false), once(true)];
  const then = Math.max(pattern, backlash);
  if (then - now < WORTH_READING) return null;
  return { reading: pattern >= backlash ? 'pattern' : 'backlash', why: 'worth', chanceInSpec: then };
}

/**
 * A gauge's mean of the last try that all else speaks against, not confirmed by another reading of the same assembly: it is read again
 * before it is believed.
 */
function unlikelyBacklash(ready: Ready, learned: Learned): boolean {
  const { values, prior } = ready;
  const last = values.findLast(({ observed }) => observed === 0);
  if (!last || last.wrongShare !== 0 || last.try !== (values.at(-1)?.try ?? 0)) return false;
  const same = (one: TryValue): boolean =>
    one !== last &&
    one.observed === 0 &&
    one.wrongShare === 0 &&
    one.at.deeperMm === last.at.deeperMm &&
    one.at.closerMm === last.at.closerMm;
  if (values.some(same)) return false;
  return oddness(prior, values, learned, values.indexOf(last)) > UNLIKELY;
}

/** What is to be read first: backlash that is missing or stands on too few places, then any pattern at all. */
function neededOf({ values, places }: Ready, out: readonly Observed[]): Needed | null {
  const round = places.at(-1) as readonly number[];
  if (round.length === 0 || (out.length === 0 && round.length < PLACES_FOR_DONE)) return 'backlash';
  return values.some(({ observed }) => observed > 0) ? null : 'pattern';
}

/**
 * Chance that axles as they are expected fit at least as badly; null where that is nothing to doubt, or where one reading that is simply
 * wrong explains it.
 */
function contradictionOf({ prior, values }: Ready, { belief, wrong }: Learned): number | null {
  const chanceOf = (of: readonly TryValue[]): number => chiSquaredAbove(misfit(prior, of, belief), of.length);
  const chance = chanceOf(values);
  if (chance >= CONTRADICTS) return null;
  const worst = wrong.indexOf(Math.max(...wrong));
  const without = (wrong[worst] as number) > DOUBTFUL ? chanceOf(values.filter((_, i) => i !== worst)) : 0;
  return without >= CONTRADICTS ? null : chance;
}

/**
 * The next move of a set-up: pinion shim and ring position with the best chance that backlash all round and both flanks are in
 * band, out of moves that exist. It believes an axle to be straight: each reading changes in proportion to depth and ring position,
 * with sensitivities that are uncertain, learned with every try, and readings that do not fit the others weighed down
 * [exact for what it assumes: Bayes on normal distributions; the first guesses are ours, from memory]. From the second place on it
 * also weighs whether the shim, the side of the ring or the flanks were told the wrong way round.
 *
 * Not counted: bends of the sensitivities over large moves, a state that changes between tries other than by `closingUpMm`, and
 * whether more than one assembly is planned: the best single move is taken.
 * @throws InputError naming the field; `addingShimMovesPinion` for a box shaft of which nobody has said what its shim does
 */
export function meshAdvise(job: MeshJob): MeshAdvice {
  const { as, ready, learned, suspects } = likeliest(job);
  const { belief, wrong } = learned;
  const out = outOf(ready);
  const unlike = unlikelyBacklash(ready, learned);
  const doubtful = wrong
    .map((chance, i) => {
      const { try: of, observed } = ready.values[i] as TryValue;
      return { try: of, reading: OBSERVED[observed] as Observed, chance };
    })
    // A gauge's mean that all else speaks against is read again: until then neither it nor what it speaks against is called wrong.
    .filter(({ chance, reading }) => chance > DOUBTFUL && !(unlike && reading === 'backlash'))
    .sort((a, b) => b.chance - a.chance);
  const needs = neededOf(ready, out);
  const common = { out, doubtful, suspects, as, belowZeroMm: null };
  const nothing = { next: null, expected: null, secondBest: null } as const;
  if (needs)
    return { ...common, ...nothing, done: false, needs, chanceInSpec: null, readAgain: null, contradiction: null };
  const contradiction = contradictionOf(ready, learned);
  const {
    best: [best, second],
    here,
  } = bestMoves(job, ready, belief);
  const unlikely = unlike
    ? ({ reading: 'backlash', why: 'unlikely', chanceInSpec: best?.chanceInSpec ?? here } as const)
    : null;
  if (out.length === 0 && (!best || here > best.chanceInSpec - LIKELIER))
    return {
      ...common,
      ...nothing,
      done: true,
      needs: null,
      chanceInSpec: here,
      readAgain: unlikely ?? readAgain(ready, learned, ready.last, here),
      contradiction,
    };
  if (!best) throw new InputError('stock', 'stock has no pack that can be built here.', 'shims for the pinion');
  const { chanceInSpec, ...next } = best;
  const of = OBSERVED.map((_, observed) => predictor(belief, observed));
  const expected = of.map((predicted) => predicted(positionOf(next, ready)).mean) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const wanted = moveTo(bestGuess(of, ready), ready).pinionShimMm;
  return {
    ...common,
    done: false,
    needs: null,
    next,
    expected: {
      backlashMm: expected[0],
      drive: { u: expected[1], v: expected[2] },
      coast: { u: expected[3], v: expected[4] },
    },
    chanceInSpec,
    secondBest: second ?? null,
    readAgain: unlikely ?? readAgain(ready, learned, next, chanceInSpec),
    contradiction,
    belowZeroMm: wanted < -1e-9 ? wanted : null,
  };
}
