import { InputError } from '@hot-spline/core';
import { ledgerEntrySchema, type LedgerEntry } from '@hot-spline/model';
import { tell } from './tell';
import { touchBuild } from './touch';
import type { Database, Queries } from '../db/database';
import { linkHash } from './chain';
import { open, same } from '../base/kept';
import { MOST_ENTRIES, rowOf, type EntryRow } from '../threads/prepare';
import { Problem } from '../base/problem';

/** What of a ledger can change what its build holds out of drawers: by the text, for what can’t be opened must not stop a question. */
const DRAWERS = `and (kind = 'void' or entry::text ~ '"what"\\s*:\\s*"(assembly|spacer)"')`;

/**
 * The ledger of a build, in order; `drawers`: what touches drawers alone.
 * @throws Problem 422 naming the first entry that can't be read
 */
export async function readLedger(
  db: Queries,
  buildId: string,
  only: 'all' | 'drawers' = 'all',
): Promise<LedgerEntry[]> {
  const rows = await db.query<{ entry: string; format_version: number; id: string }>(
    `select id, entry::text as entry, format_version from ledger
     where build_id = $1 ${only === 'drawers' ? DRAWERS : ''} order by seq`,
    [buildId],
  );
  return rows.map(({ id, entry, format_version }) => {
    const opened = open(ledgerEntrySchema, 'ledger-entry', format_version, entry);
    if (opened.value) return opened.value;
    throw unreadableLedger(buildId, `Entry ${id}: ${opened.unreadable ?? ''}`);
  });
}

/** A ledger that is there but can't be read. */
export const unreadableLedger = (buildId: string, why: string): Problem =>
  new Problem(422, 'unreadable', 'The ledger can’t be read', `${why} It is kept as it is: /api/builds/${buildId}/raw.`);

/** How many entries a build has; 0 where there is no such build. */
export async function countEntries(db: Queries, buildId: string): Promise<number> {
  const [row] = await db.query<{ n: number }>('select count(*)::int as n from ledger where build_id = $1', [buildId]);
  return row?.n ?? 0;
}

/** Entries that go to the database in one statement. */
const AT_ONCE = 500;

/** So many at a time. */
function* inPieces<T>(all: Iterable<T>, size: number): Generator<T[]> {
  let piece: T[] = [];
  for (const one of all)
    if (piece.push(one) === size) {
      yield piece;
      piece = [];
    }
  if (piece.length > 0) yield piece;
}

/** Whether a ledger begins with these rows, by its chain: nothing is opened. */
export async function beginsWith(
  db: Queries,
  buildId: string,
  rows: Iterable<EntryRow>,
  count: number,
): Promise<boolean> {
  const [at] = await db.query<{ hash: string | null }>('select hash from ledger where build_id = $1 and n = $2', [
    buildId,
    count,
  ]);
  let [head, n] = ['', 0];
  for (const some of inPieces(rows, AT_ONCE)) {
    for (const { format, text } of some) head = linkHash(head, ++n, format, text);
    await new Promise((resolve) => setImmediate(resolve));
  }
  return count === 0 || at?.hash === head;
}

/** Puts entries behind those that are there, each with its link. The build’s row must be locked. */
export async function insertRows(tx: Queries, buildId: string, rows: Iterable<EntryRow>): Promise<void> {
  const [at] = await tx.query<{ ledger_count: number; ledger_head: string }>(
    'select ledger_count, ledger_head from builds where id = $1',
    [buildId],
  );
  let count = at?.ledger_count ?? 0;
  let head = at?.ledger_head ?? '';
  for (const some of inPieces(rows, AT_ONCE)) {
    const params: unknown[] = [buildId];
    const values = some.map(({ id, kind, voids, format, text }) => {
      head = linkHash(head, ++count, format, text);
      const base = params.length;
      params.push(id, kind, voids, text, format, count, head);
      const [a, b, c, d, e, f, g] = [1, 2, 3, 4, 5, 6, 7].map((i) => `$${base + i}`);
      return `($1::uuid, ${a}::uuid, ${b}, ${c}::uuid, ${d}::json, ${e}::int, ${f}::int, ${g})`;
    });
    await tx.query(
      `insert into ledger (build_id, id, kind, voids, entry, format_version, n, hash) values ${values.join(', ')}`,
      params,
    );
  }
  await tx.query('update builds set ledger_count = $2, ledger_head = $3 where id = $1', [buildId, count, head]);
}

const movedOn = (id: string, over: number, count: number, yours: LedgerEntry): Problem =>
  new Problem(
    409,
    'moved-on',
    'The ledger has moved on',
    `This was made over ${over} entries, and there are ${count} now: what came since is in GET /api/builds/${id}/ledger.`,
    { over, count, yours },
  );

/** What else is done with an entry, in the same transaction. */
export interface AppendRules {
  /** What has to hold before. */
  readonly check?: (tx: Queries, entry: LedgerEntry) => Promise<void>;
  /** What follows from it. */
  readonly after?: (tx: Queries, entry: LedgerEntry) => Promise<void>;
  /** How many entries there were when it was made. */
  readonly over?: number | undefined;
}

export type AppendOutcome = 'appended' | 'already-there' | 'unknown-build';

/**
 * Appends one entry. Its id is made in the browser: the same entry again is acknowledged again.
 * @throws InputError on `voids` for an entry that is none of this build, is a void itself, or is voided already
 * @throws Problem 409 where another entry is kept under the id, or the ledger has moved on since it was made
 */
export async function append(
  db: Database,
  buildId: string,
  entry: LedgerEntry,
  { check, after, over }: AppendRules = {},
): Promise<AppendOutcome> {
  return db.transaction(async (tx) => {
    const builds = await tx.query('select id from builds where id = $1 for update', [buildId]);
    if (builds.length === 0) return 'unknown-build';
    const [before] = await tx.query<{ entry: string; format_version: number }>(
      'select entry::text as entry, format_version from ledger where build_id = $1 and id = $2',
      [buildId, entry.id],
    );
    if (before) {
      const { value } = open(ledgerEntrySchema, 'ledger-entry', before.format_version, before.entry);
      if (value && same(value, entry)) return 'already-there';
      throw new Problem(
        409,
        'other-content',
        'Another entry is kept here',
        `Under ${entry.id} there is another entry.`,
        {
          yours: entry,
          current: value,
        },
      );
    }
    const count = await countEntries(tx, buildId);
    if (count >= MOST_ENTRIES)
      throw new InputError('entry', `This build has ${count} entries already.`, `at most ${MOST_ENTRIES}`);
    if (over !== undefined && over !== count) throw movedOn(buildId, over, count, entry);
    if (entry.kind === 'void') {
      const [target] = await tx.query<{ kind: string; voided: boolean }>(
        `select kind, exists (select 1 from ledger v where v.build_id = l.build_id and v.voids = l.id) as voided
         from ledger l where build_id = $1 and id = $2`,
        [buildId, entry.voids],
      );
      if (!target || target.kind === 'void')
        throw new InputError(
          'voids',
          'voids names no reading, decision or signature of this build.',
          'the id of an entry that can be voided',
        );
      if (target.voided)
        throw new InputError('voids', 'voids names an entry that is voided already.', 'the id of an entry in force');
    }
    await check?.(tx, entry);
    await insertRows(tx, buildId, [rowOf(entry)]);
    await after?.(tx, entry);
    await touchBuild(tx, buildId);
    await tell(tx, { of: 'ledger', id: buildId, entry: entry.id, count: count + 1 });
    return 'appended';
  });
}
