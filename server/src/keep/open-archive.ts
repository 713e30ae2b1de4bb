import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { FORMAT_VERSION, PHOTO_TYPES, z, type PhotoType } from '@hot-spline/model';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import type { Database, Queries } from '../db/database';
import { ARCHIVE, Columns, MANIFEST, type Line, type Manifest } from './archive';
import { ChainReader, type Link } from './chain';
import { takePhoto } from './photos';

/** An archive that can’t be used, and why. */
export class BadArchive extends Error {}

/** A build of an archive does not add up; the others may. */
export class BrokenBuild extends BadArchive {
  constructor(
    readonly build: string,
    readonly says: string,
  ) {
    super(`${build}: ${says}`);
  }
}

/** The largest photo, manifest or row of an archive that is held at once, bytes. Ours. */
const LARGEST = 64e6;

const manifestSchema = z.object({
  format: z.literal(ARCHIVE),
  formatVersion: z.int(),
  shop: z.uuid(),
  made: z.string(),
  state: z.string(),
  customers: z.boolean().default(true),
  counts: z.object({ builds: z.int(), entries: z.int(), photos: z.int() }),
  files: z.array(z.object({ name: z.string(), sha256: z.string().regex(/^[0-9a-f]{64}$/) })),
});
const lineSchema = z.tuple([
  z.enum(['settings', 'customers', 'library', 'library_versions', 'builds', 'build_versions', 'ledger']),
  z.record(z.string(), z.string().nullable()),
]);

const openZip = (file: string): Promise<ZipFile> =>
  new Promise((resolve, reject) =>
    yauzl.open(file, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, zip) =>
      error ? reject(new BadArchive(`It is no archive that can be opened: ${error.message}`)) : resolve(zip),
    ),
  );

/** Its directory, by name. */
const directoryOf = (zip: ZipFile): Promise<Map<string, Entry>> =>
  new Promise((resolve, reject) => {
    const entries = new Map<string, Entry>();
    zip.on('entry', (entry: Entry) => {
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.once('end', () => resolve(entries));
    zip.once('error', (error: Error) => reject(new BadArchive(`Its directory can’t be read: ${error.message}`)));
    zip.readEntry();
  });

function lineOf(name: string, n: number, text: string): Line {
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    said = null;
  }
  const line = lineSchema.safeParse(said);
  if (!line.success) throw new BadArchive(`${name}, line ${n} is no row of a shop.`);
  return line.data;
}

const number = (text: string | null | undefined): number => Number(text ?? 0);
const linkOf = (row: Line[1], text: string, n: string): Link => ({
  n: (row['hash'] ?? null) === null ? null : number(row[n]),
  format: number(row['format_version']),
  text: row[text] ?? '',
  hash: row['hash'] ?? null,
});

/** How the chains of a build are to end, by its row. */
export const headsOf = (row: Line[1]): { readonly count: number; readonly head: string; readonly version: number } => ({
  count: number(row['ledger_count']),
  head: row['ledger_head'] ?? '',
  version: number(row['version']),
});

/** The lines of a build as they come. @throws BadArchive where they are not one build, or its chains do not add up */
async function* wholeBuild(name: string, lines: AsyncIterable<Line>): AsyncGenerator<Line> {
  let row: Line[1] | null = null;
  let ledger: ChainReader | null = null;
  let versions: ChainReader | null = null;
  for await (const line of lines) {
    const [table, of] = line;
    if (table === 'builds' && !row) {
      row = of;
      const { count, head, version } = headsOf(of);
      const [closed, closing] = [number(of['ledger_closed']), of['ledger_closing'] ?? ''];
      ledger = new ChainReader({ count, head, closed, closing }, 'entry');
      versions = new ChainReader(
        {
          count: version,
          head: of['version_head'] ?? '',
          closed: number(of['versions_closed']),
          closing: of['versions_closing'] ?? '',
        },
        'version',
      );
    } else if (!row || of['build_id'] !== row['id'] || (table !== 'ledger' && table !== 'build_versions'))
      throw new BadArchive(`${name} is not one build with what belongs to it.`);
    else if (table === 'ledger') ledger?.take(linkOf(of, 'entry', 'n'));
    else versions?.take(linkOf(of, 'document', 'version'));
    yield line;
  }
  if (!row) throw new BadArchive(`${name} is without its row.`);
  if (name !== `builds/${row['id'] ?? ''}.ndjson`) throw new BadArchive(`${name} is another build than it says.`);
  const broken = ledger?.end() ?? versions?.end() ?? null;
  if (broken !== null) throw new BrokenBuild(row['name'] ?? '', broken);
}

/** A file of an archive, by its name. */
export type Piece =
  | { readonly of: 'shop'; readonly name: string }
  | { readonly of: 'build'; readonly name: string; readonly id: string }
  | { readonly of: 'photo'; readonly name: string; readonly id: string; readonly type: PhotoType };

function pieceOf(name: string): Piece {
  if (name === 'shop.ndjson') return { of: 'shop', name };
  const [, build] = /^builds\/([0-9a-f-]{36})\.ndjson$/.exec(name) ?? [];
  if (build !== undefined) return { of: 'build', name, id: build };
  const [, id, kind] = /^photos\/([0-9a-f]{64})\.(\w+)$/.exec(name) ?? [];
  const type = PHOTO_TYPES.find((one) => one === `image/${kind ?? ''}`);
  if (id === undefined || !type) throw new BadArchive(`${name} is no part of an archive.`);
  return { of: 'photo', name, id, type };
}

/**
 * An archive of a shop, opened by its directory: pieces are read as they are asked for, each against its hash, builds against their
 * chains too; no more than a row or a photo of it is held.
 */
export class Archive {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
    readonly manifest: Manifest,
    readonly pieces: readonly Piece[],
  ) {}

  /** @throws BadArchive where it is none, or of a later program */
  static async open(file: string): Promise<Archive> {
    const zip = await openZip(file);
    try {
      const entries = await directoryOf(zip);
      const bare = new Archive(zip, entries, {} as Manifest, []);
      if (!entries.has(MANIFEST))
        throw new BadArchive('It has no manifest: it is no archive of a shop, or was not written to its end.');
      let said: unknown;
      try {
        said = JSON.parse((await bare.whole(MANIFEST, null)).toString('utf8'));
      } catch (error) {
        if (error instanceof BadArchive) throw error;
        said = null;
      }
      const { data: manifest } = manifestSchema.safeParse(said);
      if (!manifest) throw new BadArchive('Its manifest can’t be read.');
      if (manifest.formatVersion > FORMAT_VERSION)
        throw new BadArchive(
          `It is of a later program: format ${manifest.formatVersion}, and this one knows ${FORMAT_VERSION}.`,
        );
      for (const { name } of manifest.files) if (!entries.has(name)) throw new BadArchive(`${name} is missing in it.`);
      const pieces = manifest.files.map(({ name }) => pieceOf(name));
      return new Archive(zip, entries, manifest, pieces);
    } catch (error) {
      zip.close();
      throw error;
    }
  }

  close(): void {
    this.zip.close();
  }

  /** Bytes of all that is in it, unpacked. */
  get size(): number {
    return [...this.entries.values()].reduce((sum, { uncompressedSize }) => sum + uncompressedSize, 0);
  }

  private hashOf(name: string): string | null {
    return this.manifest.files.find((one) => one.name === name)?.sha256 ?? null;
  }

  private async *bytes(name: string, sha256: string | null): AsyncGenerator<Buffer> {
    const entry = this.entries.get(name);
    if (!entry) throw new BadArchive(`${name} is missing in it.`);
    const bad = (error: unknown): BadArchive =>
      new BadArchive(`${name} can’t be read: ${error instanceof Error ? error.message : String(error)}`);
    const stream = await new Promise<Readable>((resolve, reject) =>
      this.zip.openReadStream(entry, (error, opened) => (error ? reject(bad(error)) : resolve(opened))),
    );
    const hash = createHash('sha256');
    const pieces = stream[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
    for (;;) {
      const { value, done } = await pieces.next().catch((error: unknown) => Promise.reject(bad(error)));
      if (done === true) break;
      hash.update(value);
      yield value;
    }
    if (sha256 !== null && hash.digest('hex') !== sha256) throw new BadArchive(`${name} is not as it was written.`);
  }

  private async whole(name: string, sha256: string | null): Promise<Buffer> {
    const parts: Buffer[] = [];
    let size = 0;
    for await (const part of this.bytes(name, sha256)) {
      size += part.length;
      if (size > LARGEST) throw new BadArchive(`${name} is larger than ${LARGEST / 1e6} MB.`);
      parts.push(part);
    }
    return Buffer.concat(parts);
  }

  photo({ name }: Piece): Promise<Buffer> {
    return this.whole(name, this.hashOf(name));
  }

  private async *rows(name: string): AsyncGenerator<Line> {
    let open: Buffer[] = [];
    let held = 0;
    let n = 0;
    for await (const part of this.bytes(name, this.hashOf(name))) {
      let from = 0;
      for (let to = part.indexOf(10); to >= 0; to = part.indexOf(10, from)) {
        const text = Buffer.concat([...open, part.subarray(from, to)]).toString('utf8');
        open = [];
        held = 0;
        from = to + 1;
        yield lineOf(name, ++n, text);
      }
      held += part.length - from;
      if (held > LARGEST) throw new BadArchive(`${name}, line ${n + 1} is larger than ${LARGEST / 1e6} MB.`);
      if (from < part.length) open.push(part.subarray(from));
    }
    if (held > 0) throw new BadArchive(`${name} ends within a line.`);
  }

  /** The rows of a piece; only when the last has been taken is it known that all of them are as they were written. */
  lines({ of, name }: Piece): AsyncIterable<Line> {
    return of === 'build' ? wholeBuild(name, this.rows(name)) : this.rows(name);
  }
}

/** Opens an archive and reads all of it. @throws BadArchive */
export async function verifyArchive(file: string): Promise<Manifest> {
  const archive = await Archive.open(file);
  try {
    for (const piece of archive.pieces)
      if (piece.of === 'photo') await archive.photo(piece);
      else for await (const line of archive.lines(piece)) void line;
    return archive.manifest;
  } finally {
    archive.close();
  }
}

/** Rows that go to the database in one statement, and characters. */
const AT_ONCE = { rows: 200, text: 2e6 };

const sizeOf = (row: Line[1]): number => Object.values(row).reduce((sum, text) => sum + (text?.length ?? 0), 0);

/**
 * Writes rows as they come: so many at a time of one table.
 * @param prepare a row as it is to be written, and into which table; null: not at all
 */
export async function insertLines(
  tx: Queries,
  lines: AsyncIterable<Line>,
  columns: Columns,
  prepare: (line: Line) => Line | null = (line) => line,
): Promise<void> {
  let table = '';
  let rows: Line[1][] = [];
  let size = 0;
  const write = async (): Promise<void> => {
    if (rows.length > 0) await insert(tx, table, await columns.of(tx, table), rows);
    rows = [];
    size = 0;
  };
  for await (const line of lines) {
    const prepared = prepare(line);
    if (!prepared) continue;
    const [to, row] = prepared;
    if (to !== table || rows.length >= AT_ONCE.rows || size > AT_ONCE.text) {
      await write();
      table = to;
    }
    rows.push(row);
    size += sizeOf(row);
  }
  await write();
}

async function insert(
  tx: Queries,
  table: string,
  known: Awaited<ReturnType<Columns['of']>>,
  rows: readonly Line[1][],
): Promise<void> {
  // An archive of before has fewer columns: the others are as a new row has them.
  const columns = known.filter(({ name }) => rows.some((row) => name in row));
  const params: unknown[] = [];
  const values = rows.map(
    (row) =>
      `(${columns
        .map(({ name, type }) => {
          params.push(row[name] ?? null);
          return `$${params.length}::text::${type}`;
        })
        .join(', ')})`,
  );
  const names = columns.map(({ name }) => `"${name}"`).join(', ');
  await tx.query(`insert into ${table} (${names}) overriding system value values ${values.join(', ')}`, params);
}

/** The database has something in it already. */
export class NotEmpty extends Error {}

/**
 * Puts an archive into an empty, migrated database: all of it or nothing.
 * @throws NotEmpty, BadArchive
 */
export async function restoreArchive(db: Database, file: string): Promise<Manifest> {
  const archive = await Archive.open(file);
  try {
    return await db.transaction(async (tx) => {
      const [{ count } = { count: 0 }] = await tx.query<{ count: number }>(
        'select (select count(*) from build_rows)::int + (select count(*) from library)::int as count',
      );
      if (count > 0) throw new NotEmpty(`There are ${count} builds and specs here already.`);
      await tx.query('delete from settings');
      const columns = new Columns();
      for (const piece of archive.pieces)
        if (piece.of === 'photo')
          await takePhoto(tx, piece.id, { type: piece.type, bytes: await archive.photo(piece) });
        else await insertLines(tx, archive.lines(piece), columns);
      await tx.query(
        "select setval(pg_get_serial_sequence('ledger', 'seq'), coalesce((select max(seq) from ledger), 0) + 1, false)",
      );
      return archive.manifest;
    });
  } finally {
    archive.close();
  }
}
