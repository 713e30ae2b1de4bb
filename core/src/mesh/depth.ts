import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { depthSign, type Depthwards } from './construction';
import { MESH_LIMITS } from './limits';

export interface DepthByMarks {
  readonly oldShimMm: number;
  /** Deviations marked on the pinion heads, as signed: positive wants to sit farther from the axis. */
  readonly oldMarkMm: number;
  readonly newMarkMm: number;
  /** Heights of the head bearings as measured; both or none. */
  readonly oldBearingHeightMm?: number;
  readonly newBearingHeightMm?: number;
  readonly addingShimMovesPinion: Depthwards;
  /** `deeper` unless told; a transaxle's direction is its own. */
  readonly tallerBearingMovesPinion?: Depthwards;
}

/**
 * Pinion shim of a new set from the one that came out, mm: old + s·[(mark old − mark new) + b·(height old − height new)],
 * s and b +1 where more makes it deeper, −1 where shallower [exact].
 * Not counted: makers whose marks have the other sign, a housing that was machined, wear of the old bearing.
 * @throws InputError naming the field; on `newBearingHeightMm` where only one height is told, on `oldShimMm` where the
 *   shim would have to be thinner than nothing
 */
export function depthShim(by: DepthByMarks): number {
  const old = requireNumber('oldShimMm', by.oldShimMm, MESH_LIMITS.shimMm);
  const marks =
    requireNumber('oldMarkMm', by.oldMarkMm, MESH_LIMITS.markMm) -
    requireNumber('newMarkMm', by.newMarkMm, MESH_LIMITS.markMm);
  const { oldBearingHeightMm: before, newBearingHeightMm: after } = by;
  if ((before === undefined) !== (after === undefined))
    throw new InputError(
      before === undefined ? 'oldBearingHeightMm' : 'newBearingHeightMm',
      'One bearing height says nothing without the other.',
      'both heights, or none',
    );
  const heights =
    before === undefined
      ? 0
      : requireNumber('oldBearingHeightMm', before, MESH_LIMITS.heightMm) -
        requireNumber('newBearingHeightMm', after, MESH_LIMITS.heightMm);
  const deeper = marks + depthSign(by.tallerBearingMovesPinion ?? 'deeper') * heights;
  const shim = old + depthSign(by.addingShimMovesPinion) * deeper;
  if (shim < -1e-9)
    throw new InputError(
      'oldShimMm',
      `The shim would have to be ${shim.toFixed(3)} mm thick: a mark or a height has the wrong sign, or another part is in.`,
      'marks and heights that leave a shim',
    );
  return Math.max(0, shim);
}

/**
 * Distance from the axis of the carrier to the pinion head, measured from the parting face of a bearing bore, mm:
 * reading − (Ø/2 − depth of the cap) [exact].
 * Not counted: a bore that is not round, a cap that is not its own.
 * @throws InputError naming the field; on `readingMm` where the head would lie beyond the axis
 */
export function depthFromBore(of: {
  readonly boreDiameterMm: number;
  /** From the parting face to the bottom of the cap's bore. */
  readonly capDepthMm: number;
  readonly readingMm: number;
}): number {
  const bore = requireNumber('boreDiameterMm', of.boreDiameterMm, LIMITS.diameterMm);
  const cap = requireNumber('capDepthMm', of.capDepthMm, { min: 0, max: bore, unit: 'mm' });
  const reading = requireNumber('readingMm', of.readingMm, { above: 0, max: 10_000, unit: 'mm' });
  const distance = reading - (bore / 2 - cap);
  if (distance <= 0)
    throw new InputError(
      'readingMm',
      `readingMm ${reading} ends before the axis, which lies ${(bore / 2 - cap).toFixed(3)} mm behind the parting face.`,
      'a reading from the parting face to the pinion head',
    );
  return distance;
}

export interface ChainLink {
  readonly name: string;
  readonly mm: number;
  readonly sign: 1 | -1;
}

/**
 * A chain of signed lengths, mm: Σ sign·length, whatever the schools call its links [exact].
 * Not counted: tolerances of the links, temperature.
 * @param links 1 to 50
 * @throws InputError naming the link
 */
export function depthChain(links: readonly ChainLink[]): number {
  if (links.length === 0 || links.length > 50)
    throw new InputError('links', `links has ${links.length} entries.`, '1 to 50 links');
  return links.reduce((sum, { mm, sign }, i) => {
    if (Math.abs(sign) !== 1) throw new InputError(`links[${i}].sign`, `links[${i}].sign is ${sign}.`, '1 or -1');
    return sum + sign * requireNumber(`links[${i}].mm`, mm, MESH_LIMITS.lengthMm);
  }, 0);
}
