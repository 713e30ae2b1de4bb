import { HOLDS, LIMITS, PRELOAD_ACTS, RAMP_FRICTION, entryBase } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { angle, diameter, id, percent, photoId, thickness } from '../base/fields';
import { takenFromSchema } from '../library/origins';
import '../base/zod';
import * as z from 'zod';

export const ACTIONS = ['two-way', 'one-and-a-half-way', 'one-way'] as const;

export const COLOURS = ['clean', 'straw', 'blue', 'black'] as const;
export const DAMAGE = ['bent ears', 'scored', 'pitted', 'cracked', 'warped', 'lining glazed', 'lining gone'] as const;

/** What was seen on a piece when it was looked at. */
export const conditionSchema = z.strictObject({
  /** Heat colour. */
  colour: z.enum(COLOURS).nullable(),
  damage: z.array(z.enum(DAMAGE)).max(DAMAGE.length),
  note: z.string().max(500),
  photos: z.array(photoId).max(12),
});

const piece = { id, label: z.string().max(60), thickness, condition: conditionSchema.nullable() };
const plate = { ...piece, lined: z.boolean() };

/** `thickness` is the new one of the catalogue; of a coil or S-spring pack it is the free height. */
export const memberSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...plate, kind: z.literal('eared') }),
  z.strictObject({ ...plate, kind: z.literal('splined') }),
  z.strictObject({ ...piece, kind: z.literal('shim') }),
  /** Pressure ring: what the ramps push on. */
  z.strictObject({ ...piece, kind: z.literal('ring') }),
  z.strictObject({
    ...piece,
    kind: z.literal('spring'),
    outerDiameter: diameter,
    innerDiameter: diameter,
    coneHeight: thickness,
    /** Which way the hollow side faces: in towards the side gear or out to the case wall. */
    hollow: z.enum(['in', 'out']),
  }),
  /** An eared plate that is waved: springs while the pack closes. */
  z.strictObject({
    ...plate,
    kind: z.literal('wave'),
    waveHeight: thickness,
    /** Measured: what presses it flat. */
    flatForce: entrySchema('force', { above: 0, max: LIMITS.forceN.max, unit: 'N' }),
  }),
  z.strictObject({
    ...piece,
    kind: z.literal('coils'),
    count: z.int().min(1).max(24),
    /** Of one coil. */
    rate: entrySchema('stiffness', { above: 0, max: 1e5, unit: 'N/mm' }),
    solidHeight: thickness,
    /** It stands in the gap between the side gears and presses both packs. */
    shared: z.boolean(),
  }),
  z.strictObject({
    ...piece,
    kind: z.literal('s-spring'),
    /** Measured: force at heights, the lowest last. */
    points: z
      .array(
        z.strictObject({
          height: thickness,
          force: entrySchema('force', { above: 0, max: LIMITS.forceN.max, unit: 'N' }),
        }),
      )
      .min(1)
      .max(12),
    shared: z.boolean(),
  }),
]);

/** Members that give way: they are not in the stack height, and share the room that is left. */
export const SPRING_KINDS = ['spring', 'wave', 'coils', 's-spring'] as const;

/** The faces at the ends of a pack: the side gear's back and the case wall. */
const face = z.strictObject({ lined: z.boolean(), condition: conditionSchema.nullable() });

export const packSchema = z.strictObject({
  /** Room from the side gear's back face to the case wall. */
  caseDepth: thickness,
  gearFace: face,
  caseWall: face,
  /** Outwards from the side gear. */
  members: z
    .array(memberSchema)
    .max(LIMITS.packMembers.max)
    .refine((members) => new Set(members.map((m) => m.id)).size === members.length, {
      message: 'two members carry one id',
    }),
});

const offer = z.strictObject({
  price: z.number().min(0).max(1e7),
  leadDays: z.int().min(0).max(3650),
});
const day = z.iso.date();
const backlash = entrySchema('length', { min: 0, max: 5, unit: 'mm' });

export const plateSchema = z
  .strictObject({
    action: z.enum(ACTIONS),
    rampFrom: z.enum(['rotation-plane', 'axis']),
    driveRamp: angle,
    /** In force for a one-and-a-half-way unit; kept for the others. */
    overrunRamp: angle,
    pinRadius: entrySchema('length', LIMITS.radiusMm),
    /** Static: what the torque wrench breaks away. */
    frictionCoefficient: entrySchema('coefficient', LIMITS.frictionCoefficient),
    /** While it slips: what locks in running; null while nobody has measured it, and then taken as the static one. */
    slidingCoefficient: entrySchema('coefficient', LIMITS.frictionCoefficient).nullable(),
    /** The coefficients are of plates that are bedded in: they are not multiplied by `bedding` again. */
    frictionBedded: z.boolean(),
    /** Friction coefficient of the pins on their ramps. */
    rampFriction: entrySchema('coefficient', RAMP_FRICTION),
    /** What the friction plates are and the oil they run in: what the shop's table of friction is kept by. */
    frictionPlates: z.string().trim().max(60),
    /** Where the coefficient was taken from, as long as none was typed over. */
    frictionFrom: takenFromSchema,
    oil: z.string().trim().max(60),
    /** ± of the coefficient in percent of it; null while nobody has measured it. */
    frictionSpread: entrySchema('percent', { min: 0, max: 100, unit: '%' }).nullable(),
    /** What is left of the breakaway when the plates are bedded in. */
    bedding: entrySchema('percent', { min: 40, max: 120, unit: '%' }),
    /** What the torque wrench on a wheel should read, and how it is held. */
    wanted: z
      .strictObject({
        hold: z.enum(HOLDS),
        low: entrySchema('torque', { above: 0, max: 1e5, unit: 'N·m' }),
        high: entrySchema('torque', { above: 0, max: 1e5, unit: 'N·m' }),
      })
      .refine(({ low, high }) => entryBase(high) > entryBase(low), { path: ['high'], message: 'must be above low' })
      .nullable(),
    frictionOuterDiameter: diameter,
    frictionInnerDiameter: diameter,
    wearModel: z.enum(['uniform-wear', 'uniform-pressure']),
    preload: z.discriminatedUnion('from', [
      z.strictObject({ from: z.literal('dished-springs') }),
      z.strictObject({
        from: z.literal('measured-force'),
        force: entrySchema('force', LIMITS.forceN),
        /** Whether the clamp passes through the spring or the spring pushes along with the thrust. */
        acts: z.enum(PRELOAD_ACTS),
      }),
    ]),
    /** Gap between the side gears that a spring between them stands in; null while it has not been measured. */
    gearGap: thickness.nullable(),
    /** How far the load of the springs may lie below and above what is computed. */
    springLoad: z.strictObject({ minus: percent(0, 90), plus: percent(0, 90) }),
    targetHeight: thickness,
    tolerance: thickness,
    /** Between side gear and spider gears, by the maker's sheet; null while it has not been read. */
    sideGearBacklash: z
      .strictObject({ low: backlash, high: backlash })
      .refine(({ low, high }) => entryBase(high) > entryBase(low), { path: ['high'], message: 'must be above low' })
      .nullable(),
    /** What may wear off a friction plate; null while the maker's sheet has not been read. */
    wearLimit: entrySchema('length', { above: 0, max: 10, unit: 'mm' }).nullable(),
    /** Overhaul or replace: what each costs and how long it takes; null while nobody has asked. */
    offers: z.strictObject({ overhaul: offer.nullable(), replace: offer.nullable() }),
    /** Days until the car is needed; null where nobody waits. */
    neededInDays: z.int().min(0).max(3650).nullable(),
    /** When it is to be looked at again. */
    recheck: z.strictObject({ on: day, why: z.string().trim().max(120) }).nullable(),
    packs: z.strictObject({ left: packSchema, right: packSchema }),
  })
  .refine((plate) => entryBase(plate.frictionInnerDiameter) < entryBase(plate.frictionOuterDiameter), {
    path: ['frictionInnerDiameter'],
    message: 'must be below the outer diameter',
  });

export type PlateSpec = z.infer<typeof plateSchema>;
export type Pack = z.infer<typeof packSchema>;
export type Condition = z.infer<typeof conditionSchema>;
export type Member = z.infer<typeof memberSchema>;
