import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

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
  /** Friction coefficient of the pin on its ramp, tan ρ; 0 unless told. */
  readonly rampFriction?: number;
}

export const RAMP_FRICTION = { min: 0, max: 1 } as const;

/**
 * What friction on the ramp leaves of its axial force: cot(α + ρ)/cot α, tan ρ the coefficient [exact]; nothing where the
 * pin would not slide at all (α + ρ ≥ 90°). 0.10: −18 % at 45°, −22 % at 60°. Not counted: friction of plate ears and
 * pressure rings in the case, which takes more.
 * @throws InputError naming the field
 */
export function rampFrictionShare(ramp: Ramp, rampFriction: number): number {
  const angle = radians(rampFromRotationPlane(ramp));
  const rho = Math.atan(requireNumber('rampFriction', rampFriction, RAMP_FRICTION));
  return angle + rho >= Math.PI / 2 ? 0 : Math.tan(angle) / Math.tan(angle + rho);
}

/**
 * Axial thrust in N of one pressure ring on its pack: F = T_in/(2·r_p·tan(α + ρ)), ρ the friction angle of the ramp, 0
 * unless told [exact].
 * Not counted: friction of plate ears and pressure rings in the case.
 * @throws InputError naming the field
 */
export function rampThrust(inputNm: number, pinRadiusMm: number, ramp: Ramp, rampFriction = 0): number {
  const angle = rampFromRotationPlane(ramp);
  requireNumber('inputNm', inputNm, LIMITS.torqueNm);
  const radiusM = requireNumber('pinRadiusMm', pinRadiusMm, LIMITS.radiusMm) / 1000;
  if (angle === 90) return 0;
  return (rampFrictionShare(ramp, rampFriction) * inputNm) / (2 * radiusM * Math.tan(radians(angle)));
}

/**
 * Locking torque per input torque from the ramps: k = μ·n·r_m/(r_p·tan(α + ρ)) [exact]. Above 1 the unit locks solid at any
 * torque. μ 0.10, n 6, r_m 45 mm, r_p 30 mm: 45° → 0.900, 60° → 0.520, 30° → 1.559.
 * Not counted: friction of plate ears and pressure rings in the case.
 * @throws InputError naming the field
 */
export function rampLockCoefficient(unit: PlateUnit): number {
  const friction = requireNumber('frictionCoefficient', unit.frictionCoefficient, LIMITS.frictionCoefficient);
  const interfaces = requireNumber('interfacesPerPack', unit.interfacesPerPack, { min: 0, max: 200 });
  const meanRadius = requireNumber('meanRadiusMm', unit.meanRadiusMm, LIMITS.radiusMm);
  const pinRadius = requireNumber('pinRadiusMm', unit.pinRadiusMm, LIMITS.radiusMm);
  const angle = rampFromRotationPlane(unit.ramp);
  const left = rampFrictionShare(unit.ramp, unit.rampFriction ?? 0);
  return angle === 90 ? 0 : (left * friction * interfaces * meanRadius) / (pinRadius * Math.tan(radians(angle)));
}

/**
 * The ramp angle from the plane of rotation, in degrees, at which the unit would just lock solid (k = 1); smaller
 * angles lock at any torque. With friction on the ramp it is smaller by the friction angle; 0 where no angle would.
 */
export function solidRampAngle(unit: Omit<PlateUnit, 'ramp'>): number {
  const { rampFriction = 0, ...plain } = unit;
  const whole = Math.atan(rampLockCoefficient({ ...plain, ramp: { angleDeg: 45, from: 'rotation-plane' } }));
  return (Math.max(0, whole - Math.atan(requireNumber('rampFriction', rampFriction, RAMP_FRICTION))) * 180) / Math.PI;
}
