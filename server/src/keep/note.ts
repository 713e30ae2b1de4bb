import { AXLES, facetsOf, type Build, type BuildSummary } from '@hot-spline/model';
import type { Queries } from '../db/database';

/** Days on which an axle is to be looked at again, the first first. */
export const rechecksOf = (build: Build): BuildSummary['rechecks'] =>
  AXLES.flatMap((name) => {
    const axle = build.axles[name];
    const on = axle?.work?.runIn.on;
    return [axle?.unit.plate?.recheck ?? null, on ? { on, why: 'run-in' } : null];
  })
    .filter((one) => one !== null)
    .sort((a, b) => a.on.localeCompare(b.on));

/** What the board knows of a build without its ledger; its work is worked out behind it (notes.ts). */
export async function noteBuild(tx: Queries, id: string, build: Build): Promise<void> {
  const facets = facetsOf(build);
  const words = [build.name, build.vehicle, build.use, build.worker, ...facets].join(' ').toLowerCase();
  await tx.query(
    'update builds set promised = $2, worker = $3, customer = $4, facets = $5, recheck_on = $6, stale = true where id = $1',
    [id, build.promised, build.worker, build.customer, words, rechecksOf(build)[0]?.on ?? null],
  );
  await tx.query('delete from build_facets where build_id = $1', [id]);
  await tx.query('insert into build_facets (build_id, facet) select $1, unnest($2::text[]) on conflict do nothing', [
    id,
    facets,
  ]);
}
