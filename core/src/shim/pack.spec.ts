import { InputError } from '../base/errors';
import { seededRandom } from '../base/random';
import { shimPack } from './pack';

const refuses = (run: () => unknown, field: string): void => {
  expect(run).toThrowMatching((error) => error instanceof InputError && error.field === field);
};

describe('a pack of shims', () => {
  const rules = { maxPieces: 4, thinBelowMm: 0.1 };

  it('is exact where it can be, with the fewest pieces, thin ones between thick ones', () => {
    const stock = [
      { thicknessMm: 0.05, count: 3 },
      { thicknessMm: 0.5, count: 2 },
      { thicknessMm: 0.7, count: 2 },
      { thicknessMm: 1.05, count: 1 },
    ];
    expect(shimPack(1.05, stock, rules).piecesMm).toEqual([1.05]);
    expect(shimPack(1.25, stock, rules).piecesMm).toEqual([0.7, 0.05, 0.5]);
    expect(shimPack(0, stock, rules)).toEqual({ piecesMm: [], errorMm: 0, provenBest: true });
  });

  it('a thin piece alone is no pack: the next best is', () => {
    const stock = [
      { thicknessMm: 0.05, count: 4 },
      { thicknessMm: 0.2, count: 1 },
    ];
    expect(shimPack(0.1, stock, rules).piecesMm).toEqual([]); // 0.1 off either way: fewer pieces
    expect(shimPack(0.15, stock, rules).piecesMm).toEqual([0.2]);
    // two thick ones are needed before anything thin may lie between
    expect(shimPack(0.25, stock, rules).piecesMm).toEqual([0.2]);
  });

  it('agrees with looking at every pack there is [exact] (property)', () => {
    const random = seededRandom(77);
    for (let round = 0; round < 60; round++) {
      const stock = Array.from({ length: 6 }, () => ({
        thicknessMm: Math.round(30 + random() * 900) / 1000,
        count: Math.floor(random() * 3),
      }));
      if (!stock.some(({ thicknessMm, count }) => count > 0 && thicknessMm >= 0.1)) continue;
      const pieces = stock.flatMap(({ thicknessMm, count }) => Array.from({ length: count }, () => thicknessMm));
      const target = Math.round(random() * 2500) / 1000;
      let [error, fewest] = [target, 0];
      for (let mask = 1; mask < 2 ** pieces.length; mask++) {
        const chosen = pieces.filter((_, i) => (mask >> i) & 1);
        const thick = chosen.filter((mm) => mm >= 0.1).length;
        if (chosen.length > 4 || thick < Math.min(2, chosen.length)) continue;
        const off = Math.abs(chosen.reduce((a, b) => a + b, 0) - target);
        if (off < error - 1e-9 || (off < error + 1e-9 && chosen.length < fewest))
          [error, fewest] = [off, chosen.length];
      }
      const ours = shimPack(target, stock, rules);
      expect(Math.abs(ours.errorMm)).withContext(`round ${round}`).toBeCloseTo(error, 6);
      expect(ours.piecesMm.length).withContext(`round ${round}`).toBe(fewest);
      expect(ours.provenBest).toBeTrue();
      if (ours.piecesMm.length > 1) {
        expect(ours.piecesMm[0]).toBeGreaterThanOrEqual(0.1);
        expect(ours.piecesMm.at(-1)).toBeGreaterThanOrEqual(0.1);
      }
    }
  });

  it('refuses by name', () => {
    const stock = [{ thicknessMm: 0.5, count: 1 }];
    refuses(() => shimPack(-1, stock, rules), 'targetMm');
    refuses(() => shimPack(1, [{ thicknessMm: 0, count: 1 }], rules), 'stock[0].thicknessMm');
    refuses(() => shimPack(1, [{ thicknessMm: 1, count: -1 }], rules), 'stock[0].count');
    refuses(() => shimPack(1, [{ thicknessMm: 0.05, count: 9 }], rules), 'stock');
    refuses(() => shimPack(1, [], rules), 'stock');
    refuses(() => shimPack(1, stock, { ...rules, maxPieces: 0 }), 'maxPieces');
  });
});
