import { rm } from 'node:fs/promises';
import { routes } from '@hot-spline/model';
import { Router } from 'express';
import type { Logger } from 'pino';
import { on, whoAsks } from '../base/http';
import { Problem } from '../base/problem';
import type { Database } from '../db/database';
import { writeArchive } from '../keep/archive';
import type { Arrivals } from '../keep/arrivals';
import { readShop } from '../keep/shop';
import { spool } from './spool';

const unknownArchive = (id: string): Problem =>
  new Problem(404, 'unknown-archive', 'No such archive', `There is no archive ${id} on its way in.`);

/** The whole shop as one file, out and in. */
export function archiveRoutes(db: Database, arrivals: Arrivals, log: Logger, free: (() => number) | undefined): Router {
  const router = Router();

  on(router, routes.archive, async ({ query: { customers }, request, response }) => {
    const shop = await readShop(db);
    const day = new Date().toISOString().slice(0, 10);
    response.attachment(`shop-${day}.hot-spline.zip`).type('application/zip');
    const { signal } = whoAsks(request, response);
    try {
      await writeArchive(db, shop.id, response, { signal, customers: customers !== 'false' && customers !== '0' });
    } catch (error) {
      // It is on its way already: that it ends in the middle is how its reader learns of it.
      if (!signal.aborted) log.error({ err: error }, 'an archive was not written to its end');
      response.destroy();
    }
  });

  on(router, routes.arrivals, ({ response }) => {
    response.json(arrivals.all());
  });

  on(router, routes.sendArchive, async ({ request, response }) => {
    const busy = new Problem(409, 'arriving', 'Another archive is on its way in', 'One at a time: wait, or stop it.');
    if (arrivals.busy) throw busy;
    const { id, file } = arrivals.spool();
    await spool(request, file, free);
    if (arrivals.busy) {
      await rm(file, { force: true });
      throw busy;
    }
    response.status(202).json(arrivals.read(id, file));
  });

  on(router, routes.arrival, ({ params: { id }, response }) => {
    const said = arrivals.find(id);
    if (!said) throw unknownArchive(id);
    response.json(said);
  });

  on(router, routes.takeArchive, ({ params: { id }, body: { customers }, response }) => {
    const known = arrivals.find(id);
    if (!known) throw unknownArchive(id);
    const said = arrivals.take(id, customers);
    if (!said)
      throw new Problem(409, 'not-ready', 'It can’t be brought in', `The archive is ${known.state}, and not ready.`, {
        current: known,
      });
    response.status(202).json(said);
  });

  on(router, routes.dropArchive, async ({ params: { id }, response }) => {
    const said = await arrivals.drop(id);
    if (!said) throw unknownArchive(id);
    response.json(said);
  });

  return router;
}
