import fc from 'fast-check';
import highsLoader from 'highs';
import { packShims, shimsFrom, type ShimSide, type ShimStock } from './shims';

const hundredths = (min: number, max: number) => fc.integer({ min, max }).map((n) => n / 100);
const someStock = (most: number) =>
  fc.array(fc.record({ thicknessMm: hundredths(10, 140), count: fc.integer({ min: 0, max: 3 }) }), { maxLength: most });
const someSide = fc.record({ fixedMm: hundredths(1500, 1600), targetMm: hundredths(1590, 1800) });

/** Every pair of stacks there is, by counting up. */
function brute(sides: readonly ShimSide[], stock: readonly ShimStock[], most: number): [number, number, number] {
  const options: { used: number[]; sum: number; pieces: number }[] = [];
  const go = (i: number, used: number[], sum: number, pieces: number): void => {
    if (i === stock.length) {
      options.push({ used, sum, pieces });
      return;
    }
    const { thicknessMm, count } = stock[i] as ShimStock;
    for (let n = 0; n <= Math.min(count, most - pieces); n++)
      go(i + 1, [...used, n], sum + n * thicknessMm, pieces + n);
  };
  go(0, [], 0, 0);
  const error = (side: ShimSide, sum: number): number => Math.round(Math.abs(side.fixedMm + sum - side.targetMm) * 1e6);
  let best: [number, number, number] = [Infinity, Infinity, Infinity];
  const [left, right] = sides;
  if (!left || !right) throw new Error('two sides');
  for (const a of options) {
    for (const b of options) {
      if (a.used.some((n, i) => n + (b.used[i] ?? 0) > (stock[i]?.count ?? 0))) continue;
      const [ea, eb] = [error(left, a.sum), error(right, b.sum)];
      const found: [number, number, number] = [Math.max(ea, eb), ea + eb, a.pieces + b.pieces];
      if (
        found[0] < best[0] ||
        (found[0] === best[0] && (found[1] < best[1] || (found[1] === best[1] && found[2] < best[2])))
      )
        best = found;
    }
  }
  return best;
}

const scores = (result: ReturnType<typeof packShims>): [number, number, number] => {
  const errors = result.sides.map(({ errorMm }) => Math.round(Math.abs(errorMm) * 1e6));
  return [
    Math.max(...errors),
    errors.reduce((a, b) => a + b, 0),
    result.sides.reduce((n, side) => n + side.piecesMm.length, 0),
  ];
};

describe('pack: shims from stock', () => {
  it('one piece is one piece: both sides can’t have the only one', () => {
    const sides = [
      { fixedMm: 15.7, targetMm: 16.6 },
      { fixedMm: 15.72, targetMm: 16.6 },
    ];
    // 0.90 and 0.88 are wanted; the second 0.90 would be 0.02 over [exact]
    const two = packShims(sides, [{ thicknessMm: 0.9, count: 2 }], 3);
    expect(two.sides.map(({ piecesMm }) => piecesMm)).toEqual([[0.9], [0.9]]);
    expect(two.worstErrorMm).toBeCloseTo(0.02, 9);
    const one = packShims(
      sides,
      [
        { thicknessMm: 0.9, count: 1 },
        { thicknessMm: 0.85, count: 1 },
      ],
      3,
    );
    expect(one.sides.map(({ piecesMm }) => piecesMm)).toEqual([[0.9], [0.85]]);
    expect(one.provenBest).toBeTrue();
  });

  it('spot on at both sides, with the fewest pieces of both together, though one side needs many of them', () => {
    const sides = [
      { fixedMm: 10, targetMm: 11 },
      { fixedMm: 10, targetMm: 12 },
    ];
    // 1.00 is there once: 0.50 twice for the left and 1.00 twice is not to be had; 4 × 0.50 leaves 1.00 for the left [exact].
    const stock = [
      { thicknessMm: 1, count: 1 },
      { thicknessMm: 0.5, count: 4 },
      { thicknessMm: 0.3, count: 1 },
      { thicknessMm: 0.7, count: 1 },
    ];
    const found = packShims(sides, stock, 5);
    expect(found.worstErrorMm).toBe(0);
    // 1 | 0.5 + 0.5 + 0.3 + 0.7, or 0.3 + 0.7 | 1 + 0.5 + 0.5: five pieces are the fewest.
    expect(found.sides.reduce((n, { piecesMm }) => n + piecesMm.length, 0)).toBe(5);
    expect(scores(found)).toEqual(brute(sides, stock, 5));
  });

  it('400 thicknesses and six pieces a side are no search at all where they land spot on; nothing can be nearer', () => {
    const stock = Array.from({ length: 400 }, (_, i) => ({ thicknessMm: Math.round(200 + 3 * i) / 1000, count: 1 }));
    const sides = [
      { fixedMm: 15.713, targetMm: 17.65 },
      { fixedMm: 15.729, targetMm: 17.65 },
    ];
    const { worstErrorMm, provenBest, sides: found } = packShims(sides, stock, 6);
    expect([worstErrorMm, provenBest]).toEqual([0, true]);
    expect(new Set(found.flatMap(({ piecesMm }) => piecesMm)).size).toBe(
      found.reduce((n, { piecesMm }) => n + piecesMm.length, 0),
    );
  });

  it('least worst error first, then least sum, then fewest pieces', () => {
    const sides = [
      { fixedMm: 10, targetMm: 11 },
      { fixedMm: 10, targetMm: 11 },
    ];
    const stock = [
      { thicknessMm: 1, count: 2 },
      { thicknessMm: 0.5, count: 4 },
    ];
    expect(packShims(sides, stock, 3).sides.map(({ piecesMm }) => piecesMm)).toEqual([[1], [1]]);
    expect(packShims(sides, [{ thicknessMm: 0.5, count: 4 }], 2).sides[0]?.piecesMm).toEqual([0.5, 0.5]);
    expect(packShims(sides, [], 3).sides.map(({ heightMm }) => heightMm)).toEqual([10, 10]);
  });

  it('cut short it gives what it has met, never less than the nearest single piece, and never a piece twice', () => {
    fc.assert(
      fc.property(someStock(8), someSide, someSide, fc.integer({ min: 0, max: 60 }), (stock, a, b, budget) => {
        const short = shimsFrom(stock, 3, budget)([a, b]);
        const whole = packShims([a, b], stock, 3);
        expect(short.worstErrorMm).toBeGreaterThanOrEqual(whole.worstErrorMm - 1e-9);
        if (short.provenBest) expect(short.worstErrorMm).toBeCloseTo(whole.worstErrorMm, 9);
        for (const { thicknessMm, count } of stock) {
          const used = short.sides.flatMap(({ piecesMm }) => piecesMm).filter((piece) => piece === thicknessMm).length;
          const there = stock.filter((one) => one.thicknessMm === thicknessMm).reduce((n, one) => n + one.count, 0);
          expect(used).toBeLessThanOrEqual(Math.max(there, count));
        }
        // One side alone: nothing that a single piece does better.
        const one = shimsFrom(stock, 3, budget)([a]).worstErrorMm;
        const singles = [0, ...stock.filter(({ count }) => count > 0).map(({ thicknessMm }) => thicknessMm)];
        const nearest = Math.min(...singles.map((mm) => Math.abs(a.fixedMm + mm - a.targetMm)));
        expect(one).toBeLessThanOrEqual(nearest + 1e-6);
      }),
      { numRuns: 300 },
    );
  });

  it('a search that is cut short is fair to both sides: a large drawer holds pieces for each', () => {
    const drawer = Array.from({ length: 400 }, (_, i) => ({ thicknessMm: 0.5 + i * 0.005, count: 10 }));
    const sides = [
      { fixedMm: 60, targetMm: 66.5 },
      { fixedMm: 60.03, targetMm: 66.5 },
    ];
    const { provenBest, worstErrorMm } = shimsFrom(drawer, 6, 15_000)(sides);
    expect(provenBest).toBeFalse();
    // Three pieces of this drawer make every 5 µm: half of that is the worst that a builder would meet [geometry].
    expect(worstErrorMm).toBeLessThanOrEqual(0.0025 + 1e-9);
  });

  it('finds what counting up finds, on any stock small enough to count', () => {
    fc.assert(
      fc.property(someStock(5), someSide, someSide, fc.integer({ min: 0, max: 3 }), (stock, a, b, most) => {
        const result = packShims([a, b], stock, most);
        expect(result.provenBest).toBeTrue();
        expect(scores(result)).toEqual(brute([a, b], stock, most));
        for (const { thicknessMm } of stock) {
          const used = result.sides.flatMap(({ piecesMm }) => piecesMm).filter((piece) => piece === thicknessMm).length;
          const there = stock.filter((one) => one.thicknessMm === thicknessMm).reduce((n, one) => n + one.count, 0);
          expect(used).toBeLessThanOrEqual(there);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('finds what a mixed-integer solver finds, on 500 random stocks', async () => {
    const highs = await highsLoader();
    const most = 3;
    // The solver takes its time over long drawers: a hundred of those, and four hundred short ones.
    const drawers = (pieces: number, numRuns: number) =>
      fc.sample(fc.tuple(someStock(pieces), someSide, someSide), { numRuns, seed: 11 });
    const cases = [...drawers(14, 100), ...drawers(6, 400)];
    cases.forEach(([stock, a, b], k) => {
      const result = packShims([a, b], stock, most);
      // minimise w, |fixed + Σ t·n − target| ≤ w on both sides, Σ n ≤ 3 a side, n_left + n_right ≤ count
      const sum = (side: string): string => stock.map(({ thicknessMm }, i) => ` + ${thicknessMm} ${side}${i}`).join('');
      const count = (side: string): string => stock.map((_, i) => ` + ${side}${i}`).join('');
      const rows = (['l', 'r'] as const).flatMap((side) => {
        const { fixedMm, targetMm } = side === 'l' ? a : b;
        const wanted = (targetMm - fixedMm).toFixed(6);
        return [
          ` ${side}over:${sum(side)} - w <= ${wanted}`,
          ` ${side}under:${sum(side)} + w >= ${wanted}`,
          ...(stock.length ? [` ${side}count:${count(side)} <= ${most}`] : []),
        ];
      });
      const shared = stock.map(({ count: there }, i) => ` c${i}: l${i} + r${i} <= ${there}`);
      const integers = stock.map((_, i) => ` l${i} r${i}`).join('');
      const model = `Minimize\n w\nSubject To\n${[...rows, ...shared].join('\n')}\nBounds\n w >= 0\n${integers ? `General\n${integers}\n` : ''}End`;
      const solved = highs.solve(model, { mip_rel_gap: 0, mip_abs_gap: 0 });
      expect(solved.Status).withContext(`case ${k}`).toBe('Optimal');
      expect(result.worstErrorMm).withContext(`case ${k}`).toBeCloseTo(solved.ObjectiveValue, 5);
    });
  });

  const bad: [string, unknown[]][] = [
    ['sides', [[], [], 3]],
    ['sides[0].fixedMm', [[{ fixedMm: -1, targetMm: 2 }], [], 3]],
    ['sides[0].targetMm', [[{ fixedMm: 1, targetMm: Number.NaN }], [], 3]],
    ['stock[0].count', [[{ fixedMm: 1, targetMm: 2 }], [{ thicknessMm: 1, count: -1 }], 3]],
    ['stock[0].count', [[{ fixedMm: 1, targetMm: 2 }], [{ thicknessMm: 1, count: 0.5 }], 3]],
    ['stock[0].thicknessMm', [[{ fixedMm: 1, targetMm: 2 }], [{ thicknessMm: 0, count: 1 }], 3]],
    ['maxPiecesPerSide', [[{ fixedMm: 1, targetMm: 2 }], [], 9]],
  ];
  for (const [field, args] of bad) {
    it(`refuses by name: ${field}`, () => {
      expect(() => packShims(...(args as Parameters<typeof packShims>))).toThrowMatching(
        (error) => error.field === field,
      );
    });
  }
});
