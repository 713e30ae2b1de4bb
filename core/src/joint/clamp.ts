import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { PRELOAD_SHARE, boltLoad } from './bolt';
import { JOINT_LIMITS, type JointVerdict } from './limits';
import { threadOf } from './thread';

/** Ours: friction of a bolt that nobody measured scatters by so much either way (handbook of the field: a quarter and more). */
export const FRICTION_SCATTER = 0.25;

/** What one bolt is clamped by, and how much of its proof load that is. */
export interface Clamp {
  readonly clampN: number;
  readonly ofProof: number;
}

export interface BoltClamp extends Clamp {
  /** Where friction is as high as it scatters: the least clamp, which slip is judged by. */
  readonly low: Clamp;
  /** Where it is as low as it scatters: the most, which the proof load is judged by. */
  readonly high: Clamp;
  /** `stop` above the proof load, `watch` where the low end of friction is. */
  readonly verdict: JointVerdict;
  /** Which law told it. */
  readonly by: 'thread-and-head' | 'nut-factor';
  /** What the same law asks for at three quarters of proof, N·m. */
  readonly wantedNm: number;
}

/** Half of the thread angle, metric and unified. */
const HALF_ANGLE = Math.PI / 6;

/**
 * Clamp of a bolt by the torque that is put on. Where thread and head friction and the mean diameter under the head are known, by
 * the long form F = T/[p/2π + μ_t·d₂/(2·cos 30°) + μ_h·D_m/2] [std: VDI 2230, from memory]; else by F = T/(K·d) [std: Shigley].
 * The short form never overrules the long one. Friction scatters, on K or on both μ together, and is judged at its ends.
 *
 * Not counted: torsion in the shank while it is tightened, bending, prevailing torque, a head that does not sit flat.
 * @param of.nutFactor K; not needed where the three of the long form are given
 * @param of.scatter of friction, ± of its value; ours unless told
 * @throws InputError naming the field; on the missing one of the three where some are given and `nutFactor` is not
 */
export function boltClamp(of: {
  readonly thread: string;
  readonly grade: string;
  readonly torqueNm: number;
  readonly nutFactor?: number;
  readonly threadFriction?: number;
  readonly headFriction?: number;
  readonly headMeanDiameterMm?: number;
  readonly scatter?: number;
}): BoltClamp {
  const thread = threadOf(of.thread);
  const torque = requireNumber('torqueNm', of.torqueNm, { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' });
  const scatter = requireNumber('scatter', of.scatter ?? FRICTION_SCATTER, { min: 0, max: 0.9 });
  const levers = leversOf(of, thread);
  const { proofMPa, stressAreaMm2 } = boltLoad({ thread: of.thread, grade: of.grade, nutFactor: of.nutFactor ?? 0.2 });
  const proofN = proofMPa * stressAreaMm2;
  /** At so many times the friction. */
  const at = (times: number): Clamp => {
    const clampN = (1000 * torque) / (levers.stretch + times * levers.friction);
    return { clampN, ofProof: clampN / proofN };
  };
  const [middle, low, high] = [at(1), at(1 + scatter), at(1 - scatter)];
  return {
    ...middle,
    low,
    high,
    verdict: middle.ofProof > 1 ? 'stop' : high.ofProof > 1 + 1e-9 ? 'watch' : 'fits',
    by: levers.by,
    wantedNm: (PRELOAD_SHARE * proofN * (levers.stretch + levers.friction)) / 1000,
  };
}

/** What the long form wants, and the limits of each. */
const LONG = ['threadFriction', 'headFriction', 'headMeanDiameterMm'] as const;
const LONG_LIMITS = { threadFriction: 'friction', headFriction: 'friction', headMeanDiameterMm: 'threadMm' } as const;

/** Torque over clamp, mm: what stretches the bolt, and what friction takes. */
function leversOf(
  of: Parameters<typeof boltClamp>[0],
  { pitchMm, pitchDiameterMm, diameterMm }: ReturnType<typeof threadOf>,
): { readonly stretch: number; readonly friction: number; readonly by: BoltClamp['by'] } {
  const missing = LONG.filter((key) => of[key] === undefined);
  const given = (key: (typeof LONG)[number]): number =>
    of[key] === undefined ? 0 : requireNumber(key, of[key], JOINT_LIMITS[LONG_LIMITS[key]]);
  const [inThread, underHead, head] = LONG.map(given) as [number, number, number];
  if (missing.length === 0)
    return {
      by: 'thread-and-head',
      stretch: pitchMm / (2 * Math.PI),
      friction: (inThread * pitchDiameterMm) / (2 * Math.cos(HALF_ANGLE)) + (underHead * head) / 2,
    };
  if (of.nutFactor === undefined) {
    const first = missing.length === LONG.length ? 'nutFactor' : (missing[0] as string);
    throw new InputError(first, `${first} is missing.`, 'nutFactor, or friction of thread and head with its diameter');
  }
  const nutFactor = requireNumber('nutFactor', of.nutFactor, JOINT_LIMITS.nutFactor);
  // K holds the stretch too: all of it scatters.
  return { by: 'nut-factor', stretch: 0, friction: nutFactor * diameterMm };
}
