import type { MeshJob } from '@hot-spline/core';
import type { AxleName } from '../document/names';
import type { Construction } from '../library/schema';
import { meanOf } from './shifts';
import type { MeshAxle } from './state';

/** A set-up of the shop that teaches the next axle of its spec. */
export interface PastSetup {
  readonly axle: AxleName;
  /** Name of the axle's spec. */
  readonly spec: string;
  readonly construction: Construction;
  /** What was tried and read; null where it can't teach. */
  readonly job: MeshJob | null;
  /** What closing up took off backlash, each time that the same shims were read before and after. */
  readonly closingsMm: readonly number[];
}

/** What an axle teaches others of its spec; null while it teaches nothing. */
export function pastOf(mesh: MeshAxle, spec: string): PastSetup | null {
  const closingsMm = mesh.assemblies.flatMap(({ backlash: { trial, final } }) =>
    trial && final ? [meanOf(trial.mm) - meanOf(final.mm)] : [],
  );
  const job = mesh.job && mesh.job.tries.length > 1 ? mesh.job : null;
  return job || closingsMm.length > 0
    ? { axle: mesh.axle, spec, construction: mesh.construction, job, closingsMm }
    : null;
}

/** Those of the same spec and construction. */
export const pastOfSpec = <P extends PastSetup>(
  past: readonly P[],
  spec: string,
  construction: Construction,
): readonly P[] => past.filter((one) => one.spec === spec && one.construction === construction);
