import { entryOf, starPattern } from '@hot-spline/core';
import { USUAL_SCHOOLS, jointSubjects, newJoint, type Build, type Joint, type Reading } from '@hot-spline/model';
import { SPEAKER, type Speaker } from '../state/sound';
import { Screen, keepSpecs, openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { JointSheet } from './joint-sheet';

const mm = (value: number) => entryOf(value, 'mm');

function jointed(change: Partial<Joint> = {}, hand: 'right' | 'left' = 'right'): Build {
  const build = setUpBuild();
  const axle = build.axles.rear;
  if (!axle?.identity) throw new Error('no axle');
  axle.identity.ringBolts = { value: { thread: 'M10x1.25', count: 6, hand }, origin: 'measured' };
  axle.joint = {
    ...newJoint(),
    grade: '10.9',
    torque: { value: entryOf(70, 'N·m'), origin: 'maker', where: 'page 3' },
    ...change,
  };
  return build;
}
const joint = (bench: Bench): Joint => {
  const found = bench.build()?.axles.rear?.joint;
  if (!found) throw new Error('no joint');
  return found;
};
const ticked = (bench: Bench): [string, string[]][] =>
  bench.ledger().flatMap((one) => {
    if (one.kind !== 'reading' || one.value.of !== 'ticks') return [];
    return [[String(one.subject['stage']), one.value.ticks] as [string, string[]]];
  });

describe('the ring joint', () => {
  it('begins with nothing said, and asks for thread and class', async () => {
    const build = jointed();
    const axle = build.axles.rear;
    if (axle?.identity) {
      axle.joint = null;
      axle.identity.ringBolts = null;
    }
    const bench = openBench(build);
    const screen = await Screen.of(JointSheet);
    // As the shop does it, where it has said so.
    keepSpecs({ kind: 'schools', name: 'How we do it', ...USUAL_SCHOOLS, threadlocker: 'medium', ringGearNote: '' });
    await screen.click('Describe the joint');
    expect(joint(bench).threadlocker).toBe('medium');
    expect(joint(bench).grade).toBe('');
    expect(bench.derived()?.findings.find(({ id }) => id === 'joint.rear.unsaid')?.verdict).toBe('stop');
    await screen.type('Thread', '7/16-20');
    await screen.type('How many', '10');
    await screen.choose('Class or grade', '8');
    expect(bench.build()?.axles.rear?.identity?.ringBolts?.value).toEqual({
      thread: '7/16-20',
      count: 10,
      hand: 'right',
    });
    // 7/16-20 grade 8: about 70 lbf·ft lubricated, 78 plated [std: Shigley, from memory].
    expect(screen.figure('joint.rear.short')).toContain('95 N·m');
    await screen.choose('Finish', 'plated');
    expect(screen.figure('joint.rear.short')).toContain('106 N·m');
  });

  it('shows both formulas side by side, and what the torque gives of proof', async () => {
    const bench = openBench(jointed());
    const screen = await Screen.of(JointSheet);
    await screen.type('Bearing face, across', '16 mm');
    expect(joint(bench).headOuter).toEqual(mm(16));
    expect(screen.all('[data-figure="joint.rear.full"]').length).toBe(0); // friction is not known yet
    await screen.type('Friction in the thread', '0.1');
    await screen.type('Friction under the head', '0.1');
    expect(screen.figure('joint.rear.full')).toMatch(/^\d+ N·m$/);
    expect(Number(screen.figure('joint.rear.of-proof').replace(/\D/g, ''))).toBeGreaterThan(50);
    await screen.type('Final torque', '120 N·m');
    expect(bench.derived()?.findings.find(({ id }) => id === 'joint.rear.torque')?.verdict).toBe('stop');
    const origin = screen.find<HTMLSelectElement>('#joint-torque-origin-rear');
    origin.value = 'borrowed';
    origin.dispatchEvent(new Event('change', { bubbles: true }));
    await screen.fixture.whenStable();
    expect(joint(bench).torque?.origin).toBe('borrowed');
    // A torque that is typed is nobody's sheet before somebody says so and where.
    await screen.type('Read where', 'page 7');
    expect(joint(bench).torque?.where).toBe('page 7');
  });

  it('draws the bolt in its hole, and says when it bottoms', async () => {
    const bench = openBench(jointed());
    const screen = await Screen.of(JointSheet);
    expect(screen.text).toContain('reads full torque with no clamp');
    await screen.type('Bolt, under its head', '30 mm');
    await screen.type('Flange', '10 mm');
    await screen.type('Hole, deep', '25 mm');
    expect(screen.find('hs-bolt-drawing svg').getAttribute('aria-label')).toContain('ends before the ground');
    await screen.type('Hole, deep', '18 mm');
    expect(screen.find('hs-bolt-drawing svg').getAttribute('aria-label')).toContain('it bottoms');
    expect(bench.derived()?.findings.find(({ id }) => id === 'joint.rear.bottom')?.verdict).toBe('stop');
  });

  it('takes rounds as percent, the last always the whole', async () => {
    const bench = openBench(jointed());
    const screen = await Screen.of(JointSheet);
    await screen.type('Rounds, % of it', '30, 70');
    expect(joint(bench).stages).toEqual([30, 70, 100]);
    await screen.type('Rounds, % of it', '50 → 100');
    expect(joint(bench).stages).toEqual([50, 100]);
    await screen.type('Rounds, % of it', '0, 100');
    expect(joint(bench).stages).toEqual([50, 100]);
    expect(screen.said('Rounds, % of it')).toContain('1 to 100');
  });

  it('says that threadlocker on a dry bolt counts as lubricated', async () => {
    openBench(jointed({ finish: 'dry', threadlocker: 'high' }));
    const screen = await Screen.of(JointSheet);
    expect(screen.text).toContain('counts as lubricated');
  });

  it('notes how hard the case is where tabs lock the bolts', async () => {
    const bench = openBench(jointed());
    const screen = await Screen.of(JointSheet);
    const tabs = () => bench.derived()?.findings.find(({ id }) => id === 'joint.rear.tabs')?.verdict;
    expect(tabs()).toBeUndefined();
    screen.find<HTMLInputElement>('input[name="joint-tabs-rear"][value="yes"]').click();
    await screen.fixture.whenStable();
    expect(tabs()).toBe('not-yet');
    await screen.type('Case hardness, HRC', '58');
    expect(joint(bench)).toEqual(jasmine.objectContaining({ tabs: true, caseHardness: 58 }));
    expect(tabs()).toBe('watch');
    await screen.type('Case hardness, HRC', '700');
    expect(screen.said('Case hardness, HRC')).toContain('0 to 70');
    await screen.type('Case hardness, HRC', '');
    expect(joint(bench).caseHardness).toBeNull();
  });
});

describe('drawing up the ring', () => {
  const tap = async (screen: Screen<JointSheet>, bolt: number): Promise<void> => {
    const found = screen
      .all('.bolt')
      .find((one) => (one.getAttribute('aria-label') ?? '').replace(/,.*/, '') === `Bolt ${bolt}`);
    if (!found) throw new Error(`no bolt ${bolt}`);
    found.dispatchEvent(new MouseEvent('click', { bubbles: true }));
    await screen.fixture.whenStable();
  };
  const next = (screen: Screen<JointSheet>): string =>
    screen.find('.now').textContent?.replace(/\s+/g, ' ').trim() ?? '';

  it('goes crosswise in rounds; each bolt is written as it is drawn up', async () => {
    const bench = openBench(jointed({ stages: [50, 100] }));
    const screen = await Screen.of(JointSheet, { tab: 'torque' });
    expect(next(screen)).toContain('Bolt 1 to');
    expect(next(screen).replace(/[\u00a0\u202f]/g, ' ')).toContain('35 N·m');
    for (const bolt of starPattern(6)) await tap(screen, bolt);
    expect(ticked(bench)).toHaveSize(6);
    expect(ticked(bench).at(-1)).toEqual(['1', ['1', '4', '2', '5', '3', '6']]);
    expect((bench.ledger().at(-1) as Reading).state).toEqual(jasmine.objectContaining({ bolts: '6' }));
    expect(next(screen).replace(/[\u00a0\u202f]/g, ' ')).toContain('70 N·m');
    for (const stage of ['2', 'again', 'marks']) {
      for (const bolt of starPattern(6)) await tap(screen, bolt);
      expect(ticked(bench).at(-1)?.[0]).toBe(stage);
    }
    expect(bench.derived()?.findings.find(({ id }) => id === 'joint.rear.drawn')?.verdict).toBe('fits');
  });

  it('says the next bolt aloud where somebody has switched it on, and nothing where nobody has', async () => {
    const said: string[] = [];
    const speaker: Speaker = { say: (text) => void said.push(text), tone: () => undefined };
    openBench(jointed({ stages: [100] }), [], 'metric', [{ provide: SPEAKER, useValue: speaker }]);
    const screen = await Screen.of(JointSheet, { tab: 'torque' });
    await tap(screen, 1);
    expect(said).toEqual([]);
    await screen.click('Say each bolt aloud');
    await tap(screen, 4);
    await tap(screen, 2);
    expect(said).toEqual(['Bolt 2.', 'Bolt 5.']);
  });

  it('a tick that was wrong is taken back; half a round is in the ledger, for whoever takes over', async () => {
    const bench = openBench(jointed());
    const screen = await Screen.of(JointSheet, { tab: 'torque' });
    await tap(screen, 1);
    await tap(screen, 4);
    await tap(screen, 1);
    expect(screen.text).toContain('1 of 6');
    expect(next(screen)).toContain('Bolt 1');
    expect(ticked(bench).at(-1)).toEqual(['1', ['4']]);
    await tap(screen, 4);
    expect(screen.text).toContain('0 of 6');
  });

  it('a left-hand thread is said with the way that tightens', async () => {
    openBench(jointed({}, 'left'));
    const screen = await Screen.of(JointSheet, { tab: 'torque' });
    expect(screen.find('.hand').classList).toContain('left');
    expect(screen.find('.hand').textContent).toContain('anticlockwise');
  });

  it('open compound runs a clock; stopped half way everything is begun again', async () => {
    const bench = openBench(jointed({ stages: [100] }));
    const screen = await Screen.of(JointSheet, { tab: 'torque' });
    await screen.click('Threadlocker is opened');
    expect(screen.text).toContain('Started means finished');
    for (const bolt of starPattern(6)) await tap(screen, bolt);
    expect(bench.derived()?.findings.find(({ id }) => id === 'joint.rear.drawn')?.verdict).toBe('stop');
    await screen.click('Stopped half way: clean it all, begin again');
    expect(bench.ledger().some((one) => one.kind === 'void')).toBeTrue();
    expect(bench.readingOf(jointSubjects.compoundOpen.of({ axle: 'rear' }))?.value).toEqual({
      of: 'choice',
      choice: 'cleaned',
    });
    expect(next(screen)).toContain('Bolt 1');
  });

  it('says what an adapter in line makes of the wrench', async () => {
    openBench(jointed({ stages: [100] }));
    const screen = await Screen.of(JointSheet, { tab: 'torque' });
    await screen.type('Wrench, to its square', '400 mm');
    await screen.type('Adapter, in line', '50 mm');
    // T·L/(L + E) [exact]: 70 · 400/450 = 62.2.
    expect(screen.text).toContain('Set the wrench to 62 N·m');
  });

  it('without bolts said there is nothing to tick', async () => {
    const build = jointed();
    if (build.axles.rear?.identity) build.axles.rear.identity.ringBolts = null;
    openBench(build);
    const screen = await Screen.of(JointSheet, { tab: 'torque' });
    expect(screen.text).toContain('Nobody has said how many bolts');
  });
});

describe('heat to fit', () => {
  it('is drawn with its limit and follows the fit', async () => {
    const bench = openBench(jointed());
    const screen = await Screen.of(JointSheet, { tab: 'heat' });
    await screen.click('Measure the fit');
    await screen.type('Register, across', '177.8 mm');
    await screen.type('Interference, on the diameter', '0.05 mm');
    await screen.type('To slide it on', '0.05 mm');
    await screen.type('Now', '21 °C');
    // (0.05 + 0.05)/(11.7e-6 · 177.8) + 21 = 69 °C [exact].
    expect(screen.figure('joint.rear.heat')).toContain('69 °C');
    expect(screen.find('.drawn svg').getAttribute('aria-label')).toContain('69');
    await screen.choose('Material', 'aluminium');
    expect(screen.figure('joint.rear.heat')).toContain('45 °C');
    await screen.type('Interference, on the diameter', '0.9 mm');
    expect(bench.derived()?.findings.find(({ id }) => id === 'joint.rear.heat')?.verdict).toBe('stop');
  });
});
