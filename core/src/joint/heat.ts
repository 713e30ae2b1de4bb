import { requireNumber } from '../errors';
import { LIMITS } from '../limits';
import { JOINT_LIMITS, type JointVerdict } from './limits';

/** Expansion, 1/K: steel as in the handbook of the field; the others from memory. */
export const EXPANSION = { steel: 11.7e-6, aluminium: 23e-6, 'cast-iron': 10.8e-6 } as const;
export type JointMaterial = keyof typeof EXPANSION;

/** Above the first hardened parts and bearings nearby begin to suffer, above the second they have: 350 and 400 °F [trade]. */
const HOT_C = { watch: 176.7, stop: 204.4 };

/**
 * How warm a part has to be to slide on: ΔT = (interference + slide clearance)/(α·D), both on the diameter [exact].
 *
 * Not counted: what it cools on the way; that the other part warms up. A cold carrier helps by as much.
 * @returns temperature in °C; `watch` from 350 °F, `stop` from 400 °F (tempering, bearings nearby) [trade]
 * @throws InputError naming the field
 */
export function heatToFit(of: {
  readonly diameterMm: number;
  readonly interferenceMm: number;
  readonly slideClearanceMm: number;
  readonly startC: number;
  readonly material: JointMaterial;
}): { readonly targetC: number; readonly verdict: JointVerdict } {
  const diameter = requireNumber('diameterMm', of.diameterMm, LIMITS.diameterMm);
  const interference = requireNumber('interferenceMm', of.interferenceMm, JOINT_LIMITS.interferenceMm);
  const slide = requireNumber('slideClearanceMm', of.slideClearanceMm, JOINT_LIMITS.interferenceMm);
  const start = requireNumber('startC', of.startC, JOINT_LIMITS.celsius);
  const targetC = start + (interference + slide) / (EXPANSION[of.material] * diameter);
  return { targetC, verdict: targetC >= HOT_C.stop ? 'stop' : targetC >= HOT_C.watch ? 'watch' : 'fits' };
}
