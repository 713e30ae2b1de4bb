import {
  buildFileSchema,
  buildSchema,
  idSchema,
  parseOrRefuse,
  readBuildFile,
  z,
  type BuildFile,
} from '@hot-spline/model';
import express, { Router } from 'express';
import type { Database } from '../db/database';
import { Problem } from '../problem';
import { archiveBuild, createBuild, exportBuild, listBuilds, readBuild, saveBuild } from './store';

/** A specification is some ten kB; an import carries its whole ledger. */
export const SPEC_LIMIT = '1mb';
export const IMPORT_LIMIT = '32mb';

const createSchema = z.strictObject({ id: idSchema, file: z.unknown() });
const saveSchema = z.strictObject({ writeId: idSchema, baseVersion: z.int().min(1), build: buildSchema });
const archiveSchema = z.strictObject({ archived: z.boolean() });

export function unknownBuild(id: string): Problem {
  return new Problem(404, 'unknown-build', 'No such build', `There is no build ${id}.`);
}

/** An id out of a path. @throws InputError on `id` */
export const pathId = (params: { id?: string }): string =>
  parseOrRefuse(z.strictObject({ id: idSchema }), { id: params.id }, 'id').id;

const slug = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'build';

export function buildRoutes(db: Database): Router {
  const router = Router();

  router.get('/builds', async (_request, response) => {
    response.json(await listBuilds(db));
  });

  router.post('/builds', express.json({ limit: IMPORT_LIMIT }), async (request, response) => {
    const { id, file } = parseOrRefuse(createSchema, request.body, 'body');
    const { created, version } = await createBuild(db, id, readBuildFile(file));
    response.status(created ? 201 : 200).json({ id, version });
  });

  router.get('/builds/:id', async (request, response) => {
    const id = pathId(request.params);
    const stored = await readBuild(db, id);
    if (!stored) throw unknownBuild(id);
    response.json(stored);
  });

  router.put('/builds/:id', express.json({ limit: SPEC_LIMIT }), async (request, response) => {
    const id = pathId(request.params);
    const write = parseOrRefuse(saveSchema, request.body, 'body');
    const outcome = await saveBuild(db, id, write);
    if (outcome.kind === 'unknown') throw unknownBuild(id);
    if (outcome.kind === 'stale') {
      throw new Problem(
        409,
        'stale-version',
        'Changed elsewhere',
        `This change was made on version ${write.baseVersion}; the build is at version ${outcome.current.version} now.`,
        { baseVersion: write.baseVersion, yours: write.build, current: outcome.current },
      );
    }
    response.json({ id, version: outcome.version });
  });

  router.post('/builds/:id/archive', express.json({ limit: '1kb' }), async (request, response) => {
    const id = pathId(request.params);
    const { archived } = parseOrRefuse(archiveSchema, request.body, 'body');
    if (!(await archiveBuild(db, id, archived))) throw unknownBuild(id);
    response.json({ id, archived });
  });

  router.get('/builds/:id/export', async (request, response) => {
    const id = pathId(request.params);
    const file = await exportBuild(db, id);
    if (!file) throw unknownBuild(id);
    response.attachment(`${slug(file.build.name)}.hot-spline.json`).json(buildFileSchema.parse(file));
  });

  router.get('/export', async (_request, response) => {
    const builds: BuildFile[] = [];
    for (const { id } of await listBuilds(db)) {
      const file = await exportBuild(db, id);
      if (file) builds.push(file);
    }
    response.attachment('shop.hot-spline.json').json({ format: 'hot-spline/shop-file', formatVersion: 1, builds });
  });

  return router;
}
