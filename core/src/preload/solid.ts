import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
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

/** Ours: ± of wrench and micrometer where nobody has said. */
const SOLID_TELLS = { wrenchNm: 0.1, micrometerMm: 0.002 } as const;
const PACK = { maxPieces: 4, thinBelowMm: 0.1 } as const;

/**
 * The next shims beside a solid spacer: a straight line through the readings, least squares where there are more than two,
 * to the middle of the band, and the pack of the stock nearest to it. A reading that the wrench can't tell from none may have had
 * play: it teaches nothing of the slope. Packs that lie nearer together than the micrometer can tell teach none either.
 * Not counted: bearings that bed in, seal drag, a line that bends where preload begins.
 * @param readings 2 to 20 with at least two different packs under preload
 * @param tells ± of wrench and micrometer: 0.1 N·m and 0.002 mm, ours, unless told
 * @throws InputError naming the field; on `readings` where they teach nothing, or where torque rises with shim, which contradicts
 *   itself
 */
export function solidPreload(
  readings: readonly SolidReading[],
  bandNm: readonly [number, number],
  stock: readonly ShimStock[],
  tells: { readonly wrenchNm?: number; readonly micrometerMm?: number } = {},
): SolidNext {
  const [low, high] = requireTorqueBand(bandNm);
  if (readings.length < 2 || readings.length > 20)
    throw new InputError('readings', `readings has ${readings.length} entries.`, '2 to 20: two learn the slope');
  const wrench = requireNumber('wrenchNm', tells.wrenchNm ?? SOLID_TELLS.wrenchNm, LIMITS.torqueNm);
  const micrometer = requireNumber('micrometerMm', tells.micrometerMm ?? SOLID_TELLS.micrometerMm, {
    min: 0,
    max: 1,
    unit: 'mm',
  });
  const points = readings
    .map(({ shimMm, torqueNm }, i) => ({
      x: requireNumber(`readings[${i}].shimMm`, shimMm, { min: 0, max: 100, unit: 'mm' }),
      y: requireNumber(`readings[${i}].torqueNm`, torqueNm, LIMITS.torqueNm),
    }))
    .filter(({ y }) => y > wrench);
  if (points.length < 2)
    throw new InputError(
      'readings',
      'readings teach nothing of the slope: all but one are within what the wrench can tell from none, so there may have been play.',
      'two packs with preload',
    );
  const n = points.length;
  const [mx, my] = [points.reduce((s, { x }) => s + x, 0) / n, points.reduce((s, { y }) => s + y, 0) / n];
  const xx = points.reduce((s, { x }) => s + (x - mx) ** 2, 0);
  const apart = Math.max(...points.map(({ x }) => x)) - Math.min(...points.map(({ x }) => x));
  if (apart <= 2 * micrometer + 1e-9)
    throw new InputError(
      'readings',
      `readings teach nothing of the slope: their packs lie ${Number(apart.toFixed(4))} mm apart, no more than a micrometer of ± ${micrometer} mm can tell.`,
      `packs more than ${Number((2 * micrometer).toFixed(4))} mm apart`,
    );
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
