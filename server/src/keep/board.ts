import {
  BOARD_STATES,
  NO_WORK,
  stands,
  type Board,
  type BoardRow,
  type BoardState,
  type BoardWork,
  type BuildSummary,
  type Customer,
  type CustomerWrite,
  type Recall,
  type RestsFor,
} from '@hot-spline/model';
import type { Job } from '@hot-spline/core';
import type { Database, Queries } from '../db/database';
import { tell } from './tell';

interface Row extends Record<string, unknown> {
  /** How many builds stand in each state, as JSON. */
  readonly states: string;
  readonly id: string;
  readonly name: string;
  readonly vehicle: string;
  readonly use: string;
  readonly version: number;
  readonly archived: boolean;
  readonly updated_at: Date | string;
  readonly rechecks: string;
  readonly unreadable: string | null;
  readonly promised: string | null;
  readonly worker: string;
  readonly customer: string | null;
  readonly work: string;
}

const ORDER = {
  name: 'b.name, b.id',
  promised: 'b.promised nulls last, b.name, b.id',
  updated: 'b.updated_at desc, b.id',
  state: 'array_position($1::text[], b.stands), b.promised nulls last, b.name, b.id',
} as const;

export interface BoardQuestion {
  readonly search: string;
  readonly state?: BoardState | undefined;
  /** Whose work it is: the whole name, as it is written. */
  readonly worker?: string | undefined;
  /** What it waits for. */
  readonly rest?: RestsFor | undefined;
  readonly job?: Job | undefined;
  /** Promised for this day or one before it [ISO 8601]. */
  readonly until?: string | undefined;
  /** By the day that it is promised for. */
  readonly promised?: 'overdue' | 'week' | undefined;
  /** The day it is, ISO 8601. */
  readonly today: string;
  readonly archived: boolean;
  readonly sort: keyof typeof ORDER;
  readonly offset: number;
  /** Null for all. */
  readonly limit: number | null;
}

const TODAY = '$6::text';
/** Where a job stands now: `stands` of the model, as the database says it. */
const STANDS = `case when b.recheck_on <= ${TODAY} then 'due'
  when b.state not in ('due', 'waiting') and b.sets_until > $7::timestamptz then 'waiting' else b.state end`;

/** The next text after all that begin with this one, by the order of bytes. */
const past = (word: string): string => `${word}\u{10ffff}`;

/** The day it is here, where who asks has not said which it is there. */
export const serverDay = (now = new Date()): string =>
  [now.getFullYear(), now.getMonth() + 1, now.getDate()].map((n) => String(n).padStart(2, '0')).join('-');

/** What finds what is lent, and no “silent” or “equivalent”. */
const LENT = 'lent';

/**
 * A piece of the board: every word is found somewhere in name, car, use, worker, parts or customer, or begins a word of what
 * was written in the ledger. A worker’s whole name finds what is theirs, “lent” what is lent.
 */
export async function readBoard(db: Queries, ask: BoardQuestion): Promise<Board> {
  const now = new Date().toISOString();
  const params: unknown[] = [
    ...[[...BOARD_STATES], ask.archived, ask.limit, ask.offset, ask.state ?? null],
    ...[ask.today, now],
  ];
  const name = ask.search.trim().toLowerCase();
  const [theirs] =
    name === '' || name === LENT
      ? []
      : await db.query<{ worker: string }>('select worker from builds where lower(worker) = $1 limit 1', [name]);
  const words = (theirs || name === LENT ? '' : ask.search)
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => {
      const at = params.push(`%${word.replace(/[\\%_]/g, (one) => `\\${one}`)}%`, word, past(word));
      return `and (b.facets like $${at - 2}
                or b.customer in (select id from customers where lower(name) like $${at - 2})
                or b.id in (select build_id from build_words where word >= $${at - 1} and word < $${at}))`;
    });
  const found = [...words];
  if (theirs) found.push(`and lower(b.worker) = $${params.push(name)}`);
  if (name === LENT) found.push(`and b.lent`);
  if (ask.worker !== undefined) found.push(`and b.worker = $${params.push(ask.worker)}`);
  if (ask.rest !== undefined) {
    const rest = `$${params.push(ask.rest)}`;
    found.push(`and ${STANDS} = 'waiting' and case when b.rest <> '' then b.rest else 'curing' end = ${rest}`);
  }
  if (ask.job !== undefined) found.push(`and $${params.push(ask.job)} = any(string_to_array(b.jobs, ' '))`);
  if (ask.until !== undefined) found.push(`and b.promised <= $${params.push(ask.until)}`);
  if (ask.promised)
    found.push(
      ask.promised === 'overdue'
        ? `and b.promised < ${TODAY} and b.state <> 'done'`
        : `and b.promised >= ${TODAY} and b.promised <= ((${TODAY})::date + 7)::text`,
    );
  // The search runs once, for the counts and for the piece alike.
  const rows = await db.query<Row>(
    `with hit as ${found.length > 0 ? '' : 'not '}materialized (
       select b.id, ${STANDS} as stands, b.name, b.promised, b.updated_at from builds b where b.archived = $2 ${found.join(' ')}
     ), counted as (
       select coalesce(json_object_agg(stands, n), '{}')::text as states
       from (select stands, count(*) as n from hit group by stands) each
     ), piece as (
       select b.id, b.stands from hit b where $5::text is null or b.stands = $5 order by ${ORDER[ask.sort]} limit $3 offset $4
     )
     select counted.states, b.id, b.name, b.vehicle, b.use, b.version, b.archived, b.updated_at, b.rechecks, b.unreadable,
            b.promised, b.worker, b.owner as customer, b.work
     from counted left join lateral (
       select w.*, piece.stands, c.name as owner from piece join builds w on w.id = piece.id left join customers c on c.id = w.customer
     ) b on true
     where $1::text[] is not null and $6::text is not null and $7::text is not null order by ${ORDER[ask.sort]}`,
    params,
  );
  const states = JSON.parse(rows[0]?.states ?? '{}') as Board['states'];
  const total = Object.entries(states).reduce(
    (sum, [state, n]) => sum + (ask.state === undefined || state === ask.state ? n : 0),
    0,
  );
  return {
    rows: rows
      .filter(({ id }) => id !== null)
      .map(({ states: _, updated_at, rechecks: kept, work, ...row }): BoardRow => {
        const rechecks = JSON.parse(kept) as BuildSummary['rechecks'];
        return {
          ...row,
          updatedAt: new Date(updated_at).toISOString(),
          rechecks,
          work: stands({ ...NO_WORK, ...(JSON.parse(work) as Partial<BoardWork>) }, rechecks, {
            today: ask.today,
            now,
          }),
        };
      }),
    total,
    whose: theirs?.worker ?? null,
    states,
  };
}

/** Who has work here, by name. */
export async function listWorkers(db: Queries): Promise<string[]> {
  const rows = await db.query<{ worker: string }>(
    `select distinct worker from builds where worker <> '' and not archived order by worker`,
  );
  return rows.map(({ worker }) => worker);
}

/** Every build that has something in it; without a question, what is in any. */
export async function recall(db: Queries, of: string | undefined): Promise<Recall> {
  if (of === undefined) {
    const facets = await db.query<{ facet: string; builds: number }>(
      'select facet, count(*)::int as builds from build_facets group by facet order by facet limit 5000',
    );
    return { facets, builds: [] };
  }
  const builds = await db.query<Recall['builds'][number]>(
    `select b.id, b.name, b.vehicle, coalesce(c.name, '') as customer, coalesce(c.reach, '') as reach
     from build_facets f join builds b on b.id = f.build_id left join customers c on c.id = b.customer
     where f.facet = $1 order by b.name, b.id`,
    [of],
  );
  return { facets: [{ facet: of, builds: builds.length }], builds };
}

export const listCustomers = (db: Queries): Promise<Customer[]> =>
  db.query<Customer & Record<string, unknown>>(
    `select c.id, c.name, c.reach, count(b.id)::int as builds
     from customers c left join builds b on b.customer = c.id group by c.id, c.name, c.reach order by c.name, c.id`,
  );

export async function saveCustomer(db: Database, id: string, { name, reach }: CustomerWrite): Promise<Customer> {
  await db.transaction(async (tx) => {
    await tx.query(
      `insert into customers (id, name, reach) values ($1, $2, $3)
       on conflict (id) do update set name = excluded.name, reach = excluded.reach`,
      [id, name, reach],
    );
    await tell(tx, { of: 'customers' });
  });
  const [row] = await db.query<{ builds: number }>('select count(*)::int as builds from builds where customer = $1', [
    id,
  ]);
  return { id, name, reach, builds: row?.builds ?? 0 };
}

/** Name and address are gone; what named the customer finds nobody any more. @returns whether there was one */
export async function eraseCustomer(db: Database, id: string): Promise<boolean> {
  return db.transaction(async (tx) => {
    const rows = await tx.query('delete from customers where id = $1 returning id', [id]);
    if (rows.length > 0) await tell(tx, { of: 'customers' });
    return rows.length > 0;
  });
}
