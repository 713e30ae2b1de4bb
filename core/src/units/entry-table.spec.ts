import { InputError } from '../base/errors';
import { entrySays, parseEntry, parseLeast, parseRow, type EntryRules } from './entry';
import { numberReadings, type DecimalSign } from './number';
import type { Quantity, Scale, UnitName, UnitSystem } from './quantities';

// What is typed is common practice of people who write numbers; no published source. Conversions are exact.

type Row = readonly [typed: string, value: number, unit: UnitName];
interface FieldOf {
  readonly quantity: Quantity;
  readonly scale?: Scale;
  readonly system: UnitSystem;
  readonly range: EntryRules['range'];
  readonly usual?: readonly [number, number];
  readonly decimal?: DecimalSign;
}

const FIELDS = {
  mass: { quantity: 'mass', system: 'metric', range: { above: 0, max: 20_000 } },
  massInch: { quantity: 'mass', system: 'inch', range: { above: 0, max: 20_000 } },
  limiter: { quantity: 'rotation', system: 'metric', range: { above: 0, max: 30_000 } },
  speed: { quantity: 'speed', system: 'metric', range: { min: 0, max: 200 } },
  torque: { quantity: 'torque', system: 'metric', range: { above: 0, max: 100_000 }, usual: [20, 3000] },
  power: { quantity: 'power', system: 'metric', range: { above: 0, max: 5e6 } },
  plate: { quantity: 'length', scale: 'plate', system: 'metric', range: { above: 0, max: 100 }, usual: [0.5, 6] },
  plateInch: { quantity: 'length', scale: 'plate', system: 'inch', range: { above: 0, max: 100 }, usual: [0.5, 6] },
  backlash: { quantity: 'length', scale: 'small', system: 'inch', range: { min: 0, max: 5 }, usual: [0.02, 1] },
  backlashMetric: { quantity: 'length', scale: 'small', system: 'metric', range: { min: 0, max: 5 }, usual: [0.02, 1] },
  wheelbase: {
    quantity: 'length',
    scale: 'large',
    system: 'metric',
    range: { above: 0, max: 20_000 },
    usual: [1500, 5000],
  },
  ratio: { quantity: 'ratio', system: 'metric', range: { above: 0, max: 200 } },
} as const satisfies Record<string, FieldOf>;

/** Typed text × field → understood. */
const UNDERSTOOD: Readonly<Record<keyof typeof FIELDS, readonly Row[]>> = {
  mass: [
    ['1,480 kg', 1480, 'kg'],
    ['1.480 kg', 1480, 'kg'],
    ['1480', 1480, 'kg'],
    ['1 480', 1480, 'kg'],
    ['1’480 kg', 1480, 'kg'],
    ["1'480", 1480, 'kg'],
    ['1\u202f480 kg', 1480, 'kg'],
    ['1,480.5', 1480.5, 'kg'],
    ['1.480,5', 1480.5, 'kg'],
    ['980,5', 980.5, 'kg'],
    ['980.25', 980.25, 'kg'],
    ['5,200 lb', 5200, 'lb'],
    ['5.200 lb', 5200, 'lb'],
    ['11,000 lbs', 11000, 'lb'],
  ],
  massInch: [
    ['3,260', 3260, 'lb'],
    ['3260', 3260, 'lb'],
    ['3 260 lb', 3260, 'lb'],
    ['1,480 kg', 1480, 'kg'],
    ['3,260.5 lb', 3260.5, 'lb'],
  ],
  limiter: [
    ['7,000', 7000, 'rpm'],
    ['7.000', 7000, 'rpm'],
    ['7000', 7000, 'rpm'],
    ['7 000 rpm', 7000, 'rpm'],
    ['12,500', 12500, 'rpm'],
    ['12.500 rpm', 12500, 'rpm'],
    ['6500,5', 6500.5, 'rpm'],
    ['7,200rpm', 7200, 'rpm'],
    ['850', 850, 'rpm'],
  ],
  speed: [
    ['105 km/h', 105, 'km/h'],
    ['105,5', 105.5, 'km/h'],
    ['62.5 mph', 62.5, 'mph'],
    ['62,5 mph', 62.5, 'mph'],
    ['30 m/s', 30, 'm/s'],
  ],
  torque: [
    ['480', 480, 'N·m'],
    ['480 Nm', 480, 'N·m'],
    ['1,480', 1480, 'N·m'],
    ['1.480 N·m', 1480, 'N·m'],
    ['1,480.5 Nm', 1480.5, 'N·m'],
    ['354 lb-ft', 354, 'lbf·ft'],
    ['354 ft·lb', 354, 'lbf·ft'],
    ['354 ft-lbs', 354, 'lbf·ft'],
    ['1,100 lbf·ft', 1100, 'lbf·ft'],
    ['87,5', 87.5, 'N·m'],
    ['250 lbf·in', 250, 'lbf·in'],
  ],
  power: [
    ['237 kW', 237, 'kW'],
    ['237,5 kW', 237.5, 'kW'],
    ['320 hp', 320, 'hp'],
    ['320.5 hp', 320.5, 'hp'],
    ['1 200 hp', 1200, 'hp'],
  ],
  plate: [
    ['2.49', 2.49, 'mm'],
    ['2,49', 2.49, 'mm'],
    ['2,489', 2.489, 'mm'],
    ['2.489 mm', 2.489, 'mm'],
    ['0,785', 0.785, 'mm'],
    ['.785', 0.785, 'mm'],
    [',785', 0.785, 'mm'],
    ['0.0785 in', 0.0785, 'in'],
    ['0,0785 in', 0.0785, 'in'],
    ['78.5 thou', 78.5, 'thou'],
    ['78,5 thou', 78.5, 'thou'],
    ['5/64 in', 5 / 64, 'in'],
    ['1/8', 1 / 8, 'in'],
    ['1/16"', 1 / 16, 'in'],
    ['2.5', 2.5, 'mm'],
    ['25e-1', 2.5, 'mm'],
  ],
  plateInch: [
    ['0.0785', 0.0785, 'in'],
    ['0,0785', 0.0785, 'in'],
    ['.0972', 0.0972, 'in'],
    ['2.49 mm', 2.49, 'mm'],
    ['2,489 mm', 2.489, 'mm'],
    ['98 thou', 98, 'thou'],
    ['97.2 thou', 97.2, 'thou'],
    ['3/32', 3 / 32, 'in'],
    ['3/32"', 3 / 32, 'in'],
  ],
  backlash: [
    ['8', 8, 'thou'],
    ['8.5', 8.5, 'thou'],
    ['8,5', 8.5, 'thou'],
    ['0.008 in', 0.008, 'in'],
    ['.008"', 0.008, 'in'],
    ['0.2 mm', 0.2, 'mm'],
    ['0,2 mm', 0.2, 'mm'],
    ['12 thou', 12, 'thou'],
  ],
  backlashMetric: [
    ['0.2', 0.2, 'mm'],
    ['0,203', 0.203, 'mm'],
    ['.2', 0.2, 'mm'],
    ['8 thou', 8, 'thou'],
    ['0.008 in', 0.008, 'in'],
  ],
  wheelbase: [
    ['2570', 2570, 'mm'],
    ['2,570', 2570, 'mm'],
    ['2.570', 2570, 'mm'],
    ['2 570 mm', 2570, 'mm'],
    ['2.57 m', 2.57, 'm'],
    ['2,57 m', 2.57, 'm'],
    ['101.2 in', 101.2, 'in'],
    ['101 3/16 in', 101.1875, 'in'],
  ],
  ratio: [
    ['3.727', 3.727, ''],
    ['3,727', 3.727, ''],
    ['41/11', 41 / 11, ''],
    ['41:11', 41 / 11, ''],
    ['4.3', 4.3, ''],
    ['4,30', 4.3, ''],
    ['13.545', 13.545, ''],
  ],
};

/** Typed where somebody can be asked: nothing is taken without it. */
const DOUBTED: readonly (readonly [
  typed: string,
  field: keyof typeof FIELDS,
  likely: readonly string[],
  really: boolean,
])[] = [
  // The thickness of a plate in an inch shop: a decimal sign a place off, or millimetres.
  ['0.785', 'plateInch', ['0.785 mm', '0.0785 in'], true],
  ['78.4', 'plateInch', ['78.4 thou'], false],
  ['2.49', 'plateInch', ['2.49 mm', '0.0249 in'], true],
  ['785', 'plate', ['0.785 mm'], false],
  ['78.5', 'plate', ['78.5 thou'], true],
  ['0.0785', 'plate', ['0.0785 in'], true],
  ['0.2', 'backlash', ['0.2 mm'], true],
  ['80', 'backlash', ['8 thou'], true],
  ['8', 'backlashMetric', ['8 thou'], false],
  ['0.008', 'backlashMetric', ['0.008 in'], true],
  ['257', 'wheelbase', ['2570 mm'], true],
  ['25,700', 'wheelbase', ['2570 mm'], true],
];

const REFUSED: readonly (readonly [typed: string, field: keyof typeof FIELDS])[] = [
  ['', 'mass'],
  ['heavy', 'mass'],
  ['1,48,0', 'mass'],
  ['1.4.8', 'mass'],
  ['1,480,00', 'mass'],
  ['1.480.00', 'mass'],
  ['1 48 0', 'mass'],
  ['1480 N', 'mass'],
  ['-5', 'mass'],
  ['0', 'mass'],
  ['999,999', 'limiter'],
  ['7,000 kg', 'limiter'],
  ['1e9', 'limiter'],
  ['41/0', 'ratio'],
  ['41:11 in', 'ratio'],
  ['2:1', 'plate'],
  ['2.5 kg', 'plate'],
  ['3 3', 'plate'],
];

const rulesOf = (name: keyof typeof FIELDS): EntryRules => ({ field: name, ...(FIELDS[name] as FieldOf) });

describe('numbers as people write them', () => {
  for (const [name, rows] of Object.entries(UNDERSTOOD) as [keyof typeof FIELDS, readonly Row[]][])
    it(`${name}: ${rows.length} ways`, () => {
      for (const [typed, value, unit] of rows) {
        const { entry, doubt } = parseEntry(typed, { ...rulesOf(name), doubts: true });
        expect([entry.value, entry.unit]).withContext(`${name} ${typed}`).toEqual([value, unit]);
        expect(doubt).withContext(`${name} ${typed}`).toBeUndefined();
        expect(entrySays(entry, FIELDS[name].quantity)).withContext(`${name} ${typed}`).toBeTrue();
      }
    });

  it('the table is as long as it should be', () => {
    const rows = Object.values(UNDERSTOOD).reduce((sum, list) => sum + list.length, 0);
    expect(rows + DOUBTED.length + REFUSED.length).toBeGreaterThanOrEqual(120);
  });

  it('what is far from usual is asked about, with the likely readings first; what can’t be is not offered', () => {
    for (const [typed, field, likely, really] of DOUBTED) {
      const { doubt } = parseEntry(typed, { ...rulesOf(field), doubts: true });
      const said = doubt?.likely.map((one) => one.typed) ?? [];
      for (const one of likely) expect(said).withContext(`${field} ${typed}`).toContain(one);
      expect(doubt?.asTyped !== null)
        .withContext(`${field} ${typed}`)
        .toBe(really);
      expect(said.length).toBeLessThanOrEqual(3);
    }
  });

  it('what is no number, no unit of the field or impossible is refused by name', () => {
    for (const [typed, field] of REFUSED)
      expect(() => parseEntry(typed, rulesOf(field)))
        .withContext(`${field} ${typed}`)
        .toThrowMatching((error) => error instanceof InputError && error.field === field);
  });

  it('of several readings none is guessed: one that can’t be is refused', () => {
    const rules = { ...rulesOf('plateInch'), doubts: true };
    expect(parseLeast('0.0785; 0.0783', rules).entry.value).toBe(0.0783);
    expect(() => parseLeast('78.5; 78.3', rules)).toThrowError(InputError);
    expect(parseLeast('78.5; 78.3 thou', rules).all?.length).toBe(2);
    expect(parseLeast('78.5', rules).doubt?.likely[0]?.typed).toBe('78.5 thou');
  });

  it('a unit that is named is never doubted away, and never swapped', () => {
    const { entry, doubt } = parseEntry('0.0972 in', { ...rulesOf('plate'), usual: [1.8, 2.2], doubts: true });
    expect([entry.unit, doubt]).toEqual(['in', undefined]);
  });

  it('a shop that has said its decimal sign is taken at its word', () => {
    const by = (decimal: DecimalSign, typed: string): number =>
      parseEntry(typed, { ...rulesOf('ratio'), decimal }).entry.value;
    expect(by('comma', '3,727')).toBe(3.727);
    expect(by('point', '3.727')).toBe(3.727);
    expect(() => by('comma', '3.727')).toThrowError(/3727/);
    expect(parseEntry('1,480', { ...rulesOf('mass'), decimal: 'comma' }).entry.value).toBe(1.48);
    expect(parseEntry('1.480', { ...rulesOf('mass'), decimal: 'comma' }).entry.value).toBe(1480);
    expect(parseEntry('980,5', { ...rulesOf('mass'), decimal: 'point' }).entry.value).toBe(980.5);
  });

  it('a comma that can be read in two ways, neither unusual, is asked about', () => {
    const rules: EntryRules = { field: 'Force', quantity: 'force', system: 'metric', range: { above: 0, max: 1e6 } };
    const { doubt } = parseEntry('1,200', { ...rules, doubts: true });
    expect(doubt?.likely.map(({ value }) => value)).toEqual([1.2, 1200]);
    expect(doubt?.asTyped).toBeNull();
    expect(parseEntry('1.200', { ...rules, doubts: true }).doubt).toBeUndefined();
  });

  it('groups and signs: all that a text can mean', () => {
    const cases: readonly (readonly [string, readonly number[]])[] = [
      ['1,480', [1.48, 1480]],
      ['0,480', [0.48]],
      ['1480,250', [1480.25]],
      ['12,34', [12.34]],
      ['1,234,567', [1234567]],
      ['1.234.567', [1234567]],
      ['1,234.5', [1234.5]],
      ['1.234,5', [1234.5]],
      ['1.23,4', []],
      ['12 345,6', [12345.6]],
      ['1,48,0', []],
      ['..5', []],
      ['2.5e3', [2500]],
    ];
    for (const [text, values] of cases) expect(numberReadings(text)).withContext(text).toEqual(values);
  });
});

describe('a row of alike values', () => {
  const length: EntryRules = {
    field: 'Plates',
    quantity: 'length',
    system: 'metric',
    range: { above: 0, max: 100, unit: 'mm' },
  };
  const ratio: EntryRules = { field: 'Gear 1', quantity: 'ratio', system: 'metric', range: { above: 0, max: 200 } };
  const values = (text: string, rules = length, most = 12): number[] =>
    parseRow(text, rules, most).map(({ base }) => Number(base.toFixed(6)));

  it('is apart by blanks, semicolons or commas with a blank; the last unit is everybody’s', () => {
    for (const [text, wanted] of [
      ['2.05 2.04 2.06', [2.05, 2.04, 2.06]],
      ['2,05 2,04 2,06 mm', [2.05, 2.04, 2.06]],
      ['2,05; 2,04;2,06', [2.05, 2.04, 2.06]],
      ['2.05, 2.04, 2.06', [2.05, 2.04, 2.06]],
      ['80 81 thou', [2.032, 2.0574]],
      ['2 mm 80 thou', [2, 2.032]],
      ['2.05', [2.05]],
      ['1 3/8 in', [34.925]],
    ] as const)
      expect(values(text))
        .withContext(text)
        .toEqual([...wanted]);
    expect(values('3,15 2,07 1,49 1,15', ratio)).toEqual([3.15, 2.07, 1.49, 1.15]);
    expect(values('41/13 37/18', ratio)).toEqual([3.153846, 2.055556]);
  });

  it('one that can’t be read refuses the row, and so does one value too many', () => {
    for (const text of ['2.05 two', '2.05 205 2.04', '2.05 -1'])
      expect(() => parseRow(text, length, 12))
        .withContext(text)
        .toThrowError(InputError);
    expect(() => parseRow('1 2 3', length, 2)).toThrowMatching((error) => error.field === 'Plates');
  });
});
