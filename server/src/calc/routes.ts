import { calculations, routes } from '@hot-spline/model';
import { Router } from 'express';
import { on, whoAsks } from '../base/http';
import type { Pool } from '../threads/pool';

/** @param pool threads: the one that answers never calculates */
export function calcRoutes(pool: Pool): Router {
  const router = Router();

  on(router, routes.calculations, ({ response }) => {
    response.json(calculations.all().map(({ name, summary }) => ({ name, summary })));
  });

  on(router, routes.describeCalculation, ({ params: { name }, response }) => {
    response.json(calculations.describe(name));
  });

  on(router, routes.calculate, async ({ params: { name }, query, body, request, response }) => {
    const withWorking = query.working === 'true' || query.working === '1';
    calculations.get(name);
    const json = await pool.run('calculation', { name, input: body, withWorking }, whoAsks(request, response));
    response.type('application/json').send(json);
  });

  return router;
}
