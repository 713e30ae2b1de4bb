/** What a number measures. Inside the program each quantity has one base unit. */
export type Quantity =
  | 'length'
  | 'speed'
  | 'torque'
  | 'force'
  | 'angle'
  | 'ratio'
  | 'rotation'
  | 'count'
  | 'coefficient'
  | 'percent'
  | 'turns-per-distance'
  | 'stiffness'
  | 'mass'
  | 'power'
  | 'area'
  | 'distance'
  | 'time'
  | 'text';

export type UnitSystem = 'inch' | 'metric';

/** 1 in in mm [exact]. */
export const MM_PER_INCH = 25.4;
/** 1 lbf·ft in N·m [standard: NIST SP 811]. */
export const NM_PER_LBF_FT = 1.3558179483;
/** 1 lbf·in in N·m [standard: NIST SP 811]. */
export const NM_PER_LBF_IN = 0.112984829;
/** 1 lbf in N [standard: NIST SP 811]. */
export const N_PER_LBF = 4.4482216153;
/** 1 mile in m [exact]. */
export const M_PER_MILE = 1609.344;
/** 1 mph in m/s [exact]. */
export const MPS_PER_MPH = M_PER_MILE / 3600;
/** 1 ft in m [exact]. */
export const M_PER_FOOT = 0.3048;
/** 1 lb in kg [exact]. */
export const KG_PER_LB = 0.45359237;
/** 1 hp (550 ft·lbf/s) in W [standard: NIST SP 811]. */
export const WATT_PER_HP = 745.69987;
/** 1 metric horsepower (75 m·kgf/s) in W [exact]. */
export const WATT_PER_PS = 735.49875;

export type UnitName =
  | 'mm'
  | 'cm'
  | 'm'
  | 'in'
  | 'thou'
  | 'm/s'
  | 'km/h'
  | 'mph'
  | 'N·m'
  | 'lbf·ft'
  | 'lbf·in'
  | 'N'
  | 'kN'
  | 'lbf'
  | 'N/mm'
  | 'lbf/in'
  | '°'
  | 'rpm'
  | 'turns/km'
  | 'turns/mile'
  | '%'
  | 'kg'
  | 'lb'
  | 'W'
  | 'kW'
  | 'hp'
  | 'PS'
  | 'm²'
  | 'ft²'
  | 'metre'
  | 'km'
  | 'ft'
  | 'mile'
  | 's'
  | 'ms'
  | '';

export interface UnitDefinition {
  readonly quantity: Quantity;
  /** Base units in one of this unit. */
  readonly toBase: number;
  /** The system that a builder who types this unit works in; both for the neutral ones. */
  readonly system: UnitSystem | 'both';
  /** Other spellings, lower case, no blanks. */
  readonly aliases: readonly string[];
}

/** Base units: mm, m/s, N·m, N, N/mm, degrees, rpm, turns per km, kg, W, m², m, s. */
export const UNITS: Readonly<Record<Exclude<UnitName, ''>, UnitDefinition>> = {
  mm: { quantity: 'length', toBase: 1, system: 'metric', aliases: ['mm', 'millimetre', 'millimeter'] },
  cm: { quantity: 'length', toBase: 10, system: 'metric', aliases: ['cm'] },
  m: { quantity: 'length', toBase: 1000, system: 'metric', aliases: ['m'] },
  in: { quantity: 'length', toBase: MM_PER_INCH, system: 'inch', aliases: ['in', 'inch', 'inches', '"', '″', '”'] },
  thou: { quantity: 'length', toBase: MM_PER_INCH / 1000, system: 'inch', aliases: ['thou', 'th'] },
  'm/s': { quantity: 'speed', toBase: 1, system: 'metric', aliases: ['m/s', 'mps'] },
  'km/h': { quantity: 'speed', toBase: 1 / 3.6, system: 'metric', aliases: ['km/h', 'kmh', 'kph'] },
  mph: { quantity: 'speed', toBase: MPS_PER_MPH, system: 'inch', aliases: ['mph'] },
  'N·m': { quantity: 'torque', toBase: 1, system: 'metric', aliases: ['n·m', 'nm', 'n.m', 'n*m'] },
  'lbf·ft': {
    quantity: 'torque',
    toBase: NM_PER_LBF_FT,
    system: 'inch',
    aliases: ['lbf·ft', 'lbfft', 'lbf.ft', 'lbf-ft', 'lbft', 'lb-ft', 'lb·ft', 'ftlb', 'ft-lb', 'ftlbf', 'ft·lbf'],
  },
  'lbf·in': {
    quantity: 'torque',
    toBase: NM_PER_LBF_IN,
    system: 'inch',
    aliases: ['lbf·in', 'lbfin', 'lbf.in', 'lbf-in', 'lbin', 'lb-in', 'lb·in', 'inlb', 'in-lb', 'inlbf', 'in·lbf'],
  },
  N: { quantity: 'force', toBase: 1, system: 'metric', aliases: ['n'] },
  kN: { quantity: 'force', toBase: 1000, system: 'metric', aliases: ['kn'] },
  lbf: { quantity: 'force', toBase: N_PER_LBF, system: 'inch', aliases: ['lbf', 'lb', 'lbs'] },
  'N/mm': { quantity: 'stiffness', toBase: 1, system: 'metric', aliases: ['n/mm'] },
  'lbf/in': {
    quantity: 'stiffness',
    toBase: N_PER_LBF / MM_PER_INCH,
    system: 'inch',
    aliases: ['lbf/in', 'lb/in', 'lbs/in'],
  },
  '°': { quantity: 'angle', toBase: 1, system: 'both', aliases: ['°', 'deg', 'degree', 'degrees'] },
  rpm: { quantity: 'rotation', toBase: 1, system: 'both', aliases: ['rpm', '1/min', 'r/min'] },
  'turns/km': { quantity: 'turns-per-distance', toBase: 1, system: 'metric', aliases: ['turns/km', '/km'] },
  'turns/mile': {
    quantity: 'turns-per-distance',
    toBase: 1000 / M_PER_MILE,
    system: 'inch',
    aliases: ['turns/mile', '/mile', '/mi'],
  },
  '%': { quantity: 'percent', toBase: 1, system: 'both', aliases: ['%', 'percent'] },
  kg: { quantity: 'mass', toBase: 1, system: 'metric', aliases: ['kg'] },
  lb: { quantity: 'mass', toBase: KG_PER_LB, system: 'inch', aliases: ['lb', 'lbs', 'lbm'] },
  W: { quantity: 'power', toBase: 1, system: 'metric', aliases: ['w'] },
  kW: { quantity: 'power', toBase: 1000, system: 'metric', aliases: ['kw'] },
  hp: { quantity: 'power', toBase: WATT_PER_HP, system: 'inch', aliases: ['hp', 'bhp'] },
  PS: { quantity: 'power', toBase: WATT_PER_PS, system: 'metric', aliases: ['ps', 'cv', 'ch'] },
  'm²': { quantity: 'area', toBase: 1, system: 'metric', aliases: ['m²', 'm2', 'm^2', 'sqm'] },
  'ft²': { quantity: 'area', toBase: M_PER_FOOT ** 2, system: 'inch', aliases: ['ft²', 'ft2', 'ft^2', 'sqft'] },
  metre: { quantity: 'distance', toBase: 1, system: 'metric', aliases: ['m', 'metre', 'metres', 'meter', 'meters'] },
  km: { quantity: 'distance', toBase: 1000, system: 'metric', aliases: ['km'] },
  ft: { quantity: 'distance', toBase: M_PER_FOOT, system: 'inch', aliases: ['ft', 'feet', 'foot'] },
  mile: { quantity: 'distance', toBase: M_PER_MILE, system: 'inch', aliases: ['mile', 'miles', 'mi'] },
  s: { quantity: 'time', toBase: 1, system: 'both', aliases: ['s', 'sec'] },
  ms: { quantity: 'time', toBase: 0.001, system: 'both', aliases: ['ms'] },
};

/** The unit a bare number is read in, and in which a figure is shown, by the builder's system. */
export const SYSTEM_UNITS: Readonly<Record<Quantity, Readonly<Record<UnitSystem, UnitName>>>> = {
  length: { inch: 'in', metric: 'mm' },
  speed: { inch: 'mph', metric: 'km/h' },
  torque: { inch: 'lbf·ft', metric: 'N·m' },
  force: { inch: 'lbf', metric: 'N' },
  angle: { inch: '°', metric: '°' },
  ratio: { inch: '', metric: '' },
  rotation: { inch: 'rpm', metric: 'rpm' },
  count: { inch: '', metric: '' },
  coefficient: { inch: '', metric: '' },
  percent: { inch: '%', metric: '%' },
  'turns-per-distance': { inch: 'turns/mile', metric: 'turns/km' },
  stiffness: { inch: 'lbf/in', metric: 'N/mm' },
  mass: { inch: 'lb', metric: 'kg' },
  power: { inch: 'hp', metric: 'kW' },
  area: { inch: 'ft²', metric: 'm²' },
  distance: { inch: 'ft', metric: 'metre' },
  time: { inch: 's', metric: 's' },
  text: { inch: '', metric: '' },
};

/** Base units in one `unit`; 1 for plain numbers. */
export function toBaseFactor(unit: UnitName): number {
  return unit === '' ? 1 : UNITS[unit].toBase;
}
