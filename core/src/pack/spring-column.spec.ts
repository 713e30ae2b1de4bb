import fc from 'fast-check';
import { InputError } from '../base/errors';
import {
  columnPeak,
  columnTravel,
  groupFreeHeight,
  groupReach,
  nestedDiscs,
  springColumn,
  type LinearGroup,
  type MeasuredGroup,
  type SpringGroup,
} from './spring-column';

const coils: LinearGroup = { rateNPerMm: 160, freeMm: 30, solidMm: 20 };
const sSpring: MeasuredGroup = {
  freeMm: 30,
  points: [
    { heightMm: 26, forceN: 800 },
    { heightMm: 24, forceN: 1500 },
  ],
};

const field = (groups: SpringGroup[], travelMm: number): string => {
  try {
    springColumn(groups, travelMm);
  } catch (error) {
    if (error instanceof InputError) return error.field;
    throw error;
  }
  throw new Error('it was taken');
};

describe('springs of other kinds', () => {
  it('coils: F = Σk·(free − installed)', () => {
    // [exact, docs/pack.md]: four coils of 40 N/mm, 30 mm free, at 24 mm
    expect(springColumn([coils], 6).forceN).toBeCloseTo(4 * 40 * (30 - 24), 9);
    expect(springColumn([coils], 6).flattest).toBeCloseTo(0.6, 12);
  });

  it('an S-spring: the measured force at a measured height, straight lines between', () => {
    expect(springColumn([sSpring], 4).forceN).toBe(800);
    expect(springColumn([sSpring], 6).forceN).toBe(1500);
    expect(springColumn([sSpring], 5).forceN).toBeCloseTo(1150, 9);
    expect(springColumn([sSpring], 2).forceN).toBeCloseTo(400, 9);
    // never a guess: below the lowest height that was measured it is refused
    expect(field([sSpring], 6.01)).toBe('travelMm');
  });

  it('in series force is one and travels add, for every mix (property)', () => {
    const linear = fc.record({
      rateNPerMm: fc.double({ min: 5, max: 2000, noNaN: true }),
      freeMm: fc.double({ min: 10, max: 60, noNaN: true }),
      solidMm: fc.double({ min: 1, max: 9, noNaN: true }),
    });
    const disc = fc
      .record({
        spring: fc.record({
          outerDiameterMm: fc.constant(100),
          innerDiameterMm: fc.constant(70),
          thicknessMm: fc.double({ min: 1, max: 3, noNaN: true }),
          coneHeightMm: fc.double({ min: 0.3, max: 1.3, noNaN: true }),
        }),
        nested: fc.integer({ min: 1, max: 3 }),
      })
      .map(({ spring, nested }) => nestedDiscs(spring, nested));
    const mix = fc.array(fc.oneof<fc.Arbitrary<SpringGroup>[]>(linear, disc, fc.constant(sSpring)), {
      minLength: 2,
      maxLength: 5,
    });
    fc.assert(
      fc.property(mix, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (groups, share) => {
        const peak = columnPeak(groups);
        const { forceN, travelsMm } = springColumn(groups, share * peak.travelMm);
        expect(travelsMm.reduce((a, b) => a + b, 0)).toBeCloseTo(share * peak.travelMm, 6);
        travelsMm.forEach((travel, i) => {
          const alone = springColumn([groups[i] as SpringGroup], travel).forceN;
          expect(Math.abs(alone - forceN)).toBeLessThan(1e-6 * Math.max(1, forceN));
        });
        expect(columnTravel(groups, forceN)).toBeCloseTo(share * peak.travelMm, 5);
      }),
      { numRuns: 80 },
    );
  });

  it('heights and reach of each kind', () => {
    expect([coils, sSpring].map(groupFreeHeight)).toEqual([30, 30]);
    expect([coils, sSpring].map(groupReach)).toEqual([10, 6]);
  });

  it('bad springs are refused by name', () => {
    expect(field([{ ...coils, solidMm: 30 }], 1)).toBe('solidMm');
    expect(field([{ ...coils, rateNPerMm: 0 }], 1)).toBe('rateNPerMm');
    expect(field([{ ...coils, freeMm: Number.NaN }], 1)).toBe('freeMm');
    expect(field([{ ...sSpring, points: [] }], 0)).toBe('points');
    expect(field([{ ...sSpring, points: [{ heightMm: 31, forceN: 5 }] }], 0)).toBe('points[0]');
    expect(field([{ ...sSpring, points: [...sSpring.points, { heightMm: 22, forceN: 1500 }] }], 0)).toBe('points[2]');
    expect(field([coils], 10.1)).toBe('travelMm');
  });
});
