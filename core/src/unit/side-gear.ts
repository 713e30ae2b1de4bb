import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { requireBevel, type BevelGear } from './compare';

/** Fit of a friction insert between the side gears, mm: a guard of ours; the insert’s sheet wins. */
export const INSERT_FIT_MM = [0.06, 0.14] as const;

/**
 * Backlash that a side gear loses per mm that it is moved towards the spider gears: 2·tan φ·sin Γ, straight bevel gears,
 * at the pitch circle [exact, geometry].
 * Not counted: play of the spider gears on their pin.
 * @throws InputError naming the field
 */
export function sideGearBacklashSlope(gear: BevelGear): number {
  const { phi, cone } = requireBevel(gear);
  return 2 * Math.tan(phi) * Math.sin(cone);
}

/**
 * Shim to add behind a side gear (negative: to take out) for a wanted backlash, mm.
 * Not counted: that the shim changes stack height and preload as well: say all three.
 * @throws InputError naming the field
 */
export function shimForBacklash(gear: BevelGear, backlashMm: number, wantedMm: number): number {
  const range = { min: 0, max: LIMITS.thicknessMm.max, unit: 'mm' };
  const from = requireNumber('backlashMm', backlashMm, range);
  return (from - requireNumber('wantedMm', wantedMm, range)) / sideGearBacklashSlope(gear);
}
