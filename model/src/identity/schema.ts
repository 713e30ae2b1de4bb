import { LIMITS } from '@hot-spline/core';
import { entrySchema } from '../document/entry-schema';
import { designation, distance, rpm } from '../document/fields';
import { toothPairSchema } from '../document/fields';
import '../zod';
import * as z from 'zod';

export const COMPLAINTS = [
  'runs-hot',
  'whines',
  'one-wheel-spins',
  'chatters',
  'pushes-wide',
  'snaps-on-lift',
  'drags-in-turns',
] as const;
export const GOALS = ['time', 'finish', 'cruise', 'crawl'] as const;

/** What the job is for; steers what is judged later. */
export const briefSchema = z.strictObject({
  goal: z.enum(GOALS),
  /** Of the run that is timed, or at whose end the rpm window counts. */
  distance,
  /** Useful engine speeds. */
  window: z.strictObject({ lowRpm: rpm, highRpm: rpm }).refine(({ lowRpm, highRpm }) => highRpm > lowRpm, {
    path: ['highRpm'],
    message: 'must be above lowRpm',
  }),
  crawlRatio: entrySchema('ratio', { above: 0, max: 2000 }),
  complaints: z.array(z.enum(COMPLAINTS)).max(COMPLAINTS.length),
  plannedTyre: designation.nullable(),
  /** What was in it when the speedometer was right. */
  was: z.strictObject({ finalDrive: toothPairSchema, tyre: designation }).nullable(),
  sender: z.enum(['gearbox', 'wheel']),
  /** Road speeds at which the rpm ladder has its columns. */
  ladder: z.array(entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' })).max(8),
});

export type Brief = z.infer<typeof briefSchema>;
export type Complaint = (typeof COMPLAINTS)[number];
export type Goal = (typeof GOALS)[number];
