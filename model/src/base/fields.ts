import { LIMITS, InputError, tyreSize, type NumberRange } from '@hot-spline/core/page';
import './zod';
import * as z from 'zod';
import { entrySchema } from './entry-schema';

/** Fields that several capabilities share. */
export const name = z.string().trim().min(1).max(80);
/** What a build, a spec or an entry is kept under: made where it is written. */
export const idSchema = z.uuid();
export const id = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be letters, digits, - and _');
export const thickness = entrySchema('length', LIMITS.thicknessMm);
export const diameter = entrySchema('length', LIMITS.diameterMm);
export const angle = entrySchema('angle', { min: 0, max: 90, unit: '°' } satisfies NumberRange);
export const ratio = entrySchema('ratio', LIMITS.ratio);

/** The SHA-256 of a photo's bytes: what it is kept under. */
export const photoId = z.string().regex(/^[0-9a-f]{64}$/, 'must be the 64 hexadecimal digits of a SHA-256');

export const designation = z
  .string()
  .max(40)
  .superRefine((text, context) => {
    try {
      tyreSize(text);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      context.addIssue({ code: 'custom', message: error.message });
    }
  });
export const percent = (min: number, max: number) => entrySchema('percent', { min, max, unit: '%' });

export const rpm = z.number().min(1).max(LIMITS.rpm.max);
export const distance = entrySchema('distance', { above: 0, max: 100_000, unit: 'm' });

export const gearSchema = z.strictObject({ name: z.string().trim().min(1).max(12), ratio });

export const toothPairSchema = z
  .strictObject({
    ring: z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max),
    pinion: z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max),
  })
  .refine(({ ring, pinion }) => ring >= pinion, {
    path: ['ring'],
    message: 'must have at least as many teeth as the pinion',
  });
