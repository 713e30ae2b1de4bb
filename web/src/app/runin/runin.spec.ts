import { entryOf } from '@hot-spline/core';
import { newWork, runInSubjects, workSubjects, type Build, type LedgerEntry, type Reading } from '@hot-spline/model';
import { Screen, openBench } from '../../testing/harness';
import { setUpBuild } from '../../testing/set-up';
import type { Bench } from '../state/bench';
import { CloseSheet } from './close-sheet';

function driven(): Build {
  const build = setUpBuild();
  const axle = build.axles.rear;
  if (!axle?.identity) throw new Error('no axle');
  axle.identity.retention = { value: 'flange', origin: 'measured' };
  axle.identity.sheet.fluid = { value: '75W-90', origin: 'maker', where: 'p. 4' };
  const work = newWork('ratio-swap', 'plain');
  axle.work = {
    ...work,
    runIn: { ...work.runIn, school: 'heat-cycles', cycles: 2, races: 6, distance: entryOf(500, 'km') },
    trays: [{ id: 't1', part: 'Wheel nuts', side: '', facing: '', out: 10, back: 9 }],
  };
  return build;
}
let made = 0;
const entry = (subject: Reading['subject'], value: Reading['value']): LedgerEntry => ({
  kind: 'reading',
  id: `80000000-0000-4000-8000-${String(++made).padStart(12, '0')}`,
  at: '2026-11-20T08:00:00.000Z',
  who: 'Ines',
  subject,
  value,
  state: {},
  instrument: 'By hand',
});
const cycle = (n: number): LedgerEntry =>
  entry(runInSubjects.tripKind.of({ axle: 'rear', trip: String(n) }), { of: 'choice', choice: 'heat cycle' });
const kinds = (bench: Bench): string[] =>
  bench.ledger().flatMap((one) => (one.kind === 'reading' && one.value.of === 'choice' ? [one.value.choice] : []));

describe('close and fill', () => {
  it('asks for gates, trays and steps before the cover', async () => {
    openBench(driven());
    const screen = await Screen.of(CloseSheet);
    expect(screen.text).toContain('Gate A not signed');
    expect(screen.text).toContain('1 × Wheel nuts');
    expect(screen.text).toMatch(/\d+ to do, first Brief and complaint/);
  });

  it('shows what the sheet says beside what was poured, and a dry unit large', async () => {
    const said = (record: string, text: string): LedgerEntry =>
      entry(workSubjects.stepSaid.of({ axle: 'rear', step: 'fill', record }), { of: 'text', text });
    openBench(driven(), [said('grade', '80W'), said('filled', 'dry: labelled “no oil in it”')]);
    const screen = await Screen.of(CloseSheet);
    expect([...screen.find('tbody tr').children].map(({ textContent }) => textContent)).toEqual([
      'Oil',
      '75W-90',
      '80W',
    ]);
    expect(screen.find('.dry strong').textContent).toBe('NO OIL IN IT');
  });

  it('gives the numbers for the controller', async () => {
    const build = driven();
    const bench = openBench(build);
    const screen = await Screen.of(CloseSheet);
    const own = bench.derived()?.gearing.rear;
    if (!own) throw new Error('not derived');
    expect(screen.text).toContain(own.finalRatio.toFixed(3));
    expect(screen.text).toContain(`${Math.round(1e6 / own.circumferenceMm)} per km`);
    expect(screen.all('.shifts > span').length).toBe(build.gearbox.gears.length);
    expect(screen.text).toContain('Not entered yet');
  });
});

describe('run in', () => {
  const runIn = () => Screen.of(CloseSheet, { tab: 'run-in' });

  it('logs a trip as one: kind, distance, temperature, noise', async () => {
    const bench = openBench(driven());
    const screen = await runIn();
    screen.find<HTMLInputElement>('input[value="heat cycle"]').click();
    await screen.type('Distance', '20 km');
    await screen.type('Highest oil temperature', '85 °C');
    screen.find<HTMLInputElement>('input[value="none"]').click();
    await screen.type('Heard, seen', 'quiet');
    await screen.click('Log this heat cycle');
    expect(bench.ledger().map((one) => (one as Reading).subject.what)).toEqual([
      'run-in',
      'run-in-distance',
      'run-in-temperature',
      'run-in-sound',
      'run-in-noise',
    ]);
    expect(screen.text).toContain('1 heat cycles');
    // The next one begins empty, with the next number.
    await screen.click('Log this heat cycle');
    expect((bench.ledger().at(-1) as Reading).subject).toEqual({ what: 'run-in', axle: 'rear', trip: '2' });
  });

  it('too hot is said while it is typed, and stands as a finding', async () => {
    const bench = openBench(driven());
    const screen = await runIn();
    await screen.type('Highest oil temperature', '112 °C');
    expect(screen.text).toContain('At its alarm');
    await screen.click('Log this trip');
    expect(bench.derived()?.findings.find(({ id }) => id === 'runin.rear.hot')?.verdict).toBe('stop');
  });

  it('a sound that is no good is a stop, and the next trip begins without one', async () => {
    const bench = openBench(driven());
    const screen = await runIn();
    screen.find<HTMLInputElement>('input[value="rumble"]').click();
    await screen.fixture.whenStable();
    await screen.click('Log this trip');
    expect(bench.derived()?.findings.find(({ id }) => id === 'runin.rear.noise')?.verdict).toBe('stop');
    expect(screen.text).toContain('rumble');
    expect(screen.find<HTMLInputElement>('input[value="rumble"]').checked).toBeFalse();
  });

  it('what could be signed off is not while it is loud, and is again after a quiet trip', async () => {
    const recheck = entry(runInSubjects.tripKind.of({ axle: 'rear', trip: '3' }), { of: 'choice', choice: 'recheck' });
    openBench(driven(), [cycle(1), cycle(2), recheck]);
    const screen = await runIn();
    const signs = () => screen.all('[id^="sign-run-in"]').length;
    const drive = async (sound: string) => {
      screen.find<HTMLInputElement>(`input[value="${sound}"]`).click();
      await screen.fixture.whenStable();
      await screen.click('Log this trip');
    };
    expect(signs()).toBeGreaterThan(0);
    await drive('knock');
    expect(signs()).toBe(0);
    await drive('none');
    expect(signs()).toBeGreaterThan(0);
  });

  it('falls due, is rechecked, and is signed off with a name', async () => {
    const bench = openBench(driven(), [cycle(1), cycle(2)]);
    const screen = await runIn();
    expect(screen.text).toContain('To be looked at now, by heat cycles');
    expect(screen.all('[id^="sign-run-in"]').length).toBe(0);
    screen.find<HTMLInputElement>('input[value="recheck"]').click();
    await screen.fixture.whenStable();
    await screen.type('Witness marks, leaks, oil', 'marks stand');
    await screen.click('Log this recheck');
    expect(kinds(bench).at(-1)).toBe('recheck');
    expect(screen.text).not.toContain('To be looked at now');
    await screen.type('Run in: sign it off with your name', 'Ines');
    expect(bench.ledger().at(-1)).toEqual(
      jasmine.objectContaining({ kind: 'signature', gate: 'rear run-in', name: 'Ines' }),
    );
    expect(screen.text).toContain('Signed off by Ines');
  });

  it('is looked at again on a day too; the recheck ends that day, and what is left is said', async () => {
    const bench = openBench(driven());
    const screen = await runIn();
    const on = () => bench.build()?.axles.rear?.work?.runIn.on;
    expect(screen.text).toContain('It is signed off after 2 heat cycles: 0 so far.');
    await screen.type('The day', '24.12.2099');
    expect(on()).toBe('2099-12-24');
    const recheck = async () => {
      screen.find<HTMLInputElement>('input[name="trip-kind-now"][value="recheck"]').click();
      await screen.fixture.whenStable();
      await screen.click('Log this recheck');
    };
    await recheck();
    // Its day is still to come.
    expect(on()).toBe('2099-12-24');
    await screen.type('The day', '2020-01-01');
    await recheck();
    expect(on()).toBeNull();
    await screen.type('The day', 'soon');
    expect(screen.said('The day')).toContain('is no day');
  });

  it('says how, and when it is looked at again', async () => {
    const bench = openBench(driven());
    const screen = await runIn();
    await screen.choose('Run in by', 'distance');
    expect(bench.build()?.axles.rear?.work?.runIn.school).toBe('distance');
    expect(screen.text).toContain('without full throttle');
    await screen.type('Races', '15');
    await screen.type('Temperature alarm', '110 °C');
    expect(bench.build()?.axles.rear?.work?.runIn).toEqual(
      jasmine.objectContaining({ races: 15, alarm: entryOf(110, '°C') }),
    );
  });
});
