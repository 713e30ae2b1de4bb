import type { Axle } from '../frame/document';
import type { PartState } from './index';

export interface WholeJob {
  readonly choice: 'overhaul' | 'replace' | 'ask';
  /** Parts that are replaced or come from a donor, by name. */
  readonly replaced: readonly string[];
  /** Price of the parts of the job, as far as somebody has said it; whether all of it is said. */
  readonly price: number;
  readonly priced: boolean;
  /** Days until the last part is here; null where one has no day, or its day is past. */
  readonly days: number | null;
  /** What the hours cost that are left with hands on it, and those of a complete unit; null where they are not priced. */
  readonly labour: { readonly overhaul: number; readonly complete: number } | null;
  readonly reasons: readonly string[];
}

const days = (n: number): string => (n === 1 ? '1 day' : `${n} days`);

/** Which is here sooner. @param last days until the last part; null where one has no day, or its day is past */
function byDay(last: number | null, late: boolean, complete: number): string {
  if (last === null) return late ? 'A part is past its promised day.' : 'A part has no promised day.';
  if (last === complete) return `Both in ${days(last)}.`;
  return last < complete
    ? `Parts are here ${days(complete - last)} before a complete unit.`
    : `A complete unit is here ${days(last - complete)} before the last part.`;
}

/** Which costs less. @param dearer what the overhaul costs more */
function byPrice(dearer: number, priced: boolean, hours: boolean): string {
  if (!priced) return 'A part has no price.';
  if (dearer === 0) return 'Both cost the same.';
  if (dearer > 0) return 'A complete unit costs less.';
  return hours ? 'The overhaul costs less.' : 'The parts cost less.';
}

const byHours = (counted: boolean, rate: number | null): string =>
  counted
    ? 'Hours with hands on it are counted.'
    : `Hours are not counted: nobody has said ${rate === null ? 'what one costs' : 'how many a complete unit takes'}.`;

/**
 * Overhaul or a complete unit, over the whole job: an overhaul kit weeks away can lose to a unit on the shelf (common practice). What
 * is sooner and not dearer wins; where one is sooner and the other cheaper, it is asked. Hours with hands on it count where the shop has
 * said what one costs and how many a complete unit takes; else parts alone are compared, and that is said.
 * @param hands hours that the plan still takes, and what one costs; null where the shop has not said
 * @param daysUntil days from today to a day written YYYY-MM-DD; the model knows no clock
 */
export function wholeJob(
  work: NonNullable<Axle['work']>,
  parts: readonly PartState[],
  hands: { readonly leftH: number; readonly rate: number | null },
  daysUntil: (day: string) => number,
): WholeJob {
  const replaced = parts.filter(({ decided }) => decided === 'replace' || decided === 'donor').map(({ name }) => name);
  const away = work.parts.filter(({ state }) => state !== 'here');
  const until = away.map(({ promised }) => (promised === null ? null : daysUntil(promised)));
  // A promise that is past says nothing of when the part comes.
  const late = until.some((one) => one !== null && one < 0);
  const known = !late && until.every((one) => one !== null);
  const last = known ? Math.max(0, ...until.map((one) => one ?? 0)) : null;
  const price = work.parts.reduce((sum, one) => sum + (one.price ?? 0), 0);
  const priced = work.parts.every((one) => one.price !== null);
  const { complete } = work;
  const { leftH, rate } = hands;
  const labour =
    rate === null || complete.hours === null ? null : { overhaul: leftH * rate, complete: complete.hours * rate };
  const found = { replaced, price, priced, days: last, labour };
  if (complete.price === null || complete.days === null) {
    const open = complete.price === null ? 'what a complete unit costs' : 'when a complete unit is here';
    return { ...found, choice: 'ask', reasons: [`Nobody has asked ${open}.`] };
  }
  const dearer = price + (labour?.overhaul ?? 0) - complete.price - (labour?.complete ?? 0);
  const reasons = [
    byDay(last, late, complete.days),
    byPrice(dearer, priced, labour !== null),
    byHours(labour !== null, rate),
  ];
  if (last === null || !priced) return { ...found, choice: 'ask', reasons };
  const later = last - complete.days;
  const choice = later <= 0 && dearer <= 0 ? 'overhaul' : later >= 0 && dearer >= 0 ? 'replace' : 'ask';
  return { ...found, choice, reasons };
}
