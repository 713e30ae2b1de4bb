import { InputError } from '@hot-spline/core';
import type { HeavyWork } from '@hot-spline/model';
import { expose } from 'comlink';
import { JOBS, type HeavyRemote, type JobName } from './heavy-jobs';

const TELL_EVERY_MS = 120;

const remote: HeavyRemote = {
  async run(name: JobName, input: unknown, limitS: number, tell: (share: number, news: unknown) => void) {
    const started = performance.now();
    let told = Number.NEGATIVE_INFINITY;
    try {
      const job: HeavyWork = JOBS[name];
      const result = await job.run(input as never, {
        goOn: () => performance.now() - started < limitS * 1000,
        tell(share, news) {
          const now = performance.now();
          if (now - told <= TELL_EVERY_MS) return;
          told = now;
          tell(share, news);
        },
      });
      return { kind: 'done', result, seconds: (performance.now() - started) / 1000 };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { kind: 'refused', field: error.field, message: error.message, allowed: error.allowed };
    }
  },
};

expose(remote);
