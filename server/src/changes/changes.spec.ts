import { randomUUID } from 'node:crypto';
import { FORMAT_VERSION, newAxleSpec, newBuild, type Changed, type LedgerEntry } from '@hot-spline/model';
import { Feed } from './feed';
import { tell } from '../keep/tell';
import { call, freshFolder, startShop } from '../testing/shop';
import type { Running } from '../serve';

/** What a listener hears, until it has enough. */
async function listen(shop: Running, headers: Record<string, string> = {}, query = '') {
  const end = new AbortController();
  const response = await fetch(new URL(`/api/changes${query}`, shop.url), { headers, signal: end.signal });
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  /** The next so many events. */
  const next = async (count: number): Promise<{ id: string; change: Changed }[]> => {
    for (;;) {
      const events = text.split('\n\n').slice(0, -1);
      if (events.length >= count) {
        text = text.slice(events.slice(0, count).join('\n\n').length + 2);
        return events.slice(0, count).map((event) => ({
          id: /id: (.*)/.exec(event)?.[1] ?? '',
          change: JSON.parse(/data: (.*)/.exec(event)?.[1] ?? 'null') as Changed,
        }));
      }
      const { value, done } = (await reader?.read()) ?? { value: undefined, done: true };
      if (done) throw new Error(`it ended after ${text}`);
      text += value ?? '';
    }
  };
  return { next, end: () => end.abort(), type: response.headers.get('content-type') };
}

const decision = (): LedgerEntry => ({
  kind: 'decision',
  id: randomUUID(),
  at: '2026-02-03T04:05:00.000Z',
  who: 'Ada',
  about: 'springs',
  decided: 'softer',
  why: 'ours',
});

describe('changes', () => {
  let shop: Running;
  beforeAll(async () => (shop = await startShop(await freshFolder())));
  afterAll(() => shop.stop());
  const create = async (): Promise<string> => {
    const id = randomUUID();
    const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build: newBuild(id), ledger: [] };
    expect((await call(shop, 'POST', '/api/builds', { id, file })).status).toBe(201);
    return id;
  };

  it('are heard in order, once they are kept, by whoever listens', async () => {
    const one = await listen(shop);
    const two = await listen(shop);
    expect(one.type).toContain('text/event-stream');
    expect((await one.next(1))[0]?.change).toEqual({ of: 'here' });
    const id = await create();
    const [entry, spec, customer] = [decision(), randomUUID(), randomUUID()];
    await call(shop, 'POST', `/api/builds/${id}/ledger`, entry);
    await call(shop, 'PUT', `/api/builds/${id}`, { writeId: randomUUID(), baseVersion: 1, build: newBuild('two') });
    await call(shop, 'POST', `/api/builds/${id}/archive`, { archived: true });
    const write = { writeId: randomUUID(), baseVersion: 0, spec: newAxleSpec('Heron') };
    await call(shop, 'PUT', `/api/library/${spec}`, write);
    await call(shop, 'POST', `/api/library/${spec}/archive`, { archived: true });
    await call(shop, 'PUT', `/api/customers/${customer}`, { name: 'A. Reed', reach: '' });
    await call(shop, 'DELETE', `/api/customers/${customer}`);
    await call(shop, 'PUT', '/api/shop', { currency: 'SEK' });
    const changes = (await one.next(9)).map(({ change }) => change);
    expect(changes).toEqual([
      { of: 'build', id, version: 1 },
      { of: 'ledger', id, entry: entry.id, count: 1 },
      { of: 'build', id, version: 2 },
      { of: 'build', id, version: 2 },
      { of: 'library', id: spec },
      { of: 'library', id: spec },
      { of: 'customers' },
      { of: 'customers' },
      { of: 'shop' },
    ]);
    expect((await two.next(10)).slice(1).map(({ change }) => change)).toEqual(changes);
    // What is acknowledged once more, or refused, is no change.
    await call(shop, 'POST', `/api/builds/${id}/ledger`, entry);
    await call(shop, 'POST', `/api/builds/${id}/ledger`, { ...entry, why: 'another' });
    await call(shop, 'DELETE', `/api/customers/${customer}`);
    const last = await create();
    expect((await one.next(1))[0]?.change).toEqual({ of: 'build', id: last, version: 1 });
    one.end();
    two.end();
  });

  it('who is where is heard by whoever listens, and remembered for nobody', async () => {
    const one = await listen(shop);
    const [here] = await one.next(1);
    const at = {
      tab: randomUUID(),
      who: 'Ada',
      build: randomUUID(),
      sheet: 'mesh',
      step: '',
      field: 'backlash-1-rear',
    };
    expect((await call(shop, 'POST', '/api/presence', at)).body.heard).toBeGreaterThan(0);
    expect((await one.next(1))[0]?.change).toEqual({ of: 'presence', ...at });
    one.end();
    const again = await listen(shop, {}, `?since=${here?.id}`);
    expect((await again.next(1))[0]?.change).toEqual({ of: 'here' });
    again.end();
    for (const bad of [
      { ...at, sheet: '<b>' },
      { ...at, field: 'x'.repeat(81) },
      { ...at, tab: 'x' },
      { ...at, more: 1 },
      { ...at, who: 'x'.repeat(61) },
    ])
      expect((await call(shop, 'POST', '/api/presence', bad)).status).toBe(422);
  });

  it('nothing is heard of what was not kept', async () => {
    const one = await listen(shop);
    await expectAsync(
      shop.db.transaction(async (tx) => {
        await tell(tx, { of: 'customers' });
        throw new Error('not kept');
      }),
    ).toBeRejectedWithError('not kept');
    await tell(shop.db, { of: 'shop' });
    expect((await one.next(2)).map(({ change }) => change.of)).toEqual(['here', 'shop']);
    one.end();
  });

  it('whoever comes back hears what it missed, by header or by query; of another start that any may have been missed', async () => {
    const one = await listen(shop);
    const [here] = await one.next(1);
    one.end();
    const [a, b] = [await create(), await create()];
    for (const [headers, query] of [
      [{ 'last-event-id': here?.id ?? '' }, ''],
      [{}, `?since=${here?.id}`],
    ] as const) {
      const again = await listen(shop, headers, query);
      const missed = await again.next(3);
      expect(missed.map(({ change }) => change)).toEqual([
        { of: 'build', id: a, version: 1 },
        { of: 'build', id: b, version: 1 },
        { of: 'here' },
      ]);
      expect(new Set(missed.map(({ id }) => id)).size).toBe(2);
      again.end();
    }
    for (const last of ['0-0', 'x', `${here?.id}9`, '-1', 'é'.repeat(3)]) {
      const other = await listen(shop, {}, `?since=${encodeURIComponent(last)}`);
      expect((await other.next(1))[0]?.change)
        .withContext(last)
        .toEqual({ of: 'all' });
      other.end();
    }
    expect((await call(shop, 'GET', `/api/changes?since=${'x'.repeat(61)}`)).status).toBe(422);
  });

  it('what is made over a ledger that has moved on is refused, with how far it is; made over all of it, it is taken', async () => {
    const id = await create();
    const to = (over: number | string) => `/api/builds/${id}/ledger?over=${over}`;
    const signature = {
      kind: 'signature',
      id: randomUUID(),
      at: '2026-02-03T04:05:00.000Z',
      who: 'Ada',
      gate: 'B',
      name: 'Ada',
      figures: {},
    };
    await call(shop, 'POST', `/api/builds/${id}/ledger`, decision());
    const late = await call(shop, 'POST', to(0), signature);
    expect([late.status, late.body.type, late.body.over, late.body.count]).toEqual([
      409,
      'urn:hot-spline:moved-on',
      0,
      1,
    ]);
    expect((await call(shop, 'POST', to(2), signature)).status).toBe(409);
    expect((await call(shop, 'POST', to(1), signature)).status).toBe(201);
    // Sent once more it is the same one, whatever has come behind it.
    expect((await call(shop, 'POST', to(1), signature)).status).toBe(200);
    for (const bad of ['-1', '1.5', 'x', '1e99', ''])
      expect((await call(shop, 'POST', to(bad), { ...signature, id: randomUUID() })).status)
        .withContext(bad)
        .toBe(bad === '' ? 409 : 422);
  });
});

describe('the feed', () => {
  it('remembers the last two thousand; before them anything may have been missed', () => {
    const feed = new Feed();
    const id = feed.since(null)[0]?.id ?? '';
    for (let i = 0; i < 2000; i++) feed.hear(JSON.stringify({ of: 'shop' }));
    expect(feed.since(id).length).toBe(2001);
    feed.hear('');
    expect(feed.since(id).map(({ change }) => change.of)).toEqual(['all']);
    expect(feed.since(feed.since(null)[0]?.id ?? '').map(({ change }) => change.of)).toEqual(['here']);
  });
});
