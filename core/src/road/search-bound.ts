import { meet, sums, tableAt, type GearTable, type Grid, type Straight } from './pace';
import type { Car } from './vehicle';

/** A pair of gears on the shelf. */
export interface ShelfPair {
  readonly driver: number;
  readonly driven: number;
  /** Gears that it fits, 1 for first; every gear if left out. */
  readonly positions?: readonly number[];
  /** Torque that it stands at the driver, N·m. */
  readonly torqueLimitNm?: number;
}

export interface ShelfFinal {
  readonly ring: number;
  readonly pinion: number;
}

export interface Option {
  readonly pair: ShelfPair;
  readonly ratio: number;
  /** On each of the slopes of the course. */
  readonly tables: readonly GearTable[];
}

/** Everything of one final drive that the search asks for again and again. */
export interface Stage {
  readonly final: ShelfFinal;
  /** On each of the slopes of the course. */
  readonly cars: readonly Car[];
  readonly options: readonly (readonly Option[])[];
  /** By position, option and next option: where the gear is left; NaN where a rule forbids the two. */
  readonly leaves: readonly (readonly Float64Array[])[];
}

/** What stays the same through a search. */
export interface Search {
  readonly grid: Grid;
  readonly straights: readonly Straight[];
  readonly shrinking: boolean;
  /** Whether the last gear with this option reaches the course's fastest point. */
  reaches(stage: Stage, option: number): boolean;
}

/** Choices that are still open, and the first gears that are settled already. */
export interface Branch {
  readonly stage: Stage;
  /** Options of the settled positions. */
  readonly chain: readonly number[];
}

/** Lower bounds below one branch. */
export interface Bound {
  /** Time of a car that has the best of all gears that are left at every speed, and never shifts. */
  readonly idealS: number;
  /** Least time of any set that goes on with option `b`; infinite where a rule forbids it. */
  readonly child: Float64Array;
}

export const INFINITE = Number.POSITIVE_INFINITY;

/** The ideal car: in the settled gears what they do, above that the best of everything that is left; and where it shifts. */
function idealCar(
  { stage, chain }: Branch,
  { grid: { cell, cells } }: Search,
  open: readonly (readonly number[])[],
  slope: number,
): { readonly slowness: Float64Array; readonly shiftsS: readonly { at: number }[] } {
  const settled = chain.length;
  const slownessOf = (k: number, a: number): Float64Array =>
    (((stage.options[k] as readonly Option[])[a] as Option).tables[slope] as GearTable).slowness;
  const slowness = new Float64Array(cells).fill(INFINITE);
  for (let k = Math.max(settled - 1, 0); k < stage.options.length; k++) {
    for (const a of open[k] as number[]) {
      const table = slownessOf(k, a);
      for (let j = 0; j < cells; j++)
        if ((table[j] as number) < (slowness[j] as number)) slowness[j] = table[j] as number;
    }
  }
  let shiftsS: { at: number }[] = [];
  for (let k = 0, from = 0; k < settled - 1; k++) {
    const speed = (stage.leaves[k]?.[chain[k] as number] as Float64Array)[chain[k + 1] as number] as number;
    const table = slownessOf(k, chain[k] as number);
    for (let j = from; j < Math.min(Math.floor(speed / cell), cells); j++) {
      const here = table[j] as number;
      // The gear before still has a part of the first cell.
      slowness[j] = j === from && k > 0 ? Math.min(slowness[j] as number, here) : here;
    }
    from = Math.max(from, Math.floor(speed / cell));
    // The cell that holds the shift has a part of either gear.
    if (from < cells) slowness[from] = Math.min(slowness[from] as number, table[from] as number);
    shiftsS = [...shiftsS, { at: speed }];
  }
  return { slowness, shiftsS };
}

/**
 * Bounds that hold for every set below a branch which could beat `targetS`.
 *
 * For one straight, time against length is a curve of slope 1/v at the peak speed v; so the time of a set is the tangent
 * of the ideal car at v plus ∫(1 − u/v)·(h − h_ideal)du over the speeds u driven through (h = 1/acceleration), plus
 * t_shift·(1 − u/v) for each shift at u: costs that add up along the chain of gears, so that the cheapest chain is found
 * by dynamic programming over neighbouring gears. They grow with v, so the lowest v at which the target can still be
 * beaten gives a bound. Coasting losses of shifts are left out: they only cost more.
 */
export function boundBelow({ stage, chain }: Branch, search: Search, targetS: number): Bound {
  const { options, leaves, cars } = stage;
  const shiftTimeS = cars[0]?.shiftTimeS ?? 0;
  const { grid, straights, shrinking } = search;
  const { cell, cells } = grid;
  const settled = chain.length;
  const count = options.length;
  const option = (k: number, a: number): Option => (options[k] as readonly Option[])[a] as Option;
  const open = options.map((here, k) => (k < settled ? [chain[k] as number] : here.map((_, a) => a)));
  const leaf = (k: number, a: number, b: number): number => (leaves[k]?.[a] as Float64Array)[b] as number;
  const settledTo = settled < 2 ? 0 : leaf(settled - 2, chain[settled - 2] as number, chain[settled - 1] as number);

  const slopes = [...new Set(straights.map(({ slope }) => slope))];
  const ideals = slopes.map((slope) => {
    const { slowness, shiftsS } = idealCar({ stage, chain }, search, open, slope);
    return { slope, slowness, shiftsS, ...sums(slowness, cell) };
  });
  const shiftsS = ideals[0]?.shiftsS ?? [];
  const most = cell * cells;
  let idealS = 0;
  const peaks = straights.map((one) => {
    const ideal = ideals[slopes.indexOf(one.slope)] as (typeof ideals)[number];
    const brakeM = (v: number): number => (v > one.toMps ? (v * v - one.toMps * one.toMps) / (2 * one.brakingMps2) : 0);
    const brakeS = (v: number): number => (v > one.toMps ? (v - one.toMps) / one.brakingMps2 : 0);
    const [x0, t0] = [tableAt(ideal.distance, grid, one.fromMps), tableAt(ideal.time, grid, one.fromMps)];
    const short = tableAt(ideal.distance, grid, most) - x0 + brakeM(most) < one.lengthM;
    const peak = short
      ? most
      : meet(ideal.distance, grid, one.fromMps, most, (u, x) => x - x0 + brakeM(u) - one.lengthM);
    const tangent = (v: number): number => {
      const covered = tableAt(ideal.distance, grid, v) - x0 + brakeM(v);
      return tableAt(ideal.time, grid, v) - t0 + brakeS(v) + (one.lengthM - covered) / v;
    };
    const timeS = tangent(Math.max(peak, 1e-6));
    idealS += timeS + (one.cornerM > 0 ? one.cornerM / one.toMps : 0);
    return { slope: one.slope, from: one.fromMps, peak, tangent, timeS };
  });
  const spare = targetS - idealS;
  const dead = (): Bound => ({ idealS, child: new Float64Array((options[settled] ?? []).length).fill(INFINITE) });
  if (spare < 0) return dead();
  const lowest = peaks.map(({ slope, from, peak, tangent, timeS }) => {
    let [low, high] = [from, peak];
    for (let i = 0; i < 24; i++) {
      const middle = (low + high) / 2;
      if (middle > 0 && tangent(middle) - timeS <= spare) high = middle;
      else low = middle;
    }
    return { slope, from, to: low };
  });
  const weight = (u: number, slope: number): number => {
    let sum = 0;
    for (const one of lowest) if (one.slope === slope && u >= one.from && u < one.to) sum += 1 - u / one.to;
    return sum;
  };
  // Of each slope: what its straights weigh at the speeds of the grid, and in each cell, where the lower end counts so that the sum
  // stays a bound.
  const weighed = ideals.map(({ slope, slowness }) => {
    const weights = Float64Array.from({ length: cells + 1 }, (_, j) => weight(j * cell, slope));
    const inCell = Float64Array.from({ length: cells }, (_, j) =>
      Math.min(weights[j] as number, weights[j + 1] as number),
    );
    for (const { slope: of, from } of lowest) {
      const j = Math.min(Math.floor(from / cell), cells - 1);
      if (of === slope && from > j * cell) inCell[j] = Math.min(inCell[j] as number, weights[j] as number);
    }
    return { slope, slowness, weights, inCell };
  });
  const costs = options.map((here, k) =>
    here.map(({ tables }, a) => {
      const cost = new Float64Array(cells + 1);
      if (k < settled - 1 || (k === settled - 1 && a !== chain[k])) return cost;
      for (const { slope, slowness, inCell } of weighed) {
        const own = (tables[slope] as GearTable).slowness;
        for (let j = 0; j < cells; j++) {
          const extra = ((own[j] as number) - (slowness[j] as number)) * (inCell[j] as number) * cell;
          if (extra > 0) cost[j + 1] = (cost[j + 1] as number) + extra;
        }
      }
      for (let j = 0; j < cells; j++) cost[j + 1] = (cost[j + 1] as number) + (cost[j] as number);
      return cost;
    }),
  );
  const cost = (k: number, a: number): Float64Array => (costs[k] as Float64Array[])[a] as Float64Array;
  const lightest = (speed: number): number => {
    const j = Math.min(Math.floor(speed / cell), cells - 1);
    let sum = 0;
    for (const { slope, weights } of weighed)
      sum += Math.min(weights[j] as number, weights[j + 1] as number, weight(speed, slope));
    return sum;
  };
  const edge = (k: number, a: number, b: number): number => {
    const speed = leaf(k, a, b);
    if (Number.isNaN(speed)) return INFINITE;
    return tableAt(cost(k, a), grid, speed) - tableAt(cost(k + 1, b), grid, speed) + shiftTimeS * lightest(speed);
  };
  const last = count - 1;
  const end = (a: number): number => (search.reaches(stage, a) ? (cost(last, a)[cells] as number) : INFINITE);
  // toGo[a·n + b]: least cost from gear k in option a, followed by option b, on to the end.
  let toGo = new Float64Array(0);
  const from = Math.max(settled - 1, 0);
  for (let k = last - 1; k >= from; k--) {
    const [here, above] = [options[k] as readonly Option[], options[k + 1] as readonly Option[]];
    const beyond = options[k + 2] ?? [];
    const next = new Float64Array(here.length * above.length).fill(INFINITE);
    for (const a of open[k] as number[]) {
      for (const b of open[k + 1] as number[]) {
        const own = edge(k, a, b);
        if (own === INFINITE) continue;
        if (k === last - 1) {
          next[a * above.length + b] = own + end(b);
          continue;
        }
        const widest = (option(k, a).ratio / option(k + 1, b).ratio) * (1 + 1e-9);
        let least = INFINITE;
        for (let c = 0; c < beyond.length; c++) {
          const rest = toGo[b * beyond.length + c] as number;
          if (rest < least && (!shrinking || option(k + 1, b).ratio / (beyond[c] as Option).ratio <= widest))
            least = rest;
        }
        next[a * above.length + b] = own + least;
      }
    }
    toGo = next;
  }
  const base = idealS + shiftsS.reduce((sum, { at }) => sum + shiftTimeS * lightest(at), 0);
  // What lies below the last settled shift is the ideal car's own.
  const already = settled > 0 ? tableAt(cost(settled - 1, chain[settled - 1] as number), grid, settledTo) : 0;
  const child = Float64Array.from(options[settled] ?? [], (_, b) => {
    if (count === 1) return base + end(b);
    if (settled > 0) {
      const a = chain[settled - 1] as number;
      const before = chain[settled - 2];
      if (shrinking && before !== undefined) {
        const widest = (option(settled - 2, before).ratio / option(settled - 1, a).ratio) * (1 + 1e-9);
        if (option(settled - 1, a).ratio / option(settled, b).ratio > widest) return INFINITE;
      }
      return base - already + (toGo[a * (options[settled] as readonly Option[]).length + b] as number);
    }
    const n = (options[1] as readonly Option[]).length;
    let least = INFINITE;
    for (let c = 0; c < n; c++) least = Math.min(least, toGo[b * n + c] as number);
    return base + least;
  });
  return { idealS, child };
}
