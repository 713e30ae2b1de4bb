import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { JOINT_LIMITS, type JointVerdict } from './limits';

/**
 * Torque that a bolted ring holds by friction alone, n·F·μ·r, and how often that holds what can arrive: below 1 `stop`, below 1.5
 * `watch` [common practice, from memory].
 *
 * Not counted: dowels and registers, the press of a heated ring; that some bolts have lost their clamp.
 * @returns slip torque in N·m; the margin is null where nothing arrives
 * @throws InputError naming the field
 */
export function jointCapacity(of: {
  readonly bolts: number;
  readonly preloadN: number;
  readonly friction: number;
  readonly boltCircleMm: number;
  readonly ringTorqueNm: number;
}): { readonly slipTorqueNm: number; readonly margin: number | null; readonly verdict: JointVerdict } {
  const bolts = requireNumber('bolts', of.bolts, JOINT_LIMITS.bolts);
  const force = requireNumber('preloadN', of.preloadN, LIMITS.forceN);
  const friction = requireNumber('friction', of.friction, JOINT_LIMITS.friction);
  const circle = requireNumber('boltCircleMm', of.boltCircleMm, LIMITS.diameterMm);
  const arrives = requireNumber('ringTorqueNm', of.ringTorqueNm, LIMITS.torqueNm);
  const slipTorqueNm = (bolts * force * friction * circle) / 2000;
  const margin = arrives === 0 ? null : slipTorqueNm / arrives;
  return { slipTorqueNm, margin, verdict: margin === null || margin >= 1.5 ? 'fits' : margin >= 1 ? 'watch' : 'stop' };
}
