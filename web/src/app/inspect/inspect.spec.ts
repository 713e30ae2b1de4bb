import { newWork, type Build, type Reading } from '@hot-spline/model';
import { Screen, openBench, shopOf } from '../../testing/harness';
import { ShopSettings } from '../state/shop-settings';
import { setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { InspectSheet } from './inspect-sheet';

function apart(): Build {
  const build = setUpBuild();
  const axle = build.axles.rear;
  if (!axle?.identity) throw new Error('no axle');
  axle.identity.retention = { value: 'c-clips', origin: 'measured' };
  axle.work = newWork('overhaul', 'plain');
  return build;
}
const row = (screen: Screen<InspectSheet>, part: string): HTMLElement => {
  const found = screen.all('.rows li').find((one) => one.querySelector('strong')?.textContent === part);
  if (!found) throw new Error(`no row ${part}`);
  return found;
};
const press = async (screen: Screen<InspectSheet>, part: string, text: string): Promise<void> => {
  const found = [...row(screen, part).querySelectorAll<HTMLElement>('button')].find(
    (one) => one.textContent?.trim() === text,
  );
  if (!found) throw new Error(`no ${text} on ${part}`);
  await screen.click(found);
};
const decide = async (screen: Screen<InspectSheet>, part: string, value: string): Promise<void> => {
  row(screen, part).querySelector<HTMLInputElement>(`input[value="${value}"]`)?.click();
  await screen.fixture.whenStable();
};
const values = (bench: Bench, what: string): unknown[] =>
  bench
    .ledger()
    .flatMap((one) => (one.kind === 'reading' && one.subject.what === what ? [(one as Reading).value] : []));

describe('inspecting every part', () => {
  it('lists what this axle has, and counts what is decided', async () => {
    const bench = openBench(apart());
    const screen = await Screen.of(InspectSheet);
    expect(screen.text).toContain('0 of 15 decided');
    await press(screen, 'Rollers and cages', 'good');
    // What is good runs on at once; that it does is written too.
    expect(values(bench, 'part-decided')).toEqual([{ of: 'choice', choice: 'run-on' }]);
    expect(screen.text).toContain('1 of 15 decided');
  });

  it('says what a finding means, and what it is when it runs on all the same', async () => {
    const bench = openBench(apart());
    const screen = await Screen.of(InspectSheet);
    await press(screen, 'Bearing races', 'pitted');
    expect(row(screen, 'Bearing races').textContent).toContain('All bearings, not this one alone.');
    expect(values(bench, 'part-decided')).toEqual([]);
    await decide(screen, 'Bearing races', 'run-on');
    expect(bench.derived()?.findings.find(({ id }) => id === 'inspect.rear.races')?.verdict).toBe('stop');
    await decide(screen, 'Bearing races', 'replace');
    expect(bench.derived()?.findings.some(({ id }) => id === 'inspect.rear.races')).toBeFalse();
  });

  it('takes a finding in words, and a donor part', async () => {
    const bench = openBench(apart());
    const screen = await Screen.of(InspectSheet);
    const field = row(screen, 'Case and seats').querySelector<HTMLInputElement>('input[type="text"]');
    if (!field) throw new Error('no field');
    field.value = 'weld beside the port';
    field.dispatchEvent(new Event('input', { bubbles: true }));
    await screen.fixture.whenStable();
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    await screen.fixture.whenStable();
    expect(values(bench, 'part-found')).toEqual([{ of: 'text', text: 'weld beside the port' }]);
    await decide(screen, 'Case and seats', 'donor');
    expect(values(bench, 'part-decided')).toEqual([{ of: 'choice', choice: 'donor' }]);
    // The donor’s is looked at like the one that came out.
    const finding = () => bench.derived()?.findings.find(({ id }) => id === 'inspect.rear.case.donor');
    expect(finding()?.verdict).toBe('not-yet');
    const labels = () =>
      [...row(screen, 'Case and seats').querySelectorAll('option')].map(({ textContent }) => textContent);
    expect(labels()[0]).toBe('nobody has looked');
    const bad = labels().find((one) => one !== 'nobody has looked' && one !== 'good') ?? '';
    await screen.choose('Found on the donor’s', bad);
    expect(values(bench, 'part-donor')).toEqual([{ of: 'text', text: bad }]);
    expect(['watch', 'stop']).toContain(finding()?.verdict ?? '');
    expect(labels()).not.toContain('nobody has looked');
    await screen.choose('Found on the donor’s', 'good');
    expect(finding()).toBeUndefined();
  });

  it('over the whole job: what a complete unit costs and when it is here decides', async () => {
    const build = apart();
    const work = build.axles.rear?.work;
    if (work)
      work.parts = [
        {
          id: 'kit',
          name: 'Kit',
          count: 1,
          state: 'ordered',
          supplier: '',
          price: 300,
          promised: '2099-01-01',
          number: '',
        },
      ];
    const bench = openBench(build);
    const screen = await Screen.of(InspectSheet);
    expect(screen.text).toContain('Not clear yet');
    await screen.type('A complete unit costs', '250');
    await screen.type('Here in days', '3');
    expect(bench.build()?.axles.rear?.work?.complete).toEqual({ price: 250, days: 3, hours: null });
    expect(screen.text).toContain('Take a complete unit');
    expect(screen.text).toContain('A complete unit costs less.');
    expect(screen.text).toContain('Hours are not counted: nobody has said what one costs.');
  });

  it('counts hours with hands on it where the shop has said what one costs', async () => {
    const build = apart();
    const work = build.axles.rear?.work;
    if (work) work.complete = { price: 250, days: 0, hours: null };
    const bench = openBench(build, [], 'metric', [{ provide: ShopSettings, useValue: shopOf(null, 50) }]);
    const screen = await Screen.of(InspectSheet);
    await screen.type('Hours to put it in', '2');
    expect(bench.build()?.axles.rear?.work?.complete.hours).toBe(2);
    const left = (bench.derived()?.work.rear?.minutes.left ?? 0) / 60;
    expect(left).toBeGreaterThan(5);
    expect(screen.text).toContain(`Hours: €${left * 50} for what is left of the plan, €100 for a complete unit.`);
    expect(screen.text).toContain('A complete unit costs less.');
  });

  it('asks for the job first where there is none', async () => {
    const build = apart();
    if (build.axles.rear) build.axles.rear.work = null;
    openBench(build);
    const screen = await Screen.of(InspectSheet);
    expect(screen.text).toContain('No job yet');
  });
});

describe('will it pass', () => {
  it('shows the checks of the job, and whatever was cut with who and when', async () => {
    const build = apart();
    if (build.axles.rear) build.axles.rear.work = newWork('ratio-swap', 'plain');
    const bench = openBench(build);
    const screen = await Screen.of(InspectSheet, { tab: 'pass' });
    expect(screen.text).toContain('Cross pin past the ring not looked at yet');
    await screen.type('What was cut, and where', 'two teeth of the ring');
    await screen.type('How much', '0.8 mm');
    const [cut] = bench.build()?.axles.rear?.work?.cuts ?? [];
    expect(cut).toEqual(jasmine.objectContaining({ id: 'c1', where: 'two teeth of the ring' }));
    expect(cut?.amount?.value).toBe(0.8);
    expect(bench.derived()?.findings.find(({ id }) => id === 'plan.rear.cuts')?.verdict).toBe('stop');
    await screen.click('Remove two teeth of the ring');
    expect(bench.build()?.axles.rear?.work?.cuts).toEqual([]);
    expect(screen.text).toContain('Nothing was cut.');
  });
});
