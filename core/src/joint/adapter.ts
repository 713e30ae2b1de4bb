import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { JOINT_LIMITS } from './limits';

/**
 * What a wrench is set to where an adapter makes it longer in line: T·L/(L + E) [exact], N·m. At a right angle nothing changes.
 * @throws InputError naming the field
 */
export function adapterSetting(of: {
  readonly torqueNm: number;
  readonly leverMm: number;
  readonly adapterMm: number;
}): number {
  const torque = requireNumber('torqueNm', of.torqueNm, LIMITS.torqueNm);
  const lever = requireNumber('leverMm', of.leverMm, JOINT_LIMITS.leverMm);
  const adapter = requireNumber('adapterMm', of.adapterMm, JOINT_LIMITS.lengthMm);
  return (torque * lever) / (lever + adapter);
}
