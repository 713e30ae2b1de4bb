import type { Build, BuildFile } from '@hot-spline/model';
import type { Database, Queries } from '../db/database';
import { appendAll, readLedger } from '../ledger/store';
import { keepPhotoFiles, photoFiles } from '../photos/store';

export interface BuildSummary {
  readonly id: string;
  readonly name: string;
  readonly vehicle: string;
  readonly use: string;
  readonly version: number;
  readonly updatedAt: string;
  readonly archived: boolean;
  /** Days on which an axle is to be looked at again, the first first. */
  readonly rechecks: readonly { readonly on: string; readonly why: string }[];
}

export interface StoredBuild {
  readonly id: string;
  readonly version: number;
  readonly build: Build;
}

export type SaveOutcome =
  | { readonly kind: 'saved'; readonly version: number }
  | { readonly kind: 'stale'; readonly current: StoredBuild }
  | { readonly kind: 'unknown' };

type Recheck = BuildSummary['rechecks'][number];
type SummaryRow = Omit<BuildSummary, 'updatedAt' | 'rechecks'> & {
  updated_at: Date | string;
  rear: Recheck | null;
  front: Recheck | null;
};

const RECHECK = (axle: string): string => `document #> '{axles,${axle},unit,plate,recheck}' as ${axle}`;

export async function listBuilds(db: Queries): Promise<BuildSummary[]> {
  const rows = await db.query<SummaryRow>(
    `select id, name, vehicle, use, version, archived, updated_at, ${RECHECK('rear')}, ${RECHECK('front')}
     from builds order by archived, name, id`,
  );
  return rows.map(({ updated_at, rear, front, ...row }) => ({
    ...row,
    updatedAt: new Date(updated_at).toISOString(),
    rechecks: [rear, front].filter((one) => one !== null).sort((a, b) => a.on.localeCompare(b.on)),
  }));
}

export async function readBuild(db: Queries, id: string): Promise<StoredBuild | null> {
  const [row] = await db.query<{ version: number; document: Build }>(
    'select version, document from builds where id = $1',
    [id],
  );
  return row ? { id, version: row.version, build: row.document } : null;
}

/** Creates a build with everything measured on it. The id is made by the caller: a retry finds it done. */
export async function createBuild(
  db: Database,
  id: string,
  { build, ledger, photos = [] }: BuildFile,
): Promise<{ created: boolean; version: number }> {
  return db.transaction(async (tx) => {
    const document = JSON.stringify(build);
    const created = await tx.query(
      `insert into builds (id, name, vehicle, use, version, document) values ($1, $2, $3, $4, 1, $5)
       on conflict (id) do nothing returning id`,
      [id, build.name, build.vehicle, build.use, document],
    );
    if (created.length === 0) return { created: false, version: (await readBuild(tx, id))?.version ?? 1 };
    await tx.query('insert into build_versions (build_id, version, write_id, document) values ($1, 1, $1, $2)', [
      id,
      document,
    ]);
    await appendAll(tx, id, ledger);
    await keepPhotoFiles(tx, photos);
    return { created: true, version: 1 };
  });
}

/** Writes a new version on top of `baseVersion`; a write that was already acknowledged is acknowledged again. */
export async function saveBuild(
  db: Database,
  id: string,
  write: { writeId: string; baseVersion: number; build: Build },
): Promise<SaveOutcome> {
  return db.transaction(async (tx) => {
    const [row] = await tx.query<{ version: number; document: Build }>(
      'select version, document from builds where id = $1 for update',
      [id],
    );
    if (!row) return { kind: 'unknown' };
    const [again] = await tx.query<{ version: number }>(
      'select version from build_versions where build_id = $1 and write_id = $2',
      [id, write.writeId],
    );
    if (again) return { kind: 'saved', version: again.version };
    if (row.version !== write.baseVersion)
      return { kind: 'stale', current: { id, version: row.version, build: row.document } };
    const version = row.version + 1;
    const { build } = write;
    const document = JSON.stringify(build);
    await tx.query(
      'update builds set version = $2, document = $3, name = $4, vehicle = $5, use = $6, updated_at = now() where id = $1',
      [id, version, document, build.name, build.vehicle, build.use],
    );
    await tx.query('insert into build_versions (build_id, version, write_id, document) values ($1, $2, $3, $4)', [
      id,
      version,
      write.writeId,
      document,
    ]);
    return { kind: 'saved', version };
  });
}

/** Takes a build off the board, or brings it back; nothing is ever deleted. */
export async function archiveBuild(db: Queries, id: string, archived: boolean): Promise<boolean> {
  return (await db.query('update builds set archived = $2 where id = $1 returning id', [id, archived])).length > 0;
}

export async function exportBuild(db: Database, id: string): Promise<BuildFile | null> {
  return db.transaction(async (tx) => {
    const stored = await readBuild(tx, id);
    if (!stored) return null;
    const photos = await photoFiles(tx, stored.build);
    return {
      format: 'hot-spline/build-file',
      formatVersion: 1,
      build: stored.build,
      ledger: await readLedger(tx, id),
      ...(photos.length > 0 ? { photos } : {}),
    };
  });
}
