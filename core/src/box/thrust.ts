import { InputError } from '../base/errors';
import { balancingHelixDeg, reduction, type ReductionStage } from './reduction';
import type { Arrangement } from './stack';
import { isReverse, type BoxPair, type BoxShaft, type StackedBox } from './stacked';

/** Axial force on each shaft in one gear, N: + away from the engine. */
export interface GearThrust {
  readonly pair: string;
  /** Of a layshaft the sum of both of its gears; of the driven shaft’s line the shaft that the gear turns. */
  readonly drive: Readonly<Record<BoxShaft, number>>;
  /** Where the engine drags; the share of it that the coast torque is. */
  readonly overrun: Readonly<Record<BoxShaft, number>>;
  /** Of the input shaft of a box with a constant pair, under power; null where there is none. */
  readonly inputN: number | null;
  /** The helix of this gear at which the layshaft’s thrusts cancel; null where there is no layshaft, or no helix does. */
  readonly balancingDeg: number | null;
}

/**
 * Thrust of each gear of a helical box under power and overrun [exact, statics of the flank], for an input shaft that turns clockwise as
 * seen from the engine. Straight-cut gears give none. Gears of hands that nobody has said are left out.
 * Not counted: losses, tilting couples, the thrust of a final pinion on the same shaft, the reverse gear.
 * @param overrunShare torque of the engine that drags, of its torque under power
 * @throws InputError naming the field
 */
export function boxThrusts(box: StackedBox, torqueNm: number, overrunShare: number): readonly GearThrust[] {
  if (!(overrunShare >= 0 && overrunShare <= 1))
    throw new InputError('overrunShare', 'overrunShare must be a share of the torque.', '0 to 1');
  const { normalModuleMm, helixDeg } = box;
  const stage = ({ driver, driven, driverHand }: BoxPair): ReductionStage => ({
    driver,
    driven,
    normalModuleMm,
    helixDeg,
    ...(driverHand === null ? {} : { driverHand }),
  });
  const constant = box.pairs.find((pair) => pair.constant);
  const said = (pair: BoxPair): boolean => helixDeg === 0 || pair.driverHand !== null;
  return box.pairs
    .filter((pair) => !pair.constant && !isReverse(pair) && said(pair) && (!constant || said(constant)))
    .map((pair): GearThrust => {
      const stages = constant ? [stage(constant), stage(pair)] : [stage(pair)];
      // Limit and tyre play no part in a thrust.
      const { thrustsN } = reduction({ stages, motorLimitRpm: 1, rollingCircumferenceMm: 1000, torqueNm });
      const [driving = 0, driven = 0] = (thrustsN ?? []).slice(constant ? 1 : 0);
      const back = (force: number): number => -force * overrunShare || 0;
      return {
        pair: pair.id,
        drive: { driving, driven },
        overrun: { driving: back(driving), driven: back(driven) },
        inputN: constant ? (thrustsN?.[0] ?? 0) : null,
        balancingDeg:
          constant && helixDeg > 0
            ? balancingHelixDeg(
                { normalModuleMm, teeth: constant.driven, helixDeg },
                { normalModuleMm, teeth: pair.driver },
              )
            : null,
      };
    });
}

/**
 * The bearing that takes an axial force: the one that the shaft is pushed against where the case holds both from outside (X), the other one
 * with cups back to back (O), the one that locates it where it is held at one end [exact]. Null without a force.
 * @param located the end that locates a shaft held at one end
 */
export function loadedEnd(
  forceN: number,
  arrangement: Arrangement,
  located: 'engine' | 'far',
): 'engine' | 'far' | null {
  if (forceN === 0) return null;
  if (arrangement === 'one-end') return located;
  return forceN > 0 === (arrangement === 'X') ? 'far' : 'engine';
}
