import { InputError, numberReadings } from '@hot-spline/core';
import type { PlateSpec } from '@hot-spline/model';
import type { Understood } from '../shared/field';

export type Offer = NonNullable<PlateSpec['offers']['overhaul']>;

const DAY_MS = 86_400_000;

/** Reads `340; 12` as a price and the days until it is here; empty text is no offer. */
export function readOffer(text: string): Understood<Offer | null> {
  if (text.trim() === '') return { value: null, said: '' };
  const match = /^\s*(\d[\d.,]{0,11})\s*;\s*(\d{1,4})\s*(?:d|days?)?\s*$/i.exec(text);
  if (!match) throw new InputError('Offer', 'Offer must be a price and days, apart by a semicolon.', 'e.g. 340; 12');
  const leadDays = Number(match[2]);
  if (leadDays > 3650) throw new InputError('Offer', 'Offer: the days are too many.', '0 to 3650');
  const price = numberReadings(match[1] ?? '').at(-1) ?? Number.NaN;
  return { value: { price, leadDays }, said: leadDays === 0 ? 'on the shelf' : `here in ${leadDays} days` };
}

/** Reads a day as `2026-12-24`, or `in 30 days`; empty text is no day. */
export function readDay(text: string, today = new Date()): Understood<string | null> {
  const typed = text.trim();
  if (typed === '') return { value: null, said: '' };
  const ahead = /^(?:in\s+)?(\d{1,4})\s*d(?:ays?)?$/i.exec(typed);
  const iso = (date: Date): string => date.toISOString().slice(0, 10);
  const midnight = Date.UTC(today.getFullYear(), today.getMonth(), today.getDate());
  if (ahead) {
    const on = iso(new Date(midnight + Number(ahead[1]) * DAY_MS));
    return { value: on, said: on };
  }
  const date = /^\d{4}-\d{2}-\d{2}$/.test(typed) ? new Date(`${typed}T00:00:00Z`) : null;
  if (!date || Number.isNaN(date.getTime()) || iso(date) !== typed)
    throw new InputError('Recheck', 'Recheck must be a day.', 'e.g. 2026-12-24, or “in 30 days”');
  const days = Math.round((date.getTime() - midnight) / DAY_MS);
  return { value: typed, said: days === 0 ? 'today' : days < 0 ? `${-days} days ago` : `in ${days} days` };
}
