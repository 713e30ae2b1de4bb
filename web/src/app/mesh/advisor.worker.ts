import { InputError, meshAdvise, type MeshAdvice, type MeshJob } from '@hot-spline/core';
import { expose } from 'comlink';

export type Advised =
  | { readonly kind: 'advice'; readonly advice: MeshAdvice; readonly ms: number }
  | { readonly kind: 'refused'; readonly message: string };

const advisor = {
  advise(job: MeshJob): Advised {
    const from = performance.now();
    try {
      return { kind: 'advice', advice: meshAdvise(job), ms: performance.now() - from };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { kind: 'refused', message: `${error.message} Allowed: ${error.allowed}.` };
    }
  },
};
export type AdvisorRemote = typeof advisor;

expose(advisor);
