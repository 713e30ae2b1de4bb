import { entryOf } from '@hot-spline/core';
import { csvRows, csvText } from '../base/csv';
import { compareLibrary } from '../library/compare';
import { DRAWERS_CSV_HEADER, drawersCsv, isDrawersCsv } from '../library/drawers-csv';
import { libraryCsv, readLibraryCsv } from '../library/library-csv';
import { newShimBox } from '../library/new-spec';
import type { HereSpec, ShimBox } from '../library/schema';
import type { LedgerEntry, Void } from '../frame/readings';
import { compareLedger, ledgerCsv, readLedgerCsv } from './ledger-csv';
import { readLibraryFile } from './library-file';

const ID = (n: number): string => `50000000-0000-4000-8000-00000000000${n}`;
const inch = { typed: '12 thou', value: 12, unit: 'thou' as const };
const drawer = (): ShimBox => ({
  ...newShimBox('Head shims', 'pinion-head', [
    { thickness: entryOf(0.5, 'mm'), count: 3, origin: 'measured' },
    { thickness: inch, count: 1, origin: 'maker' },
  ]),
  bore: entryOf(41.4, 'mm'),
});
const here = (): HereSpec[] => [{ id: ID(1), version: 4, spec: drawer() }];
/** As a spreadsheet of a country with decimal commas saves it. */
const german = (text: string): string =>
  csvRows(text)
    .map((row) => row.map((cell) => (/^\d+\.\d+$/.test(cell) ? cell.replace('.', ',') : cell)).join(';'))
    .join('\r\n');

describe('a table that comes back', () => {
  it('begins with the mark by which a spreadsheet knows UTF-8', () => {
    // U+FEFF is EF BB BF in UTF-8 [RFC 3629]
    expect([...new TextEncoder().encode(csvText(['ä'], [])).slice(0, 3)]).toEqual([0xef, 0xbb, 0xbf]);
    expect(csvRows(csvText(['ä', 'µ'], [['½', '°']]))).toEqual([['ä', 'µ'], ['½', '°'], ['']]);
  });

  it('of drawers has bare numbers, units in its heads and ids; unchanged it changes nothing, whoever saved it', () => {
    const text = drawersCsv(here());
    const [head, ...rows] = csvRows(text, ',');
    expect(head).toEqual([...DRAWERS_CSV_HEADER]);
    // 12 thou is 0.3048 mm [exact]
    expect(rows.slice(0, 2).map((row) => row.slice(5))).toEqual([
      ['0.5', '3', 'measured'],
      ['0.3048', '1', 'maker'],
    ]);
    for (const saved of [text, german(text), text.replaceAll(',', '\t')]) {
      expect(isDrawersCsv(saved)).toBeTrue();
      const { specs, bad } = readLibraryFile(saved, here());
      expect(bad).toEqual([]);
      expect(compareLibrary(specs, here())).toEqual([
        { fate: 'same', id: ID(1), version: 4, spec: drawer(), changes: [] },
      ]);
    }
  });

  it('of drawers that were counted through says what changes; bad lines are listed, the rest taken', () => {
    const counted = drawersCsv(here())
      .replace('0.5,3,', '0.5,2,')
      .replace(
        /\n$/,
        `\n${ID(1)},Head shims,pinion-head,41.4,,0.55,4,measured\n${ID(1)},Head shims,pinion-head,41.4,,-1,4,x\n,Fresh,pack,,,0.8,1,guess\n`,
      );
    const { specs, bad } = readLibraryFile(counted, here());
    expect(bad.map(({ line }) => line)).toEqual([5]);
    const [changed, fresh] = compareLibrary(specs, here());
    expect([changed?.fate, changed?.id, changed?.version]).toEqual(['torn', ID(1), 4]);
    // What one line lacks would be taken out of the drawer: it stays until all of its lines can be used.
    const whole = readLibraryFile(counted.replace(/^.*,-1,4,x\n/m, ''), here());
    const [now] = compareLibrary(whole.specs, here());
    expect(now?.changes).toEqual([
      'comes: piece 0.5 mm | 2, measured',
      'comes: piece 0.55 mm | 4, measured',
      'goes: piece 0.5 mm | 3, measured',
    ]);
    expect(now?.spec.kind === 'shims' ? now.spec.pieces[1]?.thickness : null).toEqual(inch);
    expect([fresh?.fate, fresh?.id, fresh?.spec.name]).toEqual(['new', null, 'Fresh']);
    // Two lines that say two things of one drawer say neither.
    const twice = readLibraryFile(
      drawersCsv(here()).replace('Head shims,pinion-head,41.4,,0.3048', 'Head shims,pack,41.4,,0.3048'),
      here(),
    );
    expect([twice.bad.map(({ line }) => line), compareLibrary(twice.specs, here())[0]?.fate]).toEqual([[3], 'torn']);
    for (const text of ['drawer,thickness mm\n', 'drawer,thickness mm,seat\nx,0.5,boot\n'])
      expect(() => readLibraryFile(text)).toThrowError(/no usable drawer/);
  });

  it('of the library knows a spec by its id, also by another name; without one by kind and name', () => {
    const text = libraryCsv([{ id: ID(1), spec: { ...drawer(), name: 'Pinion shims' } }]);
    const [renamed] = compareLibrary(readLibraryCsv(text).specs, here());
    expect([renamed?.fate, renamed?.id, renamed?.changes]).toEqual(['changed', ID(1), ['is called Pinion shims']]);
    const plain = [{ id: null, spec: drawer() }];
    expect(compareLibrary(plain, here())[0]?.fate).toBe('same');
    // Of another shop: its id comes with it, so that what is fitted out of it is known.
    expect(compareLibrary([{ id: ID(9), spec: drawer() }], here())[0]).toEqual(
      jasmine.objectContaining({ fate: 'new', id: ID(9) }),
    );
    // An id that stands for something of another kind here is not taken over.
    const gearbox = readLibraryCsv(
      `kind,name,field,value,origin,id\ngearbox,G,box,dog,maker,${ID(1)}\ngearbox,G,gear,1 | 3,maker,${ID(1)}\n`,
    ).specs;
    expect(compareLibrary(gearbox, here())[0]).toEqual(jasmine.objectContaining({ fate: 'new', id: null }));
    const { bad } = readLibraryCsv(
      `kind,name,field,value,origin,id\nshims,A,piece,0.5 mm | 1,maker,${ID(1)}\nshims,B,piece,0.6 mm | 1,maker,${ID(1)}\nshims,C,piece,0.6 mm | 1,maker,7\n`,
    );
    expect(bad.map(({ line }) => line)).toEqual([3, 4]);
  });

  const writer = { idOf: (line: string) => ID(line.length % 10), at: '2026-11-30T08:00:00.000Z', who: 'Ines' };
  const reading = (): LedgerEntry => ({
    kind: 'reading',
    id: ID(1),
    at: '2026-11-29T08:00:00.000Z',
    who: 'Mo',
    subject: { what: 'ring-runout', axle: 'rear' },
    value: {
      of: 'number',
      counts: 'mean',
      entries: [
        { typed: '0.02', value: 0.02, unit: 'mm' },
        { typed: '1 thou', value: 1, unit: 'thou' },
      ],
    },
    state: {},
    instrument: 'Dial indicator',
  });

  it('of readings may be written by hand: what, axle, typed and instrument are enough', () => {
    const { entries, bad } = readLedgerCsv(
      'what;axle;typed;instrument\nring-runout;rear;0,02 mm ; 1 thou;Dial indicator\nring-runout;rear;thick;Dial indicator\nring-runout;boot;0.02;Dial indicator\nnothing;rear;0.02;Dial indicator\nring-runout;rear;0.02;\n',
      writer,
    );
    // A semicolon apart inside a cell can’t be told from one between cells where nothing is quoted: the line is listed.
    expect(bad.map(({ line }) => line)).toEqual([2, 3, 4, 5, 6]);
    expect(entries).toEqual([]);
    const quoted = readLedgerCsv(
      'what,axle,typed,instrument\nring-runout,rear,0.02 mm ; 1 thou,Dial indicator\n',
      writer,
    );
    expect(quoted.bad).toEqual([]);
    const [entry] = quoted.entries;
    expect(entry).toEqual({
      ...reading(),
      id: entry?.id ?? '',
      at: writer.at,
      who: 'Ines',
      value: {
        of: 'number',
        counts: 'mean',
        entries: [
          { typed: '0.02 mm', value: 0.02, unit: 'mm' },
          { typed: '1 thou', value: 1, unit: 'thou' },
        ],
      },
    } as LedgerEntry);
    const bare = (line: string) =>
      readLedgerCsv(`what,axle,typed,unit,instrument\nring-runout,rear,${line},Dial\n`, writer);
    expect(bare('0.02,').bad[0]?.why).toContain('has no unit');
    expect(bare('0.02,mm').entries.length).toBe(1);
    // Twice the same line is two readings; taken in again at another time they are the same two.
    const twice = 'what,axle,typed,instrument\nring-runout,rear,0.02 mm,Dial\nring-runout,rear,0.02 mm,Dial\n';
    const ids = { ...writer, idOf: (line: string) => ID(line.startsWith('1') ? 1 : 2) };
    const kept = readLedgerCsv(twice, ids);
    const later = readLedgerCsv(twice, { ...ids, at: '2026-12-01T08:00:00.000Z', who: 'Mo' });
    expect(compareLedger(later, kept.entries)).toEqual({ fresh: [], same: 2, other: [], signed: 0, loose: [] });
    expect(() => readLedgerCsv('what,colour,typed\n', writer)).toThrowError(/“colour” is no column/);
    expect(() => readLedgerCsv('a,b\n1,2\n', writer)).toThrowError(/header/);
    // Where nobody says who and when, nothing may be left out.
    expect(readLedgerCsv('what,axle,typed,instrument\nring-runout,rear,0.02,Dial\n').bad.length).toBe(1);
  });

  it('of a ledger says what is new, what is there already and what never changes', () => {
    const voids = (id: string, of: string): Void => ({
      kind: 'void',
      id,
      at: writer.at,
      who: '',
      voids: of,
      reason: 'slipped',
    });
    const mine: LedgerEntry[] = [reading()];
    const given: LedgerEntry[] = [
      { ...reading(), note: 'changed' } as LedgerEntry,
      voids(ID(2), ID(1)),
      voids(ID(3), ID(1)),
      voids(ID(4), ID(8)),
      { ...reading(), id: ID(5) } as LedgerEntry,
    ];
    expect(readLedgerCsv(ledgerCsv(given)).entries).toEqual(given);
    const { fresh, same, other, loose } = compareLedger({ entries: given, made: new Set() }, mine);
    expect(fresh.map(({ id }) => id)).toEqual([ID(2), ID(5)]);
    expect([same, other.length, loose.map(({ id }) => id)]).toEqual([0, 1, [ID(3), ID(4)]]);
    // What was taken in is there: the same file once more brings nothing.
    const again = compareLedger({ entries: given, made: new Set() }, [...mine, ...fresh]);
    expect([again.fresh.length, again.same]).toEqual([0, 2]);
    // A gate of another car is not signed by its file.
    const signature: LedgerEntry = {
      kind: 'signature',
      id: ID(7),
      at: writer.at,
      who: '',
      gate: 'B',
      name: 'Mo',
      figures: {},
    };
    expect(compareLedger({ entries: [signature], made: new Set() }, mine)).toEqual(
      jasmine.objectContaining({ fresh: [], signed: 1 }),
    );
    // Keys in another order are the same entry.
    const { value, ...rest } = reading() as Extract<LedgerEntry, { kind: 'reading' }>;
    expect(compareLedger({ entries: [{ value, ...rest }], made: new Set() }, mine).same).toBe(1);
  });
});
