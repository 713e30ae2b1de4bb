import { InputError } from '../base/errors';
import { numberReadings, type DecimalSign } from '../units/number';
import { NM_PER_LBF_FT, NM_PER_LBF_IN, UNITS, type Quantity, type UnitName } from '../units/quantities';

/** What gauges measure. */
export type GaugeQuantity = Extract<Quantity, 'length' | 'torque' | 'force' | 'angle'>;
const QUANTITIES: readonly Quantity[] = ['length', 'torque', 'force', 'angle'] satisfies GaugeQuantity[];

/** A unit of a gauge: as it was sent or said, and what it is worth in the base unit of its quantity. */
export interface GaugeUnit {
  readonly text: string;
  readonly quantity: GaugeQuantity;
  readonly toBase: number;
}

/** A reading as a gauge sends it, nothing rounded. */
export interface GaugeReading {
  readonly value: number;
  readonly unit: GaugeUnit;
  /** In the base unit of the quantity. */
  readonly base: number;
}

/** What a line says; a line that could mean two things says why it is not taken. */
export type GaugeLine =
  | { readonly kind: 'reading'; readonly reading: GaugeReading }
  | {
      readonly kind: 'refused';
      readonly why: 'no-unit' | 'unknown-unit' | 'several' | 'decimal-sign';
      readonly text: string;
    }
  | { readonly kind: 'nothing' };

/** Torque by its parts, whatever stands between them: `in-lb`, `lbf·in`, `N.m`, `kgf cm`; N·m. */
const FORCE_PARTS: Readonly<Record<string, number>> = {
  n: 1,
  cn: 0.01,
  dn: 0.1,
  kn: 1000,
  kgf: 9.80665,
  kg: 9.80665,
  kp: 9.80665,
};
const LENGTH_PARTS: Readonly<Record<string, number>> = { m: 1, cm: 0.01, mm: 0.001 };
const POUND_PARTS = ['lbf', 'lb', 'lbs', 'pound', 'pounds'];
const OUNCE_PARTS = ['ozf', 'oz'];
const FOOT_PARTS = ['ft', 'foot', 'feet'];
const INCH_PARTS = ['in', 'inch', 'inches'];

/** Newton metres by two words in either order; null where they are no torque. */
function torqueOf(one: string, other: string): number | null {
  for (const [force, length] of [
    [one, other],
    [other, one],
  ] as const) {
    const [newtons, metres] = [FORCE_PARTS[force], LENGTH_PARTS[length]];
    if (newtons !== undefined && metres !== undefined) return newtons * metres;
    if (POUND_PARTS.includes(force) && FOOT_PARTS.includes(length)) return NM_PER_LBF_FT;
    if (POUND_PARTS.includes(force) && INCH_PARTS.includes(length)) return NM_PER_LBF_IN;
    if (OUNCE_PARTS.includes(force) && INCH_PARTS.includes(length)) return NM_PER_LBF_IN / 16;
  }
  return null;
}

const SEPARATOR = /[\s·.\-*⋅∙•×_]+/;
const FORCES = [...Object.keys(FORCE_PARTS), ...POUND_PARTS, ...OUNCE_PARTS];
const LENGTHS = [...Object.keys(LENGTH_PARTS), ...FOOT_PARTS, ...INCH_PARTS];

/**
 * A unit in whatever spelling a gauge has: lengths, forces and angles by their names and signs, torque by its two parts in either order
 * with anything between them.
 * Not counted: units of anything else, which are none here.
 * @returns null for what is no unit of a gauge
 */
export function gaugeUnit(text: string): GaugeUnit | null {
  const said = text.trim();
  const low = said.toLowerCase().replaceAll('μ', 'µ');
  const parts = low.split(SEPARATOR).filter(Boolean);
  const [one = '', other = ''] = parts;
  let nm = parts.length === 2 ? torqueOf(one, other) : null;
  if (parts.length === 1)
    for (let i = 1; i < one.length && nm === null; i++) {
      const [head, tail] = [one.slice(0, i), one.slice(i)];
      // Glued together only whole words count: `nm`, `inlb`, `kgfcm`.
      if ((FORCES.includes(head) && LENGTHS.includes(tail)) || (LENGTHS.includes(head) && FORCES.includes(tail)))
        nm = torqueOf(head, tail);
    }
  // `mm` is a length, `m·m` nothing: what is a length by its own name comes first.
  const plain = Object.entries(UNITS).find(
    ([name, { quantity, aliases }]) =>
      QUANTITIES.includes(quantity) &&
      quantity !== 'torque' &&
      (name === said || aliases.includes(low) || name.toLowerCase() === low),
  );
  // A lone M is a mark of the gauge, not a metre.
  if (plain && !(plain[0] === 'm' && said !== 'm')) {
    const [, { quantity, toBase }] = plain;
    return { text: said, quantity: quantity as GaugeQuantity, toBase };
  }
  return nm === null ? null : { text: said, quantity: 'torque', toBase: nm };
}

/** A unit of ours that is worth as much, to write a reading with; null where there is none. */
export function unitNameOf({ quantity, toBase }: GaugeUnit): UnitName | null {
  const found = Object.entries(UNITS).find(
    ([, one]) => one.quantity === quantity && Math.abs(one.toBase / toBase - 1) < 1e-9,
  );
  return found ? (found[0] as UnitName) : null;
}

/** Longest line that is looked at. */
const LINE = 200;
const NUMBER = String.raw`[+\-−–]?\s*(?:\d[\d.,]*|[.,]\d+)(?:[eE][+-]?\d+)?`;
const WORD = String.raw`[a-zA-Zµμ°"″”]+`;
/** A number that is no part of a name, a time or a date, then perhaps a word or two. */
const FOUND = new RegExp(
  String.raw`(?<![A-Za-z0-9:.,_#/])(${NUMBER})(?![\d:]|[-/]\d)(\s*)((?:${WORD})(?:[\s·.\-*⋅∙•×_]{0,2}(?:${WORD}))?)?`,
  'g',
);

/** A number as gauges write it; `two` where a comma may be either sign. */
function numberOf(text: string, decimal: DecimalSign | undefined): number | 'two' | null {
  const said = text.replace(/\s/g, '').replace(/[−–]/g, '-').replace(/[.,]$/, '');
  const minus = said.startsWith('-');
  const digits = said.replace(/^[+-]/, '');
  const readings = numberReadings(digits, /^\d+[.]\d+$/.test(digits) ? 'point' : decimal);
  const [value] = readings;
  if (value === undefined || !Number.isFinite(value)) return null;
  if (readings.length > 1) return 'two';
  return minus ? -value : value;
}

interface Candidate {
  readonly text: string;
  readonly unit: GaugeUnit | null;
  /** A word stands behind it that is no unit. */
  readonly unknown: boolean;
}

function candidatesOf(line: string): readonly Candidate[] {
  return [...line.matchAll(FOUND)].flatMap((found): Candidate[] => {
    const [, text = '', blank = '', words = ''] = found;
    const first = /^[a-zA-Zµμ°"″”]+/.exec(words)?.[0] ?? '';
    const unit = words === '' ? null : (gaugeUnit(words) ?? gaugeUnit(first));
    // `01A`: a number with a letter at it is a name.
    if (words !== '' && !unit && blank === '') return [];
    return [{ text, unit, unknown: words !== '' && !unit }];
  });
}

const refused = (why: Extract<GaugeLine, { kind: 'refused' }>['why'], text: string): GaugeLine => ({
  kind: 'refused',
  why,
  text,
});

/**
 * A reader of the lines of a gauge. A number with its unit is found beside channels, times and dates; signs may be typographic, digits
 * may begin with a point. Nothing is guessed: a number without a unit is refused until `unit` says what this gauge reads in, two values
 * until `pattern` says which, `1,234` until `decimal` says which sign that is.
 * Not counted: protocols of makers; only plain text is read.
 * @param of.pattern a regular expression of one's own: its first group is the number, its second one, if any, the unit
 * @throws InputError naming `pattern` where it is no regular expression or has no group, `unit` for what is no unit of a gauge
 */
export function gaugeReader(
  of: { readonly pattern?: string; readonly unit?: string; readonly decimal?: DecimalSign } = {},
): (line: string) => GaugeLine {
  const { pattern = '', unit = '', decimal } = of;
  const usual = unit === '' ? null : gaugeUnit(unit);
  if (unit !== '' && !usual)
    throw new InputError('unit', `“${unit}” is no unit of a gauge.`, 'mm, in, µm, N·m, lbf·in, N, °');
  const expression = pattern === '' ? null : expressionOf(pattern);
  const read = ({ text, unit: sent, unknown }: Candidate): GaugeLine => {
    if (unknown) return refused('unknown-unit', text);
    const by = sent ?? usual;
    const value = numberOf(text, decimal);
    if (value === null) return { kind: 'nothing' };
    if (value === 'two') return refused('decimal-sign', text);
    if (!by) return refused('no-unit', text);
    return { kind: 'reading', reading: { value, unit: by, base: value * by.toBase } };
  };
  return (line) => {
    const text = line.slice(0, LINE);
    if (expression) {
      const found = expression.exec(text);
      if (found?.[1] === undefined) return { kind: 'nothing' };
      const word = (found[2] ?? '').trim();
      const sent = word === '' ? null : gaugeUnit(word);
      return read({ text: found[1], unit: sent, unknown: word !== '' && !sent });
    }
    const all = candidatesOf(text);
    const withUnit = all.filter(({ unit: sent }) => sent !== null);
    const chosen = withUnit.length > 0 ? withUnit : all.filter(({ unknown }) => !unknown);
    if (chosen.length > 1) return refused('several', text.trim());
    const one = chosen[0] ?? all[0];
    return one ? read(one) : { kind: 'nothing' };
  };
}

function expressionOf(pattern: string): RegExp {
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
  return expression;
}
