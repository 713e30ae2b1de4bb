import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import type { PreloadActs } from '../unit/unit-lock';

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

/** What else is in a reading beside the two packs. */
export interface AtTheWheel {
  /**
   * Turning torque R with both wheels free, turned together: drag of all that turns with the carrier, and of both wheels.
   * With the other wheel held, half of it is in the reading; on the bench none. 0 unless told: the reading is then too high.
   */
  readonly turningNm?: number;
  /** How the springs act: in parallel with the thrust, a held carrier lets it build up. Series unless told. */
  readonly acts?: PreloadActs;
  /** Locking torque per input torque on the flank that is loaded (forwards: the overrun one); 0 unless told. */
  readonly slope?: number;
}

/** What one pack's mean torque comes to in a reading, and what is added to it. */
function law(hold: Hold, { turningNm = 0, acts = 'series', slope = 0 }: AtTheWheel): { times: number; plus: number } {
  const turning = requireNumber('turningNm', turningNm, LIMITS.torqueNm);
  const k = requireNumber('slope', slope, { min: 0, max: 20 });
  switch (hold) {
    case 'other-wheel-held':
      return { times: 1, plus: turning / 2 };
    case 'bench':
      return { times: 1, plus: 0 };
    case 'carrier-held':
      if (acts === 'series') return { times: 2, plus: 0 };
      return { times: k >= 1 ? Number.POSITIVE_INFINITY : 2 / (1 - k), plus: 0 };
  }
}

/**
 * What the torque wrench reads, N·m, for the friction torques of the two packs [exact, from equilibrium and energy]:
 * - other wheel held, carrier free: M = T_c + R/2, T_c the mean of both packs, R what both wheels take when they turn together;
 * - carrier held, other wheel free: 2·T_c with springs in series; T_0/(1 − k) with springs in parallel, where the friction of
 *   one gear loads the spiders; locked (infinite) at k ≥ 1;
 * - bench: T_c.
 *
 * Not counted: drag of the turned wheel with the carrier held; that T_c ≥ D/2 + w, without which both wheels turn together.
 * @throws InputError naming the field
 */
export function wrenchReading(
  packs: { leftNm: number; rightNm: number },
  hold: Hold,
  more: AtTheWheel = {},
): WrenchReading {
  const left = requireNumber('leftNm', packs.leftNm, FRICTION_TORQUE);
  const right = requireNumber('rightNm', packs.rightNm, FRICTION_TORQUE);
  const { times, plus } = law(hold, more);
  const mean = (left + right) / 2;
  return { hold, torqueNm: (mean === 0 ? 0 : times * mean) + plus };
}

/**
 * Mean friction torque of one pack, N·m, that a reading stands for: the inverse of {@link wrenchReading}.
 * @throws InputError naming the field; on `turningNm` where half of it is more than the reading, on `hold` where the unit
 *   would lock and no reading says anything
 */
export function perPackFromReading(reading: WrenchReading, more: AtTheWheel = {}): number {
  const torque = requireNumber('torqueNm', reading.torqueNm, FRICTION_TORQUE);
  const { times, plus } = law(reading.hold, more);
  if (!Number.isFinite(times))
    throw new InputError(
      'hold',
      'hold: with the carrier held this unit locks, whatever its packs hold.',
      'another hold',
    );
  if (torque < plus)
    throw new InputError(
      'turningNm',
      `turningNm: half of the turning torque, ${plus} N·m, is more than the reading of ${torque} N·m.`,
      `at most ${2 * torque} N·m`,
    );
  return (torque - plus) / times;
}
