import { createHmac, randomUUID } from 'node:crypto';
import { createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import {
  FORMAT_VERSION,
  newBuild,
  newWork,
  workSubjects,
  type Board,
  type BoardWeek,
  type Build,
  type PartsToOrder,
  type Scanned,
} from '@hot-spline/model';
import { PARTS_CSV_HEADER, csvRows } from '@hot-spline/model/csv';
import ICAL from 'ical.js';
import { Webhook } from 'standardwebhooks';
import type { Running } from '../serve';
import { call, freshFolder, startShop } from '../testing/shop';
import { until } from '../testing/until';
import { callOnce } from './tell';

type Work = NonNullable<NonNullable<Build['axles']['rear']>['work']>;

async function put(shop: Running, name: string, change: (build: Build, work: Work) => unknown): Promise<string> {
  const [id, build] = [randomUUID(), newBuild(name)];
  const work = newWork('ratio-swap', 'plain');
  if (build.axles.rear) build.axles.rear.work = work;
  change(build, work);
  const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build, ledger: [], photos: [] };
  const { status, body } = await call(shop, 'POST', '/api/builds', { id, file });
  expect(status).withContext(JSON.stringify(body)).toBe(201);
  return id;
}

const part = (change: Partial<Work['parts'][number]>): Work['parts'][number] => ({
  ...{ id: 'seals', name: 'Seals', count: 2, state: 'needed', supplier: '', price: null, promised: null, number: '' },
  ...change,
});

const hold = (of: NonNullable<Work['hold']>['for'], until: string | null = null): Work['hold'] => ({
  ...{ for: of, why: `rests for ${of}`, since: '2026-11-26', until },
});

describe('the board of 67 made jobs', () => {
  let shop: Running;
  const TODAY = '2026-12-01';
  const board = async (query: string): Promise<Board> =>
    (await call(shop, 'GET', `/api/board?limit=200&${query}${query.includes('today') ? '' : `&today=${TODAY}`}`)).body;
  const names = async (query: string): Promise<string[]> => (await board(query)).rows.map(({ name }) => name);

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
    // One car after another: who works on it, what it waits for, when it is promised, what kind of job it is, all by its number.
    for (let i = 0; i < 67; i++)
      await put(shop, `Car ${String(i).padStart(2, '0')}`, (build, work) => {
        build.worker = ['Ada Reed', 'Bo', ''][i % 3] ?? '';
        build.vehicle = i % 3 === 1 ? 'brought by Ada Reed, equivalent axle' : 'saloon';
        build.promised = i % 4 === 0 ? null : `2026-12-${String(1 + (i % 20)).padStart(2, '0')}`;
        if (i % 2 === 1) work.job = 'overhaul';
        if (i % 5 === 0)
          work.hold = hold((['parts', 'tool', 'machine-shop', 'customer', 'other'] as const)[(i / 5) % 5] ?? 'other');
        if (i === 21) work.tools = [{ id: 'spreader', state: 'lent', with: 'Finch', back: '2026-12-04', pattern: '' }];
        if (i === 22) work.runIn.on = '2026-12-01';
        if (i === 23) work.runIn.on = '2026-12-02';
      });
    // Who asks for all of it waits until all is noted.
    await call(shop, 'GET', '/api/board?as=csv');
    expect((await board('')).total).toBe(67);
  });
  afterAll(() => shop.stop());

  it('is filtered by whose, what for, kind, day and state, each and together, and counted alike', async () => {
    expect((await board('worker=Ada%20Reed')).total).toBe(23);
    // A mention is not theirs.
    expect((await board('search=Ada%20Reed')).total).toBe(23);
    expect((await board('search=ada')).total).toBe(45);
    for (const [rest, n] of [
      ['part', 3],
      ['tool', 3],
      ['machine-shop', 3],
      ['customer', 3],
      ['other', 2],
      ['curing', 0],
    ] as const)
      expect((await board(`rest=${rest}`)).total)
        .withContext(rest)
        .toBe(n);
    expect((await board('job=overhaul')).total).toBe(33);
    expect((await board('job=overhaul&rest=part')).rows.map(({ name }) => name)).toEqual(['Car 25']);
    expect(await names('worker=Bo&job=overhaul&rest=part')).toEqual(['Car 25']);
    expect(await names('worker=bo')).toEqual([]);
    const all = await board('');
    expect(all.states).toEqual({ due: 1, waiting: 14, planned: 52 });
    expect((await board('state=waiting')).total).toBe(14);
    const workers = await call(shop, 'GET', '/api/board/workers');
    expect(workers.body).toEqual(['Ada Reed', 'Bo']);
  });

  it('is due from the day on that somebody said, and “lent” finds what is lent alone', async () => {
    expect(await names('state=due')).toEqual(['Car 22']);
    const next = (await call(shop, 'GET', '/api/board?today=2026-12-02&state=due')).body as Board;
    expect(next.rows.map(({ name, work }) => [name, work.due])).toEqual([
      ['Car 22', 'run-in'],
      ['Car 23', 'run-in'],
    ]);
    const lent = await board('search=lent');
    expect(lent.rows.map(({ name, work }) => [name, work.lent])).toEqual([
      ['Car 21', ['Case spreader with indicator to Finch until 2026-12-04']],
    ]);
    expect((await board('search=equivalent')).total).toBe(22);
  });

  it('says of a job what the database counts it as, whatever the day and the hour: one rule in two languages', async () => {
    const own = await startShop(await freshFolder());
    const ids: string[] = [];
    for (let i = 0; i < 24; i++) ids.push(await put(own, `Row ${i}`, () => undefined));
    await call(own, 'GET', '/api/board?as=csv');
    const rest = { for: 'part', what: 'seals', since: null, until: null };
    const hour = (by: number): string => new Date(Date.now() + by * 3_600_000).toISOString();
    const cases = ['due', 'waiting', 'loop', 'gate', 'work', 'done'].flatMap((state) =>
      [hour(2), hour(-2)].flatMap((until) => ['2026-11-30', '2026-12-02'].map((on) => ({ state, until, on }))),
    );
    expect(cases.length).toBe(ids.length);
    for (const [i, { state, until, on }] of cases.entries()) {
      const setting = { for: 'curing', what: 'glue', since: hour(-3), until };
      const work = { state, rest: state === 'waiting' ? rest : null, setting, due: state === 'due' ? 'races' : '' };
      await own.db.query(
        `update builds set state = $2, rest = $3, sets_until = $4, recheck_on = $5, rechecks = $6,
           work = (work::jsonb || $7::jsonb)::text where id = $1`,
        [
          ...[ids[i], state, work.rest?.for ?? '', until, on],
          ...[JSON.stringify([{ on, why: 'oil' }]), JSON.stringify(work)],
        ],
      );
    }
    const read = async (query: string): Promise<Board> =>
      (await call(own, 'GET', `/api/board?today=${TODAY}&limit=200&${query}`)).body;
    const all = await read('');
    const counted: Partial<Record<string, number>> = {};
    for (const { work } of all.rows) counted[work.state] = (counted[work.state] ?? 0) + 1;
    expect(all.states).toEqual(counted as Board['states']);
    for (const [state, n] of Object.entries(all.states)) {
      const { rows, total } = await read(`state=${state}`);
      expect([rows.length, total]).withContext(state).toEqual([n, n]);
      expect(rows.every(({ work }) => work.state === state))
        .withContext(state)
        .toBeTrue();
    }
    for (const of of ['part', 'curing'] as const) {
      const { rows } = await read(`rest=${of}`);
      expect(rows.map(({ name }) => name).sort()).toEqual(
        all.rows
          .filter(({ work }) => work.state === 'waiting' && work.rest?.for === of)
          .map(({ name }) => name)
          .sort(),
      );
      expect(rows.length).withContext(of).toBeGreaterThan(0);
    }
    await own.stop();
  });

  it('refuses what is no filter, naming it', async () => {
    for (const bad of ['rest=rain', 'job=painting', 'worker=', 'today=yesterday', 'state=gate-b']) {
      const { status, body } = await call(shop, 'GET', `/api/board?${bad}`);
      expect([status, body.error?.field])
        .withContext(bad)
        .toEqual([422, bad.split('=')[0]]);
    }
  });

  it('says day by day what does not fit into the hours that the shop has', async () => {
    const week = async (query = ''): Promise<BoardWeek> =>
      (await call(shop, 'GET', `/api/board/week?today=2026-12-03&weeks=1${query}`)).body;
    const unsaid = await week();
    expect(unsaid.days.map(({ day }) => day)).toEqual([3, 4, 5, 6, 7, 8, 9].map((n) => `2026-12-0${n}`));
    expect(unsaid.days.every(({ hours, overH }) => hours === null && overH === null)).toBeTrue();
    const hours = [8, 8, 8, 8, 8, 0, 0];
    expect((await call(shop, 'PUT', '/api/shop', { weekHours: hours })).status).toBe(200);
    const said = await week();
    // 2026-12-03 is a Thursday.
    expect(said.days.map((day) => day.hours)).toEqual([8, 8, 0, 0, 8, 8, 8]);
    const rows = (await board('promised=overdue&today=2026-12-03')).rows;
    expect(said.overdue.builds).toBe(rows.length);
    // Worked out anew from the list of the board.
    const all = (await board('sort=promised&today=2026-12-03')).rows;
    let [needed, there] = [0, 0];
    for (const { promised, work } of all) if (promised !== null && promised < '2026-12-03') needed += work.leftH;
    for (const day of said.days) {
      const own = all.filter(({ promised }) => promised === day.day);
      needed += own.reduce((sum, { work }) => sum + work.leftH, 0);
      there += day.hours ?? 0;
      expect(day.builds).toBe(own.length);
      expect(day.overH)
        .withContext(day.day)
        .toBeCloseTo(Math.max(0, needed - there), 1);
    }
    for (const bad of [[8], [8, 8, 8, 8, 8, 0, -1], [8, 8, 8, 8, 8, 0, 'x'], 'all']) {
      const { status, body } = await call(shop, 'PUT', '/api/shop', { weekHours: bad });
      expect([status, String(body.error.field).startsWith('weekHours')]).toEqual([422, true]);
    }
    for (const bad of ['weeks=0', 'weeks=9', 'today=2026-02-30'])
      expect((await call(shop, 'GET', `/api/board/week?${bad}`)).status).toBe(422);
  });
});

describe('what goes from the board to others', () => {
  let shop: Running;
  beforeEach(async () => (shop = await startShop(await freshFolder())));
  afterEach(() => shop.stop());

  it('a hold stands in the calendar from its day to its last, or up to today where nobody said one', async () => {
    await put(shop, 'Heron', (_, work) => (work.hold = hold('machine-shop', '2026-12-11')));
    await put(shop, 'Ibis', (_, work) => (work.hold = { ...hold('customer'), since: '2026-11-20' } as Work['hold']));
    const { key } = (await call(shop, 'POST', '/api/calendar')).body;
    const { body } = await call(shop, 'GET', `/api/calendar.ics?key=${key}`);
    // ical.js, a reader that is not this project’s.
    const events = new ICAL.Component(ICAL.parse(body) as never)
      .getAllSubcomponents('vevent')
      .map((one) => new ICAL.Event(one));
    const shown = new Map(events.map((one) => [one.summary, [one.startDate.toString(), one.endDate.toString()]]));
    // An end is the day after the last [RFC 5545, 3.6.1].
    expect(shown.get('Heron waits for the machine shop')).toEqual(['2026-11-26', '2026-12-12']);
    const [from, end] = shown.get('Ibis waits for the customer') ?? [];
    const [y, m, d] = [new Date().getFullYear(), new Date().getMonth(), new Date().getDate()];
    const tomorrow = new Date(Date.UTC(y, m, d + 1)).toISOString().slice(0, 10);
    expect([from, end]).toEqual(['2026-11-20', tomorrow]);
  });

  it('parts to order: what is needed and nothing else, by supplier, as JSON and as a table', async () => {
    const id = await put(shop, 'Siskin', (build, work) => {
      build.promised = '2026-12-09';
      work.parts = [
        part({ supplier: 'Wicks', number: 'W-7', price: 18 }),
        part({ id: 'sleeve', name: 'Sleeve', count: 1, supplier: '' }),
        part({ id: 'oil', name: 'Oil', state: 'here' }),
        part({ id: 'bolts', name: 'Bolts', state: 'ordered', supplier: 'Acorn' }),
        part({ id: 'none', name: 'None of these', count: 0 }),
      ];
    });
    const other = await put(shop, 'Twite', (_, work) => (work.parts = [part({ supplier: 'Acorn', name: '=1+1' })]));
    const away = await put(shop, 'Wagtail', (_, work) => (work.parts = [part({})]));
    await call(shop, 'POST', `/api/builds/${away}/archive`, { archived: true });
    const parts = (await call(shop, 'GET', '/api/parts-to-order')).body as PartsToOrder;
    expect(parts.map(({ supplier, name, build }) => [supplier, name, build])).toEqual([
      ['Acorn', '=1+1', other],
      ['Wicks', 'Seals', id],
      ['', 'Sleeve', id],
    ]);
    const csv = await call(shop, 'GET', '/api/parts-to-order?as=csv');
    expect(csvRows(String(csv.body), ',')[0]).toEqual([...PARTS_CSV_HEADER]);
    expect(String(csv.body)).toContain('W-7');
    // No cell begins what a table program would work out.
    expect(String(csv.body)).not.toMatch(/(^|,)"?=1\+1/m);
  });

  it('a scanned code opens what it is: our label, a part number, a name; what nobody knows is nothing', async () => {
    const id = await put(shop, 'Siskin', (_, work) => (work.parts = [part({ number: '40-1127' })]));
    const spec = randomUUID();
    const drawer = { kind: 'shims', name: 'Drawer P', seat: 'pinion-head', bore: null, outside: null, pieces: [] };
    const kept = await call(shop, 'PUT', `/api/library/${spec}`, {
      ...{ writeId: randomUUID(), baseVersion: 0, who: 'Ada', spec: drawer },
    });
    expect(kept.status).withContext(JSON.stringify(kept.body)).toBeLessThan(300);
    const scan = async (code: string): Promise<Scanned> =>
      (await call(shop, 'GET', `/api/scan?code=${encodeURIComponent(code)}`)).body;
    const none = { part: null, axle: null, piece: null };
    expect(await scan(`http://another.address:8010/shop/builds/${id}#Siskin__41/9`)).toEqual([
      { ...none, what: 'build', id, name: 'Siskin' },
    ]);
    expect(await scan(`https://x/shop/library?spec=${spec}&piece=0.75`)).toEqual([
      { ...none, what: 'spec', id: spec, name: 'Drawer P', piece: '0.75' },
    ]);
    expect(await scan('40-1127')).toEqual([
      { what: 'part', id, name: 'Siskin', part: 'seals', axle: 'rear', piece: null },
    ]);
    expect((await scan('drawer p'))[0]?.id).toBe(spec);
    expect((await scan('SISKIN'))[0]?.id).toBe(id);
    for (const unknown of [
      `http://x/builds/${randomUUID()}`,
      'http://x/builds/1',
      '40-112',
      '%',
      "' or 1=1 --",
      '\u0001x',
    ])
      expect(await scan(unknown))
        .withContext(unknown)
        .toEqual([]);
    expect((await call(shop, 'GET', '/api/scan?code=%20')).status).toBe(422);
    expect((await call(shop, 'GET', `/api/scan?code=${'x'.repeat(1001)}`)).status).toBe(422);
  });
});

interface Heard {
  readonly headers: IncomingHttpHeaders;
  readonly body: string;
}

/** A program of somebody else, as a stand-in: it answers as it is told to. */
class Receiver {
  readonly heard: Heard[] = [];
  answers: number[] = [];
  private readonly server: Server = createServer((request, response) => {
    let body = '';
    request.setEncoding('utf8').on('data', (piece: string) => (body += piece));
    request.on('end', () => {
      this.heard.push({ headers: request.headers, body });
      const status = this.answers.shift() ?? 204;
      response.writeHead(status, status === 302 ? { location: this.url } : {}).end();
    });
  });
  url = '';
  async listen(): Promise<void> {
    await new Promise<void>((resolve) => this.server.listen(0, '127.0.0.1', resolve));
    this.url = `http://127.0.0.1:${(this.server.address() as AddressInfo).port}/told`;
  }
  close(): Promise<void> {
    return new Promise((resolve) => this.server.close(() => resolve()));
  }
}

describe('programs of others', () => {
  let shop: Running;
  const receiver = new Receiver();
  beforeAll(async () => {
    await receiver.listen();
    shop = await startShop(await freshFolder());
  });
  afterAll(async () => {
    await shop.stop();
    await receiver.close();
  });
  beforeEach(async () => {
    receiver.heard.length = 0;
    receiver.answers = [];
    for (const { id } of (await call(shop, 'GET', '/api/hooks')).body) await call(shop, 'DELETE', `/api/hooks/${id}`);
  });
  const events = (): { type: string; data: Record<string, unknown> }[] =>
    receiver.heard.map(({ body }) => JSON.parse(body));
  const hook = async (events: readonly string[]): Promise<{ id: string; secret: string }> => {
    const { status, body } = await call(shop, 'POST', '/api/hooks', { url: receiver.url, events });
    expect(status).toBe(201);
    return body;
  };

  it('are told of states, signed gates and needed parts, signed so that the receiver can tell', async () => {
    const { secret } = await hook(['build.state', 'gate.signed', 'part.needed']);
    const id = await put(shop, 'Siskin', (build, work) => {
      build.customer = null;
      work.parts = [part({ number: 'S-1' })];
    });
    await until(async () => events().length >= 2);
    const sent = [...events()].sort((a, b) => a.type.localeCompare(b.type));
    expect(sent[0]).toEqual(
      jasmine.objectContaining({
        type: 'build.state',
        data: { build: id, name: 'Siskin', before: 'open', state: 'waiting' },
      }),
    );
    expect(sent[1]?.data['parts']).toEqual([
      { axle: 'rear', part: 'seals', name: 'Seals', count: 2, supplier: '', number: 'S-1', price: null },
    ]);
    // The package that others verify with, and HMAC once more by hand [Standard Webhooks 1.0].
    for (const { headers, body } of receiver.heard) {
      const plain = headers as Record<string, string>;
      expect(() => new Webhook(secret).verify(body, plain)).not.toThrow();
      expect(() => new Webhook(secret).verify(`${body} `, plain)).toThrow();
      const key = Buffer.from(secret.replace('whsec_', ''), 'base64');
      const said = `${plain['webhook-id']}.${plain['webhook-timestamp']}.${body}`;
      expect(plain['webhook-signature']).toBe(`v1,${createHmac('sha256', key).update(said).digest('base64')}`);
    }
    receiver.heard.length = 0;
    const signature = {
      ...{ kind: 'signature', id: randomUUID(), at: '2026-12-01T08:00:00.000Z', who: 'Ada' },
      ...{ gate: 'rear-A', name: 'Ada', figures: {}, note: '' },
    };
    const signed = await call(shop, 'POST', `/api/builds/${id}/ledger`, signature);
    expect(signed.status).withContext(JSON.stringify(signed.body)).toBe(201);
    await until(async () => events().some(({ type }) => type === 'gate.signed'));
    expect(events().find(({ type }) => type === 'gate.signed')?.data).toEqual({
      ...{ build: id, name: 'Siskin', gate: 'rear-A', signedBy: 'Ada', entry: signature.id },
    });
  });

  it('hear of it again where they failed, under the same id, and it stands with them meanwhile', async () => {
    const { id } = await hook(['build.state']);
    receiver.answers = [500];
    await put(shop, 'Twite', () => undefined);
    await until(async () => (await call(shop, 'GET', '/api/hooks')).body[0].problem !== '');
    const [failed] = (await call(shop, 'GET', '/api/hooks')).body;
    expect(failed).toEqual(jasmine.objectContaining({ id, problem: 'It answered 500.', waiting: 1, okAt: null }));
    expect(JSON.stringify(failed)).not.toContain('whsec_');
    // Its time comes at once, as it would in a few seconds.
    await shop.db.query("update hook_calls set due = now() - interval '1 second'");
    await until(async () => receiver.heard.length === 2);
    expect(receiver.heard[0]?.headers['webhook-id']).toBe(String(receiver.heard[1]?.headers['webhook-id']));
    await until(async () => (await call(shop, 'GET', '/api/hooks')).body[0].waiting === 0);
    expect((await call(shop, 'GET', '/api/hooks')).body[0].problem).toBe('');
  });

  it('are given up after two days, and it says so; a state that is written anew is no change', async () => {
    await hook(['build.state']);
    receiver.answers = [500, 500];
    const id = await put(shop, 'Wagtail', () => undefined);
    await until(async () => receiver.heard.length === 1);
    await until(async () => (await call(shop, 'GET', '/api/hooks')).body[0].problem !== '');
    await shop.db.query("update hook_calls set tries = 8, due = now() - interval '1 second'");
    await until(async () => /Given up after 9 tries/.test((await call(shop, 'GET', '/api/hooks')).body[0].problem));
    expect((await call(shop, 'GET', '/api/hooks')).body[0].waiting).toBe(0);
    const entry = {
      ...{
        kind: 'reading',
        id: randomUUID(),
        at: '2026-12-01T08:00:00.000Z',
        who: 'Ada',
        state: {},
        instrument: 'By hand',
      },
      subject: workSubjects.lesson.of({ axle: 'rear', step: 'brief' }),
      value: { of: 'text', text: 'ask first' },
    };
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, entry)).status).toBe(201);
    await call(shop, 'GET', '/api/board');
    expect(receiver.heard.length).toBe(2);
  });

  it('follow nobody elsewhere, wait for nobody long, and are no address with a password in it', async () => {
    const secret = `whsec_${Buffer.alloc(32, 1).toString('base64')}`;
    const one = { id: randomUUID(), secret, body: '{}' };
    receiver.answers = [302];
    expect(await callOnce({ ...one, url: receiver.url })).toBe('It answered 302.');
    expect(receiver.heard.length).toBe(1);
    expect(await callOnce({ ...one, url: 'http://127.0.0.1:9/' })).not.toBe('');
    for (const bad of ['ftp://x/', 'javascript:alert(1)', 'http://a:b@x/', 'x', '', `http://x/${'y'.repeat(500)}`]) {
      const { status, body } = await call(shop, 'POST', '/api/hooks', { url: bad, events: ['build.state'] });
      expect([status, body.error.field]).withContext(bad).toEqual([422, 'url']);
    }
    for (const bad of [[], ['rain'], ['build.state', 'build.state'], 'build.state']) {
      const { status, body } = await call(shop, 'POST', '/api/hooks', { url: receiver.url, events: bad });
      expect([status, String(body.error.field).startsWith('events')]).toEqual([422, true]);
    }
    const { id } = await hook(['part.needed']);
    expect((await call(shop, 'POST', `/api/hooks/${id}/test`)).body).toEqual({ took: true, problem: '' });
    expect(events().at(-1)?.type).toBe('test');
    expect((await call(shop, 'POST', `/api/hooks/${randomUUID()}/test`)).status).toBe(404);
    expect((await call(shop, 'DELETE', `/api/hooks/${randomUUID()}`)).status).toBe(404);
    for (let i = 0; i < 19; i++) await hook(['part.needed']);
    expect((await call(shop, 'POST', '/api/hooks', { url: receiver.url, events: ['part.needed'] })).status).toBe(409);
  });
});
