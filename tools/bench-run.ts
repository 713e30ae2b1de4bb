import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { packSure, seededRandom } from '@hot-spline/core';
import { deriveBuild, readBuildFile, surePackOf, type Build } from '@hot-spline/model';
import { chromium, type Page } from '@playwright/test';
import { pino } from 'pino';
import { readConfig } from '../server/src/config';
// @ts-expect-error -- plain JavaScript, since the ODE package does not go with strict TypeScript
import { runAgainstPackage, searchBySize } from './bench-road.mjs';
// @ts-expect-error -- plain JavaScript, beside the other yardsticks
import { shimsAgainstSolver } from './bench-pack.mjs';
import { openPglite } from '../server/src/db/pglite';
import { serve } from '../server/src/serve';

const root = new URL('..', import.meta.url);
const round = (value: number, digits = 3): number => Number(value.toPrecision(digits));

function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
}

/** Milliseconds of one call, the median of many, after warming up. */
function timeOf(run: () => unknown, times = 400): number {
  for (let i = 0; i < 100; i++) run();
  const taken: number[] = [];
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    run();
    taken.push(performance.now() - start);
  }
  return quantile(taken, 0.5);
}

function derivation() {
  const { build, ledger } = readBuildFile(
    JSON.parse(readFileSync(new URL('demo/kittiwake-drift-coupe.json', root), 'utf8')),
  );
  const derive = timeOf(() => deriveBuild(build, ledger));
  const clone = timeOf(() => structuredClone({ build, ledger }));
  const { figures, findings } = deriveBuild(build, ledger);
  const workings = timeOf(() => [...figures.values()].map((figure) => figure.explain?.()), 100);
  return {
    figures: figures.size,
    findings: findings.length,
    deriveMs: round(derive),
    yardstick: 'structuredClone of the same build and ledger',
    yardstickMs: round(clone),
    ratio: round(derive / clone),
    allWorkingsMs: round(workings),
  };
}

/** A million draws of a pack against drawing as many random numbers and doing nothing with them. */
function monteCarlo() {
  const { build, ledger } = readBuildFile(
    JSON.parse(readFileSync(new URL('demo/kittiwake-drift-coupe.json', root), 'utf8')),
  );
  const packs = deriveBuild(build, ledger).axles.rear?.pack;
  const plate = build.axles.rear?.unit.plate;
  if (!packs || !plate) throw new Error('the demo has no packs');
  const pack = surePackOf(plate, packs, 'left');
  const samples = 1_000_000;
  const secondsOf = (run: () => unknown): number => {
    run();
    const start = performance.now();
    run();
    return (performance.now() - start) / 1000;
  };
  const values = pack.pieces.length + 2;
  const ours = secondsOf(() => packSure(pack, samples, 1));
  const bare = secondsOf(() => {
    const random = seededRandom(1);
    let sum = 0;
    for (let i = 0; i < samples * values; i++) sum += random();
    return sum;
  });
  return {
    samplesPerSecond: Math.round(samples / ours),
    valuesPerSample: values,
    yardstick: 'the bare random-number loop for as many values',
    ratio: round(ours / bare),
  };
}

async function inserts() {
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-bench-'));
  const measure = async (durable: boolean): Promise<number[]> => {
    const db = await openPglite(path.join(folder, durable ? 'durable' : 'bare'), { durable });
    await db.query('create table bench (n integer, entry json)');
    const taken: number[] = [];
    for (let i = 0; i < 400; i++) {
      const start = performance.now();
      await db.query('insert into bench (n, entry) values ($1, $2)', [i, '{"kind":"reading"}']);
      if (i >= 100) taken.push(performance.now() - start);
    }
    await db.close();
    return taken;
  };
  const [durable, bare] = [await measure(true), await measure(false)];
  rmSync(folder, { recursive: true, force: true });
  return {
    durableMs: round(quantile(durable, 0.5)),
    yardstick: 'the same insert into PGlite as it comes, without fsync',
    yardstickMs: round(quantile(bare, 0.5)),
    ratio: round(quantile(durable, 0.5) / quantile(bare, 0.5)),
  };
}

/** Gzipped JavaScript that the page names itself: what must be there before anything shows. */
function initialJavaScript() {
  const folder = new URL('dist/web/browser/', root);
  const html = readFileSync(new URL('index.html', folder), 'utf8');
  const files = [...new Set([...html.matchAll(/(?:src|href)="([^"]+\.js)"/g)].map((match) => match[1] ?? ''))];
  const kB = files.reduce((sum, file) => sum + gzipSync(readFileSync(new URL(file, folder))).length, 0) / 1000;
  return { files: files.length, gzipKB: round(kB), aimKB: 300, ratio: round(kB / 300) };
}

/** Ticks of a slider in the page: see bench-page.js, which runs there as it is. */
async function ticks(page: Page, selector: string, range: readonly [number, number], watch: string) {
  const script = readFileSync(new URL('bench-page.js', import.meta.url), 'utf8');
  const { drawn, shown, fixed } = await page.evaluate<Record<'drawn' | 'shown' | 'fixed', number[]>>(
    `(${script})(300, ${JSON.stringify(selector)}, ${range.join()}, ${JSON.stringify(watch)})`,
  );
  const frame = 1000 / 60;
  const both = (of: readonly number[], per = 1) => ({
    median: round(quantile(of, 0.5) / per),
    p99: round(quantile(of, 0.99) / per),
  });
  return {
    ticks: drawn.length,
    tickToDrawnMs: both(drawn),
    tickToShownMs: both(shown),
    /** Arithmetic of fixed length between the ticks: its p99 is the machine's own. */
    fixedWorkMs: both(fixed),
    yardstick: 'one frame at 60 Hz',
    yardstickMs: round(frame),
    ratio: both(drawn, frame),
  };
}

const FOUR = [
  { ring: 41, pinion: 11 },
  { ring: 41, pinion: 10 },
  { ring: 44, pinion: 9 },
  { ring: 37, pinion: 10 },
];

async function sliders() {
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-bench-'));
  const log = pino({ level: 'silent' });
  const running = await serve(
    readConfig({ PORT: '0', HOT_SPLINE_DATA: folder, HOT_SPLINE_DEMO: '1' }, fileURLToPath(root)),
    log,
  );
  const executablePath = process.env['CHROME_BIN'];
  const browser = await chromium.launch({
    ...(executablePath === undefined ? {} : { executablePath }),
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const builds = (await (await fetch(`${running.url}api/builds`)).json()) as { id: string; name: string }[];
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const id = builds.find(({ name }) => name === 'Kittiwake')?.id;
    const stored = (await (await fetch(`${running.url}api/builds/${id}`)).json()) as { build: Build };
    stored.build.candidates = FOUR;
    await fetch(`${running.url}api/builds/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ writeId: randomUUID(), baseVersion: 1, build: stored.build }),
    });
    await page.goto(`${running.url}builds/${id}/gearing`, { waitUntil: 'networkidle' });
    const finalDriveSlider = await ticks(page, '#final-slider', [3, 5], 'canvas');
    await page.goto(`${running.url}builds/${id}/unit?tab=compare`, { waitUntil: 'networkidle' });
    const comparisonSlider = await ticks(page, '#compare-inputNm', [100, 1400], 'hs-compare-tab table');
    return { finalDriveSlider: { overlaidCandidates: FOUR.length, ...finalDriveSlider }, comparisonSlider };
  } finally {
    await browser.close();
    await running.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

const report = {
  derive: derivation(),
  roadRun: runAgainstPackage(),
  roadSearch: searchBySize(),
  packShims: await shimsAgainstSolver(),
  packSure: monteCarlo(),
  ...(await sliders()),
  initialJavaScript: initialJavaScript(),
  durableInsert: await inserts(),
};
process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
