import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { StartProblem } from '../base/start-problem';
import type { Database } from './database';

export interface Migration {
  readonly name: string;
  readonly sql: string;
  readonly hash: string;
}

const FOLDER = new URL('./migrations/', import.meta.url);

/** The numbered SQL files in order. Statements are separated by a line that holds nothing but `--;`. */
export function readMigrations(folder = FOLDER): Migration[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith('.sql'))
    .sort()
    .map((name) => {
      const sql = readFileSync(new URL(name, folder), 'utf8');
      return { name, sql, hash: createHash('sha256').update(sql).digest('hex') };
    });
}

/**
 * Brings the database up to date, forward only: each file once, in its own transaction. A file that changed after it
 * was applied, or that is gone, stops the start.
 * @returns names of the files applied now
 */
export async function migrate(db: Database, migrations: readonly Migration[]): Promise<string[]> {
  await db.transaction(async (tx) => {
    // Two servers that begin at once on an empty database would both make it: “if not exists” is no turn.
    await tx.query("select pg_advisory_xact_lock(hashtextextended('hot-spline migrations', 0))");
    await tx.query(`create table if not exists migrations (
      name text primary key, hash text not null, applied_at timestamptz not null default now())`);
  });
  const applied: string[] = [];
  for (const [i, migration] of migrations.entries()) {
    const done = await db.transaction(async (tx) => {
      await tx.query('lock table migrations in exclusive mode');
      const rows = await tx.query<{ name: string; hash: string }>('select name, hash from migrations order by name');
      const before = rows[i];
      if (before) {
        if (before.name !== migration.name) {
          throw new StartProblem(
            `Migration ${before.name} was applied here but is not the next file (${migration.name}).`,
            'Nothing was changed. The database is of another program: start it with that one.',
          );
        }
        if (before.hash !== migration.hash)
          throw new Error(`Migration ${migration.name} changed after it was applied.`);
        return false;
      }
      try {
        for (const statement of migration.sql.split(/^--;$/m)) if (statement.trim()) await tx.query(statement);
      } catch (error) {
        throw new Error(`Migration ${migration.name} failed: ${(error as Error).message}`, { cause: error });
      }
      await tx.query('insert into migrations (name, hash) values ($1, $2)', [migration.name, migration.hash]);
      return true;
    });
    if (done) applied.push(migration.name);
  }
  const [{ count } = { count: 0 }] = await db.query<{ count: number }>('select count(*)::int as count from migrations');
  if (count > migrations.length)
    throw new StartProblem(
      'The database is newer than this program: it has migrations that are not known here.',
      'Nothing was changed. Start it with the program that wrote it, or a later one.',
    );
  return applied;
}
