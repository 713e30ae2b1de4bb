import { BOX_SHAFTS, depthSign, type BoxShaft, type MeshMove } from '@hot-spline/core';
import {
  boxFloatsInTruth,
  byAdvice,
  floatInTruth,
  inTruth,
  playAxle,
  ruleOfThumb,
  trueReadings,
  type BoxFloats,
  type FloatUnit,
  type PracticeAxle,
} from '@hot-spline/core/practice';
import type { PreloadAxle } from '../preload/state';
import type { FloatJob } from '../box/state';
import type { MeshAxle } from '../mesh/axle';

/** Where a practice axle stands now, from how it came: pinion shim, and ring towards the pinion. */
export function practicePlace({ assemblies, now }: Pick<MeshAxle, 'assemblies' | 'now'>): MeshMove | null {
  const came = assemblies.find(({ number }) => number === 0);
  return now && { pinionShimMm: now.pinionMm, ringShiftMm: now.ringMm - (came?.ringMm ?? 0) };
}

/** Backlash in truth at each place round the ring: in a trial it reads more by what closing up will take. */
export function practiceBacklash(axle: PracticeAxle, at: MeshMove, places: number, final: boolean): readonly number[] {
  const [mean = 0] = trueReadings(axle, at.pinionShimMm, at.ringShiftMm);
  const { runoutMm, runoutDeg } = axle.truth;
  return Array.from({ length: places }, (_, i) => {
    const angle = (2 * Math.PI * i) / places - (runoutDeg * Math.PI) / 180;
    // A mesh without backlash reads nothing, not less.
    return Math.max(0, mean + (final ? 0 : axle.closingMm) + runoutMm * Math.cos(angle));
  });
}

export interface PracticeScore {
  readonly assemblies: number;
  readonly spacers: number;
  readonly minutes: number;
  /** Whether it really is in spec as it stands. */
  readonly inSpec: boolean;
  /** Assemblies by the rule of thumb and by the advisor on the same axle, counted alike; null where eight did not do. */
  readonly ruleOfThumb: number | null;
  readonly advisor: number | null;
  /** Where all is right, in the terms of the shims. */
  readonly right: MeshMove;
}

/**
 * Assemblies until the axle was in spec in truth, or all there were. How it came is no assembly of anybody's: neither as it was read nor
 * put together once more as it was.
 */
function assembliesUntil(axle: PracticeAxle, { assemblies }: Pick<MeshAxle, 'assemblies'>): number {
  const places = assemblies.map((now) => practicePlace({ assemblies, now }));
  const asItCame = (at: MeshMove | null): boolean =>
    at !== null && Math.abs(at.pinionShimMm - axle.startShimMm) < 1e-6 && Math.abs(at.ringShiftMm) < 1e-6;
  const firstMove = places.findIndex((at) => !asItCame(at));
  const moves = firstMove < 0 ? [] : places.slice(firstMove);
  const inSpec = places.slice(0, Math.max(firstMove, 0)).some((at) => at !== null && inTruth(axle, at));
  if (inSpec) return 0;
  const done = moves.findIndex((at) => at !== null && inTruth(axle, at));
  return done < 0 ? moves.length : done + 1;
}

/**
 * How a practice axle was set up, against the same axle set up by the rule of thumb and by the advisor.
 * @param minutes from its first reading to its last
 */
export function practiceScore(
  axle: PracticeAxle,
  mesh: MeshAxle,
  preload: PreloadAxle | null,
  minutes: number,
): PracticeScore {
  const at = practicePlace(mesh);
  const played = (player: typeof byAdvice): number | null => {
    const { moves, inSpec } = playAxle(axle, player);
    // How it came is no assembly of ours.
    return inSpec ? moves.length - 1 : null;
  };
  const sign = depthSign(axle.addingShimMovesPinion);
  return {
    assemblies: assembliesUntil(axle, mesh),
    spacers: preload && preload.reads.length > 0 ? preload.spacer : 0,
    minutes,
    inSpec: at !== null && inTruth(axle, at),
    ruleOfThumb: played(ruleOfThumb),
    advisor: played(byAdvice),
    right: {
      pinionShimMm: axle.startShimMm + sign * axle.truth.deeperMm,
      ringShiftMm: axle.truth.closerMm,
    },
  };
}

/** How both floats of a box were set: shims that were tried beyond those that lay in it, and the right ones. */
export function boxFloatScore(
  box: BoxFloats,
  jobs: Readonly<Record<BoxShaft, Pick<FloatJob, 'tries'>>>,
): {
  readonly shims: number;
  readonly inSpec: boolean;
  readonly right: readonly { readonly shaft: BoxShaft; readonly shimMm: number }[];
} {
  const last = (shaft: BoxShaft): number | null => jobs[shaft].tries.at(-1)?.shimMm ?? null;
  return {
    shims: BOX_SHAFTS.reduce((sum, shaft) => sum + Math.max(0, jobs[shaft].tries.length - 1), 0),
    inSpec: boxFloatsInTruth(box, { driving: last('driving'), driven: last('driven') }),
    right: BOX_SHAFTS.map((shaft) => {
      const { roomMm, bandMm } = box.shafts[shaft];
      return { shaft, shimMm: roomMm - (bandMm[0] + bandMm[1]) / 2 };
    }),
  };
}

/** How a unit whose one shim sets end float was set up; by the rule it takes one assembly. */
export function floatScore(
  unit: FloatUnit,
  { assemblies, now }: Pick<MeshAxle, 'assemblies' | 'now'>,
  minutes: number,
): Pick<PracticeScore, 'assemblies' | 'minutes' | 'inSpec'> & { readonly rightShimMm: number } {
  const [low, high] = unit.specFloatMm;
  return {
    assemblies: assemblies.filter(({ number }) => number > 0).length,
    minutes,
    inSpec: now !== null && floatInTruth(unit, now.leftMm),
    rightShimMm: unit.truth.roomMm - unit.truth.closingMm - (low + high) / 2,
  };
}
