import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { routes } from '@hot-spline/model';
import { Router } from 'express';
import { on } from '../base/http';
import { Problem } from '../base/problem';
import type { Database } from '../db/database';
import { surveyBuilds } from '../keep/builds';
import { BadArchive, NotEmpty, restoreArchive } from '../keep/open-archive';
import { readShop } from '../keep/shop';
import { tell } from '../keep/tell';
import { spool } from './spool';

/**
 * Brings a backup back by the first page of a new shop.
 * @param folder where it lies while it is read
 * @param restored the data is another shop's now
 */
export function restoreRoutes(
  db: Database,
  folder: string,
  restored: (shop: string) => void,
  free: (() => number) | undefined,
): Router {
  const router = Router();
  on(router, routes.restore, async ({ request, response }) => {
    const file = path.join(folder, `.restore-${randomUUID()}.zip`);
    try {
      await spool(request, file, free);
      const { made, counts } = await restoreArchive(db, file);
      const { id: shop } = await readShop(db);
      restored(shop);
      await tell(db, { of: 'all' });
      await surveyBuilds(db);
      response.json({ shop, made, ...counts });
    } catch (error) {
      if (error instanceof NotEmpty)
        throw new Problem(
          409,
          'not-empty',
          'The shop is not empty',
          `${error.message} A backup goes into a new shop alone.`,
        );
      if (error instanceof BadArchive)
        throw new Problem(422, 'bad-backup', 'This backup can’t be used', `${error.message} Nothing was kept of it.`, {
          error: { field: 'body', message: error.message, allowed: 'a backup of Hot Spline, whole' },
        });
      throw error;
    } finally {
      await rm(file, { force: true });
    }
  });
  return router;
}
