import { ledgerEntrySchema, parseOrRefuse } from '@hot-spline/model';
import express, { Router } from 'express';
import { pathId, unknownBuild } from '../builds/routes';
import { readBuild } from '../builds/store';
import type { Database } from '../db/database';
import { append, readLedger } from './store';

export function ledgerRoutes(db: Database): Router {
  const router = Router();

  router.get('/builds/:id/ledger', async (request, response) => {
    const id = pathId(request.params);
    if (!(await readBuild(db, id))) throw unknownBuild(id);
    response.json(await readLedger(db, id));
  });

  router.post('/builds/:id/ledger', express.json({ limit: '64kb' }), async (request, response) => {
    const id = pathId(request.params);
    const entry = parseOrRefuse(ledgerEntrySchema, request.body, 'body');
    const outcome = await append(db, id, entry);
    if (outcome === 'unknown-build') throw unknownBuild(id);
    response.status(outcome === 'appended' ? 201 : 200).json({ id: entry.id });
  });

  return router;
}
