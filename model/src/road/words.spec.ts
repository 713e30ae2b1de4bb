import { entryOf } from '@hot-spline/core';
import { finishName } from './words';

describe('a finish', () => {
  it('has the name that everybody calls it by, whatever unit it was typed in; else what was typed', () => {
    expect(finishName(entryOf(402.336, 'metre'))).toBe('¼ mile');
    expect(finishName(entryOf(1320, 'ft'))).toBe('¼ mile');
    expect(finishName(entryOf(660, 'ft'))).toBe('⅛ mile');
    expect(finishName({ typed: '1,000 m', value: 1000, unit: 'metre' })).toBe('1,000 m');
    expect(finishName({ typed: '60 ft', value: 60, unit: 'ft' })).toBe('60 ft');
  });
});
