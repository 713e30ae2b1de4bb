import { brakingSpeed, gearShift, readTable, type At, type GearShift, type GearTable, type Straight } from './pace';
import { accelerationOf } from './quadrature';
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
export interface Rules {
  readonly straights: readonly Straight[];
  readonly shrinking: boolean;
  /** Whether the last gear with this option reaches the course's fastest point. */
  reaches(stage: Stage, option: number): boolean;
}

export const INFINITE = Number.POSITIVE_INFINITY;

/** A whole set and the time that no set of these gears can be below. */
export interface Chain {
  readonly options: readonly number[];
  readonly leastS: number;
}

/** The first gears of a set, and how far they take the car on each straight. */
interface Prefix {
  readonly before: Prefix | null;
  readonly option: number;
  /** Speed at which the gear before was left. */
  readonly leftMps: number;
  /** Of straights that are through: what they took, corners included. */
  readonly doneS: number;
  /**
   * Of each straight, time and way at any speed in this gear less what the gear's table says there. NaN for a straight that begins
   * faster than the gear before went; infinite for one that is through.
   */
  readonly baseS: Float64Array;
  readonly baseM: Float64Array;
  /** Of each straight, its time if the speed were held in a gear before; of what is through, its time. */
  readonly heldS: Float64Array;
  /** What the shift into this gear came to, by slope. */
  readonly shifts: readonly GearShift[];
  /** Time that it is ahead by, way counted as time: the lower, the better it looks. */
  readonly score: number;
}

/** Times nearer to each other than this are the same. */
export const LEVEL_S = 1e-9;

const at: At = { timeS: 0, distanceM: 0 };
const UNBEGUN = Number.NaN;

/**
 * The `most` quickest chains of one final drive, by what no set of the same gears can be below.
 *
 * Gear by gear: of a set's first gears only the last two matter for what comes – the next step's rules, and the speed from which it
 * goes on – beside how much time and way each straight has taken so far. Of two beginnings that share their last two gears, one is
 * no better in the end than the other where Σ max(Δt − Δx/v) over the straights is negative – so much later, so much farther on –, v
 * between the speed of the shift and the fastest of all: time over way rises by 1/v of the speed at its end, whatever is chosen later. A beginning
 * with `most` such others before it is dropped; so the `most` quickest are never lost.
 *
 * A straight from which the car comes too slow for its corner is counted as if it came fast enough: then the time is a bound.
 * @param goOn asked for every beginning that is gone on with, and for every group of them that is thinned
 * @returns quickest first; null where `goOn` ended it
 */
export function quickestChains(stage: Stage, rules: Rules, most: number, goOn: () => boolean): Chain[] | null {
  const found = chainsOf(stage, rules, most, true, goOn);
  // Where a corner is missed, gears that the course seems never to use may be used after all: then each set counts for itself.
  return found?.missed ? (chainsOf(stage, rules, most, false, goOn)?.chains ?? null) : (found?.chains ?? null);
}

/** @param once whether sets that differ only in gears that are never used are told once */
function chainsOf(
  stage: Stage,
  rules: Rules,
  most: number,
  once: boolean,
  goOn: () => boolean,
): { readonly chains: Chain[]; readonly missed: boolean } | null {
  const { options, leaves, cars } = stage;
  const { straights, shrinking } = rules;
  const count = straights.length;
  const last = options.length - 1;
  const shiftTimeS = (cars[0] as Car).shiftTimeS;
  const option = (k: number, a: number): Option => (options[k] as readonly Option[])[a] as Option;
  const tableOf = (k: number, a: number, slope: number): GearTable => option(k, a).tables[slope] as GearTable;
  const cornersS = straights.reduce((sum, { cornerM, toMps }) => sum + (cornerM > 0 ? cornerM / toMps : 0), 0);

  const fastest = Math.max(
    ...options.flatMap((here) => here.map(({ tables }) => Math.max(...tables.map((t) => t.topMps)))),
  );
  const [lengths, froms, tos, brakings, slopes] = [
    straights.map(({ lengthM }) => lengthM),
    straights.map(({ fromMps }) => fromMps),
    straights.map(({ toMps }) => toMps),
    straights.map(({ brakingMps2 }) => brakingMps2),
    straights.map(({ slope }) => slope),
  ] as [number[], number[], number[], number[], number[]];
  const brakeM = (s: number, v: number): number => {
    const to = tos[s] as number;
    return v > to ? (v * v - to * to) / (2 * (brakings[s] as number)) : 0;
  };
  const brakeS = (s: number, v: number): number =>
    v > (tos[s] as number) ? (v - (tos[s] as number)) / (brakings[s] as number) : 0;

  const shiftAt = (k: number, a: number, b: number, speed: number): GearShift[] =>
    cars.map((car, slope) => gearShift(car, tableOf(k, a, slope), tableOf(k + 1, b, slope), speed));
  const shiftsOf = options.slice(0, -1).map((here) => here.map(() => new Map<number, GearShift[]>()));
  /** Made once where the gear is left at the speed that is best for the two. */
  const shiftOf = (k: number, a: number, b: number, speed: number): GearShift[] => {
    if (speed !== (leaves[k]?.[a] as Float64Array)[b]) return shiftAt(k, a, b, speed);
    const known = (shiftsOf[k]?.[a] as Map<number, GearShift[]>).get(b);
    if (known) return known;
    const made = shiftAt(k, a, b, speed);
    (shiftsOf[k]?.[a] as Map<number, GearShift[]>).set(b, made);
    return made;
  };

  // Where each straight begins in each gear's table, made when it is needed first.
  const begun = options.map((here) => here.map(() => new Map<number, At>()));
  const beginning = (k: number, a: number, s: number): At => {
    const known = (begun[k]?.[a] as Map<number, At>).get(s);
    if (known) return known;
    readTable(tableOf(k, a, slopes[s] as number), froms[s] as number, at);
    const made = { ...at };
    (begun[k]?.[a] as Map<number, At>).set(s, made);
    return made;
  };

  // Of the beginning at hand: where each straight would end in its gear, if it does. Filled by `ends`.
  const endS = new Float64Array(count);
  const endMps = new Float64Array(count);
  const atEndMps = new Float64Array(count);
  let missed = false;
  /** The time of a straight that is through: held in a gear before, or driven to its end in this one. */
  const through = (s: number, prefix: Prefix): number => {
    const [held, end] = [prefix.heldS[s] as number, endS[s] as number];
    const slowest = held < end ? prefix.leftMps : (atEndMps[s] as number);
    if (s < count - 1 && slowest < (tos[s] as number)) missed = true;
    return Math.min(held, end);
  };

  const ends = (k: number, { option: a, baseS, baseM }: Prefix): void => {
    for (let s = 0; s < count; s++) {
      if (baseS[s] === INFINITE) continue;
      const table = tableOf(k, a, slopes[s] as number);
      const top = table.topMps;
      const unbegun = Number.isNaN(baseS[s] as number);
      const from = unbegun ? (froms[s] as number) : 0;
      const start = unbegun ? beginning(k, a, s) : null;
      const timeS = start ? -start.timeS : (baseS[s] as number);
      const wayM = start ? -start.distanceM : (baseM[s] as number);
      const length = (lengths[s] as number) - wayM;
      if (from < top && (table.distance.at(-1) as number) + brakeM(s, top) >= length) {
        const speed = brakingSpeed(table, 0, top, length, tos[s] as number, brakings[s] as number, at);
        endMps[s] = speed;
        atEndMps[s] = speed;
        endS[s] = timeS + at.timeS + brakeS(s, speed);
      } else {
        // At the limiter, or faster than it already.
        const held = Math.max(top, from);
        readTable(table, held, at);
        endMps[s] = INFINITE;
        atEndMps[s] = held;
        endS[s] = timeS + at.timeS + Math.max(0, length - at.distanceM - brakeM(s, held)) / held + brakeS(s, held);
      }
    }
  };

  /** The least that a straight can take which is begun: at the fastest of all to its end. */
  const leastOf = (one: Prefix, s: number): number => {
    const { next } = one.shifts[slopes[s] as number] as GearShift;
    const left = (lengths[s] as number) - (one.baseM[s] as number) - next.distanceM;
    return Math.min(one.heldS[s] as number, (one.baseS[s] as number) + next.timeS + left / fastest);
  };
  /** By how much a set that begins like `a` is slower than the same beginning like `b`, at the most. */
  const slowerBy = (a: Prefix, b: Prefix): number => {
    let sum = 0;
    for (let s = 0; s < count; s++) {
      const aS = a.baseS[s] as number;
      const bS = b.baseS[s] as number;
      if (Number.isNaN(aS) && Number.isNaN(bS)) continue;
      const held = (a.heldS[s] as number) - (b.heldS[s] as number);
      if (aS === INFINITE || bS === INFINITE) {
        // What is through stands against the least that the other comes to; what is not can still be held.
        sum += bS === INFINITE ? held : (a.heldS[s] as number) - leastOf(b, s);
        continue;
      }
      const ahead = (a.baseM[s] as number) - (b.baseM[s] as number);
      // What is farther on at the same speed has so much less to go, at no more than the fastest and no less than the shift's speed.
      const going = aS - bS - ahead / (ahead > 0 ? fastest : a.leftMps);
      sum += Math.max(going, held);
    }
    return sum;
  };

  const first: Prefix = {
    before: null,
    option: -1,
    leftMps: 0,
    doneS: 0,
    baseS: new Float64Array(count).fill(UNBEGUN),
    baseM: new Float64Array(count).fill(UNBEGUN),
    heldS: new Float64Array(count).fill(INFINITE),
    shifts: [],
    score: 0,
  };
  let level: Prefix[] = (options[0] as readonly Option[]).map((_, a) => ({ ...first, option: a }));
  for (let k = 0; k < last; k++) {
    const here = options[k] as readonly Option[];
    const above = options[k + 1] as readonly Option[];
    const groups = new Map<number, Prefix[]>();
    for (const prefix of level) {
      if (!goOn()) return null;
      const a = prefix.option;
      const row = leaves[k]?.[a] as Float64Array;
      const before = prefix.before;
      const widest =
        shrinking && before ? (option(k - 1, before.option).ratio / (here[a] as Option).ratio) * (1 + 1e-9) : INFINITE;
      ends(k, prefix);
      for (let b = 0; b < above.length; b++) {
        const leave = row[b] as number;
        if (Number.isNaN(leave) || (here[a] as Option).ratio / (above[b] as Option).ratio > widest) continue;
        const speed = Math.max(leave, prefix.leftMps);
        const next = onTo(k, prefix, b, speed);
        const key = a * above.length + b;
        const group = groups.get(key);
        if (group) group.push(next);
        else groups.set(key, [next]);
      }
    }
    level = [];
    for (const group of groups.values()) {
      if (!goOn()) return null;
      level.push(...thinned(group));
    }
  }

  function onTo(k: number, prefix: Prefix, b: number, speed: number): Prefix {
    const shifts = shiftOf(k, prefix.option, b, speed);
    const baseS = new Float64Array(count);
    const baseM = new Float64Array(count);
    const heldS = new Float64Array(count);
    let doneS = prefix.doneS;
    let score = 0;
    for (let s = 0; s < count; s++) {
      let was = prefix.baseS[s] as number;
      let wasM = prefix.baseM[s] as number;
      const held = prefix.heldS[s] as number;
      heldS[s] = held;
      if (was === INFINITE) {
        baseS[s] = INFINITE;
        continue;
      }
      if (Number.isNaN(was)) {
        if ((froms[s] as number) >= speed) {
          baseS[s] = UNBEGUN;
          continue;
        }
        const start = beginning(k, prefix.option, s);
        was = -start.timeS;
        wasM = -start.distanceM;
      }
      const { left, next, after, coastM, reached, pulls } = shifts[slopes[s] as number] as GearShift;
      const end = endMps[s] as number;
      const length = lengths[s] as number;
      if (end <= speed || !reached) {
        heldS[s] = through(s, prefix);
        doneS += heldS[s] as number;
        baseS[s] = INFINITE;
        continue;
      }
      const usedM = wasM + left.distanceM;
      const least = Math.min(
        held,
        was + left.timeS + Math.max(0, length - usedM - brakeM(s, speed)) / speed + brakeS(s, speed),
      );
      if (!pulls || usedM + coastM + brakeM(s, after) >= length) {
        if (s < count - 1 && Math.min(speed, prefix.leftMps) < (tos[s] as number)) missed = true;
        heldS[s] = least;
        doneS += least;
        baseS[s] = INFINITE;
        continue;
      }
      heldS[s] = least;
      baseS[s] = was + left.timeS + shiftTimeS - next.timeS;
      baseM[s] = usedM + coastM - next.distanceM;
      // Any speed between the two that bound it will do to sort by.
      score += (baseS[s] as number) - (baseM[s] as number) / (1.2 * speed);
    }
    return { before: prefix, option: b, leftMps: speed, doneS, baseS, baseM, heldS, shifts, score: score + doneS };
  }

  /** Those of a group that fewer than `most` others are no slower than, each kind once. */
  function thinned(group: Prefix[]): Prefix[] {
    group.sort((a, b) => a.score - b.score);
    const kept: Prefix[] = [];
    for (const one of group) {
      let ahead = 0;
      for (let i = 0; i < kept.length && ahead < most; i++) {
        const other = kept[i] as Prefix;
        if (other.leftMps !== one.leftMps) continue;
        const slower = slowerBy(other, one);
        // Gears that the course never uses make no other set.
        if (once && Math.abs(slower) <= LEVEL_S && Math.abs(slowerBy(one, other)) <= LEVEL_S) ahead = most;
        else if (slower <= 0) ahead++;
      }
      if (ahead < most) kept.push(one);
    }
    return kept;
  }

  const chains: Chain[] = [];
  for (const prefix of level) {
    if (!goOn()) return null;
    if (!rules.reaches(stage, prefix.option)) continue;
    ends(last, prefix);
    let timeS = prefix.doneS + cornersS;
    for (let s = 0; s < count; s++) if ((prefix.baseS[s] as number) !== INFINITE) timeS += through(s, prefix);
    const chosen: number[] = [];
    for (let one: Prefix | null = prefix; one; one = one.before) chosen.unshift(one.option);
    chains.push({ options: chosen, leastS: timeS });
  }
  chains.sort((a, b) => a.leastS - b.leastS);
  const told = once ? chains.filter(({ leastS }, i) => leastS - (chains[i - 1]?.leastS ?? -1) > LEVEL_S) : chains;
  return { chains: told.slice(0, most), missed };
}

/** Cells of speed of the ideal car. */
const CELL_MPS = 0.25;
/** What a law that is asked at three speeds of a cell may do better between them; ours. */
const SPARE = 1.02;

/**
 * No set of this final drive takes less: a car that has at every speed the best of all gears that could be chosen, and never shifts.
 */
export function idealTime({ options, cars }: Stage, { straights }: Rules): number {
  const tables = options.flatMap((here) => here.map((one) => one.tables));
  const fastest = Math.max(...tables.flatMap((of) => of.map(({ topMps }) => topMps)));
  const cells = Math.ceil(fastest / CELL_MPS);
  const ideals = cars.map((_, slope) => {
    const best = new Float64Array(cells);
    for (const of of tables) quickest(of[slope] as GearTable, best);
    const time = [0];
    const distance = [0];
    best.forEach((mps2, j) => {
      const timeS = CELL_MPS / mps2;
      time.push((time[j] as number) + timeS);
      distance.push((distance[j] as number) + timeS * (j + 0.5) * CELL_MPS);
    });
    return { time, distance };
  });
  return straights.reduce((sum, { slope, fromMps, lengthM, toMps, brakingMps2, cornerM }) => {
    const { time, distance } = ideals[slope] as (typeof ideals)[number];
    const read = (table: readonly number[], v: number): number => {
      const j = Math.min(Math.floor(v / CELL_MPS), cells - 1);
      const [a, b] = [table[j] as number, table[j + 1] as number];
      return v >= fastest ? (table[cells] as number) : a + ((b - a) * (v - j * CELL_MPS)) / CELL_MPS;
    };
    const brakeM = (v: number): number => (v > toMps ? (v * v - toMps * toMps) / (2 * brakingMps2) : 0);
    const used = (v: number): number => read(distance, v) - read(distance, fromMps) + brakeM(v);
    const corner = cornerM > 0 ? cornerM / toMps : 0;
    let [low, high] = [fromMps, Math.max(fromMps, fastest)];
    if (used(high) > lengthM)
      for (let i = 0; i < 50; i++) {
        const middle = (low + high) / 2;
        if (used(middle) < lengthM) low = middle;
        else high = middle;
      }
    else low = high;
    const held = Math.max(0, lengthM - used(low)) / high;
    const brakingS = low > toMps ? (low - toMps) / brakingMps2 : 0;
    return sum + read(time, low) - read(time, fromMps) + held + brakingS + corner;
  }, 0);
}

/** The most acceleration of a table in each cell, where it is more than what is there. */
function quickest({ nodes, laws }: GearTable, best: Float64Array): void {
  laws.forEach((law, j) => {
    const [from, to] = [nodes[j] as number, nodes[j + 1] as number];
    for (let cell = Math.floor(from / CELL_MPS); cell * CELL_MPS < to && cell < best.length; cell++) {
      const [low, high] = [Math.max(from, cell * CELL_MPS), Math.min(to, (cell + 1) * CELL_MPS)];
      const asked = typeof law === 'function';
      const vertex = asked ? (low + high) / 2 : Math.min(Math.max(-law.perMps / (2 * law.perV2), low), high);
      const most = Math.max(...[low, high, Number.isNaN(vertex) ? low : vertex].map((v) => accelerationOf(law, v)));
      best[cell] = Math.max(best[cell] as number, most * (asked ? SPARE : 1));
    }
  });
}
