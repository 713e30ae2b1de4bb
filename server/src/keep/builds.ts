import {
  FORMAT_VERSION,
  buildSchema,
  type Build,
  type BuildSummary,
  type LedgerEntry,
  type StoredBuild,
} from '@hot-spline/model';
import type { Database, Queries } from '../db/database';
import { writeHoldings } from './holdings';
import { noteBuild, rechecksOf } from './note';
import { linkHash } from './chain';
import { tell } from './tell';
import { open, same, type Opened } from '../base/kept';
import { beginsWith, insertRows, readLedger } from './ledger';
import { keepPhotoFiles } from './photos';
import type { Prepared } from '../threads/prepare';
import { Problem } from '../base/problem';

export type SaveOutcome =
  | { readonly kind: 'saved'; readonly version: number }
  | { readonly kind: 'stale'; readonly current: StoredBuild }
  | { readonly kind: 'other-content' }
  | { readonly kind: 'unknown' };

interface BuildRow extends Record<string, unknown> {
  readonly name: string;
  readonly version: number;
  readonly format_version: number;
  readonly document: string;
  readonly who: string;
  readonly written: Date | string;
}

/** The last that a row can have. */
const LAST_VERSION = 2_147_483_647;

const iso = (at: Date | string): string => new Date(at).toISOString();
const openBuild = ({ format_version, document }: Pick<BuildRow, 'format_version' | 'document'>): Opened<Build> =>
  open(buildSchema, 'build', format_version, document);

/** A build that is there but can't be read: the raw route gives it as it stands. */
export function unreadableBuild(id: string, why: string): Problem {
  return new Problem(
    422,
    'unreadable',
    'The build can’t be read',
    `${why} It is kept as it is: /api/builds/${id}/raw.`,
    {
      error: { field: 'build', message: why, allowed: 'a build that this program can read' },
    },
  );
}

/**
 * Looks once at every row that this program has not seen: what the board needs of it, or why it can't be read.
 * @returns how many rows can't be read
 */
export async function surveyBuilds(db: Queries): Promise<number> {
  const rows = await db.query<BuildRow & { id: string }>(
    'select id, format_version, document::text as document from builds where surveyed < $1',
    [FORMAT_VERSION],
  );
  let unreadable = 0;
  for (const row of rows) {
    const opened = openBuild(row);
    if (opened.unreadable !== null) unreadable++;
    await db.query('update builds set rechecks = $2, unreadable = $3, surveyed = $4 where id = $1', [
      row.id,
      JSON.stringify(opened.value ? rechecksOf(opened.value) : []),
      opened.unreadable,
      FORMAT_VERSION,
    ]);
    if (opened.value) await noteBuild(db, row.id, opened.value);
  }
  return unreadable;
}

type SummaryRow = Omit<BuildSummary, 'updatedAt' | 'rechecks'> & { updated_at: Date | string; rechecks: string };

export async function listBuilds(db: Queries): Promise<BuildSummary[]> {
  const rows = await db.query<SummaryRow>(
    `select id, name, vehicle, use, version, archived, updated_at, rechecks, unreadable
     from builds order by archived, name, id`,
  );
  return rows.map(({ updated_at, rechecks, ...row }) => ({
    ...row,
    updatedAt: iso(updated_at),
    rechecks: JSON.parse(rechecks) as BuildSummary['rechecks'],
  }));
}

async function readRow(db: Queries, id: string): Promise<BuildRow | null> {
  const [row] = await db.query<BuildRow>(
    `select name, version, format_version, document::text as document, who, updated_at as written
     from builds where id = $1`,
    [id],
  );
  return row ?? null;
}

/** A build as it stands in its row, unopened. */
export async function readKeptRow(
  db: Queries,
  id: string,
): Promise<{ id: string; name: string; version: number; format_version: number; document: string } | null> {
  const row = await readRow(db, id);
  return (
    row && { id, name: row.name, version: row.version, format_version: row.format_version, document: row.document }
  );
}

const stored = (id: string, row: BuildRow): StoredBuild => {
  const opened = openBuild(row);
  if (!opened.value) throw unreadableBuild(id, opened.unreadable ?? '');
  return { id, version: row.version, who: row.who, at: iso(row.written), build: opened.value };
};

/** @throws Problem 422 for a build that can't be read */
export async function readBuild(db: Queries, id: string): Promise<StoredBuild | null> {
  const row = await readRow(db, id);
  return row && stored(id, row);
}

/** An earlier version. @throws Problem 422 for one that can't be read */
export async function readVersion(db: Queries, id: string, version: number): Promise<StoredBuild | null> {
  if (version > LAST_VERSION) return null;
  const [row] = await db.query<BuildRow>(
    `select version, format_version, document::text as document, who, written_at as written
     from build_versions where build_id = $1 and version = $2`,
    [id, version],
  );
  return row ? stored(id, row) : null;
}

/** Whatever is kept under an id, unchecked. */
export async function rawBuild(db: Queries, id: string): Promise<Record<string, unknown> | null> {
  const row = await readRow(db, id);
  if (!row) return null;
  const ledger = await db.query<{ entry: string; format_version: number }>(
    'select entry::text as entry, format_version from ledger where build_id = $1 order by seq',
    [id],
  );
  return {
    format: 'hot-spline/raw-build',
    id,
    version: row.version,
    formatVersion: row.format_version,
    document: row.document,
    ledger: ledger.map(({ entry, format_version }) => ({ formatVersion: format_version, entry })),
  };
}

async function insertVersion(
  tx: Queries,
  id: string,
  version: number,
  writeId: string,
  who: string,
  document: string,
): Promise<void> {
  const [at] = await tx.query<{ version_head: string }>('select version_head from builds where id = $1', [id]);
  const hash = linkHash(at?.version_head ?? '', version, FORMAT_VERSION, document);
  await tx.query(
    `insert into build_versions (build_id, version, write_id, document, format_version, who, hash)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [id, version, writeId, document, FORMAT_VERSION, who, hash],
  );
  await tx.query('update builds set version_head = $2 where id = $1', [id, hash]);
}

/** What was written under a write id, on whichever build. */
async function written(tx: Queries, writeId: string): Promise<(BuildRow & { build_id: string }) | null> {
  const [row] = await tx.query<BuildRow & { build_id: string }>(
    `select build_id, version, format_version, document::text as document, who, written_at as written
     from build_versions where write_id = $1`,
    [writeId],
  );
  return row ?? null;
}

/**
 * Creates a build with everything measured on it. The id is made by the caller: a retry finds it done.
 * @throws Problem 409 where something else is kept under the id
 */
export async function createBuild(
  db: Database,
  prepared: Prepared,
): Promise<{ id: string; created: boolean; version: number }> {
  const { id, build, entries, holdings } = prepared.head;
  return db.transaction(async (tx) => {
    const document = JSON.stringify(build);
    const created = await tx.query(
      `insert into builds (id, name, vehicle, use, version, document, format_version, rechecks, surveyed)
       values ($1, $2, $3, $4, 1, $5, $6, $7, $6) on conflict (id) do nothing returning id`,
      [id, build.name, build.vehicle, build.use, document, FORMAT_VERSION, JSON.stringify(rechecksOf(build))],
    );
    if (created.length === 0) {
      const first = await readVersion(tx, id, 1);
      const current = await readBuild(tx, id);
      if (!first || !same(first.build, build))
        throw new Problem(409, 'other-content', 'Another build is kept here', `Under ${id} there is another build.`, {
          yours: build,
          current,
        });
      // What it began with stands first; what was read since comes behind it.
      if (!(await beginsWith(tx, id, prepared.rows(), entries))) {
        const ledger = [...prepared.rows()].map(({ text }) => JSON.parse(text) as LedgerEntry);
        const kept = await readLedger(tx, id);
        if (!same(kept.slice(0, entries), ledger))
          throw new Problem(
            409,
            'other-ledger',
            'Another ledger is kept here',
            `Under ${id} there is this build with another ledger: ${kept.length} entries here, ${entries} in yours.`,
            { yours: { build, ledger }, current, ledger: kept },
          );
      }
      return { id, created: false, version: current?.version ?? 1 };
    }
    await insertVersion(tx, id, 1, id, '', document);
    if (entries > 0) await insertRows(tx, id, prepared.rows());
    await noteBuild(tx, id, build);
    await writeHoldings(tx, id, holdings);
    await keepPhotoFiles(tx, prepared.photos());
    await tell(tx, { of: 'build', id, version: 1 });
    return { id, created: true, version: 1 };
  });
}

/** Writes a new version on top of `baseVersion`; a write that was already acknowledged is acknowledged again. */
export async function saveBuild(
  db: Database,
  id: string,
  write: { writeId: string; baseVersion: number; who: string; build: Build },
): Promise<SaveOutcome> {
  return db.transaction(async (tx) => {
    const locked = await tx.query('select id from builds where id = $1 for update', [id]);
    const row = locked.length > 0 ? await readRow(tx, id) : null;
    if (!row) return { kind: 'unknown' };
    const { build, who, writeId } = write;
    const again = await written(tx, writeId);
    if (again) {
      const kept = openBuild(again);
      return again.build_id === id && kept.value && same(kept.value, build)
        ? { kind: 'saved', version: again.version }
        : { kind: 'other-content' };
    }
    if (row.version !== write.baseVersion) return { kind: 'stale', current: stored(id, row) };
    const version = row.version + 1;
    const document = JSON.stringify(build);
    await tx.query(
      `update builds set version = $2, document = $3, name = $4, vehicle = $5, use = $6, updated_at = now(),
       format_version = $7, rechecks = $8, unreadable = null, surveyed = $7, who = $9 where id = $1`,
      [
        id,
        version,
        document,
        build.name,
        build.vehicle,
        build.use,
        FORMAT_VERSION,
        JSON.stringify(rechecksOf(build)),
        who,
      ],
    );
    await insertVersion(tx, id, version, writeId, who, document);
    await noteBuild(tx, id, build);
    await tell(tx, { of: 'build', id, version });
    return { kind: 'saved', version };
  });
}

/** Takes a build off the board, or brings it back; nothing is ever deleted. */
export async function archiveBuild(db: Database, id: string, archived: boolean): Promise<boolean> {
  return db.transaction(async (tx) => {
    const [row] = await tx.query<{ version: number }>(
      'update builds set archived = $2 where id = $1 returning version',
      [id, archived],
    );
    if (row) await tell(tx, { of: 'build', id, version: row.version });
    return row !== undefined;
  });
}
