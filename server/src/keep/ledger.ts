import { InputError } from '@hot-spline/core';
import { FORMAT_VERSION, ledgerEntrySchema, type LedgerEntry } from '@hot-spline/model';
import { touchBuild } from './touch';
import type { Database, Queries } from '../db/database';
import { open, same } from './kept';
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

async function insert(db: Queries, buildId: string, entry: LedgerEntry): Promise<boolean> {
  const rows = await db.query(
    `insert into ledger (build_id, id, kind, voids, entry, format_version) values ($1, $2, $3, $4, $5, $6)
     on conflict (build_id, id) do nothing returning seq`,
    [buildId, entry.id, entry.kind, entry.kind === 'void' ? entry.voids : null, JSON.stringify(entry), FORMAT_VERSION],
  );
  return rows.length > 0;
}

/** Appends checked entries of an import, in order. */
export async function appendAll(db: Queries, buildId: string, entries: readonly LedgerEntry[]): Promise<void> {
  for (const entry of entries) await insert(db, buildId, entry);
}

export type AppendOutcome = 'appended' | 'already-there' | 'unknown-build';

/**
 * Appends one entry. Its id is made in the browser: the same entry again is acknowledged again.
 * @param check what else has to hold, in the same transaction
 * @throws InputError on `voids` for an entry that is none of this build, is a void itself, or is voided already
 * @throws Problem 409 where another entry is kept under the id
 */
export async function append(
  db: Database,
  buildId: string,
  entry: LedgerEntry,
  check?: (tx: Queries, entry: LedgerEntry) => Promise<void>,
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
    await insert(tx, buildId, entry);
    await touchBuild(tx, buildId);
    return 'appended';
  });
}
