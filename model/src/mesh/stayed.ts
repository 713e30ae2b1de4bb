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
 * the first was nothing. The seal's drag is taken off both where both are more than it.
 */
export function stayedOf(axle: AxleName, readings: Readings): Stayed | null {
  const before = readings.get(totalTorque.key({ axle, stage: 'final' }));
  const after = readings.get(totalTorque.key({ axle, stage: 'run-in' }));
  if (!before || !after || after.seq < before.seq) return null;
  const [fromNm, nowNm] = [readingBase(before), readingBase(after)];
  const seal = readings.get(sealDrag.key({ axle }));
  // Where less than the seal is left it has bedded in too: then it stays in both.
  const drag = seal ? readingBase(seal) : 0;
  const sealOff = seal !== undefined && fromNm > drag && nowNm >= drag;
  const off = sealOff ? drag : 0;
  if (fromNm - off <= 0) return null;
  return {
    share: (nowNm - off) / (fromNm - off),
    fromNm,
    nowNm,
    sealOff,
    bearings: bearingsOf(before.state as unknown as Trial),
  };
}
