import { randomBytes, timingSafeEqual } from 'node:crypto';
import { RESTS_FOR_WORDS, type BoardRow } from '@hot-spline/model';
import ical, { ICalCalendarMethod } from 'ical-generator';
import type { Queries } from '../db/database';

const LINK = 'calendar';

/** The secret part of the link; null while there is none. It can be read again: whoever keeps the shop hands it on. */
export async function calendarKey(db: Queries): Promise<string | null> {
  const [row] = await db.query<{ key: string }>('select key from links where what = $1', [LINK]);
  return row?.key ?? null;
}

/** Another key, in place of the one that was. */
export async function newCalendarKey(db: Queries): Promise<string> {
  const key = randomBytes(24).toString('base64url');
  await db.query('insert into links (what, key) values ($1, $2) on conflict (what) do update set key = excluded.key', [
    LINK,
    key,
  ]);
  return key;
}

export async function dropCalendarKey(db: Queries): Promise<void> {
  await db.query('delete from links where what = $1', [LINK]);
}

/** Whether it is the key, however long it takes to say so. */
export async function isCalendarKey(db: Queries, said: string): Promise<boolean> {
  const key = await calendarKey(db);
  if (key === null) return false;
  const [a, b] = [Buffer.from(said), Buffer.from(key)];
  return a.length === b.length && timingSafeEqual(a, b);
}

const DAY_MS = 86_400_000;
/** A day as the calendar writes it: no time, no zone. */
const dayOf = (iso: string): Date => new Date(`${iso.slice(0, 10)}T00:00:00.000Z`);

/**
 * Promised days, rechecks and what a job waits for as a calendar [RFC 5545], whole days each. A hold that nobody has said an end of
 * lasts up to `today`: it grows.
 * Not in it: customers, prices, what has no day. @param at where a build is opened
 */
export function calendarText(
  rows: readonly BoardRow[],
  shop: { readonly id: string; readonly name: string },
  at: string,
  today: string,
): string {
  const calendar = ical({
    name: shop.name === '' ? 'Hot Spline' : shop.name,
    prodId: { company: 'Hot Spline', product: 'Board', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 3600,
  });
  const day = (row: BoardRow, key: string, on: string, summary: string, more: string, last = on): void => {
    calendar.createEvent({
      id: `${row.id}-${key}@${shop.id}`,
      stamp: new Date(row.updatedAt),
      start: dayOf(on),
      // The day after the last: an end is not in it [RFC 5545, 3.6.1].
      end: new Date(dayOf(last).getTime() + DAY_MS),
      allDay: true,
      timezone: null,
      summary,
      description: more,
      ...(at === '' ? {} : { url: `${at}/builds/${row.id}` }),
    });
  };
  for (const row of rows) {
    const whose = row.worker === '' ? '' : `With ${row.worker}. `;
    if (row.promised !== null && row.work.state !== 'done')
      day(
        row,
        'promised',
        row.promised,
        `${row.name}: promised`,
        `${row.vehicle}. ${whose}${row.work.rest ? `Waits: ${row.work.rest.what}` : row.work.next}`,
      );
    const { rest } = row.work;
    if (rest?.since) {
      const [from, until] = [rest.since.slice(0, 10), rest.until?.slice(0, 10) ?? null];
      const last = until ?? today;
      day(
        row,
        'rest',
        from,
        `${row.name} waits for ${RESTS_FOR_WORDS[rest.for]}`,
        `${rest.what}. ${until === null ? 'Nobody has said until when.' : `Until ${until}.`} ${whose}`,
        last < from ? from : last,
      );
    }
    row.rechecks.forEach(({ on, why }, i) =>
      day(row, `recheck-${i}`, on, `${row.name}: ${why}`, `${row.vehicle}. ${whose}`),
    );
  }
  return calendar.toString();
}
