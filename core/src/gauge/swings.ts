import { requireNumber } from '../base/errors';

/** Ours: a swing smaller than this, mm, is scatter; a turn back by this share of the swing ends it. */
const LEAST_MM = 0.01;
const BACK = 0.5;

/**
 * Backlash place by place out of the live reading of an indicator while the ring is rocked and turned on: each swing up and back is
 * one place, as large as it went.
 * Not counted: a zero that slips inside one swing; swings below 0.01 mm.
 * @param fed readings in order of time, mm
 * @returns the swings that have ended so far, mm
 * @throws InputError naming the reading that is no number
 */
export function swings(fed: readonly number[]): readonly number[] {
  const found: number[] = [];
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  fed.forEach((reading, i) => {
    const mm = requireNumber(`fed[${i}]`, reading, { min: -1000, max: 1000, unit: 'mm' });
    if (high === Number.NEGATIVE_INFINITY && mm <= low) {
      low = mm;
      return;
    }
    if (mm > high && mm - low >= LEAST_MM) high = mm;
    const size = high - low;
    if (high === Number.NEGATIVE_INFINITY) {
      low = Math.min(low, mm);
    } else if (mm < high - BACK * size) {
      found.push(size);
      [low, high] = [mm, Number.NEGATIVE_INFINITY];
    }
  });
  return found;
}
