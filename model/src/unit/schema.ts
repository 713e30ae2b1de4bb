import { LIMITS } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { plateSchema } from '../pack/schema';
import '../base/zod';
import * as z from 'zod';

export const UNIT_TYPES = [
  'plate',
  'side-gear-thrust',
  'cone',
  'helical',
  'hybrid',
  'friction-insert',
  'selectable-locker',
  'automatic-locker',
  'spool',
  'open',
] as const;

/** The parts of a unit that its type is described by. */
export const UNIT_PARTS = {
  plate: ['plate'],
  'side-gear-thrust': ['plate', 'sideGear'],
  cone: ['cone', 'sideGear'],
  helical: ['helical'],
  hybrid: ['helical'],
  'friction-insert': ['insert'],
  'selectable-locker': [],
  'automatic-locker': [],
  spool: [],
  open: [],
} as const satisfies Record<
  (typeof UNIT_TYPES)[number],
  readonly ('plate' | 'sideGear' | 'cone' | 'helical' | 'insert')[]
>;

const lockTorque = entrySchema('torque', { min: 0, max: 1e5, unit: 'N·m' });
const openAngle = entrySchema('angle', { above: 0, max: 90, unit: '°' });

/** Side gear of a bevel differential: what thrusts it outwards. */
export const sideGearSchema = z.strictObject({
  meanRadius: entrySchema('length', LIMITS.radiusMm),
  pressureAngle: openAngle,
  /** Pitch cone angle Γ. */
  coneAngle: openAngle,
});

export const coneSchema = z.strictObject({
  frictionCoefficient: entrySchema('coefficient', LIMITS.frictionCoefficient),
  meanRadius: entrySchema('length', LIMITS.radiusMm),
  halfAngle: openAngle,
  /** Spring force on each cone. */
  preload: entrySchema('force', LIMITS.forceN),
});

export const helicalSchema = z.strictObject({
  biasRatio: entrySchema('ratio', { min: 1, max: 20 }),
  /** Locking torque at no input, of a spring pack. */
  preload: lockTorque,
  /** Of a hybrid: the input torque from which its plates come in, and what they hold of what is above it. */
  platesFrom: lockTorque,
  platesHold: entrySchema('percent', { min: 0, max: 200, unit: '%' }),
});

/** What a type does not use is kept, and comes back with its type. */
export const unitSchema = z
  .strictObject({
    type: z.enum(UNIT_TYPES),
    plate: plateSchema.nullable(),
    sideGear: sideGearSchema.nullable(),
    cone: coneSchema.nullable(),
    helical: helicalSchema.nullable(),
    insert: z.strictObject({ lock: lockTorque }).nullable(),
    /** Of a selectable locker. */
    engaged: z.boolean(),
  })
  .superRefine((unit, context) => {
    for (const part of UNIT_PARTS[unit.type])
      if (unit[part] === null)
        context.addIssue({ code: 'custom', path: [part], message: `is needed by a unit of type ${unit.type}` });
  });

export type Unit = z.infer<typeof unitSchema>;

/** Its part of the document. */
export const unitSlice = {
  axle: { unit: unitSchema },
} as const;

declare module '../frame/document' {
  interface AxleSlices {
    unit: Unit;
  }
}
