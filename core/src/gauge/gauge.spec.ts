import { InputError } from '../base/errors';
import { gaugeReader, gaugeUnit, unitNameOf } from './line';
import { STAND_INS, standInReading } from './stand-in';
import { swings } from './swings';

const refuses = (run: () => unknown, field: string): void => {
  expect(run).toThrowMatching((error) => error instanceof InputError && error.field === field);
};

describe('lines of a gauge', () => {
  it('rubbish gives nothing', () => {
    const read = gaugeReader();
    for (const line of ['', '\u0000\u0001', 'ERR', '--', 'mm', 'x'.repeat(10_000), '.', '-', '+ mm', 'CH1', '12:03:55'])
      expect(read(line).kind).withContext(line.slice(0, 9)).toBe('nothing');
  });

  it('a pattern of one’s own takes the right part; what is none is refused', () => {
    const second = gaugeReader({ pattern: String.raw`mm\s+([+-]?[\d.]+)\s*(\w+)` })('0.201 mm 0.187 mm');
    expect(second.kind === 'reading' ? second.reading.base : null).toBe(0.187);
    const bare = { pattern: String.raw`^A ([+-]\d+\.\d+)` };
    expect(gaugeReader(bare)('A +0.0080')).toEqual({ kind: 'refused', why: 'no-unit', text: '+0.0080' });
    const told = gaugeReader({ ...bare, unit: 'in' })('A +0.0080');
    expect(told.kind === 'reading' ? told.reading.base : null).toBeCloseTo(0.2032, 9);
    refuses(() => gaugeReader({ pattern: '(' }), 'pattern');
    refuses(() => gaugeReader({ pattern: String.raw`\d+` }), 'pattern');
    refuses(() => gaugeReader({ pattern: `(${'x'.repeat(300)})` }), 'pattern');
    refuses(() => gaugeReader({ unit: 'furlong' }), 'unit');
  });

  it('a unit goes back to one of ours that is worth as much', () => {
    const name = (text: string) => {
      const unit = gaugeUnit(text);
      return unit && unitNameOf(unit);
    };
    expect(['in-lb', 'ft lbs', 'Nm', 'um', 'THOU', 'N'].map(name)).toEqual([
      'lbf·in',
      'lbf·ft',
      'N·m',
      'µm',
      'thou',
      'N',
    ]);
    expect(name('kgf·cm')).toBeNull(); // none of ours: it is written in N·m
    expect(gaugeUnit('kgf·cm')?.toBase).toBeCloseTo(0.0980665, 9);
    for (const none of ['', 'furlong', 'm·m', 'M', 'inin', 'lbs/in', 'rpm'])
      expect(gaugeUnit(none)).withContext(none).toBeNull();
  });
});

describe('a sweep', () => {
  it('finds every place of a rocked ring, as large as it is, through scatter and resolution', () => {
    const places = [0.2, 0.21, 0.225, 0.21, 0.2, 0.18, 0.17, 0.19];
    const fed = Array.from({ length: 200 }, (_, i) => standInReading('indicator', places, 7, i * 50).value);
    const found = swings(fed);
    expect(found.length).toBe(8);
    found.forEach((mm, i) => expect(Math.abs(mm - (places[i] ?? 0))).toBeLessThan(0.012));
  });

  it('noise alone is no swing; a reading that is no number is refused', () => {
    expect(
      swings(Array.from({ length: 100 }, (_, i) => standInReading('indicator', [0.2], 3, 4000 + 50 * i).value)),
    ).toEqual([]);
    refuses(() => swings([0, Number.NaN]), 'fed[1]');
  });
});

describe('a stand-in', () => {
  it('settles on what is there, scatters a little, and is the same for the same seed', () => {
    for (const kind of STAND_INS) {
      const late = Array.from({ length: 40 }, (_, i) => standInReading(kind, [1.5], 11, 5000 + 50 * i).value);
      const mean = late.reduce((a, b) => a + b, 0) / late.length;
      expect(Math.abs(mean - 1.5))
        .withContext(kind)
        .toBeLessThan(0.02);
      expect(Math.max(...late) - Math.min(...late))
        .withContext(kind)
        .toBeGreaterThan(0);
      expect(standInReading(kind, [1.5], 11, 40).value).not.toBeCloseTo(1.5, 1);
      expect(standInReading(kind, [1.5], 11, 777)).toEqual(standInReading(kind, [1.5], 11, 777));
    }
  });

  it('an indicator’s zero slips; a wrench breaks away above its steady reading', () => {
    const mean = (from: number): number =>
      Array.from({ length: 60 }, (_, i) => standInReading('indicator', [0.2], 5, from + 50 * i).value).reduce(
        (a, b) => a + b,
        0,
      ) / 60;
    expect(Math.abs(mean(21_000) - mean(5_000))).toBeGreaterThan(0.0005);
    expect(standInReading('wrench', [2], 1, 200).value).toBeGreaterThan(2.6);
    refuses(() => standInReading('wrench', [], 1, 0), 'values');
    refuses(() => standInReading('wrench', [Number.NaN], 1, 0), 'values[0]');
    refuses(() => standInReading('wrench', [1], -1, 0), 'seed');
  });
});
