import { deriveBuild } from '../assembly/derive';
import type { Build } from '../document/schema';
import type { LedgerEntry, Reading } from '../frame/readings';
import { newSetup } from '../mesh/new-setup';
import { newWork } from '../plan/new-work';
import { stepDone } from '../plan/readings';
import { restOf, settingOf } from './rest';
import { listedParts } from '../plan/listed-parts';
import type { Work } from '../plan/schema';
import { jobOf } from '../testing/bench';
import { testId } from '../testing/builds';
import { boardWork, stands, type BoardWork } from './board';
import { fitDays, type WeekHours } from './week';

function job(change: (work: Work) => unknown = () => undefined): Build {
  return jobOf('overhaul', (axle) => {
    axle.work = newWork('overhaul', 'plain');
    axle.setup = newSetup();
    change(axle.work);
  });
}

const done = (step: string, at: string): Reading => ({
  kind: 'reading',
  id: testId(),
  at,
  who: 'Ada',
  subject: stepDone.of({ axle: 'rear', step }),
  value: { of: 'choice', choice: 'done' },
  state: {},
  instrument: 'By hand',
});

const part = (change: Partial<Work['parts'][number]> = {}): Work['parts'][number] => ({
  ...{ id: 'seals', name: 'Seals', count: 1, state: 'needed', supplier: '', price: null, promised: null, number: '' },
  ...change,
});

describe('what a job waits for', () => {
  it('is what somebody said first: what for, since when, until when', () => {
    const build = job((work) => {
      work.hold = { for: 'machine-shop', why: 'tubes are straightened', since: '2026-11-20', until: '2026-12-02' };
      work.parts = [part()];
    });
    expect(boardWork(build, []).rest).toEqual({
      ...{ for: 'machine-shop', what: 'tubes are straightened', since: '2026-11-20', until: '2026-12-02' },
    });
  });

  it('parts that are not here: since the last step, until the last of them, unless one is promised by nobody', () => {
    const build = job((work) => {
      work.parts = [
        part({ state: 'ordered', promised: '2026-12-03' }),
        part({ id: 'crush', name: 'Sleeve', state: 'ordered', promised: '2026-12-08' }),
        part({ id: 'oil', name: 'Oil', state: 'here' }),
      ];
    });
    const ledger: LedgerEntry[] = [done('brief', '2026-11-27T09:00:00.000Z')];
    expect(boardWork(build, ledger)).toEqual(
      jasmine.objectContaining({
        state: 'waiting',
        rest: { for: 'part', what: 'Seals (ordered), Sleeve (ordered)', since: '2026-11-27', until: '2026-12-08' },
      }),
    );
    const { work } = build.axles.rear ?? {};
    work?.parts.push(part({ id: 'bolts', name: 'Bolts' }));
    expect(boardWork(build, ledger).rest?.until).toBeNull();
  });

  it('a tool that is lent or missing, where the next step needs it; what is lent is said whether it is needed or not', () => {
    const build = job();
    const first = (): BoardWork => boardWork(build, []);
    expect(first().rest).toBeNull();
    const { work } = build.axles.rear ?? {};
    if (!work) throw new Error('no work');
    const tool = { id: 'spreader' as const, with: 'the shop next door', back: '2026-12-04', pattern: '' };
    work.tools = [{ ...tool, state: 'lent' }];
    expect(first().lent).toEqual(['Case spreader with indicator to the shop next door until 2026-12-04']);
    expect(first().rest).toBeNull();
    // Where the spreader comes into play, it waits.
    const state = deriveBuild(build, []).work.rear;
    const next = state?.steps.find(({ step }) => step.tools.includes('spreader'));
    if (!state || !next) throw new Error('no step with a spreader');
    const rest = restOf({ ...state, next });
    expect(rest).toEqual({
      ...{ for: 'tool', what: 'Case spreader with indicator: lent to the shop next door', since: null },
      until: '2026-12-04',
    });
  });

  it('what the next step rests on and sets, from when it was done for as long as its step says; nothing that it does not rest on', () => {
    const build = job();
    const state = deriveBuild(build, []).work.rear;
    const sets = state?.steps.find(({ step }) => step.waitsHours > 0 && step.gate === null);
    // Whatever comes straight after it in the order of work, and one that nothing of it stands before.
    const behind = state?.steps.find(({ step }) => sets && step.after.includes(sets.step.id));
    const before = state?.steps.find(({ step }) => step.after.length === 0 && step.id !== sets?.step.id);
    if (!state || !sets || !behind || !before) throw new Error('nothing sets in this job');
    const from = '2026-11-27T22:45:00.000Z';
    const steps = state.steps.map((one) =>
      one === sets ? { ...one, status: 'done' as const, done: { ...done(one.step.id, from), seq: 1 } as never } : one,
    );
    const setting = settingOf({ ...state, steps, next: behind });
    expect([setting?.for, setting?.what, setting?.since]).toEqual(['curing', sets.step.title, from]);
    expect(Date.parse(setting?.until ?? '') - Date.parse(from)).toBe(sets.step.waitsHours * 3_600_000);
    expect(settingOf({ ...state, steps, next: before })).toBeNull();
    expect(settingOf({ ...state, steps, next: null })).toBeNull();
    // What rests on what rests on it waits too.
    const far = state.steps.find(({ step }) => step.after.includes(behind.step.id));
    if (far) expect(settingOf({ ...state, steps, next: far })).toEqual(setting);
  });

  it('what sets, until it has: then the work goes on by itself; due goes before, and a hold too', () => {
    const setting = {
      ...{ for: 'curing' as const, what: 'Seal and close' },
      ...{ since: '2026-11-27T09:00:00.000Z', until: '2026-11-27T10:00:00.000Z' },
    };
    const work: BoardWork = { ...boardWork(job(), []), state: 'work', setting };
    const at = (now: string, rechecks: { on: string; why: string }[] = [], of: BoardWork = work) =>
      stands(of, rechecks, { today: now.slice(0, 10), now });
    expect(at('2026-11-27T09:59:59.000Z')).toEqual(jasmine.objectContaining({ state: 'waiting', rest: setting }));
    expect(at('2026-11-27T10:00:00.000Z')).toEqual(jasmine.objectContaining({ state: 'work', rest: null }));
    const hold = { for: 'customer' as const, what: 'which ratio?', since: '2026-11-20', until: null };
    expect(at('2026-11-27T09:30:00.000Z', [], { ...work, state: 'waiting', rest: hold }).rest).toEqual(hold);
    const rechecks = [{ on: '2026-11-27', why: 'oil' }];
    expect(at('2026-11-27T09:30:00.000Z', rechecks)).toEqual(jasmine.objectContaining({ state: 'due', due: 'oil' }));
    expect(at('2026-11-26T09:30:00.000Z', rechecks).state).toBe('waiting');
  });
});

describe('the week of a shop', () => {
  const week: WeekHours = [8, 8, 8, 8, 6, 0, 0];
  // 2026-11-30 is a Monday.
  const from = { today: '2026-11-30', days: 7, hours: week };

  it('says of every evening what does not fit: worked out by hand', () => {
    const jobs = [
      { promised: '2026-11-27', leftH: 3 },
      { promised: '2026-11-30', leftH: 4 },
      { promised: '2026-12-01', leftH: 12 },
      { promised: '2026-12-04', leftH: 25 },
      { promised: '2026-12-31', leftH: 99 },
    ];
    const fit = fitDays(jobs, from);
    expect(fit.map(({ day }) => day)).toEqual([
      ...['2026-11-30', '2026-12-01', '2026-12-02', '2026-12-03', '2026-12-04', '2026-12-05', '2026-12-06'],
    ]);
    expect(fit.map(({ hours }) => hours)).toEqual([...week]);
    expect(fit.map(({ promisedH }) => promisedH)).toEqual([4, 12, 0, 0, 25, 0, 0]);
    // Needed until each evening 7, 19, 19, 19, 44; there are 8, 16, 24, 32, 38.
    expect(fit.map(({ overH }) => overH)).toEqual([0, 3, 0, 0, 6, 6, 6]);
  });

  it('says nothing where nobody has said what the shop has, and crosses a leap day and a year', () => {
    expect(
      fitDays([], { ...from, hours: null }).every(({ overH, hours }) => overH === null && hours === null),
    ).toBeTrue();
    const days = fitDays([], { today: '2028-02-28', days: 3, hours: week }).map(({ day }) => day);
    expect(days).toEqual(['2028-02-28', '2028-02-29', '2028-03-01']);
    expect(fitDays([], { today: '2026-12-31', days: 2, hours: week }).at(-1)?.day).toBe('2027-01-01');
  });

  it('refuses what is no day, no count and no week by its name', () => {
    for (const [bad, field] of [
      [{ ...from, today: '2026-13-01' }, 'today'],
      [{ ...from, days: 0 }, 'days'],
      [{ ...from, days: 57 }, 'days'],
      [{ ...from, hours: [8, 8] as never }, 'hours'],
      [{ ...from, hours: [8, 8, 8, 8, 8, 0, Number.NaN] as never }, 'hours'],
    ] as const)
      expect(() => fitDays([], bad)).toThrowError(new RegExp(`^${field} `));
  });
});

describe('the parts lists of a build', () => {
  it('are listed axle by axle, those of practice not', () => {
    const build = job((work) => (work.parts = [part({ number: 'S-1', price: 12.5 })]));
    expect(listedParts(build)).toEqual([
      {
        ...{ axle: 'rear', part: 'seals', name: 'Seals', count: 1, state: 'needed' },
        ...{ supplier: '', number: 'S-1', price: 12.5 },
      },
    ]);
    build.practice = { seed: 1 } as never;
    expect(listedParts(build)).toEqual([]);
  });
});
