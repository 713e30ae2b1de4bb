import { Router } from '@angular/router';
import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import { newWork, workSubjects, type Build, type LedgerEntry, type Reading, type Work } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import { FindingsFocus } from '../shared/findings-focus';
import type { Bench } from '../state/bench';
import { PartsSheet } from './parts-sheet';
import { WorkEdit } from './work-edit';
import { WorkSheet } from './work-sheet';

/** A build with a set-up begun and this work on its rear axle. */
function working(change: (work: Work) => void = () => undefined, job: Work['job'] = 'ratio-swap'): Build {
  const build = setUpBuild();
  const axle = build.axles.rear;
  if (!axle?.identity) throw new Error('no axle');
  axle.identity.retention = { value: 'c-clips', origin: 'measured' };
  axle.identity.ringBolts = { value: { thread: 'M10x1.25', count: 10, hand: 'left' }, origin: 'measured' };
  axle.work = newWork(job, 'plate');
  change(axle.work);
  return build;
}
const work = (bench: Bench): Work => {
  const found = bench.build()?.axles.rear?.work;
  if (!found) throw new Error('no work');
  return found;
};
const last = (bench: Bench): Reading => bench.ledger().at(-1) as LedgerEntry as Reading;
const readings = (bench: Bench, what: string): Reading[] =>
  bench.ledger().filter((one): one is Reading => one.kind === 'reading' && one.subject.what === what);
const stepSheet = (step: string) => Screen.of(WorkSheet, { tab: 'step', step });

describe('the work sheet', () => {
  it('says what can be promised: hands on, rounds, calendar, each with where it is from', async () => {
    openBench(working());
    const screen = await Screen.of(WorkSheet);
    const promise = screen.find('[aria-label="What can be promised"]').textContent?.replace(/\s+/g, ' ') ?? '';
    expect(promise).toMatch(/about 2.4 times ?as the advisor takes on made-up axles/);
    expect(promise).toContain('fewer than 3 jobs of this kind were handed over here');
    expect(promise).toMatch(/0 of \d+ steps by this shop’s own times/);
  });

  it('narrows the findings to the step that is open, and gives them back when it is left', async () => {
    const bench = openBench(working());
    const focus = TestBed.inject(FindingsFocus);
    const screen = await stepSheet('backlash');
    const all = bench.derived()?.findings ?? [];
    const few = all.filter((one) => focus.now()?.concerns(one));
    expect(few.length).toBeLessThan(all.length);
    expect(few.every(({ place }) => place.sheet === 'mesh' || place.sheet === 'work')).toBeTrue();
    screen.fixture.destroy();
    expect(focus.now()).toBeNull();
  });

  it('begins with what the job is: only jobs that the unit can be', async () => {
    const build = working();
    if (build.axles.rear) build.axles.rear.work = null;
    const bench = openBench(build);
    const screen = await Screen.of(WorkSheet);
    const jobs = screen.all('.jobs strong').map(({ textContent }) => textContent);
    expect(jobs).toEqual(['Gears', 'Unit', 'Gears and unit', 'Overhaul', 'Input float only', 'Loose unit']);
    await screen.click(screen.all('.jobs button')[0] as HTMLElement);
    expect(work(bench).job).toBe('ratio-swap');
    // The parts list is made with it: two collapsible spacers, as many ring bolts as the axle has.
    expect(work(bench).parts.find(({ id }) => id === 'collapsible-spacers')?.count).toBe(2);
    expect(work(bench).parts.find(({ id }) => id === 'ring-bolts')?.count).toBe(10);
  });

  it('shows the next step large, phases that are done folded, what is left in hours', async () => {
    const bench = openBench(working());
    const edit = TestBed.inject(WorkEdit);
    for (const id of ['brief', 'identify', 'ratio-closed', 'count-teeth', 'choose', 'arrival', 'ready']) {
      const step = edit.state()?.steps.find((one) => one.step.id === id);
      if (step) edit.finish(step, 'done', 10);
    }
    const screen = await Screen.of(WorkSheet);
    expect(screen.find('.next .what strong').textContent).toContain('Secure and raise');
    const phases = screen.all('details') as HTMLDetailsElement[];
    expect(phases.map(({ open }) => open).slice(0, 2)).toEqual([false, true]);
    expect(screen.text).toContain('7 of');
    expect(screen.text).toContain('70 min taken');
    expect(readings(bench, 'step-time').length).toBe(7);
  });

  it('says of a step what has to be known: only now, behind a gate, the left-hand thread', async () => {
    openBench(working());
    const screen = await Screen.of(WorkSheet);
    expect(screen.find('#step-pin-pass-rear').textContent).toContain('only now');
    expect(screen.find('#step-pinion-bearing-rear').textContent).toContain('behind Gate A');
    expect(screen.find('#step-ring-bolts-rear').textContent).toContain('LEFT-hand thread');
    expect(screen.find('#step-gate-a-rear .mark').textContent).toBe('A');
  });

  it('keeps the calendar apart from the hours: days since the first step that was done', async () => {
    const bench = openBench(working());
    const screen = await Screen.of(WorkSheet);
    expect(screen.text).not.toContain('by the calendar');
    const edit = TestBed.inject(WorkEdit);
    const step = edit.state()?.steps[0];
    if (!step) throw new Error('no step');
    edit.finish(step, 'done', 10);
    await screen.fixture.whenStable();
    expect(bench.derived()?.work.rear?.from).not.toBeNull();
    expect(screen.text).toContain('1 day by the calendar');
  });

  it('is put on hold with a reason and goes on again', async () => {
    const bench = openBench(working());
    const screen = await Screen.of(WorkSheet);
    await screen.choose('Waits for', 'tool');
    await screen.type('Why', 'the spreader yielded');
    expect(work(bench).hold).toEqual(jasmine.objectContaining({ for: 'tool', why: 'the spreader yielded' }));
    expect(screen.text).toContain('On hold for tool');
    await screen.click('Go on');
    expect(work(bench).hold).toBeNull();
  });

  it('takes steps of the shop’s own, before the next one, and lets them go again', async () => {
    const bench = openBench(working());
    const screen = await Screen.of(WorkSheet);
    await screen.type('Another step, before the next one', 'Photograph the underside');
    expect(work(bench).own).toEqual([
      { id: 'own-1', follows: null, title: 'Photograph the underside', does: '', minutes: 10 },
    ]);
    expect(screen.find('#step-own-1-rear').textContent).toContain('Photograph the underside');
    await screen.type('Minutes', '25');
    await screen.type('What to do', 'all four corners');
    expect(work(bench).own[0]).toEqual(jasmine.objectContaining({ minutes: 25, does: 'all four corners' }));
    await screen.click('Remove Photograph the underside');
    expect(work(bench).own).toEqual([]);
  });

  it('follows a change of the job, keeps what somebody said of a part, and refuses what can’t be', async () => {
    const bench = openBench(working((one) => (one.parts = [])));
    const edit = TestBed.inject(WorkEdit);
    edit.change((one) => (one.job = 'full-build'));
    const ordered = work(bench).parts.map((one) => (one.id === 'oil' ? { ...one, state: 'ordered' as const } : one));
    edit.change((one) => (one.parts = ordered));
    edit.change((one) => (one.job = 'overhaul'));
    expect(work(bench).parts.find(({ id }) => id === 'oil')?.state).toBe('ordered');
    expect(work(bench).parts.some(({ id }) => id === 'gear-set')).toBeFalse();
    const screen = await Screen.of(WorkSheet);
    expect(screen.all('#job-rear option').map((one) => (one as HTMLOptionElement).value)).not.toContain('locker');
  });

  it('whose it is, by when and who works on it', async () => {
    const bench = openBench(working());
    const screen = await Screen.of(WorkSheet);
    await screen.type('Promised for', '24.12.2026');
    expect(bench.build()?.promised).toBe('2026-12-24');
    await screen.type('Promised for', '31.2.2026');
    expect(screen.said('Promised for')).toContain('is no day');
    expect(bench.build()?.promised).toBe('2026-12-24');
    await screen.type('Who works on it', 'Ines');
    expect(bench.build()?.worker).toBe('Ines');
  });
});

describe('one step', () => {
  it('that takes sealant runs its clock: on, closed on it, and the step that fills waits for its cure', async () => {
    const bench = openBench(working());
    const cover = await stepSheet('cover');
    await cover.click('Sealant is on the face');
    expect(cover.text).toContain('0 min since the sealant went on');
    expect(bench.derived()?.findings.some(({ id }) => id === 'plan.rear.sealant')).toBeTrue();
    await cover.click('Closed on it');
    expect(readings(bench, 'sealant').map(({ value }) => value)).toEqual([
      { of: 'choice', choice: 'on' },
      { of: 'choice', choice: 'closed' },
    ]);
    expect(bench.derived()?.findings.some(({ id }) => id === 'plan.rear.sealant')).toBeFalse();
    const fill = await stepSheet('fill');
    expect(fill.find('hs-open-clock').textContent).toContain('Oil and driving wait');
    expect((await stepSheet('brief')).all('hs-open-clock').length).toBe(0);
  });

  it('that takes compounds runs a clock of its own, against the open time of its sheet', async () => {
    const build = working();
    const sheet = build.axles.rear?.identity?.sheet;
    if (!sheet) throw new Error('no sheet');
    sheet.compoundOpen = { value: entryOf(5, 'min'), origin: 'maker', where: 'its bottle' };
    const bench = openBench(build);
    const seal = await stepSheet('seal-flange');
    await seal.click('Compound is on');
    expect(seal.find('hs-open-clock').textContent).toContain('Open for 5 min by its sheet');
    const found = () => bench.derived()?.findings.some(({ id }) => id === 'plan.rear.compound.seal-flange');
    expect(found()).toBeTrue();
    // The cover's sealant is another matter.
    expect(bench.derived()?.findings.some(({ id }) => id === 'plan.rear.sealant')).toBeFalse();
    await seal.click('Finished in time');
    expect(found()).toBeFalse();
    expect(seal.find('hs-open-clock').textContent).toContain('since it was finished');
    // The bolts of the ring have theirs where they are ticked.
    expect((await stepSheet('ring-bolts')).all('hs-open-clock').length).toBe(0);
  });

  it('is done when what it asks for is written down, and goes on to the next', async () => {
    const build = working();
    const { ring, pinion } = build.axles.rear?.finalDrive ?? { ring: 0, pinion: 0 };
    const bench = openBench(build);
    const screen = await stepSheet('count-teeth');
    const done = () => screen.all('.foot .main')[0] as HTMLButtonElement;
    expect(done().disabled).toBeTrue();
    expect(screen.text).toContain('Before it is done: Ring teeth counted');
    await screen.type('Ring teeth counted, new set', String(ring - 1));
    await screen.type('Pinion teeth counted, new set', String(pinion));
    const match = screen.find<HTMLInputElement>('input[name="record-count-teeth-match-rear"][value="yes"]');
    match.click();
    await screen.fixture.whenStable();
    expect(last(bench).value).toEqual({ of: 'text', text: 'yes' });
    // Another set than the build's: a stop is gone past with a name and a reason alone.
    expect(done().disabled).toBeTrue();
    expect(screen.text).toContain(`${ring - 1}; ${ring} in the final drive of the build`);
    await screen.type('Ring teeth counted, new set', String(ring));
    expect(done().disabled).toBeFalse();
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await screen.click(done());
    expect(readings(bench, 'step').at(-1)?.value).toEqual({ of: 'choice', choice: 'done' });
    expect(navigate).toHaveBeenCalledWith([], { queryParams: { tab: 'step', step: 'ready' } });
    expect(screen.text).toContain('Done');
  });

  it('says what stops: a record outside of its limits, with what to do', async () => {
    openBench(working());
    const on = await stepSheet('ring-on');
    await on.type('Ring temperature', '230 °C');
    expect(on.text).toContain('Asked for: 190 °C at most');
  });

  it('what can’t be taken back waits; a reason and a name let it be done all the same', async () => {
    const bench = openBench(working());
    const screen = await stepSheet('pinion-bearing');
    expect(screen.text).toContain('Gate A is not signed');
    expect((screen.all('.foot .main')[0] as HTMLButtonElement).disabled).toBeTrue();
    await screen.type('Why it is done all the same', 'the bearing is pressed on by the maker');
    await screen.type('Your name', 'Ines');
    expect(bench.ledger().at(-1)).toEqual(
      jasmine.objectContaining({
        kind: 'signature',
        gate: 'rear override pinion-bearing',
        name: 'Ines',
        note: 'the bearing is pressed on by the maker',
      }),
    );
    expect(screen.text).not.toContain('Gate A is not signed');
  });

  it('the hand of the thread is huge, the caution is there, and what closes it is named', async () => {
    openBench(working());
    const screen = await stepSheet('ring-bolts');
    expect(screen.find('.hand').textContent).toContain('LEFT-hand thread');
    expect(screen.find('.hand').classList).toContain('left');
    const pin = await stepSheet('pin-pass');
    expect(pin.text).toContain('only now');
    expect(pin.text).toContain('Ring on');
    expect(screen.text).toContain('licensed practice');
  });

  it('what is learned, left out and moved carries its reason', async () => {
    const bench = openBench(working());
    const screen = await stepSheet('carrier-out');
    await screen.click('More');
    await screen.type('Learned here, for the next axle', 'bag the shims first');
    expect(last(bench).subject).toEqual({ what: 'lesson', axle: 'rear', step: 'carrier-out' });
    await screen.type('because', 'as the lift is free');
    expect(work(bench).moves).toEqual([{ id: 'm1', step: 'carrier-out', follows: null, why: 'as the lift is free' }]);
    await screen.type('Left out, because', 'it lies on the bench');
    expect(work(bench).skipped).toEqual([{ id: 'carrier-out', why: 'it lies on the bench' }]);
    await screen.click('Open it again');
    expect(work(bench).skipped).toEqual([]);
  });

  it('parts that come off go into trays when it is done, by their count', async () => {
    const bench = openBench(working());
    const edit = TestBed.inject(WorkEdit);
    const step = edit.state()?.steps.find((one) => one.step.id === 'shafts-out');
    if (step) edit.finish(step, 'done', null);
    expect(work(bench).trays.map(({ part, out, back }) => [part, out, back])).toEqual([
      ['Shafts', 2, 0],
      ['C-clips', 2, 0],
      ['Cross pin', 1, 0],
      ['Cross-pin bolt', 1, 0],
    ]);
    if (step) edit.finish(step, 'done', null);
    expect(work(bench).trays.length).toBe(4);
  });

  it('a step that failed says what to do and stays open', async () => {
    const bench = openBench(working());
    const screen = await stepSheet('brief');
    await screen.click('Failed');
    expect(screen.text).toContain('Failed: Drive it.');
    expect(bench.derived()?.work.rear?.next?.step.id).toBe('brief');
    await screen.click('Open it again');
    expect(last(bench).value).toEqual({ of: 'choice', choice: 'open' });
  });

  it('a number that is hard to believe is asked about, not written', async () => {
    const bench = openBench(working());
    const screen = await stepSheet('carrier-out');
    const before = bench.ledger().length;
    await screen.type('Case spread', '300');
    expect(bench.ledger().length).toBe(before);
    await screen.type('Case spread', 'wide');
    expect(bench.ledger().length).toBe(before);
    expect(screen.said('Case spread')).toContain('Allowed');
  });
});

describe('parts and tools', () => {
  const listed = (): Build =>
    working((one) => {
      one.parts = [
        {
          id: 'seals',
          name: 'Seals',
          count: 2,
          state: 'needed',
          supplier: '',
          price: null,
          promised: null,
          number: '',
        },
        { id: 'oil', name: 'Oil', count: 1, state: 'here', supplier: '', price: 20, promised: null, number: '' },
      ];
      one.trays = [{ id: 't1', part: 'C-clips', side: '', facing: '', out: 2, back: 0 }];
    });
  const pick = async (screen: Screen<PartsSheet>, name: string, value: string): Promise<void> => {
    screen.find<HTMLInputElement>(`input[name="${name}"][value="${value}"]`).click();
    await screen.fixture.whenStable();
  };

  it('are needed, ordered with supplier and day, here; the sum says what is missing', async () => {
    const bench = openBench(listed());
    const screen = await Screen.of(PartsSheet);
    expect(screen.text).toContain('1 of 2');
    await pick(screen, 'part-state-seals', 'ordered');
    await screen.type('Supplier', 'bearing house');
    await screen.type('Promised for', '2026-12-02');
    expect(work(bench).parts[0]).toEqual(
      jasmine.objectContaining({ state: 'ordered', supplier: 'bearing house', promised: '2026-12-02' }),
    );
    await screen.type('Another part, while it is open', 'Vent');
    expect(work(bench).parts.at(-1)).toEqual(jasmine.objectContaining({ id: 'own-3', name: 'Vent', state: 'needed' }));
    await screen.click('Remove Vent');
    expect(work(bench).parts.length).toBe(2);
  });

  it('tools: what stands in is named, what is missing is said before the start', async () => {
    const bench = openBench(listed());
    const screen = await Screen.of(PartsSheet, { tab: 'tools' });
    await pick(screen, 'tool-state-depth-gauge', 'stand-in');
    expect(work(bench).tools).toEqual([
      {
        id: 'depth-gauge',
        state: 'stand-in',
        with: 'bore diameter, cap depth and a depth calliper',
        back: null,
        pattern: '',
      },
    ]);
    await pick(screen, 'tool-state-press', 'missing');
    expect(screen.text).toContain('May stand in: driver on the inner race');
    expect(
      bench
        .derived()
        ?.findings.find(({ id }) => id === 'plan.rear.tools')
        ?.say('metric').detail,
    ).toContain('Press');
    // What this axle asks of them.
    expect(screen.text).toContain('Nobody has said how far the case may be spread');
  });

  it('the pattern of the adjuster wrench is asked where it is here, against the carrier’s', async () => {
    const build = listed();
    const axle = build.axles.rear;
    if (!axle?.identity) throw new Error('no axle');
    axle.identity.construction = { value: 'integral-adjusters', origin: 'measured' };
    axle.identity.sheet.adjusterWrench = { value: 'two pins, 5 mm', origin: 'maker', where: 'p. 3' };
    const bench = openBench(build);
    const screen = await Screen.of(PartsSheet, { tab: 'tools' });
    expect(screen.all('#tool-pattern-adjuster-wrench-rear').length).toBe(0);
    await pick(screen, 'tool-state-adjuster-wrench', 'here');
    await screen.type('Its pattern', 'four pins');
    expect(work(bench).tools.map(({ id, pattern }) => [id, pattern])).toEqual([['adjuster-wrench', 'four pins']]);
    const finding = () => bench.derived()?.findings.find(({ id }) => id === 'plan.rear.pattern');
    expect(finding()?.verdict).toBe('stop');
    await screen.type('Its pattern', '2 pins 5mm');
    expect(finding()).toBeUndefined();
    await pick(screen, 'tool-state-adjuster-wrench', 'missing');
    expect(work(bench).tools[0]?.pattern).toBe('');
  });

  it('trays: counted back one by one or all, never more than came off', async () => {
    const bench = openBench(listed());
    const screen = await Screen.of(PartsSheet, { tab: 'trays' });
    await screen.click('One C-clips more is back');
    expect(work(bench).trays[0]?.back).toBe(1);
    await screen.click('All');
    expect(work(bench).trays[0]?.back).toBe(2);
    expect(
      (screen.all('button').find((one) => one.textContent?.trim() === '+') as HTMLButtonElement).disabled,
    ).toBeTrue();
    await pick(screen, 'tray-side-t1', 'left');
    await screen.type('Something else that came off', 'Brake bolts, 40 mm');
    expect(work(bench).trays.map(({ part, side }) => [part, side])).toEqual([
      ['C-clips', 'left'],
      ['Brake bolts, 40 mm', ''],
    ]);
  });

  it('say what to do where there is no job yet', async () => {
    const build = listed();
    if (build.axles.rear) build.axles.rear.work = null;
    openBench(build);
    const screen = await Screen.of(PartsSheet);
    expect(screen.text).toContain('No job yet');
  });
});

// What a record is kept as: its subject says quantity and scale.
describe('records of steps', () => {
  it('are kept under the subject of their quantity', async () => {
    const bench = openBench(working());
    const screen = await stepSheet('ring-off');
    await screen.type('Loosening torque', '160 N·m');
    expect(last(bench).subject).toEqual(
      workSubjects.STEP_READINGS['torque/bolt'].of({ axle: 'rear', step: 'ring-off', record: 'loosen' }),
    );
    expect(last(bench).value).toEqual({ of: 'number', counts: 'one', entries: [entryOf(160, 'N·m')] });
  });
});
