import { SEARCH_LIMITS } from './limits';
import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { checkCourse, type Course } from './course';
import {
  coast,
  courseSlopes,
  gearSet,
  gearTable,
  pace,
  paceTime,
  straightsOf,
  type GearTable,
  type Pace,
  type PacePoint,
} from './pace';
import {
  INFINITE,
  LEVEL_S,
  idealTime,
  quickestChains,
  type Option,
  type Rules,
  type ShelfFinal,
  type ShelfPair,
  type Stage,
} from './search-chain';
import { bestShiftSpeed, readyCar, type Car, type Vehicle } from './vehicle';

export type { ShelfFinal, ShelfPair } from './search-chain';

export interface SearchRules {
  /** `shrinking`: each step at most as wide as the one below it; `descending`: ratios only fall. */
  readonly steps?: 'shrinking' | 'descending';
  /** No up-shift may end below this engine speed. */
  readonly floorRpm?: number;
  /** The limiter in the last gear may come this far below the fastest point of the course, as a fraction. */
  readonly limiterMargin?: number;
}

export interface SearchProblem {
  /** Its gears and final drive are the present set, and set the number of positions. */
  readonly vehicle: Vehicle;
  readonly course: Course;
  /** None: the box stays as it is, and final drives are compared. */
  readonly pairs: readonly ShelfPair[];
  readonly finals: readonly ShelfFinal[];
  readonly rules?: SearchRules;
}

export interface FoundSet {
  readonly final: ShelfFinal;
  readonly pairs: readonly ShelfPair[];
  readonly timeS: number;
  /** The set, by its place in the list, that this one is level with: its own, or that of a quicker one within {@link LEVEL_SET_S}. */
  readonly line: number;
}

/** Sets of a search that are nearer to each other than this are level, s: the last digit of a time slip. Ours. */
export const LEVEL_SET_S = 0.001;

export interface SearchProgress {
  /** 0 to 1, by the final drives that are settled. */
  readonly share: number;
  readonly bestS: number | null;
  /** The fastest set so far. */
  readonly best: FoundSet | null;
  /** No set can be faster than this. */
  readonly boundS: number;
}

export interface SearchResult {
  /** Fastest first; the first is the answer. */
  readonly best: readonly FoundSet[];
  readonly provenBest: boolean;
  /** No allowed set can be faster. */
  readonly boundS: number;
  /** Combinations of pairs and finals before any rule. */
  readonly combinations: number;
  readonly evaluated: number;
  readonly visited: number;
}

const KEPT = 10;
/** How many times as many chains a final drive is asked for where those that it told leave it open, and the most: each of them is kept. */
const MORE = 8;
const MOST_ASKED = 512;
/** Beginnings of sets between two looks at the clock of whoever asked. */
const REPORT_EVERY = 200;

const ratioOf = ({ driver, driven }: ShelfPair): number => driven / driver;
const nameOf = ({ driver, driven }: ShelfPair): string => `${driven}/${driver}`;

function check({ vehicle, course, pairs, finals, rules }: SearchProblem): void {
  checkCourse(course);
  if (!('torqueCurve' in vehicle.engine))
    throw new InputError('vehicle.engine', 'vehicle.engine needs a torque curve here.', 'a torque curve and a limiter');
  if (vehicle.gears.length > SEARCH_LIMITS.positions)
    throw new InputError(
      'vehicle.gears',
      `vehicle.gears has ${vehicle.gears.length} positions.`,
      `at most ${SEARCH_LIMITS.positions}`,
    );
  if (pairs.length > SEARCH_LIMITS.pairs)
    throw new InputError('pairs', `pairs has ${pairs.length} entries.`, `at most ${SEARCH_LIMITS.pairs}`);
  if (finals.length === 0 || finals.length > SEARCH_LIMITS.finals)
    throw new InputError('finals', `finals has ${finals.length} entries.`, `1 to ${SEARCH_LIMITS.finals}`);
  pairs.forEach((pair, i) => {
    requireNumber(`pairs[${i}].driver`, pair.driver, LIMITS.teeth);
    requireNumber(`pairs[${i}].driven`, pair.driven, LIMITS.teeth);
    if (pair.torqueLimitNm !== undefined)
      requireNumber(`pairs[${i}].torqueLimitNm`, pair.torqueLimitNm, LIMITS.torqueNm);
    pair.positions?.forEach((position, k) =>
      requireNumber(`pairs[${i}].positions[${k}]`, position, { min: 1, max: SEARCH_LIMITS.positions, integer: true }),
    );
  });
  finals.forEach((final, i) => {
    requireNumber(`finals[${i}].ring`, final.ring, LIMITS.teeth);
    requireNumber(`finals[${i}].pinion`, final.pinion, LIMITS.teeth);
  });
  requireNumber('rules.floorRpm', rules?.floorRpm ?? 0, SEARCH_LIMITS.floorRpm);
  requireNumber('rules.limiterMargin', rules?.limiterMargin ?? 0, SEARCH_LIMITS.limiterMargin);
}

/** Pairs for each position, one of each ratio, tallest last. @throws InputError on `pairs` */
function shelves(problem: SearchProblem): ShelfPair[][] {
  const { vehicle, pairs } = problem;
  const most = Math.max(...('torqueCurve' in vehicle.engine ? vehicle.engine.torqueCurve : []).map((p) => p.torqueNm));
  return vehicle.gears.map((_, k) => {
    const fitting = pairs.filter((pair) => pair.positions?.includes(k + 1) ?? true);
    if (fitting.length === 0)
      throw new InputError('pairs', `pairs: none fits gear ${k + 1}.`, `at least one pair for gear ${k + 1}`);
    const strong = fitting.filter((pair) => (pair.torqueLimitNm ?? Number.POSITIVE_INFINITY) >= most);
    if (strong.length === 0) {
      throw new InputError(
        'pairs',
        `pairs: none that fits gear ${k + 1} stands the engine’s ${Math.round(most)} N·m (torque limit).`,
        'a pair with a higher torque limit',
      );
    }
    const byRatio = new Map(strong.map((pair) => [ratioOf(pair), pair]));
    return [...byRatio.values()].sort((a, b) => ratioOf(b) - ratioOf(a));
  });
}

/** The car on each of the slopes of a course; a slope of its own is added. */
function carsOn(vehicle: Vehicle, course: Course): Car[] {
  const own = vehicle.gradePercent ?? 0;
  return courseSlopes(course).grades.map((grade) => readyCar({ ...vehicle, gradePercent: own + grade }));
}

function stageOf(problem: SearchProblem, final: ShelfFinal, shelf: ShelfPair[][]): Stage {
  const cars = carsOn({ ...problem.vehicle, finalRatio: final.ring / final.pinion }, problem.course);
  const car = cars[0] as Car;
  const options = shelf.map((fitting, k) =>
    fitting.map((pair) => {
      const ratio = ratioOf(pair);
      return { pair, ratio, tables: cars.map((on) => gearTable(on, on.gear(ratio, k))) };
    }),
  );
  const floor = problem.rules?.floorRpm ?? 0;
  const leaves = options.slice(0, -1).map((here, k) =>
    here.map(({ ratio, tables }) => {
      const { gear } = tables[0] as GearTable;
      const above = options[k + 1] as readonly Option[];
      return Float64Array.from(above, (next) => {
        if (next.ratio >= ratio) return Number.NaN;
        const taller = (next.tables[0] as GearTable).gear;
        const speed = bestShiftSpeed(gear, taller);
        const { after } = coast(car, speed);
        return taller.rpm(after) < floor ? Number.NaN : speed;
      });
    }),
  );
  return { final, cars, options, leaves };
}

/** An allowed chain near to the ratios that are in, to have something to show at once; null if none is met soon. */
function firstChain(stage: Stage, rules: Rules, gears: readonly number[]): readonly number[] | null {
  const { options, leaves } = stage;
  let budget = 2000;
  const ratio = (k: number, a: number): number => ((options[k] as readonly Option[])[a] as Option).ratio;
  const dive = (chain: readonly number[]): readonly number[] | null => {
    const k = chain.length;
    if (k === options.length) return rules.reaches(stage, chain.at(-1) as number) ? chain : null;
    const now = gears[k] as number;
    const order = [...(options[k] as readonly Option[]).keys()].sort(
      (a, b) => Math.abs(ratio(k, a) - now) - Math.abs(ratio(k, b) - now),
    );
    for (const b of order) {
      if (--budget < 0) return null;
      const a = chain.at(-1);
      if (a !== undefined && Number.isNaN((leaves[k - 1]?.[a] as Float64Array)[b])) continue;
      const before = chain.at(-2);
      if (rules.shrinking && a !== undefined && before !== undefined) {
        const widest = (ratio(k - 2, before) / ratio(k - 1, a)) * (1 + 1e-9);
        if (ratio(k - 1, a) / ratio(k, b) > widest) continue;
      }
      const whole = dive([...chain, b]);
      if (whole) return whole;
    }
    return null;
  };
  return dive([]);
}

/** Which rule leaves nothing, said of a shelf from which no set can be built. */
function whyNothing(problem: SearchProblem, stages: readonly Stage[], fastest: number | null): InputError {
  const margin = problem.rules?.limiterMargin ?? 0;
  const tops = stages.flatMap((stage) =>
    (stage.options.at(-1) ?? []).map(({ tables }) => tables[0]?.gear.limitMps ?? 0),
  );
  const reach = Math.max(...tops);
  if (fastest !== null && reach < fastest * (1 - margin)) {
    return new InputError(
      'rules.limiterMargin',
      `The shelf does not reach the course’s fastest point: ${(fastest * 3.6).toFixed(1)} km/h, and the tallest last gear is on the limiter at ${(reach * 3.6).toFixed(1)} km/h (limiter margin ${(100 * margin).toFixed(0)} %).`,
      'a taller pair for the last gear, a taller final drive or a wider margin',
    );
  }
  for (let k = 0; k < problem.vehicle.gears.length - 1; k++) {
    const ratios = (i: number): number[] => (stages[0]?.options[i] ?? []).map(({ ratio }) => ratio);
    if (Math.max(...ratios(k)) <= Math.min(...ratios(k + 1))) {
      return new InputError(
        'pairs',
        `pairs: no pair for gear ${k + 2} is taller than those for gear ${k + 1}.`,
        `a taller pair for gear ${k + 2}`,
      );
    }
    if (stages.every((stage) => stage.leaves[k]?.every((row) => row.every(Number.isNaN)))) {
      return new InputError(
        'rules.floorRpm',
        `Every shift from gear ${k + 1} to ${k + 2} ends below the rpm floor of ${problem.rules?.floorRpm ?? 0}.`,
        'closer pairs or a lower floor',
      );
    }
  }
  return new InputError(
    'rules.steps',
    'No chain of pairs keeps the rules on steps, rpm floor and limiter all at once.',
    'steps that may grow, a lower floor, a wider margin, or more pairs',
  );
}

const standsStill = (): InputError =>
  new InputError('gears[0]', 'gears[0]: the car comes to a stand on the course.', 'a shorter gear, or less of a slope');

/** Says of each of a list, quickest first, which it is level with. */
function lined(sets: readonly FoundSet[]): FoundSet[] {
  let line = 0;
  return sets.map((set, i) => {
    if (set.timeS - (sets[line] as FoundSet).timeS >= LEVEL_SET_S) line = i;
    return { ...set, line };
  });
}

/** Every final drive with the gears that are in the box; rules on steps say nothing of a box that stays. */
function finalsAlone({ vehicle, course, finals }: SearchProblem): SearchResult {
  const best = finals
    .map((final): FoundSet => {
      const { timeS } = driven({ ...vehicle, finalRatio: final.ring / final.pinion }, course);
      return { final, pairs: [], timeS, line: 0 };
    })
    // With which the car comes to a stand, that is none.
    .filter(({ timeS }) => Number.isFinite(timeS))
    .sort((a, b) => a.timeS - b.timeS);
  if (best.length === 0) throw standsStill();
  return {
    best: lined(best.slice(0, KEPT)),
    provenBest: true,
    boundS: best[0]?.timeS ?? 0,
    combinations: finals.length,
    evaluated: finals.length,
    visited: finals.length,
  };
}

/**
 * The set of gear pairs and final drive with the least course time; without pairs, the final drive for the box as it is. Of every
 * final drive the quickest chains gear by gear ({@link quickestChains}), each timed as it is driven; more of them where what they
 * promise leaves the best open. Deterministic: the same problem gives the same answer.
 * Not counted: the time that a change of gears takes, wear, and the driver.
 * @param onProgress told now and then; return false to stop, and what was found so far comes back with its bound
 * @throws InputError naming the field, or the rule that leaves nothing
 */
export function roadSearch(problem: SearchProblem, onProgress?: (progress: SearchProgress) => boolean): SearchResult {
  check(problem);
  const { vehicle, course, finals, rules: asked } = problem;
  if (problem.pairs.length === 0) return finalsAlone(problem);
  const shelf = shelves(problem);
  const straights = straightsOf(course);
  const stages = finals.map((final) => stageOf(problem, final, shelf));
  const needed = course.fastestMps === null ? 0 : course.fastestMps * (1 - (asked?.limiterMargin ?? 0));
  const combinations = shelf.reduce((product, fitting) => product * fitting.length, finals.length);
  const rules: Rules = {
    straights,
    shrinking: (asked?.steps ?? 'shrinking') === 'shrinking',
    reaches: ({ options }, a) => (options.at(-1)?.[a]?.tables[0]?.gear.limitMps ?? 0) >= needed,
  };

  const found: FoundSet[] = [];
  const bestS = (): number => found[0]?.timeS ?? INFINITE;
  let [evaluated, visited, since, stopped, stands] = [0, 0, 0, false, false];
  const timeOf = (stage: Stage, chain: readonly number[]): number => {
    evaluated++;
    const chosen = chain.map((a, k) => (stage.options[k] as readonly Option[])[a] as Option);
    const sets = stage.cars.map((car, slope) =>
      gearSet(
        car,
        chosen.map(({ tables }) => tables[slope] as GearTable),
      ),
    );
    return paceTime(sets, straights);
  };
  const keep = (stage: Stage, chain: readonly number[]): void => {
    const timeS = timeOf(stage, chain);
    // Sets that differ only in gears which the course never uses take the same time; one of them is enough.
    if (!Number.isFinite(timeS)) stands = true;
    if (!Number.isFinite(timeS) || found.some((set) => Math.abs(set.timeS - timeS) <= LEVEL_S)) return;
    const pairs = chain.map((a, k) => ((stage.options[k] as readonly Option[])[a] as Option).pair);
    found.push({ final: stage.final, pairs, timeS, line: 0 });
    found.sort((a, b) => a.timeS - b.timeS);
    if (found.length > KEPT) found.pop();
  };

  /** Of each final drive what no set of it can be below, as far as that is known; nothing left to look for is infinite. */
  const open = stages.map((stage) => ({ stage, leastS: idealTime(stage, rules) })).sort((a, b) => a.leastS - b.leastS);
  let settled = 0;
  const report = (): void => {
    const going = onProgress?.({
      share: settled / (2 * open.length),
      bestS: found[0]?.timeS ?? null,
      best: found[0] ?? null,
      boundS: Math.min(bestS(), ...open.map(({ leastS }) => leastS)),
    });
    if (going === false) stopped = true;
  };
  const goOn = (): boolean => {
    visited++;
    if (++since >= REPORT_EVERY) {
      since = 0;
      report();
    }
    return !stopped;
  };
  /** Asks a final drive for its quickest chains, and for more of them as long as a set that was not told of could be below `than`. */
  const ask = (one: (typeof open)[number], most: number, than: () => number): void => {
    for (let asking = most; !stopped && asking <= MOST_ASKED && one.leastS < than() - LEVEL_S; asking *= MORE) {
      const chains = quickestChains(one.stage, rules, asking, goOn);
      if (!chains) return;
      for (const { options } of chains) keep(one.stage, options);
      // What it did not tell of is no quicker than the last that it told.
      one.leastS = chains.length < asking ? INFINITE : (chains.at(-1)?.leastS ?? INFINITE);
    }
  };

  for (const { stage } of open) {
    const chain = firstChain(stage, rules, vehicle.gears);
    if (chain) keep(stage, chain);
    if (found.length > 0) report();
    if (stopped) break;
  }
  for (const one of open) {
    ask(one, 1, bestS);
    settled++;
  }
  const provenBest = !stopped && found.length > 0 && open.every(({ leastS }) => leastS >= bestS() - LEVEL_S);
  // The best is known; those behind it.
  for (const one of open) {
    ask(one, KEPT, () => found[KEPT - 1]?.timeS ?? INFINITE);
    settled++;
  }
  if (found.length === 0 && !stopped) throw stands ? standsStill() : whyNothing(problem, stages, course.fastestMps);
  return {
    best: lined(found),
    provenBest,
    boundS: provenBest ? bestS() : Math.min(bestS(), ...open.map(({ leastS }) => leastS)),
    combinations,
    evaluated,
    visited,
  };
}

/**
 * Course time of one set, with what explains it.
 * Each straight has its mean slope, rounded (see {@link courseSlopes}).
 * Not counted: the line through a corner, how a slope lies within a straight, and the driver.
 * @param visit told of points along the course
 * @throws InputError naming the field
 */
export function coursePace(vehicle: Vehicle, course: Course, visit?: (point: PacePoint) => void): Pace {
  checkCourse(course);
  if (!('torqueCurve' in vehicle.engine))
    throw new InputError('vehicle.engine', 'vehicle.engine needs a torque curve here.', 'a torque curve and a limiter');
  const result = driven(vehicle, course, visit);
  if (!Number.isFinite(result.timeS)) throw standsStill();
  return result;
}

/** The same of a course that was checked; the time is infinite where the car comes to a stand. */
function driven(vehicle: Vehicle, course: Course, visit?: (point: PacePoint) => void): Pace {
  const sets = carsOn(vehicle, course).map((car) =>
    gearSet(
      car,
      car.gears.map((gear) => gearTable(car, gear)),
    ),
  );
  return pace(sets, straightsOf(course), visit);
}

/** A pair in words: driven/driver teeth. */
export const pairName = nameOf;
