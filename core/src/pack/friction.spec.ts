import fc from 'fast-check';
import { InputError } from '../base/errors';
import { frictionRadius, packBreakaway } from './breakaway';
import { effectiveFriction, learnedFriction } from './friction';
import { HOLDS, perPackFromReading, wrenchReading } from './wrench';

describe('effective friction', () => {
  it('34 N·m on 4 interfaces at 2000 N and 50/35 mm is 0.10', () => {
    // the worked example of T = μ·n·F·(r_o + r_i)/2, turned round [standard: Shigley, axial clutches]
    expect(effectiveFriction(34, [{ interfaces: 4, clampN: 2000 }], 42.5)).toBeCloseTo(0.1, 12);
  });

  it('comes back from any packs, whatever the hold that the wrench was used with', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const pack = fc.record({ interfaces: fc.integer({ min: 1, max: 20 }), clampN: number(10, 20_000) });
    fc.assert(
      fc.property(number(0.02, 0.3), pack, pack, fc.constantFrom(...HOLDS), (mu, left, right, hold) => {
        const common = {
          frictionCoefficient: mu,
          outerRadiusMm: 50,
          innerRadiusMm: 35,
          wearModel: 'uniform-pressure' as const,
        };
        const held = {
          leftNm: packBreakaway({ ...common, ...left }),
          rightNm: packBreakaway({ ...common, ...right }),
        };
        const perPack = perPackFromReading(wrenchReading(held, hold));
        const radius = frictionRadius(50, 35, 'uniform-pressure');
        expect(effectiveFriction(perPack, [left, right], radius) / mu).toBeCloseTo(1, 9);
      }),
    );
  });

  it('refuses by field, and packs that nothing presses', () => {
    const good = [{ interfaces: 4, clampN: 2000 }];
    const field = (run: () => number): string => {
      try {
        run();
      } catch (error) {
        if (error instanceof InputError) return error.field;
        throw error;
      }
      return '';
    };
    expect(field(() => effectiveFriction(-1, good, 42))).toBe('perPackNm');
    expect(field(() => effectiveFriction(34, good, 0))).toBe('radiusMm');
    expect(field(() => effectiveFriction(34, [], 42))).toBe('packs');
    expect(field(() => effectiveFriction(34, [{ interfaces: 0, clampN: 2000 }], 42))).toBe('packs');
    expect(field(() => effectiveFriction(34, [{ interfaces: 4, clampN: Number.NaN }], 42))).toBe('packs[0].clampN');
  });
});

describe('learned friction', () => {
  it('one or two readings give a mean and no spread', () => {
    expect(learnedFriction([0.11])).toEqual({ mean: 0.11, plusMinus: null });
    expect(learnedFriction([0.1, 0.12])).toEqual({ mean: jasmine.any(Number) as unknown as number, plusMinus: null });
  });

  it('worked by hand: 0.10, 0.11, 0.12', () => {
    // s = 0.01, t(2) = 4.303, √(1 + 1/3) [exact but for the table]
    const { mean, plusMinus } = learnedFriction([0.1, 0.11, 0.12]);
    expect(mean).toBeCloseTo(0.11, 12);
    expect(plusMinus).toBeCloseTo(4.303 * 0.01 * Math.sqrt(4 / 3), 9);
  });

  it('uses the 97.5 % point of Student’s t: the density up to it holds 0.975', () => {
    // Γ of halves by recurrence; the density integrated by Simpson's rule [exact]
    const gammaHalves = (k: number): number =>
      k === 1 ? Math.sqrt(Math.PI) : k === 2 ? 1 : ((k - 2) / 2) * gammaHalves(k - 2);
    // past the table too: 40 readings have t 2.023 where the normal point is 1.960
    for (const n of [3, 4, 6, 11, 21, 31, 32, 40, 61, 120]) {
      const nu = n - 1;
      const scale = gammaHalves(nu + 1) / (Math.sqrt(nu * Math.PI) * gammaHalves(nu));
      const density = (x: number): number => scale * (1 + (x * x) / nu) ** (-(nu + 1) / 2);
      // readings ±1 around a mean give s, and with it the t that was used
      const values = Array.from({ length: n }, (_, i) => 0.1 + 0.001 * (i % 2 === 0 ? 1 : -1));
      const mean = values.reduce((a, b) => a + b, 0) / n;
      const s = Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / nu);
      const t = (learnedFriction(values).plusMinus ?? 0) / (s * Math.sqrt(1 + 1 / n));
      const steps = 2000;
      const h = t / steps;
      let area = density(0) + density(t);
      for (let i = 1; i < steps; i++) area += (i % 2 === 0 ? 2 : 4) * density(i * h);
      expect(0.5 + (area * h) / 3)
        .withContext(`${nu} degrees of freedom`)
        .toBeCloseTo(0.975, 4);
    }
  });

  it('nineteen of twenty next readings fall inside', () => {
    // a seeded normal sample, mean 0.1, deviation 0.005; counted over many shops of six readings each
    let seed = 42;
    const uniform = (): number => (seed = (seed * 48271) % 2147483647) / 2147483647;
    const draw = (): number => 0.1 + 0.005 * Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    let inside = 0;
    const shops = 20_000;
    for (let i = 0; i < shops; i++) {
      const { mean, plusMinus } = learnedFriction(Array.from({ length: 6 }, draw));
      if (Math.abs(draw() - mean) <= (plusMinus ?? 0)) inside += 1;
    }
    expect(inside / shops).toBeCloseTo(0.95, 2);
  });

  it('refuses an empty table and impossible coefficients by their place', () => {
    expect(() => learnedFriction([])).toThrowMatching((e) => e.field === 'coefficients');
    expect(() => learnedFriction([0.1, 0])).toThrowMatching((e) => e.field === 'coefficients[1]');
  });
});
