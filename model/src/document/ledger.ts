import type { LedgerEntry } from '../frame/readings';
import type { Subject } from '../frame/subjects';
import { signedFigures } from '../frame/values';
import { subjects } from '../assembly/subjects';
import '../base/zod';
import * as z from 'zod';
import { idSchema } from '../base/fields';

const written = {
  id: idSchema,
  /** Time of the device that wrote it, in UTC. */
  at: z.iso.datetime(),
  /** Who wrote it: a name chosen once a device; empty where nobody has said. */
  who: z.string().trim().max(60),
};
const note = z.string().max(500).optional();
/** What a gauge sent for it. */
const gauge = z
  .strictObject({
    name: z.string().trim().min(1).max(80),
    lines: z.array(z.string().max(2000)).min(1).max(72),
    unit: z.string().trim().min(1).max(20),
    zeroed: z.iso.datetime().nullable(),
    simulated: z.boolean(),
  })
  .optional();

/** Something that was decided: what about, how, and why. */
export const decisionSchema = z.strictObject({
  kind: z.literal('decision'),
  ...written,
  about: z.string().trim().min(1).max(120),
  decided: z.string().trim().min(1).max(300),
  why: z.string().trim().max(500),
});

/** Somebody's name under figures: a gate, a hand-over. */
export const signatureSchema = z.strictObject({
  kind: z.literal('signature'),
  ...written,
  gate: z.string().trim().min(1).max(60),
  name: z.string().trim().min(1).max(60),
  figures: signedFigures,
  note,
});

export const voidSchema = z.strictObject({
  kind: z.literal('void'),
  ...written,
  voids: idSchema,
  reason: z.string().trim().min(1).max(300),
});

const others = z.discriminatedUnion('kind', [decisionSchema, signatureSchema, voidSchema]);

/**
 * The schemas of the ledger for what can be read.
 * @returns `entry`: one entry, a reading checked by the subject that it names; `shape`: the same as one union without
 *   code, for JSON Schema
 */
export function ledgerSchemas(kinds: readonly Subject[]) {
  const readings = kinds.map((subject) =>
    z.strictObject({
      kind: z.literal('reading'),
      ...written,
      subject: subject.schema,
      value: subject.valueSchema,
      state: subject.stateSchema,
      instrument: z.string().trim().min(1).max(60),
      note,
      gauge,
    }),
  );
  const whats = kinds.map(({ what }) => what) as [string, ...string[]];
  const known = z.looseObject({ kind: z.literal('reading'), subject: z.looseObject({ what: z.enum(whats) }) });
  /** The schema that an entry is to be checked by; what it is none of is told by the one that it comes nearest to. */
  const schemaOf = (entry: { kind: string }): z.ZodType => {
    if (entry.kind !== 'reading') return others;
    const reading = known.safeParse(entry);
    return (reading.success && readings[whats.indexOf(reading.data.subject.what)]) || known;
  };
  const entry = z
    .looseObject({ kind: z.enum(['reading', 'decision', 'signature', 'void']) })
    .transform((input, context): LedgerEntry => {
      const parsed = schemaOf(input).safeParse(input, { reportInput: true });
      if (parsed.success) return parsed.data as LedgerEntry;
      for (const issue of parsed.error.issues) context.issues.push(issue as never);
      return z.NEVER;
    });
  return { entry, shape: z.union([...readings, decisionSchema, signatureSchema, voidSchema]) };
}

const own = ledgerSchemas(subjects);
/** One entry of the ledger. */
export const ledgerEntrySchema = own.entry;
export const ledgerEntryShape = own.shape;
