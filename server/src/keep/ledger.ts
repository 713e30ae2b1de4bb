import { InputError } from '@hot-spline/core';
import { FORMAT_VERSION, ledgerEntrySchema, type LedgerEntry } from '@hot-spline/model';
import { tell } from './tell';
import { touchBuild } from './touch';
import type { Database, Queries } from '../db/database';
import { linkHash } from './chain';
import { open, same } from '../base/kept';
import { Problem } from '../base/problem';

/**
 * The ledger of a build, in order.
 * @throws Problem 422 naming the first entry that can't be read
 */
export async function readLedger(db: Queries, buildId: string): Promise<LedgerEntry[]> {
  const rows = await db.query<{ entry: string; format_version: number; id: string }>(
    'select id, entry::text as entry, format_version from ledger where build_id = $1 order by seq',
    [buildId],
  );
  return rows.map(({ id, entry, format_version }) => {
    const opened = open(ledgerEntrySchema, 'ledger-entry', format_version, entry);
    if (opened.value) return opened.value;
    throw new Problem(
      422,
      'unreadable',
      'The ledger can’t be read',
      `Entry ${id}: ${opened.unreadable ?? ''} It is kept as it is: /api/builds/${buildId}/raw.`,
    );
  });
}

/** Entries of one build at most: ours, far above what anybody reads of one car. */
export const MOST_ENTRIES = 100_000;
/** Entries that go to the database in one statement. */
const AT_ONCE = 500;

/** An entry as it is kept. */
export interface EntryRow {
  readonly id: string;
  readonly kind: string;
  readonly voids: string | null;
  readonly format: number;
  readonly text: string;
}

const rowOf = (entry: LedgerEntry): EntryRow => ({
  id: entry.id,
  kind: entry.kind,
  voids: entry.kind === 'void' ? entry.voids : null,
  format: FORMAT_VERSION,
  text: JSON.stringify(entry),
});

/** Puts entries behind those that are there, each with its link. The build’s row must be locked. */
export async function insertRows(tx: Queries, buildId: string, rows: readonly EntryRow[]): Promise<void> {
  const [at] = await tx.query<{ ledger_count: number; ledger_head: string }>(
    'select ledger_count, ledger_head from builds where id = $1',
    [buildId],
  );
  let count = at?.ledger_count ?? 0;
  let head = at?.ledger_head ?? '';
  for (let from = 0; from < rows.length; from += AT_ONCE) {
    const params: unknown[] = [buildId];
    const values = rows.slice(from, from + AT_ONCE).map(({ id, kind, voids, format, text }) => {
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

/** Entries of an import, in order; one that stands there twice is one. */
export function onceEach(entries: readonly LedgerEntry[]): readonly LedgerEntry[] {
  const once = new Map<string, LedgerEntry>();
  for (const entry of entries) if (!once.has(entry.id)) once.set(entry.id, entry);
  return [...once.values()];
}

/** Appends checked entries of an import. */
export async function appendAll(db: Queries, buildId: string, entries: readonly LedgerEntry[]): Promise<void> {
  const rows = onceEach(entries).map(rowOf);
  if (rows.length > 0) await insertRows(db, buildId, rows);
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
    const [{ count } = { count: 0 }] = await tx.query<{ count: number }>(
      'select count(*)::int as count from ledger where build_id = $1',
      [buildId],
    );
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
