import type { NumberRange } from '../base/errors';

/** Ranges of a bolted joint: beyond them a number is a slip of the finger. */
export const JOINT_LIMITS = {
  nutFactor: { min: 0.05, max: 0.6 },
  friction: { above: 0, max: 1 },
  bolts: { min: 2, max: 60, integer: true },
  lengthMm: { min: 0, max: 300, unit: 'mm' },
  threadMm: { above: 0, max: 100, unit: 'mm' },
  halfAngleDeg: { min: 0, max: 60, unit: '°' },
  celsius: { min: -100, max: 600, unit: '°C' },
  interferenceMm: { min: 0, max: 2, unit: 'mm' },
  leverMm: { above: 0, max: 3000, unit: 'mm' },
} as const satisfies Record<string, NumberRange>;

export type JointVerdict = 'fits' | 'watch' | 'stop';
