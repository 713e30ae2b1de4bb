import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { BOX_LIMITS } from './limits';

/** Turns of a gear at a torque. */
export interface Load {
  readonly turns: number;
  readonly torqueNm: number;
}

/** Exponents by torque of carburized steel: flanks and roots [ISO 6336, from memory]. */
export const LIFE_EXPONENT = { flank: 6.6, root: 8.7 } as const;

function requireLoads(field: string, loads: readonly Load[]): void {
  requireNumber(field, loads.length, BOX_LIMITS.spectrum);
  loads.forEach(({ turns, torqueNm }, i) => {
    requireNumber(`${field}[${i}].turns`, turns, BOX_LIMITS.turns);
    requireNumber(`${field}[${i}].torqueNm`, torqueNm, LIMITS.torqueNm);
  });
  if (loads.every(({ turns, torqueNm }) => turns === 0 || torqueNm === 0))
    throw new InputError(field, `${field} does no damage: nothing turns under a torque.`, 'a torque and turns above 0');
}

/**
 * How fast one spectrum of loads wears a gear against another: damage Σ n·T^p of `against` over that of `spectrum`, and the one torque
 * that would do the damage of `against` in its turns [Palmgren and Miner]. Of one flank, drive or coast; both of the same gear.
 * Never a life in hours: what a tooth stands is in neither.
 * Not counted: order of the loads, loads below what hurts, another geometry (multiply by the ratio of stresses to their exponent).
 * @throws InputError naming the field
 */
export function wearAgainst({
  spectrum,
  against,
  exponent,
}: {
  readonly spectrum: readonly Load[];
  readonly against: readonly Load[];
  readonly exponent: number;
}): { readonly damageRatio: number; readonly equivalentTorqueNm: number } {
  requireLoads('spectrum', spectrum);
  requireLoads('against', against);
  requireNumber('exponent', exponent, BOX_LIMITS.exponent);
  // Powers of large torques leave the numbers: all of them are against the largest.
  const top = Math.max(...[...spectrum, ...against].map(({ torqueNm }) => torqueNm));
  const damage = (loads: readonly Load[]): number =>
    loads.reduce((sum, { turns, torqueNm }) => sum + turns * (torqueNm / top) ** exponent, 0);
  const base = damage(spectrum);
  if (base === 0)
    throw new InputError('spectrum', 'spectrum does next to no damage beside against.', 'torques that can be compared');
  const turns = against.reduce((sum, load) => sum + load.turns, 0);
  return {
    damageRatio: damage(against) / base,
    equivalentTorqueNm: top * (damage(against) / turns) ** (1 / exponent),
  };
}
