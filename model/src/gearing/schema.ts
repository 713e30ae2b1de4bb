import { LIMITS, type Entry } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { designation, percent, ratio, toothPairSchema } from '../base/fields';
import '../base/zod';
import * as z from 'zod';

export const tyreSchema = z.strictObject({
  designation,
  /** Tread worn off, off the radius. */
  wear: entrySchema('length', { min: 0, max: 50, unit: 'mm' }).nullable(),
  /** Of the rolling radius, at a speed; with the square of it elsewhere. */
  growth: z
    .strictObject({ share: percent(0, 50), atSpeed: entrySchema('speed', { above: 0, max: 200, unit: 'm/s' }) })
    .nullable(),
  factor: z.enum(['radial', 'unloaded']),
  measured: z
    .discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('rollout'), value: entrySchema('length', LIMITS.circumferenceMm) }),
      z.strictObject({ kind: z.literal('loaded-radius'), value: entrySchema('length', LIMITS.radiusMm) }),
      z.strictObject({
        kind: z.literal('turns'),
        value: entrySchema('turns-per-distance', { min: 50, max: 10000, unit: 'turns/km' }),
      }),
    ])
    .nullable(),
});

export type Tyre = z.infer<typeof tyreSchema>;

/** Its part of the document. */
export const gearingSlice = {
  axle: { finalDrive: toothPairSchema, hubRatio: ratio, tyre: tyreSchema },
  build: {
    cruiseSpeed: entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' }),
    /** Final drives laid over the present one. */
    candidates: z.array(toothPairSchema).max(4),
  },
} as const;

declare module '../frame/document' {
  interface AxleSlices {
    finalDrive: z.infer<typeof toothPairSchema>;
    hubRatio: Entry;
    tyre: Tyre;
  }
  interface BuildSlices {
    cruiseSpeed: Entry;
    candidates: z.infer<typeof toothPairSchema>[];
  }
}
