import { InputError } from '@hot-spline/core/page';
import { dateOf, dayNumber, isDay, weekdayOf } from '../base/days';

/** How far ahead the board looks, in weeks: ours. */
export const MOST_WEEKS = 8;

/** Hours with hands on cars that a shop has, from Monday to Sunday. */
export type WeekHours = readonly [number, number, number, number, number, number, number];

export interface PromisedJob {
  /** The day that it is promised for [ISO 8601]. */
  readonly promised: string;
  /** Hours with hands on it that are left. */
  readonly leftH: number;
}

/** A day of the shop against what is promised for it. */
export interface FitDay {
  readonly day: string;
  /** Hours that the shop has on it; null: nobody has said. */
  readonly hours: number | null;
  /** Hours that are left of what is promised for this very day. */
  readonly promisedH: number;
  /** Hours that do not fit until its evening; 0 where all do, null where nobody has said what the shop has. */
  readonly overH: number | null;
}

const tenth = (hours: number): number => Math.round(10 * hours) / 10;

/**
 * Whether what is promised can be done in time: work in the order of its promised days is the order in which all of it fits if any
 * order does (earliest due date first: Jackson 1955, from memory), so until each evening the hours that are left of all that is
 * promised until then, overdue with it, are held against the hours of the shop from today on. Today counts whole.
 * Does not count: who can do what, time in which a job waits, work that nobody has promised or planned.
 * @param today the first day [ISO 8601]; days without a time zone
 * @throws InputError on `today`, `days` or `hours`
 */
export function fitDays(
  jobs: readonly PromisedJob[],
  { today, days, hours }: { readonly today: string; readonly days: number; readonly hours: WeekHours | null },
): readonly FitDay[] {
  if (!isDay(today)) throw new InputError('today', 'today must be a day.', 'YYYY-MM-DD');
  if (!Number.isInteger(days) || days < 1 || days > 7 * MOST_WEEKS)
    throw new InputError('days', 'days must be a whole number.', `1 to ${7 * MOST_WEEKS}`);
  if (hours && (hours.length !== 7 || hours.some((h) => !(h >= 0 && h <= 1000))))
    throw new InputError('hours', 'hours must be seven numbers, from Monday to Sunday.', '0 to 1000 each');
  let [demand, capacity] = [0, 0];
  for (const { promised, leftH } of jobs) if (promised < today) demand += leftH;
  return Array.from({ length: days }, (_, i): FitDay => {
    const day = dateOf(dayNumber(today) + i);
    const has = hours ? (hours[weekdayOf(day)] ?? 0) : null;
    const promisedH = jobs.reduce((sum, job) => (job.promised === day ? sum + job.leftH : sum), 0);
    demand += promisedH;
    capacity += has ?? 0;
    return {
      day,
      hours: has,
      promisedH: tenth(promisedH),
      overH: has === null ? null : tenth(Math.max(0, demand - capacity)),
    };
  });
}
