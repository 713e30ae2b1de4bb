import { JOBS } from '@hot-spline/core/page';
import { idSchema } from '../base/fields';
import '../base/zod';
import * as z from 'zod';
import { BOARD_STATES, RESTS_FOR } from '../board/board-states';
import { MOST_WEEKS } from '../board/week';
import {
  boardSchema,
  boardWeekSchema,
  customerSchema,
  customerWriteSchema,
  idParams,
  recallSchema,
  scannedSchema,
} from './bodies';
import { hookSchema, hookWriteSchema, newHookSchema, partsToOrderSchema } from './hooks';
import { CSV, KB, body, flag, json, route, type WireRoute } from './route';

const calendarLinkSchema = z.object({ key: z.string().nullable() });

/** The board of the shop, and what goes from it to others: calendar, orders, programs that are told. */
export const boardRoutes = {
  board: route({
    method: 'get',
    path: '/board',
    summary:
      'A piece of the board: builds by state and words, in order, with how many there are of each state; as CSV all that are found.',
    query: z.strictObject({
      search: z.string().trim().max(80).default(''),
      state: z.enum(BOARD_STATES).optional(),
      worker: z.string().trim().min(1).max(60).optional(),
      rest: z.enum(RESTS_FOR).optional(),
      job: z.enum(JOBS).optional(),
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
  boardWeek: route({
    method: 'get',
    path: '/board/week',
    summary:
      'What is promised day by day against the hours that the shop has: what does not fit is said of every day; a day’s first builds are with it.',
    query: z.strictObject({
      today: z.iso.date().optional(),
      weeks: z.coerce.number().int().min(1).max(MOST_WEEKS).default(2),
    }),
    answers: { 200: json(boardWeekSchema, 'the days from today') },
    problems: [422],
  }),
  workers: route({
    method: 'get',
    path: '/board/workers',
    summary: 'Who has work on the board, by name.',
    answers: { 200: json(z.array(z.string()), 'their names') },
    problems: [],
  }),
  scan: route({
    method: 'get',
    path: '/scan',
    summary: 'What a code stands for that was scanned: a label of ours, a part number, or a name as it is written.',
    query: z.strictObject({ code: z.string().trim().min(1).max(1000) }),
    answers: { 200: json(scannedSchema, 'what it may be; nothing where nobody knows it') },
    problems: [422],
  }),
  partsToOrder: route({
    method: 'get',
    path: '/parts-to-order',
    summary: 'Parts that builds need and nobody has ordered, by supplier; as CSV a line each.',
    query: z.strictObject({ as: z.enum(['json', 'csv']).default('json') }),
    answers: { 200: { ...json(partsToOrderSchema, 'the parts'), also: CSV } },
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
  calendar: route({
    may: 'anyone',
    method: 'get',
    path: '/calendar.ics',
    summary:
      'Promised days, rechecks and what jobs wait for as a calendar, to whoever has its secret link; no customer is in it.',
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
  hooks: route({
    may: 'owner',
    method: 'get',
    path: '/hooks',
    summary: 'The programs that are told what happens here; no secret.',
    answers: { 200: json(z.array(hookSchema), 'what each took last, and what waits for it') },
    problems: [401],
  }),
  addHook: route({
    may: 'owner',
    method: 'post',
    path: '/hooks',
    summary: 'Tells another program from now on; the secret that its calls are signed with is answered once.',
    body: body(hookWriteSchema, 4 * KB),
    answers: { 201: json(newHookSchema, 'its id and secret') },
    problems: [400, 401, 409, 413, 415, 422],
  }),
  testHook: route({
    may: 'owner',
    keeps: false,
    method: 'post',
    path: '/hooks/{id}/test',
    summary: 'Tells it `test`, and whether it took it.',
    params: idParams,
    answers: { 200: json(z.object({ took: z.boolean(), problem: z.string() }), 'how it went') },
    problems: [401, 404, 422],
  }),
  dropHook: route({
    may: 'owner',
    method: 'delete',
    path: '/hooks/{id}',
    summary: 'Tells it nothing any more; what waited for it is gone.',
    params: idParams,
    answers: { 200: json(z.object({ id: idSchema, dropped: z.literal(true) }), 'it is gone') },
    problems: [401, 404, 422],
  }),
} as const satisfies Readonly<Record<string, WireRoute>>;
