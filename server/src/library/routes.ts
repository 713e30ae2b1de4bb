import { FORMAT_VERSION, routes } from '@hot-spline/model';
import { drawersCsv, libraryCsv } from '@hot-spline/model/csv';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on, requireMatch, tagOf } from '../base/http';
import { Problem, otherContent, staleVersion } from '../base/problem';
import { requireOwnName } from '../people/guard';
import { archiveSpec, listSpecs, saveSpec, specVersion } from '../keep/library';

export function libraryRoutes(db: Database): Router {
  const router = Router();

  on(router, routes.library, async ({ response }) => {
    response.json(await listSpecs(db));
  });

  on(router, routes.exportLibrary, async ({ query, response }) => {
    const specs = (await listSpecs(db)).flatMap(({ id, archived, spec }) => (archived || !spec ? [] : [{ id, spec }]));
    switch (query.as) {
      case 'csv':
        response.attachment('library.hot-spline.csv').type('text/csv').send(libraryCsv(specs));
        return;
      case 'drawers':
        response.attachment('drawers.hot-spline.csv').type('text/csv').send(drawersCsv(specs));
        return;
      case 'json':
        response.attachment('library.hot-spline.json').json({
          format: 'hot-spline/library-file',
          formatVersion: FORMAT_VERSION,
          specs: specs.map(({ spec }) => spec),
        });
    }
  });

  on(router, routes.saveSpec, async ({ params: { id }, body: write, request, response }) => {
    await requireOwnName(db, response, { who: write.who });
    if (request.headers['if-match'] !== undefined) requireMatch(request, await specVersion(db, id));
    const outcome = await saveSpec(db, id, write);
    switch (outcome.kind) {
      case 'other-content':
        throw otherContent(write.writeId, write.spec);
      case 'stale':
        throw staleVersion('spec', write.baseVersion, write.spec, outcome.current);
      case 'saved':
        response
          .status(outcome.version === 1 ? 201 : 200)
          .set('ETag', tagOf(outcome.version))
          .json({ id, version: outcome.version });
    }
  });

  on(router, routes.archiveSpec, async ({ params: { id }, body: { archived }, response }) => {
    if (!(await archiveSpec(db, id, archived)))
      throw new Problem(404, 'unknown-spec', 'No such spec', `There is no spec ${id} in the library.`);
    response.json({ id, archived });
  });

  return router;
}
