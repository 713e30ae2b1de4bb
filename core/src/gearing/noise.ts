import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/** A rolling bearing as its kinematics need it. */
export interface RollingBearing {
  readonly rollers: number;
  /** Roller diameter over pitch diameter, d/D. */
  readonly diameterRatio: number;
  /** Contact angle α. */
  readonly contactAngleDeg: number;
}

export const BEARING_LIMITS = {
  rollers: { min: 3, max: 100, integer: true },
  diameterRatio: { above: 0, max: 0.9 },
  contactAngleDeg: { min: 0, max: 80, unit: '°' },
} as const;

/** Orders of a bearing's faults for each turn of its inner ring, the outer one standing still. */
export interface BearingOrders {
  readonly cage: number;
  readonly outerRace: number;
  readonly innerRace: number;
  /** A defect of a roller strikes both races: twice its spin. */
  readonly roller: number;
}

/**
 * Events per turn of the inner ring, q = (d/D)·cos α: cage ½(1−q), outer race z/2·(1−q), inner race z/2·(1+q), a
 * roller's defect D/d·(1−q²), twice its spin D/(2d)·(1−q²) since it strikes both races [std: rolling-bearing kinematics]. Not counted: slip, which takes one or two per cent.
 * @throws InputError naming the field
 */
export function bearingOrders(bearing: RollingBearing): BearingOrders {
  const z = requireNumber('rollers', bearing.rollers, BEARING_LIMITS.rollers);
  const ratio = requireNumber('diameterRatio', bearing.diameterRatio, BEARING_LIMITS.diameterRatio);
  const angle = requireNumber('contactAngleDeg', bearing.contactAngleDeg, BEARING_LIMITS.contactAngleDeg);
  const q = ratio * Math.cos((angle * Math.PI) / 180);
  return {
    cage: (1 - q) / 2,
    outerRace: (z / 2) * (1 - q),
    innerRace: (z / 2) * (1 + q),
    roller: (1 - q * q) / ratio,
  };
}

/**
 * Frequency in Hz of what happens `order` times a turn: order × rpm/60 [exact]. The mesh of a gear set has its pinion teeth as
 * order of the pinion.
 * Not counted: side bands, and that shafts slow down and speed up in a turn of their joints.
 * @throws InputError naming the field
 */
export function orderFrequency(order: number, rpm: number): number {
  const per = requireNumber('order', order, { min: 0, max: 10_000 });
  return (per * requireNumber('rpm', rpm, LIMITS.rpm)) / 60;
}
