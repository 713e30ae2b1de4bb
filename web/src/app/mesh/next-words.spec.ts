import { meshAdvise, type MeshAdvice, type MeshTry } from '@hot-spline/core';
import { deriveBuild } from '@hot-spline/model';
import { assemblyOf, setUpBuild } from '../../testing/set-up';
import { nextSays } from './next-words';

const mesh = (() => {
  const found = deriveBuild(setUpBuild(), assemblyOf(1, { backlash: 0.2, pattern: [0, -0.5, 0, -0.5] })).mesh.rear;
  if (!found?.now || !found.job) throw new Error('nothing to judge');
  return { ...found, now: found.now, job: found.job };
})();
const says = (advice: MeshAdvice) => nextSays(advice, mesh, { system: 'metric', taught: 0 });
const tried = (change: Partial<MeshTry>) =>
  meshAdvise({ ...mesh.job, tries: [{ ...(mesh.job.tries[0] as MeshTry), ...change }] });
const usual = meshAdvise(mesh.job);

describe('what there is to do next', () => {
  it('is one thing: an assembly with its chance', () => {
    const { title, put, chance, suspect } = says({ ...usual, readAgain: null });
    expect([title, put, suspect]).toEqual(['Assembly 2', 'main', null]);
    expect(chance).toBeGreaterThan(10);
  });

  it('a reading first: no assembly is proposed beside it', () => {
    expect(says(tried({ drive: null, coast: null }))).toEqual(
      jasmine.objectContaining({ title: 'Paint it first', put: 'none' }),
    );
    expect(says(tried({ backlashMm: [0.2], drive: { u: 0, v: 0 }, coast: { u: 0, v: 0 } })).title).toBe(
      'Read the backlash all round',
    );
    const again = says({ ...usual, readAgain: { reading: 'pattern', why: 'worth', chanceInSpec: 0.8 } });
    expect([again.title, again.put]).toEqual(['Read the pattern again first', 'all-the-same']);
    const unlikely = says({ ...usual, readAgain: { reading: 'backlash', why: 'unlikely', chanceInSpec: 0.5 } });
    expect([unlikely.title, unlikely.put]).toEqual(['Read the backlash again', 'none']);
  });

  it('a chance that is not worth an assembly is shown as ours, and nothing is put in', () => {
    const low = says({ ...usual, readAgain: null, chanceInSpec: 0.06 });
    expect([low.title, low.put]).toEqual(['No move is worth an assembly yet', 'all-the-same']);
    expect(low.lines[0]).toContain('10 % (ours)');
  });

  it('readings that contradict each other: what to look at, no move', () => {
    const { title, put, lines } = says(tried({ drive: { u: 0.95, v: 0 }, coast: { u: 0.95, v: 0 } }));
    expect([title, put]).toEqual(['These readings contradict each other', 'none']);
    for (const word of ['back of the ring', 'shim moves the pinion', 'match numbers', 'cocked seat'])
      expect(lines.join(' ')).toContain(word);
  });

  it('a sign told wrong is said, with the button that turns it; swapped flanks are the builder’s to lay anew', () => {
    const as = (what: 'pinion-sign' | 'flanks-swapped') =>
      says({ ...usual, readAgain: null, as: what, suspects: [{ what, chance: 0.94 }] }).suspect;
    expect(as('pinion-sign')?.text).toContain('The shim moves the pinion the other way here: 94 %');
    expect(as('pinion-sign')?.turn).not.toBe('');
    expect(as('flanks-swapped')?.turn).toBe('');
    // Named, not followed: it is said, and nothing is turned.
    const named = says({ ...usual, readAgain: null, suspects: [{ what: 'ring-side', chance: 0.2 }] });
    expect([named.suspect?.turn, named.put]).toEqual(['', 'main']);
  });

  it('done says how sure, and what is worth taking again; a shim of less than none is said', () => {
    const done = says(
      tried({
        backlashMm:
          mesh.job.tries[0]?.backlashMm.map(
            () => (mesh.job.specBacklashMm[0] + mesh.job.specBacklashMm[1]) / 2 + (mesh.job.closingUpMm ?? 0),
          ) ?? [],
        drive: { u: 0, v: 0 },
        coast: { u: 0, v: 0 },
      }),
    );
    expect([done.title, done.done, done.put]).toEqual(['All of it is in band.', true, 'none']);
    expect(done.chance).toBeGreaterThan(50);
    expect(says({ ...usual, readAgain: null, belowZeroMm: -0.12 }).lines[0]).toContain('less than none');
  });
});
