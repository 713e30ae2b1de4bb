import { InputError } from '../base/errors';

/** What moves: time s, distance m, speed m/s, and the energies that explain the speed, J. */
export interface Motion {
  t: number;
  x: number;
  v: number;
  driveJ: number;
  dragJ: number;
  rollingJ: number;
  /** Gone into rotating parts. */
  rotatingJ: number;
}

export const atRest = (): Motion => ({ t: 0, x: 0, v: 0, driveJ: 0, dragJ: 0, rollingJ: 0, rotatingJ: 0 });

/** Acceleration at a speed, m/s², and the forces behind it, N; `factor` is the λ that goes with them. */
export interface Flow {
  mps2: number;
  thrustN: number;
  rollingN: number;
  factor: number;
}

/** One stretch with one law: everything is a function of speed alone. */
export interface Law {
  readonly massKg: number;
  /** N/(m/s)². */
  readonly drag: number;
  flow(speedMps: number, into: Flow): void;
}

export interface Stops {
  /** Ends when this speed is reached from below. */
  readonly speed: number;
  readonly time: number;
  readonly distance: number;
}

export type Stopped = 'speed' | 'time' | 'distance';

/** Relative and absolute tolerance of one step, in m/s and m. */
const RELATIVE = 1e-7;
const ABSOLUTE = 1e-8;
const MOST_STEPS = 200_000;

// Dormand & Prince, J. Comput. Appl. Math. 6 (1980): fifth order with an embedded fourth.
const A = [
  [1 / 5],
  [3 / 40, 9 / 40],
  [44 / 45, -56 / 15, 32 / 9],
  [19372 / 6561, -25360 / 2187, 64448 / 6561, -212 / 729],
  [9017 / 3168, -355 / 33, 46732 / 5247, 49 / 176, -5103 / 18656],
  [35 / 384, 0, 500 / 1113, 125 / 192, -2187 / 6784, 11 / 84],
] as const;
const B5 = [...A[5], 0] as const;
const E = [71 / 57600, 0, -71 / 16695, 71 / 1920, -17253 / 339200, 22 / 525, -1 / 40] as const;

const speeds = new Float64Array(7);
const slopes = new Float64Array(7);
const thrusts = new Float64Array(7);
const rollings = new Float64Array(7);
const spins = new Float64Array(7);
const flow: Flow = { mps2: 0, thrustN: 0, rollingN: 0, factor: 1 };

/** One step of length `h` from `from` into `into`. @returns its error against the tolerance; above 1 it is too long */
function step(law: Law, from: Motion, h: number, into: Motion): number {
  for (let i = 0; i < 7; i++) {
    let v = from.v;
    if (i > 0) {
      const row = A[i - 1] as readonly number[];
      for (let j = 0; j < i; j++) v += h * (row[j] as number) * (slopes[j] as number);
    }
    // A trial step may overshoot standstill; the law is asked only where it holds, and the step is found too long.
    law.flow(v > 0 ? v : 0, flow);
    speeds[i] = v;
    slopes[i] = flow.mps2;
    thrusts[i] = flow.thrustN;
    rollings[i] = flow.rollingN;
    spins[i] = (flow.factor - 1) * law.massKg * flow.mps2;
  }
  let [dx, dv, ex, ev, drive, drag, rolling, rotating] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (let i = 0; i < 7; i++) {
    const [b, e, v] = [B5[i] as number, E[i] as number, speeds[i] as number];
    dv += b * (slopes[i] as number);
    dx += b * v;
    drive += b * (thrusts[i] as number) * v;
    drag += b * law.drag * v * v * v;
    rolling += b * (rollings[i] as number) * v;
    rotating += b * (spins[i] as number) * v;
    ev += e * (slopes[i] as number);
    ex += e * v;
  }
  into.t = from.t + h;
  into.x = from.x + h * dx;
  into.v = from.v + h * dv;
  into.driveJ = from.driveJ + h * drive;
  into.dragJ = from.dragJ + h * drag;
  into.rollingJ = from.rollingJ + h * rolling;
  into.rotatingJ = from.rotatingJ + h * rotating;
  const errorV = Math.abs(h * ev) / (ABSOLUTE + RELATIVE * Math.abs(into.v));
  const errorX = Math.abs(h * ex) / (ABSOLUTE + RELATIVE * Math.abs(into.x));
  const error = Math.max(errorV, errorX);
  return Number.isFinite(error) ? error : 1e9;
}

/** Integrates one law over many stretches; remembers its step length between them. */
export class Integrator {
  steps = 0;
  private h = 1e-3;
  private readonly next: Motion = atRest();

  /**
   * @param onStep called with the motion before and after every step that was taken
   * @param longest of a step, s
   */
  constructor(
    private readonly onStep: (before: Motion, after: Motion) => void,
    private readonly longest = 2,
  ) {}

  /**
   * Moves `motion` on to the first of the stops.
   * @throws InputError on `distanceM` where it is not reached in any number of steps
   */
  advance(law: Law, motion: Motion, stops: Stops): Stopped {
    const { next } = this;
    if (motion.v >= stops.speed) return 'speed';
    for (;;) {
      if (++this.steps > MOST_STEPS)
        throw new InputError('distanceM', 'distanceM is not reached: the car hardly moves.', 'a shorter distance');
      let h = Math.min(this.h, stops.time - motion.t);
      const error = step(law, motion, h, next);
      const factor = Math.min(5, Math.max(0.2, 0.9 * (error + 1e-12) ** -0.2));
      if (error > 1) {
        this.h = h * factor;
        if (this.h < 1e-15)
          throw new InputError(
            'vehicle',
            'vehicle: its thrust is not smooth enough to follow.',
            'a curve without gaps',
          );
        continue;
      }
      let stopped: Stopped | null = stops.time - motion.t <= h ? 'time' : null;
      if (next.v >= stops.speed) {
        h = this.land(law, motion, h, (m) => {
          law.flow(m.v, flow);
          return (m.v - stops.speed) / flow.mps2;
        });
        next.v = stops.speed;
        stopped = 'speed';
      }
      if (next.x >= stops.distance) {
        h = this.land(law, motion, h, (m) => (m.x - stops.distance) / m.v);
        next.x = stops.distance;
        stopped = 'distance';
      }
      if (stopped === null) this.h = Math.min(h * factor, this.longest);
      this.onStep(motion, next);
      Object.assign(motion, next);
      if (stopped !== null) return stopped;
    }
  }

  /** Newton on the length of the step until `excess` (in seconds) has gone. */
  private land(law: Law, motion: Motion, from: number, excess: (m: Motion) => number): number {
    let h = from;
    for (let i = 0; i < 8; i++) {
      const over = excess(this.next);
      if (Math.abs(over) <= 1e-12 * from || !Number.isFinite(over)) break;
      h = Math.min(from, Math.max(0, h - over));
      step(law, motion, h, this.next);
    }
    return h;
  }
}
