import { requireNumber } from '../errors';

const FRICTION_TORQUE = { min: 0, max: 1e12, unit: 'N·m' };

/**
 * How the axle is held while a wheel is turned with the torque wrench.
 * - `other-wheel-held`: other wheel held, carrier free (gearbox in neutral)
 * - `carrier-held`: carrier held (in gear, or pinion locked), other wheel free in the air
 * - `bench`: one side gear in a vice, the other turned, carrier free
 */
export const HOLDS = ['other-wheel-held', 'carrier-held', 'bench'] as const;
export type Hold = (typeof HOLDS)[number];

/** A reading is worth nothing without its hold, so the two are one thing. */
export interface WrenchReading {
  readonly hold: Hold;
  readonly torqueNm: number;
}

/** Mean pack torques in one reading: with the carrier held both packs slip at full wheel speed [exact, equilibrium]. */
const PACKS_IN_READING: Readonly<Record<Hold, number>> = { 'other-wheel-held': 1, 'carrier-held': 2, bench: 1 };

/**
 * What the torque wrench reads, N·m, for the friction torques of the two packs: their mean with the other wheel held
 * and the carrier free, their sum with the carrier held [exact, from equilibrium].
 * @throws InputError naming the field
 */
export function wrenchReading(packs: { leftNm: number; rightNm: number }, hold: Hold): WrenchReading {
  const left = requireNumber('leftNm', packs.leftNm, FRICTION_TORQUE);
  const right = requireNumber('rightNm', packs.rightNm, FRICTION_TORQUE);
  return { hold, torqueNm: (PACKS_IN_READING[hold] * (left + right)) / 2 };
}

/**
 * Mean friction torque of one pack, N·m, that a reading stands for.
 * @throws InputError naming the field
 */
export function perPackFromReading(reading: WrenchReading): number {
  return requireNumber('torqueNm', reading.torqueNm, FRICTION_TORQUE) / PACKS_IN_READING[reading.hold];
}
