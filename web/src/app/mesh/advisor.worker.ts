import {
  InputError,
  boldMove,
  learnedChanges,
  meshAdvise,
  type BoldMove,
  type Changes,
  type MeshAdvice,
  type MeshJob,
  type MeshMove,
  type Suspect,
} from '@hot-spline/core';
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
  /** A move that looks two assemblies ahead; null where the likeliest one is as good. */
  bold(job: MeshJob, plain: MeshMove, as: Suspect | null): BoldMove | null {
    return boldMove(job, plain, as);
  },
  /** What past axles of the spec taught; null where one of them can't be read. */
  learn(set: { readonly ringTeeth: number; readonly pinionTeeth: number }, past: readonly MeshJob[]): Changes | null {
    try {
      return learnedChanges(set, past);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return null;
    }
  },
};
export type AdvisorRemote = typeof advisor;

expose(advisor);
