import { normalFrom, seededRandom } from '../base/random';
import { OBSERVED, drawAxles, learnAxle, predictor, readingOf, type Position } from './axle-model';
import { bestGuess, checkJob, moveTo, positionOf, type Limits, type MeshJob, type Ready, type Suspect } from './job';

/** A place of the set-up map. */
export interface MapPoint {
  readonly pinionShimMm: number;
  /** Towards the pinion, from the first try. */
  readonly ringShiftMm: number;
}

export interface MeshMap {
  readonly tries: readonly MapPoint[];
  /** Corners of where everything is expected in band, in order; empty where run-out leaves nothing. */
  readonly window: readonly MapPoint[];
  /** Where everything is expected nearest to the middle of its band. */
  readonly target: MapPoint;
  /** Ellipse of one deviation round the target: half axes in map directions turned by the angle, ring over shim. */
  readonly spread: { readonly majorMm: number; readonly minorMm: number; readonly angleDeg: number };
}

type Corner = readonly [number, number];
/** Half of the plane that is looked at round the target. */
const REACH_MM = 3;
const DRAWS = 300;

/** The part of a polygon on one side of a line: a + b·x + c·y ≥ 0 [Sutherland and Hodgman]. */
function cut(polygon: readonly Corner[], a: number, b: number, c: number): readonly Corner[] {
  const side = ([x, y]: Corner): number => a + b * x + c * y;
  return polygon.flatMap((corner, i) => {
    const before = polygon.at(i - 1) as Corner;
    const [now, was] = [side(corner), side(before)];
    const share = was / (was - now);
    const crossing: Corner = [before[0] + share * (corner[0] - before[0]), before[1] + share * (corner[1] - before[1])];
    if (now >= 0) return was >= 0 ? [corner] : [crossing, corner];
    return was >= 0 ? [crossing] : [];
  });
}

/** The axes of a covariance. */
function ellipseOf(xx: number, xy: number, yy: number): MeshMap['spread'] {
  const middle = (xx + yy) / 2;
  const apart = Math.hypot((xx - yy) / 2, xy);
  return {
    majorMm: Math.sqrt(Math.max(0, middle + apart)),
    minorMm: Math.sqrt(Math.max(0, middle - apart)),
    angleDeg: (Math.atan2(2 * xy, xx - yy) * 90) / Math.PI,
  };
}

/** Where one axle of many would have everything nearest to the middle of its band. */
const rightOf = (axle: Float64Array, ready: Ready): Position =>
  bestGuess(
    OBSERVED.map((_, observed) => (at: Position) => ({ mean: readingOf(axle, observed, at), variance: 0 })),
    ready,
  );

/**
 * The set-up map: every try, the window in which backlash all round and both flanks are expected in band, and where the right
 * place is, with its spread. The window is cut out by the ten limits, each a straight line in shim and ring position.
 * Not counted: what the stock holds; how uncertain the window itself is (the chance of a move is, see `meshAdvise`).
 * @param as what is taken to be the other way round than it was told, see `meshAdvise`
 * @throws InputError naming the field
 */
export function meshMap(job: MeshJob, as: Suspect | null = null): MeshMap {
  const ready = checkJob(job, as);
  const { limits, sign, ringSign } = ready;
  const { belief } = learnAxle(ready.prior, ready.values);
  const of = OBSERVED.map((_, observed) => predictor(belief, observed));
  const point = (at: Position): MapPoint => moveTo(at, ready);
  const target = bestGuess(of, ready);
  const [x, y] = [target.deeperMm, target.closerMm];
  let corners: readonly Corner[] = [
    [x - REACH_MM, y - REACH_MM],
    [x + REACH_MM, y - REACH_MM],
    [x + REACH_MM, y + REACH_MM],
    [x - REACH_MM, y + REACH_MM],
  ];
  of.forEach((predicted, observed) => {
    const { low, high } = limits[observed] as Limits;
    const mean = (deeperMm: number, closerMm: number): number => predicted({ deeperMm, closerMm }).mean;
    const base = mean(0, 0);
    const [b, c] = [mean(1, 0) - base, mean(0, 1) - base];
    corners = cut(cut(corners, base - low, b, c), high - base, -b, -c);
  });
  const places = drawAxles(belief, DRAWS, normalFrom(seededRandom(2))).map((axle) => rightOf(axle, ready));
  const about = (of: (at: Position) => number, and: (at: Position) => number): number =>
    places.reduce((sum, at) => sum + of(at) * and(at), 0) / DRAWS;
  const [mx, my] = [
    about(
      (at) => at.deeperMm,
      () => 1,
    ),
    about(
      (at) => at.closerMm,
      () => 1,
    ),
  ];
  const dx = (at: Position): number => sign * (at.deeperMm - mx);
  const dy = (at: Position): number => ringSign * (at.closerMm - my);
  return {
    tries: job.tries.map((one) => point(positionOf(one, ready))),
    window: corners.map(([deeperMm, closerMm]) => point({ deeperMm, closerMm })),
    target: point(target),
    spread: ellipseOf(about(dx, dx), about(dx, dy), about(dy, dy)),
  };
}
