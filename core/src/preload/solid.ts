import { InputError, requireNumber } from '../errors';
import { LIMITS } from '../limits';
import type { ShimStock } from '../pack/shims';
import { shimPack } from '../shim/pack';
import { requireTorqueBand } from './band';

export interface SolidReading {
  /** Pack beside the solid spacer. */
  readonly shimMm: number;
  /** Turning torque with the nut at its full torque, oiled. */
  readonly torqueNm: number;
}

export interface SolidNext {
  /** Negative: more shim, less torque. */
  readonly slopeNmPerMm: number;
  /** Pack for the middle of the band. */
  readonly shimMm: number;
  /** What of the stock comes nearest. */
  readonly piecesMm: readonly number[];
  /** What it is expected to read with those pieces. */
  readonly expectedNm: number;
}

const PACK = { maxPieces: 4, thinBelowMm: 0.1 } as const;

/**
 * The next shims beside a solid spacer: a straight line through the readings, least squares where there are more than two,
 * to the middle of the band, and the pack of the stock nearest to it.
 * Not counted: bearings that bed in, seal drag, a line that bends where preload begins.
 * @param readings 2 to 20 with at least two different packs
 * @throws InputError naming the field; on `readings` where torque rises with shim, which contradicts itself
 */
export function solidPreload(
  readings: readonly SolidReading[],
  bandNm: readonly [number, number],
  stock: readonly ShimStock[],
): SolidNext {
  const [low, high] = requireTorqueBand(bandNm);
  if (readings.length < 2 || readings.length > 20)
    throw new InputError('readings', `readings has ${readings.length} entries.`, '2 to 20: two learn the slope');
  const points = readings.map(({ shimMm, torqueNm }, i) => ({
    x: requireNumber(`readings[${i}].shimMm`, shimMm, { min: 0, max: 100, unit: 'mm' }),
    y: requireNumber(`readings[${i}].torqueNm`, torqueNm, LIMITS.torqueNm),
  }));
  const n = points.length;
  const [mx, my] = [points.reduce((s, { x }) => s + x, 0) / n, points.reduce((s, { y }) => s + y, 0) / n];
  const xx = points.reduce((s, { x }) => s + (x - mx) ** 2, 0);
  if (xx < 1e-12) throw new InputError('readings', 'readings are all of one pack.', 'two packs that differ');
  const slope = points.reduce((s, { x, y }) => s + (x - mx) * (y - my), 0) / xx;
  if (slope >= 0)
    throw new InputError(
      'readings',
      'readings contradict themselves: more shim has to give less torque. Read them again.',
      'less torque with more shim',
    );
  const shimMm = mx + ((low + high) / 2 - my) / slope;
  if (shimMm < 0) throw new InputError('readings', 'No shim at all is still too loose there.', 'a shorter spacer');
  const { piecesMm } = shimPack(shimMm, stock, PACK);
  const fitted = piecesMm.reduce((a, b) => a + b, 0);
  return { slopeNmPerMm: slope, shimMm, piecesMm, expectedNm: my + slope * (fitted - mx) };
}
