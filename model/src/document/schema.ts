import { axleShape, buildShape } from '../assembly/slices';
import { idSchema, name } from '../base/fields';
import { AXLES, USES } from '../base/names';
import { FORMAT_VERSION } from '../base/version';
import '../base/zod';
import * as z from 'zod';

export const axleSchema = z.strictObject(axleShape);

/** A path of the document: what nobody has said yet is listed by it. */
const assumedPath = z.string().regex(/^[A-Za-z]+(\.[A-Za-z]+)*$/, 'must be a path such as engine.torqueCurve');

/** The specification of a build: what it says of itself, and the part of each capability. */
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
    driven: z.enum(['rear', 'front', 'both']),
    axles: z.strictObject({ rear: axleSchema.nullable(), front: axleSchema.nullable() }),
    ...buildShape,
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

export type { Axle, Build } from '../frame/document';
