import { InputError, entryBase, type WantedProblem } from '@hot-spline/core';
import { SIDES, type Side } from '../base/names';
import type { PlateSpec } from './schema';
import type { ShimBox } from '../library/schema';
import { isPlate, isSpring, memberTurns, sideFriction, type MemberState, type PackState } from './state';
import { wantedBandNm } from './wrench';

/**
 * What is asked of {@link wantedPack} for both packs of an axle: the plates as measured, the springs as they lie, the shims
 * of a drawer, and the wanted breakaway of one pack.
 * @throws InputError on `wanted` while nothing is wanted, on `members` for packs without dished springs or plates
 */
export function wantedProblemOf(
  plate: PlateSpec,
  packs: PackState,
  drawer: ShimBox | null,
  most: number,
): WantedProblem {
  const bandNm = wantedBandNm(plate, packs.wheel);
  if (!bandNm) throw new InputError('wanted', 'Nothing is wanted yet.', 'a band of breakaway torque and its hold');
  if (plate.preload.from !== 'dished-springs')
    throw new InputError('members', 'The clamp force is given as measured, so no height changes it.', 'dished springs');
  const height = (states: readonly MemberState[]): number => states.reduce((sum, one) => sum + one.thicknessMm, 0);
  const { frictionCoefficient, outerRadiusMm, innerRadiusMm, wearModel } = sideFriction(plate, 0, 0);
  return {
    sides: SIDES.map((side) => {
      const { members, stackMm, caseDepthMm, springs } = packs[side];
      const plates = members.filter(({ member }) => isPlate(member));
      const { gearFace, caseWall } = plate.packs[side];
      if (packs[side].between)
        throw new InputError(
          'members',
          'A spring between the side gears presses by their gap: no height of the pack changes it.',
          'springs in the packs alone',
        );
      if (gearFace.lined || caseWall.lined || members.some(({ member }) => member.kind === 'wave'))
        throw new InputError(
          'members',
          `The ${side} pack has a wave plate or a lined face: orders are planned for plain ones.`,
          'bare faces and flat plates',
        );
      if (plates.length === 0 || springs.length === 0)
        throw new InputError(
          'members',
          `The ${side} pack has no ${plates.length === 0 ? 'plates' : 'dished springs'}.`,
          'plates and dished springs',
        );
      return {
        plates: plates.map(({ member }) => memberTurns(member)),
        // A stack measured as one counts for more than the sum of its pieces.
        platesMm: stackMm - height(members.filter(({ member }) => member.kind === 'shim')),
        caseDepthMm,
        springs,
      };
    }),
    friction: { frictionCoefficient, outerRadiusMm, innerRadiusMm, wearModel },
    bandNm,
    stock: (drawer?.pieces ?? []).map(({ thickness, count }) => ({ thicknessMm: entryBase(thickness), count })),
    maxPiecesPerSide: most,
  };
}

/** Lays the plates of one pack in another order, then what else is solid, then the springs. */
export function layPack(plate: PlateSpec, side: Side, order: readonly number[]): void {
  const { members } = plate.packs[side];
  const plates = members.filter(isPlate);
  plate.packs[side].members = [
    ...order.map((place) => plates[place]).filter((member) => member !== undefined),
    ...members.filter((member) => !isPlate(member) && !isSpring(member)),
    ...members.filter(isSpring),
  ];
}
