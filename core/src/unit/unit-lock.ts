import { requireNumber } from '../errors';
import { LIMITS } from '../limits';
import { rampLockCoefficient, type PlateUnit } from './ramp';

export interface UnitLock {
  /** Torque that the packs can hold between the wheels, N·m. */
  readonly lockNm: number;
  /** lockNm / inputNm; null without input torque. At 1 and above nothing slips. */
  readonly lockingValue: number | null;
  /** Slow wheel to fast wheel; null where the unit is solid. */
  readonly biasRatio: number | null;
  /** Nothing would slip at this input torque. */
  readonly solid: boolean;
  /** Locking torque per input torque from the ramps. */
  readonly rampCoefficient: number;
}

/** Judges a locking torque at an input torque. Any unit that knows its locking torque ends here. */
export function lockAt(inputNm: number, lockNm: number, rampCoefficient = 0): UnitLock {
  requireNumber('inputNm', inputNm, LIMITS.torqueNm);
  requireNumber('lockNm', lockNm, { min: 0, max: Number.MAX_VALUE });
  const solid = lockNm > 0 && lockNm >= inputNm;
  const value = inputNm === 0 ? null : lockNm / inputNm;
  return {
    lockNm,
    lockingValue: value,
    biasRatio: solid ? null : inputNm === 0 ? 1 : (inputNm + lockNm) / (inputNm - lockNm),
    solid,
    rampCoefficient,
  };
}

/**
 * Locking torque of a plate unit: T_lock = T_0 + k·T_in, k from the ramps [exact, see {@link rampLockCoefficient}].
 * @param unit one flank of the ramps (drive and overrun are asked for one at a time)
 * @param preloadNm locking torque at no input: twice the breakaway of one pack
 * @param inputNm torque into the unit
 * @throws InputError naming the field
 */
export function unitLock(unit: PlateUnit, preloadNm: number, inputNm: number): UnitLock {
  const coefficient = rampLockCoefficient(unit);
  requireNumber('preloadNm', preloadNm, LIMITS.torqueNm);
  requireNumber('inputNm', inputNm, LIMITS.torqueNm);
  return lockAt(inputNm, preloadNm + coefficient * inputNm, coefficient);
}
