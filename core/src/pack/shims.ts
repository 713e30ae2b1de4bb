import { InputError, requireNumber } from '../base/errors';
import { SHIM_LIMITS } from './shim-limits';

export interface ShimSide {
  /** Everything in the stack but the shims. */
  readonly fixedMm: number;
  readonly targetMm: number;
}

/** One thickness on the shelf and how many pieces of it there are. */
export interface ShimStock {
  readonly thicknessMm: number;
  readonly count: number;
}

export interface ShimChoice {
  /** Thickest first. */
  readonly piecesMm: readonly number[];
  readonly heightMm: number;
  /** Height less target. */
  readonly errorMm: number;
}

export interface ShimResult {
  readonly sides: readonly ShimChoice[];
  readonly worstErrorMm: number;
  readonly provenBest: boolean;
}

/** Errors closer than this, in mm, are one: no instrument tells them apart. */
export const SAME_MM = 1e-7;
/** Partial stacks looked at before the search gives what it has, unproven. */
const BUDGET = 12_000_000;

/** Stacks as good as each other that are listed, and how many of them are looked at where the search is cut short. */
const LISTED = 1_000_000;
const MET = 400;
/** Share of the search that is given to stacks of few pieces, before the deepest. */
const EARLY = 0.25;

export interface Stack {
  /** How many of each thickness, as indices with repeats, thinnest first. */
  readonly picks: readonly number[];
  /** In units of {@link SAME_MM}. */
  readonly error: number;
}

/** Pairs of pieces that may lie in one stack, by ascending sum; `first` is no thicker than `second`. */
interface Pairs {
  readonly sums: Float64Array;
  readonly first: Uint16Array;
  readonly second: Uint16Array;
}

/** Index of the first of `length` ascending values that is at least `wanted`. */
function firstFrom(wanted: number, length: number, at: (index: number) => number): number {
  let [low, high] = [0, length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (at(middle) < wanted) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** From so many pieces on, pairs are looked up in a table: before that, laying it out costs more than it spares. */
const TABLE_FROM = 4;

/**
 * Every stack of at most `most` pieces that lands within a window. Thicknesses are gone through upwards, and the last two pieces meet
 * in the middle: from both ends of the shelf, or, in stacks of many pieces, in a table of all pairs, sorted by their sum, so that four
 * pieces cost as much as two.
 */
export class Stacks {
  work = 0;
  private readonly thick: Float64Array;
  private readonly counts: readonly number[];
  private table: Pairs | null = null;

  constructor(
    stock: readonly ShimStock[],
    readonly most: number,
    readonly budget = BUDGET,
  ) {
    const byThickness = new Map<number, number>();
    for (const { thicknessMm, count } of stock)
      byThickness.set(thicknessMm, (byThickness.get(thicknessMm) ?? 0) + count);
    const sorted = [...byThickness].filter(([, count]) => count > 0).sort(([a], [b]) => a - b);
    this.thick = Float64Array.from(sorted, ([thickness]) => thickness);
    this.counts = sorted.map(([, count]) => count);
  }

  /** Pairs by ascending sum; laid out when they are first asked for. */
  private pairs(): Pairs {
    if (this.table) return this.table;
    const { thick, counts } = this;
    const n = thick.length;
    const [one, two] = [new Uint16Array((n * (n + 1)) / 2), new Uint16Array((n * (n + 1)) / 2)];
    let length = 0;
    for (let first = 0; first < n; first++)
      for (let second = first; second < n; second++)
        if (second > first || (counts[first] as number) > 1) {
          one[length] = first;
          two[length++] = second;
        }
    const sum = Float64Array.from(
      { length },
      (_, k) => (thick[one[k] as number] as number) + (thick[two[k] as number] as number),
    );
    const order = Uint32Array.from({ length }, (_, k) => k).sort((a, b) => (sum[a] as number) - (sum[b] as number));
    const ordered = (part: Uint16Array): Uint16Array => Uint16Array.from(order, (k) => part[k] as number);
    return (this.table = {
      sums: Float64Array.from(order, (k) => sum[k] as number),
      first: ordered(one),
      second: ordered(two),
    });
  }

  thickness(index: number): number {
    return this.thick[index] as number;
  }

  /** Whether two stacks can be built at the same time. */
  both(a: Stack, b: Stack): boolean {
    for (const index of new Set(a.picks)) {
      const used = a.picks.filter((one) => one === index).length + b.picks.filter((one) => one === index).length;
      if (used > (this.counts[index] as number)) return false;
    }
    return true;
  }

  /** None, each piece alone, and the thickest that still go in, one after the other: what there is however early a search ends. */
  plainest(wanted: number): Stack[] {
    const greedy: number[] = [];
    let rest = wanted;
    for (let i = this.thick.length - 1; i >= 0; i--)
      while (
        greedy.length < this.most - 1 &&
        (this.thick[i] as number) <= rest &&
        countOf(greedy, i) < (this.counts[i] as number)
      ) {
        greedy.push(i);
        rest -= this.thick[i] as number;
      }
    // The last one may go past it.
    const last = [...this.thick].flatMap((mm, i) =>
      greedy.filter((one) => one === i).length < (this.counts[i] as number) && greedy.length < this.most
        ? [{ i, off: Math.abs(mm - rest) }]
        : [],
    );
    const [nearest] = last.sort((a, b) => a.off - b.off);
    const picks = [...greedy, ...(nearest && nearest.off < rest ? [nearest.i] : [])].sort((a, b) => a - b);
    const sum = picks.reduce((mm, i) => mm + this.thickness(i), 0);
    const errorOf = (sum: number): number => Math.round(Math.abs(sum - wanted) / SAME_MM);
    const alone = this.most > 0 ? Array.from(this.thick, (mm, i) => ({ picks: [i], error: errorOf(mm) })) : [];
    return [{ picks: [], error: errorOf(0) }, ...alone, { picks, error: errorOf(sum) }];
  }

  /**
   * Stacks whose sum lies within `window()` of `wanted`; the window may shrink meanwhile.
   * @param most pieces of one stack
   * @param budget looked at when it ends, what was looked at before included
   * @returns false where the budget ran out
   */
  near(
    wanted: number,
    window: () => number,
    found: (stack: Stack) => void,
    most = this.most,
    budget = this.budget,
  ): boolean {
    const { thick, counts } = this;
    const thickest = thick.at(-1) ?? 0;
    const picks: number[] = [];
    const tell = (sum: number, ...more: number[]): void => {
      const error = Math.abs(sum - wanted);
      if (error <= window()) found({ picks: [...picks, ...more], error: Math.round(error / SAME_MM) });
    };
    const left = (index: number): number => (counts[index] as number) - countOf(picks, index);
    const onePiece = (from: number, sum: number): boolean => {
      const least = wanted - window() - sum;
      const start = Math.max(
        from,
        firstFrom(least, thick.length, (i) => thick[i] as number),
      );
      for (let i = start; i < thick.length && sum + (thick[i] as number) - wanted <= window(); i++) {
        if (++this.work > budget) return false;
        if (left(i) > 0) tell(sum + (thick[i] as number), i);
      }
      return true;
    };
    /** From both ends: what the thinner one leaves to be wanted gets less, so the thicker one goes down the shelf with it. */
    const fromBothEnds = (from: number, sum: number): boolean => {
      let high = thick.length - 1;
      for (let i = from; i <= high; i++) {
        const mm = thick[i] as number;
        while (high >= i && sum + mm + (thick[high] as number) - wanted > window()) high--;
        for (let j = high; j >= i && wanted - (sum + mm + (thick[j] as number)) <= window(); j--) {
          if (++this.work > budget) return false;
          if (left(i) >= (i === j ? 2 : 1) && left(j) > 0) tell(sum + (mm + (thick[j] as number)), i, j);
        }
        if (++this.work > budget) return false;
      }
      return true;
    };
    const fromTable = (from: number, sum: number): boolean => {
      const { sums, first, second } = this.pairs();
      const start = firstFrom(wanted - window() - sum, sums.length, (k) => sums[k] as number);
      for (let k = start; k < sums.length && sum + (sums[k] as number) - wanted <= window(); k++) {
        if (++this.work > budget) return false;
        const [a, b] = [first[k] as number, second[k] as number];
        if (a >= from && left(a) >= (a === b ? 2 : 1)) tell(sum + (sums[k] as number), a, b);
      }
      return true;
    };
    const twoPieces = most < TABLE_FROM ? fromBothEnds : fromTable;
    /** Stacks with up to `more` pieces on top of the picks, none thinner than `from`. */
    const go = (from: number, sum: number, more: number): boolean => {
      tell(sum);
      // Even the thickest pieces don't reach the window any more.
      if (more === 0 || wanted - (sum + more * thickest) > window()) return true;
      if (more <= 2) return onePiece(from, sum) && (more === 1 || twoPieces(from, sum));
      for (let i = from; i < thick.length; i++) {
        if (++this.work > budget) return false;
        const thickness = thick[i] as number;
        // Thicker pieces only get further past the window.
        if (sum + thickness - wanted > window()) break;
        if (left(i) <= 0) continue;
        picks.push(i);
        const within = go(i, sum + thickness, more - 1);
        picks.pop();
        if (!within) return false;
      }
      return true;
    };
    return go(0, 0, most);
  }
}

/** How often the last pick is repeated: picks ascend, so equal ones stand at the end. */
function countOf(picks: readonly number[], index: number): number {
  let count = 0;
  for (let i = picks.length - 1; i >= 0 && picks[i] === index; i--) count++;
  return count;
}

/** Without the dust of adding decimal fractions. */
const tidy = (mm: number): number => Number(mm.toFixed(9));

const byError = (a: Stack, b: Stack): number => a.error - b.error || a.picks.length - b.picks.length;

function checkSides(sides: readonly ShimSide[]): void {
  requireNumber('sides', sides.length, SHIM_LIMITS.sides);
  sides.forEach(({ fixedMm, targetMm }, i) => {
    requireNumber(`sides[${i}].fixedMm`, fixedMm, SHIM_LIMITS.fixedMm);
    requireNumber(`sides[${i}].targetMm`, targetMm, SHIM_LIMITS.targetMm);
  });
}

function checkDrawer(stock: readonly ShimStock[], most: number): void {
  requireNumber('stock', stock.length, SHIM_LIMITS.stock);
  requireNumber('maxPiecesPerSide', most, SHIM_LIMITS.maxPiecesPerSide);
  stock.forEach(({ thicknessMm, count }, i) => {
    requireNumber(`stock[${i}].thicknessMm`, thicknessMm, SHIM_LIMITS.thicknessMm);
    requireNumber(`stock[${i}].count`, count, SHIM_LIMITS.count);
  });
}

/**
 * The shims for one side or both from pieces that exist: least worst error over the sides first, then least sum of
 * errors, then fewest pieces. Exact: every stack that could be better is looked at [exact].
 * Not counted: thickness that differs round a piece.
 * @param sides 1 or 2
 * @param stock up to 400 thicknesses with their counts; both sides draw on the same pieces
 * @param maxPiecesPerSide 0 to 6
 * @returns pieces thickest first; `provenBest` false where the stock is so large that the search was cut short
 * @throws InputError naming the field
 */
export function packShims(
  sides: readonly ShimSide[],
  stock: readonly ShimStock[],
  maxPiecesPerSide: number,
): ShimResult {
  return shimsFrom(stock, maxPiecesPerSide)(sides);
}

/**
 * {@link packShims} for one drawer that is asked again and again: its pairs are laid out once.
 * @param budget partial stacks that are looked at before it gives the best that it has met, unproven
 * @throws InputError naming the field, here of the drawer, later of the sides
 */
export function shimsFrom(
  stock: readonly ShimStock[],
  maxPiecesPerSide: number,
  budget = BUDGET,
): (sides: readonly ShimSide[]) => ShimResult {
  checkDrawer(stock, maxPiecesPerSide);
  const stacks = new Stacks(stock, maxPiecesPerSide, budget);
  return (sides) => {
    checkSides(sides);
    stacks.work = 0;
    return nearestOf(sides, stacks);
  };
}

/** The best choice that the stacks of a drawer allow. */
function nearestOf(sides: readonly ShimSide[], stacks: Stacks): ShimResult {
  const wanted = sides.map(({ fixedMm, targetMm }) => targetMm - fixedMm);
  let proven = true;
  /** What was come by on the way: the choice is among these where the search is cut short. */
  const met = wanted.map((goal) => stacks.plainest(goal));
  const nearest = met.map((list) => Math.min(...list.map(({ error }) => error)) * SAME_MM);
  const nearer = (side: number, most: number, budget: number): boolean =>
    stacks.near(
      wanted[side] as number,
      () => nearest[side] as number,
      (stack) => {
        if (stack.error * SAME_MM < (nearest[side] as number)) met[side]?.push(stack);
        nearest[side] = Math.min(nearest[side] as number, stack.error * SAME_MM);
      },
      most,
      budget,
    );
  const exact = (side: number): boolean => (nearest[side] as number) === 0;
  // Few pieces first, and for every side before one has used up the search: it is narrow then when it goes deep.
  wanted.forEach((_, side) => {
    for (let most = 1; most < stacks.most && !exact(side); most++) {
      const share = (EARLY * stacks.budget * (side + 1)) / wanted.length;
      if (!nearer(side, most, share)) break;
    }
  });
  // The nearest stack of each side for itself: no pair can have a smaller worst error.
  wanted.forEach((_, side) => {
    if (!exact(side)) proven = nearer(side, stacks.most, stacks.budget) && proven;
  });
  const spotOn = wanted.every((_, side) => exact(side)) ? fewestExact(wanted, stacks) : null;
  if (spotOn) return resultOf(sides, spotOn, stacks, true);
  let window = Math.max(...nearest) + SAME_MM;
  let chosen: readonly Stack[] | null = null;
  while (!chosen) {
    const lists = wanted.map((goal, side) => {
      const list: Stack[] = [];
      const before = proven;
      let all = true;
      proven =
        stacks.near(
          goal,
          () => window,
          (stack) => {
            if (list.length < LISTED) list.push(stack);
            else all = false;
          },
        ) &&
        all &&
        proven;
      list.sort(byError);
      if (before && !proven) met[side]?.push(...list.slice(0, MET));
      return list;
    });
    chosen = choose(lists, stacks);
    // No shims at all on both sides are always possible, and among what was met.
    if (!proven || window > 1e6) {
      const short = choose(
        met.map((list) => list.sort(byError)),
        stacks,
      );
      if (!chosen || (short && worstOf(short) < worstOf(chosen))) chosen = short;
    }
    window *= 4;
  }
  return resultOf(sides, chosen, stacks, proven);
}

/**
 * The fewest pieces that land spot on at every side, by stacks of one piece, of two, and so on: no error can be smaller, so the first
 * that nothing with more pieces can undercut is the best there is.
 * @returns null where none can be built at the same time, or the search was cut short
 */
function fewestExact(wanted: readonly number[], stacks: Stacks): readonly Stack[] | null {
  const least = wanted.map(() => Number.POSITIVE_INFINITY);
  for (let most = 0; most <= stacks.most; most++) {
    const lists: Stack[][] = [];
    for (const goal of wanted) {
      const list: Stack[] = [];
      let all = true;
      const found = (stack: Stack): void => {
        if (stack.error !== 0) return;
        if (list.length < LISTED) list.push(stack);
        else all = false;
      };
      if (!stacks.near(goal, () => SAME_MM / 2, found, most) || !all) return null;
      list.sort(byError);
      lists.push(list);
    }
    lists.forEach((list, side) => {
      least[side] = Math.min(least[side] as number, list[0]?.picks.length ?? Number.POSITIVE_INFINITY);
    });
    if (lists.some((list) => list.length === 0)) continue;
    const chosen = choose(lists, stacks);
    if (!chosen) continue;
    const pieces = chosen.reduce((sum, { picks }) => sum + picks.length, 0);
    // Whatever else there is has one side with more pieces than were looked at, and the others with their fewest.
    const others = least.map((_, side) => least.reduce((sum, n, i) => (i === side ? sum : sum + n), 0));
    if (most === stacks.most || pieces <= most + 1 + Math.min(...others)) return chosen;
  }
  return null;
}

function resultOf(
  sides: readonly ShimSide[],
  chosen: readonly Stack[],
  stacks: Stacks,
  provenBest: boolean,
): ShimResult {
  const result = chosen.map((stack, i): ShimChoice => {
    const piecesMm = stack.picks.map((index) => stacks.thickness(index)).reverse();
    const heightMm = tidy(piecesMm.reduce((sum, piece) => sum + piece, (sides[i] as ShimSide).fixedMm));
    return { piecesMm, heightMm, errorMm: tidy(heightMm - (sides[i] as ShimSide).targetMm) };
  });
  return {
    sides: result,
    worstErrorMm: Math.max(...result.map(({ errorMm }) => Math.abs(errorMm))),
    provenBest,
  };
}

const worstOf = (stacks: readonly Stack[]): number => Math.max(...stacks.map(({ error }) => error));

/** The best of what can be built together; lists are sorted by error, then pieces. */
function choose(lists: readonly (readonly Stack[])[], stacks: Stacks): readonly Stack[] | null {
  const [left, right] = lists;
  if (!left) throw new InputError('sides', 'sides is empty.', 'one side or two');
  if (!right) return left[0] ? [left[0]] : null;
  let best: { pair: readonly Stack[]; worst: number; sum: number; pieces: number } | null = null;
  for (const a of left) {
    if (best && a.error > best.worst) break;
    for (const b of right) {
      const worst = Math.max(a.error, b.error);
      if (best && worst > best.worst) break;
      if (!stacks.both(a, b)) continue;
      const [sum, pieces] = [a.error + b.error, a.picks.length + b.picks.length];
      if (!best || worst < best.worst || sum < best.sum || (sum === best.sum && pieces < best.pieces))
        best = { pair: [a, b], worst, sum, pieces };
      // For this left stack the first that goes with it is the best.
      break;
    }
  }
  return best?.pair ?? null;
}
