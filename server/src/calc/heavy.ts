import { Worker } from 'node:worker_threads';
import { InputError } from '@hot-spline/core';
import { Problem } from '../problem';

type Answer =
  | { readonly kind: 'done'; readonly result: Record<string, unknown> }
  | { readonly kind: 'refused'; readonly field: string; readonly message: string; readonly allowed: string };

const AT_ONCE = 2;
const LONGEST_MS = 120_000;
let running = 0;

/**
 * Runs a calculation on a thread of its own, so that nobody else waits for it.
 * @throws InputError naming the field; Problem 503 where two run already, 504 where it takes too long
 */
export async function runHeavy(name: string, input: unknown, withWorking: boolean): Promise<Record<string, unknown>> {
  if (running >= AT_ONCE)
    throw new Problem(503, 'busy', 'Busy', `${AT_ONCE} long calculations are running already; try again in a while.`);
  running++;
  const worker = new Worker(new URL('./heavy-start.mjs', import.meta.url), {
    workerData: { name, input, withWorking },
  });
  let timer: NodeJS.Timeout | undefined;
  try {
    const answer = await new Promise<Answer>((resolve, reject) => {
      worker.once('message', resolve);
      worker.once('error', reject);
      worker.once('exit', (code) => reject(new Error(`the calculation ended with code ${code}`)));
      timer = setTimeout(
        () =>
          reject(new Problem(504, 'too-long', 'Took too long', `${name} was stopped after ${LONGEST_MS / 1000} s.`)),
        LONGEST_MS,
      );
    });
    if (answer.kind === 'refused') throw new InputError(answer.field, answer.message, answer.allowed);
    return answer.result;
  } finally {
    clearTimeout(timer);
    running--;
    await worker.terminate();
  }
}
