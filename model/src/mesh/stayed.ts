import { readingBase, type Readings } from '../frame/readings';
import type { AxleName } from '../base/names';
import { sealDrag, totalTorque } from './readings';
import type { Trial } from './schema';

/** What stayed of the total turning torque over the run-in: bearings bed in, and preload falls (common practice). */
export interface Stayed {
  /** After ÷ before, the seal's drag taken off both where it was read. */
  readonly share: number;
  readonly fromNm: number;
  readonly nowNm: number;
  /** Whether the drag of the seal was taken off both. */
  readonly sealOff: boolean;
  /** Which bearings bedded in: new ones lose more than those that have run. */
  readonly bearings: string;
}

/** Bearings of the pinion and of the sides, as one word. */
export const bearingsOf = ({ pinionBearings, sideBearings }: Pick<Trial, 'pinionBearings' | 'sideBearings'>): string =>
  `pinion ${pinionBearings}, sides ${sideBearings}`;

/**
 * The total read again after the run-in against the total at the end of the set-up; null where one of them was not read, or where
 * nothing is left of the first once the seal's drag is taken off.
 */
export function stayedOf(axle: AxleName, readings: Readings): Stayed | null {
  const before = readings.get(totalTorque.key({ axle, stage: 'final' }));
  const after = readings.get(totalTorque.key({ axle, stage: 'run-in' }));
  if (!before || !after || after.seq < before.seq) return null;
  const [fromNm, nowNm] = [readingBase(before), readingBase(after)];
  const seal = readings.get(sealDrag.key({ axle }));
  const off = seal ? readingBase(seal) : 0;
  if (fromNm - off <= 0 || nowNm - off < 0) return null;
  return {
    share: (nowNm - off) / (fromNm - off),
    fromNm,
    nowNm,
    sealOff: seal !== undefined,
    bearings: bearingsOf(before.state as unknown as Trial),
  };
}
