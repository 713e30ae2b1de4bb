import { normalFrom, seededRandom } from '../base/random';
import { closeChance, movesOf, roughChance, type MeshMove } from './advise';
import {
  OBSERVED,
  beliefBy,
  drawAxles,
  learnAxle,
  predictor,
  readingOf,
  type Belief,
  type Position,
} from './axle-model';
import {
  bestGuess,
  checkJob,
  positionOf,
  type Limits,
  type MeshJob,
  type Ready,
  type Suspect,
  type TryValue,
} from './job';

export interface BoldMove {
  readonly move: MeshMove;
  /** That all is in band with this assembly or the one after it; and the same of the move that is likeliest by itself. */
  readonly chanceWithinTwo: number;
  readonly plainWithinTwo: number;
}

/** Ours: how much farther in depth and with the ring a bold move goes, mm, and what it has to bring. */
const BOLD = {
  depthMm: [-0.2, -0.1, 0, 0.1, 0.2],
  ringMm: [-0.15, 0, 0.15],
  worth: 0.02,
  outcomes: 24,
  draws: 200,
} as const;

/** What is believed once a move was made and read on an axle like this. */
function afterReading(ready: Ready, belief: Belief, axle: Float64Array, at: Position, normal: () => number): Belief {
  const read = OBSERVED.map((_, observed): TryValue => {
    const scatter = ready.prior.noise[observed] as number;
    return {
      try: ready.values.length,
      observed,
      at,
      scatter,
      value: readingOf(axle, observed, at) + scatter * normal(),
    };
  });
  return beliefBy(ready.prior, [...ready.values, ...read], belief);
}

/** That a move, or the best one after it, brings everything in. */
function withinTwo(ready: Ready, belief: Belief, at: Position): number {
  const normal = normalFrom(seededRandom(3));
  const axles = drawAxles(belief, BOLD.draws, normal);
  const closing = axles.map(() => normal() * ready.closingSigma);
  const now = closeChance(axles, closing, ready, at);
  const inside = (axle: Float64Array): boolean =>
    ready.limits.every(({ low, high }: Limits, observed) => {
      const value = readingOf(axle, observed, at);
      return value >= low && value <= high;
    });
  let later = 0;
  const outside = axles.filter((axle) => !inside(axle)).slice(0, BOLD.outcomes);
  for (const axle of outside) {
    const after = afterReading(ready, belief, axle, at, normal);
    const of = OBSERVED.map((_, observed) => predictor(after, observed));
    later += roughChance(of, ready, bestGuess(of, ready)) / outside.length;
  }
  return now + (1 - now) * later;
}

/**
 * The move that looks two assemblies ahead, where it goes farther than the likeliest one and is worth it: what is learned of the
 * axle makes up for a smaller chance now. Null where the likeliest move is as good.
 * Not counted: readings that are simply wrong; the assembly after it is taken to stand anywhere, not only where the stock allows.
 * @param as what the likeliest move takes to be the other way round than it was told
 * @throws InputError naming the field
 */
export function boldMove(job: MeshJob, plain: MeshMove, as: Suspect | null = null): BoldMove | null {
  const ready = checkJob(job, as);
  const { belief } = learnAxle(ready.prior, ready.values);
  const at = (move: MeshMove): Position => positionOf(move, ready);
  const of = OBSERVED.map((_, observed) => predictor(belief, observed));
  const exist = movesOf(job, ready, of);
  const here = at(plain);
  const plainWithinTwo = withinTwo(ready, belief, here);
  let best: BoldMove | null = null;
  const seen = new Set<MeshMove>();
  for (const depth of BOLD.depthMm)
    for (const ring of BOLD.ringMm) {
      if (depth === 0 && ring === 0) continue;
      const wanted = { deeperMm: here.deeperMm + depth, closerMm: here.closerMm + ring };
      const off = (move: MeshMove): number =>
        Math.hypot(at(move).deeperMm - wanted.deeperMm, at(move).closerMm - wanted.closerMm);
      const move = exist.reduce<MeshMove | null>((near, one) => (!near || off(one) < off(near) ? one : near), null);
      if (!move || seen.has(move)) continue;
      seen.add(move);
      const chanceWithinTwo = withinTwo(ready, belief, at(move));
      if (chanceWithinTwo > plainWithinTwo + BOLD.worth && chanceWithinTwo > (best?.chanceWithinTwo ?? 0))
        best = { move, chanceWithinTwo, plainWithinTwo };
    }
  return best;
}
