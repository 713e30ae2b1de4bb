import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import { newWork, type Build, type Work } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { GatesSheet } from './gates-sheet';
import { PartsSheet } from './parts-sheet';
import { WorkEdit } from './work-edit';
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
    expect(work(bench).facts).toEqual({});
    expect(work(bench).job).toBe('ratio-swap');
  });

  it('what the axle is stands among them; said here it is on its spec, and order and parts follow', async () => {
    const bench = openBench(working('full-build'));
    const screen = await facts();
    const spec = () => bench.build()?.axles.rear?.identity;
    const ids = () => bench.build()?.axles.rear?.work?.parts.map(({ id }) => id) ?? [];
    expect(screen.text).toContain('nobody has said: worked as with c-clips');
    await screen.choose('Brake', 'disc');
    const before = ids();
    await screen.choose('Wheel bearing', 'in-tube');
    expect(spec()?.wheelBearing).toEqual({ value: 'in-tube', origin: 'not-said' });
    expect(ids()).not.toEqual(before);
    await screen.choose('Wheel bearing', '');
    expect(spec()?.wheelBearing).toBeNull();
    expect(ids()).toEqual(before);
    await screen.choose('Case opened by', 'lever');
    expect(bench.derived()?.work.rear?.facts.spread).toBe('lever');
  });

  it('parts that the order needs since the axle was described elsewhere are named, and listed with one press', async () => {
    const build = working('full-build');
    const rear = build.axles.rear;
    if (!rear?.work) throw new Error('no work');
    openBench(build);
    const screen = await Screen.of(PartsSheet);
    expect(screen.text).toContain('The order of work needs what is not on this list');
    await screen.click('Put it on the list');
    expect(screen.text).not.toContain('The order of work needs what is not on this list');
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

describe('one step', () => {
  it('shows the numbers that it is worked by before it is done, or where one is to be said', async () => {
    const build = working('ratio-swap');
    const sheet = build.axles.rear?.identity?.sheet;
    if (!sheet) throw new Error('no sheet');
    sheet.capTorque = { value: entryOf(71, 'N·m'), origin: 'maker', where: 'page 4' };
    sheet.backlash = null;
    openBench(build);
    const caps = await Screen.of(WorkSheet, { tab: 'step', step: 'carrier-final' });
    expect(caps.find('.numbers').textContent).toContain('71 N·m');
    expect(caps.find('.numbers').textContent).toContain('page 4');
    const backlash = await Screen.of(WorkSheet, { tab: 'step', step: 'backlash' });
    expect(backlash.find('.numbers a').textContent).toContain('not said');
    expect(backlash.find('.numbers a').getAttribute('href')).toContain('sheet-backlash-rear');
  });

  it('says beside it what is out, what is made for good, and what must not be done yet', async () => {
    const bench = openBench(working('ratio-swap'));
    const edit = TestBed.inject(WorkEdit);
    const finish = (id: string): void => {
      const step = edit.state()?.steps.find((one) => one.step.id === id);
      if (step) edit.finish(step, 'done', null);
    };
    for (const id of ['carrier-out', 'ring-off', 'ring-on', 'ring-bolts']) finish(id);
    const { metal } = bench.derived()?.work.rear ?? {};
    expect(metal?.out).toContain('Carrier');
    expect(metal?.out).not.toContain('Ring');
    expect(metal?.made).toEqual(['ring bolts torqued']);
    const screen = await Screen.of(WorkSheet, { tab: 'step', step: 'ring-bolts' });
    expect(screen.find('[aria-label="State of the metal"]').textContent).toContain('Not before Gate A');
    // What it put back has left its tray.
    const ring = work(bench).trays.find(({ part }) => part === 'Ring');
    expect([ring?.out, ring?.back]).toEqual([1, 1]);
  });
});

describe('a gate says what waits for it', () => {
  it('by name, and that nothing waits where that is so', async () => {
    openBench(working('ratio-swap'));
    const screen = await Screen.of(GatesSheet);
    expect(screen.find('[aria-label="Gate A"] .waiting').textContent).toContain('Pinion preload');
  });
});
