import { meanGrade, type Corner, type Course } from './course';
import { bestShiftSpeed, type Car } from './vehicle';
import type { GearState } from './gear-state';

/** Cells of the speed grid on which accelerations are tabled. */
const CELLS = 400;
/** An acceleration below this counts as none: the car stays at that speed. */
const LEAST_MPS2 = 1e-4;

/** The speed grid that all tables of one comparison share. */
export interface Grid {
  readonly cell: number;
  readonly cells: number;
}

export function gridUpTo(fastestMps: number): Grid {
  return { cell: fastestMps / CELLS, cells: CELLS };
}

/** Time and distance that one gear needs from standstill to each speed of the grid, as if it pulled from there. */
export interface GearTable {
  readonly gear: GearState;
  readonly limitMps: number;
  /** Seconds per m/s in each cell. */
  readonly slowness: Float64Array;
  readonly time: Float64Array;
  readonly distance: Float64Array;
}

export function gearTable(car: Car, gear: GearState, { cell, cells }: Grid): GearTable {
  const slowness = new Float64Array(cells);
  const slow = (v: number): number => 1 / Math.max(car.acceleration(Math.min(v, gear.limitMps), gear), LEAST_MPS2);
  for (let j = 0; j < cells; j++) {
    const [from, to] = [j * cell, (j + 1) * cell];
    if (from >= gear.limitMps) slowness[j] = 1 / LEAST_MPS2;
    else if (gear.lockMps > from && gear.lockMps < to) {
      // Where clutch or converter closes, the acceleration jumps: the cell has a part of either.
      const share = (gear.lockMps - from) / cell;
      slowness[j] = share * slow((from + gear.lockMps) / 2) + (1 - share) * slow((gear.lockMps + to) / 2);
    } else slowness[j] = slow((from + to) / 2);
  }
  return { gear, limitMps: gear.limitMps, slowness, ...sums(slowness, cell) };
}

/** Running time and distance of a table of slowness. */
export function sums(slowness: Float64Array, cell: number): { time: Float64Array; distance: Float64Array } {
  const time = new Float64Array(slowness.length + 1);
  const distance = new Float64Array(slowness.length + 1);
  for (let j = 0; j < slowness.length; j++) {
    const dt = (slowness[j] as number) * cell;
    time[j + 1] = (time[j] as number) + dt;
    distance[j + 1] = (distance[j] as number) + dt * (j + 0.5) * cell;
  }
  return { time, distance };
}

/** Straight part of a course, with the speeds at its two ends. */
export interface Straight {
  /** As fast as it can be entered. */
  readonly fromMps: number;
  readonly lengthM: number;
  /** Corner speed to brake down to; infinite at the finish. */
  readonly toMps: number;
  readonly brakingMps2: number;
  /** The corner behind it. */
  readonly cornerM: number;
  /** Which of the slopes of {@link courseSlopes} it lies on. */
  readonly slope: number;
}

/** Slopes are told apart by so many percent, and more where a course has many; each of them asks for tables of its own. Ours. */
const SLOPE_STEP = 1;
const MOST_KINDS = 6;

/** The straights of a course in metres, from where to where, corners behind them included. */
function stretches({ corners, lengthM }: Course): readonly (readonly [fromM: number, toM: number])[] {
  const ends = [...corners.map(({ atM, lengthM: long }) => atM + long), lengthM];
  return ends.map((to, i) => [i === 0 ? 0 : (ends[i - 1] as number), to]);
}

/**
 * The slopes in percent that the straights of a course have, each straight by its mean, rounded to whole percents (coarser where there
 * would be more than six kinds); at least one. And for each straight which of them it is.
 */
export function courseSlopes(course: Course): { readonly grades: readonly number[]; readonly at: readonly number[] } {
  const { slopes = [] } = course;
  const means = stretches(course).map(([from, to]) => meanGrade(slopes, from, to));
  for (let step = SLOPE_STEP; ; step *= 2) {
    const rounded = means.map((mean) => step * Math.round(mean / step) || 0);
    const grades = [...new Set(rounded)].sort((a, b) => Math.abs(a) - Math.abs(b) || a - b);
    if (grades.length <= MOST_KINDS) return { grades, at: rounded.map((grade) => grades.indexOf(grade)) };
  }
}

/** The straights of a course; a corner that the next one forces to be taken slower gets that speed. */
export function straightsOf(course: Course): Straight[] {
  const { corners } = course;
  const speeds = corners.map((corner) => corner.speedMps);
  const lengths = corners.map(({ atM }, i) => {
    const before = corners[i - 1];
    return atM - (before ? before.atM + before.lengthM : 0);
  });
  const most = (i: number): number => {
    const { brakingMps2 } = corners[i] as Corner;
    return Math.sqrt((speeds[i] as number) ** 2 + 2 * brakingMps2 * (lengths[i] as number));
  };
  for (let i = corners.length - 1; i > 0; i--) speeds[i - 1] = Math.min(speeds[i - 1] as number, most(i));
  const start = corners.length > 0 ? Math.min(course.startMps, most(0)) : course.startMps;
  const { at } = courseSlopes(course);
  const straights = corners.map((corner, i): Straight => ({
    slope: at[i] ?? 0,
    fromMps: i === 0 ? start : (speeds[i - 1] as number),
    lengthM: lengths[i] as number,
    toMps: speeds[i] as number,
    brakingMps2: corner.brakingMps2,
    cornerM: corner.lengthM,
  }));
  const last = corners.at(-1);
  straights.push({
    slope: at.at(-1) ?? 0,
    fromMps: speeds.at(-1) ?? start,
    lengthM: course.lengthM - (last ? last.atM + last.lengthM : 0),
    toMps: Number.POSITIVE_INFINITY,
    brakingMps2: 1,
    cornerM: 0,
  });
  return straights;
}

/** A set of gears made ready for a course. */
export interface GearSet {
  readonly grid: Grid;
  readonly tables: readonly GearTable[];
  /** Speed at which each gear but the last is left. */
  readonly shifts: Float64Array;
  /** Speed after the shift, the car having coasted. */
  readonly after: Float64Array;
  readonly coastM: Float64Array;
  readonly shiftTimeS: number;
}

/**
 * Coasting through a shift from `speed`, at the deceleration that it starts with; at most to a stop.
 * Not counted: that it gains speed where a slope pulls harder than what resists.
 */
export function coast(car: Car, speed: number): { after: number; distance: number } {
  const lost = Math.max(0, Math.min((car.resistance(speed) / car.rollingKg) * car.shiftTimeS, speed));
  return { after: speed - lost, distance: (speed - lost / 2) * car.shiftTimeS };
}

/** Puts tables together to a set; shift speeds are those of {@link bestShiftSpeed} unless given. */
export function gearSet(car: Car, grid: Grid, tables: readonly GearTable[]): GearSet {
  const shifts = new Float64Array(tables.length - 1);
  const after = new Float64Array(tables.length - 1);
  const coastM = new Float64Array(tables.length - 1);
  for (let k = 0; k < shifts.length; k++) {
    const next = tables[k + 1] as GearTable;
    const speed = Math.max(
      bestShiftSpeed((tables[k] as GearTable).gear, next.gear),
      k > 0 ? (shifts[k - 1] as number) : 0,
    );
    const coasted = coast(car, speed);
    shifts[k] = speed;
    after[k] = coasted.after;
    coastM[k] = coasted.distance;
  }
  return { grid, tables, shifts, after, coastM, shiftTimeS: car.shiftTimeS };
}

/** Value of a running table at a speed, linear inside a cell. */
export function tableAt(table: Float64Array, { cell, cells }: Grid, speed: number): number {
  const at = Math.min(speed / cell, cells);
  const j = Math.min(at | 0, cells - 1);
  return (table[j] as number) + ((table[j + 1] as number) - (table[j] as number)) * (at - j);
}

export interface PacePoint {
  readonly distanceM: number;
  readonly timeS: number;
  readonly speedMps: number;
  readonly gear: number;
  readonly rpm: number;
}

export interface Pace {
  readonly timeS: number;
  readonly shifts: number;
  /** Time with the last usable gear at its limiter, or held at a shift that braking would cut short. */
  readonly heldS: number;
  readonly fastestMps: number;
  readonly gearTimesS: readonly number[];
}

/** What the last straight came to; one object, since this runs some million times a search. */
const outcome = { time: 0, end: 0, peak: 0, shifts: 0, held: 0 };

/**
 * Time for one straight: full thrust up through the gears, then braking down to the corner. A shift that braking
 * would cut short is not begun: the speed is held. Sets {@link outcome}.
 */
function straight(set: GearSet, fromMps: number, lengthM: number, toMps: number, braking: number, leave?: Leave): void {
  const { tables, shifts, after, coastM, grid, shiftTimeS } = set;
  const brakeM = (v: number): number => (v > toMps ? (v * v - toMps * toMps) / (2 * braking) : 0);
  let gear = 0;
  while (gear < shifts.length && fromMps >= (shifts[gear] as number)) gear++;
  let [v, time, used, count] = [fromMps, 0, 0, 0];
  let held = 0;
  for (;;) {
    const table = tables[gear] as GearTable;
    const top = Math.max(v, gear < shifts.length ? (shifts[gear] as number) : table.limitMps);
    const from = tableAt(table.distance, grid, v);
    const whole = used + tableAt(table.distance, grid, top) - from;
    if (whole + brakeM(top) >= lengthM) {
      // The braking point lies in this gear: find its cell, then its speed in there.
      const peak = meet(table.distance, grid, v, top, (u, x) => used + x - from + brakeM(u) - lengthM);
      time += tableAt(table.time, grid, peak) - tableAt(table.time, grid, v);
      leave?.(gear, v, peak, used, time);
      v = peak;
      break;
    }
    const gained = tableAt(table.time, grid, top) - tableAt(table.time, grid, v);
    leave?.(gear, v, top, used, time + gained);
    time += gained;
    used = whole;
    v = top;
    if (gear < shifts.length) {
      const next = tables[gear + 1] as GearTable;
      const low = after[gear] as number;
      const back = (coastM[gear] as number) + tableAt(next.distance, grid, top) - tableAt(next.distance, grid, low);
      if (top < next.limitMps && used + back + brakeM(top) < lengthM) {
        time += shiftTimeS;
        used += coastM[gear] as number;
        v = low;
        gear++;
        count++;
        continue;
      }
    }
    held = (lengthM - used - brakeM(v)) / v;
    time += held;
    break;
  }
  outcome.peak = v;
  outcome.end = Math.min(v, toMps);
  outcome.time = time + (v > toMps ? (v - toMps) / braking : 0);
  outcome.shifts = count;
  outcome.held = held;
}

/** Told of each stretch in a gear: speeds at its ends, where it starts and when it ends. */
type Leave = (gear: number, from: number, to: number, usedM: number, timeS: number) => void;

/** Speed between `low` and `high` at which `excess` (rising) is zero. */
export function meet(
  table: Float64Array,
  grid: Grid,
  low: number,
  high: number,
  excess: (speed: number, tabled: number) => number,
): number {
  let [a, b] = [Math.ceil(low / grid.cell), Math.floor(high / grid.cell)];
  const node = (j: number): number => excess(j * grid.cell, table[j] as number);
  let [from, to] = [low, high];
  while (a <= b) {
    const middle = (a + b) >> 1;
    if (node(middle) >= 0) {
      to = middle * grid.cell;
      b = middle - 1;
    } else {
      from = middle * grid.cell;
      a = middle + 1;
    }
  }
  // Inside one cell the distance is linear and braking a parabola: regula falsi with a halved end is there at once.
  let [f, t] = [excess(from, tableAt(table, grid, from)), excess(to, tableAt(table, grid, to))];
  if (f >= 0) return from;
  for (let i = 0; i < 40; i++) {
    if (!(t - f > 0)) return to;
    const speed = from + ((to - from) * -f) / (t - f);
    const e = excess(speed, tableAt(table, grid, speed));
    if (Math.abs(e) < 1e-9 || to - from < 1e-12) return speed;
    if (e > 0) {
      to = speed;
      t = e;
      f /= 2;
    } else {
      from = speed;
      f = e;
      t /= 2;
    }
  }
  return to;
}

/** Lap time alone, as fast as it goes. @param sets the same gears on each of the slopes of the course */
export function paceTime(sets: readonly GearSet[], straights: readonly Straight[]): number {
  let [time, v] = [0, (straights[0] as Straight).fromMps];
  for (const one of straights) {
    const set = sets[one.slope] as GearSet;
    straight(set, v, one.lengthM, one.toMps, one.brakingMps2);
    time += outcome.time;
    v = outcome.end;
    if (one.cornerM > 0) {
      // A set too slow for this corner goes on pulling through it.
      if (v < one.toMps - 1e-9) {
        straight(set, v, one.cornerM, one.toMps, 1e9);
        time += outcome.time;
        v = outcome.end;
      } else time += one.cornerM / v;
    }
  }
  return time;
}

/** Lap time with what explains it; `visit` is told of points along the course, close enough for a picture. */
export function pace(
  sets: readonly GearSet[],
  straights: readonly Straight[],
  visit?: (point: PacePoint) => void,
): Pace {
  let set = sets[0] as GearSet;
  const { grid } = set;
  let [time, at, shifts, heldS, fastestMps] = [0, 0, 0, 0, 0];
  let v = (straights[0] as Straight).fromMps;
  const gearTimes = set.tables.map(() => 0);
  let gearNow = 0;
  const tell = (x: number, t: number, speed: number, gear: number): void => {
    const state = (set.tables[gear] as GearTable).gear;
    visit?.({ distanceM: x, timeS: t, speedMps: speed, gear, rpm: state.rpm(speed) });
  };
  const gearFor = (speed: number): number => {
    let gear = 0;
    while (gear < set.shifts.length && speed >= (set.shifts[gear] as number)) gear++;
    return gear;
  };
  const run = (lengthM: number, toMps: number, braking: number): void => {
    straight(set, v, lengthM, toMps, braking, (gear, from, to, usedM, endS) => {
      const table = set.tables[gear] as GearTable;
      const [x0, t0] = [tableAt(table.distance, grid, from), tableAt(table.time, grid, from)];
      const start = endS - (tableAt(table.time, grid, to) - t0);
      gearTimes[gear] = (gearTimes[gear] ?? 0) + endS - start;
      gearNow = gear;
      if (!visit) return;
      const count = Math.max(1, Math.ceil((to - from) / Math.max(0.5, grid.cell)));
      for (let i = 0; i <= count; i++) {
        const speed = from + ((to - from) * i) / count;
        tell(
          at + usedM + tableAt(table.distance, grid, speed) - x0,
          time + start + tableAt(table.time, grid, speed) - t0,
          speed,
          gear,
        );
      }
    });
    const brakingS = outcome.peak > toMps ? (outcome.peak - toMps) / braking : 0;
    if (visit && (outcome.held > 0 || brakingS > 0)) {
      const brakeM = brakingS * 0.5 * (outcome.peak + outcome.end);
      tell(at + lengthM - brakeM, time + outcome.time - brakingS, outcome.peak, gearNow);
      for (let i = 1; i <= 8 && brakingS > 0; i++) {
        const speed = outcome.peak - ((outcome.peak - outcome.end) * i) / 8;
        const left = brakeM - (outcome.peak ** 2 - speed ** 2) / (2 * braking);
        const s = brakingS * (1 - i / 8);
        tell(at + lengthM - left, time + outcome.time - s, speed, Math.min(gearNow, gearFor(speed)));
      }
    }
    gearTimes[gearNow] = (gearTimes[gearNow] ?? 0) + outcome.held;
    fastestMps = Math.max(fastestMps, outcome.peak);
    shifts += outcome.shifts;
    heldS += outcome.held;
    time += outcome.time;
    at += lengthM;
    v = outcome.end;
  };
  for (const one of straights) {
    set = sets[one.slope] as GearSet;
    run(one.lengthM, one.toMps, one.brakingMps2);
    if (one.cornerM === 0) continue;
    if (v < one.toMps - 1e-9) run(one.cornerM, one.toMps, 1e9);
    else {
      const seconds = one.cornerM / v;
      const gear = gearFor(v);
      gearTimes[gear] = (gearTimes[gear] ?? 0) + seconds;
      time += seconds;
      at += one.cornerM;
      tell(at, time, v, gear);
    }
  }
  return { timeS: time, shifts, heldS, fastestMps, gearTimesS: gearTimes };
}
