import fc from 'fast-check';
import { InputError } from '../base/errors';
import { frictionRadius, packBreakaway } from './breakaway';
import { discSpringForce, type DiscSpring } from './disc-spring';
import { groupFreeHeight, springColumn, nestedDiscs, sameGroup } from './spring-column';
import { frictionInterfaces, type PackMember } from './interfaces';
import { HOLDS, perPackFromReading, wrenchReading } from './wrench';

const gear: PackMember = { keyedTo: 'gear', lined: false };
const steel: PackMember = { keyedTo: 'case', lined: false };
const friction: PackMember = { keyedTo: 'gear', lined: true };

describe('pack: interfaces', () => {
  it('counts six in the example order', () => {
    // steel, friction, steel, steel, friction, steel, friction, shim: common practice, no published source
    expect(frictionInterfaces([gear, steel, friction, steel, steel, friction, steel, friction, steel]).interfaces).toBe(
      6,
    );
  });

  it('two eared plates side by side make none, nor do two unlined ones of different keying', () => {
    expect(frictionInterfaces([steel, steel]).interfaces).toBe(0);
    expect(frictionInterfaces([gear, steel]).interfaces).toBe(0);
    expect(frictionInterfaces([friction, friction]).interfaces).toBe(0);
    expect(frictionInterfaces([]).interfaces).toBe(0);
    expect(frictionInterfaces([friction, steel]).gaps).toEqual([true]);
  });

  it('does not depend on the direction of counting (property)', () => {
    const member = fc.record({ keyedTo: fc.constantFrom('gear' as const, 'case' as const), lined: fc.boolean() });
    fc.assert(
      fc.property(fc.array(member, { maxLength: 30 }), (members) => {
        expect(frictionInterfaces(members).interfaces).toBe(frictionInterfaces([...members].reverse()).interfaces);
      }),
    );
  });

  it('refuses 10 000 plates', () => {
    expect(() => frictionInterfaces(Array.from({ length: 10000 }, () => steel))).toThrowMatching(
      (e) => e instanceof InputError && e.field === 'members',
    );
  });
});

describe('pack: breakaway', () => {
  const pack = { frictionCoefficient: 0.1, interfaces: 4, clampN: 2000, outerRadiusMm: 50, innerRadiusMm: 35 };

  it('reproduces 34.00 and 34.35 N·m', () => {
    // [standard: Shigley, axial clutches; arithmetic exact]
    expect(packBreakaway({ ...pack, wearModel: 'uniform-wear' })).toBeCloseTo(34, 12);
    expect(packBreakaway({ ...pack, wearModel: 'uniform-pressure' })).toBeCloseTo(34.35, 2);
  });

  it('at one p_max, uniform wear is largest at r_i/r_o = 1/√3', () => {
    // [standard: Shigley]: F = 2π·p_max·r_i·(r_o − r_i), so T ∝ r_i·(r_o² − r_i²)
    const torque = (x: number): number => {
      const clampN = 2 * Math.PI * 1 * x * 50 * (50 - x * 50);
      return packBreakaway({ ...pack, clampN, innerRadiusMm: 50 * x, wearModel: 'uniform-wear' });
    };
    let best = 0.01;
    for (let x = 0.01; x < 0.99; x += 0.0001) if (torque(x) > torque(best)) best = x;
    expect(best).toBeCloseTo(1 / Math.sqrt(3), 3);
  });

  it('uniform pressure never reads below uniform wear (property)', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.99, noNaN: true }), (share) => {
        expect(frictionRadius(50, 50 * share, 'uniform-pressure')).toBeGreaterThanOrEqual(
          frictionRadius(50, 50 * share, 'uniform-wear') - 1e-9,
        );
      }),
    );
  });

  it('refuses swapped radii and zero friction by name', () => {
    expect(() => packBreakaway({ ...pack, innerRadiusMm: 60, wearModel: 'uniform-wear' })).toThrowError(
      /innerRadiusMm/,
    );
    expect(() => packBreakaway({ ...pack, frictionCoefficient: 0, wearModel: 'uniform-wear' })).toThrowError(
      /frictionCoefficient/,
    );
  });
});

describe('pack: torque wrench', () => {
  it('reads the mean with the other wheel held and the sum with the carrier held', () => {
    // equilibrium and virtual work [exact]: the packs slip at half and at full wheel speed
    const packs = { leftNm: 30, rightNm: 38 };
    expect(wrenchReading(packs, 'other-wheel-held').torqueNm).toBe(34);
    expect(wrenchReading(packs, 'carrier-held').torqueNm).toBe(68);
    expect(wrenchReading(packs, 'bench').torqueNm).toBe(34);
  });

  it('never confuses the two holds: only the reading’s own hold leads back to the pack (property)', () => {
    const torque = fc.double({ min: 1, max: 500, noNaN: true });
    fc.assert(
      fc.property(
        torque,
        torque,
        fc.constantFrom(...HOLDS),
        fc.constantFrom(...HOLDS),
        (leftNm, rightNm, hold, other) => {
          const mean = (leftNm + rightNm) / 2;
          const reading = wrenchReading({ leftNm, rightNm }, hold);
          expect(reading.hold).toBe(hold);
          expect(perPackFromReading(reading)).toBeCloseTo(mean, 9);
          const mistaken = perPackFromReading({ ...reading, hold: other });
          const sameCarrier = (hold === 'carrier-held') === (other === 'carrier-held');
          expect(Math.abs(mistaken - mean) < 1e-9).toBe(sameCarrier);
        },
      ),
    );
  });
});

describe('pack: dished springs', () => {
  const spring = (thicknessMm: number, coneHeightMm: number): DiscSpring => ({
    outerDiameterMm: 50,
    innerDiameterMm: 25.4,
    thicknessMm,
    coneHeightMm,
  });

  // force at s = 0.75·h₀, E 206 GPa, ν 0.3 [standard: EN 16983 tables (formerly DIN 2093), from memory]
  const table: [number, number, number][] = [
    [3, 1.1, 11976],
    [2, 1.4, 4762],
    [1.25, 1.6, 1550],
  ];
  for (const [t, h, force] of table) {
    it(`50×25.4×${t}, h₀ ${h} gives ${force} N`, () => {
      const computed = discSpringForce(spring(t, h), 0.75 * h);
      expect(Math.abs(computed / force - 1)).toBeLessThan(0.005);
      expect(Math.round(computed)).toBe(force);
    });
  }

  it('in parallel forces add, in series travels add', () => {
    // [exact]
    const one = springColumn([nestedDiscs(spring(3, 1.1), 1)], 0.5).forceN;
    expect(springColumn([nestedDiscs(spring(3, 1.1), 3)], 0.5).forceN).toBeCloseTo(3 * one, 6);
    const series = springColumn(
      [1, 2].map(() => nestedDiscs(spring(3, 1.1), 1)),
      1,
    );
    expect(series.forceN).toBeCloseTo(one, 6);
    expect(series.travelsMm).toEqual([0.5, 0.5]);
    expect(groupFreeHeight(nestedDiscs(spring(3, 1.1), 2))).toBeCloseTo(7.1, 12);
  });

  it('nested pieces of different thickness each carry their own load, whatever the order of typing', () => {
    // 100×70, h₀ 1.2, 1.50 + 1.35 mm with 3.5 mm of room: 778 N, F = Σ F_i at one travel [exact, from the formula]. The first
    // one's thickness for both gave 1 053 N or 531 N.
    const disc = (thicknessMm: number): DiscSpring => ({
      outerDiameterMm: 100,
      innerDiameterMm: 70,
      thicknessMm,
      coneHeightMm: 1.2,
    });
    for (const discs of [
      [disc(1.5), disc(1.35)],
      [disc(1.35), disc(1.5)],
    ]) {
      const travel = groupFreeHeight({ discs }) - 3.5;
      expect(springColumn([{ discs }], travel).forceN).toBeCloseTo(778.47, 1);
      expect(springColumn([{ discs }], travel).forceN).toBeCloseTo(
        discSpringForce(disc(1.5), 0.55) + discSpringForce(disc(1.35), 0.55),
        6,
      );
    }
    expect(() => springColumn([{ discs: [disc(1.5), { ...disc(1.5), coneHeightMm: 1.1 }] }], 0.1)).toThrowError(
      /one cone height/,
    );
  });

  it('equal discs past their peak don’t share the travel: one gives way and the others stay', () => {
    // 100×60×1.5, h₀ 3.0, two in series pressed 4 mm: 1 639 N with one flat, not 1 921 N with 2 mm each [exact, stability]
    const disc: DiscSpring = { outerDiameterMm: 100, innerDiameterMm: 60, thicknessMm: 1.5, coneHeightMm: 3 };
    const two = [nestedDiscs(disc, 1), nestedDiscs(disc, 1)];
    const at = springColumn(two, 4);
    expect(at.forceN).toBeCloseTo(1639, 0);
    expect(at.apart).toBeTrue();
    expect([...at.travelsMm].sort()).toEqual([jasmine.any(Number), 3] as never);
    expect(at.flattest).toBe(1);
    expect(discSpringForce(disc, 2)).toBeCloseTo(1921.6, 1);
    expect(springColumn(two, 1).apart).toBeFalse();
  });

  it('what it finds past the peak is stationary and stable, and follows from pressing together slowly (property)', () => {
    // Every disc but a flat one carries the column's force, and no exchange of travel between two of them lowers the energy.
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(number(1.45, 2.7), fc.integer({ min: 2, max: 4 }), number(0.02, 0.98), (ratio, count, share) => {
        const disc: DiscSpring = {
          outerDiameterMm: 100,
          innerDiameterMm: 60,
          thicknessMm: 1.5,
          coneHeightMm: 1.5 * ratio,
        };
        const column = Array.from({ length: count }, () => nestedDiscs(disc, 1));
        const travel = share * count * disc.coneHeightMm;
        const { forceN, travelsMm } = springColumn(column, travel);
        expect(travelsMm.reduce((a, b) => a + b, 0)).toBeCloseTo(travel, 6);
        const flat = (s: number): boolean => s > disc.coneHeightMm - 1e-6;
        const energy = (s: number): number => {
          let sum = 0;
          for (let i = 0; i < 400; i++)
            sum += discSpringForce(disc, Math.min((s * (i + 0.5)) / 400, disc.coneHeightMm));
          return (sum * s) / 400;
        };
        const step = 1e-3;
        travelsMm.forEach((s, i) => {
          if (flat(s)) expect(forceN).toBeGreaterThanOrEqual(discSpringForce(disc, disc.coneHeightMm) - 1e-3);
          else expect(discSpringForce(disc, s)).toBeCloseTo(forceN, 2);
          travelsMm.forEach((other, k) => {
            if (i === k || s < step || other > disc.coneHeightMm - step) return;
            const gained = energy(s - step) + energy(other + step) - energy(s) - energy(other);
            expect(gained).toBeGreaterThan(-1e-4);
          });
        });
      }),
      { numRuns: 60 },
    );
  });

  it('springs of another steel are other springs', () => {
    const stiff = { discs: [{ ...spring(3, 1.1), youngGPa: 180 }] };
    const mixed = springColumn([nestedDiscs(spring(3, 1.1), 1), stiff], 1);
    expect(mixed.travelsMm[1]).toBeGreaterThan(mixed.travelsMm[0] ?? 0);
    expect(sameGroup(nestedDiscs(spring(3, 1.1), 1), stiff)).toBeFalse();
    expect(sameGroup(nestedDiscs(spring(3, 1.1), 1), { discs: [{ ...spring(3, 1.1), youngGPa: 206 }] })).toBeTrue();
  });

  it('a mixed column carries one force and its travels add up (property)', () => {
    const groups = [nestedDiscs(spring(3, 1.1), 1), nestedDiscs(spring(2, 1.4), 2)];
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 1.9, noNaN: true }), (travel) => {
        const { forceN, travelsMm } = springColumn(groups, travel);
        expect((travelsMm[0] ?? 0) + (travelsMm[1] ?? 0)).toBeCloseTo(travel, 6);
        expect(discSpringForce(spring(3, 1.1), travelsMm[0] ?? 0) / forceN).toBeCloseTo(1, 4);
        expect((2 * discSpringForce(spring(2, 1.4), travelsMm[1] ?? 0)) / forceN).toBeCloseTo(1, 4);
      }),
    );
  });

  it('has a force maximum only above h₀/t = √2', () => {
    // dF/ds = 0 has a real root only there [exact, from the formula]
    const falls = (h: number): boolean => {
      let last = 0;
      for (let i = 1; i <= 1000; i++) {
        const force = discSpringForce(spring(1, h), (h * i) / 1000);
        if (force < last - 1e-9) return true;
        last = force;
      }
      return false;
    };
    expect(falls(1.41)).toBe(false);
    expect(falls(1.43)).toBe(true);
  });

  it('refuses travel past flat, snap-through and a bore larger than the disc', () => {
    expect(() => discSpringForce(spring(2, 1.4), 1.5)).toThrowError(/travelMm/);
    expect(() => springColumn([nestedDiscs(spring(1, 2.9), 1)], 0.1)).toThrowError(/snaps through/);
    expect(() => discSpringForce({ ...spring(2, 1.4), innerDiameterMm: 51 }, 0.1)).toThrowError(/innerDiameterMm/);
    expect(() => springColumn([nestedDiscs(spring(1.25, 1.9), 1), nestedDiscs(spring(3, 1.1), 1)], 2.9)).toThrowError(
      /mixed column/,
    );
  });
});

describe('pack: what else is in a wrench reading', () => {
  const packs = { leftNm: 8.95, rightNm: 8.95 };

  it('other wheel held: half of what both wheels take when they turn together', () => {
    // energy [exact]: M = T_c + D/2 + w, R = D + 2w. 2.3 N·m at a pinion × 4.1 = 9.43 N·m, half of it in the reading
    const turningNm = 2.3 * 4.1;
    expect(wrenchReading(packs, 'other-wheel-held', { turningNm }).torqueNm).toBeCloseTo(8.95 + 4.715, 9);
    expect(perPackFromReading({ hold: 'other-wheel-held', torqueNm: 13.665 }, { turningNm })).toBeCloseTo(8.95, 9);
    // Without R it would learn a coefficient 1.53 times too high: 0.153 for a true 0.100 [exact].
    const learned = perPackFromReading({ hold: 'other-wheel-held', torqueNm: 13.665 });
    expect((0.1 * learned) / 8.95).toBeCloseTo(0.1527, 4);
    // wheel drag w alone: R = 2w, and M = T_c + w
    expect(wrenchReading(packs, 'other-wheel-held', { turningNm: 2 * 1.5 }).torqueNm).toBeCloseTo(8.95 + 1.5, 9);
    expect(wrenchReading(packs, 'bench', { turningNm }).torqueNm).toBeCloseTo(8.95, 9);
  });

  it('a turning torque that is more than the reading explains is refused', () => {
    expect(() => perPackFromReading({ hold: 'other-wheel-held', torqueNm: 3 }, { turningNm: 8 })).toThrowMatching(
      (e) => e.field === 'turningNm' && /8|4/.test(e.message),
    );
  });

  it('carrier held: springs in series 2·T_c, springs in parallel T₀/(1 − k), locked from k = 1', () => {
    const at = (more: object) => wrenchReading(packs, 'carrier-held', more).torqueNm;
    expect(at({ acts: 'series', slope: 0.2 })).toBeCloseTo(17.9, 9);
    // k = 0.2 reads 25 % more [exact]: M = T₀ + k·M
    expect(at({ acts: 'parallel', slope: 0.2 })).toBeCloseTo(17.9 * 1.25, 9);
    expect(at({ acts: 'parallel', slope: 1 })).toBe(Number.POSITIVE_INFINITY);
    expect(
      perPackFromReading({ hold: 'carrier-held', torqueNm: 17.9 * 1.25 }, { acts: 'parallel', slope: 0.2 }),
    ).toBeCloseTo(8.95, 9);
    expect(() =>
      perPackFromReading({ hold: 'carrier-held', torqueNm: 20 }, { acts: 'parallel', slope: 1.2 }),
    ).toThrowMatching((e) => e.field === 'hold');
  });

  it('comes back from every hold (property)', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        fc.constantFrom(...HOLDS),
        number(0.1, 200),
        number(0, 60),
        number(0, 0.95),
        fc.constantFrom('series' as const, 'parallel' as const),
        (hold, nm, turningNm, slope, acts) => {
          const more = { turningNm, slope, acts };
          expect(perPackFromReading(wrenchReading({ leftNm: nm, rightNm: nm }, hold, more), more) / nm).toBeCloseTo(
            1,
            8,
          );
        },
      ),
    );
  });
});
