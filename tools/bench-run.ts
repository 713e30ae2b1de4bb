import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { gzipSync } from 'node:zlib';
import { packSure, seededRandom } from '@hot-spline/core';
import {
  buildSchema,
  changesBetween,
  deriveBuild,
  newSetup,
  readBuildFile,
  setupSubjects,
  share,
  surePackOf,
  type Build,
} from '@hot-spline/model';
import { chromium, type Page } from '@playwright/test';
import { pino } from 'pino';
import { readConfig } from '../server/src/config';
import { boxInHand } from './bench-box';
import { boardAtSize, pdfTime, planTime } from './bench-board';
import { archiveAtSize, heardByMany, loopBeside, setUpsAtSize } from './bench-server';
import { advisorOnAxles } from './bench-mesh';
import { openPglite } from '../server/src/db/pglite';
import { serve } from '../server/src/serve';

const root = new URL('..', import.meta.url);
setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;
const round = (value: number, digits = 3): number => Number(value.toPrecision(digits));

function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
}

const kittiwake = () =>
  readBuildFile(JSON.parse(readFileSync(new URL('demo/kittiwake-circuit-coupe.json', root), 'utf8')));

/** Memory that 200 steps of undo hold: steps as changes, against a copy of the build each. */
function undo() {
  const { build } = kittiwake();
  const held = (make: () => unknown): number => {
    collect();
    const before = process.memoryUsage().heapUsed;
    const kept = make();
    collect();
    const bytes = process.memoryUsage().heapUsed - before;
    return kept === undefined ? 0 : bytes;
  };
  const edited = (from: Build, i: number): Build =>
    buildSchema.parse({ ...from, engine: { ...from.engine, limitRpm: 7000 + i } });
  const steps = held(() => {
    const past: unknown[] = [];
    let now = build;
    for (let i = 0; i < 200; i++) {
      const next = share(now, edited(now, i));
      past.push(changesBetween(now, next));
      now = next;
    }
    return past;
  });
  const copies = held(() => Array.from({ length: 200 }, (_, i) => structuredClone(edited(build, i))));
  return { steps: 200, kB: round(steps / 1000), yardstick: 'a copy of the build each', ratio: round(steps / copies) };
}

/** A million draws of a pack against drawing as many random numbers and doing nothing with them. */
function monteCarlo() {
  const { build, ledger } = kittiwake();
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
  // Case depth, friction and spring load beside the pieces; the gap where there is a spring in it.
  const values = pack.pieces.length + 3 + (pack.between ? 1 : 0);
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

/** A reading as a gauge writes it: posted until it is acknowledged, which it is once it is on disk; beside a question of the same server. */
async function readings() {
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-bench-'));
  const log = pino({ level: 'silent' });
  const env = { PORT: '0', HOT_SPLINE_DATA: folder, HOT_SPLINE_DEMO: '1' };
  const running = await serve(readConfig(env, fileURLToPath(root)), log);
  try {
    const builds = (await (await fetch(`${running.url}api/builds`)).json()) as { id: string; name: string }[];
    const id = builds.find(({ name }) => name === 'Kittiwake')?.id ?? '';
    const entries = Array.from({ length: 8 }, () => ({ typed: '8 thou', value: 8, unit: 'thou' }));
    const { state } = newSetup();
    const subject = setupSubjects.backlash.of({ axle: 'rear', assembly: '2', stage: 'trial' });
    const timed = async (run: () => Promise<Response>): Promise<number> => {
      const start = performance.now();
      const response = await run();
      await response.text();
      if (!response.ok) throw new Error(`the server answered ${response.status}`);
      return performance.now() - start;
    };
    const post = (): Promise<Response> => {
      const written = { id: randomUUID(), at: new Date().toISOString(), who: '' };
      const reading = { kind: 'reading', ...written, subject, value: { of: 'places', entries }, state };
      return fetch(`${running.url}api/builds/${id}/ledger`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...reading, instrument: 'Dial indicator' }),
      });
    };
    const [written, asked]: [number[], number[]] = [[], []];
    for (let i = 0; i < 500; i++) {
      const [one, other] = [await timed(post), await timed(() => fetch(`${running.url}api/health`))];
      if (i < 100) continue;
      written.push(one);
      asked.push(other);
    }
    return {
      medianMs: round(quantile(written, 0.5)),
      p99Ms: round(quantile(written, 0.99)),
      aimP99Ms: 25,
      yardstick: 'asking the same server whether it is well',
      yardstickP99Ms: round(quantile(asked, 0.99)),
      ratio: round(quantile(written, 0.5) / quantile(asked, 0.5)),
    };
  } finally {
    await running.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Gzipped JavaScript that must be there before anything shows: what the page names, and what that imports at once. */
function initialJavaScript() {
  const folder = new URL('dist/web/browser/', root);
  const html = readFileSync(new URL('index.html', folder), 'utf8');
  const files = new Set([...html.matchAll(/(?:src|href)="([^"]+\.js)"/g)].map((match) => match[1] ?? ''));
  let bytes = 0;
  // A set grows while it is walked.
  for (const file of files) {
    const code = readFileSync(new URL(file, folder), 'utf8');
    bytes += gzipSync(code).length;
    for (const match of code.matchAll(/(?:from|import)"\.\/([^"]+\.js)"/g)) files.add(match[1] ?? '');
  }
  const kB = bytes / 1000;
  return { files: files.size, gzipKB: round(kB), aimKB: 300, ratio: round(kB / 300) };
}

/** Ticks of a slider in the page: see bench-page.js, which runs there as it is. */
async function ticks(page: Page, selector: string, range: readonly [number, number], watch: string) {
  const script = readFileSync(new URL('bench-page.js', import.meta.url), 'utf8');
  await page.waitForSelector(selector);
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
    const operatingPoint = await ticks(page, '#point-rpm', [2500, 7000], '#line');
    await page.goto(`${running.url}builds/${id}/unit?tab=compare`, { waitUntil: 'networkidle' });
    const comparisonSlider = await ticks(page, '#compare-inputNm', [100, 1400], 'hs-compare-tab table');
    return {
      operatingPoint,
      finalDriveSlider: { overlaidCandidates: FOUR.length, ...finalDriveSlider },
      comparisonSlider,
    };
  } finally {
    await browser.close();
    await running.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A part of the bench that runs bundled in a process of its own. @param before commit that has the older way */
const bundled =
  (file: string, name: string, before = ''): (() => unknown) =>
  () =>
    JSON.parse(
      execFileSync(process.execPath, ['tools/bench-part.mjs', file, name, before], { encoding: 'utf8' }),
    ) as unknown;
/** The last commits with the older way of searching sets, and of searching shims. */
const BEFORE = { sets: '61203ea', shims: '645d32f~1' };

const SECTIONS: Readonly<Record<string, () => unknown>> = {
  derive: bundled('derive', 'derivation'),
  undo,
  roadRun: bundled('road', 'runAgainstPackage'),
  roadSearch: bundled('road', 'searchBySize', BEFORE.sets),
  packShims: bundled('pack', 'shimsAgainstSolver', BEFORE.shims),
  packSure: monteCarlo,
  box: boxInHand,
  advisor: advisorOnAxles,
  sliders,
  plan: planTime,
  pdf: pdfTime,
  board: boardAtSize,
  loop: loopBeside,
  archive: archiveAtSize,
  setUps: setUpsAtSize,
  heard: heardByMany,
  initialJavaScript,
  durableInsert: inserts,
  readingOnDisk: readings,
};

const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !(name in SECTIONS));
if (unknown.length > 0) {
  console.error(`There is no ${unknown.join(', ')} to measure: ${Object.keys(SECTIONS).join(', ')}.`);
  process.exit(2);
}
const report: Record<string, unknown> = {};
for (const [name, section] of Object.entries(SECTIONS))
  if (asked.length === 0 || asked.includes(name)) report[name] = await section();
process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
