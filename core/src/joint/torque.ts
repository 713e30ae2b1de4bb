import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { JOINT_LIMITS } from './limits';

export interface BoltTorque {
  /** To tighten, N·m. */
  readonly torqueNm: number;
  /** What each part takes of it, N·m: what stretches the bolt, friction in the thread, friction under the head. */
  readonly shares: { readonly preload: number; readonly thread: number; readonly head: number };
  /** To undo it again, N·m; what a wrench needs beyond that is threadlocker or rust. Below nothing it undoes itself. */
  readonly loosenNm: number;
}

/**
 * Torque for a preload where thread and head are treated differently (threadlocker on the one, lubricant under the other):
 * T = F·[p/2π + μ_t·d₂/(2·cos β) + μ_h·D_m/2] [std: VDI 2230, from memory]; loosening has −p/2π [the same].
 *
 * Not counted: prevailing torque of a locking nut, wedge washers, a head that does not sit flat.
 * @param halfAngleDeg β, half the thread angle: 30° metric and unified, 27.5° Whitworth form
 * @throws InputError naming the field
 */
export function boltTorque(of: {
  readonly preloadN: number;
  readonly pitchMm: number;
  readonly pitchDiameterMm: number;
  readonly headMeanDiameterMm: number;
  readonly threadFriction: number;
  readonly headFriction: number;
  readonly halfAngleDeg: number;
}): BoltTorque {
  const force = requireNumber('preloadN', of.preloadN, LIMITS.forceN);
  const pitch = requireNumber('pitchMm', of.pitchMm, JOINT_LIMITS.threadMm);
  const middle = requireNumber('pitchDiameterMm', of.pitchDiameterMm, JOINT_LIMITS.threadMm);
  const head = requireNumber('headMeanDiameterMm', of.headMeanDiameterMm, JOINT_LIMITS.threadMm);
  const inThread = requireNumber('threadFriction', of.threadFriction, JOINT_LIMITS.friction);
  const underHead = requireNumber('headFriction', of.headFriction, JOINT_LIMITS.friction);
  const half = requireNumber('halfAngleDeg', of.halfAngleDeg, JOINT_LIMITS.halfAngleDeg);
  const shares = {
    preload: (force * pitch) / (2 * Math.PI) / 1000,
    thread: (force * inThread * middle) / (2 * Math.cos((half * Math.PI) / 180)) / 1000,
    head: (force * underHead * head) / 2 / 1000,
  };
  return {
    torqueNm: shares.preload + shares.thread + shares.head,
    shares,
    loosenNm: -shares.preload + shares.thread + shares.head,
  };
}
