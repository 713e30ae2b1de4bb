import {
  GRADE,
  LIMITS,
  LOG_SAMPLES,
  MOST_CORNERS,
  MOST_SLOPES,
  SEARCH_LIMITS,
  VEHICLE_LIMITS,
} from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { id, name, percent } from '../base/fields';
import { toothPairSchema } from '../base/fields';
import '../base/zod';
import * as z from 'zod';

/** What the longitudinal equation needs beside engine and gears. */
export const roadSchema = z.strictObject({
  mass: entrySchema('mass', VEHICLE_LIMITS.massKg),
  rearShare: percent(1, 100),
  cgHeight: entrySchema('length', VEHICLE_LIMITS.cgHeightMm),
  wheelbase: entrySchema('length', VEHICLE_LIMITS.wheelbaseMm),
  track: entrySchema('length', { above: 0, max: 10_000, unit: 'mm' }),
  dragArea: entrySchema('area', VEHICLE_LIMITS.dragAreaM2),
  downforceArea: entrySchema('area', VEHICLE_LIMITS.downforceAreaM2),
  rollingCoefficient: entrySchema('coefficient', VEHICLE_LIMITS.rollingCoefficient),
  grip: entrySchema('coefficient', { above: 0, max: 10 }),
  efficiency: percent(1, 100),
  /** λ of the rotating parts; null: 1.04 + 0.0025·i². */
  inertiaFactor: entrySchema('coefficient', VEHICLE_LIMITS.inertiaFactor).nullable(),
  grade: percent(-50, 100),
  wheelSlip: percent(0, 50),
  /** How much more than the steady torque arrives for a moment; the same for every link of the driveline. */
  shock: entrySchema('coefficient', { min: 1, max: 5 }),
  /** Height at which drag pulls; null: that of the centre of gravity. */
  dragHeight: entrySchema('length', VEHICLE_LIMITS.dragHeightMm).nullable(),
  /** Torque that the engine drags with on overrun, as a share of its torque under power. */
  overrun: percent(0, 100),
});

export const shelfPairSchema = z.strictObject({
  id,
  driver: z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max),
  driven: z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max),
  /** Gears that it fits, 1 for first; every gear where the list is empty. */
  positions: z.array(z.int().min(1).max(12)).max(12),
  torqueLimit: entrySchema('torque', { above: 0, max: 1e5, unit: 'N·m' }).nullable(),
});

/** Gear pairs and final drives on the shelf, and the rules for putting a set together. */
export const shelfSchema = z.strictObject({
  pairs: z.array(shelfPairSchema).max(SEARCH_LIMITS.pairs),
  finals: z.array(toothPairSchema).max(SEARCH_LIMITS.finals),
  steps: z.enum(['shrinking', 'descending']),
  floorRpm: z.number().min(0).max(LIMITS.rpm.max),
  limiterMargin: percent(0, 50),
});

const mps = z
  .number()
  .min(0)
  .max(LIMITS.speedKmh.max / 3.6);
export const courseSchema = z.strictObject({
  name,
  lengthM: z.number().gt(0).max(1e6),
  startMps: mps,
  fastestMps: mps.nullable(),
  corners: z
    .array(
      z.strictObject({
        atM: z.number().min(0).max(1e6),
        lengthM: z.number().min(0).max(1e6),
        speedMps: z
          .number()
          .gt(0)
          .max(LIMITS.speedKmh.max / 3.6),
        brakingMps2: z.number().gt(0).max(60),
      }),
    )
    .max(MOST_CORNERS),
  /** From here on the road climbs so, percent; level before the first. */
  slopes: z
    .array(z.strictObject({ atM: z.number().min(0).max(1e6), gradePercent: z.number().min(GRADE.min).max(GRADE.max) }))
    .max(MOST_SLOPES),
  /** The speed that was recorded, thinned to what a picture shows; null for a course that was typed. */
  log: z
    .strictObject({
      timeS: z.number().gt(0).max(1e6),
      samples: z.array(z.strictObject({ atM: z.number().min(0).max(1e6), speedMps: mps })).max(LOG_SAMPLES),
    })
    .nullable(),
});

export type Road = z.infer<typeof roadSchema>;
export type Shelf = z.infer<typeof shelfSchema>;
export type ShelfPairSpec = z.infer<typeof shelfPairSchema>;
export type CourseSpec = z.infer<typeof courseSchema>;

/** Its part of the document. */
export const roadSlice = {
  build: { road: roadSchema, shelf: shelfSchema, course: courseSchema.nullable() },
} as const;

declare module '../frame/document' {
  interface BuildSlices {
    road: Road;
    shelf: Shelf;
    course: CourseSpec | null;
  }
}
