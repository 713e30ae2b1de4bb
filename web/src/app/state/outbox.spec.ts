import { provideZonelessChangeDetection, type Provider } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { entryOf } from '@hot-spline/core';
import { FORMAT_VERSION, newAxleSpec, type BuildFile, type Reading } from '@hot-spline/model';
import { openDB } from 'idb';
import { plateBuild } from '../../testing/drift';
import { until } from '../../testing/harness';
import { newGearboxSpec } from '../library/new-spec';
import { Outbox, type OutboxEvent } from './outbox';
import { OPEN_OUTBOX, type OutboxDatabase } from './outbox-store';

interface Sent {
  readonly method: string;
  readonly url: string;
  readonly shop: string | null;
  readonly body: { writeId: string; baseVersion: number; build: { name: string } } & Record<string, unknown>;
}

const shopAnswer = (id: string) => ({
  id,
  version: '1',
  open: false,
  currency: 'EUR',
  decimal: null,
  name: '',
  logo: null,
  address: '',
  hourRate: null,
  weekHours: null,
});

/** The server, as far as the outbox sees it. */
class FakeServer {
  readonly sent: Sent[] = [];
  /** What the next calls are answered with; 200 when nothing is said. */
  readonly answers: (number | 'rubbish' | { status: number; body: unknown })[] = [];
  /** Nobody answers, however often one asks. */
  away = false;
  version = 1;
  gate: Promise<void> = Promise.resolve();

  shop = '60000000-0000-4000-8000-000000000001';
  shopGate: Promise<void> = Promise.resolve();
  shopAsked = 0;

  readonly fetch = async (url: string, init: RequestInit): Promise<Response> => {
    const json = (body: unknown, status = 200) =>
      new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
    if (url === '/api/shop' && init.method === 'GET') {
      this.shopAsked += 1;
      await this.shopGate;
      return json(shopAnswer(this.shop));
    }
    const id = url.split('/')[3];
    const shop = new Headers(init.headers).get('hot-spline-shop');
    const sent = JSON.parse(typeof init.body === 'string' ? init.body : '{}') as Sent['body'];
    this.sent.push({ method: init.method ?? '', url, shop, body: sent });
    const answer = this.away ? 'away' : (this.answers.shift() ?? 200);
    await this.gate;
    if (answer === 'away') throw new TypeError('Failed to fetch');
    if (answer === 'rubbish') return new Response('<html>', { status: 200, headers: { 'content-type': 'text/html' } });
    const { status, body } = typeof answer === 'number' ? { status: answer, body: { detail: 'no' } } : answer;
    if (status !== 200 || typeof answer !== 'number') return json(body, status);
    this.version += 1;
    return init.method === 'POST'
      ? json({ id: this.sent.at(-1)?.body['id'] }, 201)
      : json({ id, version: this.version });
  };
}

const named = (name: string) => ({ ...plateBuild(), name });
const reading: Reading = {
  kind: 'reading',
  id: '50000000-0000-4000-8000-000000000001',
  at: '2026-02-03T04:05:00.000Z',
  subject: { what: 'case-depth', axle: 'rear', side: 'left' },
  who: 'Ada',
  value: { of: 'number', counts: 'least', entries: [entryOf(12.8, 'mm')] },
  state: {},
  instrument: 'Depth gauge',
};

describe('the outbox', () => {
  let server: FakeServer;
  let outbox: Outbox;
  let events: OutboxEvent[];
  let buildId: string;

  /** As after a reload of the page. */
  async function freshOutbox(...providers: Provider[]): Promise<Outbox> {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), ...providers] });
    const fresh = TestBed.inject(Outbox);
    await fresh.pending('any');
    return fresh;
  }

  beforeEach(async () => {
    server = new FakeServer();
    spyOn(window, 'fetch').and.callFake(server.fetch as typeof fetch);
    sessionStorage.clear();
    localStorage.removeItem('hot-spline.shop');
    // What an outbox of a test before still had under way must not reach this one: nothing may come for a while.
    TestBed.resetTestingModule();
    for (let quiet = 0; quiet < 2;) {
      await new Promise((resolve) => setTimeout(resolve, 40));
      quiet = await navigator.locks.request('hot-spline-outbox', async () => {
        const db = await openDB('hot-spline-outbox', 1, {
          upgrade: (fresh) =>
            fresh.createObjectStore('writes', { autoIncrement: true }).createIndex('record', 'record'),
        });
        const left = await db.count('writes');
        await db.clear('writes');
        db.close();
        sessionStorage.clear();
        return left === 0 ? quiet + 1 : 0;
      });
    }
    server.sent.length = 0;
    outbox = await freshOutbox();
    events = [];
    outbox.events.subscribe((event) => events.push(event));
    buildId = crypto.randomUUID();
  });

  it('sends a change on top of its version, with an id of its own', async () => {
    await outbox.putBuild(buildId, 1, named('one'));
    await until(() => events.length === 1);
    expect(server.sent[0]).toEqual(jasmine.objectContaining({ method: 'PUT', url: `/api/builds/${buildId}` }));
    expect(Object.keys(server.sent[0]?.body ?? {}).sort()).toEqual(['baseVersion', 'build', 'who', 'writeId']);
    expect(events[0]).toEqual({ kind: 'saved', of: 'build', record: buildId, version: 2 });
    await until(() => outbox.waiting() === 0);
  });

  it('changes made while one is on its way become one, on top of it', async () => {
    let open = (): void => undefined;
    server.gate = new Promise((resolve) => (open = resolve));
    await outbox.putBuild(buildId, 1, named('one'));
    await until(() => server.sent.length === 1);
    await outbox.putBuild(buildId, 1, named('two'));
    await outbox.putBuild(buildId, 1, named('three'));
    expect(outbox.waiting()).toBe(2);
    open();
    await until(() => events.length === 2);
    expect(server.sent.map(({ body }) => [body.build.name, body.baseVersion])).toEqual([
      ['one', 1],
      ['three', 2],
    ]);
  });

  it('a change whose version was noted before the acknowledgement still builds on it', async () => {
    await outbox.putBuild(buildId, 1, named('one'));
    await until(() => events.length === 1);
    await outbox.putBuild(buildId, 1, named('two'));
    await until(() => events.length === 2);
    expect(server.sent[1]?.body.baseVersion).toBe(2);
  });

  it('keeps what can’t be sent, says so, and sends the same write again', async () => {
    server.away = true;
    await outbox.putBuild(buildId, 1, named('one'));
    await until(() => outbox.trouble() !== null);
    expect(outbox.trouble()).toContain('can’t be reached');
    expect((await outbox.pending(buildId)).build?.name).toBe('one');
    server.away = false;
    // By itself, a little later.
    await until(() => events.length === 1);
    expect(server.sent.length).toBeGreaterThan(1);
    expect(new Set(server.sent.map(({ body }) => body.writeId)).size).toBe(1);
    await until(() => outbox.trouble() === null);
  });

  it('a change after a try that may have got through goes behind it: it is never taken for somebody else’s', async () => {
    server.away = true;
    await outbox.putBuild(buildId, 1, named('one'));
    await until(() => outbox.trouble() !== null);
    await outbox.putBuild(buildId, 1, named('two'));
    server.away = false;
    await until(() => events.length === 2);
    const last = server.sent.slice(-2).map(({ body }) => [body.build.name, body.baseVersion]);
    expect(last).toEqual([
      ['one', 1],
      ['two', 2],
    ]);
  });

  it('what waited is sent after a reload', async () => {
    server.away = true;
    await outbox.putBuild(buildId, 1, named('one'));
    await until(() => outbox.trouble() !== null);
    outbox = await freshOutbox();
    server.away = false;
    outbox.flush();
    await until(() => outbox.waiting() === 0);
    expect(server.sent.at(-1)?.body.build.name).toBe('one');
  });

  it('a change that a reload caught before it was stored is adopted, in order and once', async () => {
    let open = (): void => undefined;
    server.gate = new Promise((resolve) => (open = resolve));
    const made = [outbox.putBuild(buildId, 1, named('one')), outbox.putLedger(buildId, reading)];
    const caught = Object.entries(sessionStorage).filter(([key]) => key.startsWith('hot-spline.entering.'));
    expect(caught.length).withContext('noted at once').toBe(2);
    await Promise.all(made);
    expect(Object.keys(sessionStorage).filter((key) => key.startsWith('hot-spline.entering.'))).toEqual([]);
    open();
    await until(() => outbox.waiting() === 0);
    // The same notes, as if the tab had been reloaded before either was stored.
    for (const [key, text] of caught) sessionStorage.setItem(key, String(text));
    const before = server.sent.length;
    outbox = await freshOutbox();
    await until(() => server.sent.length === before + 2 && outbox.waiting() === 0);
    expect(server.sent.slice(before).map(({ method }) => method)).toEqual(['PUT', 'POST']);
    expect(server.sent[before]?.body.writeId).toBe(server.sent[0]?.body.writeId ?? '');
    expect(Object.keys(sessionStorage)).toEqual([]);
  });

  it('a note of what was stored already is no second change', async () => {
    server.away = true;
    const made = outbox.putBuild(buildId, 1, named('one'));
    const caught = Object.entries(sessionStorage).filter(([key]) => key.startsWith('hot-spline.entering.'));
    await made;
    for (const [key, text] of caught) sessionStorage.setItem(key, String(text));
    outbox = await freshOutbox();
    await until(() => outbox.waiting() === 1);
    expect(Object.keys(sessionStorage)).toEqual([]);
    server.away = false;
    outbox.flush();
    await until(() => outbox.waiting() === 0);
    const ids = server.sent.map(({ body }) => body.writeId);
    expect(new Set(ids).size).toBe(1);
  });

  describe('a reload in the moment of a write, and the same field changed again: no change of somebody else’s', () => {
    // Of this build: what another test still had on its way is none of these.
    const bodies = () =>
      server.sent.filter(({ url }) => url.includes(buildId)).map(({ body }) => [body.build.name, body.baseVersion]);

    it('a change goes behind one that is about to be sent, never into its place', async () => {
      let open = (): void => undefined;
      server.shopGate = new Promise((resolve) => (open = resolve));
      await outbox.putBuild(buildId, 1, named('one'));
      // It is chosen to be sent; the shop that it goes to is still asked for.
      await until(() => server.shopAsked > 0);
      await outbox.putBuild(buildId, 1, named('two'));
      expect((await outbox.pending(buildId)).build?.name).toBe('two');
      expect(outbox.waiting()).toBe(2);
      open();
      await until(() => outbox.waiting() === 0);
      expect(bodies()).toEqual([
        ['one', 1],
        ['two', 2],
      ]);
    });

    it('a change goes behind what a note says: that may have been sent', async () => {
      const made = outbox.putBuild(buildId, 1, named('one'));
      const caught = Object.entries(sessionStorage).filter(([key]) => key.startsWith('hot-spline.entering.'));
      await made;
      await until(() => events.length === 1);
      for (const [key, text] of caught) sessionStorage.setItem(key, String(text));
      // Another tab is sending: nothing is tried here yet.
      let open = (): void => undefined;
      const other = new Promise<void>((resolve) => (open = resolve));
      void navigator.locks.request('hot-spline-outbox', () => other);
      outbox = await freshOutbox();
      await outbox.putBuild(buildId, 2, named('two'));
      expect(outbox.waiting()).toBe(2);
      // The server knows the first by its id, and answers with the version that it made then.
      server.version = 1;
      open();
      await until(() => outbox.waiting() === 0);
      expect(new Set(server.sent.map(({ body }) => body.writeId)).size).toBe(2);
      expect(bodies().at(-1)).toEqual(['two', 2]);
    });

    it('what was made on a later version keeps it when an older write is answered once more', async () => {
      let open = (): void => undefined;
      server.gate = new Promise((resolve) => (open = resolve));
      await outbox.putBuild(buildId, 5, named('one'));
      await until(() => server.sent.length === 1);
      await outbox.putBuild(buildId, 8, named('two'));
      server.version = 5;
      open();
      await until(() => outbox.waiting() === 0);
      expect(bodies().at(-1)).toEqual(['two', 8]);
    });
  });

  it('an answer with an older version, of a write that had got through before, takes nothing back', async () => {
    server.version = 6;
    await outbox.putBuild(buildId, 6, named('one'));
    await until(() => events.length === 1);
    server.version = 2;
    await outbox.putBuild(buildId, 7, named('two'));
    await until(() => events.length === 2);
    expect(events.map((event) => (event.kind === 'saved' ? event.version : 0))).toEqual([7, 7]);
    await outbox.putBuild(buildId, 3, named('three'));
    await until(() => events.length === 3);
    expect(server.sent.at(-1)?.body.baseVersion).toBe(7);
  });

  it('once it is closed it sends nothing more, though its turn comes then', async () => {
    let release = (): void => undefined;
    let granted = (): void => undefined;
    const taken = new Promise<void>((go) => (granted = go));
    const held = navigator.locks.request('hot-spline-outbox', () => {
      granted();
      return new Promise<void>((go) => (release = go));
    });
    await taken;
    await outbox.putLibrary(crypto.randomUUID(), 0, newAxleSpec('Heron'));
    TestBed.resetTestingModule();
    release();
    await held;
    // Behind its turn.
    await navigator.locks.request('hot-spline-outbox', () => Promise.resolve());
    expect(server.sent).toEqual([]);
    // The next page does.
    outbox = await freshOutbox();
    await until(() => outbox.waiting() === 0);
    expect(server.sent.length).toBe(1);
  });

  it('keeps and sends specs of the library like builds, each on top of its version', async () => {
    server.away = true;
    const [axle, box] = [crypto.randomUUID(), crypto.randomUUID()];
    await outbox.putLibrary(axle, 0, newAxleSpec('Heron'));
    await until(() => outbox.trouble() !== null);
    await outbox.putLibrary(axle, 0, newAxleSpec('Heron two'));
    await outbox.putLibrary(axle, 0, newAxleSpec('Heron three'));
    await outbox.putLibrary(box, 4, newGearboxSpec('Curlew'));
    expect([...(await outbox.pendingLibrary())].map(([id, { name }]) => [id, name])).toEqual([
      [axle, 'Heron three'],
      [box, 'Curlew'],
    ]);
    expect(await outbox.pending(axle)).toEqual({ created: null, build: null, entries: [] });
    server.away = false;
    outbox.flush();
    await until(() => events.length === 3);
    expect(events.map((event) => (event.kind === 'saved' ? [event.of, event.record] : []))).toEqual([
      ['library', axle],
      ['library', axle],
      ['library', box],
    ]);
    const last = server.sent.slice(-3);
    expect(last.map(({ url, body }) => [url, body.baseVersion])).toEqual([
      [`/api/library/${axle}`, 0],
      [`/api/library/${axle}`, 2],
      [`/api/library/${box}`, 4],
    ]);
    expect((await outbox.pendingLibrary()).size).toBe(0);
  });

  it('holds a stale spec of the library and lets builds pass', async () => {
    const id = crypto.randomUUID();
    const current = { id, version: 9, archived: false, spec: newAxleSpec('Theirs') };
    server.answers.push({ status: 409, body: { detail: 'stale', current } });
    await outbox.putLibrary(id, 1, newAxleSpec('Ours'));
    await until(() => events.length === 1);
    expect(events[0]).toEqual({ kind: 'stale', of: 'library', record: id, current });
    await outbox.putBuild(buildId, 1, named('one'));
    await until(() => events.length === 2);
    expect([...(await outbox.pendingLibrary()).values()].map(({ name }) => name)).toEqual(['Ours']);
    await outbox.settle(id, 'ours', 9);
    await until(() => outbox.waiting() === 0);
    expect(server.sent.at(-1)?.body.baseVersion).toBe(9);
  });

  it('a failing server is no refusal: it is tried again', async () => {
    server.answers.push(500);
    await outbox.putLedger(buildId, reading);
    await until(() => events.length === 1);
    expect(events[0]).toEqual({ kind: 'appended', record: buildId, entryId: reading.id });
    expect(server.sent.length).toBe(2);
  });

  it('a write over which the server fails again and again is set aside and holds up nothing else', async () => {
    server.answers.push(500);
    const other = crypto.randomUUID();
    const made = [outbox.putLedger(buildId, reading), outbox.putBuild(other, 1, named('other'))];
    await Promise.all(made);
    await until(() => events.some((event) => event.kind === 'saved'));
    server.answers.push(500, 500);
    await until(() => outbox.notTaken().length === 1);
    expect(outbox.notTaken()[0]?.refusal.status).toBe(500);
    expect(outbox.waiting()).toBe(0);
  });

  it('keeps order between readings and changes', async () => {
    let open = (): void => undefined;
    server.gate = new Promise((resolve) => (open = resolve));
    await outbox.putLedger(buildId, reading);
    await outbox.putBuild(buildId, 1, named('one'));
    await outbox.putLedger(buildId, { ...reading, id: '50000000-0000-4000-8000-000000000002' });
    expect((await outbox.pending(buildId)).entries.map((entry) => entry.id)).toEqual([
      reading.id,
      '50000000-0000-4000-8000-000000000002',
    ]);
    open();
    await until(() => events.length === 3);
    expect(events.map((event) => event.kind)).toEqual(['appended', 'saved', 'appended']);
  });

  const stale = () => ({
    status: 409,
    body: { detail: 'stale', current: { id: buildId, version: 7, who: '', at: '', build: named('theirs') } },
  });

  it('holds a stale change until somebody has chosen: ours goes on top of theirs', async () => {
    server.answers.push(stale());
    await outbox.putBuild(buildId, 1, named('ours'));
    await until(() => events.length === 1);
    expect(events[0]).toEqual(jasmine.objectContaining({ kind: 'stale', of: 'build', baseVersion: 1 }));
    outbox.flush();
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect(server.sent.length).toBe(1);
    await outbox.settle(buildId, 'ours', 7);
    await until(() => events.length === 2);
    expect(server.sent[1]?.body.baseVersion).toBe(7);
    expect(server.sent[1]?.body.writeId).not.toBe(server.sent[0]?.body.writeId ?? '');
  });

  it('drops ours where theirs is kept', async () => {
    server.answers.push(stale());
    await outbox.putBuild(buildId, 1, named('ours'));
    await until(() => events.length === 1);
    await outbox.settle(buildId, 'theirs', 7);
    expect((await outbox.pending(buildId)).build).toBeNull();
    expect(outbox.waiting()).toBe(0);
  });

  it('a change that was not taken and was overtaken keeps its own base: sent again, it is no change of what came after', async () => {
    server.answers.push(422);
    await outbox.putBuild(buildId, 1, named('old'));
    await until(() => outbox.notTaken().length === 1);
    await outbox.putBuild(buildId, 1, named('new'));
    await until(() => outbox.waiting() === 0 && events.length === 2);
    expect((await outbox.pending(buildId)).refusedOn).toBe(1);
    const current = { id: buildId, version: 2, archived: false, build: named('new') };
    server.answers.push({ status: 409, body: { detail: 'stale', current } });
    await outbox.sendAgain(outbox.notTaken()[0]?.key ?? -1);
    await until(() => events.length === 3);
    expect(server.sent.at(-1)?.body.baseVersion).toBe(1);
    expect(events.at(-1)).toEqual(jasmine.objectContaining({ kind: 'stale', baseVersion: 1 }));
  });

  it('one refused write is told and does not stop the ones behind it', async () => {
    server.answers.push({ status: 422, body: { detail: 'value.unit must be a length.' } });
    await outbox.putLedger(buildId, reading);
    await outbox.putBuild(buildId, 1, named('one'));
    await until(() => events.length === 2);
    expect(events[0]).toEqual(jasmine.objectContaining({ kind: 'refused', message: 'value.unit must be a length.' }));
    expect(events[1]?.kind).toBe('saved');
    await until(() => outbox.waiting() === 0);
  });

  describe('keeps what the server does not take', () => {
    for (const status of [400, 404, 409, 413, 415, 422]) {
      it(`${status}: it stays, with why, over a reload, until it is sent again`, async () => {
        server.answers.push({ status, body: { detail: `no, ${status}` } });
        await outbox.putLedger(buildId, reading);
        await until(() => outbox.notTaken().length === 1);
        expect(outbox.waiting()).toBe(0);
        outbox = await freshOutbox();
        const [kept] = outbox.notTaken();
        expect([kept?.refusal.status, kept?.refusal.message]).toEqual([status, `no, ${status}`]);
        expect((await outbox.pending(buildId)).entries).toEqual([reading]);
        const sent = server.sent.length;
        await outbox.sendAgain(kept?.key ?? 0);
        await until(() => outbox.notTaken().length === 0 && outbox.waiting() === 0);
        expect(server.sent.slice(sent).map(({ body }) => body['id'])).toEqual([reading.id]);
      });
    }

    it('an answer that can’t be read is no acknowledgement', async () => {
      server.answers.push('rubbish');
      await outbox.putBuild(buildId, 1, named('one'));
      await until(() => outbox.notTaken().length === 1);
      expect(outbox.notTaken()[0]?.refusal.message).toContain('can’t be read');
    });

    it('it can be exported, and thrown away by the person alone', async () => {
      server.answers.push(404);
      await outbox.putLedger(buildId, reading);
      await until(() => outbox.notTaken().length === 1);
      const file = JSON.parse(await (await outbox.exportNotTaken()).text()) as { writes: { entry: unknown }[] };
      expect(file.writes[0]?.entry).toEqual(reading);
      await outbox.discard(outbox.notTaken()[0]?.key ?? 0);
      expect(outbox.notTaken()).toEqual([]);
      expect((await outbox.pending(buildId)).entries).toEqual([]);
    });

    for (const status of [401, 403]) {
      it(`${status} is a pause: nothing is lost, and all goes on when somebody says so`, async () => {
        server.answers.push({ status, body: { detail: 'Sign in first.' } });
        await outbox.putLedger(buildId, reading);
        await until(() => outbox.paused() !== null);
        expect(outbox.paused()).toEqual({ why: 'signed-out', message: 'Sign in first.' });
        await outbox.putBuild(buildId, 1, named('one'));
        expect(outbox.waiting()).toBe(2);
        expect(server.sent.length).toBe(1);
        outbox.resume();
        await until(() => outbox.waiting() === 0);
        expect(events.map(({ kind }) => kind)).toEqual(['appended', 'saved']);
      });
    }

    it('a server that is another shop gets nothing', async () => {
      await outbox.putLedger(buildId, reading);
      await until(() => outbox.waiting() === 0);
      server.away = true;
      await outbox.putBuild(buildId, 1, named('one'));
      await until(() => outbox.trouble() !== null);
      const { version } = server;
      server.shop = '60000000-0000-4000-8000-000000000002';
      outbox.flush();
      await until(() => outbox.paused() !== null);
      expect(outbox.paused()?.why).toBe('other-shop');
      server.away = false;
      outbox.flush();
      expect(outbox.waiting()).toBe(1);
      expect(server.version).withContext('nothing was taken').toBe(version);
      server.shop = '60000000-0000-4000-8000-000000000001';
      outbox.resume();
      await until(() => outbox.waiting() === 0);
    });

    it('whoever goes on in the very moment of the pause is heard', async () => {
      await outbox.putLedger(buildId, reading);
      await until(() => outbox.waiting() === 0);
      server.away = true;
      await outbox.putBuild(buildId, 1, named('one'));
      await until(() => outbox.trouble() !== null);
      const right = server.shop;
      server.shop = '60000000-0000-4000-8000-000000000002';
      server.away = false;
      const set = outbox.paused.set.bind(outbox.paused);
      const pause = spyOn(outbox.paused, 'set').and.callFake((why) => {
        set(why);
        if (why === null) return;
        server.shop = right;
        outbox.resume();
      });
      outbox.flush();
      await until(() => outbox.waiting() === 0);
      expect(pause).toHaveBeenCalledWith(jasmine.objectContaining({ why: 'other-shop' }));
    });
  });

  describe('whatever else changes something', () => {
    const file = (): BuildFile => ({
      format: 'hot-spline/build-file',
      formatVersion: FORMAT_VERSION,
      build: named('begun'),
      ledger: [],
    });

    it('goes the same way, in the order in which it was done, each for the shop that it was made for', async () => {
      const photo = 'a'.repeat(64);
      const customer = crypto.randomUUID();
      server.answers.push(
        { status: 201, body: { id: photo } },
        { status: 200, body: { id: customer, name: 'A. Reed', reach: '', builds: 0 } },
        { status: 201, body: { id: buildId, version: 1 } },
        { status: 200, body: { id: buildId, archived: true } },
        404,
        { status: 200, body: shopAnswer(server.shop) },
      );
      await outbox.putPhoto(photo, new Blob(['x'], { type: 'image/png' }));
      await outbox.putCustomer(customer, { name: 'A. Reed', reach: '' });
      await outbox.putNew(buildId, file());
      await outbox.putArchived('build', buildId, true);
      await outbox.putCustomer(customer, null);
      await outbox.putSettings({ currency: 'SEK' });
      await outbox.sent();
      expect(server.sent.map(({ method, url, shop }) => [method, url, shop])).toEqual(
        [
          ['PUT', `/api/photos/${photo}`],
          ['PUT', `/api/customers/${customer}`],
          ['POST', '/api/builds'],
          ['POST', `/api/builds/${buildId}/archive`],
          ['DELETE', `/api/customers/${customer}`],
          ['PUT', '/api/shop'],
        ].map((one) => [...one, server.shop] as string[]),
      );
      // An erased customer that is erased once more is erased.
      expect([outbox.waiting(), outbox.notTaken()]).toEqual([0, []]);
      expect(outbox.photoAddress(photo)).toMatch(/^blob:/);
    });

    it('waits while the server is away, and is shown from here', async () => {
      server.away = true;
      const photo = 'b'.repeat(64);
      await outbox.putNew(buildId, file());
      await outbox.putLedger(buildId, reading);
      await outbox.putPhoto(photo, new Blob(['x'], { type: 'image/png' }));
      await outbox.putArchived('library', 'box', true);
      await outbox.putCustomer('c', { name: 'B. Sedge', reach: '' });
      await outbox.sent();
      const again = await freshOutbox();
      await until(() => again.waiting() === 5);
      const pending = await again.pending(buildId);
      expect([pending.created?.build.name, pending.entries.length]).toEqual(['begun', 1]);
      expect([...(await again.pendingNew()).keys()]).toEqual([buildId]);
      expect([...(await again.pendingArchived('library'))]).toEqual([['box', true]]);
      expect((await again.pendingCustomers()).get('c')?.name).toBe('B. Sedge');
      expect(await again.photo(photo)?.text()).toBe('x');
      expect(again.photoAddress('c'.repeat(64))).toBe(`/api/photos/${'c'.repeat(64)}`);
    });

    it('what stands only over what its maker saw is taken back where more had come, and holds up nothing', async () => {
      server.answers.push({ status: 409, body: { type: 'urn:hot-spline:moved-on', count: 5, detail: 'moved on' } });
      const signature = { ...reading, id: '50000000-0000-4000-8000-000000000009' };
      await outbox.putLedger(buildId, signature, 3);
      await outbox.putLedger(buildId, reading);
      await outbox.sent();
      expect(server.sent.map(({ url }) => url)).toEqual([
        `/api/builds/${buildId}/ledger?over=3`,
        `/api/builds/${buildId}/ledger`,
      ]);
      expect(events[0]).toEqual({ kind: 'moved-on', record: buildId, entry: signature, came: 2 });
      expect([outbox.waiting(), outbox.notTaken()]).toEqual([0, []]);
    });

    it('asks for no name: only what carries one waits for it', async () => {
      outbox.signedBy(null);
      await outbox.putCustomer(buildId, { name: 'A. Reed', reach: '' });
      await outbox.putLedger(buildId, { ...reading, who: '' });
      await outbox.sent();
      expect(server.sent.map(({ url }) => url)).toEqual([`/api/customers/${buildId}`]);
      expect([outbox.unsigned(), outbox.waiting()]).toEqual([1, 1]);
      outbox.signedBy('Mo');
      await until(() => outbox.waiting() === 0);
      expect(server.sent.at(-1)?.body['who']).toBe('Mo');
    });

    it('another shop behind the same address refuses it by itself: an idle page hears of it so', async () => {
      server.answers.push({ status: 412, body: { type: 'urn:hot-spline:other-shop', detail: 'another shop' } });
      await outbox.putLedger(buildId, reading);
      await outbox.sent();
      expect(outbox.paused()?.why).toBe('other-shop');
      expect([outbox.waiting(), outbox.notTaken()]).toEqual([1, []]);
    });

    for (const status of [503, 507])
      it(`${status} passes: it waits here, and is never set aside`, async () => {
        const answer = { status, body: { type: 'urn:hot-spline:busy', detail: 'later' } };
        server.answers.push(answer, answer, answer, answer);
        await outbox.putLedger(buildId, reading);
        for (let i = 0; i < 3; i++) {
          await outbox.sent();
          outbox.flush();
        }
        await outbox.sent();
        expect([outbox.trouble(), outbox.notTaken().length, outbox.waiting()]).toEqual(['later', 0, 1]);
      });
  });

  describe('what this device can’t keep', () => {
    const refused = () => Promise.reject(new DOMException('denied', 'SecurityError'));
    /** A store that takes so many more writes. */
    const full = (takes: number) => async (): Promise<OutboxDatabase> => {
      const kept = (await openDB('hot-spline-outbox', 1)) as unknown as OutboxDatabase;
      return new Proxy(kept, {
        get(target, name) {
          const own: unknown = Reflect.get(target, name);
          if (name !== 'transaction') return typeof own === 'function' ? (own.bind(target) as unknown) : own;
          return (...args: Parameters<OutboxDatabase['transaction']>) => {
            const tx = target.transaction(...args);
            const store = new Proxy(tx.objectStore('writes'), {
              get: (of, key) => {
                const value: unknown = Reflect.get(of, key);
                if (key === 'add' && takes-- <= 0)
                  return () => Promise.reject(new DOMException('no room', 'QuotaExceededError'));
                return typeof value === 'function' ? (value.bind(of) as unknown) : value;
              },
            });
            return new Proxy(tx, { get: (of, key) => (key === 'store' ? store : Reflect.get(of, key)) });
          };
        },
      });
    };

    it('is sent at once where the browser keeps nothing; its maker hears when the server has it', async () => {
      const direct = await freshOutbox({ provide: OPEN_OUTBOX, useValue: refused });
      expect(direct.keeps()).toBe('nothing');
      const heard: string[] = [];
      direct.events.subscribe(({ kind }) => heard.push(kind));
      await direct.putBuild(buildId, 1, named('one'));
      await direct.putBuild(buildId, 1, named('two'));
      await direct.putLedger(buildId, reading);
      expect(heard).toEqual(['saved', 'saved', 'appended']);
      expect(server.sent.map(({ body }) => 'baseVersion' in body && body.baseVersion)).toEqual([1, 2, false]);
      expect(direct.waiting()).toBe(0);
    });

    it('is said to be kept nowhere where the server is away too', async () => {
      const direct = await freshOutbox({ provide: OPEN_OUTBOX, useValue: refused });
      server.away = true;
      await expectAsync(direct.putLedger(buildId, reading)).toBeRejectedWithError(
        /keeps nothing for the app, and the server did not take it: The server can’t be reached/,
      );
      expect(direct.waiting()).toBe(0);
      // What was said to be kept nowhere does not come after all.
      server.away = false;
      direct.flush();
      await direct.sent();
      const again = await freshOutbox({ provide: OPEN_OUTBOX, useValue: refused });
      await again.putLedger(buildId, { ...reading, id: '50000000-0000-4000-8000-000000000002' });
      expect(server.sent.map(({ body }) => body['id'])).toEqual([reading.id, '50000000-0000-4000-8000-000000000002']);
    });

    it('waits for a name all the same', async () => {
      const direct = await freshOutbox({ provide: OPEN_OUTBOX, useValue: refused });
      direct.signedBy(null);
      const put = direct.putLedger(buildId, { ...reading, who: '' });
      await until(() => direct.unsigned() === 1);
      expect(server.sent).toEqual([]);
      direct.signedBy('Mo');
      await put;
      expect([server.sent[0]?.body['who'], direct.unsigned()]).toEqual(['Mo', 0]);
    });

    it('a merge goes out too, where nothing waits in a queue', async () => {
      const direct = await freshOutbox({ provide: OPEN_OUTBOX, useValue: refused });
      const stale: OutboxEvent[] = [];
      direct.events.subscribe((event) => event.kind === 'stale' && stale.push(event));
      server.answers.push({ status: 409, body: { current: { version: 5, build: named('theirs') } } });
      await direct.putBuild(buildId, 1, named('ours'));
      expect(stale.length).toBe(1);
      await direct.settle(buildId, 'ours', 5, named('both'));
      expect(server.sent.map(({ body }) => [body.build.name, body.baseVersion])).toEqual([
        ['ours', 1],
        ['both', 5],
      ]);
    });

    it('is sent behind what waits of its record, where there is no more room', async () => {
      const tight = await freshOutbox({ provide: OPEN_OUTBOX, useFactory: () => full(1) });
      server.away = true;
      await tight.putBuild(buildId, 1, named('one'));
      await tight.sent();
      expect(tight.keeps()).toBe('all');
      await expectAsync(tight.putLedger(buildId, reading)).toBeRejectedWithError(/has no room, and the server did not/);
      expect([tight.keeps(), tight.waiting()]).toEqual(['no-more', 1]);
      server.away = false;
      server.sent.length = 0;
      await tight.putLedger(buildId, reading);
      expect(server.sent.map(({ method }) => method)).toEqual(['PUT', 'POST']);
    });
  });

  it('what an earlier program left is sent as one of today', async () => {
    const db = await openDB('hot-spline-outbox', 1);
    const [old] = [{ ...reading, value: entryOf(12.8, 'mm') }].map(({ who: _, state: __, ...rest }) => rest);
    await db.add('writes', { kind: 'ledger', record: buildId, entry: old });
    db.close();
    outbox.flush();
    await until(() => outbox.waiting() === 0 && server.sent.length === 1);
    expect(server.sent[0]?.body).toEqual({ ...reading, who: '' } as never);
  });

  it('a merge stands for all that waited', async () => {
    server.answers.push(stale());
    await outbox.putBuild(buildId, 1, named('ours'));
    await until(() => events.length === 1);
    await outbox.putBuild(buildId, 1, named('ours, later'));
    await outbox.settle(buildId, 'ours', 7, named('merged'));
    await until(() => outbox.waiting() === 0);
    expect(server.sent.slice(1).map(({ body }) => [body.build.name, body.baseVersion])).toEqual([['merged', 7]]);
  });
});
