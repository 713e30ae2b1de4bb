import { requireNumber } from '../base/errors';
import { JOINT_LIMITS, type JointVerdict } from './limits';

export interface Bottoming {
  /** Between the end of the bolt and the ground of hole or thread, mm; below nothing it bottoms. */
  readonly clearanceMm: number;
  /** Of the thread that holds, mm. */
  readonly engagementMm: number;
  readonly verdict: JointVerdict;
  /** What the verdict rests on; empty where it fits. */
  readonly why: readonly ('bottoms' | 'shank' | 'short' | 'close')[];
}

/** Thread that should hold, in diameters, in steel [trade]; less is watched, less than the second is no joint [ours]. */
const ENGAGED = { asked: 1, least: 0.75 };
/** Clearance below which a bolt is measured again before it goes in, mm [ours]. */
const CLOSE_MM = 0.5;

/**
 * Whether a bolt bottoms before it clamps: clearance = min(hole, full thread) + flange + washer − length under the head; the shank
 * without thread must be no longer than flange and washer, or it seizes at the first thread with the same false torque. Thread that
 * holds: at least one diameter in steel [common practice, no published source].
 *
 * Not counted: a chamfer, the point of the bolt, thread that is damaged.
 * @throws InputError naming the field
 */
export function bottoming(of: {
  readonly boltUnderHeadMm: number;
  readonly flangeMm: number;
  readonly washerMm: number;
  readonly holeDepthMm: number;
  readonly threadDepthMm: number;
  readonly threadDiameterMm: number;
  readonly boltShankMm: number;
}): Bottoming {
  const read = (field: keyof typeof of): number => requireNumber(field, of[field], JOINT_LIMITS.lengthMm);
  const bolt = read('boltUnderHeadMm');
  const clamped = read('flangeMm') + read('washerMm');
  const full = Math.min(read('holeDepthMm'), read('threadDepthMm'));
  const diameter = requireNumber('threadDiameterMm', of.threadDiameterMm, JOINT_LIMITS.threadMm);
  const shank = read('boltShankMm');
  const clearanceMm = full + clamped - bolt;
  const engagementMm = Math.max(0, Math.min(bolt - clamped, full) - Math.max(0, shank - clamped));
  const why: Bottoming['why'][number][] = [];
  if (clearanceMm <= 1e-9) why.push('bottoms');
  if (shank > clamped + 1e-9) why.push('shank');
  if (engagementMm < ENGAGED.asked * diameter - 1e-9) why.push('short');
  if (clearanceMm > 1e-9 && clearanceMm < CLOSE_MM) why.push('close');
  const stops = why.includes('bottoms') || why.includes('shank') || engagementMm < ENGAGED.least * diameter - 1e-9;
  return { clearanceMm, engagementMm, verdict: stops ? 'stop' : why.length > 0 ? 'watch' : 'fits', why };
}
