import { FORMAT_VERSION, libraryCsv, routes } from '@hot-spline/model';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on } from '../http';
import { Problem } from '../problem';
import { archiveSpec, listSpecs, saveSpec } from './store';

export function libraryRoutes(db: Database): Router {
  const router = Router();

  on(router, routes.library, async ({ response }) => {
    response.json(await listSpecs(db));
  });

  on(router, routes.exportLibrary, async ({ query, response }) => {
    const specs = (await listSpecs(db)).flatMap(({ archived, spec }) => (archived || !spec ? [] : [spec]));
    if (query.as === 'csv') {
      response.attachment('library.hot-spline.csv').type('text/csv').send(libraryCsv(specs));
      return;
    }
    response
      .attachment('library.hot-spline.json')
      .json({ format: 'hot-spline/library-file', formatVersion: FORMAT_VERSION, specs });
  });

  on(router, routes.saveSpec, async ({ params: { id }, body: write, response }) => {
    const outcome = await saveSpec(db, id, write);
    switch (outcome.kind) {
      case 'other-content':
        throw new Problem(
          409,
          'other-content',
          'Another change has this id',
          `Under the write id ${write.writeId} another change was kept already.`,
          {
            yours: write.spec,
            error: { field: 'writeId', message: 'writeId was used before.', allowed: 'a new UUID' },
          },
        );
      case 'stale':
        throw new Problem(
          409,
          'stale-version',
          'Changed elsewhere',
          `This change was made on version ${write.baseVersion}; the spec is at version ${outcome.current?.version ?? 0} now.`,
          { baseVersion: write.baseVersion, yours: write.spec, current: outcome.current },
        );
      case 'saved':
        response.status(outcome.version === 1 ? 201 : 200).json({ id, version: outcome.version });
    }
  });

  on(router, routes.archiveSpec, async ({ params: { id }, body: { archived }, response }) => {
    if (!(await archiveSpec(db, id, archived)))
      throw new Problem(404, 'unknown-spec', 'No such spec', `There is no spec ${id} in the library.`);
    response.json({ id, archived });
  });

  return router;
}
