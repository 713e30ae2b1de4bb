import {
  HOLDS,
  InputError,
  LIMITS,
  MOST_CORNERS,
  SEARCH_LIMITS,
  VEHICLE_LIMITS,
  entryBase,
  tyreSize,
  type NumberRange,
} from '@hot-spline/core';
import { entrySchema } from './entry-schema';
import { axleSpecSchema, toothPairSchema } from '../library/schema';
import { z } from '../zod';

const name = z.string().trim().min(1).max(80);
const id = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be letters, digits, - and _');
const thickness = entrySchema('length', LIMITS.thicknessMm);
const diameter = entrySchema('length', LIMITS.diameterMm);
const angle = entrySchema('angle', { min: 0, max: 90, unit: '°' } satisfies NumberRange);
const ratio = entrySchema('ratio', LIMITS.ratio);

export const USES = ['street', 'drag', 'circuit', 'hill-climb', 'drift', 'oval', 'rock', 'raid'] as const;
export const AXLES = ['rear', 'front'] as const;
export const SIDES = ['left', 'right'] as const;
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
export const ACTIONS = ['two-way', 'one-and-a-half-way', 'one-way'] as const;

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

export const COLOURS = ['clean', 'straw', 'blue', 'black'] as const;
export const DAMAGE = ['bent ears', 'scored', 'pitted', 'cracked', 'warped', 'lining glazed', 'lining gone'] as const;
/** The SHA-256 of a photo's bytes: what it is kept under. */
export const photoId = z.string().regex(/^[0-9a-f]{64}$/, 'must be the 64 hexadecimal digits of a SHA-256');

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
    /** It stands between the side gears and presses both packs: half of it belongs to each. */
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
    frictionCoefficient: entrySchema('coefficient', LIMITS.frictionCoefficient),
    /** What the friction plates are and the oil they run in: what the shop's table of friction is kept by. */
    frictionPlates: z.string().trim().max(60),
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
      z.strictObject({ from: z.literal('measured-force'), force: entrySchema('force', LIMITS.forceN) }),
    ]),
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

const designation = z
  .string()
  .max(40)
  .superRefine((text, context) => {
    try {
      tyreSize(text);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      context.addIssue({ code: 'custom', message: error.message });
    }
  });
const percent = (min: number, max: number) => entrySchema('percent', { min, max, unit: '%' });

export const tyreSchema = z.strictObject({
  designation,
  /** Tread worn off, off the radius. */
  wear: entrySchema('length', { min: 0, max: 50, unit: 'mm' }).nullable(),
  /** Of the rolling radius, at a speed; with the square of it elsewhere. */
  growth: z
    .strictObject({ share: percent(0, 50), atSpeed: entrySchema('speed', { above: 0, max: 200, unit: 'm/s' }) })
    .nullable(),
  factor: z.enum(['radial', 'unloaded']),
  measured: z
    .discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('rollout'), value: entrySchema('length', LIMITS.circumferenceMm) }),
      z.strictObject({ kind: z.literal('loaded-radius'), value: entrySchema('length', LIMITS.radiusMm) }),
      z.strictObject({
        kind: z.literal('turns'),
        value: entrySchema('turns-per-distance', { min: 50, max: 10000, unit: 'turns/km' }),
      }),
    ])
    .nullable(),
});

export const axleSchema = z.strictObject({
  finalDrive: toothPairSchema,
  hubRatio: ratio,
  tyre: tyreSchema,
  unit: unitSchema,
  /** What this axle is; null while nobody has looked. */
  identity: axleSpecSchema.nullable(),
  /** Which of the carriers of `identity` is in it; empty where that is not known. */
  carrier: z.string().max(40),
  /** As stamped on the set in the axle. A set is lapped as a pair: the two must agree. */
  matchNumbers: z.strictObject({ ring: z.string().trim().max(30), pinion: z.string().trim().max(30) }),
});

export const gearSchema = z.strictObject({ name: z.string().trim().min(1).max(12), ratio });

const rpm = z.number().min(1).max(LIMITS.rpm.max);
const distance = entrySchema('distance', { above: 0, max: 100_000, unit: 'm' });

export const COMPLAINTS = [
  'runs-hot',
  'whines',
  'one-wheel-spins',
  'chatters',
  'pushes-wide',
  'snaps-on-lift',
  'drags-in-turns',
] as const;
export const GOALS = ['time', 'finish', 'cruise', 'crawl'] as const;

/** What the job is for; steers what is judged later. */
export const briefSchema = z.strictObject({
  goal: z.enum(GOALS),
  /** Of the run that is timed, or at whose end the rpm window counts. */
  distance,
  /** Useful engine speeds. */
  window: z.strictObject({ lowRpm: rpm, highRpm: rpm }).refine(({ lowRpm, highRpm }) => highRpm > lowRpm, {
    path: ['highRpm'],
    message: 'must be above lowRpm',
  }),
  crawlRatio: entrySchema('ratio', { above: 0, max: 2000 }),
  complaints: z.array(z.enum(COMPLAINTS)).max(COMPLAINTS.length),
  plannedTyre: designation.nullable(),
  /** What was in it when the speedometer was right. */
  was: z.strictObject({ finalDrive: toothPairSchema, tyre: designation }).nullable(),
  sender: z.enum(['gearbox', 'wheel']),
  /** Road speeds at which the rpm ladder has its columns. */
  ladder: z.array(entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' })).max(8),
});

/** What the longitudinal equation needs beside engine and gears. */
export const roadSchema = z.strictObject({
  mass: entrySchema('mass', VEHICLE_LIMITS.massKg),
  rearShare: percent(1, 100),
  cgHeight: entrySchema('length', VEHICLE_LIMITS.cgHeightMm),
  wheelbase: entrySchema('length', VEHICLE_LIMITS.wheelbaseMm),
  track: entrySchema('length', { above: 0, max: 10_000, unit: 'mm' }),
  dragArea: entrySchema('area', VEHICLE_LIMITS.dragAreaM2),
  downforceArea: entrySchema('area', VEHICLE_LIMITS.downforceAreaM2),
  rollingCoefficient: entrySchema('coefficient', VEHICLE_LIMITS.rollingCoefficient),
  grip: entrySchema('coefficient', { above: 0, max: 10 }),
  efficiency: percent(1, 100),
  /** λ of the rotating parts; null: 1.04 + 0.0025·i². */
  inertiaFactor: entrySchema('coefficient', VEHICLE_LIMITS.inertiaFactor).nullable(),
  grade: percent(-50, 100),
  wheelSlip: percent(0, 50),
});

export const pointSchema = z.strictObject({
  id,
  name,
  gear: z.int().min(0).max(11),
  range: z.int().min(0).max(3),
  rpm,
});

export const shelfPairSchema = z.strictObject({
  id,
  driver: z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max),
  driven: z.int().min(LIMITS.teeth.min).max(LIMITS.teeth.max),
  /** Gears that it fits, 1 for first; every gear where the list is empty. */
  positions: z.array(z.int().min(1).max(12)).max(12),
  torqueLimit: entrySchema('torque', { above: 0, max: 1e5, unit: 'N·m' }).nullable(),
});

/** Gear pairs and final drives on the shelf, and the rules for putting a set together. */
export const shelfSchema = z.strictObject({
  pairs: z.array(shelfPairSchema).max(SEARCH_LIMITS.pairs),
  finals: z.array(toothPairSchema).max(SEARCH_LIMITS.finals),
  steps: z.enum(['shrinking', 'descending']),
  floorRpm: z.number().min(0).max(LIMITS.rpm.max),
  limiterMargin: percent(0, 50),
});

const mps = z
  .number()
  .min(0)
  .max(LIMITS.speedKmh.max / 3.6);
export const courseSchema = z.strictObject({
  name,
  lengthM: z.number().gt(0).max(1e6),
  startMps: mps,
  fastestMps: mps.nullable(),
  corners: z
    .array(
      z.strictObject({
        atM: z.number().min(0).max(1e6),
        lengthM: z.number().min(0).max(1e6),
        speedMps: z
          .number()
          .gt(0)
          .max(LIMITS.speedKmh.max / 3.6),
        brakingMps2: z.number().gt(0).max(60),
      }),
    )
    .max(MOST_CORNERS),
});

export const buildSchema = z
  .strictObject({
    format: z.literal('hot-spline/build'),
    formatVersion: z.literal(1),
    name,
    vehicle: z.string().max(120),
    use: z.enum(USES),
    notes: z.string().max(4000),
    engine: z.strictObject({
      kind: z.enum(['combustion', 'electric']),
      torqueCurve: z
        .array(
          z.strictObject({
            rpm: z.number().min(0).max(LIMITS.rpm.max),
            torque: entrySchema('torque', { min: 0, max: 20000, unit: 'N·m' }),
          }),
        )
        .min(2)
        .max(100)
        .refine((curve) => curve.every((p, i) => i === 0 || p.rpm > (curve[i - 1]?.rpm ?? -1)), {
          message: 'rpm must ascend without repeats',
        }),
      limitRpm: rpm,
      /** The clutch slips at this speed when the car is launched. */
      launchRpm: z.number().min(0).max(LIMITS.rpm.max),
    }),
    coupling: z.discriminatedUnion('kind', [
      z.strictObject({
        kind: z.literal('clutch'),
        capacity: entrySchema('torque', { above: 0, max: 1e5, unit: 'N·m' }),
      }),
      z.strictObject({
        kind: z.literal('converter'),
        stallRpm: rpm,
        /** Torque multiplication at standstill. */
        torqueRatio: entrySchema('ratio', VEHICLE_LIMITS.torqueRatio),
        /** Speed ratio at which it no longer multiplies. */
        couplingRatio: entrySchema('ratio', VEHICLE_LIMITS.couplingRatio),
        slip: percent(0, 50),
      }),
      z.strictObject({ kind: z.literal('direct') }),
    ]),
    gearbox: z.strictObject({
      kind: z.enum(['synchro', 'dog', 'sequential', 'automatic', 'fixed']),
      gears: z.array(gearSchema).min(1).max(12),
      shiftTime: entrySchema('time', VEHICLE_LIMITS.shiftTimeS),
    }),
    transfer: z.strictObject({ ranges: z.array(gearSchema).min(1).max(4) }).nullable(),
    driven: z.enum(['rear', 'front', 'both']),
    axles: z.strictObject({ rear: axleSchema.nullable(), front: axleSchema.nullable() }),
    cruiseSpeed: entrySchema('speed', { above: 0, max: LIMITS.speedKmh.max / 3.6, unit: 'm/s' }),
    /** Final drives laid over the present one. */
    candidates: z.array(toothPairSchema).max(4),
    brief: briefSchema,
    road: roadSchema,
    shelf: shelfSchema,
    course: courseSchema.nullable(),
    /** Operating points that are kept: cruise, trap, corner exit, crawl. */
    points: z
      .array(pointSchema)
      .max(12)
      .refine((points) => new Set(points.map((point) => point.id)).size === points.length, {
        message: 'two points carry one id',
      }),
    operatingPoint: z.strictObject({
      gear: z.int().min(0).max(11),
      range: z.int().min(0).max(3),
      rpm: z.number().min(1).max(LIMITS.rpm.max),
    }),
  })
  .superRefine((build, context) => {
    const needed = build.driven === 'both' ? AXLES : [build.driven];
    for (const axle of needed) {
      if (!build.axles[axle])
        context.addIssue({ code: 'custom', path: ['axles', axle], message: 'is driven but not described' });
    }
    if (build.operatingPoint.gear >= build.gearbox.gears.length) {
      context.addIssue({ code: 'custom', path: ['operatingPoint', 'gear'], message: 'is not one of the gears' });
    }
    if (build.operatingPoint.range >= (build.transfer?.ranges.length ?? 1)) {
      context.addIssue({ code: 'custom', path: ['operatingPoint', 'range'], message: 'is not one of the ranges' });
    }
  });

export type Build = z.infer<typeof buildSchema>;
export type Brief = z.infer<typeof briefSchema>;
export type Road = z.infer<typeof roadSchema>;
export type Shelf = z.infer<typeof shelfSchema>;
export type ShelfPairSpec = z.infer<typeof shelfPairSchema>;
export type CourseSpec = z.infer<typeof courseSchema>;
export type KeptPoint = z.infer<typeof pointSchema>;
export type Complaint = (typeof COMPLAINTS)[number];
export type Goal = (typeof GOALS)[number];
export type Axle = z.infer<typeof axleSchema>;
export type Tyre = z.infer<typeof tyreSchema>;
export type Unit = z.infer<typeof unitSchema>;
export type PlateSpec = z.infer<typeof plateSchema>;
export type Pack = z.infer<typeof packSchema>;
export type Condition = z.infer<typeof conditionSchema>;
export type Member = z.infer<typeof memberSchema>;
export type AxleName = (typeof AXLES)[number];
export type Side = (typeof SIDES)[number];
export type Use = (typeof USES)[number];
