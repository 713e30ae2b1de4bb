import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';

/**
 * A ramp angle with its convention. `rotation-plane`: measured from the plane of rotation, so that 90° locks nothing
 * and a smaller angle locks harder. `axis`: the complement, measured from the axle's axis.
 */
export interface Ramp {
  readonly angleDeg: number;
  readonly from: 'rotation-plane' | 'axis';
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/**
 * The ramp angle from the plane of rotation, in degrees.
 * @throws InputError on `ramp.angleDeg` where the ramp would lie in the plane of rotation (infinite thrust) or beyond the axis
 */
export function rampFromRotationPlane({ angleDeg, from }: Ramp): number {
  requireNumber('ramp.angleDeg', angleDeg, { min: 0, max: 90, unit: '°' });
  const angle = from === 'axis' ? 90 - angleDeg : angleDeg;
  if (angle < 1) {
    throw new InputError(
      'ramp.angleDeg',
      `ramp.angleDeg: a ramp of ${angle}° from the plane of rotation would lock without limit.`,
      from === 'axis' ? 'from 0 to 89 °' : 'from 1 to 90 °',
    );
  }
  return angle;
}

export interface PlateUnit {
  readonly frictionCoefficient: number;
  /** Friction interfaces of one pack; the mean where the packs differ. */
  readonly interfacesPerPack: number;
  readonly meanRadiusMm: number;
  /** Radius at which the cross pin bears on the ramps. */
  readonly pinRadiusMm: number;
  readonly ramp: Ramp;
}

/**
 * Axial thrust in N of one pressure ring on its pack: F = T_in/(2·r_p·tan α) [exact].
 * @throws InputError naming the field
 */
export function rampThrust(inputNm: number, pinRadiusMm: number, ramp: Ramp): number {
  const angle = rampFromRotationPlane(ramp);
  requireNumber('inputNm', inputNm, LIMITS.torqueNm);
  const radiusM = requireNumber('pinRadiusMm', pinRadiusMm, LIMITS.radiusMm) / 1000;
  return angle === 90 ? 0 : inputNm / (2 * radiusM * Math.tan(radians(angle)));
}

/**
 * Locking torque per input torque from the ramps: k = μ·n·r_m/(r_p·tan α) [exact]. Above 1 the unit locks solid at any
 * torque. μ 0.10, n 6, r_m 45 mm, r_p 30 mm: 45° → 0.900, 60° → 0.520, 30° → 1.559.
 * @throws InputError naming the field
 */
export function rampLockCoefficient(unit: PlateUnit): number {
  const friction = requireNumber('frictionCoefficient', unit.frictionCoefficient, LIMITS.frictionCoefficient);
  const interfaces = requireNumber('interfacesPerPack', unit.interfacesPerPack, { min: 0, max: 200 });
  const meanRadius = requireNumber('meanRadiusMm', unit.meanRadiusMm, LIMITS.radiusMm);
  const pinRadius = requireNumber('pinRadiusMm', unit.pinRadiusMm, LIMITS.radiusMm);
  const angle = rampFromRotationPlane(unit.ramp);
  return angle === 90 ? 0 : (friction * interfaces * meanRadius) / (pinRadius * Math.tan(radians(angle)));
}

/**
 * The ramp angle from the plane of rotation, in degrees, at which the unit would just lock solid (k = 1); smaller
 * angles lock at any torque.
 */
export function solidRampAngle(unit: Omit<PlateUnit, 'ramp'>): number {
  return (Math.atan(rampLockCoefficient({ ...unit, ramp: { angleDeg: 45, from: 'rotation-plane' } })) * 180) / Math.PI;
}
