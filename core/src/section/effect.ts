import { requireNumber } from '../base/errors';
import { oneSidedMove } from '../mesh/carrier';
import { depthSign, type Depthwards } from '../mesh/construction';
import { MESH_LIMITS } from '../mesh/limits';
import { meshSensitivity } from '../mesh/sensitivity';

/** What somebody changes, by so much more (less where negative). */
export type ShimTouch =
  /** The pinion’s shim. */
  | { readonly of: 'pinion-shim'; readonly mm: number }
  /** Height of the bearing at the pinion’s head, or of what lies at the head like it. */
  | { readonly of: 'head-bearing'; readonly mm: number }
  /** A link of the chain that the pinion’s shim is worked out from, with the sign that it has there: a gasket, a plate. */
  | { readonly of: 'link'; readonly sign: 'plus' | 'minus'; readonly mm: number }
  /** A shim or the height of a bearing at one side of the carrier, the other side left alone. */
  | { readonly of: 'side'; readonly side: 'left' | 'right'; readonly what: 'shim' | 'bearing'; readonly mm: number }
  /** Taken from one side and put into the other. */
  | { readonly of: 'across'; readonly to: 'left' | 'right'; readonly mm: number }
  /** Notches in at one side, and out as many at the other. */
  | { readonly of: 'notches'; readonly inAt: 'left' | 'right'; readonly notches: number; readonly notchMm: number };

export interface ShimAxle {
  readonly ringTeeth: number;
  readonly pinionTeeth: number;
  readonly ringSide: 'left' | 'right';
  /** As the construction says, or somebody for this axle; null: not known, and then nothing is said. */
  readonly shimMoves: Depthwards | null;
  readonly bearingMoves: Depthwards | null;
  readonly sideShims: 'behind-cup' | 'under-flange';
}

export interface ShimEffect {
  /** Pinion nearer to the ring’s axis; negative: away from it. */
  readonly deeperMm: number;
  /** Ring towards the pinion, while both side bearings are preloaded; negative: away. */
  readonly closerMm: number;
  /** The same where no preload is left. */
  readonly closerLooseMm: number;
  readonly backlashMm: number;
  /** What the side bearings are squeezed more. */
  readonly sidePreloadMm: number;
}

/**
 * What a change at a shim, a bearing or an adjuster does to the whole axle, in the signs of this one: pinion by its shim’s or bearing’s
 * direction [exact]; a shim on one side alone moves the ring by half of it while both sides are preloaded, by all of it where none is
 * left [exact, springs in series, sides alike]; backlash falls by 2·tan φ·sin Γ a mm of ring and 2·tan φ·sin γ a mm of depth, φ 20°
 * [std: Dudley, from memory; bevel approximation].
 * Not counted: the offset of a hypoid, sides of other stiffness, what closing up takes.
 * @returns null where nobody has said which way this axle’s shim or bearing moves its pinion
 * @throws InputError naming the field
 */
export function shimEffect(touch: ShimTouch, axle: ShimAxle): ShimEffect | null {
  const { backlashPerRingMm, backlashPerPinionMm } = meshSensitivity({ ...axle, pressureAngleDeg: 20 });
  const moved = (deeperMm: number, closerMm: number, closerLooseMm: number, sidePreloadMm: number): ShimEffect => ({
    deeperMm,
    closerMm,
    closerLooseMm,
    // Minus nought is nought.
    backlashMm: -(backlashPerPinionMm * deeperMm + backlashPerRingMm * closerMm) + 0,
    sidePreloadMm,
  });
  const pinion = (moves: Depthwards | null, mm: number): ShimEffect | null =>
    moves === null ? null : moved(depthSign(moves) * mm, 0, 0, 0);
  /** Behind the ring’s back it brings the ring closer; under the flange of a cover it lets its side out. */
  const towards = (side: 'left' | 'right', what: 'shim' | 'bearing'): 1 | -1 =>
    (side === axle.ringSide) === (what === 'bearing' || axle.sideShims === 'behind-cup') ? 1 : -1;
  if (touch.of === 'notches') {
    requireNumber('notches', touch.notches, { min: -1000, max: 1000, integer: true });
    const mm = touch.notches * requireNumber('notchMm', touch.notchMm, MESH_LIMITS.moveMm);
    const closer = touch.inAt === axle.ringSide ? mm : -mm;
    return moved(0, closer, closer, 0);
  }
  const mm = requireNumber('mm', touch.mm, MESH_LIMITS.moveMm);
  switch (touch.of) {
    case 'pinion-shim':
      return pinion(axle.shimMoves, mm);
    case 'head-bearing':
      return pinion(axle.bearingMoves, mm);
    case 'link':
      // What the shim would have to grow by, and has not.
      return pinion(axle.shimMoves, touch.sign === 'plus' ? -mm : mm);
    case 'across': {
      const closer = towards(touch.to, 'shim') * mm;
      return moved(0, closer, closer, 0);
    }
    case 'side': {
      const way = towards(touch.side, touch.what);
      const squeeze = touch.what === 'shim' && axle.sideShims === 'under-flange' ? -mm : mm;
      return moved(0, way * oneSidedMove(mm, true), way * oneSidedMove(mm, false), squeeze);
    }
  }
}
