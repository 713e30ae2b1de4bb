import {
  FORMAT_VERSION,
  deriveBuild,
  readBuildFile,
  routes,
  upgrade,
  type BuildFile,
  type ShownFigures,
} from '@hot-spline/model';
import { Router } from 'express';
import type { Database } from '../db/database';
import { on } from '../base/http';
import type { Care } from '../keep/care';
import { isReported } from '../keep/check';
import { readLedger } from '../keep/ledger';
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
  readVersion,
  saveBuild,
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

export function buildRoutes(db: Database, care: Care): Router {
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

  on(router, routes.figures, async ({ params: { id }, query, response }) => {
    const stored = await readBuild(db, id);
    if (!stored) throw unknownBuild(id);
    const { build } = stored;
    const { gear, range, rpm } = { ...build.startPoint, ...definedOf(query) };
    const derived = deriveBuild(build, await readLedger(db, id), {
      follow: query.axle,
      point: { gear, range, rpm },
      today: new Date().toISOString().slice(0, 10),
      past: pastFor(await setUps(db), id),
    });
    const withWorking = query.working === 'true' || query.working === '1';
    const shown: ShownFigures = {
      id,
      version: stored.version,
      axle: derived.main,
      point: derived.point,
      figures: [...derived.figures.values()].map(({ explain, id: figure, label, value, quantity, instead, rests }) => ({
        id: figure,
        label,
        value,
        quantity,
        ...(instead === undefined ? {} : { instead }),
        rests,
        ...(withWorking && explain && value !== null ? { working: { ...explain() } } : {}),
      })),
      findings: derived.findings.map(({ say, ...finding }) => ({
        ...finding,
        figures: [...finding.figures],
        facts: { ...finding.facts },
        ...say(query.system),
      })),
    };
    response.json(shown);
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

/** Without what was not given, so that it does not hide what stands before it. */
const definedOf = <T extends object>(of: T): Partial<T> =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined)) as Partial<T>;
