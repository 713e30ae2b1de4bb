import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { Integrator, atRest, type Law, type Motion } from './integrate';
import {
  bestShiftSpeed,
  readyCar,
  type Car,
  type DriveLimit,
  type GearState,
  type Push,
  type Vehicle,
} from './vehicle';

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
  /** Keeps the motion at every step, for a picture. */
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
  readonly steps: number;
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
 * converter holds its stall; no thrust during a shift. Dormand–Prince steps at a tolerance of 1e-7, landing on every mark,
 * shift and bend of the torque curve. Not counted: wheelspin that a driver lets happen, the engine's speed in a shift.
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

function runCar(car: Car, distance: number, rolloutM: number, options: RunOptions): Run {
  const leaves = shiftSpeeds(car, options.shiftRpm);
  const motion = atRest();
  const speeds = new Map([80, 100, 120].map((kmh) => [kmh * KMH, null as number | null]));
  const at = [...new Set([...MARKS_M.filter((mark) => mark < distance), distance])];
  const traps = at.map((mark) => mark - TRAP_M).filter((from) => from >= rolloutM);
  const distances = [...new Set([...at, ...traps, ...(rolloutM < distance ? [rolloutM] : [])])]
    .filter((metres) => metres > 0)
    .sort((a, b) => a - b);
  const passed = new Map<number, Mark>([[0, { distanceM: 0, timeS: 0, speedMps: 0 }]]);
  let coming = 0;
  const pass = (): void => {
    const distanceM = distances[coming++] as number;
    passed.set(distanceM, { distanceM, timeS: motion.t, speedMps: motion.v });
  };
  const shifts: Shift[] = [];
  const gearTimesS = car.gears.map(() => 0);
  const limitTimesS: Record<LimitedBy, number> = { tyre: 0, wheelstand: 0, clutch: 0, engine: 0, shift: 0, limiter: 0 };
  const trace: TracePoint[] = [];
  let gear = car.gears[0] as GearState;
  let shifting = false;

  const now: Push = { mps2: 0, limit: 'engine', factor: 1, thrustN: 0, contactN: 0, rollingN: 0 };
  const limitAt = (v: number): LimitedBy => {
    if (shifting) return 'shift';
    car.push(v, gear, now);
    return now.limit;
  };
  const note = (point: Motion, limit: LimitedBy): void => {
    if (!options.trace) return;
    const { t, x, v } = point;
    trace.push({ timeS: t, distanceM: x, speedMps: v, rpm: gear.rpm(v), gear: gear.index, limit });
  };
  const integrator = new Integrator(
    (before, after) => {
      const limit = limitAt((before.v + after.v) / 2);
      limitTimesS[limit] += after.t - before.t;
      gearTimesS[gear.index] = (gearTimesS[gear.index] ?? 0) + after.t - before.t;
      note(after, limit);
    },
    options.trace ? 0.1 : 2,
  );

  car.push(0, gear, now);
  if (now.mps2 <= 0) {
    const brings = Math.round(now.thrustN);
    throw new InputError(
      'gears[0]',
      `gears[0]: the car does not move off, ${brings} N of thrust against ${Math.round(now.thrustN - now.mps2 * now.factor * car.massKg)} N.`,
      'a shorter gear, more grip or less of a gradient',
    );
  }

  const { massKg, drag } = car;
  /** A gear while the engine is tied to the road, or while clutch or converter slips. */
  const lawOf = (state: GearState, locked: boolean): Law => ({
    massKg,
    drag,
    flow: (v, into) => car.push(v, state, into as Push, locked),
  });
  const coasting: Law = {
    massKg,
    drag,
    flow: (v, into) => {
      into.mps2 = -car.resistance(v) / car.rollingKg;
      into.thrustN = 0;
      into.rollingN = car.rolling(v);
      into.factor = car.rollingKg / massKg;
    },
  };

  /** Drives to a speed, or to the end. */
  const drive = (state: GearState | null, until: { speed: number; time: number }): 'done' | 'there' => {
    for (;;) {
      const watched = [...speeds.entries()].filter(([s, seen]) => seen === null && s > motion.v).map(([s]) => s);
      const bend = state?.kinks.find((kink) => kink > motion.v);
      const speed = Math.min(until.speed, bend ?? Infinity, ...watched);
      const law = state ? lawOf(state, motion.v >= state.lockMps) : coasting;
      const stops = { speed, time: until.time, distance: distances[coming] as number };
      const stopped = integrator.advance(law, motion, stops);
      if (motion.v < 0 || motion.t >= LONGEST_S)
        throw new InputError('distanceM', `distanceM is not reached in ${LONGEST_S} s.`, 'a shorter distance');
      if (speeds.get(motion.v) === null) speeds.set(motion.v, motion.t);
      if (stopped === 'distance') {
        pass();
        if (coming === distances.length) return 'done';
      } else if (stopped === 'time' || motion.v >= until.speed) return 'there';
    }
  };

  note(motion, limitAt(0));
  for (;;) {
    const next = car.gears[gear.index + 1];
    const leave = leaves[gear.index] ?? gear.limitMps;
    if (drive(gear, { speed: leave, time: LONGEST_S }) === 'done') break;
    if (next && car.acceleration(motion.v, next) > 0) {
      const rpm = gear.rpm(motion.v);
      const { t: timeS, x: distanceM, v: speedMps } = motion;
      shifting = true;
      const ended =
        car.shiftTimeS > 0 ? drive(null, { speed: Number.POSITIVE_INFINITY, time: timeS + car.shiftTimeS }) : 'there';
      shifting = false;
      shifts.push({ gear: gear.index, timeS, distanceM, speedMps, rpm, rpmAfter: next.rpm(motion.v) });
      if (ended === 'done') break;
      gear = next;
    } else {
      onLimiter();
      break;
    }
  }

  /** Nothing taller pulls: the rest goes by at the limiter. */
  function onLimiter(): void {
    while (coming < distances.length) {
      const mark = distances[coming] as number;
      const length = mark - motion.x;
      const time = length / motion.v;
      motion.t += time;
      motion.x = mark;
      motion.driveJ += car.resistance(motion.v) * length;
      motion.dragJ += car.drag * motion.v ** 2 * length;
      motion.rollingJ += car.rolling(motion.v) * length;
      limitTimesS.limiter += time;
      gearTimesS[gear.index] = (gearTimesS[gear.index] ?? 0) + time;
      note(motion, 'limiter');
      pass();
    }
  }

  const reached = (kmh: number): number | null => speeds.get(kmh * KMH) ?? null;
  const [eighty, hundredAndTwenty] = [reached(80), reached(120)];
  const rolloutS = rolloutM < distance ? (passed.get(rolloutM) as Mark).timeS : motion.t;
  return {
    timeS: motion.t,
    speedMps: motion.v,
    rpm: gear.rpm(motion.v),
    gear: gear.index,
    marks: at.map((metres) => passed.get(metres) as Mark),
    slip: {
      rolloutM,
      rolloutS,
      marks: at.map((distanceM): SlipMark => {
        const { timeS } = passed.get(distanceM) as Mark;
        const from = passed.get(distanceM - TRAP_M);
        return { distanceM, timeS: timeS - rolloutS, speedMps: from ? TRAP_M / (timeS - from.timeS) : null };
      }),
    },
    shifts,
    gearTimesS,
    limitTimesS,
    zeroTo100S: reached(100),
    eightyTo120S: eighty === null || hundredAndTwenty === null ? null : hundredAndTwenty - eighty,
    energy: {
      drive: motion.driveJ,
      kinetic: 0.5 * massKg * motion.v ** 2,
      rotating: motion.rotatingJ,
      drag: motion.dragJ,
      rolling: motion.rollingJ,
      grade: car.gradeN * motion.x,
    },
    trace,
    steps: integrator.steps,
  };
}
