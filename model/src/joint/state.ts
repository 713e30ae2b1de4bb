import {
  boltClamp,
  boltLoad,
  boltTorque,
  entryBase,
  jointCapacity,
  threadOf,
  type BoltClamp,
  type BoltLoad,
  type BoltTorque,
  type bottoming,
  type heatToFit,
  type Thread,
} from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import type { Readings } from '../frame/readings';
import { originOf, type Origin } from '../library/origins';
import { compoundOpen, ringBolts } from './readings';
import { FINISHES, type Joint } from './schema';

/** A round in which the bolts are drawn up. */
export interface RoundState {
  readonly stage: string;
  readonly label: string;
  /** What the wrench is set to; null where no torque is known, or nothing is tightened. */
  readonly torqueNm: number | null;
  readonly ticks: readonly string[];
  readonly whole: boolean;
}

/** The torque that is used, and where it was read. */
export interface UsedTorque {
  readonly nm: number;
  readonly origin: Origin;
  readonly typed: string;
}

export interface JointState {
  readonly axle: AxleName;
  readonly joint: Joint;
  /** Thread, count and hand are of the axle; null where nobody has said. */
  readonly bolts: { readonly thread: string; readonly count: number; readonly hand: 'right' | 'left' } | null;
  readonly used: UsedTorque | null;
  readonly rounds: readonly RoundState[];
  /** The compound has been opened and the joint is not finished, since when; null otherwise. */
  readonly openSince: string | null;
}

/** The torque that the ring bolts get: said for this joint, else by the sheet of the axle. */
export function usedTorque({ joint, identity }: Pick<Axle, 'joint' | 'identity'>): UsedTorque | null {
  if (joint?.torque) {
    const { value } = joint.torque;
    return { nm: entryBase(value), origin: originOf(joint.torque), typed: value.typed };
  }
  const told = identity?.sheet.ringBoltTorque ?? null;
  return told && { nm: entryBase(told.value), origin: originOf(told), typed: told.value.typed };
}

const ROUND_NAMES = ['First', 'Second', 'Third', 'Fourth', 'Fifth'] as const;

export function jointState(name: AxleName, axle: Axle, readings: Readings): JointState | null {
  const { joint, identity } = axle;
  if (!joint) return null;
  const bolts = identity?.ringBolts?.value ?? null;
  const used = usedTorque(axle);
  const round = (stage: string, label: string, torqueNm: number | null): RoundState => {
    const value = readings.get(ringBolts.key({ axle: name, stage }))?.value;
    const ticks = value?.of === 'ticks' ? value.ticks : [];
    return { stage, label, torqueNm, ticks, whole: bolts !== null && ticks.length >= bolts.count };
  };
  const opened = readings.get(compoundOpen.key({ axle: name }));
  const stillOpen = opened?.value.of === 'choice' && opened.value.choice === 'opened';
  return {
    axle: name,
    joint,
    bolts,
    used,
    rounds: [
      ...joint.stages.map((share, i) =>
        round(String(i + 1), `${ROUND_NAMES[i] ?? ''} round`, used ? (used.nm * share) / 100 : null),
      ),
      round('again', 'Once more round', used?.nm ?? null),
      round('marks', 'Witness marks', null),
    ],
    openSince: stillOpen ? opened.at : null,
  };
}

/** What the bolts of a joint hold; null where thread or grade is not said. @throws InputError naming thread or grade */
export function jointBolts({ joint, bolts, used }: JointState): {
  readonly thread: Thread;
  readonly load: BoltLoad;
  readonly nutFactor: number;
  /** Of the torque that is used, or of the one for three quarters of proof: with both ends of what friction scatters. */
  readonly clamp: BoltClamp;
  /** What `clamp` was asked. */
  readonly clampInput: Parameters<typeof boltClamp>[0];
  /** Friction of thread and head apart; null where one of the three is not known. */
  readonly full: { readonly torque: BoltTorque; readonly input: Parameters<typeof boltTorque>[0] } | null;
} | null {
  if (!bolts || joint.grade === '') return null;
  const thread = threadOf(bolts.thread);
  const { nutFactor } = FINISHES[joint.finish];
  const load = boltLoad({ thread: bolts.thread, grade: joint.grade, nutFactor });
  const apart =
    joint.headOuter && joint.threadFriction && joint.headFriction
      ? {
          threadFriction: entryBase(joint.threadFriction),
          headFriction: entryBase(joint.headFriction),
          headMeanDiameterMm: (entryBase(joint.headOuter) + thread.diameterMm) / 2,
        }
      : null;
  const input = apart && {
    ...apart,
    preloadN: load.preloadN,
    pitchMm: thread.pitchMm,
    pitchDiameterMm: thread.pitchDiameterMm,
    halfAngleDeg: 30,
  };
  const full = input && { torque: boltTorque(input), input };
  const clampInput = {
    thread: bolts.thread,
    grade: joint.grade,
    nutFactor,
    torqueNm: used?.nm ?? full?.torque.torqueNm ?? load.torqueNm,
    ...apart,
  };
  return { thread, load, nutFactor, clamp: boltClamp(clampInput), clampInput, full };
}

/** The lengths of a bolt and its hole; null where one is missing. @throws InputError naming the thread */
export function bottomingInput({ joint, bolts }: JointState): Parameters<typeof bottoming>[0] | null {
  const { underHead, shank, flange, washer, holeDepth, threadDepth } = joint;
  if (!bolts || !underHead || !flange || !holeDepth) return null;
  return {
    boltUnderHeadMm: entryBase(underHead),
    flangeMm: entryBase(flange),
    washerMm: entryBase(washer),
    holeDepthMm: entryBase(holeDepth),
    threadDepthMm: entryBase(threadDepth ?? holeDepth),
    threadDiameterMm: threadOf(bolts.thread).diameterMm,
    boltShankMm: shank ? entryBase(shank) : 0,
  };
}

/** What the ring holds by friction against what arrives; null where something is missing. */
export function jointSlip(
  state: JointState,
  clampN: number,
  arrivesNm: number,
): ReturnType<typeof jointCapacity> | null {
  const { joint, bolts } = state;
  if (!bolts || !joint.boltCircle) return null;
  return jointCapacity({
    bolts: bolts.count,
    preloadN: clampN,
    friction: entryBase(joint.faceFriction),
    boltCircleMm: entryBase(joint.boltCircle),
    ringTorqueNm: arrivesNm,
  });
}

/** How the ring goes on warm; null where nobody has said its fit. */
export const heatInput = ({ fit }: Joint): Parameters<typeof heatToFit>[0] | null =>
  fit && {
    diameterMm: entryBase(fit.diameter),
    interferenceMm: entryBase(fit.interference),
    slideClearanceMm: entryBase(fit.slide),
    startC: entryBase(fit.start),
    material: fit.material,
    ...(fit.limit ? { limitC: entryBase(fit.limit) } : {}),
  };
