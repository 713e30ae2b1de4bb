import { entryVersion, routes, upgrade } from '@hot-spline/model';
import { Router } from 'express';
import { opening, unknownBuild } from '../builds/routes';
import { readKeptRow } from '../keep/builds';
import type { Database } from '../db/database';
import { requireOwnName } from '../people/guard';
import { on, requireMatch, tagOf, whoAsks } from '../base/http';
import { touchesDrawers } from '../keep/holdings';
import { tellSigned } from '../keep/hooks';
import { readKept, type Notes } from '../keep/notes';
import { noteHoldings, requireStock } from '../keep/set-ups';
import { append, countEntries } from '../keep/ledger';
import type { Pool } from '../threads/pool';

export function ledgerRoutes(db: Database, notes: Notes, pool: Pool): Router {
  const router = Router();

  on(router, routes.ledger, async ({ params: { id }, query: { as }, request, response }) => {
    const row = await readKeptRow(db, id);
    if (!row) throw unknownBuild(id);
    const kept = await readKept(db, row);
    const text = await opening(id, pool.run('ledger', { kept, as }, whoAsks(request, response)));
    if (as === 'csv') response.attachment('ledger.hot-spline.csv').type('text/csv').send(text);
    else response.set('ETag', tagOf(kept.count)).type('application/json').send(text);
  });

  on(
    router,
    routes.appendLedger,
    async ({ params: { id }, query, body: entry, request, response }) => {
      await requireOwnName(db, response, {
        who: entry.who,
        ...(entry.kind === 'signature' ? { name: entry.name } : {}),
      });
      let { over } = query;
      if (request.headers['if-match'] !== undefined) {
        const count = await countEntries(db, id);
        requireMatch(request, count);
        over ??= count;
      }
      // Before anything is taken out of a drawer it is known what everybody holds.
      if (touchesDrawers(entry)) await notes.held();
      const outcome = await append(db, id, entry, {
        check: (tx) => requireStock(tx, id, entry),
        after: async (tx) => {
          await noteHoldings(tx, id, entry);
          if (entry.kind === 'signature') await tellSigned(tx, id, entry);
        },
        over,
      });
      if (outcome === 'unknown-build') throw unknownBuild(id);
      response.status(outcome === 'appended' ? 201 : 200).json({ id: entry.id });
    },
    (body) => upgrade('ledger-entry', entryVersion(body), body),
  );

  return router;
}
