import { localDay, sayDay, sayDays, sayMoment } from './day';

describe('days as they are said', () => {
  it('a day without its time is that day, wherever it is read', () => {
    expect(sayDay('2026-11-14')).toBe(sayDay(new Date(2026, 10, 14, 23, 59)));
    expect(sayDay('2026-11-14')).toMatch(/14/);
    expect(localDay(new Date(2026, 10, 14, 0, 1))).toBe('2026-11-14');
  });

  it('every day in words of the model is said alike', () => {
    expect(sayDays('Recheck is due since 2026-11-14')).toBe(`Recheck is due since ${sayDay('2026-11-14')}`);
    expect(sayDays('37/10 at 4200 rpm, serial 2026-1')).toBe('37/10 at 4200 rpm, serial 2026-1');
  });

  it('a moment has its time with it', () => {
    expect(sayMoment(new Date(2026, 10, 14, 12, 34))).toMatch(/12:34/);
  });
});
