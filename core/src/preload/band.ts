import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/** @throws InputError naming `bandNm` for ends that are no band */
export function requireTorqueBand(band: readonly [number, number]): readonly [number, number] {
  const low = requireNumber('bandNm[0]', band[0], LIMITS.torqueNm);
  const high = requireNumber('bandNm[1]', band[1], LIMITS.torqueNm);
  if (high <= low)
    throw new InputError(
      'bandNm',
      `bandNm is upside down: ${low} to ${high}.`,
      'the lower limit first, then the upper one',
    );
  return [low, high];
}
