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
  | 'temperature'
  | 'volume'
  | 'pressure'
  | 'money'
  | 'events'
  | 'text';

export type UnitSystem = 'inch' | 'metric';

/**
 * The size at which a quantity is met: a plate's thickness, a backlash and a wheelbase are all lengths, and a bare `8`
 * means 8 thou in one of them. What is named first for a quantity is what it has where no scale is told.
 */
export type Scale = 'plate' | 'small' | 'large' | 'bolt' | 'turning' | 'fill' | 'dose' | 'course' | 'trip' | 'work';

/** 1 in in mm [exact]. */
export const MM_PER_INCH = 25.4;
/** 1 lbf·ft in N·m [standard: NIST SP 811]. */
export const NM_PER_LBF_FT = 1.3558179483;
/** 1 lbf·in in N·m [standard: NIST SP 811]. */
export const NM_PER_LBF_IN = 0.112984829;
/** 1 lbf in N [standard: NIST SP 811]. */
export const N_PER_LBF = 4.4482216153;
/** 1 lbf/in² in kPa [standard: NIST SP 811]. */
export const KPA_PER_PSI = 6.894757;
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
/** 1 US liquid quart in l [exact: 57.75 in³]. */
export const L_PER_QUART = (57.75 * 25.4 ** 3) / 1e6;
/** 1 metric horsepower (75 m·kgf/s) in W [exact]. */
export const WATT_PER_PS = 735.49875;

export type UnitName =
  | 'mm'
  | 'µm'
  | 'cm'
  | 'm'
  | 'in'
  | 'thou'
  | 'm/s'
  | 'km/h'
  | 'mph'
  | 'kn'
  | 'N·m'
  | 'lbf·ft'
  | 'kgf·m'
  | 'lbf·in'
  | 'N'
  | 'kN'
  | 'lbf'
  | 'N/mm'
  | 'lbf/in'
  | '°'
  | 'rpm'
  | 'rad/s'
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
  | 'min'
  | '°C'
  | '°F'
  | 'l'
  | 'ml'
  | 'qt'
  | 'fl oz'
  | 'kPa'
  | 'bar'
  | 'psi'
  | '';

export interface UnitDefinition {
  readonly quantity: Quantity;
  /** Base units in one of this unit. */
  readonly toBase: number;
  /** What is added after that; 0 for every unit that starts where the base unit does. */
  readonly offset?: number;
  /** The system that a builder who types this unit works in; both for the neutral ones. */
  readonly system: UnitSystem | 'both';
  /** Other spellings, lower case, no blanks. */
  readonly aliases: readonly string[];
}

/** Base units: mm, m/s, N·m, N, N/mm, degrees, rpm, turns per km, kg, W, m², m, s, °C, l, kPa. */
export const UNITS: Readonly<Record<Exclude<UnitName, ''>, UnitDefinition>> = {
  mm: { quantity: 'length', toBase: 1, system: 'metric', aliases: ['mm', 'millimetre', 'millimeter'] },
  µm: { quantity: 'length', toBase: 0.001, system: 'metric', aliases: ['µm', 'μm', 'um', 'micron', 'microns'] },
  cm: { quantity: 'length', toBase: 10, system: 'metric', aliases: ['cm'] },
  m: { quantity: 'length', toBase: 1000, system: 'metric', aliases: ['m'] },
  in: { quantity: 'length', toBase: MM_PER_INCH, system: 'inch', aliases: ['in', 'inch', 'inches', '"', '″', '”'] },
  thou: { quantity: 'length', toBase: MM_PER_INCH / 1000, system: 'inch', aliases: ['thou', 'th'] },
  'm/s': { quantity: 'speed', toBase: 1, system: 'metric', aliases: ['m/s', 'mps'] },
  'km/h': { quantity: 'speed', toBase: 1 / 3.6, system: 'metric', aliases: ['km/h', 'kmh', 'kph'] },
  kn: { quantity: 'speed', toBase: 1852 / 3600, system: 'both', aliases: ['kn', 'kt', 'kts', 'knot', 'knots'] },
  mph: { quantity: 'speed', toBase: MPS_PER_MPH, system: 'inch', aliases: ['mph'] },
  N·m: { quantity: 'torque', toBase: 1, system: 'metric', aliases: ['n·m', 'nm', 'n.m', 'n*m'] },
  kgf·m: {
    quantity: 'torque',
    toBase: 9.80665,
    system: 'metric',
    aliases: ['kgf·m', 'kgfm', 'kgm', 'kg·m', 'kg-m', 'kgf-m', 'kgf.m', 'kg.m', 'mkg', 'mkp', 'kpm'],
  },
  lbf·ft: {
    quantity: 'torque',
    toBase: NM_PER_LBF_FT,
    system: 'inch',
    aliases: [
      'lbf·ft',
      'lbfft',
      'lbf.ft',
      'lbf-ft',
      'lbft',
      'lb-ft',
      'lb·ft',
      'ftlb',
      'ft-lb',
      'ft·lb',
      'ft.lb',
      'ft-lbs',
      'ftlbs',
      'ftlbf',
      'ft·lbf',
    ],
  },
  lbf·in: {
    quantity: 'torque',
    toBase: NM_PER_LBF_IN,
    system: 'inch',
    aliases: [
      'lbf·in',
      'lbfin',
      'lbf.in',
      'lbf-in',
      'lbin',
      'lb-in',
      'lb·in',
      'inlb',
      'in-lb',
      'in·lb',
      'in.lb',
      'in-lbs',
      'inlbs',
      'inlbf',
      'in·lbf',
    ],
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
  'rad/s': { quantity: 'rotation', toBase: 30 / Math.PI, system: 'both', aliases: ['rad/s', 'rad/sec', 'rads'] },
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
  s: { quantity: 'time', toBase: 1, system: 'both', aliases: ['s', 'sec', 'secs', 'second', 'seconds'] },
  ms: { quantity: 'time', toBase: 0.001, system: 'both', aliases: ['ms', 'msec', 'millisecond', 'milliseconds'] },
  min: { quantity: 'time', toBase: 60, system: 'both', aliases: ['min', 'minutes'] },
  '°C': { quantity: 'temperature', toBase: 1, system: 'metric', aliases: ['°c', 'c', 'degc', 'celsius'] },
  '°F': {
    quantity: 'temperature',
    toBase: 5 / 9,
    offset: -160 / 9,
    system: 'inch',
    aliases: ['°f', 'f', 'degf', 'fahrenheit'],
  },
  l: { quantity: 'volume', toBase: 1, system: 'metric', aliases: ['l', 'litre', 'litres', 'liter', 'liters'] },
  ml: { quantity: 'volume', toBase: 0.001, system: 'metric', aliases: ['ml', 'cc', 'cm³', 'cm3'] },
  qt: { quantity: 'volume', toBase: L_PER_QUART, system: 'inch', aliases: ['qt', 'quart', 'quarts'] },
  'fl oz': { quantity: 'volume', toBase: L_PER_QUART / 32, system: 'inch', aliases: ['floz', 'oz'] },
  kPa: { quantity: 'pressure', toBase: 1, system: 'metric', aliases: ['kpa'] },
  bar: { quantity: 'pressure', toBase: 100, system: 'metric', aliases: ['bar'] },
  psi: { quantity: 'pressure', toBase: KPA_PER_PSI, system: 'inch', aliases: ['psi', 'lbf/in²', 'lbf/in2'] },
};

/** How a quantity is read and shown in one system: unit of a bare number, decimals, step of an arrow key. */
export interface ScaleUnit {
  readonly unit: UnitName;
  /** Where a figure does not say it itself; the unit's own where none stand here. */
  readonly decimals?: number;
  /** In the unit. */
  readonly step: number;
}

type Scales = Readonly<Partial<Record<Scale, Readonly<Record<UnitSystem, ScaleUnit>>>>>;
const one = (unit: UnitName, step: number): Readonly<Record<UnitSystem, ScaleUnit>> => ({
  inch: { unit, step },
  metric: { unit, step },
});
const two = (inch: ScaleUnit, metric: ScaleUnit): Readonly<Record<UnitSystem, ScaleUnit>> => ({ inch, metric });

/** The unit a bare number is read in, and in which a figure is shown, by the builder's system and the scale. */
export const SCALES: Readonly<
  Record<Quantity, { readonly ordinary: Readonly<Record<UnitSystem, ScaleUnit>>; readonly scales: Scales }>
> = (() => {
  const plain = (units: Readonly<Record<UnitSystem, ScaleUnit>>, scales: Scales = {}) => ({ ordinary: units, scales });
  const plate = two({ unit: 'in', step: 0.001 }, { unit: 'mm', step: 0.01 });
  const bolt = two({ unit: 'lbf·ft', step: 1 }, { unit: 'N·m', step: 1 });
  const fill = two({ unit: 'qt', decimals: 2, step: 0.1 }, { unit: 'l', decimals: 2, step: 0.1 });
  const course = two({ unit: 'ft', step: 10 }, { unit: 'metre', step: 10 });
  return {
    length: plain(plate, {
      plate,
      small: two({ unit: 'thou', decimals: 1, step: 0.5 }, { unit: 'mm', decimals: 2, step: 0.01 }),
      large: two({ unit: 'in', decimals: 2, step: 0.1 }, { unit: 'mm', decimals: 1, step: 1 }),
    }),
    speed: plain(two({ unit: 'mph', step: 1 }, { unit: 'km/h', step: 1 })),
    torque: plain(bolt, {
      bolt,
      turning: two({ unit: 'lbf·in', decimals: 1, step: 0.5 }, { unit: 'N·m', decimals: 2, step: 0.05 }),
    }),
    force: plain(two({ unit: 'lbf', step: 10 }, { unit: 'N', step: 50 })),
    angle: plain(one('°', 1)),
    ratio: plain(one('', 0.01)),
    rotation: plain(one('rpm', 100)),
    count: plain(one('', 1)),
    coefficient: plain(one('', 0.005)),
    percent: plain(one('%', 1)),
    'turns-per-distance': plain(two({ unit: 'turns/mile', step: 1 }, { unit: 'turns/km', step: 1 })),
    stiffness: plain(two({ unit: 'lbf/in', step: 10 }, { unit: 'N/mm', step: 1 })),
    mass: plain(two({ unit: 'lb', step: 10 }, { unit: 'kg', step: 5 })),
    power: plain(two({ unit: 'hp', step: 1 }, { unit: 'kW', step: 1 })),
    area: plain(two({ unit: 'ft²', step: 0.1 }, { unit: 'm²', step: 0.01 })),
    distance: plain(course, {
      course,
      trip: two({ unit: 'mile', decimals: 0, step: 10 }, { unit: 'km', decimals: 0, step: 10 }),
    }),
    time: plain(one('s', 0.01), { work: one('min', 5) }),
    temperature: plain(two({ unit: '°F', step: 5 }, { unit: '°C', step: 1 })),
    volume: plain(fill, {
      fill,
      dose: two({ unit: 'fl oz', decimals: 1, step: 0.5 }, { unit: 'ml', decimals: 0, step: 10 }),
    }),
    pressure: plain(two({ unit: 'psi', decimals: 0, step: 1 }, { unit: 'bar', decimals: 2, step: 0.1 })),
    money: plain(one('', 1)),
    events: plain(one('', 1)),
    text: plain(one('', 1)),
  };
})();

/**
 * Unit, decimals and step of a quantity at a scale.
 * @throws Error for a scale that the quantity does not have: a mistake of ours
 */
export function scaleUnit(quantity: Quantity, system: UnitSystem, scale?: Scale): ScaleUnit {
  const { ordinary, scales } = SCALES[quantity];
  const units = scale === undefined ? ordinary : scales[scale];
  if (!units) throw new Error(`${quantity} has no scale ${scale}`);
  return units[system];
}

/** A number in `unit` as one in the base unit of its quantity; plain numbers stay as they are. */
export function toBase(value: number, unit: UnitName): number {
  if (unit === '') return value;
  const { toBase: factor, offset = 0 } = UNITS[unit];
  return value * factor + offset;
}

/** The other way round. */
export function fromBase(base: number, unit: UnitName): number {
  if (unit === '') return base;
  const { toBase: factor, offset = 0 } = UNITS[unit];
  return (base - offset) / factor;
}
