import pg from 'pg';
import { StartProblem } from '../base/start-problem';
import { CHANNEL, type Database, type Queries, type Row } from './database';

/** How soon it listens again where the server went away, ms. */
const LISTEN_AGAIN_MS = 1000;

const ignore = (): void => undefined;
function give(client: pg.PoolClient, broken?: Error): void {
  client.off('error', ignore);
  client.release(broken);
}

const queriesOf = (client: Pick<pg.ClientBase, 'query'>): Queries => ({
  async query<R extends Row>(text: string, params: readonly unknown[] = []): Promise<R[]> {
    return (await client.query<R>(text, [...params])).rows;
  },
});

/** Where the server is, without its password. */
function placeOf(url: string): string {
  if (!URL.canParse(url)) return 'that DATABASE_URL names';
  const { hostname, port, pathname } = new URL(url);
  return `${hostname || 'localhost'}:${port || 5432}${pathname}`;
}

function away(url: string, error: unknown): StartProblem {
  const { code, message } = error as { code?: string; message: string };
  return new StartProblem(
    `The PostgreSQL server ${placeOf(url)} can’t be used: ${message || code || 'no answer'}.`,
    'Start it, or put DATABASE_URL right; without DATABASE_URL the data lies in a folder here.',
  );
}

/** A PostgreSQL server for a shop with several machines: the same SQL through the same seam. */
export async function openPostgres(url: string): Promise<Database> {
  let closing = false;
  let listener: pg.Client | null = null;
  const pool = new pg.Pool({ connectionString: url });
  // A connection that breaks while nobody uses it would end the process: the pool opens another one for the next.
  pool.on('error', ignore);
  try {
    await pool.query('select 1');
  } catch (error) {
    await pool.end();
    throw away(url, error);
  }
  return {
    query: async <R extends Row>(text: string, params: readonly unknown[] = []) =>
      (await pool.query<R>(text, [...params])).rows,
    async transaction(work) {
      const client = await pool.connect();
      // The statement that is under way is refused with it; unheard, it would end the process.
      client.on('error', ignore);
      try {
        await client.query('begin');
        const result = await work(queriesOf(client));
        await client.query('commit');
        give(client);
        return result;
      } catch (error) {
        // A connection that can't roll back is thrown away, so that no half-done work is handed to the next user.
        await client.query('rollback').then(
          () => give(client),
          (failed: Error) => give(client, failed),
        );
        throw error;
      }
    },
    async listen(heard) {
      // A connection of its own: one of the pool is given to whoever comes next.
      const open = async (): Promise<void> => {
        const one = new pg.Client({ connectionString: url });
        one.on('error', ignore);
        await one.connect();
        one.on('notification', ({ payload = '' }) => heard(payload));
        await one.query(`listen ${CHANNEL}`);
        one.on('end', () => again(open));
        listener = one;
      };
      const again = (run: () => Promise<void>): void => {
        if (closing) return;
        listener = null;
        setTimeout(() => {
          run().then(
            // What was told meanwhile was heard by nobody.
            () => heard(''),
            () => again(run),
          );
        }, LISTEN_AGAIN_MS).unref();
      };
      await open();
    },
    async close() {
      closing = true;
      await listener?.end();
      await pool.end();
    },
  };
}
