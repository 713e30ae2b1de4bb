import { entryVersion, routes, upgrade } from '@hot-spline/model';
import { ledgerCsv } from '@hot-spline/model/csv';
import { Router } from 'express';
import { unknownBuild } from '../builds/routes';
import { readBuild } from '../keep/builds';
import type { Database } from '../db/database';
import { on } from '../base/http';
import { touchesDrawers } from '../keep/holdings';
import type { Notes } from '../keep/notes';
import { noteHoldings, requireStock } from '../keep/set-ups';
import { append, readLedger } from '../keep/ledger';

export function ledgerRoutes(db: Database, notes: Notes): Router {
  const router = Router();

  on(router, routes.ledger, async ({ params: { id }, query, response }) => {
    if (!(await readBuild(db, id))) throw unknownBuild(id);
    const ledger = await readLedger(db, id);
    if (query.as === 'csv') response.attachment('ledger.hot-spline.csv').type('text/csv').send(ledgerCsv(ledger));
    else response.json(ledger);
  });

  on(
    router,
    routes.appendLedger,
    async ({ params: { id }, query: { over }, body: entry, response }) => {
      // Before anything is taken out of a drawer it is known what everybody holds.
      if (touchesDrawers(entry)) await notes.held();
      const outcome = await append(db, id, entry, {
        check: (tx) => requireStock(tx, id, entry),
        after: (tx) => noteHoldings(tx, id, entry),
        over,
      });
      if (outcome === 'unknown-build') throw unknownBuild(id);
      response.status(outcome === 'appended' ? 201 : 200).json({ id: entry.id });
    },
    (body) => upgrade('ledger-entry', entryVersion(body), body),
  );

  return router;
}
