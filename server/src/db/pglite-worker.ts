import { parentPort, workerData } from 'node:worker_threads';
import { openPglite } from './pglite';

export type ToThread =
  | { readonly kind: 'query'; readonly id: number; readonly text: string; readonly params: readonly unknown[] }
  | { readonly kind: 'listen' }
  | { readonly kind: 'close' };
export type FromThread =
  | { readonly kind: 'open' }
  | { readonly kind: 'closed' }
  | { readonly kind: 'heard'; readonly told: string }
  | { readonly kind: 'rows'; readonly id: number; readonly rows: readonly Record<string, unknown>[] }
  | { readonly kind: 'refused'; readonly id: number; readonly error: Refused }
  | { readonly kind: 'lost'; readonly message: string };

/** An error of PostgreSQL, as it crosses the threads. */
export interface Refused {
  readonly message: string;
  readonly code: string | undefined;
  readonly detail: string | undefined;
}

interface Reported {
  readonly severity?: string;
  readonly code?: string;
  readonly detail?: string;
}

const port = parentPort;
if (!port) throw new Error('This is a thread.');
const tell = (message: FromThread): void => port.postMessage(message);
const db = await openPglite((workerData as { folder: string }).folder);

/** An error that the database reports, and goes on; any other has taken it down. */
const isReported = (error: unknown): error is Error & Reported => {
  const severity = (error as Reported | null)?.severity;
  return error instanceof Error && severity !== undefined && severity !== 'PANIC' && severity !== 'FATAL';
};

port.on('message', (message: ToThread) => {
  if (message.kind === 'close') {
    db.close().then(
      () => tell({ kind: 'closed' }),
      (error: unknown) => tell({ kind: 'lost', message: String(error) }),
    );
    return;
  }
  if (message.kind === 'listen') {
    db.listen((told) => tell({ kind: 'heard', told })).catch((error: unknown) =>
      tell({ kind: 'lost', message: String(error) }),
    );
    return;
  }
  const { id, text, params } = message;
  db.query(text, params).then(
    (rows) => tell({ kind: 'rows', id, rows }),
    (error: unknown) => {
      if (!isReported(error))
        return tell({ kind: 'lost', message: error instanceof Error ? error.message : String(error) });
      tell({ kind: 'refused', id, error: { message: error.message, code: error.code, detail: error.detail } });
    },
  );
});
tell({ kind: 'open' });
