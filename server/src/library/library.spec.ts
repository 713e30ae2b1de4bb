import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { coursePace } from '@hot-spline/core';
import { type LibrarySpec } from '@hot-spline/model';
import { readLibraryFile } from '@hot-spline/model/csv';
import { ROOT, type Running } from '../serve';
import { call, freshFolder, startShop } from '../testing/shop';

const specs = readLibraryFile(readFileSync(new URL('demo/library/shop-library.json', ROOT), 'utf8')).specs.map(
  ({ spec }) => spec,
);
const axle = (): LibrarySpec => structuredClone(specs[0] as LibrarySpec);

describe('the library on the server', () => {
  let shop: Running;

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
  });
  afterAll(() => shop.stop());

  const put = (id: string, baseVersion: number, spec: unknown, writeId: string = randomUUID()) =>
    call(shop, 'PUT', `/api/library/${id}`, { writeId, baseVersion, spec });

  it('keeps specs, and a retried write is one write', async () => {
    const id = randomUUID();
    const writeId = randomUUID();
    expect((await put(id, 0, axle(), writeId)).status).toBe(201);
    expect((await put(id, 0, axle(), writeId)).body.version).toBe(1);
    expect((await put(id, 1, { ...axle(), name: 'Renamed' })).body.version).toBe(2);
    const list = (await call(shop, 'GET', '/api/library')).body as { id: string; version: number; spec: LibrarySpec }[];
    expect(list.find((one) => one.id === id)).toEqual(jasmine.objectContaining({ version: 2 }));
    expect(list.find((one) => one.id === id)?.spec.name).toBe('Renamed');
  });

  it('refuses a stale version with both', async () => {
    const id = randomUUID();
    await put(id, 0, axle());
    const stale = await put(id, 0, { ...axle(), name: 'Late' });
    expect(stale.status).toBe(409);
    expect(stale.body.yours.name).toBe('Late');
    expect(stale.body.current).toEqual(jasmine.objectContaining({ id, version: 1 }));
  });

  it('takes a spec out and brings it back; nothing is deleted', async () => {
    const id = randomUUID();
    await put(id, 0, { ...axle(), name: 'Put away' });
    await call(shop, 'POST', `/api/library/${id}/archive`, { archived: true });
    const names = async () =>
      (await call(shop, 'GET', '/api/library/export')).body.specs.map((s: LibrarySpec) => s.name);
    expect(await names()).not.toContain('Put away');
    await call(shop, 'POST', `/api/library/${id}/archive`, { archived: false });
    expect(await names()).toContain('Put away');
    expect((await call(shop, 'POST', `/api/library/${randomUUID()}/archive`, { archived: true })).status).toBe(404);
  });

  it('exports what it reads again, as JSON and as CSV', async () => {
    for (const spec of specs) await put(randomUUID(), 0, spec);
    const json = await call(shop, 'GET', '/api/library/export');
    const csv = await call(shop, 'GET', '/api/library/export?as=csv');
    expect(csv.type).toContain('text/csv');
    const fromJson = readLibraryFile(JSON.stringify(json.body));
    const names = fromJson.specs.map(({ spec }) => spec.name);
    for (const spec of specs) expect(names).toContain(spec.name);
    expect(readLibraryFile(csv.body as string).bad).toEqual([]);
  });

  it('answers bad input with the field', async () => {
    const cases: [unknown, string][] = [
      [{ ...axle(), kind: 'boat' }, 'spec.kind'],
      [{ ...axle(), name: '' }, 'spec.name'],
      [{ ...axle(), more: 1 }, 'spec.more'],
      [{ ...axle(), name: "x'; drop table library; --" }, ''],
    ];
    for (const [spec, field] of cases) {
      const answer = await put(randomUUID(), 0, spec);
      if (field === '') expect(answer.status).toBe(201);
      else {
        expect(answer.status).withContext(field).toBe(422);
        expect(answer.body.error.field).toBe(field);
      }
    }
    expect((await call(shop, 'GET', '/api/library')).status).toBe(200);
  });
});

describe('long calculations on the server', () => {
  let shop: Running;

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
  });
  afterAll(() => shop.stop());

  it('run beside the rest, and refuse by name', async () => {
    const { example } = (await call(shop, 'GET', '/api/calc/road.search')).body;
    const search = call(shop, 'POST', '/api/calc/road.search', example);
    expect((await call(shop, 'GET', '/api/health')).status).toBe(200);
    const answer = await search;
    expect(answer.status).toBe(200);
    expect(answer.body.provenBest).toBeTrue();
    const [best] = answer.body.best as {
      pairs: { driver: number; driven: number }[];
      final: { ring: number; pinion: number };
      timeS: number;
    }[];
    const { vehicle, course } = example;
    const driven = (gears: number[], finalRatio: number): number =>
      coursePace({ ...vehicle, gears, finalRatio }, { fastestMps: null, ...course }).timeS;
    const gears = (best?.pairs ?? []).map((pair) => pair.driven / pair.driver);
    expect(best?.timeS).toBeCloseTo(driven(gears, (best?.final.ring ?? 0) / (best?.final.pinion ?? 1)), 6);
    expect(answer.body.presentS).toBeCloseTo(driven(vehicle.gears, vehicle.finalRatio), 9);
    expect(answer.body.gainS).toBeCloseTo(answer.body.presentS - (best?.timeS ?? 0), 9);
    const bad = await call(shop, 'POST', '/api/calc/road.search', { ...example, rules: { floorRpm: 20_000 } });
    expect(bad.status).toBe(422);
    expect(bad.body.error.field).toBe('rules.floorRpm');
  });

  it('several at once are each answered, and a short one beside them', async () => {
    const { example } = (await call(shop, 'GET', '/api/calc/pack.sure')).body;
    const long = { ...example, samples: 1_000_000 };
    const draw = () => call(shop, 'POST', '/api/calc/pack.sure', long);
    const short = call(shop, 'POST', '/api/calc/gearing.teeth', { ring: 41, pinion: 15 });
    const answers = await Promise.all([draw(), draw(), draw(), draw(), short]);
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200, 200]);
    // The same seed gives the same answer, on whichever thread.
    expect(new Set(answers.slice(0, 4).map(({ body }) => JSON.stringify(body))).size).toBe(1);
  });

  it('explain themselves when asked', async () => {
    const { example } = (await call(shop, 'GET', '/api/calc/pack.sure')).body;
    const answer = await call(shop, 'POST', '/api/calc/pack.sure?working=1', { ...example, samples: 1000 });
    expect(answer.body.working.result.value).toBeCloseTo(answer.body.breakaway.nominal, 9);
    expect((await call(shop, 'POST', '/api/calc/pack.sure', example)).body.working).toBeUndefined();
  });

  it('refuse what is no calculation, no JSON and too much', async () => {
    const unknown = await call(shop, 'POST', '/api/calc/pack.magic', {});
    expect([unknown.status, unknown.body.error.field]).toEqual([422, 'name']);
    const text = await call(shop, 'POST', '/api/calc/road.search', '{"vehicle":');
    expect(text.status).toBe(400);
    const huge = await call(shop, 'POST', '/api/calc/road.search', JSON.stringify({ pairs: 'x'.repeat(2_000_000) }));
    expect(huge.status).toBe(413);
    expect((await call(shop, 'POST', '/api/calc/road.search', null)).status).toBe(422);
  });
});
