import { LIMITS } from '@hot-spline/core';
import { axleSpecSchema } from '../library/schema';
import { toothPairSchema } from '../base/fields';
import { tyreSchema } from '../gearing/schema';
import { briefSchema } from '../identity/schema';
import {
  couplingSchema,
  engineSchema,
  gearboxSchema,
  keptPointSchema,
  operatingPointSchema,
  transferSchema,
} from '../point/schema';
import { jointSchema } from '../joint/schema';
import { setupSchema } from '../mesh/schema';
import { workSchema } from '../plan/schema';
import { practiceSchema } from '../practice/schema';
import { courseSchema, roadSchema, shelfSchema } from '../road/schema';
import { shaftsSchema } from '../shaft/schema';
import { unitSchema } from '../unit/schema';
import '../base/zod';
import * as z from 'zod';
import { entrySchema } from '../base/entry-schema';
import { idSchema, name, ratio } from '../base/fields';
import { AXLES, USES } from '../base/names';
import { FORMAT_VERSION } from '../base/version';

export const axleSchema = z.strictObject({
  finalDrive: toothPairSchema,
  hubRatio: ratio,
  tyre: tyreSchema,
  unit: unitSchema,
  /** What this axle is; null while nobody has looked. */
  identity: axleSpecSchema.nullable(),
  /** Which of the carriers of `identity` is in it; empty where that is not known. */
  carrier: z.string().max(40),
  /** As stamped on the set in the axle. A set is lapped as a pair: the two must agree. */
  matchNumbers: z.strictObject({ ring: z.string().trim().max(30), pinion: z.string().trim().max(30) }),
  /** How it is set up; null while nobody has begun. */
  setup: setupSchema.nullable(),
  /** The work on it: order, parts, tools, trays; null while nobody has planned it. */
  work: workSchema.nullable(),
  /** The bolted joint of its ring; null while nobody has said. */
  joint: jointSchema.nullable(),
  /** Its shafts and the prop shaft; null while nobody has said. */
  shafts: shaftsSchema.nullable(),
});

/** A path of the document: what nobody has said yet is listed by it. */
const assumedPath = z.string().regex(/^[A-Za-z]+(\.[A-Za-z]+)*$/, 'must be a path such as engine.torqueCurve');

/** The specification of a build: its slices, put together by hand. */
export const buildSchema = z
  .strictObject({
    format: z.literal('hot-spline/build'),
    formatVersion: z.literal(FORMAT_VERSION),
    name,
    vehicle: z.string().max(120),
    use: z.enum(USES),
    /** Whose it is: a customer of the shop, whose name and address stand there alone. */
    customer: idSchema.nullable(),
    /** The day that it is promised for. */
    promised: z.iso.date().nullable(),
    /** Who works on it. */
    worker: z.string().trim().max(60),
    notes: z.string().max(4000),
    /** Paths of the values that nobody has said yet: stand-ins of ours, which never judge. */
    assumed: z
      .array(assumedPath.max(60))
      .max(60)
      .refine((paths) => new Set(paths).size === paths.length, { message: 'one path stands twice' }),
    engine: engineSchema,
    coupling: couplingSchema,
    gearbox: gearboxSchema,
    transfer: transferSchema.nullable(),
    driven: z.enum(['rear', 'front', 'both']),
    axles: z.strictObject({ rear: axleSchema.nullable(), front: axleSchema.nullable() }),
    cruiseSpeed: entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' }),
    /** Final drives laid over the present one. */
    candidates: z.array(toothPairSchema).max(4),
    brief: briefSchema,
    road: roadSchema,
    shelf: shelfSchema,
    course: courseSchema.nullable(),
    /** Operating points that are kept: cruise, trap, corner exit, crawl. */
    points: z
      .array(keptPointSchema)
      .max(12)
      .refine((points) => new Set(points.map((point) => point.id)).size === points.length, {
        message: 'two points carry one id',
      }),
    /** A made-up axle to practise on; null for a build of somebody's. */
    practice: practiceSchema.nullable(),
    /** Where a device looks first; from then on where it looks is its own. */
    startPoint: operatingPointSchema,
  })
  .superRefine((build, context) => {
    const needed = build.driven === 'both' ? AXLES : [build.driven];
    for (const axle of needed) {
      if (!build.axles[axle])
        context.addIssue({ code: 'custom', path: ['axles', axle], message: 'is driven but not described' });
    }
    if (build.startPoint.gear >= build.gearbox.gears.length) {
      context.addIssue({ code: 'custom', path: ['startPoint', 'gear'], message: 'is not one of the gears' });
    }
    if (build.startPoint.range >= (build.transfer?.ranges.length ?? 1)) {
      context.addIssue({ code: 'custom', path: ['startPoint', 'range'], message: 'is not one of the ranges' });
    }
  });

export type Build = z.infer<typeof buildSchema>;
export type Axle = z.infer<typeof axleSchema>;
