import { entryBase, ringBounds, type RingBounds } from '@hot-spline/core/page';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { AxleGearingState } from '../gearing/axle-gearing';
import { lowRange } from '../gearing/match';
import { vehicleOf } from './vehicle';

/**
 * What can arrive at the ring of an axle from each end, N·m: the engine in first gear and low range with its losses and its shock, and
 * what the tyres hold. Every link of the driveline is judged on this one footing.
 */
export const ringEnds = (build: Build, axle: AxleName, own: AxleGearingState): RingBounds =>
  ringBounds(vehicleOf(build, axle, own), own.finalRatio, lowRange(build).ratio, entryBase(build.road.shock));

/** The less of both ends. */
export function ringTorque(build: Build, axle: AxleName, own: AxleGearingState): number {
  const { engineNm, tyresNm } = ringEnds(build, axle, own);
  return engineNm === null ? tyresNm : Math.min(engineNm, tyresNm);
}
