import type { Construction } from '../library/schema';
import { meanOf } from './shifts';
import type { MeshAxle, PastSetup } from './axle';

/** What an axle teaches others of its spec; null while it teaches nothing. */
export function pastOf(mesh: MeshAxle, spec: string): PastSetup | null {
  const closingsMm = mesh.assemblies.flatMap(({ backlash: { trial, final } }) =>
    trial && final ? [meanOf(trial.mm) - meanOf(final.mm)] : [],
  );
  const job = mesh.job && mesh.job.tries.length > 1 ? mesh.job : null;
  return job || closingsMm.length > 0 || mesh.stayed
    ? { axle: mesh.axle, spec, construction: mesh.construction, job, closingsMm, stayed: mesh.stayed }
    : null;
}

/** Those of the same spec and construction. */
export const pastOfSpec = <P extends PastSetup>(
  past: readonly P[],
  spec: string,
  construction: Construction,
): readonly P[] => past.filter((one) => one.spec === spec && one.construction === construction);
