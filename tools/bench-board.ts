import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { planFaults } from '@hot-spline/core';
import {
  FORMAT_VERSION,
  deriveBuild,
  newBuild,
  orderOfWork,
  readBuildFile,
  factsOf,
  type LedgerEntry,
} from '@hot-spline/model';
import { migrate, readMigrations } from '../server/src/db/migrate';
import { openPglite } from '../server/src/db/pglite';
import { readBoard, recall, serverDay } from '../server/src/keep/board';
import { readBuild } from '../server/src/keep/builds';
import { papersOf } from '../web/src/app/papers/documents';
import type { PaperInput } from '../web/src/app/shared/paper';
import { CAPABILITIES } from '../web/src/app/sheets';

const TODAY = serverDay();
const root = new URL('..', import.meta.url);
const round = (value: number): number => Number(value.toPrecision(3));
const quantile = (values: readonly number[], share: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
};

async function timesOf(run: () => Promise<unknown>, times = 60): Promise<number[]> {
  for (let i = 0; i < 5; i++) await run();
  const all: number[] = [];
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    await run();
    all.push(performance.now() - start);
  }
  return all;
}

/** Board, search and recall of a shop with 10 000 builds and 1 000 000 ledger entries, against the bare indexed query. */
export async function boardAtSize(builds = 10_000, entries = 1_000_000) {
  const folder = mkdtempSync(path.join(tmpdir(), 'bench-board-'));
  const db = await openPglite(path.join(folder, 'db'));
  try {
    await migrate(db, readMigrations());
    const document = JSON.stringify(newBuild('Bench'));
    const work = JSON.stringify({ state: 'work', next: 'Ring on', done: 20, of: 50, takenH: 9, leftH: 8 });
    await db.query(
      `insert into builds (id, name, vehicle, use, version, document, format_version, surveyed, facets, state, work, stale)
       select gen_random_uuid(), 'Build ' || i, 'Car ' || (i % 97), 'street', 1, $1::json, $2, $2,
              lower('build ' || i || ' car ' || (i % 97) || ' part: kt-' || i),
              (array['work', 'loop', 'waiting', 'done', 'run-in'])[1 + i % 5], $3, false
       from generate_series(1, $4::int) i`,
      [document, FORMAT_VERSION, work, builds],
    );
    await db.query(
      `insert into build_facets (build_id, facet) select id, 'part: KT-' || substr(name, 7) from builds
       union all select id, 'carrier: ' || (length(name) + ascii(right(name, 1)) % 40) from builds`,
    );
    await db.query(
      `insert into build_words (build_id, word)
       select distinct b.id, 'word' || ((substr(b.name, 7)::int * 7 + k * 131) % 5000)
       from builds b cross join generate_series(1, 40) k
       union all select id, 'chatter' from builds`,
    );
    const entry = JSON.stringify({
      kind: 'decision',
      at: '2026-11-26T08:00:00.000Z',
      who: '',
      about: 'a',
      decided: 'b',
      why: '',
    });
    await db.query(
      `insert into ledger (build_id, id, kind, entry, format_version)
       select b.id, gen_random_uuid(), 'decision', $1::json, $2
       from (select id from builds) b cross join generate_series(1, $3::int) i`,
      [entry, FORMAT_VERSION, Math.round(entries / builds)],
    );
    await db.query('analyze');
    const bare = await timesOf(() =>
      db.query('select id, name, work from builds where archived = false order by name, id limit 100'),
    );
    const ask = { search: '', archived: false, today: TODAY, sort: 'name', offset: 0, limit: 100 } as const;
    const [list, deep, search, written, state, found] = [
      await timesOf(() => readBoard(db, ask)),
      await timesOf(() => readBoard(db, { ...ask, offset: 9000 })),
      await timesOf(() => readBoard(db, { ...ask, search: 'car 42 kt-9' })),
      await timesOf(() => readBoard(db, { ...ask, search: 'chatter word4217' })),
      await timesOf(() => readBoard(db, { ...ask, state: 'waiting', sort: 'promised' })),
      await timesOf(() => recall(db, 'part: KT-5000')),
    ];
    // A build of the full shop, and of one that has nothing else.
    const [{ id } = { id: '' }] = await db.query<{ id: string }>(`select id from builds order by name limit 1`);
    const opened = await timesOf(() => readBuild(db, id));
    const empty = await openPglite(path.join(folder, 'empty'));
    await migrate(empty, readMigrations());
    await empty.query(
      `insert into builds (id, name, vehicle, use, version, document, format_version, surveyed, state, work, stale)
       values ($1, 'Build 1', '', 'street', 1, $2::json, $3, $3, 'work', $4, false)`,
      [id, document, FORMAT_VERSION, work],
    );
    await empty.query(
      `insert into ledger (build_id, id, kind, entry, format_version)
       select $1::uuid, gen_random_uuid(), 'decision', $2::json, $3 from generate_series(1, $4::int)`,
      [id, entry, FORMAT_VERSION, Math.round(entries / builds)],
    );
    await empty.query('analyze');
    const alone = await timesOf(() => readBuild(empty, id));
    await empty.close();
    await db.close();
    const start = performance.now();
    const again = await openPglite(path.join(folder, 'db'));
    await migrate(again, readMigrations());
    const [{ n } = { n: 0 }] = await again.query<{ n: number }>('select count(*)::int as n from builds');
    const startMs = round(performance.now() - start);
    if (n !== builds) throw new Error(`${n} builds after the start`);
    await again.close();
    const one = (times: readonly number[]) => ({
      medianMs: round(quantile(times, 0.5)),
      p95Ms: round(quantile(times, 0.95)),
      ratio: round(quantile(times, 0.5) / quantile(bare, 0.5)),
    });
    return {
      yardstick: 'the bare indexed query of a hundred rows, in the same database',
      size: { builds, entries },
      yardstickMs: round(quantile(bare, 0.5)),
      list: one(list),
      farDown: one(deep),
      search: one(search),
      searchOfLedgers: one(written),
      byState: one(state),
      recall: one(found),
      open: { ...one(opened), againstEmptyShop: round(quantile(opened, 0.5) / quantile(alone, 0.5)) },
      startMs,
      memoryMB: round(process.memoryUsage().rss / 1e6),
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** An order of work made and judged, against the whole build derived. */
export function planTime() {
  const { build, ledger } = readBuildFile(
    JSON.parse(readFileSync(new URL('demo/dunnock-oval-saloon.json', root), 'utf8')),
  );
  const axle = build.axles.rear;
  const situation = axle && factsOf(axle);
  if (!situation) throw new Error('the demo has no work');
  const time = (run: () => unknown): number => {
    for (let i = 0; i < 50; i++) run();
    const all = Array.from({ length: 200 }, () => {
      const start = performance.now();
      run();
      return performance.now() - start;
    });
    return quantile(all, 0.5);
  };
  const plan = time(() => planFaults(orderOfWork(situation)));
  const whole = time(() => deriveBuild(build, ledger));
  return { yardstick: 'the whole build derived', planMs: round(plan), ratio: round(plan / whole) };
}

/** The build sheet as PDF with 1, 40 and 400 readings, against its document being put together. */
export async function pdfTime() {
  const require = createRequire(new URL('web/package.json', root));
  const maker = require('pdfmake') as {
    virtualfs: { writeFileSync(name: string, data: Buffer): void };
    setFonts(fonts: object): void;
    setUrlAccessPolicy(allow: () => boolean): void;
    setLocalAccessPolicy(allow: () => boolean): void;
    createPdf(document: unknown): { getBuffer(): Promise<Buffer> };
  };
  const fonts = require('pdfmake/build/vfs_fonts') as Record<string, string>;
  for (const [name, data] of Object.entries(fonts)) maker.virtualfs.writeFileSync(name, Buffer.from(data, 'base64'));
  maker.setFonts({
    Roboto: {
      normal: 'Roboto-Regular.ttf',
      bold: 'Roboto-Medium.ttf',
      italics: 'Roboto-Italic.ttf',
      bolditalics: 'Roboto-MediumItalic.ttf',
    },
  });
  maker.setUrlAccessPolicy(() => false);
  maker.setLocalAccessPolicy(() => false);
  const file = readBuildFile(JSON.parse(readFileSync(new URL('demo/dunnock-oval-saloon.json', root), 'utf8')));
  const readings = file.ledger.filter((entry) => entry.kind === 'reading' && entry.subject.what === 'step-said');
  const made = (count: number): LedgerEntry[] =>
    Array.from({ length: count }, (_, i) => {
      const like = readings[i % readings.length];
      if (like?.kind !== 'reading') throw new Error('no reading');
      return { ...like, id: randomUUID(), subject: { ...like.subject, record: `r${i}` } };
    });
  const lines = await Promise.all(CAPABILITIES.flatMap(({ papers }) => papers?.() ?? []));
  const sheet = papersOf(lines)['build-sheet'];
  if (!sheet) throw new Error('no build sheet');
  const sheetOf = async (count: number) => {
    const ledger = made(count);
    const derived = deriveBuild(file.build, ledger);
    const input: PaperInput = {
      build: file.build,
      derived,
      ledger,
      systems: ['metric', 'inch'],
      shop: { name: 'Bench', logo: null },
      customer: '',
      who: 'Ines',
      stations: [{ name: 'Engine', main: '172 N·m', sub: '' }],
      lines,
      photos: [],
      qr: { text: '', svg: '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"/>' },
      labelSize: '100 × 62',
      day: '26 Nov 2026',
      moment: (at) => at,
    };
    const start = performance.now();
    const document = sheet.make(input);
    const composed = performance.now() - start;
    const bytes = (await maker.createPdf(document).getBuffer()).length;
    return { ms: performance.now() - start, composed, bytes };
  };
  await sheetOf(40);
  const results: Record<string, unknown> = {};
  for (const count of [1, 40, 400]) {
    const { ms, composed, bytes } = await sheetOf(count);
    results[`${count} readings`] = {
      ms: Math.round(ms),
      ratio: Math.round(ms / composed),
      kB: Math.round(bytes / 1024),
    };
  }
  return { yardstick: 'the document put together, before it is laid out', ...results };
}
