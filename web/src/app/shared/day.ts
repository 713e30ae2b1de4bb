/** A date as the day it is here, YYYY-MM-DD. */
export const localDay = (date: Date): string =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, '0')).join('-');
