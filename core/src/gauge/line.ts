import { InputError } from '../errors';
import { UNITS, type Quantity, type UnitName } from '../units/quantities';

/** A reading as a gauge sends it: a number and perhaps a unit. */
export interface GaugeReading {
  readonly value: number;
  readonly unit: UnitName;
  readonly quantity: Quantity | null;
  /** In the base unit of the quantity; the number itself where the line names no unit. */
  readonly base: number;
}

/** What most gauges that send plain text send: a signed number, then perhaps a unit. */
export const GAUGE_PATTERN = String.raw`([+-]?\s*\d+(?:[.,]\d+)?)\s*([a-zA-Z·"]*)`;
/** Longest line that is looked at. */
const LINE = 200;

/**
 * A reader of the lines of a gauge: the first group of the pattern is the number, the second one the unit. A line without a
 * reading, or with a unit that nobody knows, gives null.
 * Not counted: protocols of makers; only plain text is read.
 * @throws InputError naming `pattern` where it is no regular expression or has no group
 */
export function gaugeReader(pattern: string = GAUGE_PATTERN): (line: string) => GaugeReading | null {
  let expression: RegExp;
  try {
    expression = new RegExp(pattern);
  } catch {
    throw new InputError('pattern', 'pattern is not a regular expression.', 'one with a group for the number');
  }
  if (pattern.length > 200 || (new RegExp(`${pattern}|`).exec('')?.length ?? 0) < 2)
    throw new InputError(
      'pattern',
      'pattern has no group for the number, or is too long.',
      'at most 200 characters, one group',
    );
  const known = Object.entries(UNITS) as [Exclude<UnitName, ''>, (typeof UNITS)[Exclude<UnitName, ''>]][];
  return (line) => {
    const found = expression.exec(line.slice(0, LINE));
    const value = Number((found?.[1] ?? '').replace(/\s/g, '').replace(',', '.'));
    if (!found?.[1] || !Number.isFinite(value)) return null;
    const text = (found[2] ?? '').trim().toLowerCase();
    if (text === '') return { value, unit: '', quantity: null, base: value };
    const unit = known.find(([name, { aliases }]) => name.toLowerCase() === text || aliases.includes(text));
    if (!unit) return null;
    const [name, { quantity, toBase, offset = 0 }] = unit;
    return { value, unit: name, quantity, base: value * toBase + offset };
  };
}
