import { InputError, requireNumber } from '../errors';
import { Integrator, type Law, type Motion } from './integrate';
import { bestShiftSpeed, readyCar, type Car, type GearState, type Vehicle } from './vehicle';

/** 60 ft, 330 ft, 1/8 mile, 1000 ft, 1/4 mile in m [exact]. */
export const MARKS_M = [18.288, 100.584, 201.168, 304.8, 402.336] as const;

const KMH = 1 / 3.6;
const LONGEST_S = 3600;

export interface RunOptions {
  readonly distanceM: number;
  /** Up-shift at this engine speed; where the next gear pulls harder if left out. */
  readonly shiftRpm?: number;
  /** Keeps the motion at every step, for a picture. */
  readonly trace?: boolean;
}

export interface Mark {
  readonly distanceM: number;
  readonly timeS: number;
  readonly speedMps: number;
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
export type LimitedBy = 'tyre' | 'engine' | 'shift' | 'limiter';

export interface Run {
  readonly timeS: number;
  readonly speedMps: number;
  readonly rpm: number;
  /** Gear at the end, 0 for first. */
  readonly gear: number;
  readonly marks: readonly Mark[];
  readonly shifts: readonly Shift[];
  /** Seconds in each gear, shifts out of it included. */
  readonly gearTimesS: readonly number[];
  readonly limitTimesS: Readonly<Record<LimitedBy, number>>;
  /** 0–100 km/h and 80–120 km/h, null where not reached. */
  readonly zeroTo100S: number | null;
  readonly eightyTo120S: number | null;
  /** J: drive = kinetic + drag + rolling + grade. `kinetic` counts rotating parts in each gear. */
  readonly energy: Readonly<Record<'drive' | 'kinetic' | 'drag' | 'rolling' | 'grade', number>>;
  readonly trace: readonly TracePoint[];
  readonly steps: number;
}

/** Speeds at which each gear is left: where the next pulls harder, or at `shiftRpm`, at most at the limiter. */
export function shiftSpeeds(car: Car, shiftRpm?: number): number[] {
  return car.gears.slice(0, -1).map((gear, i) => {
    const next = car.gears[i + 1] as GearState;
    if (!Number.isFinite(gear.limitMps)) return Number.POSITIVE_INFINITY;
    return shiftRpm === undefined ? bestShiftSpeed(gear, next) : Math.min(gear.limitMps, speedAtRpm(gear, shiftRpm));
  });
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
 * A standing start over a distance: m·λ·a = F − ½ρC_dA·v² − C_rr·W·cosθ − W·sinθ, F the smaller of engine thrust and
 * tyre grip under load transfer and downforce. The clutch slips at the launch rpm until the speeds meet, a converter
 * holds its stall; no thrust during a shift. Dormand–Prince steps at a tolerance of 1e-7, landing on every mark, shift
 * and bend of the torque curve.
 * @throws InputError naming the field; `gears[0]` where the thrust in first does not move the car off
 */
export function roadRun(vehicle: Vehicle, options: RunOptions): Run {
  const distance = requireNumber('distanceM', options.distanceM, { above: 0, max: 100_000, unit: 'm' });
  if (options.shiftRpm !== undefined)
    requireNumber('shiftRpm', options.shiftRpm, { above: 0, max: 100_000, unit: 'rpm' });
  return runCar(readyCar(vehicle), distance, options);
}

function runCar(car: Car, distance: number, options: RunOptions): Run {
  const leaves = shiftSpeeds(car, options.shiftRpm);
  const motion: Motion = { t: 0, x: 0, v: 0, driveJ: 0, dragJ: 0 };
  const speeds = new Map([80, 100, 120].map((kmh) => [kmh * KMH, null as number | null]));
  const distances = [...new Set([...MARKS_M.filter((mark) => mark < distance), distance])];
  const marks: Mark[] = [];
  const shifts: Shift[] = [];
  const gearTimesS = car.gears.map(() => 0);
  const limitTimesS = { tyre: 0, engine: 0, shift: 0, limiter: 0 };
  const trace: TracePoint[] = [];
  let kinetic = 0;
  let gear = car.gears[0] as GearState;
  let shifting = false;

  const limitAt = (v: number): LimitedBy =>
    shifting ? 'shift' : gear.engineThrust(v) > car.gripThrust(v, gear) ? 'tyre' : 'engine';
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

  const first = car.thrust(0, gear);
  const against = car.resistance(0);
  if (first <= against) {
    throw new InputError(
      'gears[0]',
      `gears[0]: the car does not move off, ${Math.round(first)} N of thrust against ${Math.round(against)} N.`,
      'a shorter gear, more grip or less of a gradient',
    );
  }

  /** Drives to a speed, or to the end. */
  const drive = (law: Law, until: { speed: number; time: number }): 'done' | 'there' => {
    const from = motion.v;
    for (;;) {
      const watched = [...speeds.entries()].filter(([s, seen]) => seen === null && s > motion.v).map(([s]) => s);
      const bend = law === coasting ? undefined : gear.kinks.find((kink) => kink > motion.v);
      const speed = Math.min(until.speed, bend ?? Infinity, ...watched);
      const mark = distances[marks.length] as number;
      const stopped = integrator.advance(law, motion, { speed, time: until.time, distance: mark });
      if (motion.v < 0 || motion.t >= LONGEST_S)
        throw new InputError('distanceM', `distanceM is not reached in ${LONGEST_S} s.`, 'a shorter distance');
      if (speeds.get(motion.v) === null) speeds.set(motion.v, motion.t);
      let ended: 'done' | 'there' | null = null;
      if (stopped === 'distance') {
        marks.push({ distanceM: mark, timeS: motion.t, speedMps: motion.v });
        if (marks.length === distances.length) ended = 'done';
      } else if (stopped === 'time' || motion.v >= until.speed) ended = 'there';
      if (ended) {
        kinetic += 0.5 * law.inertiaKg * (motion.v ** 2 - from ** 2);
        return ended;
      }
    }
  };
  const lawOf = (state: GearState): Law => ({
    inertiaKg: state.inertiaKg,
    thrust: (v) => car.thrust(v, state),
    resistance: car.resistance,
    drag: car.drag,
  });
  let coasting: Law | null = null;

  note(motion, limitAt(0));
  for (;;) {
    const next = car.gears[gear.index + 1];
    const leave = leaves[gear.index] ?? gear.limitMps;
    if (drive(lawOf(gear), { speed: leave, time: LONGEST_S }) === 'done') break;
    if (next && car.thrust(motion.v, next) > car.resistance(motion.v)) {
      const rpm = gear.rpm(motion.v);
      const { t: timeS, x: distanceM, v: speedMps } = motion;
      shifting = true;
      coasting = { inertiaKg: next.inertiaKg, thrust: () => 0, resistance: car.resistance, drag: car.drag };
      const ended =
        car.shiftTimeS > 0
          ? drive(coasting, { speed: Number.POSITIVE_INFINITY, time: timeS + car.shiftTimeS })
          : 'there';
      shifting = false;
      coasting = null;
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
    while (marks.length < distances.length) {
      const mark = distances[marks.length] as number;
      const length = mark - motion.x;
      const time = length / motion.v;
      motion.t += time;
      motion.x = mark;
      motion.driveJ += car.resistance(motion.v) * length;
      motion.dragJ += car.drag * motion.v ** 2 * length;
      limitTimesS.limiter += time;
      gearTimesS[gear.index] = (gearTimesS[gear.index] ?? 0) + time;
      note(motion, 'limiter');
      marks.push({ distanceM: mark, timeS: motion.t, speedMps: motion.v });
    }
  }

  const at = (kmh: number): number | null => speeds.get(kmh * KMH) ?? null;
  const [eighty, hundredAndTwenty] = [at(80), at(120)];
  return {
    timeS: motion.t,
    speedMps: motion.v,
    rpm: gear.rpm(motion.v),
    gear: gear.index,
    marks,
    shifts,
    gearTimesS,
    limitTimesS,
    zeroTo100S: at(100),
    eightyTo120S: eighty === null || hundredAndTwenty === null ? null : hundredAndTwenty - eighty,
    energy: {
      drive: motion.driveJ,
      kinetic,
      drag: motion.dragJ,
      rolling: car.rollingN * motion.x,
      grade: car.gradeN * motion.x,
    },
    trace,
    steps: integrator.steps,
  };
}
