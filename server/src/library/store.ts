import type { LibrarySpec } from '@hot-spline/model';
import type { Database, Queries } from '../db/database';

export interface StoredSpec {
  readonly id: string;
  readonly version: number;
  readonly archived: boolean;
  readonly spec: LibrarySpec;
}

export type SpecOutcome =
  | { readonly kind: 'saved'; readonly version: number }
  | { readonly kind: 'stale'; readonly current: StoredSpec | null };

type Row = Omit<StoredSpec, 'spec'> & { readonly document: LibrarySpec };
const stored = ({ id, version, archived, document: spec }: Row): StoredSpec => ({ id, version, archived, spec });

export async function listSpecs(db: Queries): Promise<StoredSpec[]> {
  const rows = await db.query<Row>(
    'select id, version, archived, document from library order by archived, kind, name, id',
  );
  return rows.map(stored);
}

/** Writes a new version on top of `baseVersion`, 0 for a new spec; an acknowledged write is acknowledged again. */
export async function saveSpec(
  db: Database,
  id: string,
  { writeId, baseVersion, spec }: { writeId: string; baseVersion: number; spec: LibrarySpec },
): Promise<SpecOutcome> {
  return db.transaction(async (tx) => {
    const [again] = await tx.query<{ version: number }>(
      'select version from library_versions where spec_id = $1 and write_id = $2',
      [id, writeId],
    );
    if (again) return { kind: 'saved', version: again.version };
    const [row] = await tx.query<Row>('select id, version, archived, document from library where id = $1 for update', [
      id,
    ]);
    if ((row?.version ?? 0) !== baseVersion) return { kind: 'stale', current: row ? stored(row) : null };
    const version = baseVersion + 1;
    const document = JSON.stringify(spec);
    await tx.query(
      row
        ? 'update library set kind = $2, name = $3, version = $4, document = $5, updated_at = now() where id = $1'
        : 'insert into library (id, kind, name, version, document) values ($1, $2, $3, $4, $5)',
      [id, spec.kind, spec.name, version, document],
    );
    await tx.query('insert into library_versions (spec_id, version, write_id, document) values ($1, $2, $3, $4)', [
      id,
      version,
      writeId,
      document,
    ]);
    return { kind: 'saved', version };
  });
}

/** Takes a spec out of the library, or brings it back; nothing is ever deleted. */
export async function archiveSpec(db: Queries, id: string, archived: boolean): Promise<boolean> {
  return (await db.query('update library set archived = $2 where id = $1 returning id', [id, archived])).length > 0;
}
