import { randomUUID } from 'node:crypto';
import { entryOf } from '@hot-spline/core';
import { newBuild, newShimBox, setupSubjects, type Build, type SetUps } from '@hot-spline/model';
import type { Running } from '../serve';
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
