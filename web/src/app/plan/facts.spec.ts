import { newWork, type Build, type Work } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { GatesSheet } from './gates-sheet';
import { WorkSheet } from './work-sheet';

function working(job: Work['job']): Build {
  const build = setUpBuild();
  if (!build.axles.rear) throw new Error('no axle');
  build.axles.rear.work = newWork(job, 'plain');
  return build;
}
const work = (bench: Bench): Work => {
  const found = bench.build()?.axles.rear?.work;
  if (!found) throw new Error('no work');
  return found;
};
const facts = () => Screen.of(WorkSheet, { tab: 'facts' });

describe('facts of the job', () => {
  it('each shows what it is and why; one that is changed says so, and the order follows', async () => {
    const bench = openBench(working('overhaul'));
    const screen = await facts();
    expect(screen.text).toContain('follows from the rest');
    await screen.choose('Ring comes off', 'yes');
    expect(work(bench).facts).toEqual({ ringOff: true });
    expect(screen.text).toContain('said here');
    const steps = () => bench.derived()?.work.rear?.steps.map(({ step }) => step.id) ?? [];
    expect(steps()).toContain('ring-bolts');
    // The parts list follows too.
    expect(work(bench).parts.map(({ id }) => id)).toContain('ring-bolts');
    await screen.choose('Ring comes off', '');
    expect(work(bench).facts).toEqual({});
    expect(steps()).not.toContain('ring-bolts');
  });

  it('a job sets its switches anew', async () => {
    const bench = openBench(working('overhaul'));
    const screen = await facts();
    await screen.choose('Comes as', 'loose-unit');
    expect(work(bench).facts).toEqual({ arrives: 'loose-unit' });
    await screen.choose('Job', 'ratio-swap');
    expect(work(bench).facts).toBeUndefined();
    expect(work(bench).job).toBe('ratio-swap');
  });

  it('what has no choice is said all the same', async () => {
    openBench(working('ratio-swap'));
    const screen = await facts();
    expect(screen.all('#fact-pinionOut-rear').length).toBe(0);
    expect(screen.text).toContain('Pinion comes out');
  });

  it('facts that don’t go together can be changed where the finding leads', async () => {
    const build = working('insert');
    const bench = openBench(build);
    expect(bench.derived()?.work.rear).toBeUndefined();
    const screen = await Screen.of(WorkSheet);
    expect(screen.text).toContain('don’t go together');
    await screen.choose('Job', 'overhaul');
    expect(bench.derived()?.work.rear).toBeDefined();
  });
});

describe('a gate says what waits for it', () => {
  it('by name, and that nothing waits where that is so', async () => {
    openBench(working('ratio-swap'));
    const screen = await Screen.of(GatesSheet);
    expect(screen.find('[aria-label="Gate A"] .waiting').textContent).toContain('Pinion preload');
  });
});
