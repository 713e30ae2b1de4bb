import { cutText } from '../base/text';
import { InputError, describeRange, type NumberRange } from '../base/errors';
import { formatIn, saySmall, unitLabel } from './format';
import { inThousands, numberReadings, type DecimalSign } from './number';
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
   * Usual values in base units. Of two readings of `1,480` the usual one is taken; a bare number that is usual in no way, but would be
   * in another unit or a place further, is doubted.
   */
  readonly usual?: readonly [number, number];
  /** What separates decimals here; by plausibility where it is not known. */
  readonly decimal?: DecimalSign | undefined;
  /** Whether a doubt is told, as somebody can be asked: what can't be is then doubted too where another reading can. */
  readonly doubts?: boolean;
}

/** What was typed should not be taken without asking. */
export interface Doubt {
  /** As it was typed; null where that is impossible, and why. */
  readonly asTyped: Entry | null;
  readonly why: string;
  /** Readings that would be usual, likeliest first. */
  readonly likely: readonly Entry[];
}

export interface UnderstoodEntry {
  readonly entry: Entry;
  /** The value in the base unit of the quantity. */
  readonly base: number;
  /** Said beside the field when the reading was a choice. */
  readonly note?: string;
  /** Only where doubts are asked for. */
  readonly doubt?: Doubt;
  /** Every reading that was typed, where several were. */
  readonly all?: readonly Entry[];
}

const NUMBER = String.raw`(?:\d{1,3}(?:[ '’\u00a0\u202f]\d{3})+(?:[.,]\d+)?|\d[\d.,]*|[.,]\d+)(?:e[+-]?\d+)?`;
const SHAPE = new RegExp(
  String.raw`^([+-]?)\s*(?:(?:(\d+)\s+)?(\d+(?:[.,]\d+)?)\s*([/:])\s*(\d+(?:[.,]\d+)?)|(${NUMBER}))\s*([^\d\s].*)?$`,
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

/** One way to read a text. */
interface Reading {
  readonly value: number;
  readonly unit: UnitName;
  readonly base: number;
}

/** What a text says, before anybody has judged it: its numbers – several where the signs allow it – and its unit. */
interface Parsed {
  readonly values: readonly number[];
  /** As it was named; undefined for a bare number. */
  readonly unit: UnitName | undefined;
  readonly fraction: boolean;
}

function parsed(typed: string, { field, quantity, decimal }: EntryRules, allowed: string): Parsed {
  const refuse = (): InputError => new InputError(field, `${field}: “${cutText(typed, 40)}” is not a number.`, allowed);
  const match = SHAPE.exec(typed);
  if (!match || typed.length > 40) throw refuse();
  const [, sign, whole, over, slash, under, plain, unitText] = match;
  const fraction = over !== undefined && under !== undefined;
  if (slash === ':' && quantity !== 'ratio') throw refuse();
  const magnitudes = fraction
    ? [toNumber(whole ?? '0') + toNumber(over) / toNumber(under)]
    : numberReadings(plain ?? '', decimal);
  if (magnitudes.length === 0) throw refuse();
  const unit = unitText === undefined ? undefined : unitFrom(unitText, quantity);
  if (unitText !== undefined && unit === undefined)
    throw new InputError(field, `${field}: “${unitText.trim()}” is not a unit of this field.`, allowed);
  return { values: magnitudes.map((one) => (sign === '-' ? -one : one)), unit, fraction };
}

/** Readings that would be usual where what was typed is not: another unit, or a decimal sign places off in the shop's own. */
function likelyReadings(values: readonly number[], own: UnitName, rules: EntryRules): readonly Entry[] {
  const { quantity, range, usual, scale } = rules;
  if (!usual) return [];
  const units = new Set<UnitName>([
    scaleUnit(quantity, 'inch', scale).unit,
    scaleUnit(quantity, 'metric', scale).unit,
    ...(quantity === 'length' ? (['thou', 'in', 'mm'] as const) : []),
  ]);
  const ways = [
    ...[...units].map((unit) => ({ unit, factor: 1 })),
    ...[0.1, 10, 0.01, 100, 0.001, 1000].map((factor) => ({ unit: own, factor })),
  ];
  const found: { entry: Entry; base: number }[] = [];
  for (const { unit, factor } of ways)
    for (const one of values) {
      const value = Number((one * factor).toPrecision(12));
      const base = toBase(value, unit);
      const known = found.some((other) => Math.abs(other.base - base) <= 1e-9 * Math.abs(base));
      if (base >= usual[0] && base <= usual[1] && inside(base, range) && !known)
        found.push({ entry: entryOf(value, unit), base });
    }
  return found.slice(0, 3).map(({ entry }) => entry);
}

/**
 * Reads what a builder types: `8 thou`, `.008`, `0,2 mm`, `1,480 kg`, `7/16 in`, `1 3/8"`, `41/11` for a ratio.
 * A bare fraction of a length is inches; a bare number is in the unit of `rules.system`. Three digits behind a lone comma or point are
 * the rest of a thousand in what is met in thousands (a mass, a speed, an engine speed, a price); elsewhere what is usual decides, or the range,
 * else they are decimals. A unit is never guessed: where `rules.doubts` is set a bare number that is unusual comes with the readings
 * that would be usual.
 * @throws InputError naming the field for empty text, text that is no number, unknown units, numbers out of range
 */
export function parseEntry(text: string, rules: EntryRules): UnderstoodEntry {
  const { field, quantity, range, usual } = rules;
  const allowed = `${describeRange(range)}${unitsOf(quantity) ? `; units ${unitsOf(quantity)}` : ''}`;
  const typed = text.trim();
  if (typed === '') throw new InputError(field, `${field} is empty.`, allowed);
  const { values: all, unit: named, fraction } = parsed(typed, rules, allowed);
  // What is met in thousands is read so, or not at all: 999,999 rpm is no thousand.
  const values = inThousands(quantity) ? all.slice(-1) : all;
  const unit =
    named ??
    (fraction && quantity === 'length' ? ('in' as const) : scaleUnit(quantity, rules.system, rules.scale).unit);
  const readings = values.map((value): Reading => ({ value, unit, base: toBase(value, unit) }));
  const isUsual = ({ base }: Reading): boolean => !usual || (base >= usual[0] && base <= usual[1]);
  const possible = readings.filter(({ base }) => Number.isFinite(base) && inside(base, range));
  const chosen = meant(possible, isUsual, usual !== undefined);
  const likely = (): readonly Entry[] => likelyReadings(values, unit, rules);
  if (!chosen) {
    const [first] = readings as [Reading];
    const shown = Number.isFinite(first.base) ? `${formatPlain(first.value)}${unit ? ` ${unit}` : ''}` : typed;
    const why = `${field} is ${shown}; it must be ${describeRange(range)}.`;
    const others = rules.doubts && named === undefined ? likely() : [];
    const [entry] = others;
    if (!entry) throw new InputError(field, why, allowed);
    return { entry, base: entryBase(entry), doubt: { asTyped: null, why, likely: others } };
  }
  const entry: Entry = { typed, value: chosen.value, unit };
  const told = {
    entry,
    base: chosen.base,
    ...(all.length > 1 ? { note: `read as ${formatPlain(chosen.value)}` } : {}),
  };
  if (!rules.doubts) return told;
  // Both could be meant: where a comma stands in what is not met in thousands, and neither is unusual.
  const other = possible.find((one) => one !== chosen);
  if (other && typed.includes(',') && isUsual(other) === isUsual(chosen)) {
    const both = [chosen, other].map(({ value }) => entryOf(value, unit));
    return { ...told, doubt: { asTyped: null, why: `${typed} can be read in two ways.`, likely: both } };
  }
  if (isUsual(chosen) || named !== undefined) return told;
  const others = likely();
  return others.length === 0
    ? told
    : { ...told, doubt: { asTyped: entry, why: 'far from what this usually is', likely: others } };
}

/** Of what a text can mean, decimals before thousands: the one that is usual where just one is, else the first. */
function meant(
  possible: readonly Reading[],
  isUsual: (one: Reading) => boolean,
  decides: boolean,
): Reading | undefined {
  const usuals = possible.filter(isUsual);
  return possible.length > 1 && decides && usuals.length === 1 ? usuals[0] : possible[0];
}

/** Whether the typed text, as it stands or with the unit that it was read in, can say the value. */
export function entrySays({ typed, value, unit }: Entry, quantity: Quantity): boolean {
  const rules = { field: 'typed', quantity, system: 'metric', range: { min: -1e300, max: 1e300 } } as const;
  return [typed, ...(unit === '' ? [] : [`${typed} ${unit}`])].some((text) => {
    try {
      const { values, unit: named, fraction } = parsed(text.trim(), rules, '');
      const own = named ?? (fraction && quantity === 'length' ? 'in' : scaleUnit(quantity, 'metric').unit);
      return own === unit && values.includes(value);
    } catch (error) {
      if (error instanceof InputError) return false;
      throw error;
    }
  });
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
  // Among several nobody is asked: what can't be is refused.
  const each = { ...rules, doubts: false };
  const all = parts.map((part) => parseEntry(/[a-z"′″”°%]/i.test(part) ? part : `${part} ${unitText}`, each));
  const bases = all.map(({ base }) => base);
  const least = all.find(({ base }) => base === Math.min(...bases)) as UnderstoodEntry;
  const apart = saySmall(Math.max(...bases) - least.base, rules.system);
  const spread = rules.quantity === 'length' ? `, ${apart} apart` : '';
  const note = `least of ${parts.length}${spread}`;
  return { entry: least.entry, base: least.base, note, all: all.map(({ entry }) => entry) };
}

/** Where one value of a row ends and the next begins: a semicolon, a comma with a blank, a blank before a number. */
const BETWEEN = /\s*;\s*|,\s+|\s+(?=[+-]?[\d.,]*\d)/;

/**
 * Values of things that are alike, in the order in which they lie: `2.05 2.04 2.06 mm`, `3,15; 2,07; 1,49`. One without a unit takes the
 * unit of the last. One value alone is read as {@link parseEntry} does, mixed fractions (`1 3/8 in`) included.
 * @param most values at the most
 * @throws InputError as {@link parseEntry}, and for more of them
 */
export function parseRow(text: string, rules: EntryRules, most: number): readonly UnderstoodEntry[] {
  const typed = text.trim();
  const parts = /^[+-]?\d+\s+\d+\/\d+\D*$/.test(typed) ? [typed] : typed.split(BETWEEN).filter((part) => part !== '');
  if (parts.length < 2) return [parseEntry(text, rules)];
  if (parts.length > most)
    throw new InputError(rules.field, `${rules.field}: ${parts.length} values are too many.`, `at most ${most}`);
  const unitText = /[a-z"′″”°%].*$/i.exec(parts.at(-1) ?? '')?.[0] ?? '';
  // Among several nobody is asked: what can't be is refused.
  const each = { ...rules, doubts: false };
  return parts.map((part) => parseEntry(/[a-z"′″”°%]/i.test(part) ? part : `${part} ${unitText}`.trim(), each));
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
