import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FORMAT_VERSION } from '@hot-spline/model';
import yazl from 'yazl';
import type { Database, Queries, Row } from '../db/database';

export const ARCHIVE = 'hot-spline/archive';
export const MANIFEST = 'manifest.json';

/** A row as it is kept: the table, and each column as the database writes it as text. */
export type Line = readonly [table: string, row: Readonly<Record<string, string | null>>];

/** What is in an archive, with the SHA-256 of every file in it. */
export interface Manifest {
  readonly format: typeof ARCHIVE;
  readonly formatVersion: number;
  readonly shop: string;
  readonly made: string;
  /** What it held when it was made: the same again is the same shop. */
  readonly state: string;
  readonly counts: { readonly builds: number; readonly entries: number; readonly photos: number };
  readonly files: readonly { readonly name: string; readonly sha256: string }[];
}

/** Columns that are worked out anew where an archive is opened. */
const DERIVED: Readonly<Record<string, readonly string[]>> = {
  builds: ['surveyed', 'stale', 'facets', 'state', 'work'],
};

export async function columnsOf(
  db: Queries,
  table: string,
): Promise<{ readonly name: string; readonly type: string }[]> {
  const rows = await db.query<{ name: string; type: string }>(
    `select column_name as name, udt_name as type from information_schema.columns
     where table_schema = current_schema() and table_name = $1 order by ordinal_position`,
    [table],
  );
  return rows.filter(({ name }) => !(DERIVED[table] ?? []).includes(name));
}

async function linesOf(db: Queries, table: string, rest: string, params: readonly unknown[] = []): Promise<Line[]> {
  const columns = (await columnsOf(db, table)).map(({ name }) => `"${name}"::text as "${name}"`);
  // Ordered by the column, with its table: a bare name would be that of the text.
  const rows = await db.query(`select ${columns.join(', ')} from ${table} ${rest}`, params);
  return rows.map((row) => [table, row as Record<string, string | null>]);
}

const asText = (lines: readonly Line[]): Buffer =>
  Buffer.from(lines.map((line) => `${JSON.stringify(line)}\n`).join(''), 'utf8');

/** A number for all that is kept: while it stays, nothing was written. */
export async function stateOf(db: Queries): Promise<string> {
  const hash = createHash('sha256');
  for (const text of [
    'select id, ledger_count, ledger_head, version, version_head, archived, customer from builds order by id',
    'select id, version, archived from library order by id',
    'select key, value from settings order by key',
    'select id from photos order by id',
    'select id, name, reach from customers order by id',
  ])
    hash.update(JSON.stringify(await db.query(text)));
  return hash.digest('hex');
}

/**
 * Writes all that a shop has into one zip, row by row as it is kept: builds with their versions, ledgers and chains, the library,
 * photos as files, settings, customers. One build after the other: each is whole, others write meanwhile.
 * @param file written beside first, and only then called so
 * @param signal stops it before the next build or photo
 * @throws what the disk says; no half of a file is left
 */
export async function writeArchive(db: Database, shop: string, file: string, signal?: AbortSignal): Promise<Manifest> {
  const draft = `${file}.part`;
  const zip = new yazl.ZipFile();
  const files: { name: string; sha256: string }[] = [];
  const failed = new Promise<never>((_, reject) => zip.once('error', reject));
  /** Read when its turn comes: never more than one of them is in memory. */
  const add = (name: string, compress: boolean, read: () => Promise<Uint8Array>): void =>
    zip.addReadStreamLazy(name, { compress }, (give) => {
      if (signal?.aborted === true) return void zip.emit('error', new Error('It was stopped.'));
      read().then(
        (bytes) => {
          files.push({ name, sha256: createHash('sha256').update(bytes).digest('hex') });
          give(null, Readable.from([bytes]));
        },
        (error: unknown) => zip.emit('error', error),
      );
    });

  const state = await stateOf(db);
  const builds = await db.query<{ id: string }>('select id from builds order by id');
  const photos = await db.query<{ id: string; type: string }>('select id, type from photos order by id');
  let entries = 0;
  add('shop.ndjson', true, async () =>
    asText([
      ...(await linesOf(db, 'settings', 'order by key')),
      ...(await linesOf(db, 'customers', 'order by id')),
      ...(await linesOf(db, 'library', 'order by id')),
      ...(await linesOf(db, 'library_versions', 'order by spec_id, library_versions.version')),
    ]),
  );
  for (const { id } of builds)
    add(`builds/${id}.ndjson`, true, () =>
      db.transaction(async (tx) => {
        const ledger = await linesOf(tx, 'ledger', 'where build_id = $1 order by ledger.seq', [id]);
        entries += ledger.length;
        return asText([
          ...(await linesOf(tx, 'builds', 'where id = $1', [id])),
          ...(await linesOf(tx, 'build_versions', 'where build_id = $1 order by build_versions.version', [id])),
          ...ledger,
        ]);
      }),
    );
  for (const { id, type } of photos)
    add(`photos/${id}.${type.replace('image/', '')}`, false, async () => {
      const [row] = await db.query<Row & { bytes: Uint8Array }>('select bytes from photos where id = $1', [id]);
      return row?.bytes ?? new Uint8Array();
    });
  let manifest: Manifest | null = null;
  zip.addReadStreamLazy(MANIFEST, (give) => {
    const counts = { builds: builds.length, entries, photos: photos.length };
    const made = new Date().toISOString();
    manifest = { format: ARCHIVE, formatVersion: FORMAT_VERSION, shop, made, state, counts, files };
    give(null, Readable.from([Buffer.from(JSON.stringify(manifest, null, 1))]));
  });
  zip.end();
  try {
    await Promise.race([pipeline(zip.outputStream, createWriteStream(draft)), failed]);
    const handle = await open(draft, 'r+');
    await handle.sync();
    await handle.close();
    await rename(draft, file);
  } catch (error) {
    await rm(draft, { force: true });
    throw error;
  }
  if (!manifest) throw new Error('The archive has no manifest.');
  return manifest;
}
