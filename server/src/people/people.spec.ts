import { randomUUID } from 'node:crypto';
import { mayCall, newAxleSpec, newBuild, routes, type Role, type WireRoute } from '@hot-spline/model';
import { databaseFolder } from '../db/data-folder';
import { openPglite } from '../db/pglite';
import type { Running } from '../serve';
import { call, freshFolder, makeBuild, someReading, startShop, type Answer } from '../testing/shop';
import { acceptInvitation, invite, makeFirstOwner } from './accounts';
import { claimTry, waitAfter } from './attempts';
import { fromOf } from './guard';
import { hashWord, isWord, tokenHash } from './secrets';

const PASSWORD = 'long enough for Ada';
const ADDRESS = { HOT_SPLINE_ADDRESS: 'https://shop.example/' };

/** A folder whose shop has an owner, and somebody of every other role. */
async function ownedFolder(): Promise<string> {
  const folder = await freshFolder();
  const db = await openPglite(databaseFolder(folder));
  await makeFirstOwner(db, 'Ada', PASSWORD);
  for (const [name, role] of [
    ['Bo', 'builder'],
    ['Lu', 'looker'],
  ] as const)
    await acceptInvitation(db, (await invite(db, role, 'Ada')).token, name, PASSWORD);
  // As dear as it is meant to be each would cost half a second: that they are is told of the words themselves.
  await db.query('update people set password = $1', [await hashWord(PASSWORD, { N: 1024, r: 8, p: 1 })]);
  await db.close();
  return folder;
}

interface Inside extends Answer {
  readonly cookie: string;
  readonly setCookie: string;
}

async function withCookie(shop: Running, url: string, body: unknown, cookie = '', method = 'POST'): Promise<Inside> {
  const response = await fetch(new URL(url, shop.url), {
    method,
    headers: { 'content-type': 'application/json', ...(cookie === '' ? {} : { cookie }) },
    body: JSON.stringify(body),
  });
  const setCookie = response.headers.get('set-cookie') ?? '';
  const type = response.headers.get('content-type') ?? '';
  return {
    status: response.status,
    type,
    body: await response.json(),
    setCookie,
    cookie: setCookie.split(';')[0] ?? '',
  };
}

const signIn = (shop: Running, name: string, password = PASSWORD, cookie = ''): Promise<Inside> =>
  withCookie(shop, '/api/sign-in', { name, password }, cookie);

describe('where somebody comes from', () => {
  it('is said by the proxy alone: of this machine, or at the address that was named', () => {
    const from = (own: string, said: string | undefined, proxied = true, at: string | null = null): string =>
      fromOf({ headers: { 'x-forwarded-for': said }, socket: { remoteAddress: own } } as never, { proxied, at });
    expect(from('127.0.0.1', '6.6.6.6, 10.0.0.7')).toBe('10.0.0.7');
    expect(from('::ffff:127.0.0.1', '10.0.0.7')).toBe('10.0.0.7');
    expect(from('172.28.7.2', '10.0.0.7')).toBe('172.28.7.2');
    expect(from('172.28.7.2', '10.0.0.7', true, '172.28.7.2')).toBe('10.0.0.7');
    expect(from('::ffff:172.28.7.2', '10.0.0.7', true, '172.28.7.2')).toBe('10.0.0.7');
    expect(from('172.28.7.22', '10.0.0.7', true, '172.28.7.2')).toBe('172.28.7.22');
    expect(from('::1x', '10.0.0.7')).toBe('::1x');
    expect(from('127.0.0.1', '10.0.0.7', false)).toBe('127.0.0.1');
    expect(from('127.0.0.1', undefined)).toBe('127.0.0.1');
  });
});

describe('words that are kept', () => {
  it('are hashed by costs that stand with them, each with a salt of its own; nothing was kept is nobody’s word', async () => {
    const [one, two] = [await hashWord('the same word'), await hashWord('the same word')];
    expect(one).toMatch(/^scrypt\$131072\$8\$1\$/);
    expect(one).not.toBe(two);
    expect(await isWord('the same word', one)).toBeTrue();
    expect(await isWord('another word', one)).toBeFalse();
    // One letter, made of one sign or of two.
    expect(await isWord('Mu\u0308nze lang', await hashWord('M\u00fcnze lang'))).toBeTrue();
    for (const kept of [null, '', 'scrypt$131072$8$1$$'])
      expect(await isWord('', kept === '' ? null : kept))
        .withContext(String(kept))
        .toBeFalse();
  });

  it('wrong ones cost nothing three times, then twice as long each, a quarter of an hour at most', () => {
    expect([1, 2, 3, 4, 5, 60].map(waitAfter)).toEqual([0, 0, 2, 4, 8, 900]);
  });
});

describe('a shop on this machine alone', () => {
  it('asks nobody; its first owner is made here, once; on the network it does not start before', async () => {
    const folder = await freshFolder();
    await expectAsync(startShop(folder, ADDRESS)).toBeRejectedWithError(/no owner yet/);
    const shop = await startShop(folder);
    expect((await call(shop, 'GET', '/api/me')).body).toEqual({
      door: 'alone',
      owned: false,
      person: null,
      pin: false,
      others: [],
    });
    expect((await call(shop, 'POST', '/api/sign-in', { name: 'Ada', password: PASSWORD })).status).toBe(409);
    for (const bad of [
      { name: 'Ada', password: 'short' },
      { name: ' ', password: PASSWORD },
      { name: 'A\u0007a', password: PASSWORD },
    ])
      expect((await call(shop, 'POST', '/api/people/owner', bad)).status).toBe(422);
    expect((await call(shop, 'POST', '/api/people/owner', { name: 'Ada', password: PASSWORD })).body.owned).toBeTrue();
    expect((await call(shop, 'POST', '/api/people/owner', { name: 'Eve', password: PASSWORD })).status).toBe(409);
    // Whoever sits at the machine keeps the shop.
    expect((await call(shop, 'GET', '/api/people')).body.people.map((one: { name: string }) => one.name)).toEqual([
      'Ada',
    ]);
    await makeBuild(shop, 'Heron', 1);
    await shop.stop();
    const open = await startShop(folder, ADDRESS);
    expect((await call(open, 'GET', '/api/builds')).status).toBe(401);
    expect((await call(open, 'POST', '/api/people/owner', { name: 'Eve', password: PASSWORD })).status).toBe(403);
    await open.stop();
  });
});

describe('a shop of several people', () => {
  let shop: Running;
  const cookies: Partial<Record<Role, string>> = {};
  beforeAll(async () => {
    shop = await startShop(await ownedFolder(), ADDRESS);
    for (const [role, name] of [
      ['owner', 'Ada'],
      ['builder', 'Bo'],
      ['looker', 'Lu'],
    ] as const)
      cookies[role] = (await signIn(shop, name)).cookie;
  }, 60_000);
  afterAll(() => shop.stop());
  const patient = (): Promise<unknown> => shop.db.query('delete from attempts');
  const as = (role: Role) => ({ cookie: cookies[role] ?? '' });

  it('every route, by every role: nobody gets in without a session, nobody beyond the role, and a looker never writes', async () => {
    const params: Record<string, string> = { name: 'nothing.here', kind: 'indicator', version: '1' };
    const all: readonly [string, WireRoute][] = Object.entries(routes);
    const skipped = [
      'signIn',
      'signOut',
      'acceptInvitation',
      'firstOwner',
      'savePin',
      'savePassword',
      'switchPerson',
      'restore',
    ];
    let seen = 0;
    for (const [id, route] of all) {
      const wanted = mayCall(route);
      const url = `/api${route.path.replace(/\{(\w+)\}/g, (_, key: string) => params[key] ?? randomUUID())}`;
      const ask = async (headers: Record<string, string>): Promise<number> => {
        const end = new AbortController();
        const response = await fetch(new URL(url, shop.url), {
          method: route.method.toUpperCase(),
          headers: { 'content-type': 'application/json', ...headers },
          body: route.method === 'get' ? null : '{}',
          signal: end.signal,
        });
        end.abort();
        return response.status;
      };
      const out = await ask({});
      if (wanted === 'anyone') {
        if (!['signIn', 'firstOwner', 'acceptInvitation'].includes(id)) expect(out).withContext(id).not.toBe(401);
        continue;
      }
      expect(out).withContext(`${id}, nobody`).toBe(401);
      expect(await ask({ cookie: `${(cookies.owner ?? '').slice(0, -1)}x` }))
        .withContext(`${id}, another token`)
        .toBe(401);
      const order: Role[] = ['looker', 'builder', 'owner'];
      for (const role of order) {
        const allowed = order.indexOf(role) >= order.indexOf(wanted);
        if (allowed && skipped.includes(id)) continue;
        const status = await ask(as(role));
        if (allowed) expect([401, 403]).withContext(`${id}, ${role}`).not.toContain(status);
        else expect(status).withContext(`${id}, ${role}`).toBe(403);
        seen += 1;
      }
      if (route.method !== 'get' && !skipped.includes(id) && route.keeps !== false)
        expect(wanted).withContext(`${id} writes`).not.toBe('looker');
    }
    expect(seen).toBeGreaterThan(90);
  }, 60_000);

  it('a session is made here and nowhere else: what a browser brings along is not taken, and what it had is over', async () => {
    const planted = `hot-spline-${(await call(shop, 'GET', '/api/shop', undefined, as('owner'))).body.id.slice(0, 8)}=${'a'.repeat(43)}`;
    const first = await signIn(shop, 'Bo', PASSWORD, planted);
    expect(first.status).toBe(200);
    expect(first.cookie).not.toBe(planted);
    expect((await call(shop, 'GET', '/api/builds', undefined, { cookie: planted })).status).toBe(401);
    const second = await signIn(shop, 'Bo', PASSWORD, first.cookie);
    expect((await call(shop, 'GET', '/api/builds', undefined, { cookie: first.cookie })).status).toBe(401);
    expect((await call(shop, 'GET', '/api/builds', undefined, { cookie: second.cookie })).status).toBe(200);
    // No script reads it, no other site sends it, nobody sends it in the clear: the address is https.
    for (const word of ['HttpOnly', 'SameSite=Strict', 'Secure', 'Path=/']) expect(second.setCookie).toContain(word);
    // What is kept is a hash: whoever reads the database is nobody.
    const rows = await shop.db.query<{ token: string }>('select token from sessions');
    const token = second.cookie.split('=')[1] ?? '';
    expect(rows.map((row) => row.token)).toContain(tokenHash(token));
    expect(rows.map((row) => row.token)).not.toContain(token);
  }, 20_000);

  it('a page of another site does nothing in the name of who looks at it', async () => {
    const headers: Record<string, string>[] = [
      { origin: 'https://evil.example' },
      { 'sec-fetch-site': 'cross-site' },
      { origin: 'null' },
    ];
    for (const one of headers) {
      const answer = await call(shop, 'PUT', '/api/shop', { currency: 'USD' }, { ...as('owner'), ...one });
      expect([answer.status, answer.body.type]).toEqual([403, 'urn:hot-spline:foreign-page']);
    }
    const form = await call(shop, 'POST', '/api/sign-out', 'everywhere=true', {
      ...as('owner'),
      'content-type': 'application/x-www-form-urlencoded',
    });
    expect(form.status).toBe(415);
    expect((await call(shop, 'GET', '/api/people', undefined, as('owner'))).status).toBe(200);
  });

  it('wrong passwords make whoever tries wait, longer each time, whether the name is known or not; others come in', async () => {
    await patient();
    for (const name of ['Ada', 'Nobody']) {
      const statuses: number[] = [];
      for (let i = 0; i < 4; i++) statuses.push((await signIn(shop, name, `wrong ${i} wrong`)).status);
      expect(statuses).withContext(name).toEqual([401, 401, 401, 429]);
      const right = await signIn(shop, name);
      expect([right.status, right.body.type]).withContext(name).toEqual([429, 'urn:hot-spline:wait']);
      const [row] = await shop.db.query<{ wait: number }>(
        'select max(extract(epoch from until - now()))::int as wait from attempts',
      );
      expect(row?.wait).toBeGreaterThan(0);
      await patient();
    }
    // The wait as it is kept is the wait that is meant, and after a day it is forgotten.
    const key = 'in ada';
    const waits: number[] = [];
    for (let i = 0; i < 14; i++) {
      await claimTry(shop.db, [key]);
      const [one] = await shop.db.query<{ wait: number }>(
        'select round(extract(epoch from until - last))::int as wait from attempts where key = $1',
        [key],
      );
      waits.push(one?.wait ?? -1);
      await shop.db.query('update attempts set until = now() where key = $1', [key]);
    }
    expect(waits).toEqual([0, 0, 2, 4, 8, 16, 32, 64, 128, 256, 512, 900, 900, 900]);
    await shop.db.query(`update attempts set last = now() - interval '25 hours' where key = $1`, [key]);
    expect(await claimTry(shop.db, [key])).toBe(1);
    // Many at once: each counts before it is looked at, and no more than the free ones are.
    const burst = await Promise.all(Array.from({ length: 12 }, (_, i) => signIn(shop, 'Ada', `guess ${i} guess`)));
    expect(burst.filter(({ status }) => status === 401).length).toBeLessThanOrEqual(3);
    expect(burst.every(({ status }) => status === 401 || status === 429)).toBeTrue();
    await patient();
    // The same from many names: the place waits.
    const statuses: number[] = [];
    for (let i = 0; i < 4; i++) statuses.push((await signIn(shop, `Name ${i}`, 'wrong wrong')).status);
    expect(statuses).toEqual([401, 401, 401, 429]);
    await patient();
    const wrong = await signIn(shop, 'Nobody', 'wrong wrong');
    const known = await signIn(shop, 'Ada', 'wrong wrong');
    expect(wrong.body.detail).toBe(known.body.detail);
    await patient();
  }, 60_000);

  it('what is written carries a name that signed in on its device; the bench tablet changes by PIN', async () => {
    const build = randomUUID();
    const file = { format: 'hot-spline/build-file', formatVersion: 13, build: newBuild('Heron'), ledger: [] };
    const bo = await signIn(shop, 'Bo');
    const by = (cookie: string) => ({ cookie });
    expect((await call(shop, 'POST', '/api/builds', { id: build, file }, by(bo.cookie))).status).toBe(201);
    const read = (who: string, cookie: string) =>
      call(shop, 'POST', `/api/builds/${build}/ledger`, { ...someReading(), who }, by(cookie));
    expect((await read('Bo', bo.cookie)).status).toBe(201);
    for (const who of ['Ada', '']) {
      const refused = await read(who, bo.cookie);
      expect([refused.status, refused.body.error.field, refused.body.error.allowed]).toEqual([422, 'who', 'Bo']);
    }
    const signature = {
      ...{ kind: 'signature', id: randomUUID(), at: '2026-02-03T04:05:00.000Z', who: 'Bo' },
      ...{ gate: 'B', name: 'Ada', figures: {} },
    };
    const forged = await call(shop, 'POST', `/api/builds/${build}/ledger`, signature, by(bo.cookie));
    expect([forged.status, forged.body.error.field]).toEqual([422, 'name']);
    const write = { writeId: randomUUID(), baseVersion: 1, who: 'Ada', build: newBuild('Heron') };
    expect((await call(shop, 'PUT', `/api/builds/${build}`, write, by(bo.cookie))).body.error.field).toBe('who');
    const spec = { writeId: randomUUID(), baseVersion: 0, who: 'Ada', spec: newAxleSpec('Heron') };
    expect((await call(shop, 'PUT', `/api/library/${randomUUID()}`, spec, by(bo.cookie))).body.error.field).toBe('who');
    // Ada comes to Bo’s tablet: no PIN of hers works there before she signed in on it.
    const ada = await signIn(shop, 'Ada', PASSWORD);
    expect(
      (await withCookie(shop, '/api/me/pin', { password: 'wrong wrong', pin: '2580' }, ada.cookie, 'PUT')).status,
    ).toBe(422);
    const pinned = await withCookie(shop, '/api/me/pin', { password: PASSWORD, pin: '2580' }, ada.cookie, 'PUT');
    expect(pinned.body.pin).toBeTrue();
    expect((await withCookie(shop, '/api/me/pin', { password: PASSWORD, pin: '1357' }, bo.cookie, 'PUT')).status).toBe(
      200,
    );
    const elsewhere = await withCookie(shop, '/api/switch', { id: ada.body.person.id, pin: '2580' }, bo.cookie);
    expect(elsewhere.status).toBe(401);
    await patient();
    // Ada signs in on it, and both are there from then on: each by a PIN.
    const both = await signIn(shop, 'Ada', PASSWORD, bo.cookie);
    expect(both.body.others).toEqual([{ id: bo.body.person.id, name: 'Bo' }]);
    expect((await call(shop, 'GET', '/api/builds', undefined, by(bo.cookie))).status).toBe(401);
    const back = await withCookie(shop, '/api/switch', { id: bo.body.person.id, pin: '1357' }, both.cookie);
    expect([back.status, back.body.person.name]).toEqual([200, 'Bo']);
    const changed = await withCookie(shop, '/api/switch', { id: ada.body.person.id, pin: '2580' }, back.cookie);
    expect([changed.status, changed.body.person.name, changed.body.others[0].name]).toEqual([200, 'Ada', 'Bo']);
    // What Bo wrote before the change goes out in Bo’s name.
    expect((await read('Bo', changed.cookie)).status).toBe(201);
    expect((await read('Ada', changed.cookie)).status).toBe(201);
    for (let i = 0; i < 5; i++) {
      await withCookie(shop, '/api/switch', { id: bo.body.person.id, pin: '0000' }, changed.cookie);
      await shop.db.query('update attempts set until = now()');
    }
    expect((await withCookie(shop, '/api/switch', { id: bo.body.person.id, pin: '1357' }, changed.cookie)).status).toBe(
      401,
    );
    expect((await call(shop, 'GET', '/api/me', undefined, by(changed.cookie))).body.others).toEqual([]);
    await patient();
  }, 60_000);

  it('an invitation works once, for its role, for its time; who is shut out is out at once, with what it listens to', async () => {
    const owner = as('owner');
    const invited = await call(shop, 'POST', '/api/invitations', { role: 'builder' }, owner);
    expect(invited.status).toBe(201);
    const accept = (token: string, name: string) =>
      withCookie(shop, '/api/invitations/accept', { token, name, password: PASSWORD });
    expect((await accept(invited.body.token, 'ADA')).status).toBe(422); // somebody is called so already, and it waits on
    const cy = await accept(invited.body.token, 'Cy');
    expect([cy.status, cy.body.person.role]).toEqual([201, 'builder']);
    expect((await accept(invited.body.token, 'Di')).status).toBe(410);
    const over = await call(shop, 'POST', '/api/invitations', { role: 'owner' }, owner);
    await shop.db.query(`update invitations set until = now() - interval '1 second' where id = $1`, [over.body.id]);
    expect((await accept(over.body.token, 'Di')).status).toBe(410);
    const back = await call(shop, 'POST', '/api/invitations', { role: 'looker' }, owner);
    expect((await call(shop, 'DELETE', `/api/invitations/${back.body.id}`, undefined, owner)).status).toBe(200);
    expect((await accept(back.body.token, 'Di')).status).toBe(410);
    await patient();
    const listening = await fetch(new URL('/api/changes', shop.url), { headers: { cookie: cy.cookie } });
    const heard = listening.text();
    const { id } = cy.body.person;
    expect((await call(shop, 'PUT', `/api/people/${id}`, { active: false }, owner)).status).toBe(200);
    expect(await heard).toContain('"of":"here"');
    expect((await call(shop, 'GET', '/api/builds', undefined, { cookie: cy.cookie })).status).toBe(401);
    expect((await signIn(shop, 'Cy')).status).toBe(401);
    await patient();
    expect((await call(shop, 'PUT', `/api/people/${id}`, { active: true, role: 'looker' }, owner)).status).toBe(200);
    const again = await signIn(shop, 'Cy');
    const other = await signIn(shop, 'Cy');
    expect(again.body.person.role).toBe('looker');
    await withCookie(shop, '/api/sign-out', { everywhere: true }, again.cookie);
    for (const { cookie } of [again, other])
      expect((await call(shop, 'GET', '/api/builds', undefined, { cookie })).status).toBe(401);
    const [me] = (await call(shop, 'GET', '/api/people', undefined, owner)).body.people;
    expect((await call(shop, 'PUT', `/api/people/${me.id}`, { role: 'builder' }, owner)).body.type).toBe(
      'urn:hot-spline:last-owner',
    );
  }, 60_000);

  it('a new password signs out everywhere else; what was done is listed, by whom and from where', async () => {
    const owner = as('owner');
    const { token } = (await call(shop, 'POST', '/api/invitations', { role: 'builder' }, owner)).body;
    const here = await withCookie(shop, '/api/invitations/accept', { token, name: 'Mo', password: PASSWORD });
    const there = await signIn(shop, 'Mo');
    const change = { before: PASSWORD, password: 'another long one' };
    expect((await withCookie(shop, '/api/me/password', change, here.cookie, 'PUT')).status).toBe(200);
    expect((await call(shop, 'GET', '/api/builds', undefined, { cookie: here.cookie })).status).toBe(200);
    expect((await call(shop, 'GET', '/api/builds', undefined, { cookie: there.cookie })).status).toBe(401);
    expect((await signIn(shop, 'Mo')).status).toBe(401);
    const id = randomUUID();
    const customer = { name: 'A. Reed', reach: '' };
    expect((await call(shop, 'PUT', `/api/customers/${id}`, customer, { cookie: here.cookie })).status).toBe(200);
    await patient();
    const list = await call(shop, 'GET', '/api/audit?limit=500', undefined, owner);
    const lines = list.body.map(
      ({ who, did, about }: { who: string; did: string; about: string }) =>
        `${who}: ${about === '' || about === 'builder' ? did : about}`,
    );
    for (const line of [
      'Mo: came by invitation',
      'Mo: signed in',
      'Mo: changed the password',
      'Mo: wrong password',
      `Mo: PUT /customers/${id}`,
    ])
      expect(lines).toContain(line);
    expect(list.body.every((one: { from: string }) => one.from !== '')).toBeTrue();
    const older = await call(shop, 'GET', `/api/audit?before=${list.body[1].id}&limit=1`, undefined, owner);
    expect(older.body[0].id).toBe(list.body[2].id);
  }, 30_000);

  it('health says to whoever is not in that it answers, and no more', async () => {
    const out = await call(shop, 'GET', '/api/health');
    expect([out.status, out.body.damage, out.body.backup]).toEqual([200, [], null]);
  });
});
