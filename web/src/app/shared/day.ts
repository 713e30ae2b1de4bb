/** A date as the day it is here, YYYY-MM-DD. */
export const localDay = (date: Date): string =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, '0')).join('-');

const DAY = { day: 'numeric', month: 'short', year: 'numeric' } as const;

/** A day as it is said everywhere, in the language of the device. */
export const sayDay = (at: string | Date): string => new Date(at).toLocaleDateString([], DAY);

/** A moment as it is said everywhere: the day, and the time as the device's language writes it. */
export const sayMoment = (at: string | Date): string =>
  new Date(at).toLocaleString([], { ...DAY, hour: '2-digit', minute: '2-digit' });
