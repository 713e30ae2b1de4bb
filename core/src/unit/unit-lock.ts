import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import { rampLockCoefficient, type PlateUnit } from './ramp';

export interface UnitLock {
  /** Torque that the packs can hold between the wheels, N·m. */
  readonly lockNm: number;
  /** lockNm / inputNm; null without input torque. At 1 and above nothing slips. */
  readonly lockingValue: number | null;
  /** Slow wheel to fast wheel; null where the unit is solid. */
  readonly biasRatio: number | null;
  /** Nothing would slip at this input torque. */
  readonly solid: boolean;
  /** Locking torque per input torque from the ramps. */
  readonly rampCoefficient: number;
}

/** Judges a locking torque at an input torque. Any unit that knows its locking torque ends here. */
export function lockAt(inputNm: number, lockNm: number, rampCoefficient = 0): UnitLock {
  requireNumber('inputNm', inputNm, LIMITS.torqueNm);
  requireNumber('lockNm', lockNm, { min: 0, max: Number.MAX_VALUE });
  const solid = lockNm > 0 && lockNm >= inputNm;
  const value = inputNm === 0 ? null : lockNm / inputNm;
  return {
    lockNm,
    lockingValue: value,
    biasRatio: solid ? null : inputNm === 0 ? 1 : (inputNm + lockNm) / (inputNm - lockNm),
    solid,
    rampCoefficient,
  };
}

/**
 * How a preload goes together with thrust that grows with torque, by where its spring sits [exact, statics of the part that
 * takes the thrust]:
 * - `series`: the clamp passes through the spring on its way to the case (dished plates at the case end, inside the pack,
 *   between pack and ring). The larger of the two counts.
 * - `parallel`: the spring pushes that part outwards along with the thrust (coils or a plate between the rings or the side
 *   gears). They add.
 */
export const PRELOAD_ACTS = ['series', 'parallel'] as const;
export type PreloadActs = (typeof PRELOAD_ACTS)[number];

/** Locking torque at no input of the springs in series and of those in parallel, N·m. */
export interface Preload {
  readonly seriesNm: number;
  readonly parallelNm: number;
}

/** A preload that acts in one way. */
export const preloadThat = (acts: PreloadActs, preloadNm: number): Preload =>
  acts === 'series' ? { seriesNm: preloadNm, parallelNm: 0 } : { seriesNm: 0, parallelNm: preloadNm };

/** What a unit holds at no input: the larger of the two, since the stronger spring sets the clamp at rest. */
export const restNm = ({ seriesNm, parallelNm }: Preload): number => Math.max(seriesNm, parallelNm);

/**
 * Locking torque of a plate unit: T_lock = max(T_series, T_parallel + k·T_in), k from the ramps [exact, see
 * {@link rampLockCoefficient}]. Flat or coil-bound springs change nothing in it. Not counted: friction of plate ears, drag of
 * oil; with a floating pin left and right share one rest force, so springs of both sides are not added.
 * @param unit one flank of the ramps (drive and overrun are asked for one at a time)
 * @param preload locking torque at no input: twice the breakaway of one pack; a number acts in series
 * @param inputNm torque into the unit
 * @throws InputError naming the field
 */
export function unitLock(unit: PlateUnit, preload: Preload | number, inputNm: number): UnitLock {
  const coefficient = rampLockCoefficient(unit);
  const { seriesNm, parallelNm } = typeof preload === 'number' ? preloadThat('series', preload) : preload;
  requireNumber('preloadNm', seriesNm, LIMITS.torqueNm);
  requireNumber('preloadNm', parallelNm, LIMITS.torqueNm);
  requireNumber('inputNm', inputNm, LIMITS.torqueNm);
  return lockAt(inputNm, Math.max(seriesNm, parallelNm + coefficient * inputNm), coefficient);
}
