import type { NumberRange } from '../base/errors';
import { LIMITS } from '../base/limits';
import { CONVERTER_LIMITS } from './converter';

/** Standard gravity in m/s² [exact, by definition]. */
export const GRAVITY = 9.80665;

const FRACTION: NumberRange = { above: 0, max: 1 };
export const VEHICLE_LIMITS = {
  massKg: { above: 0, max: 200_000, unit: 'kg' },
  constantPowerW: { above: 0, max: 1e8, unit: 'W' },
  efficiency: FRACTION,
  inertiaFactor: { min: 1, max: 10 },
  grip: { above: 0, max: 1e6 },
  dragAreaM2: { min: 0, max: 50, unit: 'm²' },
  airDensity: { min: 0, max: 5, unit: 'kg/m³' },
  downforceAreaM2: { min: -20, max: 50, unit: 'm²' },
  rollingCoefficient: { min: 0, max: 1 },
  staticShare: FRACTION,
  cgHeightMm: { min: 0, max: 5000, unit: 'mm' },
  wheelbaseMm: { above: 0, max: 20_000, unit: 'mm' },
  shiftTimeS: { min: 0, max: 5, unit: 's' },
  gradePercent: { min: -100, max: 200, unit: '%' },
  dragHeightMm: { min: 0, max: 5000, unit: 'mm' },
  clutchCapacityNm: { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' },
  wheelSlip: { min: 0, max: 0.9 },
  ...CONVERTER_LIMITS,
  gears: { min: 1, max: 20 },
} as const satisfies Record<string, NumberRange>;

export const SEARCH_LIMITS = {
  pairs: 400,
  finals: 60,
  positions: 10,
  floorRpm: { min: 0, max: LIMITS.rpm.max, unit: 'rpm' },
  limiterMargin: { min: 0, max: 0.5 },
} as const;

/** Of a course. */
export const MOST_CORNERS = 400;
export const MOST_SLOPES = 200;
export const GRADE = { min: -40, max: 40, unit: '%' };

/** Kept of a recording: what a picture shows. */
export const LOG_SAMPLES = 500;
