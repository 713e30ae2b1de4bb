import type { NumberRange } from './errors';

/** Ranges outside of which a value is a slip of the finger, not a driveline. One place for every room. */
export const LIMITS = {
  thicknessMm: { above: 0, max: 100, unit: 'mm' },
  diameterMm: { above: 0, max: 5000, unit: 'mm' },
  radiusMm: { above: 0, max: 2500, unit: 'mm' },
  circumferenceMm: { above: 0, max: 20000, unit: 'mm' },
  ratio: { above: 0, max: 200 },
  rpm: { min: 0, max: 100000, unit: 'rpm' },
  speedKmh: { min: 0, max: 2000, unit: 'km/h' },
  teeth: { min: 3, max: 300, integer: true },
  frictionCoefficient: { above: 0, max: 1.5 },
  interfaces: { min: 0, max: 200, integer: true },
  forceN: { min: 0, max: 1e6, unit: 'N' },
  torqueNm: { min: 0, max: 1e6, unit: 'N·m' },
  angleDeg: { above: 0, max: 90, unit: '°' },
  youngGPa: { above: 0, max: 1000, unit: 'GPa' },
  poisson: { min: 0, max: 0.5 },
  packMembers: { min: 0, max: 100, integer: true },
} as const satisfies Record<string, NumberRange>;
