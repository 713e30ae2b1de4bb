import { Integrator, atRest, type Law, type Stops } from './integrate';

const still = atRest;
const NEVER: Stops = { speed: Infinity, time: 1e9, distance: Infinity };
const pushed = (thrustN: number, drag: number, factor = 1): Law => ({
  massKg: 1000,
  drag,
  flow: (v, into) => {
    into.mps2 = (thrustN - drag * v * v) / (1000 * factor);
    into.thrustN = thrustN;
    into.rollingN = 0;
    into.factor = factor;
  },
});
const constant = (force: number): Law => pushed(force, 0);

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
    const law = pushed(2000, drag);
    const motion = still();
    new Integrator(() => undefined).advance(law, motion, { ...NEVER, time: 30 });
    const terminal = Math.sqrt(2000 / drag);
    expect(motion.v).toBeCloseTo(terminal * Math.tanh((2 * 30) / terminal), 5); // closed form [exact]
    expect(motion.driveJ - motion.dragJ).toBeCloseTo(0.5 * 1000 * motion.v ** 2, 0); // energy
  });

  it('keeps what goes into rotating parts apart from ½·m·v²', () => {
    const motion = still();
    new Integrator(() => undefined).advance(pushed(3000, 0, 1.25), motion, { ...NEVER, time: 4 });
    expect(motion.v).toBeCloseTo((3000 / 1250) * 4, 9); // m·λ·a = F [exact]
    expect(motion.rotatingJ).toBeCloseTo(0.25 * 0.5 * 1000 * motion.v ** 2, 5); // ½·m·(λ − 1)·v² [exact]
    expect(motion.driveJ).toBeCloseTo(0.5 * 1000 * motion.v ** 2 + motion.rotatingJ, 5);
  });

  it('coasts down as v = v₀/(1 + c·v₀·t/m)', () => {
    const law = pushed(0, 0.4);
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
