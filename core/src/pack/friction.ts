import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/**
 * Friction coefficient that a measured breakaway stands for. The mean pack torque is μ·r·(n_L·F_L + n_R·F_R)/2, so
 * μ = 2·T_c ÷ (r·Σ n·F) [exact, inverse of T = μ·n·F·r, standard: Shigley].
 * Not counted: what else was in the reading; see perPackFromReading.
 * @param perPackNm mean friction torque of the two packs, N·m: what the reading comes to for its hold
 * @param packs interfaces and clamp force of each pack
 * @param radiusMm mean friction radius
 * @throws InputError naming the field; on `packs` where nothing is clamped
 */
export function effectiveFriction(
  perPackNm: number,
  packs: readonly { readonly interfaces: number; readonly clampN: number }[],
  radiusMm: number,
): number {
  const torque = requireNumber('perPackNm', perPackNm, { min: 0, max: LIMITS.torqueNm.max, unit: 'N·m' });
  const radius = requireNumber('radiusMm', radiusMm, LIMITS.radiusMm);
  requireNumber('packs', packs.length, { min: 1, max: 2, integer: true });
  const pressed = packs.reduce(
    (sum, { interfaces, clampN }, i) =>
      sum +
      requireNumber(`packs[${i}].interfaces`, interfaces, LIMITS.interfaces) *
        requireNumber(`packs[${i}].clampN`, clampN, LIMITS.forceN),
    0,
  );
  if (pressed === 0)
    throw new InputError(
      'packs',
      'packs: nothing is clamped, so no friction coefficient explains a torque.',
      'interfaces and clamp force',
    );
  return (1000 * packs.length * torque) / (radius * pressed);
}

export interface LearnedFriction {
  readonly mean: number;
  /** 19 of 20 next readings lie this close to the mean; null for fewer than three readings, which say nothing of it. */
  readonly plusMinus: number | null;
}

/** 97.5 % points of Student's t for 2 to 30 degrees of freedom [standard: Student's table, from memory]. */
const STUDENT = [
  4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11, 2.101,
  2.093, 2.086, 2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
];
/** 97.5 % point of the normal distribution. */
const NORMAL = 1.959964;

/**
 * 97.5 % point of Student's t; past the table by the expansion in 1/ν about the normal point [standard: Abramowitz &
 * Stegun 26.7.5, from memory], which is within 1e-5 there.
 */
export function studentT(degrees: number): number {
  const nu = requireNumber('degrees', degrees, { min: 2, max: 1e9, integer: true });
  const z = NORMAL;
  return (
    STUDENT[nu - 2] ??
    z +
      (z ** 3 + z) / (4 * nu) +
      (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * nu ** 2) +
      (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / (384 * nu ** 3)
  );
}

/**
 * What readings of one kind of plate in one oil say of the next one: their mean, and the prediction interval
 * t·s·√(1 + 1/n) [standard: prediction interval of a normal sample].
 * Not counted: wear and heat between the readings.
 * @param coefficients at least one
 * @throws InputError naming the field
 */
export function learnedFriction(coefficients: readonly number[]): LearnedFriction {
  const n = requireNumber('coefficients', coefficients.length, { min: 1, max: 10_000, integer: true });
  coefficients.forEach((one, i) => requireNumber(`coefficients[${i}]`, one, LIMITS.frictionCoefficient));
  const mean = coefficients.reduce((a, b) => a + b, 0) / n;
  if (n < 3) return { mean, plusMinus: null };
  const variance = coefficients.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (n - 1);
  return { mean, plusMinus: studentT(n - 1) * Math.sqrt(variance * (1 + 1 / n)) };
}
