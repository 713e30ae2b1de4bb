import {
  CONSTRUCTIONS,
  LIMITS,
  MESH_LIMITS,
  BRAKES,
  OUTER_SEALS,
  RETENTIONS,
  SPREADS,
  WHEEL_BEARINGS,
  SHIM_LIMITS,
  entryBase,
  type MeshConstruction,
  type NumberRange,
} from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { name } from '../base/fields';
import { FORMAT_VERSION } from '../base/version';
import '../base/zod';
import * as z from 'zod';
import { ORIGINS } from './origins';
import { schoolsSchema } from './schools';
import { boxInsideSchema } from './box';
import { adjusterSequenceSchema } from './adjuster-sequence';
import { sheetSchema } from './sheet';

const torque = entrySchema('torque', { above: 0, max: 1e6, unit: 'N·m' });

export { ORIGINS, ORIGIN_WORDS, leastOf, originOf, takenFromSchema, type Origin, type TakenFrom } from './origins';
const origin = z.enum(ORIGINS);

const sourced = <S extends z.ZodType>(value: S) => z.strictObject({ value, origin });

const price = z.number().min(0).max(1e9);
const leadDays = z.int().min(0).max(3650);
const bought = z.strictObject({ price: price.nullable(), leadDays: leadDays.nullable() });

export const carrierSchema = z
  .strictObject({
    name: z.string().trim().min(1).max(40),
    fromRatio: z.number().gt(0).max(LIMITS.ratio.max),
    toRatio: z.number().gt(0).max(LIMITS.ratio.max),
    price: price.nullable(),
    leadDays: leadDays.nullable(),
    origin,
  })
  .refine(({ fromRatio, toRatio }) => toRatio >= fromRatio, {
    path: ['toRatio'],
    message: 'must be at least fromRatio',
  });

export const gearSetSchema = z
  .strictObject({
    ring: z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max),
    pinion: z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max),
    /** Torque that the ring gear stands. */
    torqueLimit: torque.nullable(),
    price: price.nullable(),
    leadDays: leadDays.nullable(),
    /** The ring comes welded to its carrier: a change of ratio takes the carrier with it. */
    welded: z.boolean(),
    origin,
  })
  .refine(({ ring, pinion }) => ring >= pinion, {
    path: ['ring'],
    message: 'must have at least as many teeth as the pinion',
  });

/** An axle as the builder knows it: what fits it and how it comes apart. */
export const axleSpecSchema = z.strictObject({
  kind: z.literal('axle'),
  name,
  construction: sourced(z.enum(CONSTRUCTIONS)),
  ringDiameter: sourced(entrySchema('length', LIMITS.diameterMm)).nullable(),
  ringBolts: sourced(
    z.strictObject({
      thread: z.string().trim().min(1).max(20),
      count: z.int().min(4).max(40),
      hand: z.enum(['right', 'left']),
    }),
  ).nullable(),
  pinionSplines: sourced(z.int().min(4).max(80)).nullable(),
  shaftSplines: sourced(z.int().min(4).max(80)).nullable(),
  /** What holds its shafts. */
  retention: sourced(z.enum(RETENTIONS)).nullable(),
  /** What is at the ends of it. */
  brake: sourced(z.enum(BRAKES)).nullable(),
  wheelBearing: sourced(z.enum(WHEEL_BEARINGS)).nullable(),
  outerSeal: sourced(z.enum(OUTER_SEALS)).nullable(),
  /** What opens its case for a carrier under preload. */
  spread: sourced(z.enum(SPREADS)).nullable(),
  carriers: z.array(carrierSchema).max(6),
  /** What a change of ratio buys beside the set; null while nobody has asked. */
  extras: z.strictObject({ ringBolts: bought.nullable(), recalibration: bought.nullable() }),
  sets: z.array(gearSetSchema).max(60),
  /** Set-up values, torques and fluids, each with where it was read. */
  sheet: sheetSchema,
  /** How its adjusters are run up, by its sheet. */
  adjusterSequence: adjusterSequenceSchema,
});

export const gearboxSpecSchema = z.strictObject({
  kind: z.literal('gearbox'),
  name,
  box: sourced(z.enum(['synchro', 'dog', 'sequential', 'automatic', 'fixed'])),
  torqueLimit: sourced(torque).nullable(),
  gears: z
    .array(
      z.strictObject({ name: z.string().trim().min(1).max(12), ratio: entrySchema('ratio', LIMITS.ratio), origin }),
    )
    .min(1)
    .max(12),
  /** What is inside it, made once; null while nobody has. */
  inside: boxInsideSchema.nullable(),
});

/** What a drawer is for: a shim belongs to a seat, with its bore and outside diameter. */
export const SEATS = ['pack', 'pinion-head', 'support', 'carrier', 'preload', 'spacer', 'box'] as const;
export type Seat = (typeof SEATS)[number];

/** A drawer: every thickness that exists, and how many of it the shop owns, fitted or not. Spacers by their free length. */
export const shimBoxSchema = z.strictObject({
  kind: z.literal('shims'),
  name,
  seat: z.enum(SEATS),
  /** Bore and outside diameter of the pieces; null where nobody has measured them. */
  bore: entrySchema('length', LIMITS.diameterMm).nullable(),
  outside: entrySchema('length', LIMITS.diameterMm).nullable(),
  pieces: z
    .array(
      z.strictObject({
        thickness: entrySchema('length', SHIM_LIMITS.thicknessMm),
        count: z.int().min(SHIM_LIMITS.count.min).max(SHIM_LIMITS.count.max),
        origin,
      }),
    )
    .max(SHIM_LIMITS.stock.max),
});

/** What one kind of plate in one oil was measured to hold: the shop's own table of friction. */
export const frictionTableSchema = z.strictObject({
  kind: z.literal('friction'),
  /** The plates. */
  name,
  oil: z.string().trim().max(60),
  readings: z
    .array(
      z.strictObject({
        coefficient: entrySchema('coefficient', LIMITS.frictionCoefficient),
        /** Breaking away or slipping. */
        kind: z.enum(['static', 'sliding']),
        /** Whether the plates were bedded in. */
        bedded: z.boolean(),
        /** The build that it was measured on. */
        from: z.string().trim().min(1).max(80),
        on: z.iso.date(),
        origin,
      }),
    )
    .max(500),
});

/** Reach, step and ± of a scale. */
const scale = (quantity: 'length' | 'torque', most: NumberRange) => ({
  from: entrySchema(quantity, { ...most, min: 0 }),
  to: entrySchema(quantity, { ...most, above: 0 }),
  /** One step of its scale. */
  resolution: entrySchema(quantity, { ...most, above: 0 }),
  /** What a reading is good to. */
  plusMinus: entrySchema(quantity, { ...most, above: 0 }),
});

/** What the shop reads or tightens with. */
export const instrumentSchema = z.strictObject({
  kind: z.literal('instrument'),
  name,
  reads: z
    .discriminatedUnion('of', [
      z.strictObject({ of: z.literal('length'), ...scale('length', { max: 10_000, unit: 'mm' }) }),
      z.strictObject({
        of: z.literal('torque'),
        ...scale('torque', { max: LIMITS.torqueNm.max, unit: 'N·m' }),
        /** Turning torque of bearings, or what bolts are tightened with. */
        use: z.enum(['turning', 'tightening']),
        /** The threads that it tightens. */
        hand: z.enum(['right', 'both']),
      }),
    ])
    .refine(({ from, to }) => entryBase(to) > entryBase(from), { path: ['to'], message: 'must be above from' }),
  /** The day of its last check; null: never, or not known. */
  checked: z.iso.date().nullable(),
});

/** A bearing with an honed bore that slides on and off while things are tried. */
export const setUpBearingSchema = z.strictObject({
  kind: z.literal('set-up-bearing'),
  name,
  /** How much taller it is than the final one; negative: lower. */
  taller: entrySchema('length', MESH_LIMITS.markMm),
  origin,
});

export const librarySpecSchema = z.discriminatedUnion('kind', [
  axleSpecSchema,
  gearboxSpecSchema,
  shimBoxSchema,
  frictionTableSchema,
  instrumentSchema,
  setUpBearingSchema,
  schoolsSchema,
]);

/** The library of a shop as one open file. */
export const libraryFileSchema = z.strictObject({
  format: z.literal('hot-spline/library-file'),
  formatVersion: z.literal(FORMAT_VERSION),
  specs: z.array(librarySpecSchema).max(5000),
});

export type AxleSpec = z.infer<typeof axleSpecSchema>;
export type GearboxSpec = z.infer<typeof gearboxSpecSchema>;
/** A spec as a file brings it; with the id that it had where it came from, if the file says one. */
export interface GivenSpec {
  readonly id: string | null;
  readonly spec: LibrarySpec;
  /** A line of it could not be used: it is not all that was meant. */
  readonly torn?: true;
}
/** A spec of the library. */
export interface HereSpec {
  readonly id: string;
  readonly version: number;
  /** Put away: found by its id alone. */
  readonly archived?: boolean;
  readonly spec: LibrarySpec;
}
export type ShimBox = z.infer<typeof shimBoxSchema>;
export type Instrument = z.infer<typeof instrumentSchema>;
export type SetUpBearing = z.infer<typeof setUpBearingSchema>;
export type FrictionTable = z.infer<typeof frictionTableSchema>;
export type LibrarySpec = z.infer<typeof librarySpecSchema>;
export type GearSetSpec = z.infer<typeof gearSetSchema>;
export type CarrierSpec = z.infer<typeof carrierSchema>;
export type Construction = MeshConstruction;
export { CONSTRUCTIONS };

/** Its part of the document. */
export const librarySlice = {
  /** What an axle is; null while nobody has looked. */
  axle: { identity: axleSpecSchema.nullable() },
} as const;

declare module '../frame/document' {
  interface AxleSlices {
    identity: AxleSpec | null;
  }
}
