import fc from 'fast-check';
import { InputError } from '../errors';
import { frictionRadius, packBreakaway } from './breakaway';
import { discSpringForce, type DiscSpring } from './disc-spring';
import { groupFreeHeight, springColumn } from './spring-column';
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
    const one = springColumn([{ spring: spring(3, 1.1), nested: 1 }], 0.5).forceN;
    expect(springColumn([{ spring: spring(3, 1.1), nested: 3 }], 0.5).forceN).toBeCloseTo(3 * one, 6);
    const series = springColumn(
      [1, 2].map(() => ({ spring: spring(3, 1.1), nested: 1 })),
      1,
    );
    expect(series.forceN).toBeCloseTo(one, 6);
    expect(series.travelsMm).toEqual([0.5, 0.5]);
    expect(groupFreeHeight({ spring: spring(3, 1.1), nested: 2 })).toBeCloseTo(7.1, 12);
  });

  it('a mixed column carries one force and its travels add up (property)', () => {
    const groups = [
      { spring: spring(3, 1.1), nested: 1 },
      { spring: spring(2, 1.4), nested: 2 },
    ];
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
    expect(() => springColumn([{ spring: spring(1, 2.9), nested: 1 }], 0.1)).toThrowError(/snaps through/);
    expect(() => discSpringForce({ ...spring(2, 1.4), innerDiameterMm: 51 }, 0.1)).toThrowError(/innerDiameterMm/);
    expect(() =>
      springColumn(
        [
          { spring: spring(1.25, 1.9), nested: 1 },
          { spring: spring(3, 1.1), nested: 1 },
        ],
        2.9,
      ),
    ).toThrowError(/mixed column/);
  });
});
