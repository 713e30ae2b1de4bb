import { InputError, requireNumber } from '../base/errors';
import { JOINT_LIMITS } from './limits';
import { threadOf, type Thread } from './thread';

const KSI = 6.894757;

export const BOLT_GRADES = ['8.8', '10.9', '12.9', '5', '8'] as const;
export type BoltGrade = (typeof BOLT_GRADES)[number];

/** Proof stress, MPa: ISO 898-1 for property classes, SAE J429 for grades (85 and 120 ksi). */
function proofMPa(grade: string, { system, diameterMm }: Thread): number {
  const metric: Readonly<Record<string, number>> = { '8.8': diameterMm <= 16 ? 580 : 600, '10.9': 830, '12.9': 970 };
  const inch: Readonly<Record<string, number>> = { '5': 85 * KSI, '8': 120 * KSI };
  const table = system === 'metric' ? metric : inch;
  const proof = table[grade];
  if (proof === undefined)
    throw new InputError(
      'grade',
      `Grade “${grade}” does not go with a ${system} thread.`,
      Object.keys(table).sort().join(', '),
    );
  return proof;
}

/** Share of the proof load that a joint which is undone again is tightened to [std: Shigley]. */
export const PRELOAD_SHARE = 0.75;

export interface BoltLoad {
  readonly stressAreaMm2: number;
  readonly proofMPa: number;
  /** F = 0.75·S_p·A_t, N. */
  readonly preloadN: number;
  /** T = K·d·F, N·m. */
  readonly torqueNm: number;
}

/**
 * Preload of a bolt and the torque that is to give it: F = 0.75·S_p·A_t, T = K·d·F [std: Shigley].
 *
 * Not counted: that K scatters by a quarter and more from bolt to bolt; bending, stretch of a reused bolt, hydrogen. A maker's
 * torque wins.
 * @param nutFactor K: 0.20 zinc-plated or unknown, 0.18 lubricated (threadlocker counts so), 0.30 black and dry [std: Shigley,
 *   from memory]
 * @throws InputError naming the field; `grade` where it does not go with the thread
 */
export function boltLoad(of: {
  readonly thread: string;
  readonly grade: string;
  readonly nutFactor: number;
}): BoltLoad {
  const thread = threadOf(of.thread);
  const nutFactor = requireNumber('nutFactor', of.nutFactor, JOINT_LIMITS.nutFactor);
  const proof = proofMPa(of.grade, thread);
  const preloadN = PRELOAD_SHARE * proof * thread.stressAreaMm2;
  return {
    stressAreaMm2: thread.stressAreaMm2,
    proofMPa: proof,
    preloadN,
    torqueNm: (nutFactor * thread.diameterMm * preloadN) / 1000,
  };
}
