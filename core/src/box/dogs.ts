import { requireNumber } from '../base/errors';
import { BOX_LIMITS } from './limits';

/**
 * Dogs that meet standing still: the chance that they come face to face, the play when they are in, and by how much to turn one of
 * them so that they always clear [exact, every angle alike]. A chance of 1 is a set that can never go in.
 * Not counted: chamfers and undercut of the dogs, oil drag that turns them by itself.
 * @param count of dogs on each side
 * @param widthsDeg of the dogs of either side at the radius where they touch
 * @throws InputError naming the field
 */
export function dogsMeet({
  count,
  widthsDeg,
}: {
  readonly count: number;
  readonly widthsDeg: readonly [number, number];
}): { readonly chanceFaceToFace: number; readonly playDeg: number; readonly turnAtMostDeg: number } {
  requireNumber('count', count, BOX_LIMITS.dogs);
  widthsDeg.forEach((width, i) => requireNumber(`widthsDeg[${i}]`, width, BOX_LIMITS.widthDeg));
  const both = widthsDeg[0] + widthsDeg[1];
  return {
    chanceFaceToFace: Math.min(1, (count * both) / 360),
    playDeg: 360 / count - both,
    turnAtMostDeg: both,
  };
}
