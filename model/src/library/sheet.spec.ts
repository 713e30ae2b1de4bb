import { InputError, entryOf, type UnitName } from '@hot-spline/core';
import { parseOrRefuse } from '../base/refuse';
import { libraryCsv, readLibraryCsv } from './library-csv';
import { newAxleSpec, newShimBox } from './new-spec';
import { ORIGINS, leastOf, originOf } from './origins';
import { axleSpecSchema, librarySpecSchema, SEATS, type AxleSpec } from './schema';
import { SHEET_KEYS, emptySheet, isWeak, sheetField, sheetSchema, type SheetKey, type SpecSheet } from './sheet';

const unitOf = (key: SheetKey): UnitName =>
  ({ torque: 'N·m', time: 'min', length: 'mm' } as Partial<Record<string, UnitName>>)[sheetField(key).quantity] ?? 'mm';

/** A value that each field takes. */
function sample(key: SheetKey): NonNullable<SpecSheet[SheetKey]> {
  const at = { origin: 'maker' as const, where: 'page 4' };
  const entry = (value: number) => entryOf(value, unitOf(key));
  switch (sheetField(key).of) {
    case 'band':
      return { value: { low: entry(1), high: entry(2) }, ...at };
    case 'one':
      return { value: entry(1.5), ...at } as NonNullable<SpecSheet[SheetKey]>;
    case 'count':
      return { value: 24, ...at };
    case 'text':
      return { value: '75W-90', ...at };
  }
}

const whole = (): SpecSheet => Object.fromEntries(SHEET_KEYS.map((key) => [key, sample(key)])) as unknown as SpecSheet;
const refused = (sheet: unknown): InputError => {
  try {
    parseOrRefuse(sheetSchema, sheet, 'sheet');
  } catch (error) {
    if (error instanceof InputError) return error;
    throw error;
  }
  throw new Error('it was taken');
};

describe('the spec sheet as data', () => {
  it('has every value of it, each said or null', () => {
    expect(parseOrRefuse(sheetSchema, emptySheet(), 'sheet')).toEqual(emptySheet());
    expect(parseOrRefuse(sheetSchema, whole(), 'sheet')).toEqual(whole());
    // Backlash, run-out, variation, three turning torques, carrier preload by three methods, spread, distance, bore, four of
    // the adjusters, the pitch of the nut, seven torques, two open times and three of the oil (common practice)
    expect(SHEET_KEYS.length).toBe(29);
    expect(new Set(SHEET_KEYS.map((key) => sheetField(key).label)).size).toBe(29);
  });

  for (const key of SHEET_KEYS.filter((one) => sheetField(one).of === 'band'))
    it(`${key}: upside down, or of another quantity, is refused by name`, () => {
      const told = sample(key) as { value: { low: unknown; high: unknown } };
      const { low, high } = told.value;
      const turned = { ...emptySheet(), [key]: { ...told, value: { low: high, high: low } } };
      expect(refused(turned).field).toContain(`${key}.value.high`);
      const other = { ...told, value: { low, high: entryOf(2, 'kg') } };
      expect(refused({ ...emptySheet(), [key]: other }).field).toContain(key);
    });

  it('an adjuster with no notches, a pitch of nothing, a page that is a book: refused by name', () => {
    const at = { origin: 'maker', where: '' };
    const cases: [SheetKey, unknown][] = [
      ['adjusterNotches', { value: 0, ...at }],
      ['adjusterNotches', { value: 1.5, ...at }],
      ['adjusterPitch', { value: entryOf(0, 'mm'), ...at }],
      ['spreadLimit', { value: entryOf(-1, 'mm'), ...at }],
      ['capTorque', { value: entryOf(-1, 'N·m'), ...at }],
      ['fluid', { value: '', ...at }],
      ['fluid', { value: '75W-90', origin: 'rumour', where: '' }],
      ['fluid', { value: '75W-90', origin: 'maker', where: 'x'.repeat(121) }],
      ['volume', { value: '2 l', origin: 'maker' }],
    ];
    for (const [key, told] of cases)
      expect(refused({ ...emptySheet(), [key]: told }).field)
        .withContext(JSON.stringify(told).slice(0, 60))
        .toContain(key);
    expect(refused({ ...emptySheet(), more: null }).field).toContain('more');
  });

  it('not said, only said, memory, borrowed and guessed plan; sheet, measured and trade carry (common practice)', () => {
    expect(ORIGINS.filter(isWeak)).toEqual(['not-said', 'said', 'memory', 'borrowed', 'guess']);
    // The maker’s sheet is one only with where it was read.
    expect(originOf({ origin: 'maker', where: ' ' })).toBe('said');
    expect(originOf({ origin: 'maker', where: 'page 4' })).toBe('maker');
    expect(originOf({ origin: 'measured', where: '' })).toBe('measured');
    expect(leastOf(['maker', 'guess', 'measured'])).toBe('guess');
  });

  it('goes to CSV and back, whole and empty', () => {
    const full: AxleSpec = { ...newAxleSpec('Full', 'drop-out', 'measured'), sheet: whole() };
    const empty = newAxleSpec('Empty', 'transaxle', 'maker');
    const { specs, bad } = readLibraryCsv(libraryCsv([full, empty].map((spec) => ({ id: null, spec }))));
    expect(bad).toEqual([]);
    expect(specs.map(({ spec }) => spec)).toEqual([full, empty]);
  });

  it('a line of the sheet that nobody knows is listed, the rest kept', () => {
    const text = libraryCsv([{ id: null, spec: newAxleSpec('Heron', 'drop-out', 'measured') }]);
    const { specs, bad } = readLibraryCsv(
      `${text}\naxle,Heron,sheet: Colour,red,maker\naxle,Heron,sheet: Backlash,8,maker`,
    );
    expect(bad.length).toBe(2);
    expect(specs.length).toBe(1);
  });
});

describe('drawers by seat', () => {
  it('every seat goes through the schema and CSV, with bore and outside', () => {
    for (const seat of SEATS) {
      const box = {
        ...newShimBox(`Drawer ${seat}`, seat, [{ thickness: entryOf(0.5, 'mm'), count: 2, origin: 'measured' }]),
        bore: entryOf(41.4, 'mm'),
        outside: entryOf(57, 'mm'),
      };
      expect(librarySpecSchema.parse(box)).toEqual(box);
      const given = [{ id: null, spec: box }];
      expect(readLibraryCsv(libraryCsv(given)).specs).toEqual(given);
    }
    expect(librarySpecSchema.safeParse({ ...newShimBox('x'), seat: 'boot' }).success).toBeFalse();
  });

  it('a new axle knows nothing but its construction', () => {
    expect(axleSpecSchema.parse(newAxleSpec('x'))).toEqual(newAxleSpec('x'));
    expect(newAxleSpec('x').construction.origin).toBe('guess');
  });
});
