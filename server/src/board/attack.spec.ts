import { randomUUID } from 'node:crypto';
import { FORMAT_VERSION, newBuild, newWork, workSubjects, type Build } from '@hot-spline/model';
import type { Running } from '../serve';
import { call, freshFolder, startShop } from '../testing/shop';

/** What somebody types who means no good, or whose keyboard slipped. */
const HOSTILE = [
  "'; drop table builds; --",
  '" or 1=1 --',
  '%',
  '_',
  '\\',
  '\\%',
  '$1',
  '<script>alert(1)</script>',
  '\u0000',
  '💥'.repeat(20),
  'a'.repeat(80),
  '../../etc/passwd',
  '{"$gt":""}',
];

describe('the board under attack', () => {
  let shop: Running;
  beforeAll(async () => {
    shop = await startShop(await freshFolder());
  });
  afterAll(() => shop.stop());

  const file = (build: Build) => ({
    format: 'hot-spline/build-file',
    formatVersion: FORMAT_VERSION,
    build,
    ledger: [],
    photos: [],
  });
  async function put(change: (build: Build) => void): Promise<string> {
    const id = randomUUID();
    const build = newBuild(`Siege ${id.slice(0, 6)}`);
    change(build);
    const { status } = await call(shop, 'POST', '/api/builds', { id, file: file(build) });
    expect(status).toBe(201);
    return id;
  }

  it('no text in a search breaks it, finds what it must not, or is a pattern', async () => {
    await put(() => undefined);
    for (const text of HOSTILE) {
      const { status, body } = await call(shop, 'GET', `/api/board?search=${encodeURIComponent(text)}`);
      expect([200, 422]).withContext(text).toContain(status);
      if (status === 200) expect(body.rows.length).withContext(text).toBe(0);
    }
    expect((await call(shop, 'GET', '/api/board')).body.rows.length).toBeGreaterThan(0);
  });

  it('no text in a recall breaks it', async () => {
    for (const text of HOSTILE) {
      const { status, body } = await call(shop, 'GET', `/api/recall?of=${encodeURIComponent(text)}`);
      expect([200, 422]).withContext(text).toContain(status);
      if (status === 200) expect(body.builds).withContext(text).toEqual([]);
    }
    expect((await call(shop, 'GET', `/api/recall?of=${'x'.repeat(161)}`)).status).toBe(422);
  });

  it('a number that is none, or too large, is refused by its name', async () => {
    for (const [query, field] of [
      ['limit=many', 'limit'],
      ['limit=1e9', 'limit'],
      ['offset=NaN', 'offset'],
      ['offset=99999999', 'offset'],
      ['sort=name;drop', 'sort'],
      ['state=', 'state'],
      ['archived=maybe', 'archived'],
    ] as const) {
      const { status, body } = await call(shop, 'GET', `/api/board?${query}`);
      expect(status).withContext(query).toBe(422);
      expect(body.error.field).withContext(query).toContain(field);
    }
  });

  it('what is kept of a customer is what was sent, and no more than a name and a way to reach them', async () => {
    const id = randomUUID();
    for (const text of HOSTILE.filter((one) => one.trim() !== '' && !one.includes('\u0000'))) {
      const { status, body } = await call(shop, 'PUT', `/api/customers/${id}`, { name: text, reach: text });
      expect(status).withContext(text).toBe(200);
      expect([body.name, body.reach]).toEqual([text, text]);
    }
    for (const bad of [
      { name: 'A', reach: '', born: '1970-01-01' },
      { name: 'A' },
      { name: '   ', reach: '' },
      { name: 'A', reach: 'x'.repeat(121) },
      [],
      null,
    ])
      expect((await call(shop, 'PUT', `/api/customers/${id}`, bad)).status)
        .withContext(JSON.stringify(bad))
        .toBe(422);
    for (const broken of ['{', 'A. Reed'])
      expect((await call(shop, 'PUT', `/api/customers/${id}`, broken)).status).toBe(400);
    expect((await call(shop, 'PUT', `/api/customers/${id}`, `{"name":"${'x'.repeat(9000)}"}`)).status).toBe(413);
    expect((await call(shop, 'DELETE', '/api/customers/1')).status).toBe(422);
    expect((await call(shop, 'POST', `/api/customers/${id}`, {})).status).toBe(405);
    expect((await call(shop, 'DELETE', '/api/builds')).status).toBe(405);
  });

  it('a build that names a customer who is not there, or erased, is shown without one', async () => {
    const id = await put((build) => (build.customer = randomUUID()));
    const { body } = await call(shop, 'GET', '/api/board?limit=200');
    expect(body.rows.find((row: { id: string }) => row.id === id).customer).toBeNull();
  });

  it('a job that can’t be does not bring the board down', async () => {
    const id = await put(({ axles }) => {
      if (axles.rear) axles.rear.work = newWork('insert', 'insert');
    });
    const { status, body } = await call(shop, 'GET', '/api/board?limit=200');
    expect(status).toBe(200);
    expect(body.rows.find((row: { id: string }) => row.id === id).work.state).toBe('open');
  });

  it('records of steps are taken only as what they are', async () => {
    const id = await put(({ axles }) => {
      if (axles.rear) axles.rear.work = newWork('ratio-swap', 'plain');
    });
    const send = (subject: object, value: object) =>
      call(shop, 'POST', `/api/builds/${id}/ledger`, {
        kind: 'reading',
        id: randomUUID(),
        at: '2026-11-26T08:00:00.000Z',
        who: '',
        subject,
        value,
        state: {},
        instrument: 'By hand',
      });
    const torque = (typed: string, value: number, unit: string) => ({
      of: 'number',
      counts: 'one',
      entries: [{ typed, value, unit }],
    });
    const subject = workSubjects.STEP_READINGS['torque/bolt'].of({ axle: 'rear', step: 'cover', record: 'cover' });
    expect((await send(subject, torque('22 lbf·ft', 22, 'lbf·ft'))).status).toBe(201);
    const bad: [object, object][] = [
      [subject, torque('22 lbf·ft', 33, 'lbf·ft')],
      [subject, torque('22 mm', 22, 'mm')],
      [subject, torque('1e9 N·m', 1e9, 'N·m')],
      [subject, { of: 'text', text: 'tight' }],
      [{ ...subject, axle: 'middle' }, torque('22 lbf·ft', 22, 'lbf·ft')],
      [{ ...subject, step: '../x' }, torque('22 lbf·ft', 22, 'lbf·ft')],
      [{ ...subject, more: 1 }, torque('22 lbf·ft', 22, 'lbf·ft')],
      [
        { what: 'step', axle: 'rear', step: 'brief' },
        { of: 'choice', choice: 'perhaps' },
      ],
      [
        { what: 'lesson', axle: 'rear', step: 'brief' },
        { of: 'text', text: '' },
      ],
      [
        { what: 'lesson', axle: 'rear', step: 'brief' },
        { of: 'text', text: 'x'.repeat(301) },
      ],
      [
        { what: 'run-in', axle: 'rear', trip: '0' },
        { of: 'choice', choice: 'trip' },
      ],
    ];
    for (const [of, value] of bad)
      expect((await send(of, value)).status)
        .withContext(JSON.stringify([of, value]))
        .toBe(422);
    const ticks = (state: object, list: string[]) =>
      call(shop, 'POST', `/api/builds/${id}/ledger`, {
        kind: 'reading',
        id: randomUUID(),
        at: '2026-11-26T08:00:00.000Z',
        who: '',
        subject: { what: 'ring-bolts', axle: 'rear', stage: '1' },
        value: { of: 'ticks', ticks: list },
        state,
        instrument: 'Torque wrench',
      });
    const state = { torque: '65 lbf·ft', bolts: '10' };
    expect((await ticks(state, ['1', '6'])).status).toBe(201);
    expect((await ticks(state, ['1', '1'])).status).toBe(422);
    // The last tick taken back.
    expect((await ticks(state, [])).status).toBe(201);
    expect((await ticks({}, ['1'])).status).toBe(422);
    expect(
      (
        await ticks(
          state,
          Array.from({ length: 81 }, (_, i) => String(i)),
        )
      ).status,
    ).toBe(422);
  });

  it('the shop’s name and mark are kept, and nothing else is', async () => {
    const put = (body: unknown) => call(shop, 'PUT', '/api/shop', body);
    expect((await put({ name: 'Slipway Drivelines', logo: 'a'.repeat(64) })).body).toEqual(
      jasmine.objectContaining({ name: 'Slipway Drivelines', logo: 'a'.repeat(64), currency: 'EUR' }),
    );
    expect((await put({ logo: null })).body).toEqual(
      jasmine.objectContaining({ name: 'Slipway Drivelines', logo: null }),
    );
    expect((await put({ hourRate: 62.5 })).body.hourRate).toBe(62.5);
    expect((await call(shop, 'GET', '/api/shop')).body.hourRate).toBe(62.5);
    expect((await put({ hourRate: null })).body.hourRate).toBeNull();
    for (const bad of [
      { hourRate: -1 },
      { hourRate: '60' },
      { hourRate: 1e6 },
      { name: 'x'.repeat(81) },
      { logo: 'http://elsewhere/logo.png' },
      { logo: '' },
      { colour: 'red' },
      {},
    ])
      expect((await put(bad)).status)
        .withContext(JSON.stringify(bad))
        .toBe(422);
  });
});
