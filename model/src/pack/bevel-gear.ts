import { entryBase, type BevelGear } from '@hot-spline/core/page';
import type { Axle } from '../frame/document';

/** Side gears, as the core reads them. */
export function bevelGear(gear: NonNullable<Axle['unit']['sideGear']>): BevelGear {
  return {
    meanRadiusMm: entryBase(gear.meanRadius),
    pressureAngleDeg: entryBase(gear.pressureAngle),
    coneAngleDeg: entryBase(gear.coneAngle),
  };
}
