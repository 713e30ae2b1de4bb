import { rmSync } from 'node:fs';
import path from 'node:path';
import { PGlite, type Transaction } from '@electric-sql/pglite';
import { CHANNEL, type Database, type Queries, type Row } from './database';
import { DurableNodeFs } from './durable-node-fs';

/** PGlite's own start parameters without `-F` (which switches fsync off), and with a sync method that is fsync. */
function durableStartParams(): string[] {
  const defaults = (PGlite as unknown as { defaultStartParams: string[] }).defaultStartParams;
  return [...defaults.filter((parameter) => parameter !== '-F'), '-c', 'fsync=on', '-c', 'wal_sync_method=fsync'];
}

const queriesOf = (pg: Pick<PGlite, 'query'> | Transaction): Queries => ({
  async query<R extends Row>(text: string, params: readonly unknown[] = []): Promise<R[]> {
    return (await pg.query<R>(text, [...params])).rows;
  },
});

/** Opens PGlite in `folder`, which must be locked (folder-lock.ts); `durable: false` is the yardstick of the bench and nothing else. */
export async function openPglite(folder: string, { durable = true } = {}): Promise<Database> {
  // Its own lock file: a power cut while it is written leaves one that it can't read, and it would never open again. Ours guards the folder.
  rmSync(path.join(folder, 'postmaster.pid'), { force: true });
  const pg = durable
    ? await PGlite.create({ fs: new DurableNodeFs(folder), startParams: durableStartParams() })
    : await PGlite.create(folder);
  return {
    ...queriesOf(pg),
    transaction: async (work) =>
      (await pg.transaction((tx) => work(queriesOf(tx)))) as Awaited<ReturnType<typeof work>>,
    listen: async (heard) => void (await pg.listen(CHANNEL, heard)),
    close: () => pg.close(),
  };
}
