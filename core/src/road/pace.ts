import { meanGrade, type Corner, type Course } from './course';
import { accelerationOf, noSums, sumBetween, type Asked, type Formula } from './quadrature';
import { AT_REST, stretchFrom } from './stretch';
import { bestShiftSpeed, type Car } from './vehicle';
import type { GearState } from './gear-state';

/** Speeds at which a table has its sums lie at most so far apart, m/s. */
const APART_MPS = 0.75;

/** Time and distance that one gear needs from standstill to a speed, as if it pulled from there: summed at nodes, exact in between. */
export interface GearTable {
  readonly gear: GearState;
  /** As fast as it gets: its limiter, or where nothing accelerates any more. */
  readonly topMps: number;
  readonly nodes: readonly number[];
  readonly time: readonly number[];
  readonly distance: readonly number[];
  /** The law from each node to the next. */
  readonly laws: readonly (Formula | Asked)[];
  /** Last node at or below each multiple of {@link APART_MPS}. */
  readonly index: readonly number[];
}

/** Sums one gear over its speeds, stretch by stretch of one law. */
export function gearTable(car: Car, gear: GearState): GearTable {
  const nodes = [0];
  const time = [0];
  const distance = [0];
  const laws: (Formula | Asked)[] = [];
  const sums = noSums();
  const on = (law: Formula | Asked, to: number): void => {
    sumBetween(law, nodes.at(-1) as number, to, sums);
    laws.push(law);
    nodes.push(to);
    time.push((time.at(-1) as number) + sums.timeS);
    distance.push((distance.at(-1) as number) + sums.distanceM);
  };
  for (let v = 0; v < gear.limitMps;) {
    const locked = v >= gear.lockMps;
    const { law, end, rest, mps2 } = stretchFrom(
      car,
      gear,
      v,
      locked,
      locked ? gear.limitMps : Math.min(gear.lockMps, gear.limitMps),
    );
    if (mps2 <= 0) break;
    // Towards a speed that it never quite comes to, by halves of what is left: each half is as easy to sum as the one before.
    const to = rest === null ? end : rest - (rest - v) * AT_REST;
    while (v < to) {
      const step = rest === null ? to - v : Math.min((rest - v) / 2, to - v);
      const next = step > APART_MPS ? v + step / Math.ceil(step / APART_MPS) : to - v - step < 1e-12 ? to : v + step;
      on(law, next);
      v = next;
    }
    if (rest !== null) break;
    v = end;
  }
  const topMps = nodes.at(-1) as number;
  const index: number[] = [];
  for (let i = 0, j = 0; i * APART_MPS <= topMps; i++) {
    while (j + 1 < nodes.length && (nodes[j + 1] as number) <= i * APART_MPS) j++;
    index.push(j);
  }
  return { gear, topMps, nodes, time, distance, laws, index };
}

/** Time and distance at a speed. */
export interface At {
  timeS: number;
  distanceM: number;
}

const part = noSums();

/** The node below a speed that the table has. */
function nodeBelow({ nodes, index }: GearTable, speed: number): number {
  let j = index[Math.floor(speed / APART_MPS)] as number;
  while (j + 2 < nodes.length && (nodes[j + 1] as number) <= speed) j++;
  return j;
}

/** Reads a table at a speed; beyond its top it stands still. */
export function readTable(table: GearTable, speed: number, into: At): void {
  const { nodes, time, distance, laws, topMps } = table;
  if (speed >= topMps || nodes.length < 2) {
    into.timeS = time.at(-1) as number;
    into.distanceM = distance.at(-1) as number;
    return;
  }
  const j = nodeBelow(table, speed);
  sumBetween(laws[j] as Formula | Asked, nodes[j] as number, speed, part);
  into.timeS = (time[j] as number) + part.timeS;
  into.distanceM = (distance[j] as number) + part.distanceM;
}

/**
 * The speed in a gear from which the way that is left is just enough to brake down.
 * @param lengthM what the way in the table and braking have to come to together
 * @param into what the table says there
 */
export function brakingSpeed(
  table: GearTable,
  from: number,
  to: number,
  lengthM: number,
  toMps: number,
  brakingMps2: number,
  into: At,
): number {
  const { nodes, distance, time, laws } = table;
  const brakeM = (v: number): number => (v > toMps ? (v * v - toMps * toMps) / (2 * brakingMps2) : 0);
  let low = 0;
  let high = nodes.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((distance[middle] as number) + brakeM(nodes[middle] as number) <= lengthM) low = middle;
    else high = middle;
  }
  const law = laws[low] as Formula | Asked;
  const start = nodes[low] as number;
  let [least, most] = [Math.max(start, from), Math.min(nodes[low + 1] as number, to)];
  // As if the acceleration were the same from node to node: v² is a straight line over the way.
  const a =
    ((nodes[low + 1] as number) ** 2 - start * start) / 2 / ((distance[low + 1] as number) - (distance[low] as number));
  const left = lengthM - (distance[low] as number);
  const slowing = start * start + 2 * a * left > toMps * toMps;
  let speed = Math.sqrt(
    slowing
      ? Math.max(0, (start * start * brakingMps2 + toMps * toMps * a + 2 * a * brakingMps2 * left) / (a + brakingMps2))
      : start * start + 2 * a * left,
  );
  for (let i = 0; i < 40; i++) {
    if (!(speed >= least && speed <= most)) speed = (least + most) / 2;
    sumBetween(law, start, speed, part);
    const excess = part.distanceM + brakeM(speed) - left;
    const slow = speed > toMps ? 1 / brakingMps2 : 0;
    let step = excess / (speed * (1 / accelerationOf(law, speed) + slow));
    if (excess > 0) most = speed;
    else least = speed;
    // What is left of the way is counted at the acceleration half-way there: the third power of a thousandth.
    if (Math.abs(step) < 1e-3 || most - least < 1e-12) {
      const middle = speed - step / 2;
      const mps2 = accelerationOf(law, middle);
      step = excess / (middle * (1 / mps2 + slow));
      const met = speed - step;
      const backS = step / mps2;
      into.timeS = (time[low] as number) + part.timeS - backS;
      into.distanceM = (distance[low] as number) + part.distanceM - backS * middle;
      return met;
    }
    speed -= step;
  }
  into.timeS = (time[low] as number) + part.timeS;
  into.distanceM = (distance[low] as number) + part.distanceM;
  return speed;
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

/** A shift from one gear to the next, and what their tables say before and after it. */
export interface GearShift {
  /** Speed at which the gear is left, and after the shift, the car having coasted. */
  readonly speed: number;
  readonly after: number;
  readonly coastM: number;
  readonly left: At;
  readonly next: At;
  /** Whether the gear comes to that speed, and whether the next one pulls after it. */
  readonly reached: boolean;
  readonly pulls: boolean;
}

/**
 * Coasting through a shift from `speed`, at the deceleration that it starts with; at most to a stop.
 * Not counted: that it gains speed where a slope pulls harder than what resists.
 */
export function coast(car: Car, speed: number): { after: number; distance: number } {
  const lost = Math.max(0, Math.min((car.resistance(speed) / car.rollingKg) * car.shiftTimeS, speed));
  return { after: speed - lost, distance: (speed - lost / 2) * car.shiftTimeS };
}

export function gearShift(car: Car, low: GearTable, next: GearTable, speed: number): GearShift {
  const { after, distance: coastM } = coast(car, speed);
  const [left, onwards] = [
    { timeS: 0, distanceM: 0 },
    { timeS: 0, distanceM: 0 },
  ];
  readTable(low, speed, left);
  readTable(next, after, onwards);
  return { speed, after, coastM, left, next: onwards, reached: speed <= low.topMps, pulls: after < next.topMps };
}

/** A set of gears made ready for a course: their tables, and where each but the last is left. */
export interface GearSet {
  readonly tables: readonly GearTable[];
  readonly shifts: readonly GearShift[];
  readonly shiftTimeS: number;
}

/** Puts tables together to a set; shift speeds are those of {@link bestShiftSpeed}, or of the gear before where that is faster. */
export function gearSet(car: Car, tables: readonly GearTable[]): GearSet {
  const shifts: GearShift[] = [];
  for (let k = 0; k + 1 < tables.length; k++) {
    const [low, next] = [tables[k] as GearTable, tables[k + 1] as GearTable];
    const speed = Math.max(bestShiftSpeed(low.gear, next.gear), shifts[k - 1]?.speed ?? 0);
    shifts.push(gearShift(car, low, next, speed));
  }
  return { tables, shifts, shiftTimeS: car.shiftTimeS };
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
  /** Time with the last usable gear at its limiter, or held where one more shift would not pay before braking. */
  readonly heldS: number;
  readonly fastestMps: number;
  readonly gearTimesS: readonly number[];
}

/** What the last straight came to; one object, since this runs some hundred thousand times a second. */
const outcome = { timeS: 0, end: 0, peak: 0, shifts: 0, heldS: 0, gear: 0 };
const [low, high] = [
  { timeS: 0, distanceM: 0 },
  { timeS: 0, distanceM: 0 },
];

/** The gear in which a set is at a speed. */
function gearAt({ shifts }: GearSet, speed: number): number {
  let gear = 0;
  while (gear < shifts.length && speed >= (shifts[gear] as GearShift).speed) gear++;
  return gear;
}

/**
 * Time for one straight: full thrust up through the gears, then braking down to the corner. A shift that does not pay before the
 * braking point is not begun, the speed is held: of all gears that it could be held in, and of going on, what is quickest. Sets
 * {@link outcome}.
 */
function straight(
  set: GearSet,
  fromMps: number,
  lengthM: number,
  toMps: number,
  braking: number,
  mostMps = Number.POSITIVE_INFINITY,
): void {
  const { tables, shifts, shiftTimeS } = set;
  let gear = gearAt(set, fromMps);
  const first = gear;
  let v = fromMps;
  let time = 0;
  let used = 0;
  readTable(tables[gear] as GearTable, v, low);
  let { timeS: lowS, distanceM: lowM } = low;
  outcome.timeS = Number.POSITIVE_INFINITY;
  for (;;) {
    const table = tables[gear] as GearTable;
    const shift = shifts[gear];
    const leaves = shift?.reached && shift.speed > v;
    let top = leaves ? shift.speed : Math.max(v, table.topMps);
    let topM = leaves ? shift.left.distanceM : (table.distance.at(-1) as number);
    let topS = leaves ? shift.left.timeS : (table.time.at(-1) as number);
    if (top > mostMps) {
      top = mostMps;
      readTable(table, top, high);
      topM = high.distanceM;
      topS = high.timeS;
    }
    const braked = top > toMps ? (top * top - toMps * toMps) / (2 * braking) : 0;
    const rest = lengthM - used;
    if (top > v && topM - lowM + braked >= rest) {
      // The braking point lies in this gear.
      const peak = brakingSpeed(table, v, top, rest + lowM, toMps, braking, high);
      offer(time + high.timeS - lowS, peak, toMps, braking, 0, gear - first, gear);
      return;
    }
    time += topS - lowS;
    used += topM - lowM;
    v = top;
    const heldS = Math.max((lengthM - used - braked) / v, 0);
    offer(time + heldS, v, toMps, braking, heldS, gear - first, gear);
    if (!shift?.reached || !shift.pulls || v >= mostMps) return;
    time += shiftTimeS;
    used += shift.coastM;
    v = shift.after;
    lowS = shift.next.timeS;
    lowM = shift.next.distanceM;
    gear++;
    const slowing = v > toMps ? (v * v - toMps * toMps) / (2 * braking) : 0;
    if (used + slowing >= lengthM) return;
  }
}

/** One way to drive the straight: kept if it is the quickest so far. */
function offer(
  untilS: number,
  peak: number,
  toMps: number,
  braking: number,
  heldS: number,
  shifts: number,
  gear: number,
): void {
  const timeS = untilS + (peak > toMps ? (peak - toMps) / braking : 0);
  if (timeS >= outcome.timeS) return;
  outcome.timeS = timeS;
  outcome.peak = peak;
  outcome.end = Math.min(peak, toMps);
  outcome.shifts = shifts;
  outcome.heldS = heldS;
  outcome.gear = gear;
}

/** Lap time alone, as fast as it goes. @param sets the same gears on each of the slopes of the course */
export function paceTime(sets: readonly GearSet[], straights: readonly Straight[]): number {
  let time = 0;
  let v = (straights[0] as Straight).fromMps;
  for (const one of straights) {
    const set = sets[one.slope] as GearSet;
    straight(set, v, one.lengthM, one.toMps, one.brakingMps2);
    time += outcome.timeS;
    v = outcome.end;
    if (one.cornerM > 0) {
      // A set too slow for this corner goes on pulling through it, as fast as the corner is.
      if (v < one.toMps - 1e-9) {
        straight(set, v, one.cornerM, one.toMps, 1e9, one.toMps);
        time += outcome.timeS;
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
  let [time, at, shifts, heldS, fastestMps] = [0, 0, 0, 0, 0];
  let v = (straights[0] as Straight).fromMps;
  const gearTimes = set.tables.map(() => 0);
  const tell = (x: number, t: number, speed: number, gear: number): void => {
    const state = (set.tables[gear] as GearTable).gear;
    visit?.({ distanceM: x, timeS: t, speedMps: speed, gear, rpm: state.rpm(speed) });
  };
  const [from, to, between] = [low, high, { timeS: 0, distanceM: 0 }];
  /** The gears of a straight once more, now that it is known in which of them it ends. */
  const through = (peak: number, last: number): void => {
    let [t, x] = [0, 0];
    for (let gear = gearAt(set, v), speed = v; ; gear++) {
      const table = set.tables[gear] as GearTable;
      const shift = set.shifts[gear] as GearShift;
      const top = gear === last ? peak : shift.speed;
      readTable(table, speed, from);
      readTable(table, top, to);
      gearTimes[gear] = (gearTimes[gear] as number) + to.timeS - from.timeS;
      const count = visit ? Math.max(1, Math.ceil((top - speed) / 0.5)) : -1;
      for (let i = 0; i <= count; i++) {
        const here = speed + ((top - speed) * i) / count;
        readTable(table, here, between);
        tell(at + x + between.distanceM - from.distanceM, time + t + between.timeS - from.timeS, here, gear);
      }
      if (gear === last) return;
      t += to.timeS - from.timeS + set.shiftTimeS;
      x += to.distanceM - from.distanceM + shift.coastM;
      speed = shift.after;
    }
  };
  const run = (lengthM: number, toMps: number, braking: number, mostMps?: number): void => {
    straight(set, v, lengthM, toMps, braking, mostMps);
    const { timeS, peak, end, gear, heldS: held } = outcome;
    through(peak, gear);
    const brakingS = peak > toMps ? (peak - toMps) / braking : 0;
    if (visit && (held > 0 || brakingS > 0)) {
      const brakeM = brakingS * 0.5 * (peak + end);
      tell(at + lengthM - brakeM, time + timeS - brakingS, peak, gear);
      for (let i = 1; i <= 8 && brakingS > 0; i++) {
        const speed = peak - ((peak - end) * i) / 8;
        const left = brakeM - (peak ** 2 - speed ** 2) / (2 * braking);
        tell(at + lengthM - left, time + timeS - brakingS * (1 - i / 8), speed, Math.min(gear, gearAt(set, speed)));
      }
    }
    gearTimes[gear] = (gearTimes[gear] as number) + held;
    fastestMps = Math.max(fastestMps, peak);
    shifts += outcome.shifts;
    heldS += held;
    time += timeS;
    at += lengthM;
    v = end;
  };
  for (const one of straights) {
    set = sets[one.slope] as GearSet;
    run(one.lengthM, one.toMps, one.brakingMps2);
    if (one.cornerM === 0) continue;
    if (v < one.toMps - 1e-9) run(one.cornerM, one.toMps, 1e9, one.toMps);
    else {
      const seconds = one.cornerM / v;
      const gear = gearAt(set, v);
      gearTimes[gear] = (gearTimes[gear] as number) + seconds;
      time += seconds;
      at += one.cornerM;
      tell(at, time, v, gear);
    }
  }
  return { timeS: time, shifts, heldS, fastestMps, gearTimesS: gearTimes };
}
