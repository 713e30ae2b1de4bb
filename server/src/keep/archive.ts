import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { Readable, type Writable } from 'node:stream';
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
  /** Whether customers are in it, where the shop has any. */
  readonly customers: boolean;
  readonly counts: { readonly builds: number; readonly entries: number; readonly photos: number };
  readonly files: readonly { readonly name: string; readonly sha256: string }[];
}

/** Columns that are worked out anew where an archive is opened. */
const OF_A_BUILD = ['surveyed', 'stale', 'facets', 'state', 'work', 'held', 'unread'];
const DERIVED: Readonly<Record<string, readonly string[]>> = { builds: OF_A_BUILD, build_rows: OF_A_BUILD };

/** The columns of tables, each asked for once: that takes the database longer than the rows of a build. */
export class Columns {
  private readonly known = new Map<string, Promise<readonly { readonly name: string; readonly type: string }[]>>();

  /** Those that go with an archive, in order. */
  of(db: Queries, table: string): Promise<readonly { readonly name: string; readonly type: string }[]> {
    const known = this.known.get(table) ?? this.read(db, table);
    this.known.set(table, known);
    return known;
  }

  private async read(db: Queries, table: string): Promise<readonly { readonly name: string; readonly type: string }[]> {
    const rows = await db.query<{ name: string; type: string }>(
      `select column_name as name, udt_name as type from information_schema.columns
       where table_schema = current_schema() and table_name = $1 order by ordinal_position`,
      [table],
    );
    return rows.filter(({ name }) => !(DERIVED[table] ?? []).includes(name));
  }
}

/** Rows that are read at once. */
const AT_ONCE = 500;

/** What rows of a table are ordered and gone on by, with its type. */
const KEYS = {
  settings: [['key', 'text']],
  customers: [['id', 'uuid']],
  library: [['id', 'uuid']],
  library_versions: [
    ['spec_id', 'uuid'],
    ['version', 'int'],
  ],
  builds: [['id', 'uuid']],
  build_versions: [['version', 'int']],
  ledger: [['seq', 'bigint']],
} as const;

/**
 * Rows of a table as lines of text, so many at a time, each piece behind the last row of the one before: what others write meanwhile
 * neither doubles one nor leaves one out.
 * @param of names the id that the rows are of; nothing: all of them
 * @param most no more of them
 */
async function* linesOf(
  db: Queries,
  columns: Columns,
  table: keyof typeof KEYS,
  of: readonly [column: 'id' | 'build_id', id: string] | null = null,
  most = Number.POSITIVE_INFINITY,
): AsyncGenerator<Line[]> {
  const names = (await columns.of(db, table)).map(({ name }) => `"${name}"::text as "${name}"`);
  const keys = KEYS[table];
  // Ordered by the column, with its table: a bare name would be that of the text.
  const key = keys.map(([name]) => `${table}."${name}"`).join(', ');
  let last: readonly (string | null)[] = [];
  for (let left = most; left > 0;) {
    const params: unknown[] = of ? [of[1], ...last] : [...last];
    const base = of ? 1 : 0;
    const behind = keys.map(([, type], i) => `$${base + i + 1}::text::${type}`).join(', ');
    const where = [...(of ? [`"${of[0]}" = $1::uuid`] : []), ...(last.length > 0 ? [`(${key}) > (${behind})`] : [])];
    const rows = await db.query<Record<string, string | null>>(
      `select ${names.join(', ')} from ${table} ${where.length > 0 ? `where ${where.join(' and ')}` : ''}
       order by ${key} limit ${Math.min(AT_ONCE, left)}`,
      params,
    );
    yield rows.map((row) => [table, row] as const);
    if (rows.length < AT_ONCE) return;
    left -= rows.length;
    last = keys.map(([name]) => rows.at(-1)?.[name] ?? null);
  }
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

export interface ArchiveOptions {
  /** Stops it before the next piece. */
  readonly signal?: AbortSignal | undefined;
  /** Whether customers go with it. */
  readonly customers?: boolean;
}

/**
 * Writes all that a shop has into one zip as it is read, row by row as it is kept: builds with their versions, ledgers and chains, the
 * library, photos as files, settings, customers. A build is as it stood when its turn came; others write meanwhile.
 * @throws what stops it: what was written until then has no manifest, and opens nowhere
 */
export async function writeArchive(
  db: Database,
  shop: string,
  to: Writable,
  { signal, customers = true }: ArchiveOptions = {},
): Promise<Manifest> {
  const columns = new Columns();
  const zip = new yazl.ZipFile();
  const files: { name: string; sha256: string }[] = [];
  const stop = new AbortController();
  const failed = new Promise<never>((_, reject) => zip.on('error', reject));
  failed.catch((error: unknown) => stop.abort(error));
  /** Read when its turn comes, and as fast as it is taken. */
  const add = (name: string, compress: boolean, read: () => AsyncIterable<Uint8Array>): void =>
    zip.addReadStreamLazy(name, { compress }, (give) => {
      const pieces = async function* (): AsyncGenerator<Uint8Array> {
        const hash = createHash('sha256');
        for await (const piece of read()) {
          if (signal?.aborted === true) throw new Error('It was stopped.');
          hash.update(piece);
          yield piece;
        }
        files.push({ name, sha256: hash.digest('hex') });
      };
      const stream = Readable.from(pieces(), { objectMode: false });
      // Nobody else hears it: an error that nobody hears ends the process.
      stream.on('error', (error) => zip.emit('error', error));
      give(null, stream);
    });

  const state = await stateOf(db);
  const builds = await db.query<{ id: string }>('select id from builds order by id');
  const photos = await db.query<{ id: string; type: string }>('select id, type from photos order by id');
  let entries = 0;
  add('shop.ndjson', true, async function* () {
    for await (const lines of linesOf(db, columns, 'settings')) yield asText(lines);
    if (customers) for await (const lines of linesOf(db, columns, 'customers')) yield asText(lines);
    /** Specs as they stood when they were read: of what is saved meanwhile nothing comes. */
    const specs = new Map<string, number>();
    for await (const lines of linesOf(db, columns, 'library')) {
      for (const [, row] of lines) specs.set(row['id'] ?? '', Number(row['version']));
      yield asText(lines);
    }
    for await (const lines of linesOf(db, columns, 'library_versions'))
      yield asText(lines.filter(([, row]) => Number(row['version']) <= (specs.get(row['spec_id'] ?? '') ?? 0)));
  });
  for (const { id } of builds)
    add(`builds/${id}.ndjson`, true, async function* () {
      // Its row says how much of it there is: what is appended meanwhile stands behind that.
      let [count, version] = [0, 0];
      for await (const lines of linesOf(db, columns, 'builds', ['id', id])) {
        count = Number(lines[0]?.[1]['ledger_count'] ?? 0);
        version = Number(lines[0]?.[1]['version'] ?? 0);
        yield asText(lines);
      }
      const of = ['build_id', id] as const;
      for await (const lines of linesOf(db, columns, 'build_versions', of, version)) yield asText(lines);
      for await (const lines of linesOf(db, columns, 'ledger', of, count)) yield asText(lines);
      entries += count;
    });
  for (const { id, type } of photos)
    add(`photos/${id}.${type.replace('image/', '')}`, false, async function* () {
      const [row] = await db.query<Row & { bytes: Uint8Array }>('select bytes from photos where id = $1', [id]);
      yield row?.bytes ?? new Uint8Array();
    });
  let manifest: Manifest | null = null;
  zip.addReadStreamLazy(MANIFEST, (give) => {
    const counts = { builds: builds.length, entries, photos: photos.length };
    const made = new Date().toISOString();
    manifest = { format: ARCHIVE, formatVersion: FORMAT_VERSION, shop, made, state, customers, counts, files };
    give(null, Readable.from([Buffer.from(JSON.stringify(manifest, null, 1))]));
  });
  zip.end();
  await Promise.race([pipeline(zip.outputStream, to, { signal: stop.signal }), failed]);
  if (!manifest) throw new Error('The archive has no manifest.');
  return manifest;
}

/**
 * The same into a file, on the disk when it answers.
 * @param file written beside first, and only then called so: no half of one is left
 */
export async function writeArchiveFile(
  db: Database,
  shop: string,
  file: string,
  signal?: AbortSignal,
): Promise<Manifest> {
  const draft = `${file}.part`;
  try {
    const manifest = await writeArchive(db, shop, createWriteStream(draft), { signal });
    const handle = await open(draft, 'r+');
    await handle.sync();
    await handle.close();
    await rename(draft, file);
    return manifest;
  } catch (error) {
    await rm(draft, { force: true });
    throw error;
  }
}
