import { newBuild, type Build } from '@hot-spline/model';
import { randomUUID } from 'node:crypto';
import ICAL from 'ical.js';
import { FORMAT_VERSION } from '@hot-spline/model';
import type { Running } from '../serve';
import { call, freshFolder, startShop } from '../testing/shop';

describe('the calendar of a shop', () => {
  let shop: Running;
  beforeAll(async () => (shop = await startShop(await freshFolder())));
  afterAll(() => shop.stop());
  const make = async (change: (build: Build) => void): Promise<string> => {
    const [id, build] = [randomUUID(), newBuild('Heron')];
    change(build);
    const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build, ledger: [] };
    expect((await call(shop, 'POST', '/api/builds', { id, file })).status).toBe(201);
    return id;
  };

  it('has every promised day, whole, as another program reads it; behind its key alone', async () => {
    const long = `Saloon; comma, back\\slash – ${'ü'.repeat(60)}`;
    const id = await make((build) =>
      Object.assign(build, { vehicle: long.slice(0, 80), promised: '2026-12-09', worker: 'Bo' }),
    );
    await make((build) => Object.assign(build, { promised: null }));
    expect((await call(shop, 'GET', '/api/calendar.ics?key=')).status).toBe(404);
    const { key } = (await call(shop, 'POST', '/api/calendar')).body;
    expect((await call(shop, 'GET', '/api/calendar')).body.key).toBe(key);
    for (const bad of ['', 'x', key.slice(1), `${key}x`])
      expect((await call(shop, 'GET', `/api/calendar.ics?key=${bad}`)).status)
        .withContext(bad)
        .toBe(404);
    const answer = await call(shop, 'GET', `/api/calendar.ics?key=${key}`);
    expect(answer.type).toContain('text/calendar');
    // Lines of 75 octets at the most, ended by CRLF [RFC 5545, 3.1].
    for (const line of String(answer.body).split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    // ical.js, a reader that is not this project’s.
    const read = new ICAL.Component(ICAL.parse(answer.body) as never);
    const events = read.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    expect(events.length).toBe(1);
    const [event] = events;
    expect([event?.summary, event?.startDate.toString(), event?.startDate.isDate]).toEqual([
      'Heron: promised',
      '2026-12-09',
      true,
    ]);
    expect(event?.uid).toContain(id);
    expect(event?.description).toContain(long.slice(0, 80));
    const other = (await call(shop, 'POST', '/api/calendar')).body.key;
    expect((await call(shop, 'GET', `/api/calendar.ics?key=${key}`)).status).toBe(404);
    expect((await call(shop, 'DELETE', '/api/calendar')).body.key).toBeNull();
    expect((await call(shop, 'GET', `/api/calendar.ics?key=${other}`)).status).toBe(404);
  });
});
