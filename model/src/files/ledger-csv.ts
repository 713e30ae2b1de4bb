import { InputError, type Entry, type UnitName } from '@hot-spline/core';
import { csvRows, csvText } from '../base/csv';
import { ledgerEntrySchema } from '../document/ledger';
import { parseOrRefuse } from '../base/refuse';
import type * as z from 'zod';
import type { LedgerEntry, Reading } from '../frame/readings';

/** One line an entry, oldest first. Numbers stand as typed, as a number and with their unit; all else is JSON. */
export const LEDGER_CSV_HEADER = [
  'kind',
  'id',
  'at',
  'who',
  'what',
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

const APART = ' ; ';
const many = (parts: readonly (string | number)[]): string => parts.join(APART);

function readingCells({ subject, value, state, instrument, note = '', gauge }: Reading): (string | number)[] {
  const { what, ...of } = subject;
  const { entries = [], ...kind } = value as { of: string; entries?: readonly Entry[] };
  return [
    what,
    JSON.stringify(of),
    many(entries.map(({ typed }) => typed)),
    many(entries.map(({ value: number }) => number)),
    many(entries.map(({ unit }) => unit)),
    JSON.stringify(kind),
    JSON.stringify(state),
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
        entry.kind === 'reading' ? readingCells(entry) : [...Array<string>(9).fill(''), JSON.stringify(rest)];
      return [kind, id, at, who, ...cells];
    }),
  );
}

const json = (text: string, field: string): unknown => {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw new InputError(field, `${field} is not JSON.`, 'a ledger as it was exported');
  }
};

/**
 * Reads a ledger that was exported as CSV.
 * @param schema what an entry is checked by, for subjects that are not in the list
 * @throws InputError naming the line and the field
 */
export function readLedgerCsv(text: string, schema: z.ZodType<LedgerEntry> = ledgerEntrySchema): LedgerEntry[] {
  const [header = [], ...rows] = csvRows(text, ',').filter((row) => row.some((cell) => cell !== ''));
  if (LEDGER_CSV_HEADER.some((name, i) => header[i] !== name))
    throw new InputError('header', 'header is not that of a ledger.', LEDGER_CSV_HEADER.join(', '));
  return rows.map((row, i) => {
    const at = `line ${i + 2}`;
    const cell = (name: (typeof LEDGER_CSV_HEADER)[number]): string => row[LEDGER_CSV_HEADER.indexOf(name)] ?? '';
    const written = { kind: cell('kind'), id: cell('id'), at: cell('at'), who: cell('who') };
    if (written.kind !== 'reading')
      return parseOrRefuse(schema, { ...written, ...(json(cell('more'), at) as object) }, at);
    const [numbers, units] = [cell('number').split(APART), cell('unit').split(APART)];
    const entries = cell('typed')
      .split(APART)
      .map((typed, k): Entry => ({ typed, value: Number(numbers[k]), unit: (units[k] ?? '') as UnitName }));
    const kind = json(cell('value'), at) as { of: string };
    const note = cell('note');
    return parseOrRefuse(
      schema,
      {
        ...written,
        subject: { what: cell('what'), ...(json(cell('of'), at) as object) },
        value: kind.of === 'number' || kind.of === 'places' ? { ...kind, entries } : kind,
        state: json(cell('state'), at),
        instrument: cell('instrument'),
        ...(note === '' ? {} : { note }),
        ...(cell('more') === '' ? {} : (json(cell('more'), at) as object)),
      },
      at,
    );
  });
}
