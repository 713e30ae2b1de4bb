import { createHash } from 'node:crypto';
import { FORMAT_VERSION, z } from '@hot-spline/model';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import type { Database, Queries } from '../db/database';
import { ARCHIVE, MANIFEST, columnsOf, type Line, type Manifest } from './archive';
import { brokenChain, type Link } from './chain';

/** An archive that can’t be used, and why. */
export class BadArchive extends Error {}

/** The largest file in an archive that is read at once, bytes: a build with its ledger, or a photo. */
const LARGEST = 512e6;

const manifestSchema = z.object({
  format: z.literal(ARCHIVE),
  formatVersion: z.int(),
  shop: z.uuid(),
  made: z.string(),
  state: z.string(),
  counts: z.object({ builds: z.int(), entries: z.int(), photos: z.int() }),
  files: z.array(z.object({ name: z.string(), sha256: z.string().regex(/^[0-9a-f]{64}$/) })),
});
const lineSchema = z.tuple([
  z.enum(['settings', 'customers', 'library', 'library_versions', 'builds', 'build_versions', 'ledger']),
  z.record(z.string(), z.string().nullable()),
]);
const TYPES: Readonly<Record<string, string>> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

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

const bytesOf = (zip: ZipFile, entry: Entry): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const bad = (error: Error): void => reject(new BadArchive(`${entry.fileName} can’t be read: ${error.message}`));
    if (entry.uncompressedSize > LARGEST) return bad(new Error(`it is larger than ${LARGEST / 1e6} MB`));
    zip.openReadStream(entry, (error, stream) => {
      if (error) return bad(error);
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.once('error', bad);
      stream.once('end', () => resolve(Buffer.concat(parts)));
    });
  });

function linesIn(name: string, bytes: Buffer): Line[] {
  return bytes
    .toString('utf8')
    .split('\n')
    .filter((text) => text !== '')
    .map((text, i) => {
      let said: unknown;
      try {
        said = JSON.parse(text);
      } catch {
        said = null;
      }
      const line = lineSchema.safeParse(said);
      if (!line.success) throw new BadArchive(`${name}, line ${i + 1} is no row of a shop.`);
      return line.data;
    });
}

const number = (text: string | null | undefined): number => Number(text ?? 0);
const linkOf =
  (text: string, n: string) =>
  ([, row]: Line): Link => ({
    n: (row['hash'] ?? null) === null ? null : number(row[n]),
    format: number(row['format_version']),
    text: row[text] ?? '',
    hash: row['hash'] ?? null,
  });

/** @throws BadArchive where the chains of a build do not add up */
function requireWhole(lines: readonly Line[]): void {
  const of = (table: string): Line[] => lines.filter(([name]) => name === table);
  const row = of('builds')[0]?.[1];
  if (!row) throw new BadArchive('A build is without its row.');
  const broken =
    brokenChain(
      of('ledger').map(linkOf('entry', 'n')),
      {
        count: number(row['ledger_count']),
        head: row['ledger_head'] ?? '',
        closed: number(row['ledger_closed']),
        closing: row['ledger_closing'] ?? '',
      },
      'entry',
    ) ??
    brokenChain(
      of('build_versions').map(linkOf('document', 'version')),
      {
        count: number(row['version']),
        head: row['version_head'] ?? '',
        closed: number(row['versions_closed']),
        closing: row['versions_closing'] ?? '',
      },
      'version',
    );
  if (broken !== null) throw new BadArchive(`${row['name'] ?? ''}: ${broken}`);
}

interface Reader {
  /** Rows of one file of the archive, or one photo. */
  lines(lines: readonly Line[]): Promise<void>;
  photo(id: string, type: string, bytes: Buffer): Promise<void>;
}

/**
 * Reads an archive file by file: each against its hash, each build’s chains too.
 * @throws BadArchive naming what is wrong with it
 */
async function read(file: string, reader: Reader): Promise<Manifest> {
  const zip = await openZip(file);
  try {
    const entries = await directoryOf(zip);
    const at = entries.get(MANIFEST);
    if (!at) throw new BadArchive('It has no manifest: it is no archive of a shop, or was not written to its end.');
    let said: unknown;
    try {
      said = JSON.parse((await bytesOf(zip, at)).toString('utf8'));
    } catch (error) {
      if (error instanceof BadArchive) throw error;
      said = null;
    }
    const manifest = manifestSchema.safeParse(said);
    if (!manifest.success) throw new BadArchive('Its manifest can’t be read.');
    if (manifest.data.formatVersion > FORMAT_VERSION)
      throw new BadArchive(
        `It is of a later program: format ${manifest.data.formatVersion}, and this one knows ${FORMAT_VERSION}.`,
      );
    for (const { name, sha256 } of manifest.data.files) {
      const entry = entries.get(name);
      if (!entry) throw new BadArchive(`${name} is missing in it.`);
      const bytes = await bytesOf(zip, entry);
      if (createHash('sha256').update(bytes).digest('hex') !== sha256)
        throw new BadArchive(`${name} is not as it was written.`);
      const photo = /^photos\/([0-9a-f]{64})\.(\w+)$/.exec(name);
      if (photo) await reader.photo(photo[1] ?? '', TYPES[photo[2] ?? ''] ?? 'image/jpeg', bytes);
      else {
        const lines = linesIn(name, bytes);
        if (name.startsWith('builds/')) requireWhole(lines);
        await reader.lines(lines);
      }
    }
    return manifest.data;
  } finally {
    zip.close();
  }
}

/** Opens an archive and reads all of it. @throws BadArchive */
export const verifyArchive = (file: string): Promise<Manifest> =>
  read(file, { lines: () => Promise.resolve(), photo: () => Promise.resolve() });

const AT_ONCE = 200;

async function insert(tx: Queries, table: string, rows: readonly Line[1][]): Promise<void> {
  const known = await columnsOf(tx, table);
  for (let from = 0; from < rows.length; from += AT_ONCE) {
    const some = rows.slice(from, from + AT_ONCE);
    // An archive of before has fewer columns: the others are as a new row has them.
    const columns = known.filter(({ name }) => some.some((row) => name in row));
    const params: unknown[] = [];
    const values = some.map(
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
}

/** The database has something in it already. */
export class NotEmpty extends Error {}

/**
 * Puts an archive into an empty, migrated database: all of it or nothing.
 * @throws NotEmpty, BadArchive
 */
export async function restoreArchive(db: Database, file: string): Promise<Manifest> {
  return db.transaction(async (tx) => {
    const [{ count } = { count: 0 }] = await tx.query<{ count: number }>(
      'select (select count(*) from builds)::int + (select count(*) from library)::int as count',
    );
    if (count > 0) throw new NotEmpty(`There are ${count} builds and specs here already.`);
    await tx.query('delete from settings');
    const manifest = await read(file, {
      async lines(lines) {
        for (const table of new Set(lines.map(([name]) => name)))
          await insert(
            tx,
            table,
            lines.filter(([name]) => name === table).map(([, row]) => row),
          );
      },
      photo: async (id, type, bytes) =>
        void (await tx.query('insert into photos (id, type, bytes) values ($1, $2, $3)', [id, type, bytes])),
    });
    await tx.query(
      "select setval(pg_get_serial_sequence('ledger', 'seq'), coalesce((select max(seq) from ledger), 0) + 1, false)",
    );
    // What is worked out of builds is worked out here.
    await tx.query('update builds set stale = true, held = false, unread = null');
    return manifest;
  });
}
