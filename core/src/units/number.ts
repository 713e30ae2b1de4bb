import type { Quantity } from './quantities';

/** What separates the decimals of a number. */
export const DECIMAL_SIGNS = ['point', 'comma'] as const;
export type DecimalSign = (typeof DECIMAL_SIGNS)[number];

/** What is met in thousands: three digits behind a lone sign are the rest of a thousand there (common practice). */
const IN_THOUSANDS: ReadonlySet<Quantity> = new Set<Quantity>(['mass', 'speed', 'rotation', 'money', 'count']);
export const inThousands = (quantity: Quantity): boolean => IN_THOUSANDS.has(quantity);

const GROUPED = /^\d{1,3}(?:[ '’\u00a0\u202f]\d{3})+(?:[.,]\d+)?$/;

/**
 * What a number without a sign or a unit can mean: `1,480.5` one thing, `1,480` two – 1.48 and 1480, in this order –, `1,48,0` none.
 * Groups of three may be apart by blanks, apostrophes, commas or points; a lone sign with three digits behind it is only a
 * decimal sign after 0 or four digits, or where `sign` says which it is.
 * @param sign what separates decimals here, where that is known
 */
export function numberReadings(text: string, sign?: DecimalSign): readonly number[] {
  const exponent = /^(.+?)(e[+-]?\d+)$/i.exec(text);
  if (exponent) return numberReadings(exponent[1] ?? '', sign).map((value) => Number(`${value}${exponent[2] ?? ''}`));
  if (GROUPED.test(text)) return numberReadings(text.replace(/[ '’\u00a0\u202f]/g, ''), sign).slice(-1);
  if (!/^(?:\d[\d.,]*|[.,]\d+)$/.test(text)) return [];
  const [points, commas] = [text.split('.').length - 1, text.split(',').length - 1];
  const decimal = (separator: string): number =>
    Number(text.replaceAll(separator === ',' ? '.' : ',', '').replace(separator, '.'));
  const whole = (): number => Number(text.replace(/[.,]/g, ''));
  if (points > 0 && commas > 0) {
    // The last sign is the decimal one; the other stands before groups of three.
    const last = text.lastIndexOf('.') > text.lastIndexOf(',') ? '.' : ',';
    const other = last === '.' ? ',' : '.';
    const [before = '', after = ''] = [text.slice(0, text.lastIndexOf(last)), text.slice(text.lastIndexOf(last) + 1)];
    const fits =
      !before.includes(last) && new RegExp(`^\\d{1,3}(?:\\${other}\\d{3})+$`).test(before) && /^\d*$/.test(after);
    return fits ? [decimal(last)] : [];
  }
  if (points + commas === 0) return [Number(text)];
  if (points + commas > 1) return /^\d{1,3}(?:[.,]\d{3})+$/.test(text) ? [whole()] : [];
  const separator = points === 1 ? '.' : ',';
  if (!/^[1-9]\d{0,2}[.,]\d{3}$/.test(text)) return [decimal(separator)];
  if (sign === undefined) return [decimal(separator), whole()];
  return [(sign === 'point') === (separator === '.') ? decimal(separator) : whole()];
}
