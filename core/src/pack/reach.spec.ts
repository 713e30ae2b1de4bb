import { InputError } from '../base/errors';
import { discSpringForce } from './disc-spring';
import { nestedDiscs } from './spring-column';
import { type PackMember } from './interfaces';
import { waysToReach } from './reach';
import { wantedPack, type WantedProblem } from './wanted';

const steel: PackMember = { keyedTo: 'case', lined: false };
const lined: PackMember = { keyedTo: 'gear', lined: true };
const spring = { outerDiameterMm: 100, innerDiameterMm: 60, thicknessMm: 2.8, coneHeightMm: 1.3 };
const side = {
  plates: [steel, lined, steel, lined, steel],
  platesMm: 10,
  caseDepthMm: 14,
  springs: [nestedDiscs(spring, 1)],
};
// Ours: round figures, nobody's unit.
const problem = (change: Partial<WantedProblem> = {}): WantedProblem => ({
  sides: [side, { ...side, platesMm: 10.02 }],
  friction: { frictionCoefficient: 0.1, outerRadiusMm: 60, innerRadiusMm: 40, wearModel: 'uniform-wear' },
  bandNm: [300, 340],
  stock: [0.1, 0.2, 0.3, 0.5].map((thicknessMm) => ({ thicknessMm, count: 4 })),
  maxPiecesPerSide: 4,
  ...change,
});
/** Largest force of one spring up to flat, by looking at every hundredth. */
const strongest = Math.max(...Array.from({ length: 101 }, (_, i) => discSpringForce(spring, (1.3 * i) / 100)));
const armM = 0.05;

describe('what would reach a breakaway that the springs are too weak for', () => {
  it('nested springs press as many times as hard at the same travel, and take a thickness each [exact]', () => {
    const [way] = waysToReach(problem()).filter(({ kind }) => kind === 'nested');
    // 4 surfaces: 320 N·m ask for 320 / (0.1 · 4 · 0.05) = 16 kN in one pack
    const wantedN = 320 / (0.1 * 4 * armM);
    expect(strongest).toBeLessThan(wantedN);
    expect(way).toBeDefined();
    way?.sides.forEach((one, i) => {
      expect(one.clampN).toBeCloseTo(wantedN, 3);
      expect(one.breakawayNm).toBeCloseTo(320, 4);
      const travel = 1.3 * one.flattest;
      expect(way.count * discSpringForce(spring, travel)).toBeCloseTo(wantedN, 2);
      const plates = i === 0 ? 10 : 10.02;
      expect(one.needsMm).toBeCloseTo(plates + way.count * 2.8 + 1.3 - travel, 6);
      expect(one.roomMm).toBeCloseTo(14 - one.needsMm, 9);
    });
  });

  it('followed, with the depth that it asks for, it is in the band; without it the case is too shallow', () => {
    const asked = problem();
    expect(wantedPack(asked).plans).toEqual([]);
    const [way] = waysToReach(asked).filter(({ kind }) => kind === 'nested');
    const count = way?.count ?? 0;
    const springs = [nestedDiscs(spring, count)];
    const needs = Math.max(...(way?.sides.map(({ needsMm }) => needsMm) ?? []));
    expect(way?.fits).toBe(needs <= 14);
    const followed = (caseDepthMm: number) =>
      wantedPack(problem({ sides: asked.sides.map((one) => ({ ...one, springs, caseDepthMm })) }));
    expect(followed(needs + 0.3).plans[0]?.inBand).toBeTrue();
    // no shims at all lie in a case that is a millimetre too shallow, and it is past what the springs can go
    expect(followed(needs - 1).plans.some(({ inBand }) => inBand)).toBeFalse();
  });

  it('surfaces: the fewest that hold it, one plate of the mean thickness each', () => {
    const [way] = waysToReach(problem()).filter(({ kind }) => kind === 'surfaces');
    const easyN = discSpringForce(spring, 0.75 * 1.3);
    const fewest = Math.ceil(320 / (0.1 * armM * easyN));
    expect(way?.count).toBe(fewest);
    const [left] = way?.sides ?? [];
    expect(left?.needsMm).toBeCloseTo(10 + (fewest - 4) * 2 + 2.8 + 1.3 * (1 - (left?.flattest ?? 0)), 6);
  });

  it('what has room comes first; what nothing reaches has no way', () => {
    const deep = problem({ sides: [{ ...side, caseDepthMm: 90 }] });
    expect(waysToReach(deep).map(({ fits }) => fits)).toEqual([true, true]);
    const between = waysToReach(problem({ sides: [{ ...side, caseDepthMm: 19 }] }));
    expect(between.map(({ fits }) => Number(fits))).toEqual(
      between.map(({ fits }) => Number(fits)).sort((a, b) => b - a),
    );
    expect(waysToReach(problem({ bandNm: [90_000, 91_000] }))).toEqual([]);
  });

  it('springs of measured force are not nested, they have their surfaces', () => {
    const measured = { freeMm: 10, points: [{ heightMm: 9, forceN: 3000 }] };
    const ways = waysToReach(problem({ sides: [{ ...side, springs: [measured] }] }));
    expect(ways.map(({ kind }) => kind)).toEqual(['surfaces']);
  });

  it('refuses a band that is none', () => {
    for (const bandNm of [
      [0, 10],
      [50, 40],
      [Number.NaN, 3],
    ] as [number, number][])
      expect(() => waysToReach(problem({ bandNm }))).toThrowMatching(
        (e) => e instanceof InputError && e.field.startsWith('bandNm'),
      );
  });
});
