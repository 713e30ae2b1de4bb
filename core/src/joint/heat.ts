import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { JOINT_LIMITS, type JointVerdict } from './limits';

/** Expansion, 1/K: steel as in the handbook of the field; the others from memory. */
export const EXPANSION = { steel: 11.7e-6, aluminium: 23e-6, 'cast-iron': 10.8e-6 } as const;
export type JointMaterial = keyof typeof EXPANSION;

/** Ours, °C: carburized rings are tempered at about 150 to 190 (from memory); the sheet's own limit takes the place of the second. */
export const RING_HEAT_C = { watch: 150, stop: 190 } as const;

/**
 * How warm a part has to be to slide on: ΔT = (interference + slide clearance)/(α·D), both on the diameter [exact].
 *
 * Not counted: what it cools on the way; that the other part warms up. A cold carrier helps by as much.
 * @param of.limitC what the sheet allows at most; 190 °C, ours, where it says nothing
 * @returns temperature in °C; `watch` from 150 °C on (ours), `stop` above the limit: the ring would be tempered
 * @throws InputError naming the field
 */
export function heatToFit(of: {
  readonly diameterMm: number;
  readonly interferenceMm: number;
  readonly slideClearanceMm: number;
  readonly startC: number;
  readonly material: JointMaterial;
  readonly limitC?: number;
}): { readonly targetC: number; readonly verdict: JointVerdict } {
  const diameter = requireNumber('diameterMm', of.diameterMm, LIMITS.diameterMm);
  const interference = requireNumber('interferenceMm', of.interferenceMm, JOINT_LIMITS.interferenceMm);
  const slide = requireNumber('slideClearanceMm', of.slideClearanceMm, JOINT_LIMITS.interferenceMm);
  const start = requireNumber('startC', of.startC, JOINT_LIMITS.celsius);
  const targetC = start + (interference + slide) / (EXPANSION[of.material] * diameter);
  const limit = requireNumber('limitC', of.limitC ?? RING_HEAT_C.stop, JOINT_LIMITS.celsius);
  return { targetC, verdict: targetC > limit ? 'stop' : targetC >= RING_HEAT_C.watch ? 'watch' : 'fits' };
}
