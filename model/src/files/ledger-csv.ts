import { InputError, cutText, parseEntry, type Entry, type UnitName } from '@hot-spline/core';
import type * as z from 'zod';
import { subjects } from '../assembly/subjects';
import { csvRows, csvText, headerDelimiter, type BadLine } from '../base/csv';
import { parseOrRefuse } from '../base/refuse';
import { sameDocument } from '../base/same';
import { ledgerEntrySchema } from '../document/ledger';
import type { LedgerEntry, Reading } from '../frame/readings';
import type { ValueKind } from '../frame/values';

/**
 * One line an entry, oldest first. Numbers stand as typed, bare, and with their unit; what has no column of its own is JSON. In a line that
 * somebody writes, `what`, `axle`, `typed` and `instrument` are enough for most readings.
 */
export const LEDGER_CSV_HEADER = [
  'kind',
  'id',
  'at',
  'who',
  'what',
  'axle',
  'of',
  'typed',
  'number',
  'unit',
  'value',
  'state',
  'instrument',
  'note',
  'more',
] as const;
type Column = (typeof LEDGER_CSV_HEADER)[number];

const APART = ' ; ';
const many = (parts: readonly (string | number)[]): string => parts.join(APART);
const apart = (cell: string): string[] => cell.split(';').map((part) => part.trim());
const jsonUnlessEmpty = (value: object): string => (Object.keys(value).length === 0 ? '' : JSON.stringify(value));

function readingCells({ subject, value, state, instrument, note = '', gauge }: Reading): (string | number)[] {
  const { what, axle, ...of } = subject;
  const { entries = [], ...kind } = value as { of: string; entries?: readonly Entry[] };
  return [
    what,
    typeof axle === 'string' ? axle : '',
    jsonUnlessEmpty(of),
    many(entries.map(({ typed }) => typed)),
    many(entries.map(({ value: number }) => number)),
    many(entries.map(({ unit }) => unit)),
    JSON.stringify(kind),
    jsonUnlessEmpty(state),
    instrument,
    note,
    gauge ? JSON.stringify({ gauge }) : '',
  ];
}

export function ledgerCsv(ledger: readonly LedgerEntry[]): string {
  return csvText(
    LEDGER_CSV_HEADER,
    ledger.map((entry) => {
      const { kind, id, at, who, ...rest } = entry;
      const cells =
        entry.kind === 'reading'
          ? readingCells(entry)
          : [...Array<string>(LEDGER_CSV_HEADER.length - 5).fill(''), JSON.stringify(rest)];
      return [kind, id, at, who, ...cells];
    }),
  );
}

function jsonIn(cell: string, column: Column): object {
  if (cell === '') return {};
  let said: unknown;
  try {
    said = JSON.parse(cell);
  } catch {
    said = null;
  }
  if (typeof said === 'object' && said !== null && !Array.isArray(said)) return said;
  throw new InputError(column, `${column} is not JSON.`, 'an object of JSON, as it was exported, or nothing');
}

/** Numbers of a line: as they were exported, or as somebody typed them. */
function entriesIn(cell: (name: Column) => string, kind: ValueKind | undefined): Entry[] {
  const typed = apart(cell('typed'));
  if (cell('number') !== '' || !kind || !('quantity' in kind)) {
    const [numbers, units] = [apart(cell('number')), apart(cell('unit'))];
    return typed.map((text, k): Entry => ({
      typed: text,
      value: Number(numbers[k] === '' ? Number.NaN : numbers[k]),
      unit: (units[k] ?? '') as UnitName,
    }));
  }
  const { quantity, scale, range } = kind;
  const rules = { field: 'typed', quantity, range, system: 'metric' as const, ...(scale ? { scale } : {}) };
  const unit = cell('unit');
  return typed.map((text) => {
    const said = /[^\d\s.,+−–-]/.test(text) ? text : `${text} ${unit}`.trim();
    const { entry } = parseEntry(said, rules);
    // A bare number is nobody’s word for a unit.
    if (entry.unit !== '' && said === text && !/[^\d\s.,/+−–-]/.test(text))
      throw new InputError(
        'typed',
        `typed: “${cutText(text, 20)}” has no unit.`,
        'a number with its unit, or a unit in its column',
      );
    return entry;
  });
}

/** What is not known of the thing itself. */
export interface LedgerWriter {
  /** The id of an entry that has none in the file: the same line has the same one, so that a file taken in twice is one. */
  readonly idOf: (line: string) => string;
  readonly at: string;
  readonly who: string;
}

function entryIn(cell: (name: Column) => string, writer: LedgerWriter | null, line: string): unknown {
  const id = cell('id') === '' ? (writer?.idOf(line) ?? '') : cell('id');
  const written = {
    kind: cell('kind') === '' ? 'reading' : cell('kind'),
    id,
    at: cell('at') === '' ? (writer?.at ?? '') : cell('at'),
    who: cell('who') === '' ? (writer?.who ?? '') : cell('who'),
  };
  if (written.kind !== 'reading') return { ...written, ...jsonIn(cell('more'), 'more') };
  const kind = subjects.find(({ what }) => what === cell('what'))?.value;
  const said = jsonIn(cell('value'), 'value') as { of?: string };
  const counts = kind?.of === 'number' ? { counts: kind.counts } : {};
  const of = { ...(kind ? { of: kind.of, ...counts } : {}), ...said };
  const note = cell('note');
  return {
    ...written,
    subject: {
      what: cell('what'),
      ...(cell('axle') === '' ? {} : { axle: cell('axle') }),
      ...jsonIn(cell('of'), 'of'),
    },
    value: of.of === 'number' || of.of === 'places' ? { ...of, entries: entriesIn(cell, kind) } : of,
    state: jsonIn(cell('state'), 'state'),
    instrument: cell('instrument'),
    ...(note === '' ? {} : { note }),
    ...jsonIn(cell('more'), 'more'),
  };
}

export interface LedgerImport {
  readonly entries: readonly LedgerEntry[];
  /** Ids that were made for lines without one: time and name of such an entry are those of the reading, not of the file. */
  readonly made: ReadonlySet<string>;
  readonly bad: readonly BadLine[];
}

/**
 * Reads a ledger as it was exported, of today or of before, or lines that somebody wrote. A line that can’t be used is listed and the rest
 * kept.
 * @param writer says what a line leaves out; null: nothing may be left out
 * @param schema what an entry is checked by, for subjects that are not in the list
 * @throws InputError on `header` where the first line names no columns of a ledger
 */
export function readLedgerCsv(
  text: string,
  writer: LedgerWriter | null = null,
  schema: z.ZodType<LedgerEntry> = ledgerEntrySchema,
): LedgerImport {
  const [head = [], ...rows] = csvRows(text, headerDelimiter(text));
  const names = head.map((name) => name.toLowerCase());
  const unknown = names.find((name) => name !== '' && !LEDGER_CSV_HEADER.some((known) => known === name));
  if (!names.includes('what') || !names.includes('typed') || unknown !== undefined)
    throw new InputError(
      'header',
      unknown === undefined
        ? 'header is not that of a ledger.'
        : `header: “${cutText(unknown, 30)}” is no column of a ledger.`,
      LEDGER_CSV_HEADER.join(', '),
    );
  const entries: LedgerEntry[] = [];
  const bad: BadLine[] = [];
  const made = new Set<string>();
  const times = new Map<string, number>();
  rows.forEach((row, i) => {
    if (row.every((cell) => cell === '')) return;
    const cell = (name: Column): string => row[names.indexOf(name)] ?? '';
    const line = row.join('\n');
    // The same line twice is two readings.
    const nth = (times.get(line) ?? 0) + 1;
    times.set(line, nth);
    try {
      // A cell too many moves all behind it: what stands in a column then is not what it says.
      if (row.length > head.length)
        throw new InputError('line', 'line has more cells than the head.', 'a cell with the separator in it in quotes');
      const entry = parseOrRefuse(schema, entryIn(cell, writer, `${nth}\n${line}`), 'entry');
      if (cell('id') === '') made.add(entry.id);
      entries.push(entry);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      bad.push({ line: i + 2, text: cutText(row.filter(Boolean).join(', '), 60), why: error.message });
    }
  });
  return { entries, made, bad };
}

/** How entries of a file stand to a ledger. */
export interface ComparedLedger {
  /** Not there yet: can be appended, in this order. */
  readonly fresh: readonly LedgerEntry[];
  readonly same: number;
  /** Under an id that stands for something else there: an entry is never changed. */
  readonly other: readonly LedgerEntry[];
  /** A name stands for what its owner saw: signatures do not come out of a file. */
  readonly signed: number;
  /** Voids of entries that are neither there nor in the file, or are voided. */
  readonly loose: readonly LedgerEntry[];
}

export function compareLedger(
  { entries: given, made }: Pick<LedgerImport, 'entries' | 'made'>,
  here: readonly LedgerEntry[],
): ComparedLedger {
  const known = new Map(here.map((entry) => [entry.id, entry]));
  const voided = new Set(here.flatMap((entry) => (entry.kind === 'void' ? [entry.voids] : [])));
  const [fresh, other, loose]: [LedgerEntry[], LedgerEntry[], LedgerEntry[]] = [[], [], []];
  let [same, signed] = [0, 0];
  for (const entry of given) {
    const before = known.get(entry.id);
    if (before) {
      if (made.has(entry.id) || sameDocument(before, entry)) same++;
      else other.push(entry);
      continue;
    }
    if (entry.kind === 'signature' || (entry.kind === 'reading' && entry.value.of === 'signature')) {
      signed++;
      continue;
    }
    if (entry.kind === 'void') {
      const target = known.get(entry.voids);
      if (!target || target.kind === 'void' || voided.has(entry.voids)) {
        loose.push(entry);
        continue;
      }
      voided.add(entry.voids);
    }
    known.set(entry.id, entry);
    fresh.push(entry);
  }
  return { fresh, same, other, signed, loose };
}
