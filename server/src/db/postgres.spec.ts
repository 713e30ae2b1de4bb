import { randomUUID } from 'node:crypto';
import { FORMAT_VERSION, newBuild } from '@hot-spline/model';
import { pino } from 'pino';
import { readConfig } from '../config';
import { serve, type Running } from '../serve';
import { Postgres, mayRunPostgres } from '../testing/postgres';
import { call } from '../testing/shop';

describe('a PostgreSQL server', () => {
  const may = mayRunPostgres();
  let postgres: Postgres;
  beforeAll(async () => {
    if (may) postgres = await Postgres.begin();
  }, 60_000);
  afterAll(() => {
    if (may) postgres.end();
  });
  const open = (): Promise<Running> =>
    serve(readConfig({ PORT: '0', DATABASE_URL: postgres.url, LOG_LEVEL: 'silent' }, '/'), pino({ level: 'silent' }));
  const create = async (shop: Running): Promise<string> => {
    const id = randomUUID();
    const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build: newBuild(id), ledger: [] };
    expect((await call(shop, 'POST', '/api/builds', { id, file })).status).toBe(201);
    return id;
  };
  const decision = () => ({
    kind: 'decision',
    id: randomUUID(),
    at: '2026-02-03T04:05:00.000Z',
    who: 'Ada',
    about: 'springs',
    decided: 'softer',
    why: 'ours',
  });

  it('keeps a shop for two servers: each hears the other, chains and notes agree', async () => {
    if (!may) return pending('no PostgreSQL of Debian here, or no right to run it');
    // Two that begin on an empty database at once: it is migrated once, and is one shop.
    const [one, two] = await Promise.all([open(), open()]);
    const shops = await Promise.all([one, two].map((shop) => call(shop, 'GET', '/api/shop')));
    expect(shops[0]?.body.id).toBe(shops[1]?.body.id);
    const end = new AbortController();
    const heard = await fetch(new URL('/api/changes', two.url), { signal: end.signal });
    const reader = heard.body?.pipeThrough(new TextDecoderStream()).getReader();
    const id = await create(one);
    const entries = Array.from({ length: 20 }, decision);
    const answers = await Promise.all(
      entries.map((entry, i) => call(i % 2 ? one : two, 'POST', `/api/builds/${id}/ledger`, entry)),
    );
    expect(answers.map(({ status }) => status)).toEqual(entries.map(() => 201));
    let text = '';
    while (!text.includes('"count":20')) text += (await reader?.read())?.value ?? '';
    expect(text).toContain(`"of":"build","id":"${id}"`);
    end.abort();
    expect((await call(one, 'GET', `/api/builds/${id}/ledger`)).body.length).toBe(20);
    expect((await call(two, 'POST', '/api/check')).body.damage).toEqual([]);
    const board = (await call(two, 'GET', '/api/board?as=csv')).body as string;
    expect(board).toContain(id);
    await Promise.all([one.stop(), two.stop()]);
  }, 120_000);

  it('of two that make a spec at once one makes it, and a retry of it is the same; demo data is put in once', async () => {
    if (!may) return pending('no PostgreSQL of Debian here, or no right to run it');
    const demo = (): Promise<Running> =>
      serve(
        readConfig({ PORT: '0', DATABASE_URL: postgres.url, LOG_LEVEL: 'silent', HOT_SPLINE_DEMO: '1' }, '/'),
        pino({ level: 'silent' }),
      );
    const shops = await Promise.all([demo(), demo()]);
    const [one, two] = shops;
    const drawers = (await call(one, 'GET', '/api/library')).body as { spec: { name: string } }[];
    const names = drawers.map(({ spec }) => spec.name);
    expect(names.length).toBe(new Set(names).size);
    for (let round = 0; round < 12; round++) {
      const [id, writeId] = [randomUUID(), randomUUID()];
      const spec = (name: string) => ({ kind: 'shims', name, seat: 'pack', bore: null, outside: null, pieces: [] });
      const put = (shop: Running, write: string, name: string) =>
        call(shop, 'PUT', `/api/library/${id}`, { writeId: write, baseVersion: 0, spec: spec(name) });
      const answers = await Promise.all([
        put(one, writeId, 'Mine'),
        put(two, writeId, 'Mine'),
        put(two, randomUUID(), 'Theirs'),
      ]);
      const statuses = answers.map(({ status }) => status).sort();
      // Whoever came first made it; the others are told, and nobody is failed.
      expect(statuses.every((status) => status === 201 || status === 409))
        .withContext(statuses.join())
        .toBeTrue();
      expect(
        (await call(one, 'GET', '/api/library')).body.filter((each: { id: string }) => each.id === id).length,
      ).toBe(1);
    }
    await Promise.all(shops.map((shop) => shop.stop()));
  }, 120_000);

  it('that is started anew while somebody works: what was acknowledged is there, and the work goes on', async () => {
    if (!may) return pending('no PostgreSQL of Debian here, or no right to run it');
    const shop = await open();
    const id = await create(shop);
    const end = new AbortController();
    const reader = (await fetch(new URL('/api/changes', shop.url), { signal: end.signal })).body
      ?.pipeThrough(new TextDecoderStream())
      .getReader();
    let text = '';
    const until = async (what: string): Promise<void> => {
      while (!text.includes(what)) text += (await reader?.read())?.value ?? '';
    };
    const kept: string[] = [];
    let stop = false;
    const writing = (async () => {
      while (!stop) {
        const entry = decision();
        const { status } = await call(shop, 'POST', `/api/builds/${id}/ledger`, entry);
        if (status === 201) kept.push(entry.id);
        else expect(status).toBeGreaterThanOrEqual(500);
      }
    })();
    const more = async (): Promise<void> => {
      const before = kept.length;
      while (kept.length < before + 5) await new Promise((resolve) => setTimeout(resolve, 20));
    };
    await more();
    postgres.stop();
    postgres.start();
    await more();
    stop = true;
    await writing;
    const ledger = (await call(shop, 'GET', `/api/builds/${id}/ledger`)).body as { id: string }[];
    const there = new Set(ledger.map((entry) => entry.id));
    expect(kept.filter((one) => !there.has(one))).toEqual([]);
    expect((await call(shop, 'POST', '/api/check')).body.damage).toEqual([]);
    // Who listens hears that something may have been missed, and then goes on hearing.
    await until('"of":"all"');
    const last = await create(shop);
    await until(last);
    end.abort();
    await shop.stop();
  }, 120_000);
});
