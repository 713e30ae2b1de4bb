import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes, randomUUID, createHash } from 'node:crypto';
import { once } from 'node:events';
import { createWriteStream, mkdtempSync, openAsBlob, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';
import { crc32, deflateSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { FORMAT_VERSION, newBuild, type Arrival, type BuildFile } from '@hot-spline/model';
import { migrate, readMigrations } from '../server/src/db/migrate';
import { openPglite } from '../server/src/db/pglite';

const root = fileURLToPath(new URL('..', import.meta.url));
const round = (value: number): number => Number(value.toPrecision(3));
const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? Number.NaN;

interface Probe {
  readonly maxMs: number;
  readonly p99Ms: number;
  readonly peakMb: number;
}

/** The built server as a process of its own, watched from inside. */
class Watched {
  private constructor(
    private readonly process: ChildProcess,
    readonly url: string,
    private readonly folder: string,
  ) {}

  static async start(env: Record<string, string> = {}, folder = mkdtempSync(path.join(tmpdir(), 'bench-server-'))) {
    const server = spawn(
      globalThis.process.execPath,
      ['--import', path.join(root, 'tools/bench-probe.mjs'), path.join(root, 'dist/server/main.mjs')],
      {
        cwd: root,
        stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
        env: {
          ...globalThis.process.env,
          PORT: '0',
          HOT_SPLINE_DATA: folder,
          HOT_SPLINE_BACKUPS: 'none',
          LOG_LEVEL: 'error',
          ...env,
        },
      },
    );
    let said = '';
    for await (const piece of server.stdout as AsyncIterable<Buffer>) {
      said += piece.toString();
      const [, url] = /(http:\/\/\S+)/.exec(said) ?? [];
      if (url !== undefined) return new Watched(server, url, folder);
    }
    throw new Error(`the server does not start: ${said}`);
  }

  async call(method: string, route: string, body?: unknown): Promise<Response> {
    const answer = await fetch(new URL(route, this.url), {
      method,
      headers: body === undefined ? {} : { 'content-type': 'application/json' },
      body: body === undefined ? null : JSON.stringify(body),
    });
    if (answer.status >= 500 && answer.status !== 504) throw new Error(`${method} ${route}: ${answer.status}`);
    return answer;
  }

  /** What it holds in memory now, MB, as the system counts it. */
  heldMb(): number {
    const status = readFileSync(`/proc/${this.process.pid}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1]) / 1024;
  }

  begin(): void {
    this.process.send('begin');
  }

  async read(): Promise<Probe> {
    const answer = once(this.process, 'message');
    this.process.send('read');
    return ((await answer) as [Probe])[0];
  }

  /** How long the loop stood still while something was asked. */
  async during(ask: () => Promise<unknown>): Promise<{ tookMs: number; standsMs: number; p99Ms: number }> {
    this.begin();
    const start = performance.now();
    await ask();
    const tookMs = performance.now() - start;
    const { maxMs, p99Ms } = await this.read();
    return { tookMs: round(tookMs), standsMs: round(maxMs), p99Ms: round(p99Ms) };
  }

  async stop(): Promise<void> {
    this.process.kill('SIGTERM');
    await once(this.process, 'exit');
    rmSync(this.folder, { recursive: true, force: true });
  }
}

const decision = () => ({
  kind: 'decision' as const,
  id: randomUUID(),
  at: '2026-11-30T08:00:00.000Z',
  who: 'Ines',
  about: 'springs',
  decided: 'softer',
  why: 'measured',
});
const demo = (name: string): BuildFile =>
  JSON.parse(readFileSync(path.join(root, 'demo', `${name}.json`), 'utf8')) as BuildFile;
const fileOf = (name: string, entries: number) => ({
  format: 'hot-spline/build-file',
  formatVersion: FORMAT_VERSION,
  build: newBuild(name),
  ledger: Array.from({ length: entries }, decision),
});

/** The longest that the server’s event loop stood still beside each heavy request, ms: 50 at most is asked. */
export async function loopBeside() {
  const server = await Watched.start({ HOT_SPLINE_DEMO: '1' });
  try {
    const [big, kittiwake] = [randomUUID(), randomUUID()];
    const calc = async (name: string, input: unknown): Promise<void> => {
      const start = performance.now();
      const answer = await server.call('POST', `/api/calc/${name}`, input);
      if (answer.status === 422)
        throw new Error(`${name}: ${await answer.text()} after ${performance.now() - start} ms`);
      await answer.arrayBuffer();
    };
    const get = (route: string) => async (): Promise<void> =>
      void (await (await server.call('GET', route)).arrayBuffer());
    await server.call('POST', '/api/builds', { id: kittiwake, file: demo('kittiwake-circuit-coupe') });
    // Threads and code are warm, as in a shop at work.
    await get(`/api/builds/${kittiwake}/figures`)();
    await get('/api/board')();
    const results: Record<string, unknown> = {};
    const beside = async (name: string, ask: () => Promise<unknown>): Promise<void> => {
      results[name] = await server.during(ask);
    };
    await beside('nothing', () => new Promise((resolve) => setTimeout(resolve, 1000)));
    const stock = Array.from({ length: 400 }, (_, i) => ({ thicknessMm: 0.1 + i * 0.0037, count: 10 }));
    const sides = [
      { fixedMm: 15.7, targetMm: 19.611 },
      { fixedMm: 15.72, targetMm: 19.9 },
    ];
    await beside('pack.shims of 400 × 10', () => calc('pack.shims', { sides, stock, maxPiecesPerSide: 6 }));
    for (const name of ['gearing.find', 'road.search', 'pack.wanted', 'pack.sure']) {
      const known = (await (await server.call('GET', `/api/calc/${name}`)).json()) as { example?: unknown };
      if (known.example !== undefined) await beside(name, () => calc(name, known.example));
    }
    await beside('import of 20 000 entries', () =>
      server.call('POST', '/api/builds', { id: big, file: fileOf('Big', 20_000) }),
    );
    await beside('import of 40 entries', () =>
      server.call('POST', '/api/builds', { id: randomUUID(), file: fileOf('Small', 40) }),
    );
    await beside('ledger of 20 000 entries', get(`/api/builds/${big}/ledger`));
    await beside('the same as CSV', get(`/api/builds/${big}/ledger?as=csv`));
    await beside('export of it', get(`/api/builds/${big}/export`));
    await beside('an entry behind it', () => server.call('POST', `/api/builds/${big}/ledger`, decision()));
    const { id: voids } = (
      (await (await server.call('GET', `/api/builds/${big}/ledger`)).json()) as { id: string }[]
    )[0] ?? { id: '' };
    await beside('a void in it', () =>
      server.call('POST', `/api/builds/${big}/ledger`, {
        kind: 'void',
        id: randomUUID(),
        at: '2026-11-30T08:00:00.000Z',
        who: '',
        voids,
        reason: 'slipped',
      }),
    );
    await beside('figures', get(`/api/builds/${kittiwake}/figures?working=true`));
    await beside('export with photos', get(`/api/builds/${kittiwake}/export`));
    await beside('board', get('/api/board'));
    await beside('set-ups', get('/api/set-ups'));
    await beside('look through everything', async () => (await server.call('POST', '/api/check')).arrayBuffer());
    await beside('archive', get('/api/archive'));
    return { asked: 'at most 50 ms', results };
  } finally {
    await server.stop();
  }
}

/** A picture of noise that does not pack: some 190 kB. */
function noise(): Buffer {
  const [width, height] = [250, 250];
  const chunk = (type: string, body: Buffer): Buffer => {
    const named = Buffer.concat([Buffer.from(type), body]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(body.length);
    sum.writeUInt32BE(crc32(named));
    return Buffer.concat([length, named, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const lines = Buffer.concat(
    Array.from({ length: height }, () => Buffer.concat([Buffer.from([0]), randomBytes(3 * width)])),
  );
  const start = Buffer.from('89504e470d0a1a0a', 'hex');
  return Buffer.concat([start, chunk('IHDR', head), chunk('IDAT', deflateSync(lines)), chunk('IEND', Buffer.alloc(0))]);
}

/** The archive of a shop of so many builds and photos, out and in; what others wait for meanwhile. */
export async function archiveAtSize(builds = 2000, photos = 500, entries = 40) {
  const from = await Watched.start();
  const to = await Watched.start();
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'bench-archive-')), 'shop.zip');
  try {
    const many = async (n: number, work: (i: number) => Promise<unknown>): Promise<void> => {
      let next = 0;
      await Promise.all(
        Array.from({ length: 4 }, async () => {
          while (next < n) await work(next++);
        }),
      );
    };
    await many(builds, (i) =>
      from.call('POST', '/api/builds', { id: randomUUID(), file: fileOf(`Car ${i}`, entries) }),
    );
    await many(photos, async () => {
      const bytes = noise();
      const id = createHash('sha256').update(bytes).digest('hex');
      const headers = { 'content-type': 'image/png' };
      const sent = await fetch(new URL(`/api/photos/${id}`, from.url), {
        method: 'PUT',
        headers,
        body: new Uint8Array(bytes),
      });
      if (sent.status !== 201) throw new Error(`photo: ${sent.status}`);
    });
    /** What somebody else waits for a build while something else goes on. */
    const others = async (server: Watched, work: () => Promise<unknown>) => {
      const waits: number[] = [];
      let on = true;
      const [some] = (await (await server.call('GET', '/api/builds')).json()) as { id: string }[];
      const asking = (async () => {
        while (on) {
          const start = performance.now();
          await (await server.call('GET', some ? `/api/builds/${some.id}` : '/api/shop')).arrayBuffer();
          waits.push(performance.now() - start);
          await new Promise((resolve) => setTimeout(resolve, 20));
        }
      })();
      const took = await server.during(work);
      on = false;
      await asking;
      return {
        ...took,
        othersP95Ms: round(quantile(waits, 0.95)),
        othersMaxMs: round(Math.max(...waits)),
        peakMb: Math.round((await server.read()).peakMb),
      };
    };
    let firstByteMs = 0;
    const before = Math.round((await from.read()).peakMb);
    const out = await others(from, async () => {
      const start = performance.now();
      const answer = await from.call('GET', '/api/archive');
      const body = Readable.fromWeb(answer.body as never);
      body.once('data', () => (firstByteMs = round(performance.now() - start)));
      await pipeline(body, createWriteStream(file));
    });
    const state = async (id: string): Promise<Arrival> =>
      (await (await to.call('GET', `/api/arrivals/${id}`)).json()) as Arrival;
    const wait = async (id: string, while_: string): Promise<Arrival> => {
      for (;;) {
        const said = await state(id);
        if (said.state !== while_) return said;
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
    };
    let plan: unknown;
    let id = '';
    const read = await others(to, async () => {
      const sent = await fetch(new URL('/api/arrivals', to.url), {
        method: 'POST',
        headers: { 'content-type': 'application/zip' },
        body: await openAsBlob(file),
      });
      ({ id } = (await sent.json()) as Arrival);
      ({ plan } = await wait(id, 'reading'));
    });
    const brought = await others(to, async () => {
      await to.call('POST', `/api/arrivals/${id}`, {});
      const ended = await wait(id, 'arriving');
      if (ended.state !== 'arrived') throw new Error(ended.problem);
    });
    return {
      size: { builds, photos, entries: builds * entries, mb: round(statSync(file).size / 1e6) },
      peakMbBefore: before,
      firstByteMs,
      out,
      read,
      brought,
      plan,
    };
  } finally {
    rmSync(path.dirname(file), { recursive: true, force: true });
    await from.stop();
    await to.stop();
  }
}

/** Set-ups of a shop of so many builds: what others taught and hold, p95 below 50 ms is asked. */
export async function setUpsAtSize(builds = 10_000) {
  const folder = mkdtempSync(path.join(tmpdir(), 'bench-set-ups-'));
  const db = await openPglite(path.join(folder, 'pg'));
  await migrate(db, readMigrations());
  await db.query(
    `insert into builds (id, name, vehicle, use, version, document, format_version, surveyed, stale, held)
     select gen_random_uuid(), 'Build ' || i, '', 'street', 1, $1::json, $2, $2, false, true from generate_series(1, $3::int) i`,
    [JSON.stringify(newBuild('Bench')), FORMAT_VERSION, builds],
  );
  const drawers = Array.from({ length: 40 }, () => randomUUID());
  const lesson = { axle: 'rear', spec: 'Spec', job: null, assemblies: 3 };
  await db.query(
    `insert into holdings (build_id, n, seq, drawers, holding)
     select id, 0, 1, array[($1::uuid[])[1 + abs(hashtext(name)) % 40]], $2 from builds`,
    [drawers, JSON.stringify({ axle: 'rear', drawers: [drawers[0]], piecesMm: [0.5, 0.6] })],
  );
  await db.query(
    `insert into lessons (build_id, axle, seq, spec, lesson)
     select id, 'rear', 1, 'Spec ' || abs(hashtext(name)) % 200, $1 from builds`,
    [JSON.stringify(lesson)],
  );
  await db.query('analyze');
  await db.close();
  const server = await Watched.start({}, folder);
  try {
    const times = async (route: string, n: number) => {
      const all: number[] = [];
      for (let i = 0; i < n; i++) {
        const start = performance.now();
        await (await fetch(new URL(route, server.url))).arrayBuffer();
        all.push(performance.now() - start);
      }
      return { medianMs: round(quantile(all, 0.5)), p95Ms: round(quantile(all, 0.95)) };
    };
    await times('/api/set-ups?spec=Spec+7', 10);
    return {
      builds,
      asked: 'p95 below 50 ms',
      ofASpec: await times('/api/set-ups?spec=Spec+7', 100),
      ofADrawer: await times(`/api/set-ups?drawer=${drawers[3] ?? ''}`, 100),
      all: await times('/api/set-ups', 20),
    };
  } finally {
    await server.stop();
  }
}

/** Another browser of the shop with the ledger of a build open: when a text stands on its screen, ms since 1970. */
async function watchBrowser(url: string, id: string) {
  // As it is: what the translator adds to functions is not there in the page.
  const script = readFileSync(path.join(root, 'tools/bench-shown.js'), 'utf8');
  const browser = await chromium.launch({ executablePath: process.env['CHROME_BIN'] ?? '', args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() =>
    localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Ines', system: 'metric' })),
  );
  await page.goto(new URL(`builds/${id}/ledger`, url).href);
  await page.locator('hs-line').waitFor();
  // The feed stays open: a page that listens is never idle.
  await page.locator('main').getByText('softer').or(page.locator('main h1')).first().waitFor();
  return {
    after: (text: string): Promise<number> => page.evaluate(`(${script})(${JSON.stringify(text)})`),
    end: (): Promise<void> => browser.close(),
  };
}

/** From when a write is acknowledged until every one of many devices has heard of it, ms, and what a device costs in memory. */
export async function heardByMany(devices = 40, writes = 60) {
  const server = await Watched.start();
  const ends: AbortController[] = [];
  try {
    const id = randomUUID();
    await server.call('POST', '/api/builds', { id, file: fileOf('Heard', 0) });
    const before = server.heldMb();
    const heard = new Map<string, number[]>();
    const listen = async (): Promise<void> => {
      const end = new AbortController();
      ends.push(end);
      const answer = await fetch(new URL('/api/changes', server.url), { signal: end.signal });
      const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
      await reader?.read();
      void (async () => {
        let text = '';
        for (;;) {
          const { value, done } = (await reader?.read()) ?? { value: '', done: true };
          if (done) return;
          text += value;
          const events = text.split('\n\n');
          text = events.pop() ?? '';
          for (const event of events) {
            const [, entry] = /"entry":"([^"]+)"/.exec(event) ?? [];
            if (entry !== undefined) heard.get(entry)?.push(performance.now());
          }
        }
      })().catch((error: unknown) => {
        if (!end.signal.aborted) throw error;
      });
    };
    for (let i = 0; i < devices; i++) await listen();
    const held = server.heldMb();
    const [acknowledging, last, behind, shown]: [number[], number[], number[], number[]] = [[], [], [], []];
    const seen = await watchBrowser(server.url, id);
    for (let i = 0; i < writes; i++) {
      const entry = { ...decision(), decided: `softer ${i}.` };
      heard.set(entry.id, []);
      const onScreen = seen.after(entry.decided);
      const sent = performance.now();
      await server.call('POST', `/api/builds/${id}/ledger`, entry);
      const acknowledged = performance.now();
      while ((heard.get(entry.id)?.length ?? 0) < devices) await new Promise((resolve) => setTimeout(resolve, 1));
      const heardByAll = Math.max(...(heard.get(entry.id) ?? []));
      acknowledging.push(acknowledged - sent);
      last.push(heardByAll - sent);
      // Below nought: heard by all before whoever wrote it knew that it is kept.
      behind.push(heardByAll - acknowledged);
      shown.push((await onScreen) - performance.timeOrigin - acknowledged);
    }
    await seen.end();
    return {
      devices,
      writes,
      acknowledgedMs: { median: round(quantile(acknowledging, 0.5)), p95: round(quantile(acknowledging, 0.95)) },
      heardByAllMs: { median: round(quantile(last, 0.5)), p95: round(quantile(last, 0.95)) },
      behindAcknowledgedMs: { median: round(quantile(behind, 0.5)), p95: round(quantile(behind, 0.95)) },
      // Drawn on another browser: its frame is over in which the entry stood on the sheet.
      shownBehindAcknowledgedMs: { median: round(quantile(shown, 0.5)), p95: round(quantile(shown, 0.95)) },
      mbADevice: round((held - before) / devices),
      asked: 'p95 from acknowledged to shown on another browser below 300 ms',
    };
  } finally {
    for (const end of ends) end.abort();
    await server.stop();
  }
}
