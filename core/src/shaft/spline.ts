import { InputError, requireNumber } from '../base/errors';
import { SHAFT_LIMITS } from './limits';
import { requireBore, torqueAt } from './torsion';

const INCH = 25.4;

export interface Spline {
  /** Over the teeth, mm. */
  readonly majorMm: number;
  /** At the roots, mm. */
  readonly minorMm: number;
  /** Torsion at the minor diameter at the shear limit, N·m. */
  readonly torqueNm: number;
}

/** What is added to the teeth over the major, and taken off at the minor diameter, by pressure angle [std: ANSI B92.1, from memory]. */
const FORMS = {
  30: { major: 1, minor: 1.35 },
  37.5: { major: 0.9, minor: 1.3 },
  45: { major: 0.8, minor: 1 },
} as const;
/** Pressure angles of involute splines. */
export const SPLINE_ANGLES = [30, 37.5, 45] as const;
export type SplineAngle = (typeof SPLINE_ANGLES)[number];

/**
 * An involute spline: at 30°, flat root, major (N + 1)/P, minor (N − 1.35)/P in inches; at 37.5° (N + 0.9)/P and (N − 1.3)/P; at 45°
 * (N + 0.8)/P and (N − 1)/P [std: ANSI B92.1, from memory]; and the torque at which plain torsion at the minor diameter reaches the
 * limit, solid or with a bore: π·(d⁴ − b⁴)·τ/(16·d) [exact].
 *
 * Not counted: stress concentration at the roots, tooth bearing, a spline that is worn or not fully engaged.
 * @param shearLimitMPa shear yield is tensile yield/√3 [std: von Mises]
 * @throws InputError naming the field
 */
export function spline(of: {
  readonly teeth: number;
  readonly diametralPitch: number;
  readonly shearLimitMPa: number;
  readonly pressureAngleDeg?: SplineAngle;
  readonly boreMm?: number;
}): Spline {
  const teeth = requireNumber('teeth', of.teeth, SHAFT_LIMITS.splineTeeth);
  const pitch = requireNumber('diametralPitch', of.diametralPitch, SHAFT_LIMITS.diametralPitch);
  const shear = requireNumber('shearLimitMPa', of.shearLimitMPa, SHAFT_LIMITS.stressMPa);
  const form = FORMS[of.pressureAngleDeg ?? 30];
  if ((form as unknown) === undefined)
    throw new InputError('pressureAngleDeg', `${of.pressureAngleDeg}° is no spline here.`, SPLINE_ANGLES.join(', '));
  const minorMm = ((teeth - form.minor) / pitch) * INCH;
  const bore = requireBore(of.boreMm, minorMm);
  return { majorMm: ((teeth + form.major) / pitch) * INCH, minorMm, torqueNm: torqueAt(minorMm, shear, bore) };
}
