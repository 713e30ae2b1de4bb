import { InputError, requireNumber } from '../base/errors';
import { MESH_LIMITS } from './limits';

export interface CarrierSides {
  readonly leftMm: number;
  readonly rightMm: number;
}

export interface CarrierMove extends CarrierSides {
  /** The side that the ring's back faces. */
  readonly ringSide: 'left' | 'right';
  readonly ringTowardsPinionMm: number;
  /** Of the total; shared by both sides. */
  readonly preloadChangeMm?: number;
  /** A shim under the flange of a side cover lets its bearing out: signs turned. `behind-cup` unless told. */
  readonly shimActs?: 'behind-cup' | 'under-flange';
}

/**
 * Shims of both sides after a move: what is added behind the ring's back is taken from its tooth side, so that left + right
 * and with it the preload stay; a change of preload goes half to each side [exact].
 * Not counted: stretch of the case, bearings that seat.
 * @throws InputError naming the field; on `ringTowardsPinionMm` where a side would have to be thinner than nothing
 */
export function carrierSides(move: CarrierMove): CarrierSides {
  const left = requireNumber('leftMm', move.leftMm, MESH_LIMITS.shimMm);
  const right = requireNumber('rightMm', move.rightMm, MESH_LIMITS.shimMm);
  const towards = requireNumber('ringTowardsPinionMm', move.ringTowardsPinionMm, MESH_LIMITS.moveMm);
  const preload = requireNumber('preloadChangeMm', move.preloadChangeMm ?? 0, MESH_LIMITS.moveMm);
  const acts = move.shimActs === 'under-flange' ? -1 : 1;
  const back = acts * (preload / 2 + towards);
  const tooth = acts * (preload / 2 - towards);
  const moved = move.ringSide === 'left' ? [left + back, right + tooth] : [left + tooth, right + back];
  const [leftMm, rightMm] = moved as [number, number];
  for (const [side, mm] of [
    ['left', leftMm],
    ['right', rightMm],
  ] as const)
    if (mm < -1e-9)
      throw new InputError(
        'ringTowardsPinionMm',
        `The ${side} shim would have to be ${mm.toFixed(3)} mm thick: the ring can't go there.`,
        'a move that leaves a shim on both sides',
      );
  return { leftMm: Math.max(0, leftMm), rightMm: Math.max(0, rightMm) };
}

/** Calliper over a carrier with its bearings on: outer race to the ring's flange, from each side, mm. */
export interface RaceToFlange {
  readonly leftMm: number;
  readonly rightMm: number;
  /** Laid between where a bearing stands proud of its race: taken off again. */
  readonly masterShimMm?: number;
}

/**
 * Side shims for another carrier that takes the same gears: what it is shorter from race to flange is made up on that side, so that
 * the ring stands where it stood and both bearings are held as they were [exact].
 * Not counted: a flange that runs out, other bearings than were measured with.
 * @param shims of the old carrier, mm
 * @throws InputError naming the field; on `next.leftMm` or `next.rightMm` where a side would have to be thinner than nothing
 */
export function carryOver(shims: CarrierSides, old: RaceToFlange, next: RaceToFlange): CarrierSides {
  const height = (of: 'old' | 'next', side: 'leftMm' | 'rightMm'): number => {
    const one = of === 'old' ? old : next;
    const master = requireNumber(`${of}.masterShimMm`, one.masterShimMm ?? 0, MESH_LIMITS.shimMm);
    return requireNumber(`${of}.${side}`, one[side], MESH_LIMITS.heightMm) - master;
  };
  const side = (key: 'leftMm' | 'rightMm'): number => {
    const mm = requireNumber(`shims.${key}`, shims[key], MESH_LIMITS.shimMm) + height('old', key) - height('next', key);
    if (mm < -1e-9)
      throw new InputError(
        `next.${key}`,
        `The ${key === 'leftMm' ? 'left' : 'right'} shim would have to be ${mm.toFixed(3)} mm thick: the carrier is too wide there.`,
        'a carrier that leaves a shim on both sides',
      );
    return Math.max(0, mm);
  };
  return { leftMm: side('leftMm'), rightMm: side('rightMm') };
}

/**
 * How far the ring moves for a shim on one side only, mm: x·k_L/(k_L + k_R), half of it for equal sides, while both bearings
 * are preloaded; all of it once preload is gone [exact, springs in series].
 * Not counted: when preload is gone, which the caller has to know.
 * @param stiffnessShare of the side that gets the shim, 0.5 where both are alike
 * @throws InputError naming the field
 */
export function oneSidedMove(shimMm: number, preloaded: boolean, stiffnessShare = 0.5): number {
  const shim = requireNumber('shimMm', shimMm, MESH_LIMITS.moveMm);
  const share = requireNumber('stiffnessShare', stiffnessShare, { min: 0, max: 1 });
  return preloaded ? shim * share : shim;
}

export interface Notches {
  /** Whole notches, signed as the move. */
  readonly notches: number;
  /** How far those move it. */
  readonly moveMm: number;
  /** What is left over: moved less wanted. */
  readonly errorMm: number;
}

/**
 * Notches of a threaded adjuster for a move: travel a notch = thread pitch/notches a turn [exact]; the nearest whole one,
 * since a lock holds nothing between. Half a notch goes to the smaller move, either way alike: what is left is in `errorMm`.
 * Not counted: slack of the thread.
 * @throws InputError naming the field
 */
export function adjusterNotches(of: {
  readonly threadPitchMm: number;
  readonly notchesPerTurn: number;
  readonly moveMm: number;
}): Notches {
  const pitch = requireNumber('threadPitchMm', of.threadPitchMm, MESH_LIMITS.threadPitchMm);
  const each = pitch / requireNumber('notchesPerTurn', of.notchesPerTurn, MESH_LIMITS.notches);
  const wanted = requireNumber('moveMm', of.moveMm, MESH_LIMITS.moveMm);
  // A half that arithmetic made a hair more than one is still a half.
  const notches = Math.sign(wanted) * Math.max(0, Math.ceil(Math.abs(wanted) / each - 0.5 - 1e-9)) + 0;
  return { notches, moveMm: notches * each, errorMm: notches * each - wanted };
}
