import { boardWork, facetsOf, ledgerWords, type Build, type LedgerEntry } from '@hot-spline/model';
import type { Queries } from '../db/database';

/** What the board knows of a build without its ledger; its work is worked out when it is asked for. */
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

/** Keeps how far the work is, and what is found by what was written on the way: a ledger only grows, and so do its words. */
export async function noteWork(tx: Queries, id: string, build: Build, ledger: readonly LedgerEntry[]): Promise<void> {
  const work = boardWork(build, ledger);
  await tx.query('update builds set state = $2, work = $3, stale = false where id = $1', [
    id,
    work.state,
    JSON.stringify(work),
  ]);
  await tx.query('insert into build_words (build_id, word) select $1, unnest($2::text[]) on conflict do nothing', [
    id,
    ledgerWords(ledger),
  ]);
}
