import fs from 'node:fs';
import path from 'node:path';
import type { Logger } from 'pino';
import type { Database, Queries } from './database';

/** Pages of an index or a table that PostgreSQL says are damaged: class XX, “data_corrupted” and “index_corrupted”. */
const DAMAGED = ['XX001', 'XX002'];
export const isDamage = (error: unknown): error is Error & { code: string } =>
  error instanceof Error && DAMAGED.includes((error as { code?: string }).code ?? '');

/** Where copies of damaged files lie, for whoever wants to save more of them. */
export const DAMAGED_FOLDER = 'damaged';

/** The file that a message is about: `invalid page in block 3 of relation "base/5/16401"`. */
const fileIn = (message: string): string | null => /relation "(base\/\d+\/\d+)[^"]*"/.exec(message)?.[1] ?? null;
/** The index that a message is about: `index "builds_pkey" contains unexpected zero page at block 1`. */
const indexIn = (message: string): string | null => /index "([^"]+)"/.exec(message)?.[1] ?? null;

interface Relation extends Record<string, unknown> {
  readonly name: string;
  readonly kind: string;
}

/**
 * A database that reads round damage: where a page of a table can’t be read the rows on it are lost, and nothing else is. The
 * damaged file is copied aside first; an index is built anew from its table. What is missing is found by the chains.
 * @param folder of the data, in which `pg` lies
 */
export function readingRound(db: Database, folder: string, log: Logger): Database {
  let mending: Promise<void> | null = null;
  const mended = new Set<string>();

  async function mend(error: Error): Promise<void> {
    const file = fileIn(error.message);
    log.error({ err: error, file }, 'a page of the database is damaged: what stands on it is left out');
    if (file !== null) {
      const aside = path.join(folder, DAMAGED_FOLDER, file.replace(/\//g, '-'));
      if (!fs.existsSync(aside)) {
        fs.mkdirSync(path.dirname(aside), { recursive: true });
        fs.copyFileSync(path.join(folder, 'pg', file), aside);
      }
    }
    await db.query('set zero_damaged_pages = on');
    const [relation] = await db.query<Relation>(
      'select relname as name, relkind::text as kind from pg_class where pg_relation_filepath(oid) = $1',
      [file ?? ''],
    );
    const index = relation?.kind === 'i' ? relation.name : indexIn(error.message);
    if (index !== null) await db.query(`reindex index "${index.replace(/"/g, '""')}"`);
  }

  /** Again and again, as one damage after the other is mended: the same one twice is an error. */
  async function round<T>(work: () => Promise<T>): Promise<T> {
    for (;;) {
      const before = mended.size;
      try {
        return await work();
      } catch (error) {
        if (!isDamage(error)) throw error;
        if (mending) await mending;
        // Somebody else’s question has met it meanwhile, and it was mended.
        else if (mended.has(error.message) && mended.size === before) throw error;
        else {
          mended.add(error.message);
          mending = mend(error).finally(() => (mending = null));
          await mending;
        }
      }
    }
  }
  return {
    query: (text, params) => round(() => db.query(text, params)),
    transaction: <T>(work: (tx: Queries) => Promise<T>) => round(() => db.transaction(work)),
    listen: (heard) => db.listen(heard),
    close: () => db.close(),
  };
}
