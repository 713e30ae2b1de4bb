import fc from 'fast-check';
import { InputError } from '../base/errors';
import { involute, pairOnCentres, type PairOnCentres } from './pair';

const straight: PairOnCentres = {
  teeth: [17, 30],
  normalModuleMm: 3,
  helixDeg: 0,
  pressureAngleDeg: 20,
  centreMm: 72,
};
const field = (run: () => unknown): string => {
  try {
    run();
  } catch (error) {
    if (error instanceof InputError) return error.field;
    throw error;
  }
  return 'taken';
};

describe('box: a pair on the centres of a box', () => {
  it('the involute function as tables have it', () => {
    // [standard tables of the involute function, from memory]
    for (const [degrees, value] of [
      [14.5, 0.005_545],
      [20, 0.014_904],
      [25, 0.029_975],
      [30, 0.053_752],
    ] as const)
      expect(involute((degrees * Math.PI) / 180)).toBeCloseTo(value, 6);
  });

  it('straight-cut: on its own centres it needs no shift, wider it needs some [exact, handbook 14.1]', () => {
    expect(pairOnCentres({ ...straight, centreMm: 70.5 }).shiftSum).toBeCloseTo(0, 12);
    const wide = pairOnCentres(straight);
    expect(wide.plainCentreMm).toBeCloseTo(70.5, 12);
    expect(wide.workingAngleDeg).toBeCloseTo(23.057, 3);
    expect(wide.shiftSum).toBeCloseTo(0.5375, 4);
    expect([wide.playMm, wide.verdict]).toEqual([null, 'can-fit']);
  });

  it('helical [exact, handbook 14.1]', () => {
    const helical = pairOnCentres({
      teeth: [19, 34],
      normalModuleMm: 2.5,
      helixDeg: 22,
      pressureAngleDeg: 20,
      centreMm: 72,
    });
    expect(helical.plainCentreMm).toBeCloseTo(71.4529, 4);
    expect(helical.workingAngleDeg).toBeCloseTo(22.5157, 4);
    expect(helical.shiftSum).toBeCloseTo(0.2241, 4);
  });

  it('comes back from the shifts to the centres: inverted by bisection of the involute equation alone', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 60 }),
        fc.integer({ min: 10, max: 60 }),
        number(1, 6),
        number(0, 35),
        number(14.5, 25),
        number(0.985, 1.06),
        (z1, z2, normalModuleMm, helixDeg, pressureAngleDeg, wide) => {
          const rad = Math.PI / 180;
          const a0 = (normalModuleMm * (z1 + z2)) / (2 * Math.cos(helixDeg * rad));
          const pair: PairOnCentres = {
            teeth: [z1, z2],
            normalModuleMm,
            helixDeg,
            pressureAngleDeg,
            centreMm: a0 * wide,
          };
          const { shiftSum } = pairOnCentres(pair);
          const alphaT = Math.atan(Math.tan(pressureAngleDeg * rad) / Math.cos(helixDeg * rad));
          const wanted = (2 * Math.tan(pressureAngleDeg * rad) * shiftSum) / (z1 + z2) + Math.tan(alphaT) - alphaT;
          let [low, high] = [0, 80 * rad];
          for (let i = 0; i < 200; i++) {
            const middle = (low + high) / 2;
            if (Math.tan(middle) - middle < wanted) low = middle;
            else high = middle;
          }
          expect((a0 * Math.cos(alphaT)) / Math.cos(low)).toBeCloseTo(pair.centreMm, 6);
        },
      ),
      { numRuns: 200 },
    );
  });

  it('with the maker’s shifts the play decides; without, what is usual [ours]', () => {
    const given = (shiftSumGiven: number) => pairOnCentres({ ...straight, shiftSumGiven });
    const needed = pairOnCentres(straight).shiftSum;
    const none = given(needed);
    expect([none.playMm, none.verdict]).toEqual([0, 'fits']);
    // j = 2·tan α·(2a ÷ z)·Δx: for a tenth of a module of play [exact]
    const perShift = 2 * Math.tan((20 * Math.PI) / 180) * (144 / 47);
    expect(given(needed - 0.1).playMm).toBeCloseTo(0.1 * perShift, 9);
    expect(given(needed - 0.1).verdict).toBe('fits');
    expect(given(needed - 0.31 / perShift).verdict).toBe('loose');
    expect(given(needed + 0.01).verdict).toBe('jams');
    const centred = (centreMm: number) => pairOnCentres({ ...straight, centreMm }).verdict;
    expect([centred(68.6), centred(72), centred(75)]).toEqual(['jams', 'can-fit', 'loose']);
  });

  it('refuses what is no pair, by its field', () => {
    for (const [name, change] of [
      ['centreMm', { centreMm: 66 }],
      ['centreMm', { centreMm: 0 }],
      ['teeth[0]', { teeth: [0, 30] }],
      ['teeth[1]', { teeth: [17, 30.5] }],
      ['helixDeg', { helixDeg: 90 }],
      ['normalModuleMm', { normalModuleMm: Number.NaN }],
      ['pressureAngleDeg', { pressureAngleDeg: 0 }],
      ['shiftSumGiven', { shiftSumGiven: 99 }],
    ] as [string, Partial<PairOnCentres>][])
      expect(field(() => pairOnCentres({ ...straight, ...change }))).toBe(name);
  });
});
