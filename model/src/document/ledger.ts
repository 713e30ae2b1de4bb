import { HOLDS, LIMITS } from '@hot-spline/core';
import { AXLES, SIDES } from './schema';
import { entrySchema } from './entry-schema';
import { z } from '../zod';

export const idSchema = z.uuid();
const at = z.iso.datetime();

/** What was measured. A breakaway carries how the axle was held: there is no reading without it. */
export const subjectSchema = z.discriminatedUnion('what', [
  z.strictObject({
    what: z.literal('thickness'),
    axle: z.enum(AXLES),
    side: z.enum(SIDES),
    memberId: z.string().min(1).max(64),
  }),
  z.strictObject({
    what: z.literal('stack-height'),
    axle: z.enum(AXLES),
    side: z.enum(SIDES),
    /** The pieces that were in the stack: the reading holds for no other stack. */
    memberIds: z.array(z.string().min(1).max(64)).min(1).max(LIMITS.packMembers.max),
  }),
  z.strictObject({ what: z.literal('case-depth'), axle: z.enum(AXLES), side: z.enum(SIDES) }),
  /** Between side gear and spider gears, felt at the side gear. */
  z.strictObject({ what: z.literal('side-gear-backlash'), axle: z.enum(AXLES), side: z.enum(SIDES) }),
  /** Of a friction insert between the side gears: what is left free. */
  z.strictObject({ what: z.literal('insert-fit'), axle: z.enum(AXLES) }),
  z.strictObject({ what: z.literal('breakaway'), axle: z.enum(AXLES), hold: z.enum(HOLDS) }),
]);

const lengthValue = entrySchema('length', LIMITS.thicknessMm);
const torqueValue = entrySchema('torque', { above: 0, max: 1e5, unit: 'N·m' });

export const readingSchema = z
  .strictObject({
    kind: z.literal('reading'),
    id: idSchema,
    at,
    subject: subjectSchema,
    value: z.unknown(),
    instrument: z.string().trim().min(1).max(60),
    note: z.string().max(500).optional(),
  })
  .transform((reading, context) => {
    const schema = reading.subject.what === 'breakaway' ? torqueValue : lengthValue;
    const parsed = schema.safeParse(reading.value);
    if (!parsed.success) {
      for (const issue of parsed.error.issues) {
        context.addIssue({ code: 'custom', path: ['value', ...issue.path], message: issue.message });
      }
      return z.NEVER;
    }
    return { ...reading, value: parsed.data };
  });

export const voidSchema = z.strictObject({
  kind: z.literal('void'),
  id: idSchema,
  at,
  voids: idSchema,
  reason: z.string().trim().min(1).max(300),
});

export const ledgerEntrySchema = z.discriminatedUnion('kind', [readingSchema, voidSchema]);

export type Subject = z.infer<typeof subjectSchema>;
export type Reading = z.infer<typeof readingSchema>;
export type VoidEntry = z.infer<typeof voidSchema>;
export type LedgerEntry = z.infer<typeof ledgerEntrySchema>;
