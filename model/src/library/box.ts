import {
  ARRANGEMENTS,
  BOX_LIMITS,
  BOX_PIECES,
  LIMITS,
  circleOf,
  type Arrangement,
  type NumberRange,
} from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import { id, percent } from '../base/fields';
import '../base/zod';
import * as z from 'zod';

/** Expansion per kelvin of what cases are made of: tables, from memory. */
export const CASE_ALLOYS = {
  'aluminium-cast': { label: 'Aluminium casting', expansion: 21.5e-6 },
  'aluminium-wrought': { label: 'Wrought aluminium', expansion: 23.1e-6 },
  magnesium: { label: 'Magnesium', expansion: 26e-6 },
  iron: { label: 'Cast iron', expansion: 10.5e-6 },
} as const;
export type CaseAlloy = keyof typeof CASE_ALLOYS;
/** Of a steel shaft, per kelvin: tables, from memory. */
export const SHAFT_EXPANSION = 11.7e-6;
/** Faces on each other at the worst of both floats, of the narrower one: ours. */
export const OVERLAP_PERCENT = 95;

const HANDS = ['right', 'left'] as const;
const ENDS = ['engine', 'far'] as const;
export const FITS = ['slide', 'press', 'warm'] as const;

const length = entrySchema('length', BOX_LIMITS.lengthMm);
const small = entrySchema('length', BOX_LIMITS.floatMm);
const degrees = (range: NumberRange) => entrySchema('angle', range);
const rise = z.number().min(BOX_LIMITS.riseK.min).max(BOX_LIMITS.riseK.max);
const teeth = z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max);

const shaftTorque = entrySchema('torque', { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' });
const closed = z.enum(['nut', 'clip']);

const pieceSchema = z.strictObject({
  id,
  kind: z.enum(BOX_PIECES),
  /** What the shop calls it; empty: what it is. */
  name: z.string().trim().max(40),
  width: length,
  /** Of a gear: its pair. */
  pair: id.nullable(),
  /** It turns on its shaft until a hub takes it. */
  loose: z.boolean(),
  /** It is one with its shaft. */
  cut: z.boolean(),
  /** Why it is cut on its shaft; empty where nobody has said. */
  cutWhy: z.string().trim().max(80),
  sleeve: length.nullable(),
  dogs: small.nullable(),
  ring: length.nullable(),
  fit: z.enum(FITS),
  oiled: z.boolean(),
  /** Which face, chamfer or long side looks where; empty where it is the same. */
  face: z.string().trim().max(80),
});

const pairSchema = z.strictObject({
  id,
  driver: teeth,
  driven: teeth,
  /** It turns the layshaft, whatever gear is in. */
  constant: z.boolean(),
  /** Of reverse: teeth of the idler between both gears; null of any other pair. */
  idler: teeth.nullable(),
  shiftSum: z.number().min(BOX_LIMITS.shiftSum.min).max(BOX_LIMITS.shiftSum.max).nullable(),
  driverHand: z.enum(HANDS).nullable(),
  drivenHand: z.enum(HANDS).nullable(),
  /** Gears that it fits by its maker, 1 for first; every one where the list is empty. */
  fits: z.array(z.int().min(1).max(BOX_LIMITS.gears.max)).max(BOX_LIMITS.gears.max),
  /** Hours at which its maker wants it out; null where nobody has said. */
  lifeHours: z.number().gt(0).max(1e5).nullable(),
  /** The last run before it went in: its hours are of what was run behind it. */
  fromRun: z.int().min(0).max(9999),
});

const shaftSchema = z.strictObject({
  from: entrySchema('length', BOX_LIMITS.placeMm),
  length,
  closed,
  nutTorque: shaftTorque.nullable(),
  /** What closes the pieces before its collar; null of a shaft that is stacked from one end. */
  before: z.strictObject({ length, closed, nutTorque: shaftTorque.nullable() }).nullable(),
  /** At the bearing seats, by its builder’s sheet; null where nobody has said. */
  runOut: small.nullable(),
  /** Band of its end float, cold; null where nobody has said. */
  float: z
    .strictObject({ low: small, high: small })
    .refine(({ low, high }) => high.value >= low.value || high.unit !== low.unit, {
      path: ['high'],
      message: 'must be at least low',
    })
    .nullable(),
  /** Between its bearings. */
  between: length.nullable(),
  arrangement: z.enum(ARRANGEMENTS as [Arrangement, ...Arrangement[]]).nullable(),
  /** The end that locates it, where it is held at one end; null while nobody has said. */
  located: z.enum(ENDS).nullable(),
  /** The end at which its shim lies; null while nobody has said. */
  shim: z.enum(ENDS).nullable(),
  pieces: z.array(pieceSchema).min(1).max(BOX_LIMITS.pieces.max),
});

const corner = z.tuple([
  z.number().min(BOX_LIMITS.drumDeg.min).max(BOX_LIMITS.drumDeg.max),
  z.number().min(BOX_LIMITS.travelMm.min).max(BOX_LIMITS.travelMm.max),
]);

/** What wears and is no pair – a bearing, a fork, a ring, the oil –, by hours under load. */
const wearingSchema = z.strictObject({
  id,
  name: z.string().trim().min(1).max(60),
  /** Hours at which its maker wants it out; null where nobody has said. */
  lifeHours: z.number().gt(0).max(1e5).nullable(),
  /** The last run before it went in. */
  fromRun: z.int().min(0).max(9999),
});

/** Where something lies on its face, in parts of a hundred of the face from its upper left corner. */
const spot = z.tuple([z.number().min(0).max(100), z.number().min(0).max(100)]);

/** The drum, as it is cut: for each hub what its fork follows. */
const drumSchema = z.strictObject({
  radius: entrySchema('length', BOX_LIMITS.radiusMm),
  /** Play of pads and ring: dogs may touch by as much sooner. */
  slop: small,
  /** How far dogs go into each other when a gear is in. */
  depth: small,
  /** Angle of a drum that goes round; null where it has two ends. */
  period: z.number().gt(0).max(3600).nullable(),
  detents: z.array(z.number().min(BOX_LIMITS.drumDeg.min).max(BOX_LIMITS.drumDeg.max)).max(40),
  tracks: z
    .array(z.strictObject({ hub: id, points: z.array(corner).min(2).max(BOX_LIMITS.points.max) }))
    .min(1)
    .max(BOX_LIMITS.tracks.max),
});

/** A place of a unit that is counted: so many of it, where it is, what has to be in before it. */
const placeSchema = z.strictObject({
  id,
  name: z.string().trim().min(1).max(60),
  /** The face or side that it is found on; empty where nobody has said. */
  face: z.string().trim().max(40),
  count: z.int().min(1).max(99),
  /** Not seen from outside. */
  hidden: z.boolean(),
  /** Where each of them lies on its face; those that nobody has placed are not in it. */
  spots: z.array(spot).max(99),
  torque: shaftTorque.nullable(),
  /** Places that have to be in before it goes in. */
  after: z.array(id).max(20),
});

const unique = (ids: readonly string[]): boolean => new Set(ids).size === ids.length;

/** What is inside a gearbox: both shafts in their order, every pair, and how it is shifted. */
export const boxInsideSchema = z
  .strictObject({
    centre: entrySchema('length', BOX_LIMITS.centreMm),
    module: entrySchema('length', BOX_LIMITS.normalModuleMm),
    helix: degrees(BOX_LIMITS.helixDeg),
    pressureAngle: degrees(BOX_LIMITS.pressureAngleDeg),
    overlap: percent(1, 100),
    dogGap: small.nullable(),
    /** Dogs of a ring and of a gear, by count and widths in degrees. */
    dogs: z
      .strictObject({
        count: z.int().min(BOX_LIMITS.dogs.min).max(BOX_LIMITS.dogs.max),
        ring: degrees(BOX_LIMITS.widthDeg).nullable(),
        gear: degrees(BOX_LIMITS.widthDeg).nullable(),
      })
      .nullable(),
    /** What nobody has said is null: what heat makes of a float is not told then. */
    alloy: z.enum(Object.keys(CASE_ALLOYS) as [CaseAlloy, ...CaseAlloy[]]).nullable(),
    /** How much warmer than cold case and shafts run. */
    caseRise: rise.nullable(),
    shaftRise: rise.nullable(),
    pairs: z
      .array(pairSchema)
      .min(1)
      .max(BOX_LIMITS.gears.max + 2),
    /** What wears beside the pairs. */
    wearing: z.array(wearingSchema).max(60),
    shafts: z.strictObject({ driving: shaftSchema, driven: shaftSchema }),
    drum: drumSchema.nullable(),
    /** Most play of a hub on its spline, at the radius of the ring; null where nobody has said. */
    hubPlay: small.nullable(),
    /** Bolts, seals, rings and sensors that are counted out and in. */
    places: z.array(placeSchema).max(60),
  })
  .superRefine(({ pairs, shafts, drum, places, wearing }, context) => {
    if (!unique([...pairs, ...wearing].map((one) => one.id)))
      context.addIssue({ code: 'custom', path: ['wearing'], message: 'carries an id of something else that wears' });
    pairs.forEach(({ constant, idler }, i) => {
      if (constant && idler !== null)
        context.addIssue({ code: 'custom', path: ['pairs', i, 'idler'], message: 'the constant pair has no idler' });
    });
    if (!pairs.some((one) => !one.constant && one.idler === null))
      context.addIssue({ code: 'custom', path: ['pairs'], message: 'no gear drives forwards' });
    for (const shaft of ['driving', 'driven'] as const) {
      const collars = shafts[shaft].pieces.filter(({ kind }) => kind === 'collar').length;
      const path = ['shafts', shaft];
      if (collars > 1)
        context.addIssue({ code: 'custom', path: [...path, 'pieces'], message: 'there is one collar at most' });
      if (collars > 0 !== (shafts[shaft].before !== null))
        context.addIssue({
          code: 'custom',
          path: [...path, 'before'],
          message: collars > 0 ? 'what stands before the collar has to be closed' : 'nothing stands before a collar',
        });
    }
    places.forEach(({ spots, count }, i) => {
      if (spots.length > count)
        context.addIssue({ code: 'custom', path: ['places', i, 'spots'], message: 'are more than there are of it' });
    });
    const pieces = [...shafts.driving.pieces, ...shafts.driven.pieces];
    if (!unique(pairs.map((one) => one.id)))
      context.addIssue({ code: 'custom', path: ['pairs'], message: 'two pairs carry one id' });
    if (pairs.filter(({ constant }) => constant).length > 1)
      context.addIssue({ code: 'custom', path: ['pairs'], message: 'there is one constant pair at most' });
    if (!unique(pieces.map((one) => one.id)))
      context.addIssue({ code: 'custom', path: ['shafts'], message: 'two pieces carry one id' });
    for (const shaft of ['driving', 'driven'] as const)
      shafts[shaft].pieces.forEach(({ kind, pair }, i) => {
        const path = ['shafts', shaft, 'pieces', i, 'pair'];
        if ((kind === 'gear') !== (pair !== null))
          context.addIssue({ code: 'custom', path, message: 'a gear is of a pair, nothing else is' });
        else if (pair !== null && !pairs.some((one) => one.id === pair))
          context.addIssue({ code: 'custom', path, message: 'is no pair of this box' });
      });
    if (!unique(places.map((one) => one.id)))
      context.addIssue({ code: 'custom', path: ['places'], message: 'two places carry one id' });
    places.forEach(({ after }, i) => {
      if (after.some((one) => !places.some((place) => place.id === one)))
        context.addIssue({ code: 'custom', path: ['places', i, 'after'], message: 'is no place of this unit' });
    });
    const circle = circleOf(places);
    if (circle.length > 0)
      context.addIssue({ code: 'custom', path: ['places'], message: `wait for each other: ${circle.join(', ')}` });
    drum?.tracks.forEach(({ hub, points }, k) => {
      const path = ['drum', 'tracks', k];
      if (!pieces.some(({ id: one, kind }) => one === hub && kind === 'hub'))
        context.addIssue({ code: 'custom', path: [...path, 'hub'], message: 'is no hub of this box' });
      if (drum.tracks.findIndex((other) => other.hub === hub) !== k)
        context.addIssue({ code: 'custom', path: [...path, 'hub'], message: 'has a track already' });
      points.forEach(([angle], i) => {
        if (i > 0 && angle <= (points[i - 1]?.[0] ?? angle))
          context.addIssue({
            code: 'custom',
            path: [...path, 'points', i, 0],
            message: 'must lie behind the one before',
          });
      });
    });
  });

export type BoxInside = z.infer<typeof boxInsideSchema>;
export type BoxShaftSpec = BoxInside['shafts']['driving'];
export type BoxPieceSpec = BoxShaftSpec['pieces'][number];
export type BoxPairSpec = BoxInside['pairs'][number];
export type WearingSpec = BoxInside['wearing'][number];
export type PlaceSpec = BoxInside['places'][number];
export type DrumSpec = NonNullable<BoxInside['drum']>;
