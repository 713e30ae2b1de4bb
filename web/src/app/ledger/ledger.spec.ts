import { entryOf } from '@hot-spline/core';
import {
  breakaway,
  caseDepth,
  readingBase,
  stackHeight,
  thickness,
  type LedgerEntry,
  type Reading,
  type SubjectOf,
} from '@hot-spline/model';
import { plateBuild } from '../../testing/drift';
import { Screen, openBench } from '../../testing/harness';
import { ledgerCsv } from '@hot-spline/model/csv';
import { MeasureTab } from '../pack/measure-tab';
import { ledgerRow } from './ledger-row';
import { LedgerSheet } from './ledger-sheet';

const reading = (n: number, subject: SubjectOf, mm = 2): Reading => ({
  kind: 'reading',
  id: `40000000-0000-4000-8000-00000000000${n}`,
  at: `2026-02-03T04:0${n}:00.000Z`,
  who: 'Ada',
  subject,
  value: { of: 'number', counts: 'least', entries: [entryOf(mm, 'mm')] },
  state: {},
  instrument: 'Micrometer',
});
const left = thickness.of({ axle: 'rear', side: 'left', memberId: 'ls1' });

describe('the ledger sheet', () => {
  it('lists readings newest first, as typed and in the system of the shop', async () => {
    openBench(plateBuild(), [reading(1, left, 2), reading(2, left, 2.032)], 'inch');
    const screen = await Screen.of(LedgerSheet);
    const rows = screen.all('tbody tr').map((row) => (row.textContent ?? '').replace(/\u00a0/g, ' '));
    expect(rows.length).toBe(2);
    expect(rows[0]).toContain('2.032 mm');
    expect(rows[0]).toContain('0.0800 in'); // 2.032 / 25.4 [exact]
    expect(rows[0]).toContain('Rear, left pack: 1 steel');
  });

  it('voids with a reason and keeps the reading, struck out', async () => {
    const bench = openBench(plateBuild(), [reading(1, left, 2), reading(2, left, 9)]);
    const screen = await Screen.of(LedgerSheet);
    bench.voidEntry('40000000-0000-4000-8000-000000000002', 'read the wrong line');
    await screen.fixture.whenStable();
    expect(screen.all('tbody tr').length).toBe(2);
    expect(screen.find('tr.void').textContent).toContain('void: read the wrong line');
    expect(screen.all('tr.void hs-void').length).toBe(0);
    expect(bench.derived()?.axles.rear?.pack?.left.members[0]?.thicknessMm).toBe(2);
  });

  it('takes readings of a CSV file in when somebody says so: what is there is left, what it can’t read is listed', async () => {
    const bench = openBench(plateBuild(), [reading(1, left, 2)]);
    const screen = await Screen.of(LedgerSheet);
    const other = reading(1, left, 3);
    const mine = 'reading,,,,ring-runout,rear,,0.02 mm,,,,,Dial indicator,,';
    const text = `${ledgerCsv([other, reading(2, left, 2.1)])}${mine}\nreading,,,,ring-runout,rear,,0.02,,,,,Dial indicator,,\n`;
    await screen.upload('CSV file of readings', 'bench.csv', text);
    const panel = () => screen.find('[aria-label="What the file brings"]').textContent ?? '';
    await screen.until(() => screen.text.includes('“bench.csv”'));
    expect(panel()).toContain('2 new');
    expect(panel()).toContain('1 say something else');
    expect(panel()).toContain('1 line can’t be used');
    expect(panel()).toContain('has no unit');
    expect(bench.ledger().length).toBe(1);
    await screen.click('Append 2');
    expect(bench.ledger().length).toBe(3);
    expect(bench.ledger()[1]).toEqual(reading(2, left, 2.1));
    // The same file once more: what has no id of its own has been given the same one.
    await screen.upload('CSV file of readings', 'bench.csv', text);
    await screen.until(() => screen.text.includes('“bench.csv”'));
    expect(panel()).toContain('0 new, 2 here already');
    await screen.click('Leave it');
    await screen.upload('CSV file of readings', 'no.csv', 'a,b\n1,2\n');
    await screen.until(() => screen.text.includes('Nothing taken.'));
    expect(bench.ledger().length).toBe(3);
  });

  it('shows decisions and signatures with who made them', async () => {
    const written = { at: '2026-02-03T04:05:00.000Z', who: 'Ada' };
    const entries: LedgerEntry[] = [
      {
        kind: 'decision',
        id: '40000000-0000-4000-8000-000000000011',
        ...written,
        about: 'Spacer',
        decided: 'solid',
        why: 'less drag',
      },
      {
        kind: 'signature',
        id: '40000000-0000-4000-8000-000000000012',
        ...written,
        gate: 'A',
        name: 'Ada Wren',
        figures: {},
      },
    ];
    openBench(plateBuild(), entries);
    const rows = (await Screen.of(LedgerSheet)).all('tbody tr').map((row) => row.textContent ?? '');
    expect(rows[0]).toContain('Gate A');
    expect(rows[0]).toContain('Ada Wren');
    expect(rows[1]).toContain('less drag');
  });

  it('says what to do while it is empty', async () => {
    openBench();
    expect((await Screen.of(LedgerSheet)).text).toContain('Nothing measured yet');
  });

  it('names every kind of subject, a removed piece too', () => {
    const build = plateBuild();
    const words = (subject: SubjectOf) => ledgerRow(reading(1, subject), build, 'metric').what;
    expect(words(stackHeight.of({ axle: 'rear', side: 'right', memberIds: ['rs1'] }))).toBe(
      'Rear, right pack: whole stack',
    );
    expect(words(caseDepth.of({ axle: 'rear', side: 'right' }))).toBe('Rear, right: case depth');
    expect(words(breakaway.of({ axle: 'front', hold: 'bench' }))).toContain('Front: breakaway, on the bench');
    expect(words({ ...left, memberId: 'gone' })).toContain('no longer in the pack');
  });

  it('of several readings of one piece the least counts, and the ledger keeps them all', async () => {
    const bench = openBench();
    const measure = await Screen.of(MeasureTab);
    const labels = measure.all('label').map((one) => one.textContent?.trim() ?? '');
    const label = labels.find((one) => /^1 .* left$/.test(one)) ?? '';
    await measure.type(label, '2; 1.98; 2.01 mm', 'x');
    expect(measure.said(label)).toContain('least of 3, 0.03 mm apart');
    await measure.type(label, '2; 1.98; 2.01 mm');
    const [kept] = [...bench.readings().values()];
    expect(kept?.value.of === 'number' ? kept.value.entries.map(({ value }) => value) : []).toEqual([2, 1.98, 2.01]);
    expect(kept ? readingBase(kept) : 0).toBe(1.98);
    await measure.type(label, '2; two');
    expect(measure.said(label)).toContain('“two” is not a unit');
    expect(bench.readings().size).toBe(1);
    const ledger = await Screen.of(LedgerSheet);
    expect(ledger.text).toContain('2 mm; 1.98 mm; 2.01 mm');
    expect(ledger.text).toContain('least of them counts');
  });
});
