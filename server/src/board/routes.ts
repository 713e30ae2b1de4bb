import { routes } from '@hot-spline/model';
import { boardCsv } from '@hot-spline/model/csv';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on } from '../base/http';
import { Problem } from '../base/problem';
import type { Notes } from '../keep/notes';
import { readShop } from '../keep/shop';
import { calendarKey, calendarText, dropCalendarKey, isCalendarKey, newCalendarKey } from './calendar';
import { eraseCustomer, listCustomers, readBoard, recall, saveCustomer } from '../keep/board';

/** The board of the shop: where each job stands, whose it is, and who else has what failed. */
export function boardRoutes(db: Database, notes: Notes, ownAddress: string): Router {
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

  on(router, routes.calendar, async ({ query: { key }, response }) => {
    if (!(await isCalendarKey(db, key)))
      throw new Problem(404, 'no-calendar', 'No calendar', 'There is no calendar behind this link, or not any more.');
    await notes.settled(Number.POSITIVE_INFINITY);
    const { rows } = await readBoard(db, { search: '', archived: false, sort: 'promised', offset: 0, limit: null });
    const shop = await readShop(db);
    response.type('text/calendar').send(calendarText(rows, shop, shop.address || ownAddress));
  });

  on(router, routes.calendarLink, async ({ response }) => {
    response.json({ key: await calendarKey(db) });
  });

  on(router, routes.makeCalendarLink, async ({ response }) => {
    response.status(201).json({ key: await newCalendarKey(db) });
  });

  on(router, routes.dropCalendarLink, async ({ response }) => {
    await dropCalendarKey(db);
    response.json({ key: null });
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
