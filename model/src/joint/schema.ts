import { EXPANSION, JOINT_LIMITS, LIMITS, type JointMaterial } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { ORIGINS } from '../library/origins';
import '../base/zod';
import * as z from 'zod';

/** How a bolt is finished and treated, with its nut factor [std: Shigley, from memory]. */
export const FINISHES = {
  plated: { label: 'Zinc-plated, or not known', nutFactor: 0.2 },
  lubricated: { label: 'Oiled or threadlocked', nutFactor: 0.18 },
  dry: { label: 'Black and dry', nutFactor: 0.3 },
} as const;
export type Finish = keyof typeof FINISHES;
export const FINISH_KEYS = Object.keys(FINISHES) as [Finish, ...Finish[]];

const length = entrySchema('length', JOINT_LIMITS.lengthMm);
const friction = entrySchema('coefficient', JOINT_LIMITS.friction);
const torque = entrySchema('torque', { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' });

/** The bolted joint of the ring: null what nobody has measured. Thread, count and hand are of the axle. */
export const jointSchema = z.strictObject({
  /** Property class or grade, as on the head. */
  grade: z.string().trim().max(10),
  finish: z.enum(FINISH_KEYS),
  threadlocker: z.enum(['none', 'medium', 'high']),
  headLubricant: z.enum(['none', 'oil', 'paste']),
  /** Locked by tabs bent or spotted into the case as well. */
  tabs: z.boolean(),
  /** Hardness of the case, HRC; null where nobody has noted it. */
  caseHardness: z.number().min(0).max(70).nullable(),
  /** Null: not known; the clamp is then told by the finish alone. */
  threadFriction: friction.nullable(),
  headFriction: friction.nullable(),
  /** Over the bearing face of head or washer. */
  headOuter: length.nullable(),
  underHead: length.nullable(),
  shank: length.nullable(),
  flange: length.nullable(),
  washer: length,
  holeDepth: length.nullable(),
  threadDepth: length.nullable(),
  boltCircle: entrySchema('length', LIMITS.diameterMm).nullable(),
  /** Between ring and carrier, dry steel on steel. */
  faceFriction: friction,
  /** Final torque; where it was read. Empty: the sheet of the axle. */
  torque: z.strictObject({ value: torque, origin: z.enum(ORIGINS), where: z.string().trim().max(120) }).nullable(),
  /** Shares of the final torque in which it is drawn up, percent; the last is 100. */
  stages: z.array(z.int().min(1).max(100)).min(1).max(5),
  fit: z
    .strictObject({
      diameter: entrySchema('length', LIMITS.diameterMm),
      interference: entrySchema('length', JOINT_LIMITS.interferenceMm),
      slide: entrySchema('length', JOINT_LIMITS.interferenceMm),
      start: entrySchema('temperature', JOINT_LIMITS.celsius),
      material: z.enum(Object.keys(EXPANSION) as [JointMaterial, ...JointMaterial[]]),
      /** Most heat that the ring's sheet allows; null where it says nothing. */
      limit: entrySchema('temperature', JOINT_LIMITS.celsius).nullable(),
    })
    .nullable(),
});

export type Joint = z.infer<typeof jointSchema>;

/** Its part of the document. */
export const jointSlice = {
  /** The bolted joint of its ring; null while nobody has said. */
  axle: { joint: jointSchema.nullable() },
} as const;

declare module '../frame/document' {
  interface AxleSlices {
    joint: Joint | null;
  }
}
