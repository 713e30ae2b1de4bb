import { calculations, routes } from '@hot-spline/model';
import { Router } from 'express';
import { on } from '../base/http';
import { runHeavy } from './heavy';

export function calcRoutes(): Router {
  const router = Router();

  on(router, routes.calculations, ({ response }) => {
    response.json(calculations.all().map(({ name, summary }) => ({ name, summary })));
  });

  on(router, routes.describeCalculation, ({ params: { name }, response }) => {
    response.json(calculations.describe(name));
  });

  on(router, routes.calculate, async ({ params: { name }, query, body, response }) => {
    const withWorking = query.working === 'true' || query.working === '1';
    response.json(
      calculations.get(name).heavy
        ? await runHeavy('calculation', { name, input: body, withWorking })
        : calculations.run(name, body, withWorking),
    );
  });

  return router;
}
