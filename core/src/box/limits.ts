import type { NumberRange } from '../base/errors';

/** Of gearboxes and reduction units: beyond these it is a slip of the finger. */
export const BOX_LIMITS = {
  normalModuleMm: { above: 0, max: 20, unit: 'mm' },
  helixDeg: { min: 0, max: 60, unit: '°' },
  pressureAngleDeg: { min: 10, max: 35, unit: '°' },
  centreMm: { above: 0, max: 1000, unit: 'mm' },
  shiftSum: { min: -5, max: 5 },
  placeMm: { min: -5000, max: 5000, unit: 'mm' },
  floatMm: { min: 0, max: 20, unit: 'mm' },
  lengthMm: { above: 0, max: 5000, unit: 'mm' },
  riseK: { min: -100, max: 400, unit: 'K' },
  expansion: { above: 0, max: 1e-4, unit: '1/K' },
  pieces: { min: 1, max: 60, integer: true },
  gears: { min: 1, max: 12, integer: true },
  stages: { min: 1, max: 4, integer: true },
  drumDeg: { min: -3600, max: 3600, unit: '°' },
  travelMm: { min: -100, max: 100, unit: 'mm' },
  radiusMm: { above: 0, max: 500, unit: 'mm' },
  tracks: { min: 1, max: 8, integer: true },
  points: { min: 2, max: 200, integer: true },
  dogs: { min: 1, max: 60, integer: true },
  widthDeg: { above: 0, max: 360, unit: '°' },
  turns: { min: 0, max: 1e12 },
  exponent: { above: 0, max: 30 },
  spectrum: { min: 1, max: 2000, integer: true },
} as const satisfies Record<string, NumberRange>;
