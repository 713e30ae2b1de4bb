/** A date as the day it is here, YYYY-MM-DD. */
export const localDay = (date: Date): string =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, '0')).join('-');

const DAY = { day: 'numeric', month: 'short', year: 'numeric' } as const;

/** A day without its time is that day here, wherever here is: not the midnight of Greenwich. */
function dateOf(at: string | Date): Date {
  const day = typeof at === 'string' ? /^(\d{4})-(\d{2})-(\d{2})$/.exec(at) : null;
  return day ? new Date(Number(day[1]), Number(day[2]) - 1, Number(day[3])) : new Date(at);
}

// Made once: to make one takes longer than to draw a step, and a list says a day in every line.
const SAY_DAY = new Intl.DateTimeFormat([], DAY);
const SAY_MOMENT = new Intl.DateTimeFormat([], { ...DAY, hour: '2-digit', minute: '2-digit' });
const SAY_TIME = new Intl.DateTimeFormat([], { hour: '2-digit', minute: '2-digit' });

/** A day as it is said everywhere, in the language of the device. */
export const sayDay = (at: string | Date): string => SAY_DAY.format(dateOf(at));

/** A moment as it is said everywhere: the day, and the time as the device's language writes it. */
export const sayMoment = (at: string | Date): string => SAY_MOMENT.format(dateOf(at));

/** A time of today, as the device's language writes it. */
export const sayTime = (at: string | Date): string => SAY_TIME.format(dateOf(at));

/** Words of the model, which knows no clock: every day in them as it is said here. */
export const sayDays = (words: string): string => words.replace(/\b\d{4}-\d{2}-\d{2}\b/g, (day) => sayDay(day));

/** Days from one day to another, both YYYY-MM-DD. */
export const daysBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 86_400_000;
