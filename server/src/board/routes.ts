import { randomUUID } from 'node:crypto';
import { routes } from '@hot-spline/model';
import { boardCsv, partsCsv } from '@hot-spline/model/csv';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on } from '../base/http';
import { Problem } from '../base/problem';
import type { Notes } from '../keep/notes';
import { readShop } from '../keep/shop';
import { calendarKey, calendarText, dropCalendarKey, isCalendarKey, newCalendarKey } from './calendar';
import { eraseCustomer, listCustomers, listWorkers, readBoard, recall, saveCustomer, serverDay } from '../keep/board';
import { MOST_HOOKS, addHook, dropHook, findHook, hookBody, listHooks } from '../keep/hooks';
import { readWanted } from '../keep/parts';
import { whatIs } from './scan';
import { callOnce } from './tell';
import { readWeek } from './week';

const unknownHook = (id: string): Problem =>
  new Problem(404, 'unknown-hook', 'No such program', `No program ${id} is told anything.`);

/** The board of the shop: where each job stands, whose it is, and who else has what failed. */
export function boardRoutes(db: Database, notes: Notes, ownAddress: string): Router {
  const router = Router();

  on(router, routes.board, async ({ query, response }) => {
    // Who asks for all of it gets no row of before.
    await (query.as === 'csv' ? notes.settled(Number.POSITIVE_INFINITY) : notes.settled());
    const archived = query.archived === 'true' || query.archived === '1';
    const ask = { ...query, archived, today: query.today ?? serverDay() };
    if (query.as === 'json') response.json(await readBoard(db, ask));
    else {
      const { rows } = await readBoard(db, { ...ask, offset: 0, limit: null });
      response.attachment('board.hot-spline.csv').type('text/csv').send(boardCsv(rows));
    }
  });

  on(router, routes.boardWeek, async ({ query: { today = serverDay(), weeks }, response }) => {
    await notes.settled();
    const { weekHours } = await readShop(db);
    response.json(await readWeek(db, { today, weeks, hours: weekHours }));
  });

  on(router, routes.workers, async ({ response }) => {
    response.json(await listWorkers(db));
  });

  on(router, routes.scan, async ({ query: { code }, response }) => {
    await notes.settled();
    response.json(await whatIs(db, code));
  });

  on(router, routes.partsToOrder, async ({ query, response }) => {
    await (query.as === 'csv' ? notes.settled(Number.POSITIVE_INFINITY) : notes.settled());
    const parts = await readWanted(db);
    if (query.as === 'json') response.json(parts);
    else response.attachment('parts-to-order.hot-spline.csv').type('text/csv').send(partsCsv(parts));
  });

  on(router, routes.hooks, async ({ response }) => {
    response.json(await listHooks(db));
  });

  on(router, routes.addHook, async ({ body, response }) => {
    const added = await addHook(db, body);
    if (!added)
      throw new Problem(409, 'too-many', 'Too many', `${MOST_HOOKS} programs are told already: take one away first.`);
    response.status(201).json(added);
  });

  on(router, routes.testHook, async ({ params: { id }, response }) => {
    const hook = await findHook(db, id);
    if (!hook) throw unknownHook(id);
    const problem = await callOnce({ ...hook, id: randomUUID(), body: hookBody({ type: 'test' }) });
    response.json({ took: problem === '', problem });
  });

  on(router, routes.dropHook, async ({ params: { id }, response }) => {
    if (!(await dropHook(db, id))) throw unknownHook(id);
    response.json({ id, dropped: true });
  });

  on(router, routes.calendar, async ({ query: { key }, response }) => {
    if (!(await isCalendarKey(db, key)))
      throw new Problem(404, 'no-calendar', 'No calendar', 'There is no calendar behind this link, or not any more.');
    await notes.settled(Number.POSITIVE_INFINITY);
    const today = serverDay();
    const { rows } = await readBoard(db, {
      ...{ search: '', archived: false, sort: 'promised', offset: 0, limit: null, today },
    });
    const shop = await readShop(db);
    response.type('text/calendar').send(calendarText(rows, shop, shop.address || ownAddress, today));
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
