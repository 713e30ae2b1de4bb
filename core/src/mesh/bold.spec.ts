import { FAMILIES, assemble, virtualAxle } from '../practice';
import { meshAdvise } from './advise';
import { boldMove } from './bold';
import type { MeshJob } from './job';

/** A made-up axle after its first try, and what is advised. */
function begun(seed: number): { job: MeshJob; next: NonNullable<ReturnType<typeof meshAdvise>['next']> } | null {
  const axle = virtualAxle(seed, FAMILIES.rough);
  const job = { ...axle, tries: [assemble(axle, axle.startShimMm, 0, 0)] };
  const { next } = meshAdvise(job);
  return next && { job, next };
}
const jobs = Array.from({ length: 12 }, (_, i) => begun(6_600_000 + i)).filter((one) => one !== null);
/** Axles of ours, about one in fifty, of which more is learned by going farther. */
const WORTH = [6_600_079, 6_600_102, 6_600_230, 6_600_273, 6_600_361];

describe('a bold move', () => {
  it('is proposed now and then only, where it brings more within two assemblies by the same measure', () => {
    const proposed = jobs.filter(({ job, next }) => boldMove(job, next) !== null);
    expect(proposed.length).toBeLessThan(jobs.length / 4);
    for (const seed of WORTH) {
      const one = begun(seed);
      const bold = one && boldMove(one.job, one.next);
      expect(bold).withContext(String(seed)).not.toBeNull();
      expect(bold?.chanceWithinTwo).toBeGreaterThan((bold?.plainWithinTwo ?? 1) + 0.02);
      expect(bold?.chanceWithinTwo).toBeLessThanOrEqual(1);
      expect(bold?.move).not.toEqual(one?.next);
    }
  });

  it('is one that exists: whole steps, or packs of the stock', () => {
    for (const { job, next } of jobs.slice(0, 12)) {
      const stock = [1.0, 1.05, 1.1, 1.2].map((thicknessMm) => ({ thicknessMm, count: 1 }));
      const bold = boldMove({ ...job, stock }, next);
      if (bold)
        expect(stock.some(({ thicknessMm }) => Math.abs(thicknessMm - bold.move.pinionShimMm) < 1e-6)).toBeTrue();
      const free = boldMove(job, next);
      const steps = free ? (free.move.ringShiftMm - (job.tries[0]?.ringShiftMm ?? 0)) / 0.025 : 0;
      expect(steps).toBeCloseTo(Math.round(steps), 6);
    }
  });

  it('the same job gives the same, and a bad one is refused by name', () => {
    const [one] = jobs;
    if (!one) throw new Error('no job');
    expect(boldMove(one.job, one.next)).toEqual(boldMove(one.job, one.next));
    expect(() => boldMove({ ...one.job, tries: [] }, one.next)).toThrowError(/tries/);
  });
});
