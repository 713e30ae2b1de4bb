import { createHash, randomUUID } from 'node:crypto';
import { FORMAT_VERSION, newBuild, openUnit, unitAs, type BuildFile } from '@hot-spline/model';
import type { Running } from '../serve';
import { call, freshFolder, startShop } from '../testing/shop';

/** The smallest bytes that begin as a JPEG does; `salt` makes them another photo. */
const photo = (salt = 1): Buffer => Buffer.from([0xff, 0xd8, 0xff, 0xe0, salt, 2, 3]);
const hash = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

function buildWith(ids: string[]): BuildFile {
  const build = newBuild('Photographed');
  const axle = build.axles.rear;
  if (axle) {
    axle.unit = unitAs(openUnit(), 'plate');
    const [member] = axle.unit.plate?.packs.left.members ?? [];
    if (member) member.condition = { colour: 'blue', damage: [], note: '', photos: ids };
  }
  return { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build, ledger: [] };
}

describe('photos', () => {
  let shop: Running;

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
  });

  afterAll(async () => {
    await shop.stop();
  });

  const put = async (id: string, bytes: Buffer, type = 'image/jpeg'): Promise<Response> =>
    fetch(new URL(`/api/photos/${id}`, shop.url), {
      method: 'PUT',
      headers: { 'content-type': type },
      body: new Uint8Array(bytes),
    });

  it('are kept under their hash, once, and come back as they were', async () => {
    const id = hash(photo());
    expect((await put(id, photo())).status).toBe(201);
    expect((await put(id, photo())).status).toBe(201);
    const back = await fetch(new URL(`/api/photos/${id}`, shop.url));
    expect(back.headers.get('content-type')).toBe('image/jpeg');
    expect(Buffer.from(await back.arrayBuffer())).toEqual(photo());
    expect((await shop.db.query('select id from photos where id = $1', [id])).length).toBe(1);
  });

  it('bad ones are refused by name: a wrong hash, text as a picture, another type, too large, unknown', async () => {
    const field = async (answer: Response): Promise<string> =>
      ((await answer.json()) as { error: { field: string } }).error.field;
    const other = await put(hash(photo(9)), photo());
    expect([other.status, await field(other)]).toEqual([422, 'photo.id']);
    const text = Buffer.from('not a picture');
    const fake = await put(hash(text), text);
    expect([fake.status, await field(fake)]).toEqual([422, 'photo.type']);
    expect((await put(hash(text), text, 'text/html')).status).toBe(415);
    expect((await put('x', photo())).status).toBe(422);
    expect((await put(hash(photo()), Buffer.alloc(3 * 1024 * 1024))).status).toBe(413);
    expect((await fetch(new URL(`/api/photos/${'0'.repeat(64)}`, shop.url))).status).toBe(404);
  });

  it('go out with their build and come in with it, unchanged', async () => {
    const id = hash(photo(7));
    await put(id, photo(7));
    const made = randomUUID();
    expect((await call(shop, 'POST', '/api/builds', { id: made, file: buildWith([id]) })).status).toBe(201);
    const { body: file } = await call(shop, 'GET', `/api/builds/${made}/export`);
    expect(file.photos).toEqual([{ id, type: 'image/jpeg', data: photo(7).toString('base64') }]);
    const other = await startShop(await freshFolder());
    const there = randomUUID();
    expect((await call(other, 'POST', '/api/builds', { id: there, file })).status).toBe(201);
    expect((await call(other, 'GET', `/api/builds/${there}/export`)).body).toEqual(file);
    await other.stop();
  });

  it('a file whose photo was changed is refused whole', async () => {
    const id = hash(photo(5));
    const file = { ...buildWith([id]), photos: [{ id, type: 'image/jpeg', data: photo(6).toString('base64') }] };
    const made = randomUUID();
    const answer = await call(shop, 'POST', '/api/builds', { id: made, file });
    expect(answer.status).toBe(422);
    expect(answer.body.error.field).toBe('photos[0].id');
    expect((await call(shop, 'GET', `/api/builds/${made}`)).status).toBe(404);
  });

  it('the board knows when a build is to be looked at again', async () => {
    const file = buildWith([]);
    const plate = file.build.axles.rear?.unit.plate;
    if (plate) plate.recheck = { on: '2026-12-24', why: 'Oil' };
    const made = randomUUID();
    await call(shop, 'POST', '/api/builds', { id: made, file });
    const list = (await call(shop, 'GET', '/api/builds')).body as { id: string; rechecks: unknown }[];
    expect(list.find(({ id }) => id === made)?.rechecks).toEqual([{ on: '2026-12-24', why: 'Oil' }]);
  });
});
