import { LIMITS, type NumberRange } from '@hot-spline/core';
import { number } from '../frame/calc-keys';
import '../base/zod';
import * as z from 'zod';

/** Keys of one dished spring. */
export const springKeys = z.strictObject({
  outerDiameterMm: number(LIMITS.diameterMm),
  innerDiameterMm: number(LIMITS.diameterMm),
  thicknessMm: number(LIMITS.thicknessMm),
  coneHeightMm: number(LIMITS.thicknessMm),
  travelMm: number({ ...LIMITS.thicknessMm, above: undefined, min: 0 } as NumberRange),
  youngGPa: number(LIMITS.youngGPa).default(206),
  poisson: number(LIMITS.poisson).default(0.3),
});
