import { entryBase } from '@hot-spline/core/page';
import type { Axle } from '../frame/document';
import { bevelGear } from './bevel-gear';
import type { PackContext } from './pack-state';
import type { PlateSpec } from './schema';

/** The plates that a unit works with, with or without ramps; null where it has none at work, even if some are kept. */
export function platesOf(unit: Axle['unit'] | undefined): PlateSpec | null {
  return unit?.type === 'plate' || unit?.type === 'side-gear-thrust' ? unit.plate : null;
}

/** The side gears whose thrust clamps the plates; null where ramps do. */
export function thrustOf(unit: Axle['unit'] | undefined): Axle['unit']['sideGear'] {
  return unit?.type === 'side-gear-thrust' ? unit.sideGear : null;
}

/** Wheel torque per torque at the pinion: final drive × hub. */
export function pinionRatio(axle: Axle | null): number {
  return axle ? (axle.finalDrive.ring / axle.finalDrive.pinion) * entryBase(axle.hubRatio) : 1;
}

/** What the packs of an axle are asked with beside their plates. */
export function packContext(axle: Axle): PackContext {
  const gear = thrustOf(axle.unit);
  return { thrust: gear ? bevelGear(gear) : 'ramps', pinionRatio: pinionRatio(axle) };
}
