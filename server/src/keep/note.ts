import { facetsOf, type Build } from '@hot-spline/model';
import type { Queries } from '../db/database';

/** What the board knows of a build without its ledger; its work is worked out behind it (notes.ts). */
export async function noteBuild(tx: Queries, id: string, build: Build): Promise<void> {
  const facets = facetsOf(build);
  const words = [build.name, build.vehicle, build.use, build.worker, ...facets].join(' ').toLowerCase();
  await tx.query(
    'update builds set promised = $2, worker = $3, customer = $4, facets = $5, stale = true where id = $1',
    [id, build.promised, build.worker, build.customer, words],
  );
  await tx.query('delete from build_facets where build_id = $1', [id]);
  await tx.query('insert into build_facets (build_id, facet) select $1, unnest($2::text[]) on conflict do nothing', [
    id,
    facets,
  ]);
}
