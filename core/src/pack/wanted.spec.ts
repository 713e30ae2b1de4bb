import fc from 'fast-check';
import { InputError } from '../base/errors';
import { packBreakaway } from './breakaway';
import { columnPeak, columnTravel, groupFreeHeight, springColumn, nestedDiscs, type DiscGroup } from './spring-column';
import { frictionInterfaces, type PackMember } from './interfaces';
import { wantedPack, plateOrders, type WantedProblem } from './wanted';

const steel: PackMember = { keyedTo: 'case', lined: false };
const lined: PackMember = { keyedTo: 'gear', lined: true };
const bareGear: PackMember = { keyedTo: 'gear', lined: false };
const linedCase: PackMember = { keyedTo: 'case', lined: true };

const face: PackMember = { keyedTo: 'gear', lined: false };
const wall: PackMember = { keyedTo: 'case', lined: false };
const count = (plates: readonly PackMember[]): number => frictionInterfaces([face, ...plates, wall]).interfaces;
/** Two bare plates that rub on each other, or a bare plate of the gear's on the case wall. */
const galls = (plates: readonly PackMember[]): boolean =>
  [...plates, wall].some((outer, i) => {
    const inner = plates[i - 1];
    return i > 0 && inner !== undefined && inner.keyedTo !== outer.keyedTo && !inner.lined && !outer.lined;
  });

function* permutations<T>(list: readonly T[]): Generator<T[]> {
  if (list.length < 2) yield [...list];
  for (let i = 0; list.length > 1 && i < list.length; i++)
    for (const rest of permutations([...list.slice(0, i), ...list.slice(i + 1)])) yield [list[i] as T, ...rest];
}

describe('plate orders', () => {
  it('the example order of the trade makes six; the least that its plates can make is one', () => {
    // steel, friction, steel, steel, friction, steel, friction and the shim outside [common practice]
    const example = [steel, lined, steel, steel, lined, steel, lined];
    expect(count(example)).toBe(6);
    const orders = plateOrders(example);
    expect(orders.get(6)).toEqual({ order: [0, 1, 2, 3, 4, 5, 6], moved: 0 });
    // all steels inside, all frictions outside: one seam between them and one to the wall [exact]
    expect(Math.min(...orders.keys())).toBe(1);
  });

  it('finds every number of interfaces that some order makes, with as few plates moved as can be', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(steel, lined, bareGear, linedCase), { minLength: 1, maxLength: 6 }),
        (plates) => {
          const best = new Map<number, number>();
          for (const order of permutations(plates)) {
            if (galls(order)) continue;
            const moved = order.filter((plate, i) => plate !== plates[i]).length;
            best.set(count(order), Math.min(moved, best.get(count(order)) ?? Infinity));
          }
          const found = plateOrders(plates);
          expect([...found.keys()].sort()).toEqual([...best.keys()].sort());
          for (const [interfaces, { order, moved }] of found) {
            const laid = order.map((place) => plates[place] as PackMember);
            expect([...order].sort((a, b) => a - b)).toEqual(plates.map((_, i) => i));
            expect(count(laid)).toBe(interfaces);
            expect(galls(laid)).toBeFalse();
            expect(moved).toBe(best.get(interfaces) as number);
          }
        },
      ),
      { numRuns: 120 },
    );
  });

  it('refuses no plates and too many', () => {
    for (const plates of [[], Array.from({ length: 31 }, () => steel)])
      expect(() => plateOrders(plates)).toThrowMatching((e) => e instanceof InputError && e.field === 'plates');
  });

  it('thirty plates of four kinds take no time worth waiting for', () => {
    const plates = Array.from({ length: 30 }, (_, i) => [steel, lined, linedCase, lined][i % 4] as PackMember);
    expect(plateOrders(plates).size).toBeGreaterThan(10);
  });
});

describe('the inverse of a spring column', () => {
  const disc = (thicknessMm: number, coneHeightMm: number, nested = 1): DiscGroup =>
    nestedDiscs({ outerDiameterMm: 100, innerDiameterMm: 60, thicknessMm, coneHeightMm }, nested);

  it('comes back to the travel, single, nested and in series', () => {
    for (const groups of [
      [disc(2, 1.2)],
      [disc(2, 1.2, 2)],
      [disc(2, 1.2), disc(2, 1.2)],
      [disc(2, 1.2), disc(2.2, 1)],
    ]) {
      const { travelMm } = columnPeak(groups);
      for (const share of [0.05, 0.4, 0.9]) {
        const { forceN } = springColumn(groups, share * travelMm);
        expect(columnTravel(groups, forceN)).toBeCloseTo(share * travelMm, 5);
      }
    }
  });

  it('of a high cone stays on the rising part, and ends at its peak', () => {
    const high = [disc(1.2, 2)]; // h₀/t 1.67, above √2
    const { forceN, travelMm } = columnPeak(high);
    expect(travelMm).toBeLessThan(2);
    // the peak is where the slope is nought: s/t = h − √((h² − 2)/3) [exact]
    const h = 2 / 1.2;
    expect(travelMm).toBeCloseTo(1.2 * (h - Math.sqrt((h * h - 2) / 3)), 6);
    expect(columnTravel(high, forceN * 1.001)).toBeNull();
    expect(columnTravel(high, forceN * 0.999)).toBeLessThan(travelMm);
    expect(columnTravel([], 100)).toBeNull();
  });
});

const friction: WantedProblem['friction'] = {
  frictionCoefficient: 0.1,
  outerRadiusMm: 50,
  innerRadiusMm: 35,
  wearModel: 'uniform-wear',
};
const spring: DiscGroup = nestedDiscs(
  { outerDiameterMm: 100, innerDiameterMm: 60, thicknessMm: 2.8, coneHeightMm: 1.3 },
  1,
);
const plates = [steel, lined, steel, steel, lined, steel, lined];
const side = { plates, platesMm: 14, caseDepthMm: 18, springs: [spring] };
const stock = [0.4, 0.5, 0.6, 0.65, 0.7, 0.75, 0.8, 0.9, 1].map((thicknessMm) => ({ thicknessMm, count: 2 }));
const problem = (change: Partial<WantedProblem> = {}): WantedProblem => ({
  sides: [side, { ...side, platesMm: 14.03 }],
  friction,
  bandNm: [60, 80],
  stock,
  maxPiecesPerSide: 3,
  ...change,
});

describe('a pack from its breakaway', () => {
  it('every plan holds what it says: worked out again from order, height and springs', () => {
    const { plans } = wantedPack(problem());
    expect(plans.length).toBeGreaterThan(2);
    for (const plan of plans) {
      plan.sides.forEach((planned, i) => {
        const { platesMm, caseDepthMm, springs } = problem().sides[i] as WantedProblem['sides'][number];
        const laid = planned.order.map((place) => plates[place] as PackMember);
        expect(count(laid)).toBe(plan.interfaces);
        const stackMm = platesMm + planned.shimsMm.reduce((a, b) => a + b, 0);
        expect(planned.stackMm).toBeCloseTo(stackMm, 9);
        const travel = springs.reduce((sum, group) => sum + groupFreeHeight(group), 0) - (caseDepthMm - stackMm);
        const { forceN } = springColumn(springs, travel);
        const held = (clampN: number): number => packBreakaway({ ...friction, interfaces: plan.interfaces, clampN });
        expect(planned.breakawayNm).toBeCloseTo(held(forceN), 9);
        const inBand = planned.breakawayNm >= 60 && planned.breakawayNm <= 80;
        if (plan.inBand) expect(inBand).toBeTrue();
        // after the reserve is worn away the pack holds the lower end of the band
        expect(held(springColumn(springs, travel - planned.reserveMm).forceN)).toBeCloseTo(60, 4);
        const step = 1e-3;
        const slope = (held(forceN) - held(springColumn(springs, travel - step).forceN)) / step;
        expect(planned.slopeNmPerMm / slope).toBeCloseTo(1, 2);
      });
      const held = plan.sides.map(({ breakawayNm }) => breakawayNm);
      expect(plan.uneven).toBeCloseTo(
        Math.abs((held[0] ?? 0) - (held[1] ?? 0)) / ((held[0] ?? 0) / 2 + (held[1] ?? 0) / 2),
        9,
      );
    }
  });

  it('puts what lies in the band first, then easy springs, then what holds alike, then what has more to wear', () => {
    const { plans } = wantedPack(problem());
    const firstOutside = plans.findIndex(({ inBand }) => !inBand);
    expect(plans[0]?.inBand).toBeTrue();
    if (firstOutside >= 0) expect(plans.slice(firstOutside).every(({ inBand }) => !inBand)).toBeTrue();
    const inside = plans.filter(({ inBand }) => inBand);
    const hard = (plan: (typeof inside)[number]): boolean => plan.sides.some(({ flattest }) => flattest > 0.75);
    inside.slice(1).forEach((plan, i) => {
      const before = inside[i] as (typeof inside)[number];
      if (hard(before)) expect(hard(plan)).toBeTrue();
      if (hard(before) !== hard(plan)) return;
      const [a, b] = [before, plan].map(({ uneven }) => Math.floor(uneven / 0.01));
      expect(a).toBeLessThanOrEqual(b as number);
      if (a === b) expect(before.reserveMm).toBeGreaterThanOrEqual(plan.reserveMm);
    });
  });

  it('fewer interfaces want more clamp: the force goes with their inverse at one breakaway', () => {
    // stock fine enough to hit the height: 0.001 mm apart
    const fine = Array.from({ length: 300 }, (_, i) => ({ thicknessMm: 0.4 + i * 0.005, count: 2 }));
    const { plans } = wantedPack(problem({ stock: fine, bandNm: [69.9, 70.1], maxPiecesPerSide: 2 }));
    const clamp = new Map(plans.map((plan) => [plan.interfaces, plan.sides[0]?.clampN ?? 0]));
    for (const [n, force] of clamp)
      expect((force * n * 0.1 * 0.0425) / 70)
        .withContext(`n ${n}`)
        .toBeCloseTo(1, 1);
  });

  it('keeps its answer where the peak of the springs lies between the band and the aim', () => {
    // the aim at 85 % of the band is past what 4 interfaces hold at the peak: the peak itself is the aim then
    const soft: DiscGroup = nestedDiscs(
      { outerDiameterMm: 100, innerDiameterMm: 60, thicknessMm: 1.5, coneHeightMm: 2.9 },
      1,
    );
    const peak = columnPeak([soft]);
    const fine = Array.from({ length: 200 }, (_, i) => ({ thicknessMm: 0.02 + i * 0.01, count: 2 }));
    for (let share = 0.8; share < 1; share += 0.01) {
      const held = (0.1 * 4 * peak.forceN * 42.5) / 1000;
      // low below the peak, the middle of the band at it or past it
      const low = share * held;
      const { plans } = wantedPack(
        problem({
          sides: [{ plates, platesMm: 14, caseDepthMm: 18, springs: [soft] }],
          bandNm: [low, low + 3 * (held - low)],
          stock: fine,
        }),
      );
      const four = plans.find(({ interfaces }) => interfaces === 4);
      expect(four?.inBand).withContext(share.toFixed(2)).toBeTrue();
      expect(four?.sides[0]?.breakawayNm ?? 0).toBeGreaterThanOrEqual(low - 1e-9);
    }
  });

  it('says which orders the springs are too weak for, and how far they get', () => {
    const { plans, tooWeak } = wantedPack(problem({ bandNm: [2000, 2500] }));
    expect(plans).toEqual([]);
    const { forceN } = columnPeak([spring]);
    for (const { interfaces, mostNm } of tooWeak) {
      expect(mostNm).toBeCloseTo((0.1 * interfaces * forceN * 42.5) / 1000, 6); // T = μ·n·F·r [standard: Shigley]
      expect(mostNm).toBeLessThan(2000);
    }
    expect(tooWeak.length).toBeGreaterThan(3);
  });

  it('of a drawer too large to be searched it gives the best that it met, says so, and that lies in the band', () => {
    const large = Array.from({ length: 400 }, (_, i) => ({ thicknessMm: 0.2 + i * 0.002, count: 4 }));
    const { plans } = wantedPack(problem({ stock: large, maxPiecesPerSide: 6 }));
    expect(plans[0]?.inBand).toBeTrue();
    expect(plans.some(({ provenBest }) => !provenBest)).toBeTrue();
    expect(wantedPack(problem()).plans.every(({ provenBest }) => provenBest)).toBeTrue();
  });

  it('an empty drawer leaves the plates alone', () => {
    const { plans } = wantedPack(problem({ stock: [], sides: [{ ...side, platesMm: 14.9 }] }));
    for (const plan of plans) expect(plan.sides[0]?.shimsMm).toEqual([]);
    expect(plans.length).toBeGreaterThan(0);
  });

  it('refuses by field', () => {
    const field = (change: Partial<WantedProblem>): string => {
      try {
        wantedPack(problem(change));
      } catch (error) {
        if (error instanceof InputError) return error.field;
        throw error;
      }
      return '';
    };
    expect(field({ bandNm: [80, 60] })).toBe('bandNm[1]');
    expect(field({ bandNm: [0, 60] })).toBe('bandNm[0]');
    expect(field({ sides: [] })).toBe('sides');
    expect(field({ sides: [{ ...side, platesMm: 20 }] })).toBe('sides[0].platesMm');
    expect(field({ sides: [{ ...side, springs: [] }] })).toBe('sides[0].springs');
    expect(field({ sides: [{ ...side, plates: [] }] })).toBe('plates');
    expect(field({ friction: { ...friction, frictionCoefficient: 0 } })).toBe('frictionCoefficient');
    expect(field({ stock: [{ thicknessMm: -1, count: 1 }] })).toBe('stock[0].thicknessMm');
    expect(field({ bandNm: [Number.NaN, 60] })).toBe('bandNm[0]');
  });
});
