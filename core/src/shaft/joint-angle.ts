import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { SHAFT_LIMITS } from './limits';

/** Of the swing that is left, rad/s²: comfortable, and the end; and most rpm × degrees of a joint [trade tables, from memory]. */
const JOINT_MOST = { comfort: 400, swing: 1000, product: 17_000 };

/**
 * Whether a prop shaft's joints may run at their angles: what is left of the swing of its output, up to about 400 rad/s² with comfort
 * and 1 000 at the end, and rpm × degrees of each joint up to about 17 000 [trade tables, from memory]. One joint leaves ω²·θ²; two
 * with their yokes in phase and both angles in one plane ω²·|θ₁² − θ₂²|, out of phase they add [std: kinematics of the universal
 * joint, small angles].
 *
 * Not counted: angles in two planes; the plunge of a shaft; that what lies between two joints swings all the same.
 * @param of.otherAngleDeg of the joint at the other end; one joint alone where it is not told
 * @param of.inPhase whether the yokes stand alike; they do unless told
 * @returns the swing that is left, rad/s²
 * @throws InputError naming the field
 */
export function jointAngle(of: {
  readonly rpm: number;
  readonly angleDeg: number;
  readonly otherAngleDeg?: number;
  readonly inPhase?: boolean;
}): {
  readonly swingRadS2: number;
  readonly rpmDegrees: number;
  readonly verdict: 'fits' | 'watch' | 'stop';
} {
  const rpm = requireNumber('rpm', of.rpm, LIMITS.rpm);
  const angle = requireNumber('angleDeg', of.angleDeg, SHAFT_LIMITS.jointDeg);
  const other = requireNumber('otherAngleDeg', of.otherAngleDeg ?? 0, SHAFT_LIMITS.jointDeg);
  const square = (degrees: number): number => (((rpm * Math.PI) / 30) * ((degrees * Math.PI) / 180)) ** 2;
  const swingRadS2 = Math.abs(square(angle) + ((of.inPhase ?? true) ? -1 : 1) * square(other));
  const rpmDegrees = rpm * Math.max(angle, other);
  const beyond = swingRadS2 > JOINT_MOST.swing || rpmDegrees > 1.5 * JOINT_MOST.product;
  const comfortable = swingRadS2 <= JOINT_MOST.comfort && rpmDegrees <= JOINT_MOST.product;
  return { swingRadS2, rpmDegrees, verdict: beyond ? 'stop' : comfortable ? 'fits' : 'watch' };
}
