import { CRUSH_STARTS, LIMITS, MESH_LIMITS, type NumberRange } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { id, idSchema } from '../base/fields';
import { SIDES } from '../base/names';
import '../base/zod';
import * as z from 'zod';

/** What a reading is taken in; the last of each is what it is when the axle is closed for good. */
export const TRIAL = {
  pinionBearings: ['set-up', 'used', 'new'],
  spacer: ['none', 'old', 'new'],
  seal: ['out', 'in'],
  nut: ['old', 'new'],
  sideBearings: ['set-up', 'used', 'new'],
  caps: ['off', 'snug', 'torqued'],
  sidePreload: ['none', 'part', 'full'],
  oil: ['dry', 'oiled'],
  drag: ['light', 'braked'],
} as const;
export type TrialKey = keyof typeof TRIAL;
export const TRIAL_KEYS = Object.keys(TRIAL) as TrialKey[];

/** State of a trial: every reading of a set-up carries it. */
export const trialSchema = z.strictObject({
  pinionBearings: z.enum(TRIAL.pinionBearings),
  spacer: z.enum(TRIAL.spacer),
  seal: z.enum(TRIAL.seal),
  nut: z.enum(TRIAL.nut),
  sideBearings: z.enum(TRIAL.sideBearings),
  caps: z.enum(TRIAL.caps),
  sidePreload: z.enum(TRIAL.sidePreload),
  oil: z.enum(TRIAL.oil),
  drag: z.enum(TRIAL.drag),
});
export type Trial = z.infer<typeof trialSchema>;

export const DEPTHWARDS = ['deeper', 'shallower'] as const;

const shim = entrySchema('length', MESH_LIMITS.shimMm).nullable();
const mark = entrySchema('length', MESH_LIMITS.markMm).nullable();
const height = entrySchema('length', MESH_LIMITS.heightMm).nullable();
const length = entrySchema('length', MESH_LIMITS.lengthMm);

/** Where pinion depth comes from, school by school; null what nobody has said. */
const depthSchema = z.strictObject({
  oldMark: mark,
  newMark: mark,
  oldHeight: height,
  newHeight: height,
  /** A signed chain of lengths that adds up to the shim. */
  chain: z
    .array(z.strictObject({ name: z.string().trim().min(1).max(40), length, sign: z.enum(['plus', 'minus']) }))
    .max(20),
  /** Depth of the cap from its parting face. */
  capDepth: entrySchema('length', { min: 0, max: LIMITS.diameterMm.max, unit: 'mm' }).nullable(),
  /** From the parting face to the pinion head, with `headShim` in. */
  headReading: entrySchema('length', { above: 0, max: 1000, unit: 'mm' }).nullable(),
  headShim: shim,
  chart: shim,
  experience: shim,
  /** How much taller the set-up bearing at the head is than the final one; negative: lower. */
  setUpTaller: mark,
});

/** A carrier that goes in for another one with the same gears: outer race to ring flange on both, each side. */
const carryOverSchema = z.strictObject({
  oldLeft: height,
  oldRight: height,
  newLeft: height,
  newRight: height,
  /** Laid between race and calliper where a bearing stands proud of its race; it is taken off again. */
  oldMaster: shim,
  newMaster: shim,
});

/** What something is read with, and how good that is; the name may be empty where only the ± is known. */
const gauge = (quantity: 'length' | 'torque', range: NumberRange) =>
  z.strictObject({ name: z.string().trim().max(80), plusMinus: entrySchema(quantity, range) }).nullable();

/** Parts of the pinion-shaft stack, from the head outwards. */
export const STACK_PARTS = [
  'head-shim',
  'baffle',
  'head-bearing',
  'spacer',
  'preload-shim',
  'tail-bearing',
  'slinger',
  'seal',
  'washer',
  'flange',
  'nut',
] as const;

const stackPartSchema = z.strictObject({
  id,
  part: z.enum(STACK_PARTS),
  /** As it came out and as it goes in; null: not there. */
  was: entrySchema('length', MESH_LIMITS.heightMm).nullable(),
  is: entrySchema('length', MESH_LIMITS.heightMm).nullable(),
  /** Whether its thickness moves the pinion. */
  setsDepth: z.boolean(),
  /** Which face looks at the pinion head; free words. */
  faces: z.string().trim().max(60),
});

/** How an axle is set up: what is fixed for the job, and the state that it is in now. */
export const setupSchema = z.strictObject({
  gears: z.enum(['new', 'used']),
  /** The side that the back of the ring looks at. */
  ringSide: z.enum(SIDES),
  /** Spiral of the pinion, and how it turns seen at its flange, driving forwards. */
  pinionSpiral: z.enum(SIDES),
  pinionTurns: z.enum(['clockwise', 'anticlockwise']),
  /** What adding to the pinion shim does, and a taller head bearing; null: as the construction says. */
  shimMoves: z.enum(DEPTHWARDS).nullable(),
  bearingMoves: z.enum(DEPTHWARDS).nullable(),
  sideShims: z.enum(['behind-cup', 'under-flange']),
  spacer: z.enum(['collapsible', 'solid']),
  /** How a collapsible spacer begins to give. */
  crush: z.enum(CRUSH_STARTS),
  preloadAim: z.enum(['middle', 'top', 'heavy']),
  backlashAim: z.enum(['middle', 'one-high', 'as-worn']),
  /** Places round the ring at which backlash is read. */
  places: z.int().min(4).max(12),
  /** What backlash and turning torque are read with; null: nobody has said. */
  gauges: z.strictObject({
    backlash: gauge('length', { above: 0, max: 10, unit: 'mm' }),
    turning: gauge('torque', { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' }),
  }),
  /** Drawer of the library that pieces come from; null: any that is for the seat. */
  drawers: z.strictObject({ pinion: idSchema.nullable(), sides: idSchema.nullable() }),
  state: trialSchema,
  depth: depthSchema,
  carryOver: carryOverSchema,
  stack: z
    .array(stackPartSchema)
    .max(20)
    .refine((parts) => new Set(parts.map((part) => part.id)).size === parts.length, {
      message: 'two parts carry one id',
    }),
  /** How caps and bearings are marked, and where. */
  capMarks: z.string().trim().max(200),
});
export type Setup = z.infer<typeof setupSchema>;
export type StackPart = z.infer<typeof stackPartSchema>;

/** Its part of the document. */
export const meshSlice = {
  /** How it is set up; null while nobody has begun. */
  axle: { setup: setupSchema.nullable() },
} as const;

declare module '../frame/document' {
  interface AxleSlices {
    setup: Setup | null;
  }
}
