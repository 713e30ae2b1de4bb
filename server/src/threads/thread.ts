import { parentPort } from 'node:worker_threads';
import { InputError } from '@hot-spline/core';
import type { HeavyContext } from '@hot-spline/model';
import { TASKS, type TaskName } from './tasks';

export interface ToThread {
  readonly name: TaskName;
  readonly input: unknown;
  /** Not 0 once it is to end with what it has. */
  readonly end: Int32Array;
}
/** Results are JSON already: whoever sends them on has nothing left to do. */
export type FromThread =
  | { readonly kind: 'done'; readonly json: string }
  | { readonly kind: 'refused'; readonly field: string; readonly message: string; readonly allowed: string }
  | { readonly kind: 'failed'; readonly error: Error };

const port = parentPort;
if (!port) throw new Error('This is a thread.');
const say = (message: FromThread): void => port.postMessage(message);

port.on('message', ({ name, input, end }: ToThread) => {
  const context: HeavyContext = { tell: () => undefined, goOn: () => Atomics.load(end, 0) === 0 };
  const task = TASKS[name] as (input: unknown, context: HeavyContext) => unknown;
  Promise.resolve()
    .then(() => task(input, context))
    .then(
      // A text is one already.
      (result) => say({ kind: 'done', json: typeof result === 'string' ? result : JSON.stringify(result) }),
      (error: unknown) => {
        if (error instanceof InputError) {
          const { field, message, allowed } = error;
          say({ kind: 'refused', field, message, allowed });
        } else say({ kind: 'failed', error: error instanceof Error ? error : new Error(String(error)) });
      },
    );
});
