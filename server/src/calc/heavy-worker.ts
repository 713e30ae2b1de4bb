import { parentPort, workerData } from 'node:worker_threads';
import { InputError } from '@hot-spline/core';
import { calculations } from '@hot-spline/model';

const { name, input, withWorking } = workerData as { name: string; input: unknown; withWorking: boolean };
try {
  parentPort?.postMessage({ kind: 'done', result: calculations.run(name, input, withWorking) });
} catch (error) {
  if (!(error instanceof InputError)) throw error;
  const { field, message, allowed } = error;
  parentPort?.postMessage({ kind: 'refused', field, message, allowed });
}
