import { fileJsonSchema, openApi, routes } from '@hot-spline/model';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on } from '../base/http';
import type { Care } from '../keep/care';
import { setUps } from '../keep/set-ups';
import { readShop, saveSettings } from '../keep/shop';

/** The shop itself, and what describes the API and the files. */
export function shopRoutes(db: Database, version: string, care: Care): Router {
  const router = Router();

  on(router, routes.health, async ({ response }) => {
    await db.query('select 1');
    const { checked, damage } = care.health;
    response.json({ ok: damage.length === 0, version, checked, damage: [...damage] });
  });

  on(router, routes.check, async ({ response }) => {
    const { checked, damage } = await care.check();
    response.json({ ok: damage.length === 0, version, checked, damage: [...damage] });
  });

  on(router, routes.shop, async ({ response }) => {
    response.json({ ...(await readShop(db)), version });
  });

  on(router, routes.saveShop, async ({ body: settings, response }) => {
    await saveSettings(db, settings);
    response.json({ ...(await readShop(db)), version });
  });

  on(router, routes.setUps, async ({ response }) => {
    response.json(await setUps(db));
  });

  on(router, routes.openApi, ({ response }) => {
    response.json(openApi(version));
  });

  on(router, routes.schemas, ({ params: { name }, response }) => {
    response.type('application/schema+json').send(JSON.stringify(fileJsonSchema(name)));
  });

  return router;
}
