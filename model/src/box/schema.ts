import { boxInsideSchema, type BoxInside } from '../library/box';

/** Its part of the document. */
export const boxSlice = {
  /** What is inside the gearbox of this build; null while nobody has said. */
  build: { box: boxInsideSchema.nullable() },
} as const;

declare module '../frame/document' {
  interface BuildSlices {
    box: BoxInside | null;
  }
}
