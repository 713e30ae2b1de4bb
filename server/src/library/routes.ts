import { idSchema, libraryCsv, librarySpecSchema, parseOrRefuse, z } from '@hot-spline/model';
import express, { Router } from 'express';
import { pathId } from '../builds/routes';
import type { Database } from '../db/database';
import { Problem } from '../problem';
import { archiveSpec, listSpecs, saveSpec } from './store';

const saveSchema = z.strictObject({ writeId: idSchema, baseVersion: z.int().min(0), spec: librarySpecSchema });
const archiveSchema = z.strictObject({ archived: z.boolean() });

export function libraryRoutes(db: Database): Router {
  const router = Router();

  router.get('/library', async (_request, response) => {
    response.json(await listSpecs(db));
  });

  router.put('/library/:id', express.json({ limit: '256kb' }), async (request, response) => {
    const id = pathId(request.params);
    const write = parseOrRefuse(saveSchema, request.body, 'body');
    const outcome = await saveSpec(db, id, write);
    if (outcome.kind === 'stale') {
      throw new Problem(
        409,
        'stale-version',
        'Changed elsewhere',
        `This change was made on version ${write.baseVersion}; the spec is at version ${outcome.current?.version ?? 0} now.`,
        { baseVersion: write.baseVersion, yours: write.spec, current: outcome.current },
      );
    }
    response.status(outcome.version === 1 ? 201 : 200).json({ id, version: outcome.version });
  });

  router.post('/library/:id/archive', express.json({ limit: '1kb' }), async (request, response) => {
    const id = pathId(request.params);
    const { archived } = parseOrRefuse(archiveSchema, request.body, 'body');
    if (!(await archiveSpec(db, id, archived)))
      throw new Problem(404, 'unknown-spec', 'No such spec', `There is no spec ${id} in the library.`);
    response.json({ id, archived });
  });

  router.get('/library/export', async (request, response) => {
    const specs = (await listSpecs(db)).filter(({ archived }) => !archived).map(({ spec }) => spec);
    if (request.query['as'] === 'csv') {
      response.attachment('library.hot-spline.csv').type('text/csv').send(libraryCsv(specs));
      return;
    }
    response.attachment('library.hot-spline.json').json({ format: 'hot-spline/library-file', formatVersion: 1, specs });
  });

  return router;
}
