import { InputError } from '@hot-spline/core';
import type { LedgerEntry } from '@hot-spline/model';
import type { Database, Queries } from '../db/database';

export async function readLedger(db: Queries, buildId: string): Promise<LedgerEntry[]> {
  const rows = await db.query<{ entry: LedgerEntry }>('select entry from ledger where build_id = $1 order by seq', [
    buildId,
  ]);
  return rows.map((row) => row.entry);
}

async function insert(db: Queries, buildId: string, entry: LedgerEntry): Promise<boolean> {
  const rows = await db.query(
    `insert into ledger (build_id, id, kind, voids, entry) values ($1, $2, $3, $4, $5)
     on conflict (build_id, id) do nothing returning seq`,
    [buildId, entry.id, entry.kind, entry.kind === 'void' ? entry.voids : null, JSON.stringify(entry)],
  );
  return rows.length > 0;
}

/** Appends checked entries of an import, in order. */
export async function appendAll(db: Queries, buildId: string, entries: readonly LedgerEntry[]): Promise<void> {
  for (const entry of entries) await insert(db, buildId, entry);
}

export type AppendOutcome = 'appended' | 'already-there' | 'unknown-build';

/**
 * Appends one entry. Its id is made in the browser: an entry that is already there is acknowledged again.
 * @throws InputError on `voids` for an entry that is not a reading of this build, or that is voided already
 */
export async function append(db: Database, buildId: string, entry: LedgerEntry): Promise<AppendOutcome> {
  return db.transaction(async (tx) => {
    const builds = await tx.query('select id from builds where id = $1 for update', [buildId]);
    if (builds.length === 0) return 'unknown-build';
    const before = await tx.query('select id from ledger where build_id = $1 and id = $2', [buildId, entry.id]);
    if (before.length > 0) return 'already-there';
    if (entry.kind === 'void') {
      const [target] = await tx.query<{ kind: string; voided: boolean }>(
        `select kind, exists (select 1 from ledger v where v.build_id = l.build_id and v.voids = l.id) as voided
         from ledger l where build_id = $1 and id = $2`,
        [buildId, entry.voids],
      );
      if (target?.kind !== 'reading')
        throw new InputError('voids', 'voids names no reading of this build.', 'the id of a reading');
      if (target.voided)
        throw new InputError('voids', 'voids names a reading that is voided already.', 'the id of a reading in force');
    }
    await insert(tx, buildId, entry);
    return 'appended';
  });
}
