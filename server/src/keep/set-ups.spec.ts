import { randomUUID } from 'node:crypto';
import { entryOf } from '@hot-spline/core';
import { newBuild, newShimBox, setupSubjects, type Build, type LedgerEntry, type SetUps } from '@hot-spline/model';
import type { Running } from '../serve';
import { holdingsIn } from './holdings';
import { call, freshFolder, startShop } from '../testing/shop';

describe('what set-ups hold and teach', () => {
  let shop: Running;
  const drawer = randomUUID();

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
    const piece = { thickness: entryOf(0.5, 'mm'), count: 2, origin: 'measured' as const };
    const spec = newShimBox('Head shims', 'pinion-head', [piece]);
    await call(shop, 'PUT', `/api/library/${drawer}`, { writeId: randomUUID(), baseVersion: 0, spec });
  });
  afterAll(() => shop.stop());

  async function build(name: string, practice: Build['practice'] = null): Promise<string> {
    const id = randomUUID();
    const made = { ...newBuild(name), practice };
    const file = { format: 'hot-spline/build-file', formatVersion: 5, build: made, ledger: [], photos: [] };
    const { status, body } = await call(shop, 'POST', '/api/builds', { id, file });
    expect(status).withContext(JSON.stringify(body)).toBe(201);
    return id;
  }

  const fit = (id: string, number: number, pieces: number, of: readonly string[] = [drawer]) =>
    call(shop, 'POST', `/api/builds/${id}/ledger`, {
      kind: 'reading',
      id: randomUUID(),
      at: '2026-11-26T08:00:00.000Z',
      who: '',
      subject: setupSubjects.assembled.of({ axle: 'rear', assembly: String(number) }),
      value: {
        of: 'assembly',
        pinion: Array.from({ length: pieces }, () => entryOf(0.5, 'mm')),
        left: [],
        right: [],
        leftNotches: 0,
        rightNotches: 0,
        drawers: of,
      },
      state: {},
      instrument: 'Micrometer',
    });
  const holdings = async (): Promise<SetUps['holdings']> =>
    (await call(shop, 'GET', '/api/set-ups')).body.holdings.filter(
      (one: { drawers: string[] }) => one.drawers[0] === drawer,
    );

  it('a piece is in one axle only: taken, refused elsewhere, returned, taken there', async () => {
    const [one, two] = [await build('One'), await build('Two')];
    expect((await fit(one, 1, 2)).status).toBe(201);
    expect(await holdings()).toEqual([
      { build: one, name: 'One', axle: 'rear', drawers: [drawer], piecesMm: [0.5, 0.5] },
    ]);
    const refused = await fit(two, 1, 1);
    expect(refused.status).toBe(422);
    expect(refused.body.error).toEqual(
      jasmine.objectContaining({
        field: 'value',
        message: jasmine.stringContaining('“Head shims”, where 0 of 2 are free'),
      }),
    );
    expect((await fit(one, 2, 1)).status).toBe(201);
    expect((await fit(two, 1, 1)).status).toBe(201);
    expect((await holdings()).map(({ name, piecesMm }) => [name, piecesMm.length]).sort()).toEqual([
      ['One', 1],
      ['Two', 1],
    ]);
  });

  it('two that reach for the last piece at once: one gets it', async () => {
    const [one, two] = [await build('Left hand'), await build('Right hand')];
    const spare = randomUUID();
    const piece = { thickness: entryOf(0.5, 'mm'), count: 1, origin: 'measured' as const };
    const spec = newShimBox('One piece', 'pinion-head', [piece]);
    await call(shop, 'PUT', `/api/library/${spare}`, { writeId: randomUUID(), baseVersion: 0, spec });
    const answers = await Promise.all([fit(one, 1, 1, [spare]), fit(two, 1, 1, [spare])]);
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 422]);
  });

  it('practice takes nothing out of drawers', async () => {
    const before = (await holdings()).length;
    expect((await fit(await build('Practised', { lesson: null, seed: 5 }), 1, 0)).status).toBe(201);
    expect((await fit(await build('Again', { lesson: null, seed: 6 }), 1, 1, [randomUUID()])).status).toBe(201);
    const all = (await call(shop, 'GET', '/api/set-ups')).body as SetUps;
    expect(all.holdings.some(({ name }) => name === 'Again')).toBeFalse();
    expect((await holdings()).length).toBe(before);
  });

  it('what is voided is free again at once, and a drawer can be asked for by itself', async () => {
    const [one, two] = [await build('Voids'), await build('Takes it then')];
    const own = randomUUID();
    const piece = { thickness: entryOf(0.5, 'mm'), count: 1, origin: 'measured' as const };
    const spec = newShimBox('Own piece', 'pinion-head', [piece]);
    await call(shop, 'PUT', `/api/library/${own}`, { writeId: randomUUID(), baseVersion: 0, spec });
    const { body: taken } = await fit(one, 1, 1, [own]);
    expect((await fit(two, 1, 1, [own])).status).toBe(422);
    const only = async (of: string) => (await call(shop, 'GET', `/api/set-ups?drawer=${of}`)).body as SetUps;
    expect((await only(own)).holdings.map(({ name }) => name)).toEqual(['Voids']);
    expect((await only(randomUUID())).holdings).toEqual([]);
    await call(shop, 'POST', `/api/builds/${one}/ledger`, {
      kind: 'void',
      id: randomUUID(),
      at: '2026-11-26T09:00:00.000Z',
      who: '',
      voids: taken.id,
      reason: 'taken out',
    });
    expect((await only(own)).holdings).toEqual([]);
    expect((await fit(two, 2, 1, [own])).status).toBe(201);
    for (const bad of ['?drawer=x', '?spec=', '?axle=rear'])
      expect((await call(shop, 'GET', `/api/set-ups${bad}`)).status)
        .withContext(bad)
        .toBe(bad === '?spec=' ? 200 : 422);
  });

  it('an axle teaches the next of its spec, noted behind the write and read as rows; what can’t be read is named', async () => {
    const demo = await startShop(await freshFolder(), { HOT_SPLINE_DEMO: '1' });
    // The board comes once all is noted.
    await call(demo, 'GET', '/api/board?as=csv');
    const all = (await call(demo, 'GET', '/api/set-ups')).body as SetUps;
    expect(all.past.length).toBeGreaterThan(0);
    const { spec } = all.past[0] as { spec: string };
    const some = (await call(demo, 'GET', `/api/set-ups?spec=${encodeURIComponent(spec)}`)).body as SetUps;
    expect(some.past).toEqual(all.past.filter((one) => one.spec === spec));
    expect((await call(demo, 'GET', '/api/set-ups?spec=nobody')).body.past).toEqual([]);
    // By another road: what the rows of holdings say is what the ledgers say.
    const { rows } = (await call(demo, 'GET', '/api/board')).body as { rows: { id: string; name: string }[] };
    const held: unknown[] = [];
    for (const { id, name } of rows) {
      const { build: document } = (await call(demo, 'GET', `/api/builds/${id}`)).body as { build: Build };
      const ledger = (await call(demo, 'GET', `/api/builds/${id}/ledger`)).body as LedgerEntry[];
      held.push(...holdingsIn(document, ledger).map((one) => ({ build: id, name, ...one })));
    }
    const byBuild = (one: unknown) => JSON.stringify(one, Object.keys(one as object).sort());
    expect(all.holdings.map(byBuild).sort()).toEqual(held.map(byBuild).sort());
    const [first] = rows;
    await demo.db.query('alter table ledger disable trigger all');
    await demo.db.query(`update ledger set entry = '{"kind":"nothing"}' where build_id = $1`, [first?.id]);
    await demo.db.query('update builds set stale = true where id = $1', [first?.id]);
    await call(demo, 'GET', '/api/board?as=csv');
    const after = (await call(demo, 'GET', '/api/set-ups')).body as SetUps;
    expect(after.unreadable.map(({ build: id, why }) => [id, /^Entry /.test(why)])).toEqual([[first?.id ?? '', true]]);
    await demo.stop();
  });

  it('drawers that are not known hold nothing back; no more than pieces', async () => {
    const id = await build('Three');
    expect((await fit(id, 1, 3, [randomUUID()])).status).toBe(201);
    expect(
      (
        await fit(
          id,
          2,
          1,
          Array.from({ length: 25 }, () => randomUUID()),
        )
      ).status,
    ).toBe(422);
    expect((await fit(id, 2, 1, ['here'])).status).toBe(422);
  });
});
