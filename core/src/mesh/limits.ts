import type { NumberRange } from '../base/errors';

/** Ranges outside of which a set-up reading is a slip of the finger. */
export const MESH_LIMITS = {
  shimMm: { min: 0, max: 100, unit: 'mm' },
  markMm: { min: -10, max: 10, unit: 'mm' },
  heightMm: { above: 0, max: 1000, unit: 'mm' },
  lengthMm: { min: -10_000, max: 10_000, unit: 'mm' },
  moveMm: { min: -20, max: 20, unit: 'mm' },
  backlashMm: { min: 0, max: 10, unit: 'mm' },
  floatMm: { min: 0, max: 10, unit: 'mm' },
  places: { min: 1, max: 72, integer: true },
  pressureAngleDeg: { above: 0, max: 45, unit: '°' },
  threadPitchMm: { above: 0, max: 20, unit: 'mm' },
  notches: { min: 1, max: 1000, integer: true },
} as const satisfies Record<string, NumberRange>;
