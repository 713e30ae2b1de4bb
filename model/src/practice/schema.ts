import '../base/zod';
import * as z from 'zod';

/** A build for practice: its axle is made up, its truth hidden behind a lesson or a seed. */
export const practiceSchema = z.strictObject({
  /** One of the set lessons; null: a random axle by its seed. */
  lesson: z.string().max(40).nullable(),
  seed: z.int().min(0).max(4_294_967_295),
});
export type Practice = z.infer<typeof practiceSchema>;

/** Its part of the document. */
export const practiceSlice = {
  /** A made-up axle to practise on; null for a build of somebody's. */
  build: { practice: practiceSchema.nullable() },
} as const;

declare module '../frame/document' {
  interface BuildSlices {
    practice: Practice | null;
  }
}
