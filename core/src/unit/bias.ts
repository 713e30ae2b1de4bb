import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/**
 * Torque bias ratio from the locking value: TBR = (1+S)/(1−S) [exact]. S = 0.5 gives 3.
 * @throws InputError unless 0 ≤ S < 1
 */
export function biasRatio(lockingValue: number): number {
  requireNumber('lockingValue', lockingValue, { min: 0, max: 1 - 1e-12 });
  return (1 + lockingValue) / (1 - lockingValue);
}

/**
 * Locking value from the torque bias ratio: S = (TBR−1)/(TBR+1) [exact].
 * @throws InputError unless TBR ≥ 1
 */
export function lockingValue(bias: number): number {
  requireNumber('biasRatio', bias, { min: 1, max: 1e12 });
  return (bias - 1) / (bias + 1);
}

/**
 * Torque of the slower and the faster wheel in N·m: T_in/2 ± T_lock/2 [exact]. What would be held beyond the input
 * torque is not delivered: the unit is then solid and the slow wheel can take all of it.
 * Not counted: friction of the differential itself.
 * @throws InputError naming the field
 */
export function wheelTorques(inputNm: number, lockNm: number): { slowNm: number; fastNm: number } {
  const input = requireNumber('inputNm', inputNm, LIMITS.torqueNm);
  const lock = Math.min(input, requireNumber('lockNm', lockNm, { min: 0, max: Number.MAX_VALUE }));
  return { slowNm: (input + lock) / 2, fastNm: (input - lock) / 2 };
}
