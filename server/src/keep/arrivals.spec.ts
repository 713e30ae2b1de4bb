import { randomUUID } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import type { Arrival } from '@hot-spline/model';
import type { Running } from '../serve';
import { PIXEL, sha256 } from '../testing/pictures';
import { archiveFile, archiveOf, call, freshFolder, makeBuild, someReading, startShop } from '../testing/shop';
import { until } from '../testing/until';

const photo = sha256(PIXEL);

const append = async (shop: Running, id: string, n: number): Promise<void> => {
  for (let i = 0; i < n; i++)
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, someReading())).status).toBe(201);
};
async function rename(shop: Running, id: string, name: string): Promise<void> {
  const { version, build } = (await call(shop, 'GET', `/api/builds/${id}`)).body;
  const write = { writeId: randomUUID(), baseVersion: version, build: { ...build, name } };
  expect((await call(shop, 'PUT', `/api/builds/${id}`, write)).status).toBe(200);
}
const mm = (value: number): unknown => ({ typed: `${value} mm`, value, unit: 'mm' });
const specOf = (name: string): unknown => ({
  kind: 'instrument',
  name,
  reads: { of: 'length', from: mm(0), to: mm(25), resolution: mm(0.01), plusMinus: mm(0.01) },
  checked: null,
});

const found = async (shop: Running, id: string): Promise<Arrival> =>
  (await call(shop, 'GET', `/api/arrivals/${id}`)).body as Arrival;
/** Sends an archive, and waits until it was read. */
async function send(shop: Running, file: string): Promise<Arrival> {
  const answer = await fetch(new URL('/api/arrivals', shop.url), {
    method: 'POST',
    headers: { 'content-type': 'application/zip' },
    body: readFileSync(file),
  });
  expect(answer.status).toBe(202);
  const { id } = (await answer.json()) as Arrival;
  await until(async () => (await found(shop, id)).state !== 'reading');
  return found(shop, id);
}
async function bring(shop: Running, { id }: Arrival, customers = true): Promise<Arrival> {
  expect((await call(shop, 'POST', `/api/arrivals/${id}`, { customers })).status).toBe(202);
  await until(async () => (await found(shop, id)).state !== 'arriving');
  return found(shop, id);
}
const names = async (shop: Running): Promise<string[]> =>
  ((await call(shop, 'GET', '/api/builds')).body as { name: string }[]).map(({ name }) => name);
const raw = async (shop: Running, id: string): Promise<unknown> =>
  (await call(shop, 'GET', `/api/builds/${id}/raw`)).body as unknown;

describe('an archive', () => {
  let there: Running;
  let here: Running;
  let car: string;
  let large: string;
  let customer: string;

  beforeAll(async () => {
    there = await startShop(await freshFolder(), { HOT_SPLINE_DEMO: '1' });
    car = await makeBuild(there, 'Umlaut ä "µ"', 5);
    await rename(there, car, 'Umlaut ö "µ"');
    // More than is read at once, and than two pieces of it.
    large = randomUUID();
    const { body: file } = await call(there, 'GET', `/api/builds/${car}/export`);
    const ledger = Array.from({ length: 1203 }, someReading);
    expect((await call(there, 'POST', '/api/builds', { id: large, file: { ...file, ledger } })).status).toBe(201);
    customer = randomUUID();
    await call(there, 'PUT', `/api/customers/${customer}`, { name: 'A. Reed', reach: 'by the river' });
    const sent = await fetch(new URL(`/api/photos/${photo}`, there.url), {
      method: 'PUT',
      headers: { 'content-type': 'image/png' },
      body: PIXEL,
    });
    expect(sent.status).toBe(201);
  });

  afterAll(async () => {
    await there.stop();
  });

  beforeEach(async () => {
    here = await startShop(await freshFolder());
  });

  afterEach(async () => {
    await here.stop();
  });

  it('says before what it does, comes in beside what is here, and done twice changes nothing', async () => {
    const mine = await makeBuild(here, 'Mine', 2);
    const before = await raw(here, mine);
    const file = await archiveFile(there);
    const said = await send(here, file);
    expect(said.state).toBe('ready');
    const all = (await names(there)).length;
    expect(said.plan?.builds).toEqual({ new: all, longer: 0, same: 0, older: 0, other: 0, broken: 0 });
    expect(said.plan).toEqual(jasmine.objectContaining({ customers: 1, photos: 1 }));
    // Read, and nothing done.
    expect(await names(here)).toEqual(['Mine']);
    expect((await bring(here, said)).state).toBe('arrived');
    expect((await names(here)).sort()).toEqual([...(await names(there)), 'Mine'].sort());
    expect(await raw(here, car)).toEqual(await raw(there, car));
    expect(await raw(here, large)).toEqual(await raw(there, large));
    expect(await raw(here, mine)).toEqual(before);
    expect((await call(here, 'GET', `/api/builds/${car}/versions/1`)).body.build.name).toBe('Umlaut ä "µ"');
    expect((await call(here, 'GET', '/api/customers')).body[0].name).toBe('A. Reed');
    expect((await call(here, 'GET', '/api/library')).body).toEqual((await call(there, 'GET', '/api/library')).body);
    expect((await fetch(new URL(`/api/photos/${photo}`, here.url))).status).toBe(200);
    // It is its own shop still, and what came adds up.
    expect((await call(here, 'GET', '/api/shop')).body.id).not.toBe((await call(there, 'GET', '/api/shop')).body.id);
    expect((await call(here, 'POST', '/api/check')).body.damage).toEqual([]);
    // A drawer knows what is fitted where.
    const held = (await call(there, 'GET', '/api/set-ups')).body.holdings as { build: string }[];
    await until(async () => (await call(here, 'GET', '/api/set-ups')).body.holdings.length === held.length);

    const state = await archiveOf(here);
    const again = await send(here, file);
    expect(again.plan?.builds).toEqual({ new: 0, longer: 0, same: all, older: 0, other: 0, broken: 0 });
    expect(again.plan).toEqual(jasmine.objectContaining({ customers: 0, photos: 0, entries: 0 }));
    expect(again.plan?.specs.new).toBe(0);
    expect((await bring(here, again)).state).toBe('arrived');
    expect(await archiveOf(here)).toBe(state);
  });

  it('what went on there comes behind what is here; what went on here, or on both, stays', async () => {
    const [longer, older, both] = [
      await makeBuild(there, 'Longer', 2),
      await makeBuild(there, 'Older', 2),
      await makeBuild(there, 'Both', 2),
    ];
    expect((await bring(here, await send(here, await archiveFile(there)))).state).toBe('arrived');
    await append(there, longer, 3);
    await rename(there, longer, 'Longer by three');
    await append(here, older, 1);
    await append(here, both, 1);
    await rename(there, both, 'Both, there');
    const spec = randomUUID();
    const write = (shop: Running, baseVersion: number, name: string) =>
      call(shop, 'PUT', `/api/library/${spec}`, { writeId: randomUUID(), baseVersion, spec: specOf(name) });
    expect((await write(there, 0, 'Micrometer')).status)
      .withContext('spec')
      .toBe(201);
    expect((await bring(here, await send(here, await archiveFile(there)), false)).state).toBe('arrived');
    await append(there, longer, 1);
    expect((await write(there, 1, 'Micrometer 0–25')).status).toBe(200);
    const kept = [await raw(here, older), await raw(here, both)];
    const said = await send(here, await archiveFile(there));
    expect(said.plan?.builds).toEqual(jasmine.objectContaining({ new: 0, longer: 1, older: 1, other: 1 }));
    expect(said.plan?.specs).toEqual(jasmine.objectContaining({ new: 0, longer: 1 }));
    expect(said.plan?.entries).toBe(1);
    expect(said.plan?.named.map(({ name, fate }) => [name, fate]).sort()).toEqual([
      ['Both, there', 'other'],
      ['Longer by three', 'longer'],
    ]);
    expect((await bring(here, said)).state).toBe('arrived');
    expect(await raw(here, longer)).toEqual(await raw(there, longer));
    expect([await raw(here, older), await raw(here, both)]).toEqual(kept);
    expect((await call(here, 'POST', '/api/check')).body.damage).toEqual([]);
    // Its chain goes on.
    await append(here, longer, 1);
    expect((await call(here, 'POST', '/api/check')).body.damage).toEqual([]);
  });

  it('leaves customers out where that is said, on either side', async () => {
    expect(await archiveOf(there)).toContain('by the river');
    expect(await archiveOf(there, '?customers=false')).not.toContain('by the river');
    const other = await startShop(await freshFolder());
    const said = await bring(other, await send(other, await archiveFile(there)), false);
    expect(said.state).toBe('arrived');
    expect((await call(other, 'GET', '/api/customers')).body).toEqual([]);
    await other.stop();
  });

  it('that is stopped or can’t be kept leaves nothing; what was changed meanwhile is not written over', async () => {
    const folder = await freshFolder();
    const other = await startShop(folder);
    const file = await archiveFile(there);
    const stopped = await send(other, file);
    await call(other, 'POST', `/api/arrivals/${stopped.id}`, {});
    expect((await call(other, 'DELETE', `/api/arrivals/${stopped.id}`)).body.state).toMatch(/stopped|arrived/);
    const said = await send(other, file);
    if (said.plan?.builds.same === 0) {
      // Somebody creates one of its builds before it comes.
      const exported = (await call(there, 'GET', `/api/builds/${car}/export`)).body as unknown;
      expect((await call(other, 'POST', '/api/builds', { id: car, file: exported })).status).toBe(201);
      const failed = await bring(other, said);
      expect(failed.state).toBe('failed');
      expect(failed.problem).toContain('changed meanwhile');
      expect((await names(other)).length).toBe(1);
      expect(await other.db.query('select 1 from build_rows where arriving is not null')).toEqual([]);
      expect(await other.db.query('select 1 from photos')).toEqual([]);
    }
    expect(readdirSync(folder).filter((name) => name.startsWith('.arrival'))).toEqual([]);
    await other.stop();
  });

  it('that a killed process left half in is gone at the next start', async () => {
    const folder = await freshFolder();
    const first = await startShop(folder);
    await makeBuild(first, 'Whole', 2);
    const half = await makeBuild(first, 'Half', 3);
    // As it is while it comes: nothing is worked out of it yet.
    for (const table of ['build_facets', 'build_words', 'holdings', 'lessons', 'job_times'])
      await first.db.query(`delete from ${table} where build_id = $1`, [half]);
    await first.db.query('update build_rows set arriving = $2 where id = $1', [half, randomUUID()]);
    expect(await names(first)).toEqual(['Whole']);
    expect((await call(first, 'GET', `/api/builds/${half}`)).status).toBe(404);
    await first.stop();
    const again = await startShop(folder);
    expect(await again.db.query('select id from build_rows where id = $1', [half])).toEqual([]);
    expect(await names(again)).toEqual(['Whole']);
    // What has arrived can’t be taken out.
    await expectAsync(again.db.query('delete from ledger')).toBeRejectedWithError(/append-only/);
    await again.stop();
  });

  it('of what is no archive, torn, or forged is refused by name, and nothing is kept', async () => {
    const bytes = readFileSync(await archiveFile(there));
    const post = async (body: Buffer, type = 'application/zip'): Promise<Arrival & { status: number }> => {
      const answer = await fetch(new URL('/api/arrivals', here.url), {
        method: 'POST',
        headers: { 'content-type': type },
        body: new Uint8Array(body),
      });
      const said = (await answer.json()) as Arrival;
      if (answer.status !== 202) return { ...said, status: answer.status };
      await until(async () => (await found(here, said.id)).state !== 'reading');
      return { ...(await found(here, said.id)), status: answer.status };
    };
    const state = await archiveOf(here);
    for (const bad of [Buffer.from('no zip'), Buffer.alloc(0), bytes.subarray(0, bytes.length >> 1)]) {
      const { state: is, problem } = await post(bad);
      expect(is).toBe('failed');
      expect(problem).toContain('no archive');
    }
    const touched = Buffer.from(bytes);
    const at = touched.indexOf(PIXEL);
    touched[at + 45] = (touched[at + 45] ?? 0) ^ 1;
    expect((await post(touched)).problem).toMatch(/photos\/.* (can’t be read|is not as it was written)/);
    expect((await post(bytes, 'text/plain')).status).toBe(415);
    for (const [method, url, status] of [
      ['GET', `/api/arrivals/${randomUUID()}`, 404],
      ['POST', `/api/arrivals/${randomUUID()}`, 404],
      ['DELETE', `/api/arrivals/${randomUUID()}`, 404],
      ['GET', '/api/arrivals/x', 422],
    ] as const)
      expect((await call(here, method, url, method === 'POST' ? {} : undefined)).status).toBe(status);
    const failed = await post(Buffer.from('no zip'));
    expect((await call(here, 'POST', `/api/arrivals/${failed.id}`, {})).status).toBe(409);
    expect((await call(here, 'POST', `/api/arrivals/${failed.id}`, { customers: 'yes' })).body.error.field).toBe(
      'customers',
    );
    expect(await archiveOf(here)).toBe(state);
  });
});
