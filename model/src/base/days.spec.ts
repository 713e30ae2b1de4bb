import { dateOf, dayNumber, hoursAfter, isDay, weekdayOf } from './days';

describe('days without a clock', () => {
  it('are those of the calendar: every day from 1896 to 2104 beside the one that Node has', () => {
    // The general-purpose reference: the Date of JavaScript [ECMA-262, proleptic Gregorian].
    const first = dayNumber('1896-01-01');
    for (let i = 0; i < 209 * 366; i++) {
      const date = new Date(Date.UTC(1896, 0, 1 + i));
      const day = date.toISOString().slice(0, 10);
      if (dayNumber(day) !== first + i || dateOf(first + i) !== day || weekdayOf(day) !== (date.getUTCDay() + 6) % 7)
        fail(day);
    }
    expect(dateOf(dayNumber('2000-02-29'))).toBe('2000-02-29');
  });

  it('that there are not are none', () => {
    for (const bad of ['2026-02-29', '1900-02-29', '2026-13-01', '2026-00-10', '2026-1-1', 'today', ''])
      expect(isDay(bad)).withContext(bad).toBeFalse();
    expect(isDay('2028-02-29')).toBeTrue();
  });

  it('go over midnight, a month and a year by the hour', () => {
    const cases = [
      ['2026-12-31T23:30:00.000Z', 1],
      ['2028-02-28T12:00:00.500Z', 24],
      ['2026-11-27T09:00:00Z', 0.5],
      ['2026-11-27T09:00:00.000Z', 1000],
    ] as const;
    for (const [at, hours] of cases)
      expect(new Date(hoursAfter(at, hours)).getTime()).toBe(new Date(at).getTime() + hours * 3_600_000);
  });
});
