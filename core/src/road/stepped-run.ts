import { Integrator, atRest, type Law, type Motion } from './integrate';
import {
  MARKS_M,
  ROLLOUT_M,
  TRAP_M,
  movesOff,
  shiftSpeeds,
  type LimitedBy,
  type Mark,
  type Run,
  type RunOptions,
  type Shift,
  type SlipMark,
  type TracePoint,
} from './run';
import { InputError } from '../base/errors';
import { readyCar, type Push, type Vehicle } from './vehicle';
import type { GearState } from './gear-state';

const KMH = 1 / 3.6;
const LONGEST_S = 3600;

/**
 * The run of `roadRun` the longer way: the equation of motion step by step in time (Dormand–Prince at a tolerance of 1e-7). Nothing
 * that ships calls it: specs and the bench hold the quadrature against it. A long step may pass over a change of what limits: the
 * shorter the longest, the less.
 * @param longestS of a step, s
 */
export function steppedRun(
  vehicle: Vehicle,
  options: RunOptions,
  longestS = 2,
): Omit<Run, 'stretches' | 'evaluations'> & { readonly steps: number } {
  const car = readyCar(vehicle);
  const distance = options.distanceM;
  const rolloutM = options.rolloutM ?? ROLLOUT_M;
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
    options.trace ? Math.min(longestS, 0.1) : longestS,
  );

  movesOff(car);
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
      const bend = state?.kinks().find((kink) => kink > motion.v);
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
