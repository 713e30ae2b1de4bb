import { calculations, openApi } from '@hot-spline/model';
import express, { Router } from 'express';
import { runHeavy } from './heavy';

export function calcRoutes(version: string): Router {
  const router = Router();

  router.get('/openapi.json', (_request, response) => {
    response.json(openApi(version));
  });

  router.get('/calc', (_request, response) => {
    response.json(calculations.all().map(({ name, summary }) => ({ name, summary })));
  });

  router.get('/calc/:name', (request, response) => {
    response.json(calculations.describe(request.params.name));
  });

  router.post('/calc/:name', express.json({ limit: '1mb', strict: false }), async (request, response) => {
    const withWorking = request.query['working'] === 'true' || request.query['working'] === '1';
    const { name } = request.params;
    response.json(
      calculations.get(name).heavy
        ? await runHeavy(name, request.body, withWorking)
        : calculations.run(name, request.body, withWorking),
    );
  });

  return router;
}
