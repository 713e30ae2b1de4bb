import { InputError, requireNumber } from '../base/errors';
import { MESH_LIMITS } from './limits';

/**
 * Shim, mm, that brings a measured end float to the wanted one: new = old + (measured − wanted) [common practice; exact for
 * stiff parts].
 * Not counted: a shim or a bearing that was not home, a case that gives; preload, which no indicator reads.
 * @throws InputError naming the field; on `wantedMm` where the shim would have to be thinner than nothing
 */
export function floatShim(of: {
  readonly shimMm: number;
  readonly measuredMm: number;
  readonly wantedMm: number;
}): number {
  const shim = requireNumber('shimMm', of.shimMm, MESH_LIMITS.shimMm);
  const measured = requireNumber('measuredMm', of.measuredMm, MESH_LIMITS.floatMm);
  const wanted = requireNumber('wantedMm', of.wantedMm, MESH_LIMITS.floatMm);
  const mm = shim + measured - wanted;
  if (mm < -1e-9)
    throw new InputError(
      'wantedMm',
      `The shim would have to be ${mm.toFixed(3)} mm thick: there is no such float to be had.`,
      'a float that leaves a shim',
    );
  return Math.max(0, mm);
}
