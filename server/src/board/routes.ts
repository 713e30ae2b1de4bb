import { routes } from '@hot-spline/model';
import { boardCsv } from '@hot-spline/model/csv';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on } from '../base/http';
import { Problem } from '../base/problem';
import type { Notes } from '../keep/notes';
import { eraseCustomer, listCustomers, readBoard, recall, saveCustomer } from '../keep/board';

/** The board of the shop: where each job stands, whose it is, and who else has what failed. */
export function boardRoutes(db: Database, notes: Notes): Router {
  const router = Router();

  on(router, routes.board, async ({ query, response }) => {
    // Who asks for all of it gets no row of before.
    await (query.as === 'csv' ? notes.settled(Number.POSITIVE_INFINITY) : notes.settled());
    const archived = query.archived === 'true' || query.archived === '1';
    if (query.as === 'json') response.json(await readBoard(db, { ...query, archived }));
    else {
      const { rows } = await readBoard(db, { ...query, archived, offset: 0, limit: null });
      response.attachment('board.hot-spline.csv').type('text/csv').send(boardCsv(rows));
    }
  });

  on(router, routes.recall, async ({ query: { of }, response }) => {
    response.json(await recall(db, of));
  });

  on(router, routes.customers, async ({ response }) => {
    response.json(await listCustomers(db));
  });

  on(router, routes.saveCustomer, async ({ params: { id }, body, response }) => {
    response.json(await saveCustomer(db, id, body));
  });

  on(router, routes.eraseCustomer, async ({ params: { id }, response }) => {
    if (!(await eraseCustomer(db, id)))
      throw new Problem(404, 'unknown-customer', 'No such customer', `There is no customer ${id}.`);
    response.json({ id, erased: true });
  });

  return router;
}
