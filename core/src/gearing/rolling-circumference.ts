import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/** `radial`: 3.05·D [standard: ETRTO rolling-circumference factor, from memory]; `unloaded`: π·D [exact]. */
export type RollingFactor = 'radial' | 'unloaded';

export const ROLLING_FACTORS: Readonly<Record<RollingFactor, number>> = { radial: 3.05, unloaded: Math.PI };

/** What was measured on the car; it beats the designation and replaces it. */
export type RollingMeasure =
  | { readonly kind: 'rollout'; readonly rolloutMm: number }
  | { readonly kind: 'loaded-radius'; readonly loadedRadiusMm: number }
  | { readonly kind: 'turns'; readonly turnsPerKm: number };

/**
 * Rolling circumference in mm from the nominal overall diameter in mm.
 * Not counted: load, pressure, growth and wear.
 * @throws InputError for a diameter that is not above 0 and at most 5000 mm
 */
export function rollingCircumference(overallDiameterMm: number, factor: RollingFactor): number {
  return ROLLING_FACTORS[factor] * requireNumber('overallDiameterMm', overallDiameterMm, LIMITS.diameterMm);
}

/**
 * Rolling circumference in mm from a measurement: one turn on the floor, a loaded radius (2π·r), or turns per km
 * (10⁶/n) [exact].
 * @throws InputError naming the measured field
 */
export function measuredCircumference(measure: RollingMeasure): number {
  switch (measure.kind) {
    case 'rollout':
      return requireNumber('rolloutMm', measure.rolloutMm, LIMITS.circumferenceMm);
    case 'loaded-radius':
      return 2 * Math.PI * requireNumber('loadedRadiusMm', measure.loadedRadiusMm, LIMITS.radiusMm);
    case 'turns':
      return 1e6 / requireNumber('turnsPerKm', measure.turnsPerKm, { min: 50, max: 10000, unit: 'turns/km' });
  }
}
