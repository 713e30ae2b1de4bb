import {
  InputError,
  LIMITS,
  MESH_LIMITS,
  entryBase,
  entryOf,
  fromBase,
  type Entry,
  type NumberRange,
  type Quantity,
  type Scale,
} from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { idSchema, photoId } from '../base/fields';
import '../base/zod';
import * as z from 'zod';

/** Which of several readings of one thing counts; all of them are kept. */
export const COUNTS = ['one', 'least', 'mean'] as const;

/** Most readings of one thing in one entry. */
export const MOST_READINGS = 12;

const share = z.number().min(-1).max(1);

/** The contact pattern on one flank, as it was seen: position from toe (−1) to heel, root (−1) to face, and extent. */
export const flankPatternSchema = z.strictObject({
  u: share,
  v: share,
  /** Share of the tooth's length and height that it covers. */
  length: z.number().gt(0).max(1),
  height: z.number().gt(0).max(1),
  /** Turned against the tooth, degrees. */
  turnedDeg: z.number().min(-90).max(90).default(0),
  edges: z
    .array(z.enum(['toe', 'heel', 'root', 'face']))
    .max(4)
    .default([]),
  shape: z.enum(['one', 'two-patches', 'crossed', 'faint']).default('one'),
});

const shims = z.array(entrySchema('length', MESH_LIMITS.shimMm)).max(8);

/** What an axle was put together with: pieces of each pack, and adjusters by the notches that they are in from the first time. */
export const assemblySchema = z.strictObject({
  pinion: shims,
  left: shims,
  right: shims,
  leftNotches: z.int().min(-1000).max(1000),
  rightNotches: z.int().min(-1000).max(1000),
  /** Drawers of the library that pieces were taken out of; a piece that none of them holds came from elsewhere. */
  drawers: z.array(idSchema).max(24).optional(),
});

interface Measured {
  readonly quantity: Quantity;
  /** At which size the quantity is met here: what a bare number means, how it is shown. */
  readonly scale?: Scale;
  /** What is possible at all, in the base unit; anything else is refused. */
  readonly range: NumberRange;
  /** What it usually is, in the base unit; a reading far outside asks once before it is written. */
  readonly plausible: readonly [number, number];
}

/** What a reading of a subject consists of. */
export type ValueKind =
  | ({ readonly of: 'number'; readonly counts: (typeof COUNTS)[number] } & Measured)
  | ({ readonly of: 'places'; readonly from: number; readonly to: number } & Measured)
  | { readonly of: 'pattern' }
  | { readonly of: 'assembly' }
  | { readonly of: 'choice'; readonly choices: readonly string[] }
  | { readonly of: 'signature' }
  | { readonly of: 'photos' }
  | { readonly of: 'text' }
  | { readonly of: 'ticks' };

/** The value of a reading, as it is kept. */
export type ReadingValue =
  | { of: 'number'; counts: (typeof COUNTS)[number]; entries: Entry[] }
  | { of: 'places'; entries: Entry[] }
  | { of: 'pattern'; drive: z.output<typeof flankPatternSchema>; coast: z.output<typeof flankPatternSchema> }
  | ({ of: 'assembly' } & z.output<typeof assemblySchema>)
  | { of: 'choice'; choice: string }
  | { of: 'signature'; name: string; figures: Record<string, number> }
  | { of: 'photos'; photos: string[] }
  | { of: 'text'; text: string }
  | { of: 'ticks'; ticks: string[] };

/** Figures that a signature stands for, by their ids. */
export const signedFigures = z.record(z.string().min(1).max(120), z.number());

/** The schema of one kind of value. */
export function valueSchema(kind: ValueKind): z.ZodType<ReadingValue> {
  switch (kind.of) {
    case 'number': {
      const entries = z.array(entrySchema(kind.quantity, kind.range)).min(1);
      return z.strictObject({
        of: z.literal('number'),
        counts: z.literal(kind.counts),
        entries: entries.max(kind.counts === 'one' ? 1 : MOST_READINGS),
      });
    }
    case 'places':
      return z.strictObject({
        of: z.literal('places'),
        entries: z.array(entrySchema(kind.quantity, kind.range)).min(kind.from).max(kind.to),
      });
    case 'pattern':
      return z.strictObject({ of: z.literal('pattern'), drive: flankPatternSchema, coast: flankPatternSchema });
    case 'assembly':
      return assemblySchema.extend({ of: z.literal('assembly') });
    case 'choice':
      return z.strictObject({ of: z.literal('choice'), choice: z.enum(kind.choices as [string, ...string[]]) });
    case 'signature':
      return z.strictObject({
        of: z.literal('signature'),
        name: z.string().trim().min(1).max(60),
        figures: signedFigures,
      });
    case 'text':
      return z.strictObject({ of: z.literal('text'), text: z.string().trim().min(1).max(300) });
    case 'ticks':
      // What has been ticked off, by its number or name: each once.
      return z.strictObject({
        of: z.literal('ticks'),
        ticks: z
          .array(z.string().trim().min(1).max(40))
          .max(80)
          .refine((all) => new Set(all).size === all.length, { message: 'one is ticked twice' }),
      });
    case 'photos':
      return z.strictObject({ of: z.literal('photos'), photos: z.array(photoId).min(1).max(LIMITS.packMembers.max) });
  }
}

/**
 * The entry that counts among those of a number: the only one, the least, or their mean in the unit of the first.
 * @throws InputError on `value` where the reading is no number
 */
export function countedEntry(value: ReadingValue): Entry {
  if (value.of !== 'number') throw new InputError('value', `value is a ${value.of}, not a number.`, 'a number');
  const [first] = value.entries;
  if (!first) throw new InputError('value', 'value holds no reading.', 'at least one');
  if (value.counts === 'mean' && value.entries.length > 1) {
    const mean = value.entries.reduce((sum, entry) => sum + entryBase(entry), 0) / value.entries.length;
    return entryOf(fromBase(mean, first.unit), first.unit);
  }
  return value.entries.reduce((least, entry) => (entryBase(entry) < entryBase(least) ? entry : least), first);
}

/** One number as the value of a reading. */
export const numberValue = (entry: Entry, counts: (typeof COUNTS)[number] = 'one'): ReadingValue => ({
  of: 'number',
  counts,
  entries: [entry],
});
