import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { SHAFT_LIMITS } from './limits';

/** Torque at a shear stress in a round, solid or hollow, N·m: π·(d⁴ − b⁴)·τ/(16·d) [exact]. */
export const torqueAt = (diameterMm: number, shearMPa: number, boreMm = 0): number =>
  (Math.PI * (diameterMm ** 4 - boreMm ** 4) * shearMPa) / (16 * diameterMm) / 1000;

/**
 * Shear stress of a round in torsion, τ = 16·T·d/(π·(d⁴ − b⁴)), solid where no bore is told [exact], and how often the yield holds it.
 *
 * Not counted: bending, stress concentration, fatigue: what holds once does not hold for ever.
 * @returns stress in MPa; the margin is null where there is no torque
 * @throws InputError naming the field
 */
export function torsion(of: {
  readonly diameterMm: number;
  readonly torqueNm: number;
  readonly shearYieldMPa: number;
  readonly boreMm?: number;
}): { readonly shearMPa: number; readonly margin: number | null } {
  const diameter = requireNumber('diameterMm', of.diameterMm, SHAFT_LIMITS.diameterMm);
  const torque = requireNumber('torqueNm', of.torqueNm, LIMITS.torqueNm);
  const shearYield = requireNumber('shearYieldMPa', of.shearYieldMPa, SHAFT_LIMITS.stressMPa);
  const bore = requireBore(of.boreMm, diameter);
  return {
    shearMPa: torque / torqueAt(diameter, 1, bore),
    margin: torque === 0 ? null : torqueAt(diameter, shearYield, bore) / torque,
  };
}

/** A bore that leaves a wall; 0 where none is told. @throws InputError on `boreMm` */
export function requireBore(boreMm: number | undefined, diameterMm: number): number {
  const bore = requireNumber('boreMm', boreMm ?? 0, { min: 0, max: SHAFT_LIMITS.diameterMm.max, unit: 'mm' });
  if (bore >= diameterMm)
    throw new InputError(
      'boreMm',
      `boreMm ${bore} leaves nothing of ${Number(diameterMm.toFixed(3))} mm.`,
      `less than ${Number(diameterMm.toFixed(3))} mm`,
    );
  return bore;
}
