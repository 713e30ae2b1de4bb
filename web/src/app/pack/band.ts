import { InputError, entryBase, parseEntry, saySmall, type Entry, type UnitSystem } from '@hot-spline/core';
import type { Understood } from '../shared/field';

const RANGE = { min: 0, max: 5, unit: 'mm' };
/** Backlash that somebody measures, mm: a bare number outside it was meant in the other system. */
const USUAL = [0.02, 1.5] as const;

/**
 * Reads a band of small lengths: `4 – 7 thou`, `0.1-0.18 mm`; the unit of the second stands for the first too.
 * @throws InputError naming the end
 */
export function readBand(text: string, system: UnitSystem): Understood<{ low: Entry; high: Entry } | null> {
  if (text.trim() === '') return { value: null, said: '' };
  const [first = '', second = '', ...more] = text.split(/[–-]|\bto\b/).map((part) => part.trim());
  if (second === '' || more.length > 0)
    throw new InputError('Backlash', 'Backlash must be two lengths.', 'e.g. 4 – 7 thou');
  const unit = /[a-z"″”]+$/i.exec(second)?.[0] ?? '';
  const read = (field: string, typed: string): Entry =>
    parseEntry(typed, { field, quantity: 'length', system, range: RANGE, usual: USUAL }).entry;
  const low = read('Low', /[a-z"″”]$/i.test(first) ? first : `${first} ${unit}`.trim());
  const high = read('High', second);
  if (entryBase(high) <= entryBase(low)) throw new InputError('High', 'High must be above low.', 'a larger length');
  return { value: { low, high }, said: `${saySmall(entryBase(low), system)} to ${saySmall(entryBase(high), system)}` };
}
