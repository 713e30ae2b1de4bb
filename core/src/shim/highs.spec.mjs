// shim.pack against a mixed-integer solver on the same box. Plain JavaScript: the package has no strict declarations.
import highsLoader from 'highs';
import { seededRandom } from '../base/random.ts';
import { shimPack } from './pack.ts';

/**
 * Least |sum − target| with at most `most` pieces; a pack of two or more holds two that are not thin, one alone is not thin:
 * 2·thick ≥ pieces for two pieces, and thick ≥ 2·more where there are more (`more` is 1 from the second piece on).
 */
function model(target, stock, most, thin) {
  const of = (factor) => stock.map((one, i) => ` + ${factor(one)} x${i}`).join('');
  const thick = of(({ thicknessMm }) => (thicknessMm >= thin ? 1 : 0));
  return `Minimize
 w
Subject To
 over:${of(({ thicknessMm }) => thicknessMm)} - w <= ${target}
 under:${of(({ thicknessMm }) => thicknessMm)} + w >= ${target}
 count:${of(() => 1)} <= ${most}
 any:${of(() => 1)} - ${most} some <= 0
 several:${of(() => 1)} - ${most} more <= 1
 first:${thick} - some >= 0
 second:${thick} - 2 more >= 0
Bounds
${stock.map(({ count }, i) => ` 0 <= x${i} <= ${count}`).join('\n')}
 0 <= some <= 1
 0 <= more <= 1
General
${stock.map((_, i) => ` x${i}`).join('')} some more
End`;
}

describe('a pack of shims against a mixed-integer solver', () => {
  it('is as near to the target on random boxes, thin pieces never outermost [general-purpose solver: HiGHS]', async () => {
    const highs = await highsLoader();
    const random = seededRandom(8);
    for (let round = 0; round < 12; round++) {
      const stock = Array.from({ length: 14 }, () => ({
        thicknessMm: Math.round(30 + random() * 700) / 1000,
        count: 1 + Math.floor(random() * 2),
      }));
      const target = Math.round(300 + random() * 1800) / 1000;
      const solved = highs.solve(model(target, stock, 4, 0.1), { mip_rel_gap: 0, mip_abs_gap: 0 });
      const ours = shimPack(target, stock, { maxPieces: 4, thinBelowMm: 0.1 });
      expect(solved.Status).toBe('Optimal');
      expect(Math.abs(ours.errorMm)).withContext(`round ${round}`).toBeCloseTo(solved.ObjectiveValue, 6);
    }
  });
});
