import { Worker } from 'node:worker_threads';
import type { Database, Queries, Row } from './database';
import { DatabaseLost } from '../base/lost';
import type { FromThread, ToThread } from './pglite-worker';

export interface Opened extends Database {
  /** Comes where the database goes down by itself. */
  readonly lost: Promise<DatabaseLost>;
}

/** The thread's file: TypeScript where the program runs from its sources, the bundle beside us where it was built. */
const thread = (): URL =>
  new URL(import.meta.url.endsWith('.ts') ? './pglite-start.mjs' : './pglite-worker.mjs', import.meta.url);

/**
 * Opens PGlite on a thread of its own: whatever it does, the server answers, hears its signals and can leave.
 * One statement or transaction at a time, in the order in which they were asked for.
 * @throws Error where the folder can't be opened
 */
export async function openPgliteThread(folder: string): Promise<Opened> {
  const worker = new Worker(thread(), { workerData: { folder } });
  const waiting = new Map<number, { resolve: (rows: Row[]) => void; reject: (error: Error) => void }>();
  let asked = 0;
  let gone: DatabaseLost | null = null;
  let tellLost: (error: DatabaseLost) => void;
  const lost = new Promise<DatabaseLost>((resolve) => (tellLost = resolve));
  let closed: (() => void) | null = null;
  let heard: (told: string) => void = () => undefined;

  const goDown = (why: string): void => {
    if (gone) return;
    gone = new DatabaseLost(`The database went down: ${why}`);
    for (const { reject } of waiting.values()) reject(gone);
    waiting.clear();
    if (closed) closed();
    else tellLost(gone);
    void worker.terminate();
  };
  const opened = new Promise<void>((resolve, reject) => {
    worker.on('message', (message: FromThread) => {
      if (message.kind === 'open') return resolve();
      if (message.kind === 'closed') return closed?.();
      if (message.kind === 'heard') return heard(message.told);
      if (message.kind === 'lost') return goDown(message.message);
      const one = waiting.get(message.id);
      waiting.delete(message.id);
      if (message.kind === 'rows') one?.resolve([...message.rows]);
      else one?.reject(Object.assign(new Error(message.error.message), message.error));
    });
    worker.once('error', (error) => {
      reject(error);
      goDown(error.message);
    });
    worker.once('exit', (code) => goDown(`its thread left with ${code}`));
  });
  await opened;

  const send = (message: ToThread): void => worker.postMessage(message);
  const ask = <R extends Row>(text: string, params: readonly unknown[] = []): Promise<R[]> =>
    new Promise((resolve, reject) => {
      if (gone) return reject(gone);
      const id = asked++;
      waiting.set(id, { resolve: resolve as (rows: Row[]) => void, reject });
      send({ kind: 'query', id, text, params: [...params] });
    });
  // A transaction has the one connection to itself.
  let last: Promise<unknown> = Promise.resolve();
  const alone = <T>(work: () => Promise<T>): Promise<T> => {
    const run = last.then(work, work);
    last = run.catch(() => undefined);
    return run;
  };
  const tx: Queries = { query: ask };
  return {
    lost,
    query: (text, params) => alone(() => ask(text, params)),
    transaction: (work) =>
      alone(async () => {
        await ask('begin');
        try {
          const result = await work(tx);
          await ask('commit');
          return result;
        } catch (error) {
          // Where the database is gone nothing of it was kept.
          if (!gone) await ask('rollback');
          throw error;
        }
      }),
    listen: (hear) => {
      heard = hear;
      send({ kind: 'listen' });
      return Promise.resolve();
    },
    close: () =>
      alone(
        () =>
          new Promise<void>((resolve) => {
            if (gone) return resolve();
            closed = () => {
              gone ??= new DatabaseLost('The database is closed.');
              void worker.terminate().then(() => resolve());
            };
            send({ kind: 'close' });
          }),
      ),
  };
}
