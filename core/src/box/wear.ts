import { InputError } from '../base/errors';
import { torqueLookup, type TorquePoint } from '../road/engine-torque';
import type { PacePoint } from '../road/pace';
import { requirePair, type GearPair } from './ladder';
import { LIFE_EXPONENT, wearAgainst, type Load } from './life';

/** Contact stress goes with the root of the torque: its exponent is twice that by torque. */
const STRESS_EXPONENT = 2 * LIFE_EXPONENT.flank;

/**
 * Turns of the input shaft at their torque, for each gear, where the car pulls on a simulated course: between two points that gain
 * speed, at the engine's full torque there. A list for each gear, empty where the course does not pull in it.
 * Not counted: corners, braking and what is held, coast flanks, a foot that lifts.
 * @param points of a pace, in order
 */
export function courseLoads(
  points: readonly PacePoint[],
  torqueCurve: readonly TorquePoint[],
  gears: number,
): readonly (readonly Load[])[] {
  const torqueAt = torqueLookup(torqueCurve);
  const loads = Array.from({ length: gears }, (): Load[] => []);
  points.slice(1).forEach((to, i) => {
    const from = points[i] as PacePoint;
    const seconds = to.timeS - from.timeS;
    if (to.gear !== from.gear || seconds <= 0 || to.speedMps <= from.speedMps) return;
    const rpm = (from.rpm + to.rpm) / 2;
    loads[to.gear]?.push({ turns: (seconds * rpm) / 60, torqueNm: torqueAt(rpm) });
  });
  return loads;
}

/**
 * How much harder the flanks of a pair are pressed than those of another one on the same centres and face width at the same torque:
 * σ_H² ∝ (u + 1) ÷ (u·d₁²), d₁ ∝ z₁ ÷ (z₁ + z₂) [ISO 6336, from memory]. Not counted: module, helix, profile shift, tooth form.
 * @throws InputError naming the field
 */
export function flankStressRatio(pair: GearPair, against: GearPair): number {
  const square = (field: string, { driver, driven }: GearPair): number => {
    const ratio = requirePair(field, { driver, driven });
    const share = driver / (driver + driven);
    return (ratio + 1) / ratio / share ** 2;
  };
  return Math.sqrt(square('pair', pair) / square('against', against));
}

/** A set of gears on a course: what each gear turns at which torque, and its teeth where they are known. */
export interface SetOnCourse {
  readonly loads: readonly (readonly Load[])[];
  readonly pairs: readonly (GearPair | null)[];
}

/**
 * For each gear, how fast its flanks wear in one set against the same gear in another: damage by torque of the course, times the ratio of
 * stresses to its power. Null where either set does not pull in it, or where the teeth of either are not known.
 * Never a life; see {@link wearAgainst} and {@link flankStressRatio} for what is not counted.
 * @throws InputError on `loads` for sets with another number of gears
 */
export function wearOfSet(set: SetOnCourse, against: SetOnCourse): readonly (number | null)[] {
  if (set.loads.length !== against.loads.length)
    throw new InputError('loads', 'The sets do not have as many gears.', `${against.loads.length} gears`);
  const pulls = (loads: readonly Load[]): boolean => loads.some(({ turns, torqueNm }) => turns > 0 && torqueNm > 0);
  return set.loads.map((loads, k) => {
    const before = against.loads[k] ?? [];
    const [pair, old] = [set.pairs[k], against.pairs[k]];
    if (!pulls(loads) || !pulls(before) || !pair || !old) return null;
    const { damageRatio } = wearAgainst({ spectrum: before, against: loads, exponent: LIFE_EXPONENT.flank });
    return damageRatio * flankStressRatio(pair, old) ** STRESS_EXPONENT;
  });
}
