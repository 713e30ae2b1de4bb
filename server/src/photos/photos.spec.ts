import { randomUUID } from 'node:crypto';
import { FORMAT_VERSION, newBuild, openUnit, unitAs, type BuildFile } from '@hot-spline/model';
import type { Running } from '../serve';
import { exif, jpeg, segment, sha256 as hash } from '../testing/pictures';
import { call, freshFolder, startShop } from '../testing/shop';
import { until } from '../testing/until';

const photo = (salt = 1): Buffer => jpeg(salt);

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

  it('are kept without place and camera, under the hash of what was sent; a file carries both hashes', async () => {
    const sent = jpeg(3, [segment(0xe1, `Exif\0\0${exif(1).toString('latin1')}`)]);
    const id = hash(sent);
    expect((await put(id, sent)).status).toBe(201);
    const back = await fetch(new URL(`/api/photos/${id}`, shop.url));
    expect(Buffer.from(await back.arrayBuffer())).toEqual(jpeg(3));
    const made = randomUUID();
    expect((await call(shop, 'POST', '/api/builds', { id: made, file: buildWith([id]) })).status).toBe(201);
    const { body: file } = await call(shop, 'GET', `/api/builds/${made}/export`);
    const kept = hash(jpeg(3));
    expect(file.photos).toEqual([{ id, type: 'image/jpeg', data: jpeg(3).toString('base64'), kept }]);
    const other = await startShop(await freshFolder());
    const there = randomUUID();
    expect((await call(other, 'POST', '/api/builds', { id: there, file })).status).toBe(201);
    expect((await call(other, 'GET', `/api/builds/${there}/export`)).body).toEqual(file);
    // In a file of before it comes whole, and is cleaned as it comes in.
    const [old] = file.photos;
    const before = { ...file, photos: [{ id, type: old.type, data: sent.toString('base64') }] };
    const third = randomUUID();
    expect((await call(other, 'POST', '/api/builds', { id: third, file: before })).status).toBe(201);
    expect((await call(other, 'GET', `/api/builds/${third}/export`)).body.photos).toEqual(file.photos);
    const wrong = { ...file, photos: [{ ...old, kept: hash(jpeg(4)) }] };
    const refused = await call(other, 'POST', '/api/builds', { id: randomUUID(), file: wrong });
    expect([refused.status, refused.body.error.field]).toEqual([422, 'photos[0].kept']);
    await other.stop();
  });

  it('that came with a file under another one’s hash give way to what the hash is of', async () => {
    const [mine, forged] = [jpeg(11), jpeg(12)];
    const id = hash(mine);
    const photos = [{ id, kept: hash(forged), type: 'image/jpeg', data: forged.toString('base64') }];
    const file = { ...buildWith([id]), photos };
    expect((await call(shop, 'POST', '/api/builds', { id: randomUUID(), file })).status).toBe(201);
    expect((await put(id, mine)).status).toBe(201);
    const back = await fetch(new URL(`/api/photos/${id}`, shop.url));
    expect(Buffer.from(await back.arrayBuffer())).toEqual(mine);
  });

  it('of before are cleaned when the server starts; what is no whole picture stays as it is', async () => {
    const folder = await freshFolder();
    const first = await startShop(folder);
    const sent = jpeg(5, [segment(0xfe, 'by the river')]);
    const torn = Buffer.from([0xff, 0xd8, 0xff, 0xe0, 5]);
    for (const bytes of [sent, torn])
      await first.db.query("insert into photos (id, type, bytes) values ($1, 'image/jpeg', $2)", [hash(bytes), bytes]);
    await first.stop();
    const again = await startShop(folder);
    const keptOf = async (bytes: Buffer): Promise<unknown> =>
      (await again.db.query('select kept from photos where id = $1', [hash(bytes)]))[0]?.['kept'];
    await until(async () => (await keptOf(torn)) !== null && (await keptOf(sent)) !== null);
    const back = await fetch(new URL(`/api/photos/${hash(sent)}`, again.url));
    expect(Buffer.from(await back.arrayBuffer())).toEqual(jpeg(5));
    const same = await fetch(new URL(`/api/photos/${hash(torn)}`, again.url));
    expect(Buffer.from(await same.arrayBuffer())).toEqual(torn);
    await again.stop();
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

  it('that only the ledger names go with the file too', async () => {
    const bytes = photo(77);
    const id = hash(bytes);
    expect((await put(id, bytes)).status).toBe(201);
    const build = randomUUID();
    const file = {
      format: 'hot-spline/build-file',
      formatVersion: FORMAT_VERSION,
      build: newBuild('Caps'),
      ledger: [],
    };
    expect((await call(shop, 'POST', '/api/builds', { id: build, file })).status).toBe(201);
    const entry = {
      kind: 'reading',
      id: randomUUID(),
      at: '2026-02-03T04:05:00.000Z',
      who: '',
      subject: { what: 'caps-photo', axle: 'rear' },
      value: { of: 'photos', photos: [id] },
      state: {},
      instrument: 'Camera',
    };
    expect((await call(shop, 'POST', `/api/builds/${build}/ledger`, entry)).status).toBe(201);
    const { body } = await call(shop, 'GET', `/api/builds/${build}/export`);
    expect(body.photos.map((one: { id: string }) => one.id)).toEqual([id]);
  });

  it('readings of a set-up are refused by name: a state that is none, a shim of −1, no places, two hundred', async () => {
    const build = randomUUID();
    const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build: newBuild('Bad'), ledger: [] };
    expect((await call(shop, 'POST', '/api/builds', { id: build, file })).status).toBe(201);
    const state = {
      pinionBearings: 'new',
      spacer: 'new',
      seal: 'in',
      nut: 'new',
      sideBearings: 'new',
      caps: 'torqued',
      sidePreload: 'full',
      oil: 'oiled',
      drag: 'braked',
    };
    const mm = (value: number) => ({ typed: `${value} mm`, value, unit: 'mm' });
    const backlash = { what: 'backlash', axle: 'rear', assembly: '1', stage: 'trial' };
    const pack = { of: 'assembly', left: [], right: [], leftNotches: 0, rightNotches: 0 };
    const cases: [object, object, object, string][] = [
      [backlash, { of: 'places', entries: [mm(0.2)] }, { ...state, caps: 'loose' }, 'state.caps'],
      [backlash, { of: 'places', entries: [mm(0.2)] }, {}, 'state.pinionBearings'],
      [backlash, { of: 'places', entries: [] }, state, 'value.entries'],
      [backlash, { of: 'places', entries: Array(200).fill(mm(0.2)) }, state, 'value.entries'],
      [backlash, { of: 'places', entries: [mm(-0.1)] }, state, 'value.entries'],
      [{ ...backlash, assembly: '-1' }, { of: 'places', entries: [mm(0.2)] }, state, 'subject.assembly'],
      [{ what: 'assembly', axle: 'rear', assembly: '1' }, { ...pack, pinion: [mm(-1)] }, {}, 'value.pinion'],
      [{ what: 'assembly', axle: 'rear', assembly: '100' }, { ...pack, pinion: [] }, {}, 'subject.assembly'],
    ];
    for (const [subject, value, at, field] of cases) {
      const entry = {
        kind: 'reading',
        id: randomUUID(),
        at: '2026-02-03T04:05:00.000Z',
        who: '',
        subject,
        value,
        state: at,
        instrument: 'x',
      };
      const { status, body } = await call(shop, 'POST', `/api/builds/${build}/ledger`, entry);
      expect(status).withContext(field).toBe(422);
      expect(body.error.field).withContext(field).toContain(field);
    }
  });
});
