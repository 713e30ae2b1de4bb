// npm run owner: makes the first owner of a shop, or gives an owner another password, on the machine itself.
import { stdin, stdout } from 'node:process';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { InputError } from '@hot-spline/core';
import { FORMAT_VERSION, ownerSchema, parseOrRefuse } from '@hot-spline/model';
import { StartProblem } from './base/start-problem';
import { readConfig, type Config } from './config';
import { databaseFolder, examineFolder, prepareFolder, writeMark } from './db/data-folder';
import type { Database } from './db/database';
import { FolderInUse, lockFolder } from './db/folder-lock';
import { migrate, readMigrations } from './db/migrate';
import { openPglite } from './db/pglite';
import { openPostgres } from './db/postgres';
import { readShop } from './keep/shop';
import { findPerson, hasOwner, keepWord, makeFirstOwner, signOutEverywhere } from './people/accounts';
import { note } from './people/audit';
import { ROOT } from './serve';

const say = (line: string): void => void stdout.write(`${line}\n`);

/** Lines as they are typed, or as they come through a pipe; a secret is not shown while it is typed. */
function asker(): { ask: (question: string, secret?: boolean) => Promise<string>; end: () => void } {
  const lines = createInterface({ input: stdin, output: stdout, terminal: stdin.isTTY });
  const kept: string[] = [];
  let waits: ((line: string) => void) | null = null;
  let over = false;
  let hidden = false;
  const write = stdout.write.bind(stdout);
  // What readline would show of a secret is a line's end alone.
  stdout.write = ((chunk: string | Uint8Array) =>
    hidden && !String(chunk).includes('\n') ? true : write(chunk)) as typeof stdout.write;
  const give = (line: string): void => {
    if (waits) waits(line);
    else kept.push(line);
    waits = null;
  };
  lines.on('line', give);
  lines.on('close', () => {
    over = true;
    waits?.('');
  });
  return {
    ask: async (question, secret = false) => {
      write(question);
      hidden = secret && stdin.isTTY;
      const line = kept.shift() ?? (over ? '' : await new Promise<string>((resolve) => (waits = resolve)));
      hidden = false;
      return line;
    },
    end: () => {
      lines.close();
      stdout.write = write;
    },
  };
}

async function make(db: Database): Promise<void> {
  const { ask, end } = asker();
  try {
    const name = await ask('Name of the owner, as it stands on what they write: ');
    const password = await ask('Password, eight characters at the least: ', true);
    const again = await ask('Once more: ', true);
    if (password !== again)
      throw new StartProblem('The two are not the same.', 'Nothing was changed. Once more: npm run owner');
    const owner = parseOrRefuse(ownerSchema, { name, password }, 'owner');
    if (!(await hasOwner(db))) {
      await makeFirstOwner(db, owner.name, owner.password);
      await note(db, { from: 'this machine' }, owner.name, 'became the first owner');
      return say(`${owner.name} owns this shop now.`);
    }
    const known = await findPerson(db, { name: owner.name });
    if (known?.role !== 'owner' || !known.active)
      throw new StartProblem(
        `${owner.name} is no owner of this shop, and it has one.`,
        'An owner invites others, on People.',
      );
    await keepWord(db, known.id, 'password', owner.password);
    await signOutEverywhere(db, known.id);
    await db.query('delete from attempts');
    await note(db, { from: 'this machine' }, known.name, 'another password, on the machine itself');
    say(`${known.name} has another password now, and is signed out everywhere.`);
  } finally {
    end();
  }
}

async function makeIn(db: Database): Promise<void> {
  try {
    await migrate(db, readMigrations());
    await make(db);
  } finally {
    await db.close();
  }
}

/** The folder is its server's alone while that runs. */
async function inFolder({ dataFolder: folder }: Config): Promise<void> {
  await prepareFolder(folder);
  const lock = await lockFolder(folder).catch((error: unknown) => {
    if (error instanceof FolderInUse)
      throw new StartProblem(`${folder} is in use by its server.`, 'Stop it first, or open People on this machine.');
    throw error;
  });
  try {
    const mark = examineFolder(folder);
    const db = await openPglite(databaseFolder(folder));
    if (!mark) {
      await migrate(db, readMigrations());
      const { id: shop } = await readShop(db);
      const created = new Date().toISOString();
      writeMark(folder, {
        program: 'hot-spline',
        shop,
        created,
        format: FORMAT_VERSION,
        migrations: readMigrations().length,
      });
    }
    await makeIn(db);
  } finally {
    await lock.release();
  }
}

try {
  const config = readConfig(process.env, fileURLToPath(ROOT));
  await (config.databaseUrl === undefined ? inFolder(config) : makeIn(await openPostgres(config.databaseUrl)));
} catch (error) {
  if (error instanceof StartProblem) process.stderr.write(`${error.message} ${error.advice}\n`);
  else if (error instanceof InputError) process.stderr.write(`${error.message} Allowed: ${error.allowed}\n`);
  else throw error;
  process.exitCode = 1;
}
