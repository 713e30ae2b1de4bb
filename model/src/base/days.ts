/** Days since 1 March of the year 0, of a moment by its date [exact: proleptic Gregorian calendar]. @param at ISO 8601 */
export function dayNumber(at: string): number {
  const [year = 0, month = 1, date = 1] = at.slice(0, 10).split('-').map(Number);
  // A year that begins with March ends with the leap day.
  const [y, m] = month > 2 ? [year, month - 3] : [year - 1, month + 9];
  const leaps = Math.floor(y / 4) - Math.floor(y / 100) + Math.floor(y / 400);
  return 365 * y + leaps + Math.floor((153 * m + 2) / 5) + date - 1;
}

const two = (n: number): string => String(n).padStart(2, '0');

/** The date of a day [ISO 8601]: `dayNumber` the other way. @param number whole, from year 0 on */
export function dateOf(number: number): string {
  const era = Math.floor(number / 146_097);
  const ofEra = number - era * 146_097;
  const year = Math.floor(
    (ofEra - Math.floor(ofEra / 1460) + Math.floor(ofEra / 36_524) - Math.floor(ofEra / 146_096)) / 365,
  );
  const ofYear = ofEra - (365 * year + Math.floor(year / 4) - Math.floor(year / 100));
  const m = Math.floor((5 * ofYear + 2) / 153);
  const date = ofYear - Math.floor((153 * m + 2) / 5) + 1;
  const month = m < 10 ? m + 3 : m - 9;
  return `${String(era * 400 + year + (month <= 2 ? 1 : 0)).padStart(4, '0')}-${two(month)}-${two(date)}`;
}

/** Whether it is a day as ISO 8601 writes it, and there is such a day. */
export const isDay = (text: string): boolean => /^\d{4}-\d\d-\d\d$/.test(text) && dateOf(dayNumber(text)) === text;

/** Day of the week, 0 Monday to 6 Sunday: 1 March of the year 0 was a Wednesday. */
export const weekdayOf = (day: string): number => (dayNumber(day) + 2) % 7;

/** A moment so many hours later, in UTC [ISO 8601]. @param at in UTC, with its Z */
export function hoursAfter(at: string, hours: number): string {
  const [h = 0, m = 0, s = 0] = at.slice(11, 19).split(':').map(Number);
  const seconds = Math.round(3600 * (h + hours) + 60 * m + s);
  const days = Math.floor(seconds / 86_400);
  const left = seconds - days * 86_400;
  const time = [Math.floor(left / 3600), Math.floor(left / 60) % 60, left % 60].map(two).join(':');
  return `${dateOf(dayNumber(at) + days)}T${time}${at.slice(19)}`;
}
