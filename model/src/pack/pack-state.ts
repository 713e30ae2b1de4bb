import type { AxleName, Side } from '../base/names';
import { readingBase, type InForce, type Readings } from '../frame/readings';
import type { PlateSpec } from './schema';
import { lockSlope, type Thrust } from './ramps';
import { turningTorque } from './readings';
import { packSideState, type PackState } from './state';

/** What the packs are asked with beside their plates. */
export interface PackContext {
  readonly thrust: Thrust;
  /** Wheel torque per torque at the pinion: final drive × hub. */
  readonly pinionRatio: number;
  /** Shim tried on top of what is in: the same on each side, or by side. */
  readonly moreMm?: number | Readonly<Record<Side, number>>;
}

/** The turning torque with both wheels free that was read last, at the wheel or at the pinion. */
export function turningInForce(
  axle: AxleName,
  readings: Readings,
): { at: 'wheel' | 'pinion'; reading: InForce } | null {
  const found = (['wheel', 'pinion'] as const).flatMap((at) => {
    const reading = readings.get(turningTorque.key({ axle, at }));
    return reading ? [{ at, reading }] : [];
  });
  return found.sort((a, b) => b.reading.seq - a.reading.seq)[0] ?? null;
}

/** Both packs of an axle, and what a torque wrench on its wheel reads beside them. */
export function packStateOf(
  plate: PlateSpec,
  axle: AxleName,
  readings: Readings,
  { thrust, pinionRatio, moreMm = 0 }: PackContext,
): PackState {
  const more = typeof moreMm === 'number' ? { left: moreMm, right: moreMm } : moreMm;
  const left = packSideState(plate, axle, 'left', readings, more.left);
  const right = packSideState(plate, axle, 'right', readings, more.right);
  const turning = turningInForce(axle, readings);
  const sum = (of: 'seriesN' | 'parallelN'): number =>
    left.interfaces * left.rest[of] + right.interfaces * right.rest[of];
  // Only springs in parallel ask for k: a ramp that can't be worked out is the unit's to say.
  const slope = sum('parallelN') > 0 ? lockSlope(plate, { left, right }, 'overrun', thrust) : 0;
  // With the carrier held, parallel springs build up to T₀/(1 − k); they are what is read where that is more.
  const built = slope < 1 ? sum('parallelN') / (1 - slope) : Number.POSITIVE_INFINITY;
  const acts = sum('parallelN') > 0 && built > sum('seriesN') ? 'parallel' : 'series';
  return {
    left,
    right,
    wheel: {
      acts,
      slope,
      dragKnown: turning !== null,
      turningNm: turning ? readingBase(turning.reading) * (turning.at === 'pinion' ? pinionRatio : 1) : 0,
    },
  };
}
