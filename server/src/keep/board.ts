import {
  BOARD_STATES,
  type Board,
  type BoardRow,
  type BoardState,
  type BoardWork,
  type BuildSummary,
  type Customer,
  type CustomerWrite,
  type Recall,
} from '@hot-spline/model';
import type { Database, Queries } from '../db/database';
import { tell } from './tell';

const EMPTY: BoardWork = { state: 'open', next: '', done: 0, of: 0, hold: '', takenH: 0, leftH: 0, due: '' };

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
  state: 'array_position($1::text[], b.state), b.promised nulls last, b.name, b.id',
} as const;

export interface BoardQuestion {
  readonly search: string;
  readonly state?: BoardState | undefined;
  /** By the day that it is promised for. */
  readonly promised?: 'overdue' | 'week' | undefined;
  /** The day it is, ISO 8601; not said: the server’s. */
  readonly today?: string | undefined;
  readonly archived: boolean;
  readonly sort: keyof typeof ORDER;
  readonly offset: number;
  /** Null for all. */
  readonly limit: number | null;
}

/** The next text after all that begin with this one, by the order of bytes. */
const past = (word: string): string => `${word}\u{10ffff}`;

/**
 * A piece of the board: every word is found somewhere in name, car, use, worker, parts or customer, or begins a word of what
 * was written in the ledger.
 */
export async function readBoard(db: Queries, ask: BoardQuestion): Promise<Board> {
  const params: unknown[] = [[...BOARD_STATES], ask.archived, ask.limit, ask.offset, ask.state ?? null];
  const name = ask.search.trim().toLowerCase();
  const [theirs] =
    name === ''
      ? []
      : await db.query<{ worker: string }>('select worker from builds where lower(worker) = $1 limit 1', [name]);
  const words = (theirs ? '' : ask.search)
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
  if (ask.promised) {
    const day = `$${params.push(ask.today ?? null)}`;
    const today = `coalesce(${day}::text, current_date::text)`;
    found.push(
      ask.promised === 'overdue'
        ? `and b.promised < ${today} and b.state <> 'done'`
        : `and b.promised >= ${today} and b.promised <= ((${today})::date + 7)::text`,
    );
  }
  // The search runs once, for the counts and for the piece alike.
  const rows = await db.query<Row>(
    `with hit as ${found.length > 0 ? '' : 'not '}materialized (
       select b.id, b.state, b.name, b.promised, b.updated_at from builds b where b.archived = $2 ${found.join(' ')}
     ), counted as (
       select coalesce(json_object_agg(state, n), '{}')::text as states
       from (select state, count(*) as n from hit group by state) each
     ), piece as (
       select b.id from hit b where $5::text is null or b.state = $5 order by ${ORDER[ask.sort]} limit $3 offset $4
     )
     select counted.states, b.id, b.name, b.vehicle, b.use, b.version, b.archived, b.updated_at, b.rechecks, b.unreadable,
            b.promised, b.worker, c.name as customer, b.work
     from counted left join (piece join builds b on b.id = piece.id left join customers c on c.id = b.customer) on true
     where $1::text[] is not null order by ${ORDER[ask.sort]}`,
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
      .map(({ states: _, updated_at, rechecks, work, ...row }): BoardRow => ({
        ...row,
        updatedAt: new Date(updated_at).toISOString(),
        rechecks: JSON.parse(rechecks) as BuildSummary['rechecks'],
        work: { ...EMPTY, ...(JSON.parse(work) as Partial<BoardWork>) },
      })),
    total,
    whose: theirs?.worker ?? null,
    states,
  };
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
