import { BEARING_LIMITS, LIMITS } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { designation, distance, percent, rpm } from '../base/fields';
import { toothPairSchema } from '../base/fields';
import '../base/zod';
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
/** Which wheel a complaint is of: the one inside of the turn, or one and the same side always. */
export const WHEELS = ['inside', 'left', 'right'] as const;
/** Where in a turn. */
export const WHERE = ['entry', 'middle', 'exit'] as const;
export const GOALS = ['time', 'finish', 'cruise', 'crawl'] as const;

/** What tells units apart for a use. */
export const CRITERIA = [
  'drive-out',
  'power-steer',
  'split-grip',
  'wheel-lift',
  'lift-steady',
  'low-speed',
  'quiet',
  'price',
  'tunable',
] as const;
export type Criterion = (typeof CRITERIA)[number];
const weightKeys = Object.fromEntries(CRITERIA.map((key) => [key, z.number().min(0).max(100)])) as Record<
  Criterion,
  z.ZodNumber
>;

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
  /** What has to be kept beside the goal; null: nothing is asked. */
  limits: z.strictObject({
    /** Engine speed at the cruise of the build, at the most. */
    cruiseRpm: entrySchema('rotation', LIMITS.rpm).nullable(),
    /** Of the run over the distance, at the most. */
    time: entrySchema('time', { above: 0, max: 3600, unit: 's' }).nullable(),
    /** At the least. */
    topSpeed: entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' }).nullable(),
    /** At the least. */
    crawl: entrySchema('ratio', { above: 0, max: 2000 }).nullable(),
  }),
  complaints: z.array(z.enum(COMPLAINTS)).max(COMPLAINTS.length),
  /** Where a complaint is met, and at which wheel; null: nobody has said. */
  complaintAt: z
    .array(
      z.strictObject({
        complaint: z.enum(COMPLAINTS),
        wheel: z.enum(WHEELS).nullable(),
        where: z.enum(WHERE).nullable(),
      }),
    )
    .max(COMPLAINTS.length),
  plannedTyre: designation.nullable(),
  /** What was in it when the speedometer was right. */
  was: z.strictObject({ finalDrive: toothPairSchema, tyre: designation }).nullable(),
  sender: z.enum(['gearbox', 'wheel']),
  /** The climb on which the converter's heat is worked out. */
  climb: z.strictObject({
    gear: z.int().min(0).max(11),
    speed: entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' }),
    grade: percent(-50, 100),
    /** What is carried or towed on top of the car's mass. */
    load: entrySchema('mass', { min: 0, max: 200_000, unit: 'kg' }),
  }),
  /** Where a whine is heard, and a bearing that may make it. */
  noise: z.strictObject({
    speed: entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' }),
    rollers: z.int().min(BEARING_LIMITS.rollers.min).max(BEARING_LIMITS.rollers.max),
    diameterRatio: entrySchema('coefficient', BEARING_LIMITS.diameterRatio),
    contactAngle: entrySchema('angle', BEARING_LIMITS.contactAngleDeg),
  }),
  /** What each criterion weighs when units are ranked; null: as this use weighs them. */
  unitWeights: z.strictObject(weightKeys).nullable(),
  /** Road speeds at which the rpm ladder has its columns. */
  ladder: z.array(entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' })).max(8),
});

export type Brief = z.infer<typeof briefSchema>;
export type Complaint = (typeof COMPLAINTS)[number];
export type Wheel = (typeof WHEELS)[number];
export type Where = (typeof WHERE)[number];
export type Goal = (typeof GOALS)[number];

/** Its part of the document. */
export const identitySlice = {
  axle: {
    /** Which of the carriers of `identity` is in it; empty where that is not known. */
    carrier: z.string().max(40),
    /** As stamped on the set in the axle. A set is lapped as a pair: the two must agree. */
    matchNumbers: z.strictObject({ ring: z.string().trim().max(30), pinion: z.string().trim().max(30) }),
  },
  build: { brief: briefSchema },
} as const;

declare module '../frame/document' {
  interface AxleSlices {
    carrier: string;
    matchNumbers: { ring: string; pinion: string };
  }
  interface BuildSlices {
    brief: Brief;
  }
}
