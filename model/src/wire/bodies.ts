// What goes over the wire, in Zod: bodies and answers of the routes.
import { CONSTRUCTIONS, DECIMAL_SIGNS, JOBS } from '@hot-spline/core/page';
import { idSchema, photoId } from '../base/fields';
import { AXLES } from '../base/names';
import { buildSchema, type Build } from '../document/schema';
import { BOARD_STATES, RESTS_FOR } from '../board/board-states';
import { RESTS } from '../frame/figure';
import { STATIONS, VERDICTS } from '../frame/finding';
import { librarySpecSchema, type LibrarySpec } from '../library/schema';
import '../base/zod';
import * as z from 'zod';

export const who = z.string().trim().max(60).default('');
export const version = z.int().min(1);
export const idParams = z.strictObject({ id: idSchema });

/** What is wrong with one field: what scripts of the shop read. */
export const fieldErrorSchema = z.object({ field: z.string(), message: z.string(), allowed: z.string() });

/** An answer that is no success, as RFC 9457 writes it. */
export const problemSchema = z.looseObject({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  error: fieldErrorSchema.optional(),
});

/** A build of which something is damaged or missing. */
export const damageSchema = z.object({
  build: z.uuid(),
  name: z.string(),
  /** What does not add up, in words: `31 of 60 entries missing`. */
  says: z.string(),
});
export type Damage = z.infer<typeof damageSchema>;

export const healthSchema = z.object({
  /** Whether nothing is known to be damaged or missing. */
  ok: z.boolean(),
  version: z.string(),
  /** When all that is kept was last counted and hashed; null while that is still under way for the first time. */
  checked: z.iso.datetime().nullable(),
  damage: z.array(damageSchema),
  /** null where the database is a server’s own, with backups of its own. */
  backup: z
    .object({
      /** Until when what was written is in one; null: there is none yet. */
      last: z.iso.datetime().nullable(),
      file: z.string().nullable(),
      old: z.boolean(),
      /** Why the last attempt came to nothing. */
      problem: z.string(),
    })
    .nullable(),
});
export type HealthAnswer = z.infer<typeof healthSchema>;

const counts = z.object({
  /** Not here yet: comes in. */
  new: z.int(),
  /** Here, and the archive goes on where ours ends: what it has more comes in. */
  longer: z.int(),
  same: z.int(),
  /** Here, and ours goes on where the archive ends: stays. */
  older: z.int(),
  /** Here with something else in it: ours stays, the archive’s does not come in. */
  other: z.int(),
  /** It does not add up in the archive: does not come in. */
  broken: z.int(),
});

/** What bringing an archive in does. */
export const arrivalPlanSchema = z.object({
  builds: counts,
  specs: counts,
  /** Builds that are here and not the same, or broken, by name; the first of them. */
  named: z.array(z.object({ id: z.uuid(), name: z.string(), fate: counts.keyof() })),
  /** Entries of ledgers that come in. */
  entries: z.int(),
  photos: z.int(),
  customers: z.int(),
});
export type ArrivalPlan = z.infer<typeof arrivalPlanSchema>;

export const ARRIVAL_STATES = ['reading', 'ready', 'arriving', 'arrived', 'stopped', 'failed'] as const;
/** An archive that is brought in beside what is here: first read, then brought in, whole or not at all. */
export const arrivalSchema = z.object({
  id: idSchema,
  state: z.enum(ARRIVAL_STATES),
  /** Pieces that are done, of how many: of the reading, then of the bringing in. */
  done: z.int(),
  of: z.int(),
  /** Why it came to nothing; empty where it did not. */
  problem: z.string(),
  /** When the archive was made; null until that is read. */
  made: z.string().nullable(),
  /** What it does; null until it has been read to its end. */
  plan: arrivalPlanSchema.nullable(),
});
export type Arrival = z.infer<typeof arrivalSchema>;

/** Of all who work in it together, so more than a day has. */
const dayHours = z.number().min(0).max(1000);

export const shopSchema = z.object({
  /** Made once with the data: a browser sends what waits in it to no other shop. */
  id: z.uuid(),
  version: z.string(),
  /** Whoever reaches the server may read and write everything: it listens to the whole network, and nobody signs in. */
  open: z.boolean(),
  /** ISO 4217 code of the money that prices are in. */
  currency: z.string().regex(/^[A-Z]{3}$/, 'must be three capital letters, such as EUR'),
  /** What separates the decimals of a typed number; null: by plausibility. */
  decimal: z.enum(DECIMAL_SIGNS).nullable(),
  /** As it stands on papers. */
  name: z.string().trim().max(80),
  /** Photo of its mark; null: none. */
  logo: photoId.nullable(),
  /** Where other devices of the shop reach it, for codes on labels; empty: the address of the device that prints. */
  address: z.union([z.literal(''), z.url({ protocol: /^https?$/ }).max(200)]),
  /** What an hour with hands on costs, in the shop’s money; null: nobody has said. */
  hourRate: z.number().min(0).max(100_000).nullable(),
  /** Hours with hands on cars that it has, from Monday to Sunday; null: nobody has said. */
  weekHours: z.tuple([dayHours, dayHours, dayHours, dayHours, dayHours, dayHours, dayHours]).nullable(),
});

const { currency, decimal, name, logo, address, hourRate, weekHours } = shopSchema.shape;
/** What a shop may set. */
export const shopSettingsSchema = z
  .strictObject({
    currency: currency.optional(),
    decimal: decimal.optional(),
    name: name.optional(),
    logo: logo.optional(),
    address: address.optional(),
    hourRate: hourRate.optional(),
    weekHours: weekHours.optional(),
  })
  .refine((told) => Object.keys(told).length > 0, {
    message: 'must tell currency, decimal, name, logo, address, hourRate or weekHours',
  });

/** A build on the board; one that can't be read says why. */
export const buildSummarySchema = z.object({
  id: idSchema,
  name: z.string(),
  vehicle: z.string(),
  use: z.string(),
  version,
  updatedAt: z.string(),
  archived: z.boolean(),
  /** Days on which an axle is to be looked at again, the first first. */
  rechecks: z.array(z.object({ on: z.string(), why: z.string() })),
  /** Why it can't be read; null for a build that can. */
  unreadable: z.string().nullable(),
});

const restSchema = z.object({
  for: z.enum(RESTS_FOR),
  what: z.string(),
  since: z.string().nullable(),
  until: z.string().nullable(),
});
/** How far the work on a build is. */
const boardWorkSchema = z.object({
  state: z.enum(BOARD_STATES),
  next: z.string(),
  done: z.int(),
  of: z.int(),
  /** What it waits for, since when and until when; null where it can go on. */
  rest: restSchema.nullable(),
  /** What sets or cools meanwhile. */
  setting: restSchema.nullable(),
  /** How often it has been put together; 0 outside the loop. */
  round: z.int(),
  gate: z.enum(['', 'A', 'B']),
  takenH: z.number(),
  leftH: z.number(),
  due: z.string(),
  jobs: z.array(z.enum(JOBS)).readonly(),
  /** Tools that are lent: which, to whom, until when. */
  lent: z.array(z.string()).readonly(),
});

/** A row of the board. */
export const boardRowSchema = buildSummarySchema.extend({
  promised: z.string().nullable(),
  worker: z.string(),
  /** Name of the customer; null where there is none, or none any more. */
  customer: z.string().nullable(),
  work: boardWorkSchema,
});

export const boardSchema = z.object({
  rows: z.array(boardRowSchema),
  /** How many builds the question finds. */
  total: z.int(),
  /** Whose builds these are, where the search is a worker’s whole name: every mention of it is left out then. */
  whose: z.string().nullable(),
  /** How many of each state there are among those that the words find. */
  states: z.partialRecord(z.enum(BOARD_STATES), z.int()),
});

/** What is promised, day by day. */
export const boardWeekSchema = z.object({
  days: z.array(
    z.object({
      day: z.string(),
      /** Hours with hands on cars that the shop has on it; null: nobody has said. */
      hours: z.number().nullable(),
      promisedH: z.number(),
      /** Hours that do not fit until its evening; null where nobody has said what the shop has. */
      overH: z.number().nullable(),
      /** How many are promised for it, and the first of them. */
      builds: z.int(),
      rows: z.array(boardRowSchema),
    }),
  ),
  /** Promised for a day that is past, and not done. */
  overdue: z.object({ builds: z.int(), rows: z.array(boardRowSchema) }),
  /** Promised, with no job on them: nobody knows their hours. */
  unplanned: z.array(z.object({ id: idSchema, name: z.string() })),
});

/** What a scanned code may be. */
export const scannedSchema = z.array(
  z.object({
    what: z.enum(['build', 'part', 'spec']),
    id: idSchema,
    name: z.string(),
    /** Of a part: what it is called on the list of the build, and which axle’s. */
    part: z.string().nullable(),
    axle: z.enum(AXLES).nullable(),
    /** Of a piece out of a drawer, as its label says it. */
    piece: z.string().nullable(),
  }),
);

export const customerWriteSchema = z.strictObject({
  name: z.string().trim().min(1).max(80),
  /** Telephone or mail: one way to reach them, no more. */
  reach: z.string().trim().max(120),
});
export const customerSchema = customerWriteSchema.extend({ id: idSchema, builds: z.int() });

export const recallSchema = z.object({
  /** What is in builds of the shop, with how many. */
  facets: z.array(z.object({ facet: z.string(), builds: z.int() })),
  builds: z.array(
    z.object({ id: idSchema, name: z.string(), vehicle: z.string(), customer: z.string(), reach: z.string() }),
  ),
});

const written = { who: z.string(), at: z.string() };
export const storedBuildSchema = z.object({ id: idSchema, version, ...written, build: buildSchema });
export const storedSpecSchema = z.object({
  id: idSchema,
  version,
  archived: z.boolean(),
  spec: librarySpecSchema.nullable(),
  /** Why it can't be read; null for a spec that can. */
  unreadable: z.string().nullable(),
});

const ofBuild = { build: idSchema, name: z.string(), axle: z.enum(AXLES) };
/** What the set-ups of the shop hold and teach. */
export const setUpsSchema = z.object({
  /** Pieces out of drawers, by the axle that they are in. */
  holdings: z.array(z.object({ ...ofBuild, drawers: z.array(idSchema), piecesMm: z.array(z.number()) })),
  /** What axles taught, newest first. */
  past: z.array(
    z.object({
      ...ofBuild,
      spec: z.string(),
      construction: z.enum(CONSTRUCTIONS),
      job: z.looseObject({}).nullable(),
      closingsMm: z.array(z.number()),
      /** What stayed of the total turning torque over the run-in; null where that was not read. */
      stayed: z
        .object({
          share: z.number(),
          fromNm: z.number(),
          nowNm: z.number(),
          sealOff: z.boolean(),
          bearings: z.string(),
        })
        .nullable(),
    }),
  ),
  /** What jobs took: minutes by step, rounds, days. */
  times: z.array(
    z.object({
      ...ofBuild,
      job: z.string(),
      steps: z.record(z.string(), z.number()),
      rounds: z.int(),
      days: z.int().nullable(),
    }),
  ),
  /** Builds that can't be read: what they hold is not known. */
  unreadable: z.array(z.object({ build: idSchema, name: z.string(), why: z.string() })),
});

const factSchema = z.union([
  z.object({ value: z.number(), quantity: z.string(), scale: z.string().optional() }),
  z.string(),
  z.boolean(),
]);
/** What the screen shows of a build. */
export const figuresSchema = z.object({
  id: idSchema,
  version,
  axle: z.enum(AXLES),
  point: z.object({ gear: z.int(), range: z.int(), rpm: z.number() }),
  figures: z.array(
    z.object({
      id: z.string(),
      label: z.string(),
      value: z.number().nullable(),
      quantity: z.string(),
      instead: z.string().optional(),
      rests: z.enum(RESTS),
      working: z.looseObject({}).optional(),
    }),
  ),
  findings: z.array(
    z.object({
      id: z.string(),
      verdict: z.enum(VERDICTS),
      place: z.object({
        sheet: z.string(),
        tab: z.string().optional(),
        field: z.string(),
        axle: z.enum(AXLES).optional(),
      }),
      station: z.enum(STATIONS),
      figures: z.array(z.string()),
      rests: z.enum(RESTS),
      rule: z.string(),
      facts: z.record(z.string(), factSchema),
      title: z.string(),
      detail: z.string(),
    }),
  ),
});

export const saveBuildSchema = z.strictObject({ writeId: idSchema, baseVersion: version, who, build: buildSchema });
export const saveSpecSchema = z.strictObject({
  writeId: idSchema,
  baseVersion: z.int().min(0),
  who,
  spec: librarySpecSchema,
});
export const archiveSchema = z.strictObject({ archived: z.boolean() });
export const archived = z.object({ id: idSchema, archived: z.boolean() });
export const saved = z.object({ id: idSchema, version });

export type SetUps = z.output<typeof setUpsSchema>;
export type Shop = z.output<typeof shopSchema>;
export type ShopSettings = z.output<typeof shopSettingsSchema>;
export type BuildSummary = z.output<typeof buildSummarySchema>;
export type Board = z.output<typeof boardSchema>;
export type BoardWeek = z.output<typeof boardWeekSchema>;
export type Scanned = z.output<typeof scannedSchema>;
export type BoardRow = z.output<typeof boardRowSchema>;
const placeName = z
  .string()
  .max(80)
  .regex(/^[\w.-]*$/, 'must be the name of a place');
/** Where somebody is: sheet, step of the work, and the field that they are typing in; empty where there is none. */
export const presenceSchema = z.object({
  tab: idSchema,
  who: z.string().max(60),
  build: idSchema.nullable(),
  sheet: placeName,
  step: placeName,
  field: placeName,
});
export type Presence = z.output<typeof presenceSchema>;
/** Something that changed. */
export const changedSchema = z.discriminatedUnion('of', [
  /** The specification, or whether it is put away; `version` is its newest. */
  z.object({ of: z.literal('build'), id: idSchema, version: z.int() }),
  /** An entry was appended; `count` is how many there are with it. */
  z.object({ of: z.literal('ledger'), id: idSchema, entry: idSchema, count: z.int() }),
  z.object({ of: z.literal('library'), id: idSchema }),
  z.object({ of: z.literal('customers') }),
  z.object({ of: z.literal('shop') }),
  /** Where somebody is, who has this open in a tab; nothing of it is kept. `build` null: nowhere any more. */
  presenceSchema.extend({ of: z.literal('presence') }),
  /** Accounts, roles or sessions: whoever listens is looked at anew. */
  z.object({ of: z.literal('people') }),
  /** Anything may have changed. */
  z.object({ of: z.literal('all') }),
  /** Nothing has: where one stands who begins to listen. */
  z.object({ of: z.literal('here') }),
]);
export type Changed = z.output<typeof changedSchema>;
export type Customer = z.output<typeof customerSchema>;
export type CustomerWrite = z.output<typeof customerWriteSchema>;
export type Recall = z.output<typeof recallSchema>;
export interface StoredBuild {
  readonly id: string;
  readonly version: number;
  readonly who: string;
  readonly at: string;
  readonly build: Build;
}
export interface StoredSpec {
  readonly id: string;
  readonly version: number;
  readonly archived: boolean;
  readonly spec: LibrarySpec;
}
export type ShownFigures = z.output<typeof figuresSchema>;
