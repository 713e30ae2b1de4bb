import { mostRingTorque } from '@hot-spline/core';
import type { AxleName } from '../document/names';
import type { Build } from '../document/schema';
import type { AxleGearingState } from '../gearing/axle-gearing';
import { lowRange } from '../gearing/match';
import { vehicleOf } from './vehicle';

/** Most torque that can arrive at the ring of an axle, N·m: first gear in low range, or what the tyres hold. */
export const ringTorque = (build: Build, axle: AxleName, own: AxleGearingState): number =>
  mostRingTorque(vehicleOf(build, axle, own), own.finalRatio, lowRange(build).ratio);
