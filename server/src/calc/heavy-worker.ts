import { parentPort, workerData } from 'node:worker_threads';
import { InputError } from '@hot-spline/core';
import { HEAVY, type HeavyContext, type HeavyWork } from '@hot-spline/model';

export type HeavyMessage =
  | { readonly kind: 'told'; readonly share: number }
  | { readonly kind: 'done'; readonly result: unknown }
  | { readonly kind: 'refused'; readonly field: string; readonly message: string; readonly allowed: string };

const say = (message: HeavyMessage): void => parentPort?.postMessage(message);
const { name, input } = workerData as { name: keyof typeof HEAVY; input: never };
const TELL_EVERY_MS = 200;
let told = performance.now();
const context: HeavyContext = {
  goOn: () => true,
  tell(share) {
    if (performance.now() - told < TELL_EVERY_MS) return;
    told = performance.now();
    say({ kind: 'told', share });
  },
};
try {
  const work: HeavyWork = HEAVY[name];
  say({ kind: 'done', result: await work.run(input, context) });
} catch (error) {
  if (!(error instanceof InputError)) throw error;
  const { field, message, allowed } = error;
  say({ kind: 'refused', field, message, allowed });
}
