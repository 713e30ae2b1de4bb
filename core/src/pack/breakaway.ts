import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/** Bedded plates wear until pressure × radius is even; new or rigid ones press evenly. */
export type WearModel = 'uniform-wear' | 'uniform-pressure';

/**
 * Radius in mm at which the whole friction force of a ring acts: (r_o+r_i)/2 for uniform wear,
 * ⅔·(r_o³−r_i³)/(r_o²−r_i²) for uniform pressure [standard: Shigley, axial clutches].
 * Not counted: grooves and holes in the lining.
 * @throws InputError where the radii are not outer > inner > 0
 */
export function frictionRadius(outerRadiusMm: number, innerRadiusMm: number, wearModel: WearModel): number {
  const outer = requireNumber('outerRadiusMm', outerRadiusMm, LIMITS.radiusMm);
  const inner = requireNumber('innerRadiusMm', innerRadiusMm, LIMITS.radiusMm);
  if (inner >= outer) {
    throw new InputError(
      'innerRadiusMm',
      `innerRadiusMm is ${inner}, not below the outer radius ${outer}.`,
      `more than 0, below ${outer} mm`,
    );
  }
  return wearModel === 'uniform-wear'
    ? (outer + inner) / 2
    : ((2 / 3) * (outer ** 3 - inner ** 3)) / (outer ** 2 - inner ** 2);
}

export interface PackFriction {
  readonly frictionCoefficient: number;
  readonly interfaces: number;
  readonly clampN: number;
  readonly outerRadiusMm: number;
  readonly innerRadiusMm: number;
  readonly wearModel: WearModel;
}

/**
 * Friction torque in N·m of one pack: T = μ·n·F·r [standard: Shigley, axial clutches]. μ 0.10, n 4, F 2000 N,
 * 50/35 mm: 34.00 (wear), 34.35 (pressure).
 * Not counted: drag of oil, bare metal that rubs, friction of ears and splines.
 * @throws InputError naming the field
 */
export function packBreakaway(pack: PackFriction): number {
  return (
    (requireNumber('frictionCoefficient', pack.frictionCoefficient, LIMITS.frictionCoefficient) *
      requireNumber('interfaces', pack.interfaces, LIMITS.interfaces) *
      requireNumber('clampN', pack.clampN, LIMITS.forceN) *
      frictionRadius(pack.outerRadiusMm, pack.innerRadiusMm, pack.wearModel)) /
    1000
  );
}
