import { LIMITS, VEHICLE_LIMITS } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { gearSchema, id, name, percent, rpm } from '../base/fields';
import { takenFromSchema } from '../library/origins';
import '../base/zod';
import * as z from 'zod';

export const engineSchema = z.strictObject({
  kind: z.enum(['combustion', 'electric']),
  torqueCurve: z
    .array(
      z.strictObject({
        rpm: z.number().min(0).max(LIMITS.rpm.max),
        torque: entrySchema('torque', { min: 0, max: 20000, unit: 'N·m' }),
      }),
    )
    .min(2)
    .max(100)
    .refine((curve) => curve.every((p, i) => i === 0 || p.rpm > (curve[i - 1]?.rpm ?? -1)), {
      message: 'rpm must ascend without repeats',
    }),
  limitRpm: rpm,
  /** The clutch slips at this speed when the car is launched. */
  launchRpm: z.number().min(0).max(LIMITS.rpm.max),
});

export const couplingSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('clutch'),
    capacity: entrySchema('torque', { above: 0, max: 1e5, unit: 'N·m' }),
  }),
  z.strictObject({
    kind: z.literal('converter'),
    stallRpm: rpm,
    /** Torque multiplication at standstill. */
    torqueRatio: entrySchema('ratio', VEHICLE_LIMITS.torqueRatio),
    /** Speed ratio at which it no longer multiplies. */
    couplingRatio: entrySchema('ratio', VEHICLE_LIMITS.couplingRatio),
    slip: percent(0, 50),
    /** Speed ratio up to which it takes as much as at stall, and the share left at coupling. */
    fullUpTo: entrySchema('ratio', VEHICLE_LIMITS.fullUpTo),
    shareAtCoupling: percent(1, 100),
  }),
  z.strictObject({ kind: z.literal('direct') }),
]);

export const gearboxSchema = z.strictObject({
  kind: z.enum(['synchro', 'dog', 'sequential', 'automatic', 'fixed']),
  gears: z.array(gearSchema).min(1).max(12),
  shiftTime: entrySchema('time', VEHICLE_LIMITS.shiftTimeS),
  /** Where the ratios were taken from, as long as none was typed over. */
  from: takenFromSchema,
});

export const transferSchema = z.strictObject({ ranges: z.array(gearSchema).min(1).max(4) });

/** Where one looks: what a device keeps for itself, and what a build offers to start from. */
export const operatingPointSchema = z.strictObject({
  /** Index of the gear, 0 for the first. */
  gear: z.int().min(0).max(11),
  range: z.int().min(0).max(3),
  rpm,
});

/** An operating point that is kept by a name: cruise, trap, corner exit, crawl. */
export const keptPointSchema = z.strictObject({ id, name, ...operatingPointSchema.shape });

export type OperatingPoint = z.infer<typeof operatingPointSchema>;
export type KeptPoint = z.infer<typeof keptPointSchema>;

/** Its part of the document. */
export const pointSlice = {
  build: {
    engine: engineSchema,
    coupling: couplingSchema,
    gearbox: gearboxSchema,
    transfer: transferSchema.nullable(),
    /** Operating points that are kept: cruise, trap, corner exit, crawl. */
    points: z
      .array(keptPointSchema)
      .max(12)
      .refine((points) => new Set(points.map((point) => point.id)).size === points.length, {
        message: 'two points carry one id',
      }),
    /** Where a device looks first; from then on where it looks is its own. */
    startPoint: operatingPointSchema,
  },
} as const;

declare module '../frame/document' {
  interface BuildSlices {
    engine: z.infer<typeof engineSchema>;
    coupling: z.infer<typeof couplingSchema>;
    gearbox: z.infer<typeof gearboxSchema>;
    transfer: z.infer<typeof transferSchema> | null;
    points: KeptPoint[];
    startPoint: OperatingPoint;
  }
}
