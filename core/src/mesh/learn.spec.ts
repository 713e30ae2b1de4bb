import { virtualAxle, assemble } from '../practice';
import { axlePrior, type Changes } from './axle-model';
import { meshAdvise } from './advise';
import type { MeshJob } from './job';
import { learnedChanges } from './learn';

const SET = { ringTeeth: 41, pinionTeeth: 11 };
const ours = axlePrior({ ...SET, middleMm: 0 }).perMm;

/** A job of a straight axle without scatter: drive v moves by `perDepth` a mm of depth, all else as we think. */
function past(perDepth: number, shims: readonly number[]): MeshJob {
  const at = (deeper: number, i: number): number => {
    const depth = i === 2 ? perDepth : (ours[i]?.[0].mean ?? 0);
    return depth * deeper;
  };
  return {
    construction: 'integral-head-shim',
    ...SET,
    specBacklashMm: [0.15, 0.25],
    tries: shims.map((mm) => ({
      pinionShimMm: mm,
      ringShiftMm: 0,
      backlashMm: [0, 1, 2, 3].map(() => 0.2 + at(mm - 1, 0)),
      drive: { u: at(mm - 1, 1), v: at(mm - 1, 2) },
      coast: { u: at(mm - 1, 3), v: at(mm - 1, 4) },
    })),
  };
}
const driveByDepth = (changes: Changes) => changes[2]?.[0] ?? { mean: Number.NaN, deviation: Number.NaN };

/** Depth and ring of four tries round the right place. */
const MOVES = [
  [0, 0],
  [0.12, 0.1],
  [-0.12, -0.1],
  [0.06, 0],
] as const;

describe('what past axles of a spec teach', () => {
  it('nothing past is what we think of any axle', () => {
    learnedChanges(SET, []).forEach((pair, i) => {
      pair.forEach(({ mean, deviation }, axis) => {
        expect(mean).toBeCloseTo(ours[i]?.[axis as 0 | 1].mean ?? Number.NaN, 12);
        expect(deviation).toBeCloseTo(ours[i]?.[axis as 0 | 1].deviation ?? Number.NaN, 12);
      });
    });
  });

  it('moves toward what they did, more with each, and never surer than axles of one spec differ', () => {
    const steep = past(-3.4, [1, 1.15, 1.3]);
    const one = driveByDepth(learnedChanges(SET, [steep]));
    const ten = driveByDepth(learnedChanges(SET, Array<MeshJob>(10).fill(steep)));
    expect(one.mean).toBeLessThan(-2.5);
    expect(ten.mean).toBeLessThan(one.mean);
    expect(ten.mean).toBeGreaterThan(-3.5);
    expect(ten.deviation).toBeLessThan(one.deviation);
    expect(ten.deviation).toBeGreaterThanOrEqual(0.5 * (ours[2]?.[0].deviation ?? 0));
  });

  it('one try of one axle teaches next to nothing', () => {
    const { mean, deviation } = driveByDepth(learnedChanges(SET, [past(-3.4, [1])]));
    expect(mean).toBeCloseTo(-2.4, 1);
    expect(deviation).toBeGreaterThan(0.97 * (ours[2]?.[0].deviation ?? 0));
  });

  it('twelve axles read with scatter bring the guess of the next nearer to what is true of all of them', () => {
    // Axles of ours, all of one spec: the same changes, other places. The tries are read with scatter.
    const spec = virtualAxle(4_400_017);
    const perMm = spec.truth.perMm;
    const job = (seed: number): MeshJob => {
      const axle = { ...virtualAxle(seed), construction: spec.construction, ...SET };
      const same = { ...axle, specBacklashMm: [0.15, 0.25] as const, truth: { ...axle.truth, perMm } };
      return {
        construction: 'integral-head-shim',
        ...SET,
        specBacklashMm: same.specBacklashMm,
        tries: MOVES.map(([depth, ring], i) =>
          assemble(same, same.startShimMm + (same.truth.deeperMm + depth), same.truth.closerMm + ring, i),
        ),
      };
    };
    const off = (changes: Changes): number =>
      Math.hypot(...[2, 4].map((i) => (changes[i]?.[0].mean ?? 0) - (perMm[i]?.[0] ?? 0)));
    const learned = learnedChanges(
      SET,
      Array.from({ length: 12 }, (_, i) => job(4_400_100 + i)),
    );
    expect(off(learned)).toBeLessThan(0.75 * off(ours));
  });

  it('is asked by the advisor in place of ours; what can’t be is refused by name', () => {
    const job = past(-3.4, [1, 1.1]);
    const learned = learnedChanges(SET, [past(-3.4, [1, 1.2])]);
    expect(meshAdvise({ ...job, changesPerMm: ours }).done).toBe(meshAdvise(job).done);
    const off = past(-3.4, [1.3, 1.4]);
    expect(meshAdvise({ ...off, changesPerMm: learned }).next).not.toEqual(meshAdvise(off).next);
    expect(() => meshAdvise({ ...job, changesPerMm: learned.slice(1) })).toThrowError(/changesPerMm/);
    const flat = learned.map((pair) => pair.map((one) => ({ ...one, deviation: 0 }))) as unknown as Changes;
    expect(() => meshAdvise({ ...job, changesPerMm: flat })).toThrowError(/changesPerMm\[0\]\[0\].deviation/);
    expect(() => learnedChanges(SET, [job, { ...job, tries: [] }])).toThrowError(/tries/);
  });
});
