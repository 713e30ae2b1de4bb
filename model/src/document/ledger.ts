import { subjects } from '../capabilities';
import type { LedgerEntry, Reading } from '../engine/readings';
import { signedFigures } from '../engine/values';
import '../zod';
import * as z from 'zod';

export const idSchema = z.uuid();
const written = {
  id: idSchema,
  /** Time of the device that wrote it, in UTC. */
  at: z.iso.datetime(),
  /** Who wrote it: a name chosen once a device; empty where nobody has said. */
  who: z.string().trim().max(60),
};
const note = z.string().max(500).optional();

/** One schema a subject: the value and the state belong to it. */
const readings = subjects.map((subject) =>
  z.strictObject({
    kind: z.literal('reading'),
    ...written,
    subject: subject.schema,
    value: subject.valueSchema,
    state: subject.stateSchema,
    instrument: z.string().trim().min(1).max(60),
    note,
  }),
);
const byWhat = new Map(subjects.map((subject, i) => [subject.what, readings[i]]));

const knownSubject = z.looseObject({ what: z.enum(subjects.map(({ what }) => what) as [string, ...string[]]) });

/** A reading, checked by the subject that it names. */
export const readingSchema = z
  .looseObject({ kind: z.literal('reading'), subject: knownSubject })
  .transform((reading, context): Reading => {
    const schema = byWhat.get(reading.subject.what);
    const parsed = schema?.safeParse(reading, { reportInput: true });
    if (parsed?.success) return parsed.data as Reading;
    for (const issue of parsed?.error.issues ?? []) context.issues.push(issue as never);
    return z.NEVER;
  });

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

const KINDS = ['reading', 'decision', 'signature', 'void'] as const;
const others = z.discriminatedUnion('kind', [decisionSchema, signatureSchema, voidSchema]);

/** One entry of the ledger. */
export const ledgerEntrySchema = z.looseObject({ kind: z.enum(KINDS) }).transform((entry, context): LedgerEntry => {
  const schema = entry.kind === 'reading' ? readingSchema : others;
  const parsed = schema.safeParse(entry, { reportInput: true });
  if (parsed.success) return parsed.data;
  for (const issue of parsed.error.issues) context.issues.push(issue as never);
  return z.NEVER;
});

/** The same as one union without code, for JSON Schema. */
export const ledgerEntryShape = z.union([...readings, decisionSchema, signatureSchema, voidSchema]);
