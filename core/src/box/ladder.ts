import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { roadSpeed } from '../gearing/road-speed';
import { BOX_LIMITS } from './limits';

/** Two gears that mesh: what turns the other, and the other. */
export interface GearPair {
  readonly driver: number;
  readonly driven: number;
}

export interface Rung {
  readonly ratio: number;
  /** Ratio over that of the next gear; null in the last. */
  readonly stepTo: number | null;
  readonly speedAtLimitKmh: number;
  /** Engine speed in the next gear at the speed of this one's limiter; null in the last. */
  readonly rpmAfterShift: number | null;
}

export function requirePair(field: string, { driver, driven }: GearPair): number {
  requireNumber(`${field}.driver`, driver, LIMITS.teeth);
  requireNumber(`${field}.driven`, driven, LIMITS.teeth);
  return driven / driver;
}

/**
 * The gears of a box by their teeth, lowest first: ratio, step to the next, speed at the limiter, engine speed behind the shift [exact].
 * An input pair multiplies every gear; an idler changes none.
 * Not counted: tyre growth, slip, speed that is lost in a shift.
 * @throws InputError naming the field; on `pairs[…]` where ratios do not fall
 */
export function gearLadder(of: {
  readonly pairs: readonly GearPair[];
  readonly inputPair?: GearPair;
  readonly finalRatio: number;
  readonly limitRpm: number;
  readonly rollingCircumferenceMm: number;
}): Rung[] {
  requireNumber('pairs', of.pairs.length, BOX_LIMITS.gears);
  const input = of.inputPair ? requirePair('inputPair', of.inputPair) : 1;
  const ratios = of.pairs.map((pair, i) => input * requirePair(`pairs[${i}]`, pair));
  ratios.forEach((ratio, i) => {
    requireNumber(`pairs[${i}]`, ratio, LIMITS.ratio);
    if (i > 0 && ratio >= (ratios[i - 1] as number))
      throw new InputError(`pairs[${i}]`, `pairs[${i}] is no taller than the gear below it.`, 'ratios that fall');
  });
  const { finalRatio, limitRpm, rollingCircumferenceMm } = of;
  return ratios.map((gearRatio, i): Rung => {
    const next = ratios[i + 1];
    const speed = roadSpeed({ rollingCircumferenceMm, gearRatio, rangeRatio: 1, finalRatio, hubRatio: 1 }, limitRpm);
    return {
      ratio: gearRatio,
      stepTo: next === undefined ? null : gearRatio / next,
      speedAtLimitKmh: 3.6 * speed,
      rpmAfterShift: next === undefined ? null : (limitRpm * next) / gearRatio,
    };
  });
}
