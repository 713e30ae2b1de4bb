import { UNITS, numberReadings, type Quantity, type UnitName } from '@hot-spline/core';
import Papa from 'papaparse';

/** A line that could not be used, by its number in the file. */
export interface BadLine {
  readonly line: number;
  readonly text: string;
  readonly why: string;
}

/** Cells that are apart by blanks, however many, are told by one. */
const BLANKS = ' ';
/** So many lines say what separates the cells. */
const LOOKED_AT = 20;

/** Two numbers at least: what stands before a table of values is told from its lines by this. */
const VALUES = /\d[^\d]*[^\d.,'’\u202f][^\d]*\d|\d[,;|\t]\s*[+−-]?\d/;
/** Of those lines, so many have what separates the cells; the rest are a date and the like. */
const MOSTLY = 0.8;

/**
 * What separates the cells of a few lines or of many, told by the lines that hold values: a tab, a semicolon or a bar wherever they have
 * one, for none of them stands inside a number; a comma that is no decimal sign; blanks between numbers. Text in quotes is left to the
 * parser.
 */
function delimiterOf(text: string): string {
  if (text.includes('"')) return '';
  const lines = text
    .split(/\r\n|\r|\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const valued = lines.filter((line) => VALUES.test(line));
  const looked = (valued.length > 1 ? valued : lines).slice(-LOOKED_AT);
  if (looked.length === 0) return '';
  const mostly = (has: (line: string) => boolean): boolean => looked.filter(has).length >= MOSTLY * looked.length;
  for (const sign of ['\t', ';', '|']) if (mostly((line) => line.includes(sign))) return sign;
  // `2500,5 320,2`: numbers with decimal commas, apart by blanks.
  const apart = /^[+−-]?[\d.,]+(?:\s+[+−-]?[\d.,]+)+(?:\s*[^\d\s,;]+)?$/;
  if (mostly((line) => apart.test(line)) && !mostly((line) => /,\s/.test(line))) return BLANKS;
  return looked.some((line) => line.includes(',')) ? ',' : '';
}

/** What separates the cells of a file whose head is known: a head has no quotes, and no number with a decimal sign. */
export function headerDelimiter(text: string): string {
  const head = text.replace(/^\ufeff/, '').split(/\r\n|\r|\n/, 1)[0] ?? '';
  return ['\t', ';', ','].find((sign) => head.includes(sign)) ?? ',';
}

/**
 * Lines of a CSV text; the mark that {@link csvText} puts before a formula is taken off.
 * @param delimiter what separates the cells; guessed where it is not told
 */
export function csvRows(text: string, delimiter?: string): string[][] {
  const bare = text.replace(/^\ufeff/, '');
  const apart = delimiter ?? delimiterOf(bare);
  const lines = apart === BLANKS ? bare.replace(/[^\S\r\n]+/g, BLANKS) : bare;
  const { data } = Papa.parse<string[]>(lines, { skipEmptyLines: false, delimiter: apart });
  return data.map((row) => row.map((cell) => cell.trim().replace(/^'(?=[=+\-@])/, '')));
}

/**
 * CSV text with a header line. The mark at its beginning tells a spreadsheet that it is UTF-8; cells that one would take for a formula are
 * quoted as text.
 */
export function csvText(header: readonly string[], rows: readonly (readonly (string | number)[])[]): string {
  return `\ufeff${Papa.unparse({ fields: [...header], data: rows.map((row) => [...row]) }, { newline: '\n', escapeFormulae: true })}\n`;
}

const unsigned = (cell: string): readonly [sign: number, text: string] => {
  const text = cell.trim();
  return [/^[-−]/.test(text) ? -1 : 1, text.replace(/^[+−-]\s*/, '')];
};

/** `1.234,5`, `1,234.5` and `3 000` as numbers, a lone sign as a decimal one; NaN for anything else. */
export function csvNumber(cell: string): number {
  const [sign, text] = unsigned(cell);
  return sign * (numberReadings(text)[0] ?? Number.NaN);
}

/** A number that is counted in ones, an engine speed or a price: `3,000` and `3.000` are three thousand. */
export function csvWhole(cell: string): number {
  const [sign, text] = unsigned(cell);
  return sign * (numberReadings(text).at(-1) ?? Number.NaN);
}

/** The unit of a quantity that stands in a header cell such as `Torque (lbf·ft)`, `speed_kmh`, `v [m/s]`. */
export function headerUnit(header: string, quantity: Quantity): UnitName | null {
  const text = header.toLowerCase();
  const bracket = /[([{]\s*([^)\]}]+?)\s*[)\]}]/.exec(text)?.[1];
  const words = [bracket, ...text.split(/[\s_,;()[\]{}]+/)].filter((word) => word !== undefined && word !== '');
  for (const word of words) {
    for (const [name, unit] of Object.entries(UNITS) as [Exclude<UnitName, ''>, (typeof UNITS)['mm']][])
      if (unit.quantity === quantity && unit.aliases.includes((word as string).replace(/\s+/g, ''))) return name;
  }
  return null;
}
