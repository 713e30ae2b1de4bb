import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { POINTS, accelerationOf, gauss, noSums, sumBetween, type Asked, type Formula, type Sums } from './quadrature';
import { stretchFrom, type Stretch } from './stretch';
import { bestShiftSpeed, readyCar, type Car, type DriveLimit, type Push, type Vehicle } from './vehicle';
import type { GearState } from './gear-state';

/** 60 ft, 330 ft, 1/8 mile, 1000 ft, 1/4 mile in m [exact]. */
export const MARKS_M = [18.288, 100.584, 201.168, 304.8, 402.336] as const;

/** A time slip starts its clock when the car has rolled so far, m: 12 in [from memory; 11 to 12 are met]. */
export const ROLLOUT_M = 0.3048;
/** A time slip prints the mean speed over the last 66 ft before a mark, m [exact; the custom is from memory]. */
export const TRAP_M = 20.1168;

const KMH = 1 / 3.6;
const LONGEST_S = 3600;

export interface RunOptions {
  readonly distanceM: number;
  /** Up-shift at this engine speed; where the next gear pulls harder if left out. */
  readonly shiftRpm?: number;
  /** How far a time slip lets the car roll before its clock starts; {@link ROLLOUT_M} if left out. */
  readonly rolloutM?: number;
  /** Keeps the motion every tenth of a second at least, for a picture. */
  readonly trace?: boolean;
}

export interface Mark {
  readonly distanceM: number;
  readonly timeS: number;
  readonly speedMps: number;
}

/** What a time slip prints for a mark. */
export interface SlipMark {
  readonly distanceM: number;
  /** From the rollout on: t(x) − t(rollout). */
  readonly timeS: number;
  /** Mean over the last 66 ft; null where the mark is not so far from the rollout. */
  readonly speedMps: number | null;
}

export interface Shift {
  /** Gear that is left, 0 for first. */
  readonly gear: number;
  readonly timeS: number;
  readonly distanceM: number;
  readonly speedMps: number;
  readonly rpm: number;
  readonly rpmAfter: number;
}

export interface TracePoint {
  readonly timeS: number;
  readonly distanceM: number;
  readonly speedMps: number;
  readonly rpm: number;
  readonly gear: number;
  readonly limit: LimitedBy;
}

/** What holds the car back at a moment. */
export type LimitedBy = DriveLimit | 'shift' | 'limiter';

export interface Run {
  readonly timeS: number;
  readonly speedMps: number;
  readonly rpm: number;
  /** Gear at the end, 0 for first. */
  readonly gear: number;
  /** From standstill, speeds of the moment. */
  readonly marks: readonly Mark[];
  /** The same marks as a time slip has them. */
  readonly slip: { readonly rolloutM: number; readonly rolloutS: number; readonly marks: readonly SlipMark[] };
  readonly shifts: readonly Shift[];
  /** Seconds in each gear, shifts out of it included. */
  readonly gearTimesS: readonly number[];
  readonly limitTimesS: Readonly<Record<LimitedBy, number>>;
  /** 0–100 km/h and 80–120 km/h, null where not reached. */
  readonly zeroTo100S: number | null;
  readonly eightyTo120S: number | null;
  /**
   * J: drive = kinetic + rotating + drag + rolling + grade. `drive` is what the driveline brought to the tyres, `kinetic`
   * ½·m·v², `rotating` what went into parts that turn; rolling resistance of wheels at their grip is inside the drive.
   */
  readonly energy: Readonly<Record<'drive' | 'kinetic' | 'rotating' | 'drag' | 'rolling' | 'grade', number>>;
  readonly trace: readonly TracePoint[];
  /** Stretches of one law each, and how often an acceleration was worked out in them. */
  readonly stretches: number;
  readonly evaluations: number;
}

/** Speeds at which each gear is left: where the next pulls harder, or at `shiftRpm`, at most at the limiter. */
export function shiftSpeeds(car: Car, shiftRpm?: number): number[] {
  return car.gears.slice(0, -1).map((gear, i) => {
    const next = car.gears[i + 1] as GearState;
    if (!Number.isFinite(gear.limitMps)) return Number.POSITIVE_INFINITY;
    return shiftRpm === undefined ? bestShiftSpeed(gear, next) : speedAtRpm(gear, shiftRpm);
  });
}

/** Speeds looked at in each gear from its limiter downwards, for where it stops gaining. */
const LOOKS = 200;
/** Faster than this no car is looked for, m/s: the public limit of speeds. */
const FASTEST = LIMITS.speedKmh.max / 3.6;

/**
 * The fastest that the car gets on the slope it stands on, m/s: where in its best gear the thrust meets what resists, or the limiter
 * ends it. Not counted: whether the road is long enough, and wind.
 */
export function topSpeed(car: Car): number {
  const inGear = (gear: GearState): number => {
    const end = Math.min(gear.limitMps, FASTEST);
    const gains = (speed: number): boolean => car.acceleration(speed, gear) >= 0;
    if (gains(end)) return end;
    for (let i = LOOKS - 1; i > 0; i--) {
      let [low, high] = [(end * i) / LOOKS, (end * (i + 1)) / LOOKS];
      if (!gains(low)) continue;
      for (let k = 0; k < 40; k++) {
        const middle = (low + high) / 2;
        if (gains(middle)) low = middle;
        else high = middle;
      }
      return low;
    }
    return 0;
  };
  return Math.max(...car.gears.map(inGear));
}

function speedAtRpm(gear: GearState, rpm: number): number {
  let [low, high] = [0, gear.limitMps];
  if (gear.rpm(high) <= rpm) return high;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (gear.rpm(middle) < rpm) low = middle;
    else high = middle;
  }
  return high;
}

/**
 * A standing start over a distance. The contact force at the tyres decides: the least of what engine, clutch, tyres and
 * the weight on the other axle allow, see {@link readyCar}. The clutch slips at the launch rpm until the speeds meet, a
 * converter holds its stall; no thrust during a shift. Time and way are integrals over the speed, stretch by stretch of one law, good to
 * some 1e-9. Not counted: wheelspin that a driver lets happen, the engine's speed in a shift.
 * @throws InputError naming the field; `gears[0]` where the thrust in first does not move the car off, `shiftRpm` where
 *   it lies at or below the launch or stall speed, or above the limiter
 */
export function roadRun(vehicle: Vehicle, options: RunOptions): Run {
  const distance = requireNumber('distanceM', options.distanceM, { above: 0, max: 100_000, unit: 'm' });
  const rollout = requireNumber('rolloutM', options.rolloutM ?? ROLLOUT_M, { min: 0, max: 2, unit: 'm' });
  const car = readyCar(vehicle);
  const { shiftRpm } = options;
  if (shiftRpm !== undefined) {
    const most = 'torqueCurve' in vehicle.engine ? vehicle.engine.limitRpm : 100_000;
    requireNumber('shiftRpm', shiftRpm, { above: 0, max: most, unit: 'rpm (limiter)' });
    if (shiftRpm <= car.launchRpm) {
      const held = vehicle.converter ? 'stall speed' : 'launch speed';
      throw new InputError(
        'shiftRpm',
        `shiftRpm is ${shiftRpm} rpm, but first gear is held at the ${held} of ${car.launchRpm} rpm.`,
        `above ${car.launchRpm} rpm`,
      );
    }
  }
  return runCar(car, distance, rollout, options);
}

interface Plan {
  readonly distances: readonly number[];
  readonly at: readonly number[];
}

/** Distances at which the motion is wanted, ascending: marks, where the traps before them begin, rollout. */
function wanted(distance: number, rolloutM: number): Plan {
  const at: number[] = [];
  const distances: number[] = [];
  const want = (metres: number): void => {
    if (metres <= 0) return;
    let i = distances.length;
    while (i > 0 && (distances[i - 1] as number) > metres) i--;
    if (distances[i - 1] === metres) return;
    for (let k = distances.length; k > i; k--) distances[k] = distances[k - 1] as number;
    distances[i] = metres;
  };
  const mark = (metres: number): void => {
    at.push(metres);
    if (metres - TRAP_M >= rolloutM) want(metres - TRAP_M);
    want(metres);
  };
  if (rolloutM < distance) want(rolloutM);
  for (const metres of MARKS_M) if (metres < distance) mark(metres);
  mark(distance);
  return { at, distances };
}

/** Two rules of a stretch that agree to this share: the one of 15 points is then good to some 1e-10. */
const AGREED = 1e-6;
const MOST_HALVES = 60;
/** Of the way to a speed at which nothing accelerates any more, what is left when it counts as reached. */
const AT_REST = 1e-8;
/** Of what is looked for: so near to it Simpson's rule does the rest, whose error goes with the fifth power. */
const NEAR = 1e-2;
/** Of a stretch, what rounding makes of it. */
const NOTHING = 1e-13;
const TRACE_S = 0.1;
/** 80, 100 and 120 km/h. */
const WATCHED = [80 * KMH, 100 * KMH, 120 * KMH] as const;

/**
 * One run. While the law depends on the speed alone, time and way are integrals over the speed: t = ∫dv/a, x = ∫v·dv/a. Stretches
 * of one law each ({@link stretchFrom}) are summed by {@link sumBetween}, halved where its two rules disagree.
 */
class Drive {
  t = 0;
  x = 0;
  v = 0;
  stretches = 0;
  evaluations = 0;
  /** Where it came to each of the distances. */
  readonly passed: Mark[] = [];
  readonly reached: (number | null)[] = WATCHED.map(() => null);
  readonly limitTimesS: Record<LimitedBy, number> = {
    tyre: 0,
    wheelstand: 0,
    clutch: 0,
    engine: 0,
    shift: 0,
    limiter: 0,
  };
  readonly gearTimesS: number[];
  readonly energy = { drive: 0, rotating: 0, drag: 0, rolling: 0 };
  readonly trace: TracePoint[] = [];
  private coming = 0;
  /** How far the two rules of the last sum are apart. */
  private apart = 0;
  private readonly part = noSums();

  constructor(
    private readonly car: Car,
    private readonly distances: readonly number[],
    public gear: GearState,
    private readonly traced: boolean,
  ) {
    this.gearTimesS = car.gears.map(() => 0);
  }

  get done(): boolean {
    return this.coming === this.distances.length;
  }

  /** Full thrust in the gear up to a speed, or to the last distance. */
  to(speed: number): void {
    const { car, gear } = this;
    while (!this.done && this.v < speed) {
      let stretch = stretchFrom(car, gear, this.v, this.v >= gear.lockMps, this.above(speed));
      if (stretch.mps2 <= 0) {
        const locked = this.v > gear.lockMps;
        const down = stretchFrom(car, gear, this.v, locked, locked ? gear.lockMps : 0);
        if (down.mps2 >= 0) {
          this.hold(stretch.limit);
          return;
        }
        stretch = down;
      }
      this.stretches++;
      const { rest, end } = stretch;
      // Of a power without limiter and drag no end is known: on to twice the speed, and so on.
      const to = rest === null ? Math.min(end, 2 * this.v + 1) : rest + (this.v - rest) * AT_REST;
      this.over(stretch, this.v, to, 0);
      if (rest !== null && !this.done) {
        this.v = rest;
        this.hold(stretch.limit);
      } else if (!this.done) this.land(to);
    }
  }

  /** No thrust for a time: the engine is off the road and all that turns behind it rolls. */
  coast(seconds: number): void {
    if (seconds <= 0) return;
    const { car } = this;
    const law: Formula = {
      power: 0,
      still: -car.resistance(0) / car.rollingKg,
      perMps: 0,
      perV2: -(car.drag + car.rollingCoefficient * car.contact.whole.perV2) / car.rollingKg,
    };
    let left = seconds;
    const atEnd = speedAfter(law, this.v, left);
    const stops = !(atEnd > 0);
    if (stops) left = this.sum(law, this.v, 0).timeS;
    while (!this.done && left > 0) {
      const from = this.v;
      const span = this.traced ? Math.min(left, TRACE_S) : left;
      const whole = this.coasted(law, from, span);
      const target = (this.distances[this.coming] as number) - this.x;
      const marked = whole.distanceM >= target;
      let part = whole;
      let took = span;
      if (marked) {
        took = span * (target / whole.distanceM);
        for (let i = 0; i < 30; i++) {
          part = this.coasted(law, from, took);
          const excess = part.distanceM - target;
          if (Math.abs(excess) <= 1e-13 * target) break;
          took -= excess / speedAfter(law, from, took);
        }
        part.distanceM = target;
      }
      const to = took < left ? speedAfter(law, from, took) : stops ? 0 : atEnd;
      part.timeS = took;
      for (let i = 0; i < WATCHED.length; i++) {
        const speed = WATCHED[i] as number;
        if (this.reached[i] === null && from < speed && to >= speed)
          this.reached[i] = this.t + this.sum(law, from, speed).timeS;
      }
      this.add(part, 'shift', car.rollingKg / car.massKg, from, to, false);
      this.note('shift');
      if (marked) this.pass();
      left -= took;
    }
    if (stops && !this.done) this.never();
  }

  /** The rest goes by at the speed that it has. */
  hold(limit: LimitedBy): void {
    while (!this.done) this.steady(limit);
  }

  /** How far a stretch may go up. */
  private above(speed: number): number {
    let to = this.v >= this.gear.lockMps ? speed : Math.min(speed, this.gear.lockMps);
    for (let i = 0; i < WATCHED.length; i++) {
      const watched = WATCHED[i] as number;
      if (this.reached[i] === null && watched > this.v && watched < to) to = watched;
    }
    return to;
  }

  private land(speed: number): void {
    this.v = speed;
    for (let i = 0; i < WATCHED.length; i++)
      if (this.reached[i] === null && WATCHED[i] === speed) this.reached[i] = this.t;
    if (speed <= 0) this.never();
  }

  /** At the speed that it has to the next distance. */
  private steady(limit: LimitedBy): void {
    const distanceM = (this.distances[this.coming] as number) - this.x;
    const timeS = distanceM / this.v;
    const rollingJ = this.car.rolling(this.v) * distanceM;
    this.add({ timeS, distanceM, cubed: this.v ** 2 * distanceM, rollingJ }, limit, 1, this.v, this.v, true);
    this.note(limit);
    this.pass();
  }

  private never(): never {
    throw new InputError('distanceM', `distanceM is not reached in ${LONGEST_S} s.`, 'a shorter distance');
  }

  private sum(law: Formula | Asked, from: number, to: number, into = noSums()): Sums {
    this.evaluations += POINTS;
    this.apart = sumBetween(law, from, to, into);
    return into;
  }

  /** Sums a stretch, halving it where it has to be, and stops at every distance on the way. */
  private over(stretch: Stretch, from: number, to: number, depth: number): void {
    const rest = this.sum(stretch.law, from, to);
    if (!(this.apart <= AGREED) && depth < MOST_HALVES) {
      const middle = (from + to) / 2;
      this.over(stretch, from, middle, depth + 1);
      if (!this.done) this.over(stretch, middle, to, depth + 1);
      return;
    }
    if (!Number.isFinite(rest.timeS)) this.never();
    let start = from;
    while (!this.done) {
      const target = (this.distances[this.coming] as number) - this.x;
      if (rest.distanceM < target) break;
      const speed = this.meet(stretch.law, start, to, rest, 'distanceM', target);
      this.take(stretch, this.part, start, speed);
      this.pass();
      start = speed;
      leave(rest, this.part);
    }
    if (!this.done) this.take(stretch, rest, start, to);
  }

  /**
   * Where between two speeds the time or the way has come to `target`: Newton on the sums, the last bit of the way by Simpson.
   * @returns the speed there; the sums up to it lie in {@link part}
   */
  private meet(
    law: Formula | Asked,
    from: number,
    to: number,
    whole: Sums,
    what: 'timeS' | 'distanceM',
    target: number,
  ): number {
    const sums = this.part;
    const byTime = what === 'timeS';
    const share = Math.max(target / whole[what], 0);
    let low = from;
    let high = to;
    // As if the acceleration were the same throughout.
    let speed = byTime ? from + (to - from) * share : Math.sqrt(from * from + (to * to - from * from) * share);
    for (let i = 0; i < MOST_HALVES; i++) {
      this.sum(law, from, speed, sums);
      const excess = sums[what] - target;
      if (Math.abs(excess) <= NEAR * target + NOTHING * whole[what]) break;
      if (excess > 0) high = speed;
      else low = speed;
      const next = speed - excess * this.rate(law, speed, byTime);
      speed = (next - low) * (next - high) < 0 ? next : (low + high) / 2;
    }
    const excess = sums[what] - target;
    const half = speed - (excess * this.rate(law, speed, byTime)) / 2;
    const near = speed - excess * this.rate(law, half, byTime);
    this.onTo(law, speed, near, sums);
    // A millionth of it is left.
    const left = sums[what] - target;
    this.move(sums, byTime ? -left : -left / near, byTime ? -left * near : -left, near);
    sums[what] = target;
    return near - left * this.rate(law, near, byTime);
  }

  /** dv/dt or dv/dx. */
  private rate(law: Formula | Asked, speed: number, byTime: boolean): number {
    this.evaluations++;
    const mps2 = accelerationOf(law, speed);
    return byTime ? mps2 : mps2 / speed;
  }

  /** Adds to sums up to one speed what lies between it and another close by: Simpson's rule. */
  private onTo(law: Formula | Asked, from: number, to: number, sums: Sums): void {
    this.evaluations += 3;
    const middle = (from + to) / 2;
    const sixth = (to - from) / 6;
    this.move(sums, sixth / accelerationOf(law, from), (sixth * from) / accelerationOf(law, from), from);
    const slow = (4 * sixth) / accelerationOf(law, middle);
    this.move(sums, slow, slow * middle, middle);
    this.move(sums, sixth / accelerationOf(law, to), (sixth * to) / accelerationOf(law, to), to);
  }

  /** Adds a little time and way at a speed; rolling resistance as it was on the way so far. */
  private move(sums: Sums, seconds: number, metres: number, speed: number): void {
    if (sums.rollingJ !== 0) sums.rollingJ *= (sums.distanceM + metres) / sums.distanceM;
    sums.timeS += seconds;
    sums.distanceM += metres;
    sums.cubed += metres * speed * speed;
  }

  private take(stretch: Stretch, sums: Sums, from: number, to: number): void {
    const { rolling, limit, factor, law } = stretch;
    if (rolling)
      sums.rollingJ = this.car.rollingCoefficient * (rolling.still * sums.distanceM + rolling.perV2 * sums.cubed);
    if (this.traced) {
      const whole = { ...sums };
      this.draw(law, limit, whole, from, to);
      Object.assign(sums, whole);
    }
    this.add(sums, limit, factor, from, to, true);
    this.note(limit);
  }

  private add(sums: Sums, limit: LimitedBy, factor: number, from: number, to: number, driven: boolean): void {
    const { car, energy } = this;
    this.t += sums.timeS;
    this.x += sums.distanceM;
    this.v = to;
    this.limitTimesS[limit] += sums.timeS;
    this.gearTimesS[this.gear.index] = (this.gearTimesS[this.gear.index] as number) + sums.timeS;
    const kinetic = (car.massKg * (to * to - from * from)) / 2;
    const drag = car.drag * sums.cubed;
    energy.drag += drag;
    energy.rolling += sums.rollingJ;
    energy.rotating += (factor - 1) * kinetic;
    if (driven) energy.drive += factor * kinetic + drag + sums.rollingJ + car.gradeN * sums.distanceM;
    if (this.t >= LONGEST_S) this.never();
  }

  private pass(): void {
    const distanceM = this.distances[this.coming++] as number;
    this.x = distanceM;
    this.passed.push({ distanceM, timeS: this.t, speedMps: this.v });
  }

  private coasted(law: Formula, from: number, seconds: number): Sums {
    const sums = noSums();
    const { whole } = this.car.contact;
    gauss((node, weight) => {
      const v = speedAfter(law, from, (seconds * (1 + node)) / 2);
      const way = (seconds / 2) * weight * v;
      sums.distanceM += way;
      sums.cubed += way * v * v;
    });
    sums.rollingJ = this.car.rollingCoefficient * (whole.still * sums.distanceM + whole.perV2 * sums.cubed);
    return sums;
  }

  /** Points of a picture within a stretch. */
  private draw(law: Formula | Asked, limit: LimitedBy, whole: Sums, from: number, to: number): void {
    const count = Math.ceil(whole.timeS / TRACE_S);
    for (let i = 1; i < count; i++) {
      const speed = this.meet(law, from, to, whole, 'timeS', (whole.timeS * i) / count);
      this.trace.push({
        timeS: this.t + this.part.timeS,
        distanceM: this.x + this.part.distanceM,
        speedMps: speed,
        rpm: this.gear.rpm(speed),
        gear: this.gear.index,
        limit,
      });
    }
  }

  note(limit: LimitedBy): void {
    if (!this.traced) return;
    const { t: timeS, x: distanceM, v: speedMps, gear } = this;
    this.trace.push({ timeS, distanceM, speedMps, rpm: gear.rpm(speedMps), gear: gear.index, limit });
  }
}

/** Takes a part from a sum. */
function leave(whole: Sums, part: Sums): void {
  whole.timeS -= part.timeS;
  whole.distanceM -= part.distanceM;
  whole.cubed -= part.cubed;
  whole.rollingJ -= part.rollingJ;
}

/**
 * Speed after a time under dv/dt = α + γ·v² [exact]: v = (v₀ + α·T)/(1 − γ·v₀·T) with T = tan(ωt)/ω, ω² = α·γ; tanh where that is
 * negative. Below 0 where it would have come to a stop before.
 */
function speedAfter({ still, perV2 }: Formula, from: number, seconds: number): number {
  const angle2 = still * perV2 * seconds * seconds;
  if (angle2 >= (Math.PI / 2) ** 2) return -1;
  let scaled = seconds;
  if (Math.abs(angle2) < 1e-3) scaled *= 1 + angle2 * (1 / 3 + angle2 * (2 / 15 + (angle2 * 17) / 315));
  else {
    const angle = Math.sqrt(Math.abs(angle2));
    scaled *= (angle2 > 0 ? Math.tan(angle) : Math.tanh(angle)) / angle;
  }
  return (from + still * scaled) / (1 - perV2 * from * scaled);
}

function runCar(car: Car, distance: number, rolloutM: number, options: RunOptions): Run {
  const leaves = shiftSpeeds(car, options.shiftRpm);
  const { at, distances } = wanted(distance, rolloutM);
  const first = car.gears[0] as GearState;
  const now: Push = { mps2: 0, limit: 'engine', factor: 1, thrustN: 0, contactN: 0, rollingN: 0 };
  car.push(0, first, now);
  if (now.mps2 <= 0) {
    const brings = Math.round(now.thrustN);
    throw new InputError(
      'gears[0]',
      `gears[0]: the car does not move off, ${brings} N of thrust against ${Math.round(now.thrustN - now.mps2 * now.factor * car.massKg)} N.`,
      'a shorter gear, more grip or less of a gradient',
    );
  }
  const shifts: Shift[] = [];
  const drive = new Drive(car, distances, first, options.trace ?? false);
  drive.note(now.limit);
  for (;;) {
    const { gear } = drive;
    const next = car.gears[gear.index + 1];
    drive.to(leaves[gear.index] ?? gear.limitMps);
    if (drive.done) break;
    if (!next || car.acceleration(drive.v, next) <= 0) {
      // Nothing taller pulls.
      drive.hold('limiter');
      break;
    }
    const { t: timeS, x: distanceM, v: speedMps } = drive;
    drive.coast(car.shiftTimeS);
    shifts.push({ gear: gear.index, timeS, distanceM, speedMps, rpm: gear.rpm(speedMps), rpmAfter: next.rpm(drive.v) });
    if (drive.done) break;
    drive.gear = next;
  }
  const { energy, gear } = drive;
  const standing: Mark = { distanceM: 0, timeS: 0, speedMps: 0 };
  const passed = (metres: number): Mark => drive.passed[distances.indexOf(metres)] ?? standing;
  const [eighty, hundred, hundredAndTwenty] = drive.reached as [number | null, number | null, number | null];
  const rolloutS = rolloutM < distance ? passed(rolloutM).timeS : drive.t;
  return {
    timeS: drive.t,
    speedMps: drive.v,
    rpm: gear.rpm(drive.v),
    gear: gear.index,
    marks: at.map(passed),
    slip: {
      rolloutM,
      rolloutS,
      marks: at.map((distanceM): SlipMark => {
        const { timeS } = passed(distanceM);
        const trapM = distanceM - TRAP_M;
        return {
          distanceM,
          timeS: timeS - rolloutS,
          speedMps: trapM >= rolloutM ? TRAP_M / (timeS - passed(trapM).timeS) : null,
        };
      }),
    },
    shifts,
    gearTimesS: drive.gearTimesS,
    limitTimesS: drive.limitTimesS,
    zeroTo100S: hundred,
    eightyTo120S: eighty === null || hundredAndTwenty === null ? null : hundredAndTwenty - eighty,
    energy: {
      drive: energy.drive,
      kinetic: 0.5 * car.massKg * drive.v ** 2,
      rotating: energy.rotating,
      drag: energy.drag,
      rolling: energy.rolling,
      grade: car.gradeN * drive.x,
    },
    trace: drive.trace,
    stretches: drive.stretches,
    evaluations: drive.evaluations,
  };
}
