import { emptySheet } from './sheet';
import { readFileSync } from 'node:fs';
import { InputError, entryBase } from '@hot-spline/core';
import { openUnit, unitAs } from '../unit/new-unit';
import { libraryCsv, readLibraryCsv } from './library-csv';
import { readLibraryFile } from '../files/library-file';
import { librarySpecSchema } from './schema';
import { USUAL_SCHOOLS, type Schools } from './schools';

const demo = (): string => readFileSync(new URL('../../../demo/library/shop-library.json', import.meta.url), 'utf8');

const axleNamed = (name: string) => ({
  kind: 'axle',
  name,
  construction: { value: 'drop-out', origin: 'measured' },
  ringDiameter: null,
  ringBolts: null,
  pinionSplines: null,
  shaftSplines: null,
  retention: null,
  brake: null,
  wheelBearing: null,
  outerSeal: null,
  spread: null,
  extras: { ringBolts: { price: 24, leadDays: 2 }, recalibration: null },
  sets: [],
  sheet: emptySheet(),
  adjusterSequence: null,
});

describe('the library', () => {
  it('goes to CSV and back unchanged', () => {
    const { specs } = readLibraryFile(demo());
    expect(specs.length).toBeGreaterThan(3);
    const again = readLibraryCsv(libraryCsv(specs));
    expect(again.bad).toEqual([]);
    expect(again.specs).toEqual([...specs]);
  });

  it('keeps names that a spreadsheet would take for a formula', () => {
    for (const name of ['=Axle', '-9 inch', '+two', '@home', "'quoted", 'with, comma', 'with "quotes"', 'Ümläut ½']) {
      const axle = {
        ...axleNamed(name),
        carriers: [{ name: '=3 series', fromRatio: 3, toRatio: 4, price: null, leadDays: null, origin: 'guess' }],
      };
      const spec = librarySpecSchema.parse(axle);
      const text = libraryCsv([{ id: null, spec }]);
      // no cell starts a formula in a spreadsheet [common practice]
      for (const cell of text.split(/[\n,]/)) expect(cell).not.toMatch(/^"?[=+@]/);
      const again = readLibraryCsv(text);
      expect(again.bad).withContext(name).toEqual([]);
      expect(again.specs)
        .withContext(name)
        .toEqual([{ id: null, spec }]);
    }
  });

  it('takes drawers, boxes and axles from one file, each with its own lines', () => {
    const text = [
      'kind,name,field,value,origin',
      'shims,Bench,piece,0.70 mm | 4,measured',
      'shims,Bench,piece,30 thou | 2,maker',
      'gearbox,Curlew,box,dog,maker',
      'gearbox,Curlew,gear,1 | 38/14,maker',
      'axle,Heron,construction,drop-out,guess',
    ].join('\n');
    const { specs, bad } = readLibraryCsv(text);
    expect(bad).toEqual([]);
    expect(specs.map(({ spec: { kind, name } }) => `${kind} ${name}`)).toEqual([
      'shims Bench',
      'gearbox Curlew',
      'axle Heron',
    ]);
    const bench = specs[0]?.spec;
    if (bench?.kind !== 'shims') throw new Error('no drawer');
    expect(bench.pieces.map(({ count, origin }) => [count, origin])).toEqual([
      [4, 'measured'],
      [2, 'maker'],
    ]);
    expect(bench.pieces.map(({ thickness }) => entryBase(thickness))).toEqual([0.7, 0.762]); // 30 thou [exact]
  });

  it('schools go to CSV and back, and a new plate unit follows them', () => {
    const schools: Schools = {
      kind: 'schools',
      name: 'Ours',
      ...USUAL_SCHOOLS,
      wearModel: 'uniform-pressure',
      rampFrom: 'axis',
      spacer: 'solid',
      ringGear: 'pulled-on',
      ringGearNote: 'no oven at the track',
    };
    const given = [{ id: null, spec: schools }];
    expect(readLibraryCsv(libraryCsv(given)).specs).toEqual(given);
    const { plate } = unitAs(openUnit(), 'plate', schools);
    expect([plate?.wearModel, plate?.rampFrom]).toEqual(['uniform-pressure', 'axis']);
    // the same steel: 50° from the plane of rotation is 40° from the axis [exact]
    expect(plate?.driveRamp.value).toBe(40);
    const had = unitAs(openUnit(), 'plate');
    expect(unitAs({ ...had, type: 'open' }, 'plate', schools).plate?.wearModel)
      .withContext('a build that has plates keeps what they say')
      .toBe('uniform-wear');
  });

  it('a ring gear that is pulled on needs its reason', () => {
    const pulled = { kind: 'schools', name: 'Ours', ...USUAL_SCHOOLS, ringGear: 'pulled-on', ringGearNote: '' };
    const [issue] = librarySpecSchema.safeParse(pulled).error?.issues ?? [];
    expect(issue?.path).toEqual(['ringGearNote']);
    expect(issue?.message).toContain('strains the bolts');
  });

  it('friction goes to CSV and back, with the oil it was measured in', () => {
    const text = [
      'kind,name,field,value,origin',
      'friction,Bronze on steel,oil,"75W-90, 120 ml additive",',
      'friction,Bronze on steel,reading,0.094 | Redshank | 2026-03-14,measured',
      'friction,Bronze on steel,reading,0.1 | Sanderling | 14.3.2026,measured',
    ].join('\n');
    const { specs, bad } = readLibraryCsv(text.replace('14.3.2026', '2026-03-15'));
    expect(bad).toEqual([]);
    expect(readLibraryCsv(libraryCsv(specs)).specs).toEqual(specs);
    const spec = specs[0]?.spec;
    expect(spec?.kind === 'friction' ? [spec.oil, spec.readings.map(({ from }) => from)] : []).toEqual([
      '75W-90, 120 ml additive',
      ['Redshank', 'Sanderling'],
    ]);
    // a date that is none refuses the table as a whole, by its field
    expect(() => readLibraryCsv(text)).toThrowError(/readings\[1\]\.on/);
  });

  it('every value says where it comes from', () => {
    const spec = structuredClone(readLibraryFile(demo()).specs[0]?.spec) as unknown as Record<
      string,
      Record<string, unknown>
    >;
    delete (spec['construction'] as Record<string, unknown>)['origin'];
    expect(librarySpecSchema.safeParse(spec).success).toBeFalse();
  });

  it('lists bad lines and keeps the rest', () => {
    const text = [
      'kind,name,field,value,origin',
      'axle,Good,construction,drop-out,measured',
      'axle,Good,set,41/10 | 3000 N·m | 200 | 4,maker',
      'axle,Good,colour,red,guess',
      'axle,Swapped,construction,drop-out,measured',
      'axle,Swapped,set,10/41,maker',
      'boat,Bad,hull,steel,guess',
      'axle,Bad,construction,glued,guess',
    ].join('\n');
    const { specs, bad } = readLibraryCsv(text);
    // a spec with an impossible value is refused as a whole; its lines say why
    expect(specs.map(({ spec }) => spec.name)).toEqual(['Good']);
    expect(bad.map(({ line }) => line).sort()).toEqual([4, 5, 7, 8]);
    expect(bad.map(({ why }) => why).join()).toContain('must have at least as many teeth');
  });

  it('refuses a file without a spec, and JSON that is none, by name', () => {
    const field = (text: string): string => {
      try {
        readLibraryFile(text);
      } catch (error) {
        if (error instanceof InputError) return error.field;
        throw error;
      }
      return '';
    };
    expect(field('')).toBe('csv');
    expect(field('{"format":')).toBe('file');
    expect(field('{"format":"hot-spline/library-file","formatVersion":1,"specs":[],"more":1}')).toBe('more');
  });
});
