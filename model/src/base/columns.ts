import { UNITS, type Quantity, type UnitName } from '@hot-spline/core';
import { csvNumber, headerUnit } from './csv';

/** What a column is called, with its unit where the file says one: in the name, in brackets, or in a second line. */
export interface Column {
  readonly name: string;
  readonly unit: string;
}

/** What is looked for: its names, names that it never has, and the quantities of its units. */
export interface Wanted {
  readonly names: RegExp;
  /** Nearly, where nothing better is there. */
  readonly weak?: RegExp;
  readonly never: RegExp;
  readonly quantities: readonly Quantity[];
}

const WORDY = /[a-z]/i;

/** Days since the first of March of year 0, in the calendar of today [exact]. */
function dayOf(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year;
  const m = (month + 9) % 12;
  return (
    365 * y + Math.floor(y / 4) - Math.floor(y / 100) + Math.floor(y / 400) + Math.floor((153 * m + 2) / 5) + day - 1
  );
}

/** Seconds of a time of day or a lap time, `12:34:56.7`, `1:23.4`, or of a date with a time; null for anything else. */
export function clockSeconds(cell: string): number | null {
  const text = cell.trim();
  const clock = /^(?:(\d{1,3}):)?(\d{1,3}):(\d{2}(?:[.,]\d+)?)$/.exec(text);
  if (clock)
    return 3600 * Number(clock[1] ?? 0) + 60 * Number(clock[2]) + Number((clock[3] as string).replace(',', '.'));
  const date = /^(\d{4})-(\d{2})-(\d{2})[T ](\d{2}):(\d{2}):(\d{2}(?:[.,]\d+)?)\s*(?:Z|([+-])(\d{2}):?(\d{2}))?$/.exec(
    text,
  );
  if (!date) return null;
  const [year = 0, month = 0, day = 0, hours = 0, minutes = 0, seconds = 0] = date
    .slice(1, 7)
    .map((part) => Number(part.replace(',', '.')));
  const offset = (date[7] === '-' ? -1 : 1) * (60 * Number(date[8] ?? 0) + Number(date[9] ?? 0));
  return 86_400 * dayOf(year, month, day) + 3600 * hours + 60 * (minutes - offset) + seconds;
}

const isValue = (cell: string): boolean => !Number.isNaN(csvNumber(cell)) || clockSeconds(cell) !== null;

/** Whether a line holds values: two at least, and most of its cells. `bare` takes the unit off a cell. */
export function isDataRow(row: readonly string[], bare: (cell: string) => string = (cell) => cell): boolean {
  const cells = row.filter((cell) => cell.trim() !== '');
  const values = cells.filter((cell) => isValue(bare(cell))).length;
  return values >= 2 && 2 * values >= cells.length;
}

/**
 * The line at which the values begin: of those that hold some, the first of the longest stretch of lines that are as wide as each other.
 * A date or the weather that was written before is none. −1 where there are none.
 */
export function firstOfValues(rows: readonly (readonly string[])[], bare?: (cell: string) => string): number {
  const width = (row: readonly string[]): number => row.filter((cell) => cell.trim() !== '').length;
  let [begins, long, best, longest] = [-1, 0, -1, 0];
  rows.forEach((row, i) => {
    if (width(row) === 0) return;
    if (!isDataRow(row, bare)) {
      long = 0;
      return;
    }
    if (long === 0 || width(row) !== width(rows[begins] ?? [])) [begins, long] = [i, 0];
    long++;
    if (long > longest) [best, longest] = [begins, long];
  });
  // A line with a gap in it ends a stretch and no table: what stands above it belongs to it, up to a line of words.
  const full = width(rows[best] ?? []);
  const numbered = (row: readonly string[]): boolean => row.some((cell) => isValue((bare ?? String)(cell)));
  for (let i = best - 1; i >= 0; i--) {
    const row = rows[i] ?? [];
    if (width(row) === 0) continue;
    if (!numbered(row) || width(row) > full) break;
    best = i;
  }
  return best;
}

const unitText = (cell: string): string => cell.trim().replace(/^[([{]\s*|\s*[)\]}]$/g, '');
const known = (text: string): boolean =>
  Object.values(UNITS).some(({ aliases }) => aliases.includes(text.toLowerCase().replace(/\s+/g, '')));

/** A line of units alone, below a line of names. */
function isUnitRow(row: readonly string[]): boolean {
  const cells = row.map(unitText).filter((cell) => cell !== '' && cell !== '-');
  return cells.length > 0 && cells.every((cell) => cell.length <= 12) && cells.some(known) && cells.every(notName);
}
const notName = (cell: string): boolean => known(cell) || !/[a-z]{5}/i.test(cell);

/**
 * Names of the columns, out of what stands before the first line of values: the last line that names as many, and a line of units
 * below it. What was written before – who, when, which car – is no name.
 * @param lead lines before the first one of values
 * @returns nothing where there are none
 */
export function columnsOf(lead: readonly (readonly string[])[], width: number): readonly Column[] {
  const wide = lead.filter(
    (row) => row.length >= Math.min(width, 2) && row.filter((cell) => WORDY.test(cell)).length > 1,
  );
  const last = wide.at(-1);
  if (!last) return [];
  const above = wide.at(-2);
  const units = above && isUnitRow(last) ? last : null;
  const names = units && above ? above : last;
  return names.map((name, i) => ({ name: name.trim(), unit: unitText(units?.[i] ?? '') }));
}

/** The unit that a column says for one of these quantities; null where it says none. */
export function columnUnit({ name, unit }: Column, quantities: readonly Quantity[]): UnitName | null {
  for (const quantity of quantities) {
    const found = (unit === '' ? null : headerUnit(unit, quantity)) ?? headerUnit(name, quantity);
    if (found !== null) return found;
  }
  return null;
}

/** A column says a unit that is no unit of these quantities. */
function otherUnit(column: Column, quantities: readonly Quantity[]): boolean {
  if (columnUnit(column, quantities) !== null) return false;
  const said = column.unit || (/[([{]\s*([^)\]}]+?)\s*[)\]}]/.exec(column.name)?.[1] ?? '');
  return said !== '' && known(said);
}

/**
 * The column that is it likeliest, by name and by unit together; −1 where none is.
 * @param taken columns that are something else already
 */
export function bestColumn(columns: readonly Column[], wanted: Wanted, taken: readonly number[] = []): number {
  let best = -1;
  let most = 0;
  columns.forEach((column, i) => {
    if (taken.includes(i) || wanted.never.test(column.name) || otherUnit(column, wanted.quantities)) return;
    const bare = column.name.replace(/[([{].*$/, '').trim();
    const named = wanted.weak?.test(bare) ? 2 : wanted.names.test(column.name) ? 4 : 0;
    const unit = columnUnit(column, wanted.quantities) === null ? 0 : 3;
    // A unit alone tells only where the whole name is that unit.
    const score = named > 0 ? named + unit : unit > 0 && known(unitText(column.name)) ? 2 : 0;
    if (score > most) {
      most = score;
      best = i;
    }
  });
  return best;
}
