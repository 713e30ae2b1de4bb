import { Integrator, type Law, type Motion, type Stops } from './integrate';

const still = (): Motion => ({ t: 0, x: 0, v: 0, driveJ: 0, dragJ: 0 });
const NEVER: Stops = { speed: Infinity, time: 1e9, distance: Infinity };
const constant = (force: number): Law => ({ inertiaKg: 1000, thrust: () => force, resistance: () => 0, drag: 0 });

describe('road: the integrator', () => {
  it('follows constant force exactly, and lands on time, speed and distance', () => {
    for (const [stops, kind] of [
      [{ ...NEVER, time: 7.3 }, 'time'],
      [{ ...NEVER, speed: 21.7 }, 'speed'],
      [{ ...NEVER, distance: 83.2 }, 'distance'],
    ] as const) {
      const motion = still();
      const stopped = new Integrator(() => undefined).advance(constant(3000), motion, stops);
      expect(stopped).toBe(kind);
      expect(motion.v).toBeCloseTo(3 * motion.t, 9); // v = a·t [exact]
      expect(motion.x).toBeCloseTo(1.5 * motion.t ** 2, 8);
      expect(motion.driveJ).toBeCloseTo(3000 * motion.x, 4);
      if (kind === 'distance') expect(motion.x).toBe(83.2);
      if (kind === 'speed') expect(motion.v).toBe(21.7);
    }
  });

  it('follows v = v∞·tanh(a·t/v∞) against quadratic drag', () => {
    const drag = 0.5;
    const law: Law = { inertiaKg: 1000, thrust: () => 2000, resistance: (v) => drag * v * v, drag };
    const motion = still();
    new Integrator(() => undefined).advance(law, motion, { ...NEVER, time: 30 });
    const terminal = Math.sqrt(2000 / drag);
    expect(motion.v).toBeCloseTo(terminal * Math.tanh((2 * 30) / terminal), 5); // closed form [exact]
    expect(motion.driveJ - motion.dragJ).toBeCloseTo(0.5 * 1000 * motion.v ** 2, 0); // energy
  });

  it('coasts down as v = v₀/(1 + c·v₀·t/m)', () => {
    const law: Law = { inertiaKg: 1000, thrust: () => 0, resistance: (v) => 0.4 * v * v, drag: 0.4 };
    const motion = { ...still(), v: 60 };
    new Integrator(() => undefined).advance(law, motion, { ...NEVER, time: 20 });
    expect(motion.v).toBeCloseTo(60 / (1 + (0.4 * 60 * 20) / 1000), 6); // closed form [exact]
  });

  it('tells of every step, none longer than asked', () => {
    const steps: number[] = [];
    const motion = still();
    const integrator = new Integrator((before, after) => steps.push(after.t - before.t), 0.25);
    integrator.advance(constant(3000), motion, { ...NEVER, time: 5 });
    expect(steps.reduce((a, b) => a + b, 0)).toBeCloseTo(5, 9);
    for (const step of steps) expect(step).toBeLessThanOrEqual(0.25 + 1e-12);
  });

  it('is there at once where the speed is reached already', () => {
    const motion = { ...still(), v: 30 };
    expect(new Integrator(() => undefined).advance(constant(1000), motion, { ...NEVER, speed: 20 })).toBe('speed');
    expect(motion.t).toBe(0);
  });

  it('gives up by name on what never comes', () => {
    const motion = still();
    expect(() =>
      new Integrator(() => undefined, 0.001).advance(constant(0), motion, { ...NEVER, distance: 10 }),
    ).toThrowMatching((error) => error.field === 'distanceM');
  });
});
