import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp } from './app';
import { StartProblem } from './base/start-problem';
import { Notes } from './keep/notes';
import { Pool } from './threads/pool';
import { Care } from './keep/care';
import { call, freshFolder, startShop } from './testing/shop';
import { readConfig } from './config';
import type { Database } from './db/database';
import { readMigrations } from './db/migrate';
import { Problem, errorHandler } from './base/problem';
import { ROOT } from './serve';

const root = fileURLToPath(ROOT);

/** A database that answers nothing, for what is not about data. */
const noDatabase = (query: Database['query'] = async () => []): Database => ({
  query,
  transaction: async (work) => work({ query }),
  listen: () => Promise.resolve(),
  close: async () => undefined,
});

const pool = new Pool();
const log = pino({ level: 'silent' });

async function listening(app: ReturnType<typeof createApp>): Promise<{ url: string; close: () => void }> {
  const server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}`,
    close: () => {
      server.close();
      server.closeAllConnections();
    },
  };
}

describe('configuration', () => {
  it('has defaults, and is frozen', () => {
    const config = readConfig({}, '/shop');
    expect(config).toEqual(
      jasmine.objectContaining({
        port: 8017,
        host: '127.0.0.1',
        dataFolder: '/shop/data',
        demo: false,
        logLevel: 'info',
      }),
    );
    expect(config.hosts).toContain('localhost');
    expect(Object.isFrozen(config)).toBeTrue();
  });

  it('listens to any name once it is bound to more than this machine', () => {
    const open = readConfig({ HOST: '0.0.0.0', HOT_SPLINE_OPEN: '1' }, '/');
    expect([open.hosts, open.door]).toEqual([['*'], 'open']);
    expect(readConfig({ HOST: '0.0.0.0' }, '/').door).toBe('people');
  });

  it('is this machine’s alone by whichever of its own names, and answers to that one', () => {
    for (const [host, name] of [
      ['127.0.0.2', '127.0.0.2'],
      ['::1', '::1'],
      ['[::1]', '::1'],
      ['LOCALHOST', 'localhost'],
    ] as const) {
      const { hosts, door } = readConfig({ HOST: host }, '/');
      expect([hosts.includes(name), door])
        .withContext(host)
        .toEqual([true, 'alone']);
    }
  });

  it('whatever else it is called by wants everybody to sign in', () => {
    for (const env of [
      { HOST: '::' },
      { HOST: 'workshop.lan', HOT_SPLINE_OPEN: '0' },
      { HOST: '127.evil.example' },
      { HOT_SPLINE_ADDRESS: 'https://shop.example/' },
      { HOT_SPLINE_ADDRESS: 'http://localhost:8017/x/' },
    ])
      expect(readConfig(env, '/').door).withContext(JSON.stringify(env)).toBe('people');
  });

  const bad: [Record<string, string>, string][] = [
    [{ PORT: 'x' }, 'PORT'],
    [{ PORT: '70000' }, 'PORT'],
    [{ PORT: '-1' }, 'PORT'],
    [{ PORT: '0x50' }, 'PORT must be a whole number in digits'],
    [{ PORT: '80e1' }, 'PORT'],
    [{ PORT: '' }, 'PORT is set and says nothing'],
    [{ DATABASE_URL: '' }, 'DATABASE_URL is set and says nothing'],
    [{ LOG_LEVEL: 'loud' }, 'LOG_LEVEL'],
    [{ HOT_SPLINE_OPEN: 'yes' }, 'HOT_SPLINE_OPEN'],
    [{ HOT_SPLINE_DEMO: 'yes' }, 'HOT_SPLINE_DEMO'],
    [{ HOT_SPLINE_DATA: '' }, 'HOT_SPLINE_DATA'],
    [{ DATABASE_URL: 'mysql://x' }, 'DATABASE_URL'],
  ];
  for (const [env, name] of bad) {
    it(`refuses ${JSON.stringify(env)} in a sentence that names the variable`, () => {
      expect(() => readConfig(env, '/')).toThrowMatching(
        (error) => error instanceof StartProblem && error.message.startsWith(name),
      );
    });
  }
});

describe('migrations on disk', () => {
  it('are numbered without gaps or repeats, and not empty', () => {
    const names = readMigrations().map((migration) => migration.name);
    names.forEach((name, i) => expect(name.slice(0, 4)).toBe(String(i + 1).padStart(4, '0')));
    for (const { sql } of readMigrations()) expect(sql.trim().length).toBeGreaterThan(20);
  });
});

describe('the web app on the server', () => {
  let site: { url: string; close: () => void };

  beforeAll(async () => {
    const webFolder = mkdtempSync(path.join(tmpdir(), 'hot-spline-web-'));
    writeFileSync(path.join(webFolder, 'index.html'), '<!doctype html><title>app</title>');
    writeFileSync(path.join(webFolder, 'main-ABCDEF12.js'), '1');
    mkdirSync(path.join(webFolder, 'media'));
    site = await listening(
      createApp({
        pool,
        notes: new Notes(noDatabase(), pool, log),
        db: noDatabase(),
        log: pino({ level: 'silent' }),
        version: '1',
        webFolder,
        care: new Care(noDatabase(), null, pino({ level: 'silent' })),
        hosts: ['127.0.0.1'],
      }),
    );
  });

  afterAll(() => site.close());

  it('answers every address of the app with its page, never from the cache', async () => {
    for (const address of ['/', '/builds/x/pack', '/builds/x/pack?tab=measure']) {
      const response = await fetch(site.url + address);
      expect(response.status).withContext(address).toBe(200);
      expect(response.headers.get('cache-control')).toBe('no-cache');
      expect(await response.text()).toContain('<title>app</title>');
    }
  });

  it('lets hashed files be kept, and misses are misses', async () => {
    const hashed = await fetch(`${site.url}/main-ABCDEF12.js`);
    expect(hashed.headers.get('cache-control')).toContain('immutable');
    expect((await fetch(`${site.url}/missing.js`)).status).toBe(404);
    expect((await fetch(`${site.url}/../package.json`)).status).toBe(404);
    expect((await fetch(`${site.url}/%2e%2e/package.json`)).status).toBe(404);
  });

  it('never lets an answer of the API be kept', async () => {
    expect((await fetch(`${site.url}/api/calc`)).headers.get('cache-control')).toBe('no-store');
  });
});

describe('pages of other sites', () => {
  it('may write nothing, and read nothing by script; programs and the app’s own pages may', async () => {
    const shop = await startShop(await freshFolder());
    const { host } = new URL(shop.url);
    const post = async (headers: Record<string, string>) =>
      (await call(shop, 'POST', '/api/check', undefined, headers)).status;
    expect(await post({})).toBe(200);
    expect(await post({ origin: `http://${host}`, 'sec-fetch-site': 'same-origin' })).toBe(200);
    expect(await post({ origin: 'http://elsewhere.test', 'sec-fetch-site': 'cross-site' })).toBe(403);
    // Another port of this machine is another site’s page too, and so is one that hides where it comes from.
    expect(await post({ origin: 'http://127.0.0.1:1', 'sec-fetch-site': 'same-site' })).toBe(403);
    expect(await post({ 'sec-fetch-site': 'cross-site' })).toBe(403);
    expect(await post({ origin: 'null' })).toBe(403);
    const get = async (headers: Record<string, string>) =>
      (await call(shop, 'GET', '/api/builds', undefined, headers)).status;
    expect(await get({ 'sec-fetch-site': 'cross-site' })).toBe(200);
    expect(await get({ origin: 'http://elsewhere.test' })).toBe(403);
    await shop.stop();
  });
});

describe('what nobody foresaw', () => {
  it('is logged and answered without its insides', async () => {
    const failing = noDatabase(async () => {
      throw new Error('secret path /var/lib');
    });
    const lines: string[] = [];
    const log = pino({ level: 'error' }, { write: (line: string) => lines.push(line) });
    const site = await listening(
      createApp({
        pool,
        notes: new Notes(noDatabase(), pool, log),
        db: failing,
        log,
        version: '1',
        care: new Care(noDatabase(), null, pino({ level: 'silent' })),
        hosts: ['127.0.0.1'],
      }),
    );
    const response = await fetch(`${site.url}/api/builds`);
    const body = await response.text();
    site.close();
    expect(response.status).toBe(500);
    expect(response.headers.get('content-type')).toContain('application/problem+json');
    expect(body).not.toContain('secret');
    expect(lines.join('')).toContain('secret path /var/lib');
  });

  it('a problem says type, title, status and detail', () => {
    const problem = new Problem(418, 'tea', 'Teapot', 'This is a teapot.', { more: 1 });
    let sent = '';
    let status = 0;
    const response = {
      req: { complete: true, headers: {} },
      headersSent: false,
      status: (code: number) => ((status = code), response),
      type: () => response,
      send: (text: string) => (sent = text),
    };
    const handler = errorHandler(pino({ level: 'silent' }));
    handler(problem, {} as never, response as never, () => undefined);
    expect(status).toBe(418);
    expect(JSON.parse(sent)).toEqual({
      type: 'urn:hot-spline:tea',
      title: 'Teapot',
      status: 418,
      detail: 'This is a teapot.',
      more: 1,
    });
  });
});

describe('a write for another shop', () => {
  it('is refused before anything of it is kept; for this one, or for whichever answers, it is taken', async () => {
    const shop = await startShop(await freshFolder());
    const { id } = (await call(shop, 'GET', '/api/shop')).body as { id: string };
    const customer = `/api/customers/${randomUUID()}`;
    const write = (headers: Record<string, string>, method = 'PUT') =>
      call(shop, method, customer, method === 'PUT' ? { name: 'A. Reed', reach: '' } : undefined, headers);
    const foreign = await write({ 'hot-spline-shop': randomUUID() });
    expect([foreign.status, foreign.body.type, foreign.body.shop]).toEqual([412, 'urn:hot-spline:other-shop', id]);
    // Also one that is no id at all; a header that is there and empty names no shop that there is.
    expect((await write({ 'hot-spline-shop': `${id} ${id}` })).status).toBe(412);
    expect((await write({ 'hot-spline-shop': '' })).status).toBe(412);
    expect((await write({ 'hot-spline-shop': 'x' }, 'DELETE')).status).toBe(412);
    expect((await call(shop, 'GET', '/api/customers', undefined, { 'hot-spline-shop': 'x' })).body).toEqual([]);
    expect((await write({ 'hot-spline-shop': id })).status).toBe(200);
    expect((await write({})).status).toBe(200);
    await shop.stop();
  });
});

describe('the command line', () => {
  function calc(args: string[], input = ''): Promise<{ code: number; out: string; err: string }> {
    return new Promise((resolve) => {
      const child = execFile(
        process.execPath,
        ['--import', 'tsx', 'tools/calc-cli.ts', ...args],
        { cwd: root },
        (error, out, err) => resolve({ code: Number(error?.code ?? 0), out, err }),
      );
      child.stdin?.end(input);
    });
  }

  it('calculates from an argument and from standard input', async () => {
    const byArgument = await calc(['gearing.teeth', '{"ring":41,"pinion":15}']);
    expect(byArgument.code).toBe(0);
    expect(JSON.parse(byArgument.out)).toEqual(jasmine.objectContaining({ hunting: 'hunting' }));
    expect(JSON.parse(byArgument.out).ratio).toBeCloseTo(2.733, 3); // [exact, trade example]
    const byInput = await calc(['tyre.size'], '{"designation":"245/40R18"}');
    expect(JSON.parse(byInput.out).overallDiameterMm).toBeCloseTo(653.2, 9); // [standard: ISO 4000-1]
  });

  it('refuses with code 2 and the field, without a stack trace', async () => {
    for (const [args, field] of [
      [['gearing.teeth', '{"ring":41,"pinion":0}'], 'pinion'],
      [['gearing.teeth', '{"ring":41'], 'input'],
      [['gearing.nothing', '{}'], 'name'],
    ] as const) {
      const { code, out, err } = await calc([...args]);
      expect(code).withContext(args.join(' ')).toBe(2);
      expect(JSON.parse(out).error.field).toBe(field);
      expect(err).toBe('');
    }
  });

  it('lists and describes', async () => {
    const list = JSON.parse((await calc(['--list'])).out) as { name: string }[];
    expect(list.map(({ name }) => name)).toEqual(
      jasmine.arrayContaining([
        'tyre.size',
        'gearing.speed',
        'gearing.rpm',
        'gearing.teeth',
        'pack.interfaces',
        'pack.breakaway',
        'spring.disc',
        'unit.lock',
      ]),
    );
    const described = JSON.parse((await calc(['--describe', 'spring.disc'])).out);
    expect(described.input.required).toContain('travelMm');
    expect((await calc([])).code).toBe(2);
  });
});
