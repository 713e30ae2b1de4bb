import { fileJsonSchema, openApi, routes, type HealthAnswer } from '@hot-spline/model';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on } from '../base/http';
import { askerOf } from '../base/asker';
import { Problem } from '../base/problem';
import { OLD_MS, type Backups } from '../keep/backups';
import type { Care, Health } from '../keep/care';
import { setUpsText } from '../keep/set-ups';
import { readShop, saveSettings } from '../keep/shop';

/** The shop itself, and what describes the API and the files. */
export function shopRoutes(
  db: Database,
  program: { readonly version: string; readonly open: boolean },
  /** Where labels lead while the shop has not said another; empty: to the device that prints them. */
  ownAddress: string,
  care: Care,
  backups: Backups | null,
): Router {
  const router = Router();
  const { version } = program;
  const answer = ({ checked, damage }: Health): HealthAnswer => {
    const { last, file, problem } = backups?.current ?? { last: null, file: null, problem: '' };
    const old = last === null || Date.now() - Date.parse(last) > OLD_MS;
    return {
      ok: damage.length === 0,
      version,
      checked,
      damage: [...damage],
      backup: backups && { last, file, old, problem },
    };
  };

  on(router, routes.health, async ({ response }) => {
    await db.query('select 1');
    const whole = answer(care.health);
    const { door, session } = askerOf(response);
    // Whoever is not in learns that it answers, and no name of what is kept.
    response.json(door === 'people' && !session ? { ...whole, damage: [], backup: null } : whole);
  });

  on(router, routes.check, async ({ response }) => {
    response.json(answer(await care.check()));
  });

  on(router, routes.backup, async ({ response }) => {
    if (!backups)
      throw new Problem(
        409,
        'no-folder',
        'No folder here',
        'The data is in a PostgreSQL server: its own tools make the backups.',
      );
    await backups.make('hand');
    response.json(answer(care.health));
  });

  const shop = async (): Promise<object> => {
    const kept = await readShop(db);
    return { ...kept, address: kept.address || ownAddress, ...program };
  };

  on(router, routes.shop, async ({ response }) => {
    response.json(await shop());
  });

  on(router, routes.saveShop, async ({ body: settings, response }) => {
    await saveSettings(db, settings);
    response.json(await shop());
  });

  on(router, routes.setUps, async ({ query, response }) => {
    response.type('application/json').send(await setUpsText(db, query));
  });

  on(router, routes.openApi, ({ response }) => {
    response.json(openApi(version, undefined, ownAddress === '' ? '/' : ownAddress));
  });

  on(router, routes.schemas, ({ params: { name }, response }) => {
    response.type('application/schema+json').send(JSON.stringify(fileJsonSchema(name)));
  });

  return router;
}
