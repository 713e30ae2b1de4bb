import { fromBase, scaleUnit, type Quantity, type Scale, type UnitName, type UnitSystem } from './quantities';

export interface Shown {
  readonly text: string;
  readonly unit: UnitName;
}

/** Decimals that a bench instrument can give, by unit. */
const DECIMALS: Readonly<Record<UnitName, number>> = {
  µm: 1,
  mm: 3,
  cm: 2,
  m: 3,
  in: 4,
  thou: 1,
  'm/s': 2,
  'km/h': 1,
  mph: 1,
  kn: 1,
  'rad/s': 1,
  min: 1,
  kgf·m: 2,
  N·m: 1,
  lbf·ft: 1,
  lbf·in: 1,
  N: 0,
  kN: 2,
  lbf: 0,
  'N/mm': 1,
  'lbf/in': 0,
  '°': 1,
  rpm: 0,
  'turns/km': 1,
  'turns/mile': 1,
  '%': 1,
  kg: 0,
  lb: 0,
  W: 0,
  kW: 1,
  hp: 0,
  PS: 0,
  'm²': 3,
  'ft²': 2,
  metre: 0,
  km: 3,
  ft: 0,
  mile: 3,
  s: 3,
  ms: 0,
  '°C': 0,
  '°F': 0,
  l: 2,
  ml: 0,
  qt: 2,
  'fl oz': 1,
  kPa: 0,
  bar: 2,
  psi: 0,
  '': 3,
};

const NBSP = '\u00a0';

/** Thin space between thousands, so that 11976 reads as 11 976. */
function group(text: string): string {
  const [whole = '', fraction] = text.split('.');
  const grouped =
    whole.length > 4 || (whole.length === 4 && fraction === undefined)
      ? whole.replace(/(\d)(?=(\d{3})+$)/g, '$1\u202f')
      : whole;
  return fraction === undefined ? grouped : `${grouped}.${fraction}`;
}

/** `base` (in the quantity's base unit) in a given unit, with the decimals that this unit deserves. */
export function formatUnit(base: number, unit: UnitName, decimals = DECIMALS[unit]): string {
  if (!Number.isFinite(base)) return '–';
  const fixed = fromBase(base, unit).toFixed(decimals);
  const text = Number(fixed) === 0 ? fixed.replace('-', '') : fixed;
  return text.startsWith('-') ? `−${group(text.slice(1))}` : group(text);
}

/** As many decimals as somebody measures: a wheelbase is not read to a micrometre. */
function usualDecimals(base: number, quantity: Quantity, unit: UnitName): number {
  if (quantity === 'count' || quantity === 'events') return 0;
  if (quantity === 'money') return 2;
  if (quantity === 'coefficient') return 3;
  return quantity === 'length' && Math.abs(base) >= 100 ? DECIMALS[unit] - 2 : DECIMALS[unit];
}

/** A figure in the builder's system, at its scale. */
export function formatIn(
  base: number,
  quantity: Quantity,
  system: UnitSystem,
  decimals?: number,
  scale?: Scale,
): Shown {
  const { unit, decimals: own } = scaleUnit(quantity, system, scale);
  return { text: formatUnit(base, unit, decimals ?? own ?? usualDecimals(base, quantity, unit)), unit };
}

/** A small length as the trade says it: thou in inch shops, hundredths of a millimetre in metric ones. */
export const formatSmall = (baseMm: number, system: UnitSystem): Shown =>
  formatIn(baseMm, 'length', system, undefined, 'small');

/** What is written otherwise than it is named: a metre of road has a name of its own among the units of length. */
const WRITTEN: Partial<Record<UnitName, string>> = { metre: 'm', mile: 'mi' };

/** A unit as it is written. */
export const unitLabel = (unit: UnitName): string => WRITTEN[unit] ?? unit;

/** `formatIn` as one string. */
export function say(base: number, quantity: Quantity, system: UnitSystem, decimals?: number, scale?: Scale): string {
  const { text, unit } = formatIn(base, quantity, system, decimals, scale);
  return unit === '' ? text : `${text}${unit === '°' ? '' : NBSP}${unitLabel(unit)}`;
}

/** A small length as one string, without a sign. */
export const saySmall = (baseMm: number, system: UnitSystem): string =>
  say(Math.abs(baseMm), 'length', system, undefined, 'small');
