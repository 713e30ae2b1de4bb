import { requireNumber } from '../base/errors';
import { normalFrom, seededRandom } from '../base/random';
import { BOX_LIMITS } from '../box/limits';
import { BOX_SHAFTS, type BoxShaft } from '../box/stacked';

/** Both shafts of a made-up box with the shims that set their end float; the truth is hidden from whoever sets it. */
export interface BoxFloats {
  readonly shafts: Readonly<
    Record<
      BoxShaft,
      {
        /** What lay in its seat. */
        readonly startShimMm: number;
        readonly bandMm: readonly [number, number];
        /** Its seat without a shim: what shim and float share. */
        readonly roomMm: number;
      }
    >
  >;
}

/** The lesson of a box whose both shafts have float of their own (common practice). */
export const BOX_LESSON = {
  id: 'box-float',
  title: 'Both shafts of a box',
  teaches:
    'End float of each shaft, bare but for what sets its length: measure the shim, seat it, zero, draw, twice the same. Next shim, read again, approve.',
  seed: 121,
} as const;

/** A made-up box by its seed: the same one anywhere; its figures are ours. @throws InputError naming `seed` */
export function boxFloats(seed: number): BoxFloats {
  requireNumber('seed', seed, { min: 0, max: 4_294_967_295, integer: true });
  const random = seededRandom(seed);
  const normal = normalFrom(random);
  const shaft = (low: number, high: number) => {
    const startShimMm = Math.round((1 + random()) * 40) / 40;
    return {
      startShimMm,
      bandMm: [low, high] as const,
      roomMm: startShimMm + Math.max(0.02, high + 0.12 + 0.05 * normal()),
    };
  };
  const driving = shaft(0.08, 0.16);
  return { shafts: { driving, driven: shaft(0.05, 0.14) } };
}

/** End float in truth with a shim, mm; nothing where it is held tight. Not counted: how it is read. */
export function trueBoxFloat({ shafts }: BoxFloats, shaft: BoxShaft, shimMm: number): number {
  return Math.max(0, shafts[shaft].roomMm - requireNumber('shimMm', shimMm, BOX_LIMITS.floatMm));
}

/** Whether each shaft is in its band with a shim. */
export function boxFloatsInTruth(box: BoxFloats, shims: Readonly<Record<BoxShaft, number | null>>): boolean {
  return BOX_SHAFTS.every((shaft) => {
    const shim = shims[shaft];
    if (shim === null) return false;
    const [low, high] = box.shafts[shaft].bandMm;
    const mm = trueBoxFloat(box, shaft, shim);
    return mm >= low - 1e-9 && mm <= high + 1e-9;
  });
}
