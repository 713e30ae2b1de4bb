import type { Work } from '../plan/schema';
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
  readonly reasons: readonly string[];
}

const days = (n: number): string => (n === 1 ? '1 day' : `${n} days`);

/**
 * Overhaul or a complete unit, over the whole job: an overhaul kit weeks away can lose to a unit on the shelf (common practice). What
 * is sooner and not dearer wins; where one is sooner and the other cheaper, it is asked. Hands-on hours are not priced.
 * @param daysUntil days from today to a day written YYYY-MM-DD; the model knows no clock
 */
export function wholeJob(work: Work, parts: readonly PartState[], daysUntil: (day: string) => number): WholeJob {
  const replaced = parts.filter(({ decided }) => decided === 'replace' || decided === 'donor').map(({ name }) => name);
  const away = work.parts.filter(({ state }) => state !== 'here');
  const until = away.map(({ promised }) => (promised === null ? null : daysUntil(promised)));
  // A promise that is past says nothing of when the part comes.
  const late = until.some((one) => one !== null && one < 0);
  const known = !late && until.every((one) => one !== null);
  const last = known ? Math.max(0, ...until.map((one) => one ?? 0)) : null;
  const price = work.parts.reduce((sum, one) => sum + (one.price ?? 0), 0);
  const priced = work.parts.every((one) => one.price !== null);
  const found = { replaced, price, priced, days: last };
  const { complete } = work;
  if (complete.price === null || complete.days === null) {
    const open = complete.price === null ? 'what a complete unit costs' : 'when a complete unit is here';
    return { ...found, choice: 'ask', reasons: [`Nobody has asked ${open}.`] };
  }
  const reasons = [
    last === null
      ? late
        ? 'A part is past its promised day.'
        : 'A part has no promised day.'
      : last === complete.days
        ? `Both in ${days(last)}.`
        : last < complete.days
          ? `Parts are here ${days(complete.days - last)} before a complete unit.`
          : `A complete unit is here ${days(last - complete.days)} before the last part.`,
    !priced
      ? 'A part has no price.'
      : price === complete.price
        ? 'Both cost the same.'
        : price < complete.price
          ? 'The parts cost less.'
          : 'A complete unit costs less.',
  ];
  if (last === null || !priced) return { ...found, choice: 'ask', reasons };
  const [sooner, cheaper] = [last - complete.days, price - complete.price];
  const choice = sooner <= 0 && cheaper <= 0 ? 'overhaul' : sooner >= 0 && cheaper >= 0 ? 'replace' : 'ask';
  return { ...found, choice, reasons };
}
