import { daysBetween, localDay, sayDay, sayDays, sayMoment } from './day';

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

  it('days between two days are whole, over a change of the clock and a leap day too', () => {
    expect(daysBetween('2026-11-26', '2026-12-06')).toBe(10);
    expect(daysBetween('2026-12-06', '2026-11-26')).toBe(-10);
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2);
  });
});
