import { entryBase } from '@hot-spline/core';
import type { Instrument } from '../library/schema';

/** Why a wrench can’t tighten a joint; `fits` where it can. */
export type WrenchFit = 'fits' | 'other-hand' | 'range' | 'no-tightening';

/**
 * Whether a wrench of the shop can give a torque with a thread of this hand: a click wrench that works one way only can’t tighten
 * a left-hand bolt (common practice); the torque lies inside its scale [exact].
 */
export function wrenchFit({ reads }: Instrument, torqueNm: number, hand: 'right' | 'left'): WrenchFit {
  if (reads.of !== 'torque' || reads.use !== 'tightening') return 'no-tightening';
  if (hand === 'left' && reads.hand === 'right') return 'other-hand';
  return torqueNm >= entryBase(reads.from) && torqueNm <= entryBase(reads.to) ? 'fits' : 'range';
}
