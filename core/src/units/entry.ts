import { cutText } from '../text';
import { InputError, describeRange, type NumberRange } from '../errors';
import { formatIn, saySmall, unitLabel } from './format';
import { UNITS, scaleUnit, toBase, type Quantity, type Scale, type UnitName, type UnitSystem } from './quantities';

/**
 * A value as somebody typed it. `value` is in `unit`, exactly the number that was typed, so that 0.008 in never
 * comes back as 0.00799.
 */
export interface Entry {
  readonly typed: string;
  readonly value: number;
  readonly unit: UnitName;
}

export interface EntryRules {
  /** Name of the field in error messages. */
  readonly field: string;
  readonly quantity: Quantity;
  /** Decides with the system how a number without a unit is read; the quantity's ordinary one where none is told. */
  readonly scale?: Scale;
  /** How a number without a unit is read. */
  readonly system: UnitSystem;
  /** Absolute limits, in the base unit. */
  readonly range: NumberRange;
  /**
   * Usual values in base units. A bare number that is usual only in the other system is read there, and the
   * entry's note says so.
   */
  readonly usual?: readonly [number, number];
}

export interface UnderstoodEntry {
  readonly entry: Entry;
  /** The value in the base unit of the quantity. */
  readonly base: number;
  /** Said beside the field when the reading was a choice. */
  readonly note?: string;
  /** Every reading that was typed, where several were. */
  readonly all?: readonly Entry[];
}

const NUMBER = String.raw`(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?`;
const SHAPE = new RegExp(
  String.raw`^([+-]?)\s*(?:(\d+)\s+)?(?:(\d+(?:[.,]\d+)?)\s*([/:])\s*(\d+(?:[.,]\d+)?)|(${NUMBER}))\s*([^\d\s].*)?$`,
  'i',
);

const toNumber = (text: string): number => Number(text.replace(',', '.'));

function unitFrom(text: string, quantity: Quantity): UnitName | undefined {
  const wanted = text.toLowerCase().replace(/\s+/g, '').replace(/\.$/, '');
  for (const [name, unit] of Object.entries(UNITS) as [Exclude<UnitName, ''>, (typeof UNITS)['mm']][]) {
    if (unit.quantity === quantity && unit.aliases.includes(wanted)) return name;
  }
  return undefined;
}

const unitsOf = (quantity: Quantity): string =>
  Object.entries(UNITS)
    .filter(([, unit]) => unit.quantity === quantity)
    .map(([name]) => name)
    .join(', ');

function inside(base: number, range: NumberRange): boolean {
  if (range.above !== undefined ? base <= range.above : base < (range.min ?? -range.max)) return false;
  return base <= range.max && (!range.integer || Number.isInteger(base));
}

/**
 * Reads what a builder types: `8 thou`, `.008`, `0,2 mm`, `7/16 in`, `1 3/8"`, `41/11` for a ratio.
 * A bare fraction of a length is inches; a bare number is in the unit of `rules.system`, unless it is usual only in
 * the other system (see {@link EntryRules.usual}).
 * @throws InputError naming the field for empty text, text that is no number, unknown units, numbers out of range
 */
export function parseEntry(text: string, rules: EntryRules): UnderstoodEntry {
  const { field, quantity, range } = rules;
  const allowed = `${describeRange(range)}${unitsOf(quantity) ? `; units ${unitsOf(quantity)}` : ''}`;
  const typed = text.trim();
  if (typed === '') throw new InputError(field, `${field} is empty.`, allowed);
  const match = SHAPE.exec(typed);
  if (!match || typed.length > 40)
    throw new InputError(field, `${field}: “${cutText(typed, 40)}” is not a number.`, allowed);
  const [, sign, whole, over, slash, under, plain, unitText] = match;
  const isFraction = over !== undefined && under !== undefined;
  if ((slash === ':' && quantity !== 'ratio') || (whole !== undefined && !isFraction)) {
    throw new InputError(field, `${field}: “${typed}” is not a number.`, allowed);
  }
  const magnitude = isFraction ? toNumber(whole ?? '0') + toNumber(over) / toNumber(under) : toNumber(plain ?? '');
  const value = sign === '-' ? -magnitude : magnitude;
  let unit: UnitName;
  let note: string | undefined;
  if (unitText !== undefined) {
    const named = unitFrom(unitText, quantity);
    if (named === undefined) {
      throw new InputError(field, `${field}: “${unitText.trim()}” is not a unit of this field.`, allowed);
    }
    unit = named;
  } else if (isFraction && quantity === 'length') {
    unit = 'in';
  } else {
    unit = scaleUnit(quantity, rules.system, rules.scale).unit;
    const other = scaleUnit(quantity, rules.system === 'inch' ? 'metric' : 'inch', rules.scale).unit;
    if (rules.usual && other !== unit) {
      const [low, high] = rules.usual;
      const usualIn = (u: UnitName): boolean => toBase(value, u) >= low && toBase(value, u) <= high;
      if (!usualIn(unit) && usualIn(other)) {
        note = `read as ${other}: ${value} ${unit} would be out of the ordinary here`;
        unit = other;
      }
    }
  }
  const base = toBase(value, unit);
  if (!Number.isFinite(base) || !inside(base, range)) {
    const shown = Number.isFinite(base) ? `${formatPlain(value)}${unit ? ` ${unit}` : ''}` : typed;
    throw new InputError(field, `${field} is ${shown}; it must be ${describeRange(range)}.`, allowed);
  }
  return { entry: { typed, value, unit }, base, ...(note === undefined ? {} : { note }) };
}

/** Readings of one thing, apart by semicolons; more than this on one line is a mistake. */
const MOST_READINGS = 12;

/**
 * Several readings of one thing, `78.5; 78.2; 78.9 thou`: the least counts, since a piece is as thick as where it is
 * thinnest. A reading without a unit takes the unit of the last one. One reading alone is read as {@link parseEntry} does.
 * @returns the least, with a note that says how many there were and how far they lie apart
 * @throws InputError as {@link parseEntry}, and for more than 12 readings
 */
export function parseLeast(text: string, rules: EntryRules): UnderstoodEntry {
  const parts = text.split(';').map((part) => part.trim());
  if (parts.length === 1) return parseEntry(text, rules);
  if (parts.length > MOST_READINGS)
    throw new InputError(rules.field, `${rules.field} has ${parts.length} readings.`, `at most ${MOST_READINGS}`);
  const unitText = /[^\d\s].*$/.exec((parts.at(-1) ?? '').replace(/^[\s+-]*[\d.,/]+(?:\s+\d+\/\d+)?/, ''))?.[0] ?? '';
  const all = parts.map((part) => parseEntry(/[a-z"′″”°%]/i.test(part) ? part : `${part} ${unitText}`, rules));
  const bases = all.map(({ base }) => base);
  const least = all.find(({ base }) => base === Math.min(...bases)) as UnderstoodEntry;
  const apart = saySmall(Math.max(...bases) - least.base, rules.system);
  const spread = rules.quantity === 'length' ? `, ${apart} apart` : '';
  const note = `least of ${parts.length}${spread}`;
  return { entry: least.entry, base: least.base, note, all: all.map(({ entry }) => entry) };
}

const formatPlain = (value: number): string => String(Number(value.toPrecision(8)));

/** The entry's value in the base unit of its quantity. */
export function entryBase(entry: Entry): number {
  return toBase(entry.value, entry.unit);
}

/** An entry for a value that was not typed but taken from elsewhere (a default, a figure). */
export function entryOf(value: number, unit: UnitName): Entry {
  return { typed: unit === '' ? formatPlain(value) : `${formatPlain(value)} ${unitLabel(unit)}`, value, unit };
}

/** What a field shows: the typed text in the system it was typed in, else the value in the chosen system. */
export function entryText(entry: Entry, quantity: Quantity, system: UnitSystem, scale?: Scale): string {
  const typedIn = entry.unit === '' ? 'both' : UNITS[entry.unit].system;
  if (typedIn === 'both' || typedIn === system) return entry.typed;
  const shown = formatIn(entryBase(entry), quantity, system, undefined, scale);
  return shown.unit ? `${shown.text} ${unitLabel(shown.unit)}` : shown.text;
}
