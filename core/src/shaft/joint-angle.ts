import { requireNumber } from '../errors';
import { LIMITS } from '../limits';
import { SHAFT_LIMITS } from './limits';

/** Most of ω²·θ² of a joint, rad/s², and of rpm × degrees [trade table, from memory]. */
const JOINT_MOST = { swing: 1000, product: 17_000 };

/**
 * Whether a universal joint may run at an angle: the swing of its output, ω²·θ², up to about 1 000 rad/s², and rpm × degrees up to
 * about 17 000 [trade table, from memory].
 *
 * Not counted: that two joints of equal angle take each other's swing away; the plunge of a shaft.
 * @throws InputError naming the field
 */
export function jointAngle(of: { readonly rpm: number; readonly angleDeg: number }): {
  readonly swingRadS2: number;
  readonly rpmDegrees: number;
  readonly verdict: 'fits' | 'watch' | 'stop';
} {
  const rpm = requireNumber('rpm', of.rpm, LIMITS.rpm);
  const angle = requireNumber('angleDeg', of.angleDeg, SHAFT_LIMITS.jointDeg);
  const swingRadS2 = (((rpm * Math.PI) / 30) * ((angle * Math.PI) / 180)) ** 2;
  const rpmDegrees = rpm * angle;
  const over = Math.max(swingRadS2 / JOINT_MOST.swing, rpmDegrees / JOINT_MOST.product);
  return { swingRadS2, rpmDegrees, verdict: over > 1.5 ? 'stop' : over > 1 ? 'watch' : 'fits' };
}
