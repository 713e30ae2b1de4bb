import { InputError } from '@hot-spline/core';
import { FORMAT_VERSION, readBuildFile, routes, upgrade, type BuildFile, z } from '@hot-spline/model';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on, whoAsks } from '../base/http';
import type { Pool } from '../threads/pool';
import { readKept } from '../keep/notes';
import type { Care } from '../keep/care';
import { isReported } from '../keep/check';
import { listSpecs } from '../keep/library';
import { Problem, otherContent, staleVersion } from '../base/problem';
import { pastFor, setUps } from '../keep/set-ups';
import {
  archiveBuild,
  createBuild,
  exportBuild,
  listBuilds,
  rawBuild,
  readBuild,
  readKeptRow,
  readVersion,
  saveBuild,
  unreadableBuild,
} from '../keep/builds';

export function unknownBuild(id: string): Problem {
  return new Problem(404, 'unknown-build', 'No such build', `There is no build ${id}.`);
}

const slug = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'build';

/** A save made by an earlier web app, as one of today. */
function upgradeSave(body: unknown): unknown {
  if (typeof body !== 'object' || body === null || !('build' in body)) return body;
  return { ...body, build: upgrade('build', 0, body.build) };
}

export function buildRoutes(db: Database, care: Care, pool: Pool): Router {
  const router = Router();

  on(router, routes.builds, async ({ response }) => {
    response.json(await listBuilds(db));
  });

  on(router, routes.createBuild, async ({ body: { id, file }, response }) => {
    const { created, version } = await createBuild(db, id, readBuildFile(file));
    response.status(created ? 201 : 200).json({ id, version });
  });

  on(router, routes.build, async ({ params: { id }, response }) => {
    const stored = await readBuild(db, id);
    if (!stored) throw unknownBuild(id);
    response.json(stored);
  });

  on(router, routes.buildVersion, async ({ params: { id, version }, response }) => {
    const stored = await readVersion(db, id, version);
    if (!stored) throw new Problem(404, 'unknown-version', 'No such version', `Build ${id} has no version ${version}.`);
    response.json(stored);
  });

  on(
    router,
    routes.saveBuild,
    async ({ params: { id }, body: write, response }) => {
      const outcome = await saveBuild(db, id, write);
      switch (outcome.kind) {
        case 'unknown':
          throw unknownBuild(id);
        case 'other-content':
          throw otherContent(write.writeId, write.build);
        case 'stale':
          throw staleVersion('build', write.baseVersion, write.build, outcome.current);
        case 'saved':
          response.json({ id, version: outcome.version });
      }
    },
    upgradeSave,
  );

  on(router, routes.archiveBuild, async ({ params: { id }, body: { archived }, response }) => {
    if (!(await archiveBuild(db, id, archived))) throw unknownBuild(id);
    response.json({ id, archived });
  });

  on(router, routes.figures, async ({ params: { id }, query, request, response }) => {
    const row = await readKeptRow(db, id);
    if (!row) throw unknownBuild(id);
    const kept = await readKept(db, row);
    const { axle, gear, range, rpm, system, working } = query;
    const lessons = await Promise.all(specsIn(row.document).map((spec) => setUps(db, { spec })));
    const asked = {
      id,
      version: row.version,
      kept,
      looking: {
        follow: axle,
        ...definedOf({ gear, range, rpm }),
        today: new Date().toISOString().slice(0, 10),
        past: lessons.flatMap((one) => pastFor(one, id)),
      },
      system,
      withWorking: working === 'true' || working === '1',
    };
    try {
      response.type('application/json').send(await pool.run('figures', asked, whoAsks(request, response)));
    } catch (error) {
      if (error instanceof InputError && error.field === 'build') throw unreadableBuild(id, error.message);
      throw error;
    }
  });

  on(router, routes.exportBuild, async ({ params: { id }, response }) => {
    await care.checkOne(id);
    const file = await exportBuild(db, id);
    if (!file) throw unknownBuild(id);
    response.attachment(`${slug(file.build.name)}.hot-spline.json`).json(file);
  });

  on(router, routes.rawBuild, async ({ params: { id }, response }) => {
    const raw = await rawBuild(db, id);
    if (!raw) throw unknownBuild(id);
    response.attachment(`${id}.raw.json`).json(raw);
  });

  on(router, routes.exportShop, async ({ response }) => {
    const builds: BuildFile[] = [];
    const leftOut: { id: string; name: string; why: string }[] = [];
    for (const { id, name } of await listBuilds(db)) {
      try {
        const file = await exportBuild(db, id);
        if (file) builds.push(file);
      } catch (error) {
        // One that stands on a damaged page costs itself alone.
        if (!(error instanceof Problem) && !isReported(error)) throw error;
        leftOut.push({ id, name, why: error.message });
      }
    }
    response.attachment('shop.hot-spline.json').json({
      format: 'hot-spline/shop-file',
      formatVersion: FORMAT_VERSION,
      builds,
      library: (await listSpecs(db)).flatMap(({ archived, spec }) => (archived || !spec ? [] : [spec])),
      ...(leftOut.length > 0 ? { leftOut } : {}),
    });
  });

  return router;
}

/** Names of the specs of a build's axles, as far as they can be seen without opening it. */
function specsIn(document: string): string[] {
  const identity = z.object({ identity: z.object({ name: z.string() }).nullish() }).nullish();
  const seen = z.object({ axles: z.object({ rear: identity, front: identity }) });
  let parsed: unknown;
  try {
    parsed = JSON.parse(document);
  } catch {
    // Not JSON: whoever opens it says so.
    return [];
  }
  const { data } = seen.safeParse(parsed);
  const names = [data?.axles.rear, data?.axles.front].flatMap((axle) => axle?.identity?.name ?? []);
  return [...new Set(names)];
}

/** Without what was not given, so that it does not hide what stands before it. */
const definedOf = <T extends object>(of: T): Partial<T> =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined)) as Partial<T>;
