import type { Damage } from '@hot-spline/model';
import type { Queries } from '../db/database';
import { ChainReader, type Link } from './chain';

/** How the chains of a build are to end, as its row says. */
export interface HeadsRow extends Record<string, unknown> {
  readonly ledger_count: number;
  readonly ledger_head: string;
  readonly ledger_closed: number;
  readonly ledger_closing: string;
  readonly version: number;
  readonly version_head: string;
  readonly versions_closed: number;
  readonly versions_closing: string;
}

interface HeadRow extends HeadsRow {
  readonly id: string;
  readonly name: string;
}

/** A build as the folder remembers it, beside the database. */
export interface Remembered {
  readonly id: string;
  readonly name: string;
  readonly entries: number;
  readonly head: string;
  readonly version: number;
}

export const HEADS = `ledger_count, ledger_head, ledger_closed, ledger_closing,
  version, version_head, versions_closed, versions_closing`;

const toLink = ({ n, format_version: format, text, hash }: Record<string, unknown>): Link => ({
  n: n as number | null,
  format: format as number,
  text: text as string,
  hash: hash as string | null,
});

/** Links that are read at once. */
const AT_ONCE = 500;

/** What is wrong with what is kept of a build; null where all of it is as it was written. */
async function wrongWith(db: Queries, row: HeadRow): Promise<string | null> {
  const ledger = new ChainReader(
    { count: row.ledger_count, head: row.ledger_head, closed: row.ledger_closed, closing: row.ledger_closing },
    'entry',
  );
  for (let after = '0'; ;) {
    const entries = await db.query(
      `select n, format_version, entry::text as text, hash, seq::text as seq from ledger
       where build_id = $1 and seq > $2::bigint order by ledger.seq limit ${AT_ONCE}`,
      [row.id, after],
    );
    for (const entry of entries) ledger.take(toLink(entry));
    if (entries.length < AT_ONCE) break;
    after = entries.at(-1)?.['seq'] as string;
  }
  const broken = ledger.end();
  if (broken !== null) return broken;
  const chain = new ChainReader(
    { count: row.version, head: row.version_head, closed: row.versions_closed, closing: row.versions_closing },
    'version',
  );
  let last: unknown;
  for (let after = 0; ;) {
    const versions = await db.query(
      `select case when hash is null then null else version end as n, version, format_version, document::text as text, hash
       from build_versions where build_id = $1 and version > $2 order by version limit ${AT_ONCE}`,
      [row.id, after],
    );
    for (const version of versions) chain.take(toLink(version));
    last = versions.at(-1)?.['text'] ?? last;
    if (versions.length < AT_ONCE) break;
    after = versions.at(-1)?.['version'] as number;
  }
  const torn = chain.end();
  if (torn !== null) return torn;
  const [now] = await db.query<{ text: string }>('select document::text as text from builds where id = $1', [row.id]);
  return now?.text === last ? null : 'it is not its last version';
}

/** An error that the database reports of something in it, by a code of its own. */
export const isReported = (error: unknown): error is Error & { code: string } =>
  error instanceof Error && typeof (error as { code?: unknown }).code === 'string';

/** Checks one build. @returns null where nothing is wrong, and where there is none of that id */
export async function checkBuild(db: Queries, id: string): Promise<Damage | null> {
  const [row] = await db.query<HeadRow>(`select id, name, ${HEADS} from builds where id = $1`, [id]);
  if (!row) return null;
  try {
    const says = await wrongWith(db, row);
    if (says === null) return null;
    // Written while it was read: it is looked at once more.
    const [now] = await db.query<HeadRow>(`select id, name, ${HEADS} from builds where id = $1`, [id]);
    if (now && (now.ledger_count !== row.ledger_count || now.version !== row.version)) return await checkBuild(db, id);
    return { build: id, name: row.name, says };
  } catch (error) {
    // Its rows stand on a damaged page: the others are looked at all the same.
    if (!isReported(error)) throw error;
    return { build: id, name: row.name, says: `it can’t be read: ${error.message}` };
  }
}

export interface Checked {
  readonly builds: number;
  readonly damage: readonly Damage[];
}

/**
 * Counts and hashes all that is kept, build by build, between what others ask for.
 * @param remembered what the folder knows of it; empty where there is none
 * @param signal leaves it where it is
 */
export async function checkShop(
  db: Queries,
  remembered: readonly Remembered[],
  signal?: AbortSignal,
): Promise<Checked> {
  const rows = await db.query<{ id: string; ledger_count: number; version: number }>(
    'select id, ledger_count, version from builds order by name, id',
  );
  const damage: Damage[] = [];
  const known = new Map(rows.map((row) => [row.id, row]));
  for (const { id, name, entries, version } of remembered) {
    const row = known.get(id);
    if (!row) damage.push({ build: id, name, says: `the build is gone, and its ${entries} entries with it` });
    else if (row.ledger_count < entries || row.version < version)
      damage.push({ build: id, name, says: 'it is older than the folder remembers: what was written last is missing' });
  }
  const told = new Set(damage.map(({ build }) => build));
  for (const { id } of rows) {
    if (signal?.aborted === true) break;
    const one = told.has(id) ? null : await checkBuild(db, id);
    if (one) damage.push(one);
  }
  return { builds: rows.length, damage };
}

/** What the folder is to remember of every build. */
export async function toRemember(db: Queries): Promise<readonly Remembered[]> {
  return db.query<Remembered & Record<string, unknown>>(
    'select id, name, ledger_count as entries, ledger_head as head, version from builds order by id',
  );
}
