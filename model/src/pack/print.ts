import { entryBase } from '@hot-spline/core';
import type { PlateSpec } from './schema';
import { SIDES } from '../base/names';

/**
 * A short mark of both packs as they lie: order, kinds, linings, sizes of the pieces. The same packs have the same mark; names and
 * what was seen of a piece are not in it.
 */
export function packPrint({ packs }: Pick<PlateSpec, 'packs'>): string {
  const text = SIDES.map((side) =>
    packs[side].members
      .map((member) => {
        const turned = 'hollow' in member ? member.hollow : 'lined' in member ? String(member.lined) : '';
        return `${member.kind} ${turned} ${entryBase(member.thickness).toFixed(3)}`;
      })
      .join('|'),
  ).join('/');
  // FNV-1a, 32 bit.
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
  return hash.toString(16).padStart(8, '0');
}
