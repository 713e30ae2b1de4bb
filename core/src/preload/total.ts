import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/**
 * Turning torque of the carrier bearings, N·m, from what the whole takes at the pinion: T_total = T_pinion + T_carrier/i
 * [exact].
 * Not counted: drag of the mesh and of seals; read both in one state.
 * @throws InputError naming the field; on `totalNm` where it is less than the pinion alone
 */
export function carrierPreload(of: {
  readonly totalNm: number;
  readonly pinionNm: number;
  readonly ratio: number;
}): number {
  const total = requireNumber('totalNm', of.totalNm, LIMITS.torqueNm);
  const pinion = requireNumber('pinionNm', of.pinionNm, LIMITS.torqueNm);
  const ratio = requireNumber('ratio', of.ratio, LIMITS.ratio);
  if (total < pinion)
    throw new InputError(
      'totalNm',
      `totalNm ${total} is less than the pinion alone, ${pinion}: they were read in two states.`,
      'at least pinionNm',
    );
  return (total - pinion) * ratio;
}
