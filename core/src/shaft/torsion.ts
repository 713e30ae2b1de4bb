import { requireNumber } from '../errors';
import { LIMITS } from '../limits';
import { SHAFT_LIMITS } from './limits';

/** Torque at a shear stress in a solid round, N·m: π·d³·τ/16 [exact]. */
export const torqueAt = (diameterMm: number, shearMPa: number): number =>
  (Math.PI * diameterMm ** 3 * shearMPa) / 16 / 1000;

/**
 * Shear stress of a solid round in torsion, τ = 16·T/(π·d³) [exact], and how often the yield holds it.
 *
 * Not counted: bending, stress concentration, fatigue: what holds once does not hold for ever.
 * @returns stress in MPa; the margin is null where there is no torque
 * @throws InputError naming the field
 */
export function torsion(of: {
  readonly diameterMm: number;
  readonly torqueNm: number;
  readonly shearYieldMPa: number;
}): { readonly shearMPa: number; readonly margin: number | null } {
  const diameter = requireNumber('diameterMm', of.diameterMm, SHAFT_LIMITS.diameterMm);
  const torque = requireNumber('torqueNm', of.torqueNm, LIMITS.torqueNm);
  const shearYield = requireNumber('shearYieldMPa', of.shearYieldMPa, SHAFT_LIMITS.stressMPa);
  return {
    shearMPa: torque / torqueAt(diameter, 1),
    margin: torque === 0 ? null : torqueAt(diameter, shearYield) / torque,
  };
}
