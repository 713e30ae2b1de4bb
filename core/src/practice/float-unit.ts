import { requireNumber } from '../base/errors';
import { normalFrom, seededRandom } from '../base/random';
import { MESH_LIMITS } from '../mesh/limits';

/** A reduction unit whose one shim sets end float; its truth is hidden from whoever sets it up. */
export interface FloatUnit {
  readonly construction: 'electric-reduction';
  /** What came out of it. */
  readonly startShimMm: number;
  readonly specFloatMm: readonly [number, number];
  readonly truth: {
    /** Between the two bearings' seats with no shim in. */
    readonly roomMm: number;
    /** What closing the case for good takes off float. */
    readonly closingMm: number;
  };
}

/** The lesson beside those that have a mesh (common practice). */
export const FLOAT_LESSON = {
  id: 'one-shim',
  title: 'One shim',
  teaches:
    'An electric reduction unit: centre distance is fixed, one shim sets end float. Read it twice, shaft tapped home.',
  seed: 111,
  construction: 'electric-reduction',
} as const;

/** A made-up unit by its seed: the same one anywhere. @throws InputError naming `seed` */
export function floatUnit(seed: number): FloatUnit {
  requireNumber('seed', seed, { min: 0, max: 4_294_967_295, integer: true });
  const random = seededRandom(seed);
  const normal = normalFrom(random);
  const startShimMm = Math.round((1.1 + 0.4 * random()) * 40) / 40;
  return {
    construction: 'electric-reduction',
    startShimMm,
    specFloatMm: [0.06, 0.18],
    truth: { roomMm: startShimMm + Math.max(0.02, 0.27 + 0.06 * normal()), closingMm: 0.002 + 0.006 * random() },
  };
}

/** End float in truth with a shim, mm; nothing where it is held tight. Not counted: how it is read. */
export function trueFloat({ truth }: FloatUnit, shimMm: number, final: boolean): number {
  const shim = requireNumber('shimMm', shimMm, MESH_LIMITS.shimMm);
  return Math.max(0, truth.roomMm - shim - (final ? truth.closingMm : 0));
}

/** Whether it is in its band with a shim, closed for good. */
export function floatInTruth(unit: FloatUnit, shimMm: number): boolean {
  const mm = trueFloat(unit, shimMm, true);
  const [low, high] = unit.specFloatMm;
  return mm >= low - 1e-9 && mm <= high + 1e-9;
}
