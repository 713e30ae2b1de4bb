import { CONSTRUCTIONS, STAND_INS } from '@hot-spline/core';
import { buildFileSchema } from '../files/build-file';
import { idSchema, photoId } from '../base/fields';
import { ledgerEntrySchema } from '../document/ledger';
import { buildSchema } from '../document/schema';
import { POWERS } from '../start/start-build';
import { AXLES } from '../base/names';
import { PHOTO_BYTES, PHOTO_TYPES } from '../files/photos';
import { BOARD_STATES } from '../board/board-states';
import { libraryFileSchema } from '../library/schema';
import {
  archiveSchema,
  arrivalSchema,
  archived,
  boardSchema,
  changedSchema,
  buildSummarySchema,
  customerSchema,
  customerWriteSchema,
  figuresSchema,
  healthSchema,
  idParams,
  presenceSchema,
  recallSchema,
  saveBuildSchema,
  saveSpecSchema,
  saved,
  setUpsSchema,
  shopSchema,
  shopSettingsSchema,
  storedBuildSchema,
  storedSpecSchema,
} from './bodies';
import {
  acceptSchema,
  auditSchema,
  changePasswordSchema,
  changePersonSchema,
  inviteSchema,
  meSchema,
  ownerSchema,
  peopleSchema,
  pinSchema,
  signInSchema,
  signOutSchema,
  switchSchema,
  type May,
} from './people';
import '../base/zod';
import * as z from 'zod';

/** The API: every route once, for server, browser and OpenAPI. */

export const KB = 1024;

/** Header of a write: the shop that it is for. Another shop refuses it; who does not say writes to whichever answers. */
export const SHOP_HEADER = 'hot-spline-shop';

export interface WireBody {
  readonly schema: z.ZodType;
  /** Most bytes. */
  readonly limit: number;
  /** Content types other than JSON. */
  readonly types?: readonly string[];
  /** JSON that the handler reads itself, on a thread where it is large. */
  readonly unread?: true;
  /** Too large to be held: the handler reads it as it comes. */
  readonly spooled?: true;
}

export interface WireAnswer {
  readonly description: string;
  readonly schema?: z.ZodType;
  readonly type?: string;
  /** Other types that it may have, by what is asked for. */
  readonly also?: Readonly<Record<string, string>>;
}

export interface WireRoute {
  /** Who may call it; not said: a looker where it only reads, a builder where it writes. */
  readonly may?: May;
  /** Nothing of it is kept: no line of the audit list is written for it. */
  readonly keeps?: false;
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** With parameters as OpenAPI writes them: `/builds/{id}`. */
  readonly path: string;
  readonly summary: string;
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: WireBody;
  readonly answers: Readonly<Record<number, WireAnswer>>;
  /** Statuses of the problem documents that it may answer with, beside 421 and 500. */
  readonly problems: readonly number[];
}

/** Who may call a route. */
export const mayCall = ({ may, method }: WireRoute): May => may ?? (method === 'get' ? 'looker' : 'builder');

const route = <R extends WireRoute>(one: R): R => one;
export const json = <S extends z.ZodType>(schema: S, description: string) => ({ schema, description });
export const body = <S extends z.ZodType>(schema: S, limit: number) => ({ schema, limit });

const CSV = { 'text/csv': 'a table, in UTF-8 with its mark' };

const calendarLinkSchema = z.object({ key: z.string().nullable() });

export const flag = z.enum(['true', 'false', '1', '0']).optional();

export const routes = {
  me: route({
    may: 'anyone',
    method: 'get',
    path: '/me',
    summary: 'Who is signed in on this device, and whether anybody has to.',
    answers: { 200: json(meSchema, 'who asks') },
    problems: [],
  }),
  signIn: route({
    may: 'anyone',
    method: 'post',
    path: '/sign-in',
    summary: 'Signs in by name and password: a session of its own, in a cookie that no script reads.',
    body: body(signInSchema, KB),
    answers: { 200: json(meSchema, 'who is signed in now') },
    problems: [400, 401, 409, 413, 415, 422, 429],
  }),
  signOut: route({
    may: 'looker',
    method: 'post',
    path: '/sign-out',
    summary: 'Signs out here, or wherever this person is signed in.',
    body: body(signOutSchema, KB),
    answers: { 200: json(meSchema, 'nobody is signed in here') },
    problems: [400, 401, 413, 415, 422],
  }),
  switchPerson: route({
    may: 'looker',
    method: 'post',
    path: '/switch',
    summary: 'Changes to another person who signed in on this device before, by PIN.',
    body: body(switchSchema, KB),
    answers: { 200: json(meSchema, 'who is signed in now') },
    problems: [400, 401, 413, 415, 422, 429],
  }),
  savePin: route({
    may: 'looker',
    method: 'put',
    path: '/me/pin',
    summary: 'Sets or takes away one’s own PIN.',
    body: body(pinSchema, KB),
    answers: { 200: json(meSchema, 'kept') },
    problems: [400, 401, 413, 415, 422, 429],
  }),
  savePassword: route({
    may: 'looker',
    method: 'put',
    path: '/me/password',
    summary: 'Changes one’s own password, and signs out everywhere else.',
    body: body(changePasswordSchema, KB),
    answers: { 200: json(meSchema, 'kept') },
    problems: [400, 401, 413, 415, 422, 429],
  }),
  firstOwner: route({
    may: 'anyone',
    method: 'post',
    path: '/people/owner',
    summary: 'Makes the first owner, on the machine itself and while there is none.',
    body: body(ownerSchema, KB),
    answers: { 201: json(meSchema, 'the shop has an owner') },
    problems: [400, 403, 409, 413, 415, 422],
  }),
  people: route({
    may: 'owner',
    method: 'get',
    path: '/people',
    summary: 'Everybody who has an account, and who is invited.',
    answers: { 200: json(peopleSchema, 'people and invitations') },
    problems: [401],
  }),
  changePerson: route({
    may: 'owner',
    method: 'put',
    path: '/people/{id}',
    summary: 'Gives another role, or shuts and opens an account; who is shut out is signed out at once.',
    params: z.strictObject({ id: idSchema }),
    body: body(changePersonSchema, KB),
    answers: { 200: json(peopleSchema, 'people and invitations') },
    problems: [400, 401, 404, 409, 413, 415, 422],
  }),
  signOutPerson: route({
    may: 'owner',
    method: 'post',
    path: '/people/{id}/sign-out',
    summary: 'Signs somebody out wherever they are signed in.',
    params: z.strictObject({ id: idSchema }),
    answers: { 200: json(peopleSchema, 'people and invitations') },
    problems: [401, 404, 422],
  }),
  invite: route({
    may: 'owner',
    method: 'post',
    path: '/invitations',
    summary: 'Invites somebody to a role: a link that works once, for three days.',
    body: body(inviteSchema, KB),
    answers: {
      201: json(
        z.object({ id: idSchema, token: z.string(), until: z.string() }),
        'the link’s own part; it is shown once',
      ),
    },
    problems: [400, 401, 409, 413, 415, 422],
  }),
  acceptInvitation: route({
    may: 'anyone',
    method: 'post',
    path: '/invitations/accept',
    summary: 'Makes an account of an invitation, and signs in.',
    body: body(acceptSchema, KB),
    answers: { 201: json(meSchema, 'who is signed in now') },
    problems: [400, 409, 410, 413, 415, 422, 429],
  }),
  dropInvitation: route({
    may: 'owner',
    method: 'delete',
    path: '/invitations/{id}',
    summary: 'Takes an invitation back.',
    params: z.strictObject({ id: idSchema }),
    answers: { 200: json(peopleSchema, 'people and invitations') },
    problems: [401, 404, 422],
  }),
  audit: route({
    may: 'owner',
    method: 'get',
    path: '/audit',
    summary: 'Who did what from where, the newest first.',
    query: z.strictObject({
      before: z.coerce.number().int().min(1).optional(),
      limit: z.coerce.number().int().min(1).max(500).default(100),
    }),
    answers: { 200: json(auditSchema, 'a piece of it') },
    problems: [401, 422],
  }),
  presence: route({
    may: 'looker',
    keeps: false,
    method: 'post',
    path: '/presence',
    summary: 'Says where somebody is, to whoever listens; nothing of it is kept.',
    body: body(presenceSchema.strict(), KB),
    answers: { 200: json(z.object({ heard: z.int() }), 'how many listen here') },
    problems: [400, 401, 413, 415, 422],
  }),
  calendar: route({
    may: 'anyone',
    method: 'get',
    path: '/calendar.ics',
    summary: 'Promised days and rechecks as a calendar, to whoever has its secret link; no customer is in it.',
    query: z.strictObject({ key: z.string().max(80) }),
    answers: { 200: { description: 'iCalendar [RFC 5545]', type: 'text/calendar' } },
    problems: [404, 422],
  }),
  calendarLink: route({
    may: 'owner',
    method: 'get',
    path: '/calendar',
    summary: 'The secret part of the link to the calendar; null while there is none.',
    answers: { 200: json(calendarLinkSchema, 'its key') },
    problems: [401],
  }),
  makeCalendarLink: route({
    may: 'owner',
    method: 'post',
    path: '/calendar',
    summary: 'Makes a link to the calendar, in place of the one that was: that one leads nowhere any more.',
    answers: { 201: json(calendarLinkSchema, 'its key') },
    problems: [401],
  }),
  dropCalendarLink: route({
    may: 'owner',
    method: 'delete',
    path: '/calendar',
    summary: 'Takes the link to the calendar away.',
    answers: { 200: json(calendarLinkSchema, 'there is none') },
    problems: [401],
  }),
  health: route({
    may: 'anyone',
    method: 'get',
    path: '/health',
    summary: 'Whether the server and its database answer, and whether all that was kept is there.',
    answers: { 200: json(healthSchema, 'it answers; what is damaged or missing is named') },
    problems: [],
  }),
  check: route({
    may: 'owner',
    method: 'post',
    path: '/check',
    summary: 'Counts and hashes all that is kept, now; answers when it has looked through everything.',
    answers: { 200: json(healthSchema, 'it has been looked through') },
    problems: [],
  }),
  restore: route({
    may: 'owner',
    method: 'post',
    path: '/restore',
    summary: 'Brings a backup back into a shop that has nothing in it yet: all of it, or nothing.',
    body: { schema: z.unknown(), limit: 64 * KB * KB * KB, types: ['application/zip'], spooled: true },
    answers: {
      200: json(
        z.object({ shop: z.uuid(), made: z.string(), builds: z.int(), entries: z.int(), photos: z.int() }),
        'it is here, counted and hashed',
      ),
    },
    problems: [409, 415, 422],
  }),
  backup: route({
    may: 'owner',
    method: 'post',
    path: '/backup',
    summary:
      'Makes a backup now, opens it and reads it to its end; where nothing was written since, the last one stands.',
    answers: { 200: json(healthSchema, 'what became of it') },
    problems: [409],
  }),
  shop: route({
    method: 'get',
    path: '/shop',
    summary: 'Which shop this is.',
    answers: { 200: json(shopSchema, 'the shop') },
    problems: [],
  }),
  saveShop: route({
    may: 'owner',
    method: 'put',
    path: '/shop',
    summary:
      'Sets what is the shop’s own: the currency of its prices, the decimal sign, its name and mark on papers, what an hour costs. What is not told stays.',
    body: body(shopSettingsSchema, KB),
    answers: { 200: json(shopSchema, 'the shop as it is now') },
    problems: [400, 413, 415, 422],
  }),
  builds: route({
    method: 'get',
    path: '/builds',
    summary: 'Every build of the shop, also those that can’t be read.',
    answers: { 200: json(z.array(buildSummarySchema), 'the board') },
    problems: [],
  }),
  board: route({
    method: 'get',
    path: '/board',
    summary:
      'A piece of the board: builds by state and words, in order, with how many there are of each state; as CSV all that are found.',
    query: z.strictObject({
      search: z.string().trim().max(80).default(''),
      state: z.enum(BOARD_STATES).optional(),
      promised: z.enum(['overdue', 'week']).optional(),
      today: z.iso.date().optional(),
      archived: flag,
      sort: z.enum(['name', 'promised', 'updated', 'state']).default('name'),
      offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
      limit: z.coerce.number().int().min(1).max(200).default(100),
      as: z.enum(['json', 'csv']).default('json'),
    }),
    answers: { 200: { ...json(boardSchema, 'the piece'), also: CSV } },
    problems: [422],
  }),
  recall: route({
    method: 'get',
    path: '/recall',
    summary: 'Every build that has something in it, with the customer to call; without `of` what is in any of them.',
    query: z.strictObject({ of: z.string().trim().min(1).max(160).optional() }),
    answers: { 200: json(recallSchema, 'what there is, or who has it') },
    problems: [422],
  }),
  customers: route({
    method: 'get',
    path: '/customers',
    summary:
      'Customers of the shop: a name and a way to reach them, and how many builds are theirs. This is their export too.',
    answers: { 200: json(z.array(customerSchema), 'the customers') },
    problems: [],
  }),
  saveCustomer: route({
    method: 'put',
    path: '/customers/{id}',
    summary: 'Writes a customer, new or changed.',
    params: idParams,
    body: body(customerWriteSchema, 4 * KB),
    answers: { 200: json(customerSchema, 'kept') },
    problems: [400, 413, 415, 422],
  }),
  eraseCustomer: route({
    method: 'delete',
    path: '/customers/{id}',
    summary: 'Erases a customer: name and address are gone, builds stay without them.',
    params: idParams,
    answers: { 200: json(z.object({ id: idSchema, erased: z.literal(true) }), 'gone') },
    problems: [404, 422],
  }),
  createBuild: route({
    method: 'post',
    path: '/builds',
    summary: 'Takes a build file of any version in. The id is made by the caller, so that a retry doubles nothing.',
    body: { ...body(z.strictObject({ id: idSchema, file: z.unknown() }), 32 * KB * KB), unread: true },
    answers: { 201: json(saved, 'taken in'), 200: json(saved, 'it was here already, the same') },
    problems: [400, 409, 413, 415, 422],
  }),
  template: route({
    method: 'get',
    path: '/builds/template',
    summary:
      'A new build as the board begins one, to be filled in and sent to POST /api/builds: what nobody has said is named in `assumed`.',
    query: z.strictObject({
      name: z.string().trim().min(1).max(80),
      vehicle: buildSchema.shape.vehicle.default(''),
      use: buildSchema.shape.use,
      driven: buildSchema.shape.driven,
      power: z.enum(POWERS),
      construction: z.enum(CONSTRUCTIONS).optional(),
    }),
    answers: { 200: json(buildFileSchema, 'the file') },
    problems: [422],
  }),
  build: route({
    method: 'get',
    path: '/builds/{id}',
    summary: 'The specification of a build, in its newest version.',
    params: idParams,
    answers: { 200: json(storedBuildSchema, 'the build') },
    problems: [404, 422],
  }),
  saveBuild: route({
    method: 'put',
    path: '/builds/{id}',
    summary: 'Writes a new version on top of the one that it was made on.',
    params: idParams,
    body: body(saveBuildSchema, KB * KB),
    answers: { 200: json(saved, 'kept') },
    problems: [400, 404, 409, 413, 415, 422],
  }),
  buildVersion: route({
    method: 'get',
    path: '/builds/{id}/versions/{version}',
    summary: 'An earlier version of a build.',
    params: z.strictObject({ id: idSchema, version: z.coerce.number().int().min(1) }),
    answers: { 200: json(storedBuildSchema, 'the build as it was') },
    problems: [404, 422],
  }),
  archiveBuild: route({
    method: 'post',
    path: '/builds/{id}/archive',
    summary: 'Puts a build away or brings it back; nothing is ever deleted.',
    params: idParams,
    body: body(archiveSchema, KB),
    answers: { 200: json(archived, 'done') },
    problems: [400, 404, 413, 415, 422],
  }),
  figures: route({
    method: 'get',
    path: '/builds/{id}/figures',
    summary: 'Figures and findings of a build, as the screen shows them.',
    params: idParams,
    query: z.strictObject({
      axle: z.enum(AXLES).optional(),
      system: z.enum(['inch', 'metric']).default('metric'),
      gear: z.coerce.number().int().min(0).max(11).optional(),
      range: z.coerce.number().int().min(0).max(3).optional(),
      rpm: z.coerce.number().min(1).max(100_000).optional(),
      working: flag,
    }),
    answers: { 200: json(figuresSchema, 'figures and findings') },
    problems: [404, 422],
  }),
  exportBuild: route({
    method: 'get',
    path: '/builds/{id}/export',
    summary: 'A build with its ledger and photos as one file.',
    params: idParams,
    answers: { 200: json(buildFileSchema, 'the file') },
    problems: [404, 422],
  }),
  rawBuild: route({
    method: 'get',
    path: '/builds/{id}/raw',
    summary: 'A build and its ledger as they stand in the database, unchecked: for one that can’t be read.',
    params: idParams,
    answers: { 200: json(z.looseObject({ format: z.literal('hot-spline/raw-build') }), 'whatever is kept') },
    problems: [404, 422],
  }),
  ledger: route({
    method: 'get',
    path: '/builds/{id}/ledger',
    summary: 'Everything measured, decided, signed or voided on a build, in order.',
    params: idParams,
    query: z.strictObject({ as: z.enum(['json', 'csv']).default('json') }),
    answers: { 200: { ...json(z.array(ledgerEntrySchema), 'the ledger'), also: CSV } },
    problems: [404, 422],
  }),
  appendLedger: route({
    method: 'post',
    path: '/builds/{id}/ledger',
    summary:
      'Appends one entry. Nothing is ever changed, only voided. `over` says how many entries the ledger had when it was made: where it has moved on since, the entry is refused, with what came.',
    params: idParams,
    query: z.strictObject({ over: z.coerce.number().int().min(0).max(10_000_000).optional() }),
    body: body(ledgerEntrySchema, 64 * KB),
    answers: {
      201: json(z.object({ id: idSchema }), 'appended'),
      200: json(z.object({ id: idSchema }), 'the same was there'),
    },
    problems: [400, 404, 409, 413, 415, 422],
  }),
  archive: route({
    may: 'owner',
    method: 'get',
    path: '/archive',
    summary:
      'All that the shop has as one zip, written as it is read: builds with versions, ledgers and chains, library, photos, settings; customers unless `customers=false`.',
    query: z.strictObject({ customers: flag }),
    answers: { 200: { description: 'the archive', type: 'application/zip' } },
    problems: [422],
  }),
  arrivals: route({
    method: 'get',
    path: '/arrivals',
    summary: 'The archive that was sent last, if any: whoever looks sees how far it is.',
    answers: { 200: json(z.array(arrivalSchema), 'one or none') },
    problems: [],
  }),
  sendArchive: route({
    may: 'owner',
    method: 'post',
    path: '/arrivals',
    summary:
      'Takes an archive to bring in beside what is here, and begins to read it: nothing changes yet. One at a time: the one before is forgotten.',
    body: { schema: z.unknown(), limit: 64 * KB * KB * KB, types: ['application/zip'], spooled: true },
    answers: { 202: json(arrivalSchema, 'it is being read') },
    problems: [409, 415, 507],
  }),
  arrival: route({
    method: 'get',
    path: '/arrivals/{id}',
    summary: 'How far an archive is, and what bringing it in does.',
    params: idParams,
    answers: { 200: json(arrivalSchema, 'how far it is') },
    problems: [404, 422],
  }),
  takeArchive: route({
    may: 'owner',
    method: 'post',
    path: '/arrivals/{id}',
    summary:
      'Brings in an archive that was read, behind what others ask for: all of it, or nothing. Nothing of it is seen before all of it is here; done twice it changes nothing.',
    params: idParams,
    body: body(z.strictObject({ customers: z.boolean().default(true) }), KB),
    answers: { 202: json(arrivalSchema, 'it has begun') },
    problems: [400, 404, 409, 413, 415, 422],
  }),
  dropArchive: route({
    may: 'owner',
    method: 'delete',
    path: '/arrivals/{id}',
    summary:
      'Stops an archive that is on its way in and takes back what came of it; one that has arrived is forgotten.',
    params: idParams,
    answers: { 200: json(arrivalSchema, 'how it ended') },
    problems: [404, 422],
  }),
  changes: route({
    method: 'get',
    path: '/changes',
    summary:
      'What changes, as it happens, one event each: a build, an entry of a ledger, library, customers, the shop. `id` of an event is where it stands: `since`, or the header Last-Event-ID, goes on behind it; `all` says that any may have been missed.',
    // The second is for a browser: its service worker lets what has it in its address alone.
    query: z.strictObject({ since: z.string().max(60).optional(), 'ngsw-bypass': z.string().max(1).optional() }),
    answers: {
      200: { description: 'events; `data` is a change as JSON', type: 'text/event-stream', schema: changedSchema },
    },
    problems: [422, 503],
  }),
  setUps: route({
    method: 'get',
    path: '/set-ups',
    summary:
      'What all set-ups of the shop hold out of drawers, and what they teach the next axle of their spec; with `spec` the lessons of that one alone, with `drawer` what is held out of it alone. Noted behind each write: a moment later than it.',
    query: z.strictObject({ spec: z.string().max(120).optional(), drawer: idSchema.optional() }),
    answers: { 200: json(setUpsSchema, 'holdings and lessons') },
    problems: [422],
  }),
  library: route({
    method: 'get',
    path: '/library',
    summary: 'What the shop knows: axles, gearboxes, drawers, friction, its own ways.',
    answers: { 200: json(z.array(storedSpecSchema), 'the library') },
    problems: [],
  }),
  exportLibrary: route({
    method: 'get',
    path: '/library/export',
    summary: 'The library as one file: JSON, CSV with a line a value, or its drawers as a table.',
    query: z.strictObject({ as: z.enum(['json', 'csv', 'drawers']).default('json') }),
    answers: { 200: { ...json(libraryFileSchema, 'the file'), also: CSV } },
    problems: [422],
  }),
  saveSpec: route({
    method: 'put',
    path: '/library/{id}',
    summary: 'Writes a new version of a spec on top of the one that it was made on, 0 for a new one.',
    params: idParams,
    body: body(saveSpecSchema, 256 * KB),
    answers: { 201: json(saved, 'new'), 200: json(saved, 'kept') },
    problems: [400, 409, 413, 415, 422],
  }),
  archiveSpec: route({
    method: 'post',
    path: '/library/{id}/archive',
    summary: 'Takes a spec out of the library or brings it back; nothing is ever deleted.',
    params: idParams,
    body: body(archiveSchema, KB),
    answers: { 200: json(archived, 'done') },
    problems: [400, 404, 413, 415, 422],
  }),
  photo: route({
    method: 'get',
    path: '/photos/{id}',
    summary: 'A photo of a piece.',
    params: z.strictObject({ id: photoId }),
    answers: { 200: { description: 'the picture', type: 'image/*' } },
    problems: [404, 422],
  }),
  keepPhoto: route({
    method: 'put',
    path: '/photos/{id}',
    summary: 'Keeps a photo under the SHA-256 of its bytes.',
    params: z.strictObject({ id: photoId }),
    body: { schema: z.unknown(), limit: PHOTO_BYTES, types: PHOTO_TYPES },
    answers: { 201: json(z.object({ id: photoId }), 'kept') },
    problems: [413, 415, 422],
  }),
  standIn: route({
    method: 'get',
    path: '/gauges/{kind}',
    summary: 'A simulated gauge: one line of text an event, as a gauge on a serial line would send it.',
    params: z.strictObject({ kind: z.enum(STAND_INS) }),
    query: z.strictObject({
      /** What is there in truth, apart by semicolons; several are a ring that is rocked at each place. */
      values: z
        .string()
        .max(800)
        .regex(/^-?\d{1,5}(\.\d{1,6})?(;-?\d{1,5}(\.\d{1,6})?){0,71}$/, 'must be 1 to 72 numbers apart by ;'),
      seed: z.coerce.number().int().min(0).max(4_294_967_295).default(1),
    }),
    answers: { 200: { description: 'lines such as `+0.2013 mm`', type: 'text/event-stream' } },
    problems: [422, 503],
  }),
  calculations: route({
    may: 'anyone',
    method: 'get',
    path: '/calc',
    summary: 'Every public calculation.',
    answers: { 200: json(z.array(z.object({ name: z.string(), summary: z.string() })), 'names and summaries') },
    problems: [],
  }),
  describeCalculation: route({
    may: 'anyone',
    method: 'get',
    path: '/calc/{name}',
    summary: 'What a calculation takes and gives, as JSON Schema.',
    params: z.strictObject({ name: z.string().max(60) }),
    answers: { 200: json(z.looseObject({ name: z.string() }), 'its description') },
    problems: [422],
  }),
  /** Every calculation by its name; the description has a path for each. */
  calculate: route({
    may: 'looker',
    keeps: false,
    method: 'post',
    path: '/calc/{name}',
    summary: 'Runs a calculation.',
    params: z.strictObject({ name: z.string().max(60) }),
    query: z.strictObject({ working: flag }),
    body: body(z.unknown(), KB * KB),
    answers: { 200: json(z.looseObject({}), 'the result') },
    problems: [400, 413, 415, 422, 503, 504],
  }),
  openApi: route({
    may: 'anyone',
    method: 'get',
    path: '/openapi.json',
    summary: 'This description.',
    answers: { 200: json(z.looseObject({ openapi: z.literal('3.1.0') }), 'OpenAPI 3.1') },
    problems: [],
  }),
  schemas: route({
    may: 'anyone',
    method: 'get',
    path: '/schemas/{name}',
    summary: 'JSON Schema of a file format: build-file, shop-file or library-file.',
    params: z.strictObject({ name: z.enum(['build-file', 'shop-file', 'library-file']) }),
    answers: { 200: json(z.looseObject({ $schema: z.string() }), 'JSON Schema 2020-12, each key described') },
    problems: [422],
  }),
} as const satisfies Readonly<Record<string, WireRoute>>;
