import { ARRIVALS, BEARINGS, BOXES, DEPTH_SHIMS, GEARS, JOBS, RING_PLACES, UNIT_WORK } from '@hot-spline/core/page';
import { TOOLS, type ToolId } from '../frame/tools';
import { entrySchema } from '../base/entry-schema';
import { id } from '../base/fields';
import '../base/zod';
import * as z from 'zod';

const line = z.string().trim().max(120);
const why = z.string().trim().min(1).max(300);

/** Why a job rests. */
export const HOLDS = ['parts', 'tool', 'machine-shop', 'customer', 'other'] as const;
/** Where a part is. */
export const PART_STATES = ['needed', 'ordered', 'here'] as const;
export const TOOL_STATES = ['here', 'stand-in', 'lent', 'missing'] as const;
/** How it is run in: the main schools, common practice. */
export const RUN_IN_SCHOOLS = ['heat-cycles', 'short-trips', 'distance'] as const;

const own = z.strictObject({
  id,
  /** The step that it follows; null: at the start. */
  follows: id.nullable(),
  title: z.string().trim().min(1).max(80),
  does: z.string().trim().max(300),
  minutes: z.int().min(0).max(10_000),
});

const unique = <T extends { readonly id: string }>(schema: z.ZodType<T[]>) =>
  schema.refine((all) => new Set(all.map((one) => one.id)).size === all.length, { message: 'two carry one id' });

/** The work on an axle: what the job is, and what the shop made of the order. */
export const workSchema = z.strictObject({
  job: z.enum(JOBS),
  /** How it is done here where practitioners differ: as the shop does it when the job was begun. */
  schools: z.strictObject({
    depth: z.enum(['gauge-first', 'pattern-first', 'gauge-decides']),
    bearings: z.enum(['set-up', 'press-on']),
    ringGear: z.enum(['heated', 'pulled-on']),
    /** When the sealing rings of a locker go on. */
    lockerRings: z.enum(['after-dry-trial', 'first-fitting']),
  }),
  /** Facts as somebody said them; what is not there follows from the job and the axle. */
  facts: z
    .strictObject({
      arrives: z.enum(ARRIVALS),
      gears: z.enum(GEARS),
      unit: z.enum(UNIT_WORK),
      sideBearings: z.enum(BEARINGS),
      pinionBearings: z.enum(BEARINGS),
      ringOff: z.boolean(),
      pinionOut: z.boolean(),
      depthShim: z.enum(DEPTH_SHIMS),
      ringPlacedBy: z.enum(RING_PLACES),
      box: z.enum(BOXES),
    })
    .partial(),
  skipped: unique(z.array(z.strictObject({ id, why })).max(80)),
  moves: unique(z.array(z.strictObject({ id, step: id, follows: id.nullable(), why })).max(80)),
  own: unique(z.array(own).max(40)),
  hold: z.strictObject({ for: z.enum(HOLDS), why, since: z.iso.date(), until: z.iso.date().nullable() }).nullable(),
  parts: unique(
    z
      .array(
        z.strictObject({
          id,
          name: z.string().trim().min(1).max(80),
          count: z.int().min(0).max(1000),
          state: z.enum(PART_STATES),
          supplier: line,
          price: z.number().min(0).max(1e9).nullable(),
          /** The day that it is promised for. */
          promised: z.iso.date().nullable(),
          /** Part or serial number, as on the box and on the part. */
          number: line,
        }),
      )
      .max(120),
  ),
  tools: unique(
    z
      .array(
        z.strictObject({
          id: z.enum(Object.keys(TOOLS) as [ToolId, ...ToolId[]]),
          state: z.enum(TOOL_STATES),
          /** What stands in for it, or who has it where it is lent. */
          with: line,
          /** Where it is lent: the day that it is back. */
          back: z.iso.date().nullable(),
          /** What it fits, as somebody looked: of the adjuster wrench its pattern. */
          pattern: line,
        }),
      )
      .max(80),
  ),
  /** A complete unit in place of the work: what it costs and in how many days it is here; null where nobody has asked. */
  complete: z.strictObject({
    price: z.number().min(0).max(1e9).nullable(),
    days: z.int().min(0).max(3650).nullable(),
    /** Hours with hands on it that it takes to put in. */
    hours: z.number().min(0).max(1000).nullable(),
  }),
  /** What came off, by part and side: what goes back is counted against it. */
  trays: unique(
    z
      .array(
        z.strictObject({
          id,
          part: z.string().trim().min(1).max(80),
          side: z.enum(['', 'left', 'right']),
          /** Length of bolts, which face looked where. */
          facing: line,
          out: z.int().min(0).max(1000),
          back: z.int().min(0).max(1000),
        }),
      )
      .max(120),
  ),
  /** Whatever was cut or ground. */
  cuts: unique(
    z
      .array(
        z.strictObject({
          id,
          where: z.string().trim().min(1).max(120),
          amount: entrySchema('length', { min: 0, max: 500, unit: 'mm' }).nullable(),
          by: z.string().trim().max(60),
          on: z.iso.date(),
        }),
      )
      .max(40),
  ),
  runIn: z.strictObject({
    school: z.enum(RUN_IN_SCHOOLS),
    /** Oil temperature from which it rests. */
    alarm: entrySchema('temperature', { min: 0, max: 400, unit: '°C' }),
    /** What it is run in for, and after how many races and heat cycles it is looked at again; 0: not by that. */
    distance: entrySchema('distance', { min: 0, max: 1e7, unit: 'm' }),
    races: z.int().min(0).max(200),
    cycles: z.int().min(0).max(50),
    /** The day from which it is looked at again; null: not by a day. */
    on: z.iso.date().nullable(),
  }),
});

export type Work = z.infer<typeof workSchema>;

/** Its part of the document. */
export const planSlice = {
  /** The work on it: order, parts, tools, trays; null while nobody has planned it. */
  axle: { work: workSchema.nullable() },
} as const;

declare module '../frame/document' {
  interface AxleSlices {
    work: Work | null;
  }
}
