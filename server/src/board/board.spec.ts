import { randomUUID } from 'node:crypto';
import {
  FORMAT_VERSION,
  newBuild,
  newWork,
  workSubjects,
  type Board,
  type Build,
  type Recall,
} from '@hot-spline/model';
import { BOARD_CSV_HEADER, csvRows } from '@hot-spline/model/csv';
import type { Running } from '../serve';
import { archiveOf, call, freshFolder, startShop } from '../testing/shop';

describe('the board of the shop', () => {
  let shop: Running;
  const customer = randomUUID();

  beforeEach(async () => {
    shop = await startShop(await freshFolder());
    const kept = await call(shop, 'PUT', `/api/customers/${customer}`, { name: 'A. Reed', reach: '+44 1632 960 001' });
    expect(kept.body).toEqual({ id: customer, name: 'A. Reed', reach: '+44 1632 960 001', builds: 0 });
  });
  afterEach(() => shop.stop());

  async function put(name: string, change: (build: Build) => unknown): Promise<string> {
    const id = randomUUID();
    const build = newBuild(name);
    change(build);
    const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build, ledger: [], photos: [] };
    const { status, body } = await call(shop, 'POST', '/api/builds', { id, file });
    expect(status).withContext(JSON.stringify(body)).toBe(201);
    return id;
  }
  const board = async (query = ''): Promise<Board> => (await call(shop, 'GET', `/api/board${query}`)).body;
  const read = (subject: object, value: object) => ({
    kind: 'reading',
    id: randomUUID(),
    at: '2026-11-26T08:00:00.000Z',
    who: 'Ines',
    subject,
    value,
    state: {},
    instrument: 'By hand',
  });

  it('follows the work: planned, at work, on hold, by promised day, with the customer’s name', async () => {
    const id = await put('Siskin', (build) => {
      build.customer = customer;
      build.promised = '2026-12-04';
      build.worker = 'Ines';
      if (build.axles.rear) build.axles.rear.work = newWork('ratio-swap', 'plain');
    });
    await put('Twite', () => undefined);
    const first = await board('?sort=promised');
    expect(first.rows[0]).toEqual(
      jasmine.objectContaining({ id, name: 'Siskin', promised: '2026-12-04', worker: 'Ines', customer: 'A. Reed' }),
    );
    expect(first.rows[0]?.work).toEqual(
      jasmine.objectContaining({ state: 'planned', done: 0, next: 'Brief and complaint' }),
    );
    expect(first.states).toEqual({ planned: 1, open: 1 });

    const done = workSubjects.stepDone.of({ axle: 'rear', step: 'brief' });
    const entry = read(done, { of: 'choice', choice: 'done' });
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, entry)).status).toBe(201);
    expect((await board('?state=work')).rows[0]?.work).toEqual(
      jasmine.objectContaining({ done: 1, next: 'Identify the axle' }),
    );

    const stored = (await call(shop, 'GET', `/api/builds/${id}`)).body;
    stored.build.axles.rear.work.hold = { for: 'parts', why: 'seals', since: '2026-11-26', until: null };
    const write = { writeId: randomUUID(), baseVersion: 1, who: '', build: stored.build };
    expect((await call(shop, 'PUT', `/api/builds/${id}`, write)).status).toBe(200);
    expect((await board('?state=waiting')).rows[0]?.work.rest?.what).toBe('seals');
  });

  it('says what is overdue, and what is promised within a week of the day it is', async () => {
    const on = (day: string | null) => (build: Build) => void (build.promised = day);
    await put('Late', on('2026-11-30'));
    await put('Today', on('2026-12-01'));
    await put('Week', on('2026-12-08'));
    await put('Later', on('2026-12-09'));
    await put('Never', on(null));
    const names = async (promised: string) =>
      (await board(`?promised=${promised}&today=2026-12-01`)).rows.map(({ name }) => name).sort();
    expect(await names('overdue')).toEqual(['Late']);
    expect(await names('week')).toEqual(['Today', 'Week']);
    for (const bad of ['?promised=soon', '?today=2026-13-01', "?promised=week&today=';--"])
      expect((await call(shop, 'GET', `/api/board${bad}`)).status)
        .withContext(bad)
        .toBe(422);
  });

  it('finds every word anywhere: name, car, worker, part number, customer; nothing is a pattern', async () => {
    await put('Siskin', (build) => {
      build.customer = customer;
      build.worker = 'Ines';
    });
    await put('Twite', () => undefined);
    await put('Bunting', (build) => {
      build.vehicle = '100%_steel hatch';
      if (build.axles.rear) {
        build.axles.rear.work = newWork('overhaul', 'plain');
        build.axles.rear.work.parts.push({ ...NUMBERED, number: 'KT-4417' });
      }
    });
    const names = async (search: string): Promise<string[]> =>
      (await board(`?search=${encodeURIComponent(search)}`)).rows.map(({ name }) => name);
    expect(await names('kt-4417')).toEqual(['Bunting']);
    expect(await names('reed ines')).toEqual(['Siskin']);
    expect(await names('0%_s')).toEqual(['Bunting']);
    expect(await names('%')).toEqual(['Bunting']);
    expect(await names('reed bunting')).toEqual([]);
    // A worker's whole name is whose, not every mention of it.
    await put('Ines’ trailer', (build) => (build.worker = 'Bo'));
    const theirs = await board('?search=INES');
    expect([theirs.rows.map(({ name }) => name), theirs.whose, theirs.total]).toEqual([['Siskin'], 'Ines', 1]);
    expect((await board('?search=trailer')).whose).toBeNull();
    expect(await names('ines trailer')).toEqual(['Ines’ trailer']);
    const piece = await board('?limit=1&offset=1');
    expect([piece.rows.length, piece.total]).toEqual([1, 4]);
    for (const bad of ['?limit=0', '?limit=201', '?sort=size', '?offset=-1', '?state=lost', '?other=1'])
      expect((await call(shop, 'GET', `/api/board${bad}`)).status)
        .withContext(bad)
        .toBe(422);
  });

  it('is a CSV of all that is found, in the order asked for; no cell is a formula', async () => {
    await put('=Siskin+1', (build) => {
      build.customer = customer;
      build.promised = '2026-12-04';
      if (build.axles.rear) build.axles.rear.work = newWork('ratio-swap', 'plain');
    });
    await put('Twite', () => undefined);
    await put('Bunting', () => undefined);
    const { status, type, body } = await call(shop, 'GET', '/api/board?as=csv&sort=promised&limit=1&offset=1');
    expect([status, type.split(';')[0]]).toEqual([200, 'text/csv']);
    expect(body).toMatch(/^id,build,vehicle,use,customer,state,/);
    const rows = csvRows(body as string, ',').slice(1, -1);
    expect(rows.map(([, name]) => name)).toEqual(['=Siskin+1', 'Bunting', 'Twite']);
    expect(body).toContain(`,"'=Siskin+1",`);
    const cell = (name: (typeof BOARD_CSV_HEADER)[number]) => rows[0]?.[BOARD_CSV_HEADER.indexOf(name)];
    expect([cell('customer'), cell('state'), cell('promised')]).toEqual(['A. Reed', 'Not started', '2026-12-04']);
    expect([cell('next step'), cell('steps done')]).toEqual(['Brief and complaint', '0']);
    expect(Number(cell('left h'))).toBeGreaterThan(1);
    const found = await call(shop, 'GET', '/api/board?as=csv&search=twi');
    expect((found.body as string).trim().split('\n').length).toBe(2);
    expect((await call(shop, 'GET', '/api/board?as=pdf')).body.error.field).toBe('as');
  });

  it('as CSV has no row of before, however many have changed', async () => {
    const names = Array.from({ length: 301 }, (_, i) => `Knot ${i}`);
    for (const name of names)
      await put(name, (build) => {
        if (build.axles.rear) build.axles.rear.work = newWork('ratio-swap', 'plain');
      });
    const { body } = await call(shop, 'GET', '/api/board?as=csv');
    const states = csvRows(body as string, ',')
      .slice(1, -1)
      .map((row) => row[BOARD_CSV_HEADER.indexOf('state')]);
    expect(states).toEqual(names.map(() => 'Not started'));
  });

  it('carries the days from which builds are looked at again, the first one first', async () => {
    await put('Siskin', ({ axles }) => {
      if (!axles.rear) return;
      axles.rear.work = newWork('overhaul', 'plain');
      axles.rear.work.runIn.on = '2026-12-24';
    });
    expect((await board()).rows[0]?.rechecks).toEqual([{ on: '2026-12-24', why: 'run-in' }]);
  });

  it('finds what was written in a ledger by how a word begins, together with the rest', async () => {
    const id = await put('Siskin', (build) => (build.worker = 'Ines'));
    await put('Twite', () => undefined);
    const names = async (search: string): Promise<string[]> =>
      (await board(`?search=${encodeURIComponent(search)}`)).rows.map(({ name }) => name);
    expect(await names('chipped')).toEqual([]);
    const lesson = workSubjects.lesson.of({ axle: 'rear', step: 'brief' });
    const said = read(lesson, { of: 'text', text: 'Tooth "B" chipped, 100%_sure.' });
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, said)).status).toBe(201);
    const gone = { kind: 'void', id: randomUUID(), at: said.at, who: '', voids: said.id, reason: 'Wrong axle' };
    for (const search of ['chipped', 'chip siskin', 'TOOTH ines', '100%_s'])
      expect(await names(search)).toEqual(['Siskin']);
    // Within a word is found in what names the build, not in its ledger; nothing is a pattern.
    for (const search of ['hipped', 'chip twite', '100%x', 'ch%d']) expect(await names(search)).toEqual([]);
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, gone)).status).toBe(201);
    expect(await names('chipped wrong')).toEqual(['Siskin']);
    expect((await board('?search=chipped&state=work')).total).toBe(0);
    expect((await board('?search=chipped')).states).toEqual({ open: 1 });
  });

  // Events and recall: when a joint, carrier or part fails on one build, every other one with it is found (common practice).
  it('finds every build with what failed, with the customer to call', async () => {
    await put('Bunting', (build) => {
      if (!build.axles.rear) return;
      build.axles.rear.work = newWork('overhaul', 'plain');
      build.axles.rear.work.parts.push({ ...NUMBERED, number: 'KT-4417' });
    });
    const all: Recall = (await call(shop, 'GET', '/api/recall')).body;
    const facet = all.facets.find((one) => one.facet === 'part: KT-4417');
    expect(facet?.builds).toBe(1);
    await put('Serin', (build) => {
      build.customer = customer;
      if (build.axles.rear) {
        build.axles.rear.work = newWork('overhaul', 'plain');
        build.axles.rear.work.parts.push({ ...NUMBERED, number: 'KT-4417' });
      }
    });
    const found: Recall = (await call(shop, 'GET', `/api/recall?of=${encodeURIComponent('part: KT-4417')}`)).body;
    expect(found.builds.map(({ name, customer: whose, reach }) => [name, whose, reach])).toEqual([
      ['Bunting', '', ''],
      ['Serin', 'A. Reed', '+44 1632 960 001'],
    ]);
    expect((await call(shop, 'GET', '/api/recall?of=')).status).toBe(422);
  });

  it('erases a customer: nothing of the name is left, the builds stay', async () => {
    for (const name of ['One', 'Two']) await put(name, (build) => (build.customer = customer));
    expect((await call(shop, 'GET', '/api/customers')).body[0].builds).toBe(2);
    expect((await call(shop, 'DELETE', `/api/customers/${customer}`)).body).toEqual({ id: customer, erased: true });
    expect((await call(shop, 'DELETE', `/api/customers/${customer}`)).status).toBe(404);
    expect((await call(shop, 'GET', '/api/customers')).body).toEqual([]);
    expect(JSON.stringify(await board())).not.toContain('Reed');
    expect(await archiveOf(shop)).not.toContain('Reed');
    for (const bad of [{}, { name: '', reach: '' }, { name: 'x'.repeat(81), reach: '' }, { name: 'A', reach: 3 }])
      expect((await call(shop, 'PUT', `/api/customers/${randomUUID()}`, bad)).status).toBe(422);
    expect((await call(shop, 'PUT', '/api/customers/nobody', { name: 'A', reach: '' })).status).toBe(422);
  });
});

const NUMBERED = {
  id: 'p1',
  name: 'Kit',
  count: 1,
  state: 'here' as const,
  supplier: '',
  price: null,
  promised: null,
  number: '',
};
