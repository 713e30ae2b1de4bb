import type { NumberRange } from '../base/errors';

/** Ranges of shafts: beyond them a number is a slip of the finger. */
export const SHAFT_LIMITS = {
  splineTeeth: { min: 6, max: 100, integer: true },
  diametralPitch: { min: 4, max: 80 },
  stressMPa: { above: 0, max: 3000, unit: 'MPa' },
  diameterMm: { above: 0, max: 500, unit: 'mm' },
  innerMm: { min: 0, max: 500, unit: 'mm' },
  lengthMm: { above: 0, max: 6000, unit: 'mm' },
  densityKgM3: { above: 0, max: 30_000, unit: 'kg/m³' },
  jointDeg: { min: 0, max: 45, unit: '°' },
} as const satisfies Record<string, NumberRange>;
