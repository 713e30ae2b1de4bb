import { LIMITS } from '@hot-spline/core';
import { entrySchema } from '../base/entry-schema';
import { designation, percent } from '../base/fields';
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
