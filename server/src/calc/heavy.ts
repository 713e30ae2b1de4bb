import { Worker } from 'node:worker_threads';
import { InputError } from '@hot-spline/core';
import type { HEAVY } from '@hot-spline/model';
import { Problem } from '../base/problem';
import type { HeavyMessage } from './heavy-worker';

type Heavy = typeof HEAVY;
type InputOf<N extends keyof Heavy> = Parameters<Heavy[N]['run']>[0];
type OutputOf<N extends keyof Heavy> = Awaited<ReturnType<Heavy[N]['run']>>;

const AT_ONCE = 2;
const LONGEST_MS = 120_000;
let running = 0;

/** The thread's file: TypeScript where the program runs from its sources, the bundle beside us where it was built. */
const thread = (): URL =>
  new URL(import.meta.url.endsWith('.ts') ? './heavy-start.mjs' : './heavy-worker.mjs', import.meta.url);

/**
 * Runs heavy work on a thread of its own, so that nobody else waits for it.
 * @throws InputError naming the field; Problem 503 where two run already, 504 where it takes too long
 */
export async function runHeavy<N extends keyof Heavy>(
  name: N,
  input: InputOf<N>,
  { progress, signal }: { progress?: (share: number) => void; signal?: AbortSignal } = {},
): Promise<OutputOf<N>> {
  if (running >= AT_ONCE)
    throw new Problem(503, 'busy', 'Busy', `${AT_ONCE} long calculations are running already; try again in a while.`);
  running++;
  const worker = new Worker(thread(), { workerData: { name, input } });
  let timer: NodeJS.Timeout | undefined;
  try {
    return await new Promise<OutputOf<N>>((resolve, reject) => {
      worker.on('message', (message: HeavyMessage) => {
        if (message.kind === 'told') progress?.(message.share);
        else if (message.kind === 'done') resolve(message.result as OutputOf<N>);
        else reject(new InputError(message.field, message.message, message.allowed));
      });
      worker.once('error', reject);
      worker.once('exit', (code) => reject(new Error(`${name} ended with code ${code}`)));
      const late = `${name} was stopped after ${LONGEST_MS / 1000} s.`;
      timer = setTimeout(() => reject(new Problem(504, 'too-long', 'Took too long', late)), LONGEST_MS);
      signal?.addEventListener('abort', () => reject(new Problem(499, 'gone', 'Nobody waits', 'The caller has gone.')));
    });
  } finally {
    clearTimeout(timer);
    running--;
    await worker.terminate();
  }
}
