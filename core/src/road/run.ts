import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { Drive } from './drive';
import { stretchFrom } from './stretch';
import { bestShiftSpeed, readyCar, type Car, type DriveLimit, type Push, type Vehicle } from './vehicle';
import type { GearState } from './gear-state';

/** 60 ft, 330 ft, 1/8 mile, 1000 ft, 1/4 mile in m [exact]. */
export const MARKS_M = [18.288, 100.584, 201.168, 304.8, 402.336] as const;

/** A time slip starts its clock when the car has rolled so far, m: 12 in [from memory; 11 to 12 are met]. */
export const ROLLOUT_M = 0.3048;
/** A time slip prints the mean speed over the last 66 ft before a mark, m [exact; the custom is from memory]. */
export const TRAP_M = 20.1168;

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

/** Faster than this no car is looked for, m/s: the public limit of speeds. */
const FASTEST = LIMITS.speedKmh.max / 3.6;

/**
 * The fastest that the car gets on the slope it stands on, m/s: where in its best gear the thrust meets what resists, or the limiter
 * ends it. Not counted: whether the road is long enough, and wind.
 */
export function topSpeed(car: Car): number {
  const inGear = (gear: GearState): number => {
    let speed = Math.min(gear.limitMps, FASTEST);
    // Downwards, so that a dip in the curve below is none of it.
    while (speed > 0) {
      const locked = speed > gear.lockMps;
      const { mps2, rest, end } = stretchFrom(car, gear, speed, locked, locked ? gear.lockMps : 0);
      if (mps2 >= 0) return speed;
      if (rest !== null) return rest;
      speed = end;
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

/** What is the limit at the start in first. @throws InputError on `gears[0]` where the thrust does not move the car off */
export function movesOff(car: Car): DriveLimit {
  const now: Push = { mps2: 0, limit: 'engine', factor: 1, thrustN: 0, contactN: 0, rollingN: 0 };
  car.push(0, car.gears[0] as GearState, now);
  if (now.mps2 <= 0) {
    const brings = Math.round(now.thrustN);
    throw new InputError(
      'gears[0]',
      `gears[0]: the car does not move off, ${brings} N of thrust against ${Math.round(now.thrustN - now.mps2 * now.factor * car.massKg)} N.`,
      'a shorter gear, more grip or less of a gradient',
    );
  }
  return now.limit;
}

function runCar(car: Car, distance: number, rolloutM: number, options: RunOptions): Run {
  const leaves = shiftSpeeds(car, options.shiftRpm);
  const { at, distances } = wanted(distance, rolloutM);
  const first = car.gears[0] as GearState;
  const limit = movesOff(car);
  const shifts: Shift[] = [];
  const drive = new Drive(car, distances, first, options.trace ?? false);
  drive.note(limit);
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
