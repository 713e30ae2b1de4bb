import { requireNumber } from '../errors';
import { SHAFT_LIMITS } from './limits';
import { torqueAt } from './torsion';

const INCH = 25.4;

export interface Spline {
  /** Over the teeth, mm. */
  readonly majorMm: number;
  /** At the roots, mm. */
  readonly minorMm: number;
  /** Torsion at the minor diameter at the shear limit, N·m. */
  readonly torqueNm: number;
}

/**
 * An involute spline, 30°, flat root: major (N + 1)/P, minor (N − 1.35)/P in inches [std: ANSI B92.1, from memory], and the torque
 * at which plain torsion at the minor diameter reaches the limit: π·d³·τ/16 [exact].
 *
 * Not counted: stress concentration at the roots, tooth bearing, a spline that is worn or not fully engaged.
 * @param shearLimitMPa shear yield is tensile yield/√3 [std: von Mises]
 * @throws InputError naming the field
 */
export function spline(of: {
  readonly teeth: number;
  readonly diametralPitch: number;
  readonly shearLimitMPa: number;
}): Spline {
  const teeth = requireNumber('teeth', of.teeth, SHAFT_LIMITS.splineTeeth);
  const pitch = requireNumber('diametralPitch', of.diametralPitch, SHAFT_LIMITS.diametralPitch);
  const shear = requireNumber('shearLimitMPa', of.shearLimitMPa, SHAFT_LIMITS.stressMPa);
  const minorMm = ((teeth - 1.35) / pitch) * INCH;
  return { majorMm: ((teeth + 1) / pitch) * INCH, minorMm, torqueNm: torqueAt(minorMm, shear) };
}
