import { BOX_LIMITS } from '@hot-spline/core/page';
import { id } from '../base/fields';
import '../base/zod';
import * as z from 'zod';
import { boxInsideSchema, type BoxInside } from '../library/box';

const boxWorkSchema = z.strictObject({
  /** How often it has been opened, from 1 on: what was ticked off belongs to its round. */
  round: z.int().min(1).max(9999),
  /** Pieces in hand, where only a part of the stack is; null: all of it. */
  pieces: z
    .array(id)
    .max(2 * BOX_LIMITS.pieces.max)
    .nullable(),
});
export type BoxWork = z.infer<typeof boxWorkSchema>;

/** Its part of the document. */
export const boxSlice = {
  build: {
    /** What is inside the gearbox of this build; null while nobody has said. */
    box: boxInsideSchema.nullable(),
    /** The round of opening that is in hand; null: the first one, all of it. */
    boxWork: boxWorkSchema.nullable(),
  },
} as const;

declare module '../frame/document' {
  interface BuildSlices {
    box: BoxInside | null;
    boxWork: BoxWork | null;
  }
}
