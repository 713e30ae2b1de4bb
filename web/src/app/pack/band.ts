import { InputError, entryBase, parseEntry, saySmall, type Entry, type UnitSystem } from '@hot-spline/core';
import type { Understood } from '../shared/field';

interface Band {
  readonly low: Entry;
  readonly high: Entry;
}

const RANGE = { min: 0, max: 5, unit: 'mm' };
/** Backlash that somebody measures, mm: a bare number outside it is asked about. */
const USUAL = [0.02, 1.5] as const;
const UNITS = ['thou', 'mm', 'in'] as const;

const isUsual = ({ low, high }: Band): boolean => entryBase(low) >= USUAL[0] && entryBase(high) <= USUAL[1];

/**
 * Reads a band of small lengths: `4 – 7 thou`, `0.1-0.18 mm`; the unit of the second stands for the first too. Bare numbers that are no
 * backlash in the shop's own unit come with the units in which they are one.
 * @throws InputError naming the end
 */
export function readBand(text: string, system: UnitSystem): Understood<Band | null> {
  if (text.trim() === '') return { value: null, said: '' };
  const [first = '', second = '', ...more] = text.split(/[–-]|\bto\b/).map((part) => part.trim());
  if (second === '' || more.length > 0)
    throw new InputError('Backlash', 'Backlash must be two lengths.', 'two lengths, apart by –');
  const named = /[a-z"″”]+$/i.exec(second)?.[0] ?? '';
  const withUnit = (part: string, unit: string): string => (/[a-z"″”]$/i.test(part) ? part : `${part} ${unit}`.trim());
  const read = (unit: string): Band => {
    const end = (field: string, part: string): Entry =>
      parseEntry(withUnit(part, unit), { field, quantity: 'length', system, range: RANGE }).entry;
    return { low: end('Low', first), high: end('High', second) };
  };
  const likely = named === '' ? UNITS.flatMap((unit) => choice(unit, read, `${first} – ${second} ${unit}`)) : [];
  const own = attempt(() => read(named));
  if (own instanceof InputError && likely.length === 0) throw own;
  const value = own instanceof InputError ? (likely[0]?.value ?? null) : own;
  if (value && entryBase(value.high) <= entryBase(value.low))
    throw new InputError('High', 'High must be above low.', 'a larger length');
  const said = value ? `${saySmall(entryBase(value.low), system)} to ${saySmall(entryBase(value.high), system)}` : '';
  const doubted = own instanceof InputError || (named === '' && !isUsual(own));
  if (!doubted || likely.length === 0) return { value, said };
  const really = own instanceof InputError ? null : `really ${said}`;
  return { value, said, ask: 'Far from what backlash is.', choices: likely, really };
}

function attempt(run: () => Band): Band | InputError {
  try {
    return run();
  } catch (error) {
    if (error instanceof InputError) return error;
    throw error;
  }
}

/** A unit in which the band is one; nothing in which it is none. */
function choice(
  unit: string,
  read: (unit: string) => Band,
  label: string,
): { readonly label: string; readonly value: Band | null }[] {
  const value = attempt(() => read(unit));
  return value instanceof InputError || !isUsual(value) ? [] : [{ label, value }];
}
