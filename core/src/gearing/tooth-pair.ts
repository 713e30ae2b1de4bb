import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/** `hunting`: every tooth meets every tooth. The other two need their timing marks aligned. */
export type Hunting = 'hunting' | 'partial' | 'non-hunting';

export interface ToothPair {
  readonly ring: number;
  readonly pinion: number;
}

/** Greatest common divisor of two positive whole numbers. */
export function greatestCommonDivisor(a: number, b: number): number {
  let [x, y] = [a, b];
  while (y !== 0) [x, y] = [y, x % y];
  return x;
}

/**
 * Ratio and hunting of a ring and pinion by tooth counts: gcd = 1 hunting, gcd = pinion teeth non-hunting, anything
 * between partial [exact].
 * Not counted: offset, face width and strength.
 * @throws InputError on `ring` or `pinion` for anything but whole numbers from 3 to 300, or a ring smaller than its pinion
 */
export function toothPair({ ring, pinion }: ToothPair): { ratio: number; hunting: Hunting; commonDivisor: number } {
  requireNumber('ring', ring, LIMITS.teeth);
  requireNumber('pinion', pinion, LIMITS.teeth);
  if (ring < pinion) {
    throw new InputError(
      'ring',
      `ring has ${ring} teeth and the pinion ${pinion}: they look swapped.`,
      'at least as many as the pinion',
    );
  }
  const commonDivisor = greatestCommonDivisor(ring, pinion);
  const hunting = commonDivisor === 1 ? 'hunting' : commonDivisor === pinion ? 'non-hunting' : 'partial';
  return { ratio: ring / pinion, hunting, commonDivisor };
}

/**
 * The tooth pair nearest to a wanted ratio with about as many ring teeth as `like` (±`ringSpread`), preferring a
 * hunting pair where two are equally near. A first guess of what to look for, not a list of what is made.
 * @throws InputError for a ratio that is not above 0 and at most 200
 */
export function nearestToothPair(ratio: number, like: ToothPair, ringSpread = 6): ToothPair {
  requireNumber('ratio', ratio, LIMITS.ratio);
  let best: ToothPair = like;
  let bestError = Number.POSITIVE_INFINITY;
  for (let ring = Math.max(LIMITS.teeth.min, like.ring - ringSpread); ring <= like.ring + ringSpread; ring++) {
    const pinion = Math.max(LIMITS.teeth.min, Math.min(ring, Math.round(ring / ratio)));
    const commonDivisor = greatestCommonDivisor(ring, pinion);
    const error =
      Math.abs(ring / pinion - ratio) + (commonDivisor === 1 ? 0 : 1e-4) + 1e-6 * Math.abs(ring - like.ring);
    if (error < bestError) {
      best = { ring, pinion };
      bestError = error;
    }
  }
  return best;
}
