import pg from 'pg';
import type { Database, Queries, Row } from './database';

const queriesOf = (client: Pick<pg.ClientBase, 'query'>): Queries => ({
  async query<R extends Row>(text: string, params: readonly unknown[] = []): Promise<R[]> {
    return (await client.query<R>(text, [...params])).rows;
  },
});

/** A PostgreSQL server for a shop with several machines: the same SQL through the same seam. */
export async function openPostgres(url: string): Promise<Database> {
  const pool = new pg.Pool({ connectionString: url });
  await pool.query('select 1');
  return {
    query: async <R extends Row>(text: string, params: readonly unknown[] = []) =>
      (await pool.query<R>(text, [...params])).rows,
    async transaction(work) {
      const client = await pool.connect();
      try {
        await client.query('begin');
        const result = await work(queriesOf(client));
        await client.query('commit');
        client.release();
        return result;
      } catch (error) {
        // A connection that can't roll back is thrown away, so that no half-done work is handed to the next user.
        await client.query('rollback').then(
          () => client.release(),
          (failed: Error) => client.release(failed),
        );
        throw error;
      }
    },
    close: () => pool.end(),
  };
}
