import fc from 'fast-check';
import { InputError } from '../base/errors';
import { entryBase, entryOf, entryText, parseEntry, parseLeast, type EntryRules } from './entry';
import { formatUnit, say, saySmall } from './format';
import { MM_PER_INCH, UNITS, type UnitSystem } from './quantities';

const thickness = (system: UnitSystem): EntryRules => ({
  field: 'thickness',
  quantity: 'length',
  system,
  range: { above: 0, max: 100, unit: 'mm' },
  usual: [0.05, 10],
});
const read = (text: string, system: UnitSystem = 'inch') => parseEntry(text, thickness(system));

describe('units: entries', () => {
  // 1 in = 25.4 mm, 1 thou = 0.001 in [exact]
  const cases: [string, UnitSystem, number, string][] = [
    ['8 thou', 'metric', 0.2032, 'thou'],
    ['78.5 thou', 'inch', 1.9939, 'thou'],
    ['.008', 'inch', 0.2032, 'in'],
    ['0.0785', 'inch', 1.9939, 'in'],
    ['0.2 mm', 'inch', 0.2, 'mm'],
    ['0.2mm', 'inch', 0.2, 'mm'],
    ['0,2 mm', 'inch', 0.2, 'mm'],
    ['2 mm', 'inch', 2, 'mm'],
    ['0.2', 'metric', 0.2, 'mm'],
    ['7/16 in', 'metric', 11.1125, 'in'],
    ['7/16', 'metric', 11.1125, 'in'],
    ['1 3/8"', 'metric', 34.925, 'in'],
  ];
  for (const [text, system, mm, unit] of cases) {
    it(`reads ${text} in a ${system} shop as ${mm} mm`, () => {
      const { entry, base } = read(text, system);
      expect(base).toBeCloseTo(mm, 10);
      expect(entry.unit).toBe(unit as typeof entry.unit);
      expect(entry.typed).toBe(text);
    });
  }

  it('reads a bare number in the unit of the shop, however unusual; where one can be asked it is doubted', () => {
    expect(read('0.0785', 'metric').note).toBeUndefined(); // 0.0785 mm is a thin shim: stays
    const usual = [0.5, 6] as const;
    expect(parseEntry('2.0', { ...thickness('inch'), usual }).entry.unit).toBe('in');
    const { doubt } = parseEntry('2.0', { ...thickness('inch'), usual, doubts: true });
    expect(doubt?.likely[0]?.typed).toBe('2 mm');
  });

  it('keeps 0.008 in as 0.008 in', () => {
    const { entry } = read('0.008 in');
    expect(entry.value).toBe(0.008);
    expect(entryText(entry, 'length', 'inch')).toBe('0.008 in');
    expect(entryText(entry, 'length', 'metric')).toBe('0.203 mm');
    expect(entryText(entry, 'length', 'inch')).toBe('0.008 in');
  });

  it('reads ratios as numbers or tooth counts', () => {
    const rules: EntryRules = { field: 'ratio', quantity: 'ratio', system: 'inch', range: { above: 0, max: 200 } };
    expect(parseEntry('41/15', rules).base).toBeCloseTo(2.7333, 4); // [exact, trade example]
    expect(parseEntry('3.73', rules).base).toBe(3.73);
    expect(parseEntry('41:11', rules).base).toBeCloseTo(3.72727, 5);
  });

  it('knows the torque units', () => {
    const rules: EntryRules = { field: 'torque', quantity: 'torque', system: 'inch', range: { min: 0, max: 1e6 } };
    // [standard: NIST SP 811]
    expect(parseEntry('1 lbf·ft', rules).base).toBe(1.3558179483);
    expect(parseEntry('1 lbf·in', rules).base).toBe(0.112984829);
    expect(parseEntry('132 Nm', rules).base).toBe(132);
    // 132 N·m ⇔ 97.4 lbf·ft [exact]
    expect(formatUnit(132, 'lbf·ft')).toBe('97.4');
  });

  for (const bad of [
    '',
    '   ',
    'abc',
    '-1',
    '0',
    '1e308',
    'NaN',
    'Infinity',
    '1/0',
    '3 apples',
    '1..2',
    '1 140',
    '0x10',
  ]) {
    it(`refuses “${bad}” and names the field`, () => {
      let caught: unknown;
      try {
        read(bad);
      } catch (error) {
        caught = error;
      }
      expect(caught).toBeInstanceOf(InputError);
      expect((caught as InputError).field).toBe('thickness');
      expect((caught as InputError).message).toContain('thickness');
    });
  }

  it('round-trips in ↔ mm for any value (property)', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-4, max: 3.9, noNaN: true }), (inches) => {
        const entry = entryOf(inches, 'in');
        const back = entryBase(entry) / MM_PER_INCH;
        expect(Math.abs(back - inches)).toBeLessThanOrEqual(1e-12 * inches);
        const typed = read(`${inches.toFixed(6)} in`.replace(/^0\.000000/, '0.000001'));
        expect(typed.entry.value).toBe(Number(typed.entry.typed.split(' ')[0]));
      }),
    );
  });

  it('shows an entry in the other system and back without changing it (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 99, noNaN: true }),
        fc.constantFrom('mm', 'in', 'thou'),
        (value, unit) => {
          const limited = unit === 'mm' ? value : value / 30;
          const entry = entryOf(Number(limited.toPrecision(6)), unit as 'mm');
          const home = UNITS[unit as 'mm'].system as UnitSystem;
          expect(entryText(entry, 'length', home)).toBe(entry.typed);
        },
      ),
    );
  });
});

describe('units: figures', () => {
  it('a mile and a metre of road are written short', () => {
    expect(say(621_000, 'distance', 'inch', undefined, 'trip')).toBe('386\u00a0mi');
    expect(say(201.168, 'distance', 'metric')).toContain('\u00a0m');
    const rules: EntryRules = {
      ...thickness('inch'),
      quantity: 'distance',
      range: { min: 0, max: 1e7 },
      usual: [0, 1e6],
    };
    expect(parseEntry('386 mi', rules).entry.unit).toBe('mile');
  });

  it('shows each quantity in the system chosen', () => {
    expect(say(2, 'length', 'metric')).toBe('2.000\u00a0mm');
    expect(say(2.54, 'length', 'inch')).toBe('0.1000\u00a0in');
    expect(say(11976, 'force', 'metric')).toBe('11\u202f976\u00a0N');
    expect(saySmall(-0.0508, 'inch')).toBe('2.0\u00a0thou');
    expect(say(-0.0000001, 'length', 'metric')).toBe('0.000\u00a0mm');
    expect(say(45, 'angle', 'inch')).toBe('45.0°');
  });

  it('never shows NaN', () => {
    expect(formatUnit(Number.NaN, 'mm')).toBe('–');
  });
});

describe('several readings', () => {
  const rules = {
    field: 'Plate',
    quantity: 'length' as const,
    system: 'inch' as const,
    range: { above: 0, max: 100, unit: 'mm' },
  };
  const least = (text: string, system: 'inch' | 'metric' = 'inch') => parseLeast(text, { ...rules, system });

  it('the least counts, as it was typed, in the unit of the last one', () => {
    const { entry, base, note } = least('78.5; 78.2; 78.9 thou');
    expect([entry.value, entry.unit]).toEqual([78.2, 'thou']);
    expect(base).toBeCloseTo(78.2 * 0.0254, 12); // [exact]
    expect(note?.replace(/\u00a0|\u202f/g, ' ')).toBe('least of 3, 0.7 thou apart');
  });

  it('units may differ from one to the next', () => {
    expect(least('2 mm; 0.0785 in; 79 thou').entry).toEqual({ typed: '0.0785 in', value: 0.0785, unit: 'in' });
    expect(least('0.0785; 2 mm').entry.unit).withContext('a bare number takes the last unit').toBe('mm');
  });

  it('bare numbers are of the shop’s system; one alone is read as ever', () => {
    expect(least('2.02; 2; 2.01', 'metric').base).toBe(2);
    expect(least('.0785')).toEqual(parseEntry('.0785', rules));
    expect(least('7/16; 1/2 in').base).toBeCloseTo((7 / 16) * 25.4, 9); // [exact]
  });

  it('refuses one bad reading among good ones, nothing, and a whole list', () => {
    for (const bad of [
      '2 mm; two',
      '2 mm;',
      '; 2 mm',
      '2 mm; -1 mm',
      '2 mm; 5 kg',
      '2 mm; 300 mm',
      Array(13).fill('2').join(';'),
    ])
      expect(() => least(bad))
        .withContext(bad)
        .toThrowMatching((e) => e.field === 'Plate' && e.allowed !== '');
  });
});
