import { FORMAT_VERSION, librarySpecSchema, type LibrarySpec, type StoredSpec } from '@hot-spline/model';
import type { Database, Queries } from '../db/database';
import { tell } from './tell';
import { lockId } from './touch';
import { open, same } from '../base/kept';

export type ListedSpec = Omit<StoredSpec, 'spec'> & {
  readonly spec: LibrarySpec | null;
  readonly unreadable: string | null;
};

export type SpecOutcome =
  | { readonly kind: 'saved'; readonly version: number }
  | { readonly kind: 'stale'; readonly current: ListedSpec | null }
  | { readonly kind: 'other-content' };

interface SpecRow extends Record<string, unknown> {
  readonly id: string;
  readonly version: number;
  readonly archived: boolean;
  readonly document: string;
  readonly format_version: number;
}

const listed = ({ id, version, archived, document, format_version }: SpecRow): ListedSpec => {
  const { value, unreadable } = open(librarySpecSchema, 'library-spec', format_version, document);
  return { id, version, archived, spec: value, unreadable };
};
const COLUMNS = 'id, version, archived, document::text as document, format_version';

/** Every spec; one that can't be read says why. */
export async function listSpecs(db: Queries): Promise<ListedSpec[]> {
  const rows = await db.query<SpecRow>(`select ${COLUMNS} from library order by archived, kind, name, id`);
  return rows.map(listed);
}

/** The version of a spec; 0 where there is none. */
export async function specVersion(db: Queries, id: string): Promise<number> {
  const [row] = await db.query<{ version: number }>('select version from library where id = $1', [id]);
  return row?.version ?? 0;
}

/** Writes a new version on top of `baseVersion`, 0 for a new spec; an acknowledged write is acknowledged again. */
export async function saveSpec(
  db: Database,
  id: string,
  { writeId, baseVersion, who, spec }: { writeId: string; baseVersion: number; who: string; spec: LibrarySpec },
): Promise<SpecOutcome> {
  return db.transaction(async (tx) => {
    await lockId(tx, id);
    const [again] = await tx.query<{ spec_id: string; version: number; document: string; format_version: number }>(
      'select spec_id, version, document::text as document, format_version from library_versions where write_id = $1',
      [writeId],
    );
    if (again) {
      const { value } = open(librarySpecSchema, 'library-spec', again.format_version, again.document);
      return again.spec_id === id && value && same(value, spec)
        ? { kind: 'saved', version: again.version }
        : { kind: 'other-content' };
    }
    await tx.query('select id from library where id = $1 for update', [id]);
    const [row] = await tx.query<SpecRow>(`select ${COLUMNS} from library where id = $1`, [id]);
    if ((row?.version ?? 0) !== baseVersion) return { kind: 'stale', current: row ? listed(row) : null };
    const version = baseVersion + 1;
    const document = JSON.stringify(spec);
    await tx.query(
      row
        ? `update library set kind = $2, name = $3, version = $4, document = $5, format_version = $6,
           updated_at = now() where id = $1`
        : 'insert into library (id, kind, name, version, document, format_version) values ($1, $2, $3, $4, $5, $6)',
      [id, spec.kind, spec.name, version, document, FORMAT_VERSION],
    );
    await tx.query(
      `insert into library_versions (spec_id, version, write_id, document, format_version, who)
       values ($1, $2, $3, $4, $5, $6)`,
      [id, version, writeId, document, FORMAT_VERSION, who],
    );
    await tell(tx, { of: 'library', id });
    return { kind: 'saved', version };
  });
}

/** Takes a spec out of the library, or brings it back; nothing is ever deleted. */
export async function archiveSpec(db: Database, id: string, archived: boolean): Promise<boolean> {
  return db.transaction(async (tx) => {
    const rows = await tx.query('update library set archived = $2 where id = $1 returning id', [id, archived]);
    if (rows.length > 0) await tell(tx, { of: 'library', id });
    return rows.length > 0;
  });
}
