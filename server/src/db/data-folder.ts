import fs from 'node:fs';
import path from 'node:path';
import { FORMAT_VERSION } from '@hot-spline/model';
import { z } from '@hot-spline/model';
import { freeIn } from '../base/room';
import { StartProblem } from '../base/start-problem';
import { LOCK_FILE } from './folder-lock';

/** What stands in a data folder for good: which shop this is. */
const markSchema = z.object({
  program: z.literal('hot-spline'),
  /** null while it is being made: nothing has been kept in it yet. */
  shop: z.uuid().nullable(),
  created: z.string(),
  /** The newest format of documents that was written here. */
  format: z.int(),
  /** How many migrations its database has; unsaid in marks of before. */
  migrations: z.int().optional(),
});
export type Mark = z.infer<typeof markSchema>;

export const MARK = 'hot-spline.json';
export const BACKUPS = 'backups';
const DATABASE = 'pg';
/** A path that does not answer within this is said to hang, ms. */
const ANSWERS_MS = 2000;

export const databaseFolder = (folder: string): string => path.join(folder, DATABASE);

const codeOf = (error: unknown): string => (error as NodeJS.ErrnoException).code ?? String(error);

/** Replaces a small file whole: it is the old one or the new one, never half of either, also after a power cut. */
export function writeWhole(file: string, text: string): void {
  const draft = `${file}.new`;
  const handle = fs.openSync(draft, 'w');
  try {
    fs.writeSync(handle, text);
    fs.fsyncSync(handle);
  } finally {
    fs.closeSync(handle);
  }
  fs.renameSync(draft, file);
  if (process.platform === 'win32') return;
  const folder = fs.openSync(path.dirname(file), 'r');
  try {
    fs.fsyncSync(folder);
  } finally {
    fs.closeSync(folder);
  }
}

export const writeMark = (folder: string, mark: Mark): void =>
  writeWhole(path.join(folder, MARK), `${JSON.stringify(mark, null, 2)}\n`);

/** @throws StartProblem where there is one that can't be read, or of a later program */
export function readMark(folder: string): Mark | null {
  let text: string;
  try {
    text = fs.readFileSync(path.join(folder, MARK), 'utf8');
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return null;
    throw error;
  }
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    said = null;
  }
  const read = markSchema.safeParse(said);
  if (!read.success)
    throw new StartProblem(
      `${path.join(folder, MARK)} can’t be read: it should say which shop this folder holds.`,
      'Nothing was changed. Bring the file back from a backup, or restore the shop: npm run restore',
    );
  if (read.data.format > FORMAT_VERSION)
    throw new StartProblem(
      `The data in ${folder} is newer than this program: format ${read.data.format}, and this one knows ${FORMAT_VERSION}.`,
      'Nothing was changed. Start it with the program that wrote it, or a later one.',
    );
  return read.data;
}

/** Files without which PGlite would begin an empty database over the one that is there. */
const missingOf = (folder: string): string[] =>
  ['PG_VERSION', 'global/pg_control', 'base', 'pg_wal'].filter(
    (part) => !fs.existsSync(path.join(databaseFolder(folder), part)),
  );

/** @throws StartProblem where the disk has no room for a start */
export function requireRoom(folder: string, needs: number): void {
  const has = freeIn(folder);
  if (has >= needs) return;
  throw new StartProblem(
    `The disk of ${folder} has ${Math.floor(has / 1e6)} MB free, and a start here needs ${needs / 1e6} MB.`,
    'Nothing was changed. Make room, then start again.',
  );
}

/** Bytes of all files in a folder. */
export const sizeOf = (folder: string): number =>
  fs
    .readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((one) => one.isFile())
    .reduce((sum, one) => sum + fs.statSync(path.join(one.parentPath, one.name)).size, 0);

/** Whether the folder has a database of which nothing is missing. */
export const existsWhole = (folder: string): boolean => missingOf(folder).length === 0;

/** Makes the folder where there is none. @throws StartProblem saying why it can't be used */
export async function prepareFolder(folder: string): Promise<void> {
  const problem = (why: string, advice: string): StartProblem =>
    new StartProblem(`The data folder ${folder} ${why}.`, advice);
  const elsewhere = 'Say another one: HOT_SPLINE_DATA=folder';
  const looked = await Promise.race([
    fs.promises.mkdir(folder, { recursive: true }).then(
      () => null,
      (error: unknown) => codeOf(error),
    ),
    new Promise<'hangs'>((resolve) => setTimeout(() => resolve('hangs'), ANSWERS_MS).unref()),
  ]);
  if (looked === 'hangs')
    throw problem('does not answer', 'A disk on the network that is away? Mount it again, or use a local one.');
  if (looked === 'EEXIST' || looked === 'ENOTDIR') throw problem('is a file, or lies in one', elsewhere);
  if (looked === 'EACCES' || looked === 'EPERM')
    throw problem('can’t be made: this user may not write there', elsewhere);
  if (looked === 'EROFS') throw problem('lies on a disk that can only be read', elsewhere);
  if (looked === 'ENOSPC') throw problem('can’t be made: its disk is full', 'Make room, then start again.');
  if (looked !== null) throw problem(`can’t be made (${looked})`, elsewhere);
  const probe = path.join(folder, `.probe-${process.pid}`);
  try {
    fs.writeFileSync(probe, '');
    fs.rmSync(probe);
  } catch (error) {
    const code = codeOf(error);
    if (code === 'EROFS') throw problem('lies on a disk that can only be read', elsewhere);
    if (code === 'ENOSPC') throw problem('has no room: its disk is full', 'Make room, then start again.');
    throw problem(
      `can’t be written (${code})`,
      'Give this user the right to write in it, or say another one: HOT_SPLINE_DATA=folder',
    );
  }
}

/**
 * What a data folder holds before its database is opened; the folder is locked. A folder that holds a shop, or anything else, is
 * never begun anew: PGlite would do so without a word where PG_VERSION is missing.
 * @returns its mark; null for a new shop, and for one of before there were marks
 * @throws StartProblem where the database is not whole or the folder is somebody else’s
 */
export function examineFolder(folder: string): Mark | null {
  const mark = readMark(folder);
  const database = databaseFolder(folder);
  const begun = fs.existsSync(database) ? fs.readdirSync(database) : [];
  if (mark?.shop === null) {
    // A first start that never came to its end: nothing was acknowledged, so it begins again.
    fs.rmSync(database, { recursive: true, force: true });
    return null;
  }
  const missing = missingOf(folder);
  if (mark) {
    if (missing.length === 0) return mark;
    throw new StartProblem(
      `The folder ${folder} holds the shop ${mark.shop} of ${mark.created.slice(0, 10)}, but its database is not whole: ${
        begun.length === 0
          ? `${DATABASE}/ is empty or gone`
          : `${missing.map((one) => `${DATABASE}/${one}`).join(', ')} missing`
      }.`,
      restoreAdvice(folder),
    );
  }
  if (begun.length > 0) {
    if (missing.length === 0) return null;
    throw new StartProblem(
      `The folder ${database} is not empty and holds no whole database: ${missing.join(', ')} missing.`,
      restoreAdvice(folder),
    );
  }
  const ours = new Set([MARK, `${MARK}.new`, DATABASE, LOCK_FILE, 'lost+found']);
  const others = fs.readdirSync(folder).filter((name) => !ours.has(name) && !name.startsWith('.'));
  if (others.length > 0)
    throw new StartProblem(
      others.includes(BACKUPS)
        ? `The folder ${folder} holds backups of a shop and no shop.`
        : `The folder ${folder} is not empty, and holds no shop: ${others.slice(0, 5).join(', ')}.`,
      others.includes(BACKUPS) ? restoreAdvice(folder) : 'A new shop begins in an empty folder: HOT_SPLINE_DATA=folder',
    );
  return null;
}

/** What to do where the data can’t be used as it is. */
export function restoreAdvice(folder: string): string {
  const backups = path.join(folder, BACKUPS);
  const kept = fs.existsSync(backups)
    ? fs
        .readdirSync(backups)
        .filter((name) => name.endsWith('.zip'))
        .sort()
    : [];
  const last = kept.at(-1);
  return last
    ? `Nothing was changed. Restore it: npm run restore -- ${path.join(backups, last)}`
    : 'Nothing was changed. Bring the folder back from a copy, or restore it: npm run restore -- backup.zip';
}
