import { InputError } from '@hot-spline/core';
import { FORMAT_VERSION, routes, startBuild, upgrade, z } from '@hot-spline/model';
import { Router, type Request, type Response } from 'express';
import type { Database } from '../db/database';
import { requireOwnName } from '../people/guard';
import { on, requireMatch, tagOf, whoAsks } from '../base/http';
import type { Pool } from '../threads/pool';
import { readKept } from '../keep/notes';
import type { Care } from '../keep/care';
import { Problem, notJson, otherContent, staleVersion } from '../base/problem';
import { unreadableLedger } from '../keep/ledger';
import { keptPhotos } from '../keep/photos';
import { Prepared, prepareBuild } from '../threads/prepare';
import { pastFor } from '../keep/set-ups';
import {
  archiveBuild,
  createBuild,
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

  on(router, routes.createBuild, async ({ bytes, request, response }) => {
    const { id, created, version } = await createBuild(db, await prepared(pool, bytes, request, response));
    response.status(created ? 201 : 200).json({ id, version });
  });

  on(router, routes.template, ({ query: { construction = null, ...answers }, response }) => {
    const build = startBuild({ ...answers, axle: construction });
    response.json({ format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build, ledger: [] });
  });

  on(router, routes.build, async ({ params: { id }, response }) => {
    const stored = await readBuild(db, id);
    if (!stored) throw unknownBuild(id);
    response.set('ETag', tagOf(stored.version)).json(stored);
  });

  on(router, routes.buildVersion, async ({ params: { id, version }, response }) => {
    const stored = await readVersion(db, id, version);
    if (!stored) throw new Problem(404, 'unknown-version', 'No such version', `Build ${id} has no version ${version}.`);
    response.json(stored);
  });

  on(
    router,
    routes.saveBuild,
    async ({ params: { id }, body: write, request, response }) => {
      await requireOwnName(db, response, { who: write.who });
      requireMatch(request, (await readKeptRow(db, id))?.version ?? 0);
      const outcome = await saveBuild(db, id, write);
      switch (outcome.kind) {
        case 'unknown':
          throw unknownBuild(id);
        case 'other-content':
          throw otherContent(write.writeId, write.build);
        case 'stale':
          throw staleVersion('build', write.baseVersion, write.build, outcome.current);
        case 'saved':
          response.set('ETag', tagOf(outcome.version)).json({ id, version: outcome.version });
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
    const lessons = await Promise.all(specsIn(row.document).map((spec) => pastFor(db, spec, id)));
    const asked = {
      id,
      version: row.version,
      kept,
      looking: {
        follow: axle,
        ...definedOf({ gear, range, rpm }),
        today: new Date().toISOString().slice(0, 10),
        past: lessons.flat(),
      },
      system,
      withWorking: working === 'true' || working === '1',
    };
    const shown = await opening(id, pool.run('figures', asked, whoAsks(request, response)));
    response.type('application/json').send(shown);
  });

  on(router, routes.exportBuild, async ({ params: { id }, request, response }) => {
    await care.checkOne(id);
    const row = await readKeptRow(db, id);
    if (!row) throw unknownBuild(id);
    const kept = await readKept(db, row);
    const photos = await keptPhotos(db, kept);
    const file = await opening(id, pool.run('buildFile', { kept, photos }, whoAsks(request, response)));
    response
      .attachment(`${slug(row.name)}.hot-spline.json`)
      .type('application/json')
      .send(file);
  });

  on(router, routes.rawBuild, async ({ params: { id }, response }) => {
    const raw = await rawBuild(db, id);
    if (!raw) throw unknownBuild(id);
    response.attachment(`${id}.raw.json`).json(raw);
  });

  return router;
}

/** What a thread says of a build that it can’t open, as a problem. */
export async function opening(id: string, work: Promise<string>): Promise<string> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    if (error.field === 'build') throw unreadableBuild(id, error.message);
    if (error.field === 'ledger') throw unreadableLedger(id, error.message);
    throw error;
  }
}

/** A body that is larger is read on a thread: it would hold up everybody else. Ours. */
const SMALL_BYTES = 128 * 1024;

async function prepared(pool: Pool, bytes: Uint8Array, request: Request, response: Response): Promise<Prepared> {
  try {
    return Prepared.of(
      bytes.length < SMALL_BYTES
        ? prepareBuild(bytes)
        : await pool.run('prepareBuild', bytes, whoAsks(request, response)),
    );
  } catch (error) {
    if (error instanceof InputError && error.field === 'json') throw notJson();
    throw error;
  }
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
