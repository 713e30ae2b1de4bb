import { SEARCH_LIMITS } from './limits';
import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { checkCourse, type Course } from './course';
import {
  coast,
  courseSlopes,
  gearSet,
  gearTable,
  gridUpTo,
  pace,
  paceTime,
  straightsOf,
  type GearTable,
  type Grid,
  type Pace,
  type PacePoint,
} from './pace';
import {
  INFINITE,
  boundBelow,
  type Branch,
  type Option,
  type Search,
  type ShelfFinal,
  type ShelfPair,
  type Stage,
} from './search-bound';
import { bestShiftSpeed, readyCar, type Car, type Vehicle } from './vehicle';

export type { ShelfFinal, ShelfPair } from './search-bound';

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
}

export interface SearchProgress {
  /** 0 to 1, by the part of the tree that is settled. */
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

const KEPT = 6;
/** Nodes between two looks at the clock of whoever asked. */
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

function stageOf(problem: SearchProblem, final: ShelfFinal, shelf: ShelfPair[][], grid: Grid): Stage {
  const cars = carsOn({ ...problem.vehicle, finalRatio: final.ring / final.pinion }, problem.course);
  const car = cars[0] as Car;
  const options = shelf.map((fitting, k) =>
    fitting.map((pair) => {
      const ratio = ratioOf(pair);
      return { pair, ratio, tables: cars.map((on) => gearTable(on, on.gear(ratio, k), grid)) };
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

const ascending = (child: Float64Array, below: number): number[] =>
  [...child.keys()]
    .filter((b) => (child[b] as number) < below)
    .sort((p, q) => (child[p] as number) - (child[q] as number));

/** An allowed chain by the cheapest choices in turn; null if none is met soon. */
function firstChain(stage: Stage, search: Search): number[] | null {
  let budget = 200;
  const dive = (chain: number[]): number[] | null => {
    if (chain.length === stage.options.length) return chain;
    const { child } = boundBelow({ stage, chain }, search, INFINITE);
    for (const b of ascending(child, INFINITE)) {
      if (--budget < 0) return null;
      const whole = dive([...chain, b]);
      if (whole) return whole;
    }
    return null;
  };
  return dive([]);
}

/** Whether a whole chain keeps every rule. */
function keepsRules(stage: Stage, search: Search, chain: readonly number[]): boolean {
  const { options, leaves } = stage;
  const ratio = (k: number): number => ((options[k] as readonly Option[])[chain[k] as number] as Option).ratio;
  for (let k = 0; k + 1 < chain.length; k++) {
    if (Number.isNaN((leaves[k]?.[chain[k] as number] as Float64Array)[chain[k + 1] as number])) return false;
    if (search.shrinking && k > 0 && ratio(k) / ratio(k + 1) > (ratio(k - 1) / ratio(k)) * (1 + 1e-9)) return false;
  }
  return search.reaches(stage, chain.at(-1) as number);
}

/** Exchanges one gear or two neighbours as long as that is faster and `tell` answers true. */
function improve(
  stage: Stage,
  search: Search,
  start: readonly number[],
  timeOf: (stage: Stage, chain: readonly number[]) => number,
  tell: (chain: readonly number[], timeS: number) => boolean,
): void {
  let best = [...start];
  let bestS = timeOf(stage, best);
  if (!tell(best, bestS)) return;
  const count = (k: number): number => (stage.options[k] ?? []).length;
  const attempt = (changed: readonly number[]): boolean => {
    if (!keepsRules(stage, search, changed)) return false;
    const timeS = timeOf(stage, changed);
    if (timeS >= bestS - 1e-9) return false;
    best = [...changed];
    bestS = timeS;
    return true;
  };
  for (let round = 0, better = true; better && round < 20; round++) {
    better = false;
    for (let k = 0; k < best.length; k++) {
      for (let a = 0; a < count(k); a++) {
        if (attempt(best.with(k, a))) better = true;
        for (let b = 0; b < count(k + 1); b++) if (attempt(best.with(k, a).with(k + 1, b))) better = true;
      }
      if (!tell(best, bestS)) return;
    }
  }
}

/** Which rule leaves nothing, said of a shelf from which no set can be built. */
function whyNothing(problem: SearchProblem, stages: readonly Stage[], fastest: number | null): InputError {
  const margin = problem.rules?.limiterMargin ?? 0;
  const tops = stages.flatMap((stage) => (stage.options.at(-1) ?? []).map(({ tables }) => tables[0]?.limitMps ?? 0));
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

/** Every final drive with the gears that are in the box; rules on steps say nothing of a box that stays. */
function finalsAlone({ vehicle, course, finals }: SearchProblem): SearchResult {
  const best = finals
    .map((final): FoundSet => {
      const { timeS } = coursePace({ ...vehicle, finalRatio: final.ring / final.pinion }, course);
      return { final, pairs: [], timeS };
    })
    .sort((a, b) => a.timeS - b.timeS);
  return {
    best: best.slice(0, KEPT),
    provenBest: true,
    boundS: best[0]?.timeS ?? 0,
    combinations: finals.length,
    evaluated: finals.length,
    visited: finals.length,
  };
}

/**
 * The set of gear pairs and final drive with the least course time; without pairs, the final drive for the box as it is. Branch and bound from first gear upwards over every
 * final drive; the bound is worked out above. Deterministic: the same problem gives the same answer.
 * Not counted: the time that a change of gears takes, wear, and the driver.
 * @param onProgress told now and then; return false to stop, and what was found so far comes back with its bound
 * @throws InputError naming the field, or the rule that leaves nothing
 */
export function roadSearch(problem: SearchProblem, onProgress?: (progress: SearchProgress) => boolean): SearchResult {
  check(problem);
  const { vehicle, course, finals, rules } = problem;
  if (problem.pairs.length === 0) return finalsAlone(problem);
  const shelf = shelves(problem);
  const positions = shelf.length;
  const straights = straightsOf(course);
  const shrinking = (rules?.steps ?? 'shrinking') === 'shrinking';
  const margin = rules?.limiterMargin ?? 0;
  const tallest = Math.min(...(shelf.at(-1) ?? []).map(ratioOf));
  const reach = finals.map(
    (final) => readyCar({ ...vehicle, finalRatio: final.ring / final.pinion }).gear(tallest, positions - 1).limitMps,
  );
  const grid = gridUpTo(Math.max(...reach));
  const stages = finals.map((final) => stageOf(problem, final, shelf, grid));
  const needed = course.fastestMps === null ? 0 : course.fastestMps * (1 - margin);
  const tops = stages.map(({ options }) =>
    (options.at(-1) ?? []).map(({ tables }) => (tables[0]?.limitMps ?? 0) >= needed),
  );
  const combinations = shelf.reduce((product, fitting) => product * fitting.length, finals.length);
  const search: Search = {
    grid,
    straights,
    shrinking,
    reaches: (stage, a) => tops[stages.indexOf(stage)]?.[a] ?? false,
  };

  const found: FoundSet[] = [];
  const bestS = (): number => found[0]?.timeS ?? INFINITE;
  let [evaluated, visited, stopped] = [0, 0, false];

  const timeOf = (stage: Stage, chain: readonly number[]): number => {
    evaluated++;
    const chosen = chain.map((a, k) => (stage.options[k] as readonly Option[])[a] as Option);
    const sets = stage.cars.map((car, slope) =>
      gearSet(
        car,
        grid,
        chosen.map(({ tables }) => tables[slope] as GearTable),
      ),
    );
    return paceTime(sets, straights);
  };
  const keep = (stage: Stage, chain: readonly number[], timeS = timeOf(stage, chain)): void => {
    // Sets that differ only in gears which the course never uses take the same time; one of them is enough.
    if (found.some((set) => Math.abs(set.timeS - timeS) < 1e-9)) return;
    const pairs = chain.map((a, k) => ((stage.options[k] as readonly Option[])[a] as Option).pair);
    found.push({ final: stage.final, pairs, timeS });
    found.sort((a, b) => a.timeS - b.timeS);
    if (found.length > KEPT) found.pop();
  };

  /** Least bound of every branch that is not settled, by depth. */
  const pending: number[] = [];
  let settledShare = 0;
  let since = 0;
  const report = (): void => {
    const going = onProgress?.({
      share: Math.min(settledShare, 1),
      bestS: found[0]?.timeS ?? null,
      best: found[0] ?? null,
      boundS: Math.min(bestS(), ...pending),
    });
    if (going === false) stopped = true;
  };
  const visit = (branch: Branch, share: number): void => {
    const { stage, chain } = branch;
    const depth = chain.length + 1;
    const { child } = boundBelow(branch, search, bestS());
    const order = ascending(child, bestS());
    if (order.length === 0) settledShare += share;
    for (const [i, b] of order.entries()) {
      const least = child[b] as number;
      if (least >= bestS() - 1e-9) {
        settledShare += (share * (order.length - i)) / order.length;
        break;
      }
      pending[depth] = least;
      visited++;
      if (++since >= REPORT_EVERY) {
        since = 0;
        report();
      }
      if (stopped) return;
      if (depth === positions) {
        keep(stage, [...chain, b]);
        settledShare += share / order.length;
      } else visit({ stage, chain: [...chain, b] }, share / order.length);
      if (stopped) return;
    }
    pending.length = depth;
  };

  const order = stages
    .map((stage) => ({ stage, least: Math.min(...boundBelow({ stage, chain: [] }, search, INFINITE).child) }))
    .sort((a, b) => a.least - b.least);
  pending[0] = order[0]?.least ?? INFINITE;

  // A first good set of every final drive, so that the bounds have something to beat.
  for (const { stage } of order) {
    const chain = firstChain(stage, search);
    if (chain) {
      improve(stage, search, chain, timeOf, (better, timeS) => {
        keep(stage, better, timeS);
        report();
        return !stopped;
      });
    }
    if (stopped) break;
  }

  for (const [i, { stage, least }] of order.entries()) {
    if (stopped) break;
    pending[0] = order[i + 1]?.least ?? INFINITE;
    if (least < bestS()) visit({ stage, chain: [] }, 1 / order.length);
  }
  if (found.length === 0 && !stopped) throw whyNothing(problem, stages, course.fastestMps);
  return {
    best: found,
    provenBest: !stopped && found.length > 0,
    boundS: stopped ? Math.min(bestS(), ...pending) : bestS(),
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
  const cars = carsOn(vehicle, course);
  const grid = gridUpTo(Math.max(...(cars[0] as Car).gears.map((gear) => gear.limitMps)));
  const sets = cars.map((car) =>
    gearSet(
      car,
      grid,
      car.gears.map((gear) => gearTable(car, gear, grid)),
    ),
  );
  return pace(sets, straightsOf(course), visit);
}

/** A pair in words: driven/driver teeth. */
export const pairName = nameOf;
