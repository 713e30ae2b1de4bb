// npm run backup, npm run restore: what a shop keeps, put away and brought back.
import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { FORMAT_VERSION, type HealthAnswer } from '@hot-spline/model';
import { StartProblem } from './base/start-problem';
import { readConfig, type Config } from './config';
import { BACKUPS, MARK, databaseFolder, examineFolder, prepareFolder, writeMark } from './db/data-folder';
import { FolderInUse, lockFolder } from './db/folder-lock';
import { migrate, readMigrations } from './db/migrate';
import { openPglite } from './db/pglite';
import { writeArchiveFile } from './keep/archive';
import { copyBeforeMigration, nameAt } from './keep/backups';
import { checkShop } from './keep/check';
import { BadArchive, restoreArchive, verifyArchive } from './keep/open-archive';
import { readShop } from './keep/shop';
import { ROOT } from './serve';

const say = (line: string): void => void process.stdout.write(`${line}\n`);
const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** A server has the folder open: it makes the backup itself. */
async function askServer({ host, port, dataFolder }: Config): Promise<void> {
  const at = `http://${host.includes(':') ? `[${host}]` : host}:${port}`;
  const answer = await fetch(`${at}/api/backup`, { method: 'POST' }).catch(() => null);
  if (!answer?.ok)
    throw new StartProblem(
      `${dataFolder} is in use, and ${at} does not make a backup of it.`,
      'Say at which PORT and HOST its server is, or stop it first.',
    );
  const { backup } = (await answer.json()) as HealthAnswer;
  if (!backup?.file || backup.problem)
    throw new StartProblem(`No backup was made: ${backup?.problem ?? 'the server makes none'}.`, 'See its log.');
  say(`${path.join(dataFolder, BACKUPS, backup.file)}: all that is kept is in it; opened and read to its end.`);
}

async function backup(config: Config, target: string | undefined): Promise<void> {
  const folder = config.dataFolder;
  if (!existsSync(path.join(folder, MARK)))
    throw new StartProblem(`${folder} holds no shop.`, 'Say which folder: HOT_SPLINE_DATA=folder');
  let lock;
  try {
    lock = await lockFolder(folder);
  } catch (error) {
    if (!(error instanceof FolderInUse) || target !== undefined) throw error;
    return askServer(config);
  }
  try {
    const mark = examineFolder(folder);
    if (mark?.migrations !== readMigrations().length) copyBeforeMigration(folder);
    const db = await openPglite(databaseFolder(folder));
    try {
      await migrate(db, readMigrations());
      const file = target ?? path.join(folder, BACKUPS, nameAt(new Date(), 'hand'));
      mkdirSync(path.dirname(file), { recursive: true });
      // Called so only when it has been read to its end.
      const draft = `${file}.draft`;
      const { counts } = await writeArchiveFile(db, (await readShop(db)).id, draft);
      await verifyArchive(draft).catch((error: unknown) => {
        rmSync(draft);
        throw error;
      });
      renameSync(draft, file);
      say(
        `${file}: ${counted(counts.builds, 'build')}, ${counts.entries} ledger entries, ${counted(counts.photos, 'photo')}; opened and read to its end.`,
      );
    } finally {
      await db.close();
    }
  } finally {
    await lock.release();
  }
}

/** Brings a shop back: beside what is there first, and only when all of it is in and adds up is it put in its place. */
async function restore(config: Config, file: string | undefined): Promise<void> {
  if (file === undefined) throw new StartProblem('Which backup?', 'npm run restore -- backup.zip');
  if (!existsSync(file)) throw new StartProblem(`There is no ${file}.`, 'npm run restore -- backup.zip');
  // Read to its end first: what can’t be used changes nothing.
  await verifyArchive(file);
  const folder = config.dataFolder;
  await prepareFolder(folder);
  const lock = await lockFolder(folder);
  try {
    const database = databaseFolder(folder);
    const draft = `${database}.restoring`;
    rmSync(draft, { recursive: true, force: true });
    const db = await openPglite(draft);
    let shop: string;
    try {
      await migrate(db, readMigrations());
      const { counts, made } = await restoreArchive(db, file);
      const { damage } = await checkShop(db, []);
      if (damage[0]) throw new BadArchive(`${damage[0].name}: ${damage[0].says}`);
      shop = (await readShop(db)).id;
      say(
        `From ${made}: ${counted(counts.builds, 'build')}, ${counts.entries} ledger entries, ${counted(counts.photos, 'photo')}; counted and hashed.`,
      );
    } finally {
      await db.close();
    }
    if (existsSync(database)) {
      const aside = `${database}.before-${new Date().toISOString().slice(0, 19).replace(/:/g, '-')}Z`;
      renameSync(database, aside);
      say(`What was there before lies in ${aside}: throw it away when you have seen that all is well.`);
    }
    renameSync(draft, database);
    writeMark(folder, {
      program: 'hot-spline',
      shop,
      created: new Date().toISOString(),
      format: FORMAT_VERSION,
      migrations: readMigrations().length,
    });
    // What the folder remembered was of the data before.
    rmSync(path.join(folder, 'remembered.json'), { force: true });
    say(`${folder} holds the shop again: start it as ever.`);
  } finally {
    await lock.release();
  }
}

try {
  const config = readConfig(process.env, fileURLToPath(ROOT));
  if (config.databaseUrl !== undefined)
    throw new StartProblem(
      'The data is in a PostgreSQL server.',
      'Its own tools make and bring back its backups: pg_dump, pg_restore.',
    );
  const [what, file] = process.argv.slice(2);
  const at = file === undefined ? undefined : path.resolve(process.env['INIT_CWD'] ?? process.cwd(), file);
  if (what === 'backup') await backup(config, at);
  else if (what === 'restore') await restore(config, at);
  else throw new StartProblem('backup or restore?', 'npm run backup, npm run restore -- backup.zip');
} catch (error) {
  if (error instanceof StartProblem) process.stderr.write(`${error.message} ${error.advice}\n`);
  else if (error instanceof BadArchive)
    process.stderr.write(`This backup can’t be used: ${error.message} Nothing that was kept was changed.\n`);
  else throw error;
  process.exitCode = 1;
}
