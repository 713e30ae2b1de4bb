import { engineRpm, rollingCircumference, say, tyreSize } from '@hot-spline/core';
import { gearingAt, tallestGear, type Axle, type AxleGearingState, type Build } from '@hot-spline/model';

/** The range that one cruises in: the first one, whichever is looked at. */
export const HIGH = 0;

export interface Tried {
  /** Gear, from 0; the tallest one where it is left out. */
  readonly gear?: number;
  /** Another final drive than the one in the axle. */
  readonly finalRatio?: number | undefined;
}

/** Engine speed at a road speed, rpm, slip and growth counted as everywhere; in the axle as it is, or with what is tried. */
export function rpmAt(
  build: Build,
  axle: AxleGearingState,
  range: number,
  speedMps: number,
  { gear = tallestGear(build), finalRatio = axle.finalRatio }: Tried = {},
): number {
  return engineRpm(gearingAt(build, axle, gear, range, finalRatio), speedMps);
}

/** The axle on another tyre of this designation; it is taken to load and to grow as the present one does. */
export const onTyre = (axle: AxleGearingState, tyre: Axle['tyre'], designation: string): AxleGearingState => ({
  ...axle,
  circumferenceMm: rollingCircumference(tyreSize(designation).overallDiameterMm, tyre.factor),
});

/** An engine speed in a column that says the unit itself. */
export const rpmText = (rpm: number): string => say(rpm, 'rotation', 'metric', 0).replace(/\srpm$/, '');
