import { InputError, cutText, entryBase, type Entry } from '@hot-spline/core';
import { csvNumber, csvRows, csvText, csvWhole, headerDelimiter, type BadLine } from '../base/csv';
import { refusal } from '../base/refuse';
import { shimBoxSchema, type GivenSpec, type HereSpec, type LibrarySpec, type ShimBox } from './schema';

/** One line a thickness, numbers bare, their unit in the head: for counting through a drawer in a spreadsheet. */
export const DRAWERS_CSV_HEADER = [
  'id',
  'drawer',
  'seat',
  'bore mm',
  'outside mm',
  'thickness mm',
  'count',
  'origin',
] as const;
type Column = (typeof DRAWERS_CSV_HEADER)[number];

const isDrawer = (spec: LibrarySpec): spec is ShimBox => spec.kind === 'shims';
/** To a tenth of a micrometre: what comes back of inches is the inch that was typed. */
const bare = (entry: Entry | null): string => (entry ? String(Math.round(entryBase(entry) * 1e4) / 1e4) : '');

/** The drawers of the library as a table. */
export function drawersCsv(specs: readonly Pick<HereSpec, 'id' | 'spec'>[]): string {
  return csvText(
    DRAWERS_CSV_HEADER,
    specs.flatMap(({ id, spec }) => {
      if (!isDrawer(spec)) return [];
      const drawer = [id, spec.name, spec.seat, bare(spec.bore), bare(spec.outside)];
      return spec.pieces.length === 0
        ? [[...drawer, '', '', '']]
        : spec.pieces.map(({ thickness, count, origin }) => [...drawer, bare(thickness), count, origin]);
    }),
  );
}

/** Whether a text is a table of drawers, by its head. */
export const isDrawersCsv = (text: string): boolean => {
  const [head = []] = csvRows(text, headerDelimiter(text));
  return head.includes('drawer') && head.includes('thickness mm');
};

/**
 * Reads a table of drawers. A line that can’t be used is listed and the rest kept.
 * @param here the library: what a number of the table says already stays as it was typed
 * @throws InputError on `csv` where no drawer is usable
 */
export function readDrawersCsv(
  text: string,
  here: readonly Pick<HereSpec, 'id' | 'spec'>[],
): { specs: GivenSpec[]; bad: BadLine[] } {
  const [head = [], ...rows] = csvRows(text, headerDelimiter(text));
  const bad: BadLine[] = [];
  const raws = new Map<
    string,
    { id: string | null; line: number; torn: boolean; of: string; raw: Record<string, unknown> }
  >();
  rows.forEach((row, i) => {
    if (row.every((cell) => cell === '')) return;
    const line = i + 2;
    const cell = (name: Column): string => row[head.indexOf(name)] ?? '';
    const refuse = (why: string): void => void bad.push({ line, text: cutText(row.join(', '), 60), why });
    const [id, name] = [cell('id') === '' ? null : cell('id'), cell('drawer')];
    const known = here.find((one) => (id === null ? one.spec.name === name : one.id === id))?.spec;
    const drawer = known && isDrawer(known) ? known : null;
    /** A length as it was typed here, where the table says the same. */
    const length = (column: Column, typed: readonly (Entry | null)[]): Entry | null => {
      if (cell(column) === '') return null;
      const value = csvNumber(cell(column));
      const before = typed.find((one) => one && bare(one) === bare({ typed: '', value, unit: 'mm' }));
      return before ?? { typed: `${cell(column)} mm`, value, unit: 'mm' };
    };
    const key = id ?? name;
    const of = (['drawer', 'seat', 'bore mm', 'outside mm'] as const).map(cell).join(', ');
    const at = raws.get(key) ?? {
      id,
      of,
      line,
      torn: false,
      raw: {
        kind: 'shims',
        name,
        seat: cell('seat'),
        bore: length('bore mm', [drawer?.bore ?? null]),
        outside: length('outside mm', [drawer?.outside ?? null]),
        pieces: [] as unknown[],
      },
    };
    raws.set(key, at);
    if (at.of !== of) {
      at.torn = true;
      return refuse(`it says ${of}, and the first line of this drawer ${at.of}`);
    }
    const thickness = length(
      'thickness mm',
      (drawer?.pieces ?? []).map((piece) => piece.thickness),
    );
    if (thickness === null && cell('count') === '' && cell('origin') === '') return;
    if (row.length > head.length) {
      at.torn = true;
      return refuse('it has more cells than the head');
    }
    const piece = { thickness, count: csvWhole(cell('count')), origin: cell('origin') };
    const parsed = shimBoxSchema.shape.pieces.safeParse([piece], { reportInput: true });
    if (parsed.success) (at.raw['pieces'] as unknown[]).push(...parsed.data);
    else {
      at.torn = true;
      refuse(refusal(parsed.error, 'piece').message);
    }
  });
  const specs: GivenSpec[] = [];
  for (const { id, line, torn, raw } of raws.values()) {
    const parsed = shimBoxSchema.safeParse(raw, { reportInput: true });
    if (parsed.success) specs.push({ id, spec: parsed.data, ...(torn ? { torn } : {}) });
    else bad.push({ line, text: String(raw['name']).slice(0, 60), why: refusal(parsed.error, 'drawer').message });
  }
  if (specs.length === 0)
    throw new InputError(
      'csv',
      `csv holds no usable drawer.${bad[0] ? ` Line ${bad[0].line}: ${bad[0].why}` : ''}`,
      DRAWERS_CSV_HEADER.join(', '),
    );
  return { specs, bad };
}
