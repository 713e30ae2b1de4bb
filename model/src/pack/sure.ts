import { InputError, entryBase, type SurePack, type UncertainValue } from '@hot-spline/core';
import type { PlateSpec } from './schema';
import type { Side } from '../base/names';
import { isSpring, type MemberState, type PackState } from './state';
import { wantedBandNm } from './wrench';

/** How far a reading may lie off, ± mm, by what it was read with. Ours, to be known better by the shop. */
export const INSTRUMENTS = { micrometer: 0.002, caliper: 0.02, catalogue: 0.05 } as const;
/** A friction coefficient whose spread nobody has measured yet, as a share of itself: a guard band of ours. */
export const FRICTION_SHARE = 0.15;

const plusMinus = (instrument: string | undefined): number => {
  if (instrument === undefined) return INSTRUMENTS.catalogue;
  return /calip|depth|rule/i.test(instrument) ? INSTRUMENTS.caliper : INSTRUMENTS.micrometer;
};

function pieceOf({ member, thicknessMm, reading }: MemberState, i: number): UncertainValue {
  return {
    label: `${i + 1} ${member.label}${reading ? '' : ', catalogue'}`,
    value: thicknessMm,
    plusMinus: plusMinus(reading?.instrument),
    spread: 'uniform',
  };
}

/**
 * What is asked of the uncertainty of one pack: each piece with the uncertainty of its instrument, the case depth, and the
 * friction coefficient with its spread from the shop's table, else a guard band of ours.
 * @throws InputError on `members` for packs without springs
 */
export function surePackOf(plate: PlateSpec, packs: PackState, side: Side): SurePack {
  const state = packs[side];
  const { between } = state;
  if (plate.preload.from !== 'dished-springs' || (state.springs.length === 0 && !between))
    throw new InputError(
      'members',
      'This pack has no springs to work its clamp force out from.',
      'springs in the pack',
    );
  const target = entryBase(plate.targetHeight);
  const tolerance = entryBase(plate.tolerance);
  const solid = state.members.filter(({ member }) => !isSpring(member));
  const stack = state.stackReading;
  const friction = entryBase(plate.frictionCoefficient);
  const band = wantedBandNm(plate, packs.wheel);
  if (between && between.gapMm === null)
    throw new InputError('gearGap', 'The gap between the side gears has not been entered.', 'the gap');
  return {
    pieces: stack
      ? [{ label: 'whole stack', value: state.stackMm, plusMinus: plusMinus(stack.instrument), spread: 'uniform' }]
      : solid.map(pieceOf),
    caseDepth: {
      label: `case depth${state.caseDepthReading ? '' : ', catalogue'}`,
      value: state.caseDepthMm,
      plusMinus: plusMinus(state.caseDepthReading?.instrument),
      spread: 'uniform',
    },
    springs: state.springs,
    ...(between && between.gapMm !== null
      ? {
          between: {
            springs: between.springs,
            gap: {
              label: 'gap between the gears',
              value: between.gapMm,
              plusMinus: INSTRUMENTS.caliper,
              spread: 'uniform' as const,
            },
          },
        }
      : {}),
    springLoad: { minus: entryBase(plate.springLoad.minus) / 100, plus: entryBase(plate.springLoad.plus) / 100 },
    frictionCoefficient: {
      label: 'friction coefficient',
      value: friction,
      plusMinus: (plate.frictionSpread ? entryBase(plate.frictionSpread) / 100 : FRICTION_SHARE) * friction,
      spread: 'normal',
    },
    interfaces: state.interfaces,
    outerRadiusMm: entryBase(plate.frictionOuterDiameter) / 2,
    innerRadiusMm: entryBase(plate.frictionInnerDiameter) / 2,
    wearModel: plate.wearModel,
    heightBandMm: [target - tolerance, target + tolerance],
    ...(band ? { breakawayBandNm: band } : {}),
  };
}
