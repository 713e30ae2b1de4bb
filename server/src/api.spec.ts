import { connect } from 'node:net';
import { randomUUID } from 'node:crypto';
import http from 'node:http';
import { readFileSync } from 'node:fs';
import { FORMAT_VERSION, newBuild, type BuildFile } from '@hot-spline/model';
import type { Running } from './serve';
import { ROOT } from './serve';
import { Prepared } from './threads/prepare';
import { call, freshFolder, startShop } from './testing/shop';

const drift = (): BuildFile =>
  JSON.parse(readFileSync(new URL('demo/kittiwake-circuit-coupe.json', ROOT), 'utf8')) as BuildFile;
const emptyFile = (name = 'Test'): BuildFile => ({
  format: 'hot-spline/build-file',
  formatVersion: FORMAT_VERSION,
  build: newBuild(name),
  ledger: [],
});

describe('the server', () => {
  let shop: Running;

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
  });

  afterAll(async () => {
    await shop.stop();
  });

  async function create(file: BuildFile = emptyFile()): Promise<string> {
    const id = randomUUID();
    const answer = await call(shop, 'POST', '/api/builds', { id, file });
    expect(answer.status).toBe(201);
    return id;
  }

  const count = async (table: string): Promise<number> =>
    Number((await shop.db.query(`select count(*) as n from ${table}`))[0]?.['n']);

  it('keeps a connection for a minute: what is sent meanwhile meets no closing door', async () => {
    const { headers } = await fetch(new URL('api/health', shop.url));
    expect(headers.get('keep-alive')).toBe('timeout=65');
  });

  it('keeps a build: create, read, list', async () => {
    const id = await create(emptyFile('Redstart'));
    const read = await call(shop, 'GET', `/api/builds/${id}`);
    expect(read.body).toEqual({ id, version: 1, who: '', at: jasmine.any(String), build: newBuild('Redstart') });
    const list = await call(shop, 'GET', '/api/builds');
    expect(list.body.find((b: { id: string }) => b.id === id)).toEqual(
      jasmine.objectContaining({ name: 'Redstart', version: 1, archived: false }),
    );
  });

  it('exports what was imported, unchanged', async () => {
    const id = await create(drift());
    const exported = await call(shop, 'GET', `/api/builds/${id}/export`);
    expect(exported.body).toEqual(drift());
    const again = await create(exported.body as BuildFile);
    expect((await call(shop, 'GET', `/api/builds/${again}/export`)).body).toEqual(drift());
  });

  it('a retried create, save or reading is one write', async () => {
    const id = randomUUID();
    const body = { id, file: emptyFile() };
    expect((await call(shop, 'POST', '/api/builds', body)).status).toBe(201);
    expect((await call(shop, 'POST', '/api/builds', body)).status).toBe(200);
    const write = { writeId: randomUUID(), baseVersion: 1, build: { ...newBuild('Test'), notes: 'one' } };
    expect((await call(shop, 'PUT', `/api/builds/${id}`, write)).body.version).toBe(2);
    expect((await call(shop, 'PUT', `/api/builds/${id}`, write)).body.version).toBe(2);
    const entry = { ...drift().ledger[0], id: randomUUID() };
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, entry)).status).toBe(201);
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, entry)).status).toBe(200);
    expect((await call(shop, 'GET', `/api/builds/${id}/ledger`)).body).toEqual([entry]);
  });

  it('the same build with another ledger under one id is refused with both; sent again behind later readings it is the same', async () => {
    const id = randomUUID();
    const decision = (why: string) => ({
      kind: 'decision',
      id: randomUUID(),
      at: '2026-02-03T04:05:00.000Z',
      who: 'Ada',
      about: 'springs',
      decided: 'softer',
      why,
    });
    const [one, two, three] = [decision('one'), decision('two'), decision('three')];
    const file = (...ledger: unknown[]) => ({
      format: 'hot-spline/build-file',
      formatVersion: FORMAT_VERSION,
      build: newBuild('Two ledgers'),
      ledger,
    });
    const create = (...ledger: unknown[]) => call(shop, 'POST', '/api/builds', { id, file: file(...ledger) });
    expect((await create(one, two)).status).toBe(201);
    expect((await create(one, two)).status).toBe(200);
    for (const other of [
      [two, one],
      [one, three],
      [one, { ...two, why: 'else' }],
      [one, two, three],
    ]) {
      const refused = await create(...other);
      expect([refused.status, refused.body.type]).toEqual([409, 'urn:hot-spline:other-ledger']);
      expect([refused.body.yours.ledger.length, refused.body.ledger.length]).toEqual([other.length, 2]);
    }
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, three)).status).toBe(201);
    expect((await create(one, two)).status).toBe(200);
    const [entry] = drift().ledger;
    const many = { ...emptyFile(), ledger: Array.from({ length: 100_001 }, () => entry) } as BuildFile;
    expect(() => Prepared.from(randomUUID(), many)).toThrowError(/100001 entries/);
    for (const version of ['2147483648', '9007199254740991'])
      expect((await call(shop, 'GET', `/api/builds/${id}/versions/${version}`)).status)
        .withContext(version)
        .toBe(404);
  });

  it('refuses a stale version with both versions, and keeps the first', async () => {
    const id = await create();
    const save = (notes: string) =>
      call(shop, 'PUT', `/api/builds/${id}`, {
        writeId: randomUUID(),
        baseVersion: 1,
        build: { ...newBuild('Test'), notes },
      });
    expect((await save('first')).status).toBe(200);
    const stale = await save('second');
    expect(stale.status).toBe(409);
    expect(stale.type).toContain('application/problem+json');
    expect(stale.body).toEqual(jasmine.objectContaining({ status: 409, baseVersion: 1 }));
    expect(stale.body.yours.notes).toBe('second');
    expect(stale.body.current).toEqual(
      jasmine.objectContaining({ version: 2, build: jasmine.objectContaining({ notes: 'first' }) }),
    );
  });

  it('of ten saves on one version, one wins', async () => {
    const id = await create();
    const answers = await Promise.all(
      Array.from({ length: 10 }, (_, i) =>
        call(shop, 'PUT', `/api/builds/${id}`, {
          writeId: randomUUID(),
          baseVersion: 1,
          build: { ...newBuild('Test'), notes: String(i) },
        }),
      ),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409, 409, 409, 409, 409, 409, 409, 409, 409]);
  });

  it('voids a reading once, with a reason, and changes nothing else', async () => {
    const id = await create(drift());
    const ledger = (await call(shop, 'GET', `/api/builds/${id}/ledger`)).body;
    const target = ledger[0].id as string;
    const voiding = (reason: string) =>
      call(shop, 'POST', `/api/builds/${id}/ledger`, {
        kind: 'void',
        id: randomUUID(),
        at: '2026-11-24T10:00:00.000Z',
        voids: target,
        reason,
      });
    expect((await voiding('')).body.error.field).toBe('reason');
    expect((await voiding('wrong plate')).status).toBe(201);
    const twice = await voiding('again');
    expect(twice.status).toBe(422);
    expect(twice.body.error.field).toBe('voids');
    expect((await call(shop, 'GET', `/api/builds/${id}/ledger`)).body.slice(0, -1)).toEqual(ledger);
  });

  it('the ledger is append-only, in the database itself', async () => {
    await create(drift());
    await expectAsync(shop.db.query("update ledger set kind = 'void'")).toBeRejectedWithError(/append-only/);
    await expectAsync(shop.db.query('delete from ledger')).toBeRejectedWithError(/append-only/);
  });

  it('puts a build away and brings it back', async () => {
    const id = await create();
    expect((await call(shop, 'POST', `/api/builds/${id}/archive`, { archived: true })).status).toBe(200);
    const listed = async () =>
      ((await call(shop, 'GET', '/api/builds')).body as { id: string; archived: boolean }[]).find((b) => b.id === id)
        ?.archived;
    expect(await listed()).toBeTrue();
    await call(shop, 'POST', `/api/builds/${id}/archive`, { archived: false });
    expect(await listed()).toBeFalse();
  });

  it('takes SQL in a name as a name', async () => {
    const name = "Robin'); drop table builds; --";
    const id = await create(emptyFile(name));
    expect((await call(shop, 'GET', `/api/builds/${id}`)).body.build.name).toBe(name);
    expect(await count('builds')).toBeGreaterThan(0);
  });

  describe('bad input names the field and writes nothing', () => {
    const file = emptyFile();
    const plate = { kind: 'eared', label: 'steel', lined: false, thickness: { typed: '2 mm', value: 2, unit: 'mm' } };
    const withPlates = (n: number) => {
      const big = drift();
      const unit = big.build.axles.rear?.unit.plate;
      if (unit)
        unit.packs.left.members = Array.from({ length: n }, (_, i) => ({
          ...plate,
          id: `p${i}`,
        })) as typeof unit.packs.left.members;
      return big;
    };
    const cases: [string, () => unknown, string, number][] = [
      ['an empty body', () => '', 'id', 422],
      ['text', () => '"hello"', 'body', 422],
      ['broken JSON', () => '{"id":', 'body', 400],
      ['no file', () => ({ id: randomUUID() }), 'file', 422],
      ['a bad id', () => ({ id: 'x', file }), 'id', 422],
      ['an extra key', () => ({ id: randomUUID(), file, colour: 1 }), 'colour', 422],
      ['a missing key in the file', () => ({ id: randomUUID(), file: { ...file, ledger: undefined } }), 'ledger', 422],
      [
        '10 000 plates',
        () => ({ id: randomUUID(), file: withPlates(10_000) }),
        'build.axles.rear.unit.plate.packs.left.members',
        422,
      ],
      [
        '1e308 rpm',
        () => ({
          id: randomUUID(),
          file: { ...file, build: { ...file.build, engine: { ...file.build.engine, limitRpm: 1e308 } } },
        }),
        'build.engine.limitRpm',
        422,
      ],
      ['a body of 50 MB', () => `{"id":"${'x'.repeat(50 * 1024 * 1024)}"}`, 'body', 413],
    ];
    for (const [what, body, field, status] of cases) {
      it(what, async () => {
        const before = [await count('builds'), await count('ledger'), await count('build_versions')];
        const answer = await call(shop, 'POST', '/api/builds', body());
        expect(answer.status).toBe(status);
        expect(answer.type).toContain('application/problem+json');
        expect(answer.body.error.field).toBe(field);
        expect(answer.body.detail).toContain(field.split('.')[0] as string);
        expect([await count('builds'), await count('ledger'), await count('build_versions')]).toEqual(before);
      });
    }

    it('a half-good import leaves nothing behind', async () => {
      const half = drift();
      half.ledger[3] = { ...(half.ledger[3] as object), id: half.ledger[0]?.id } as (typeof half.ledger)[0];
      const before = await count('builds');
      expect((await call(shop, 'POST', '/api/builds', { id: randomUUID(), file: half })).status).toBe(422);
      expect(await count('builds')).toBe(before);
    });

    it('unknown builds, paths and methods', async () => {
      expect((await call(shop, 'GET', `/api/builds/${randomUUID()}`)).status).toBe(404);
      expect((await call(shop, 'GET', '/api/builds/1%27%20or%201=1')).body.error.field).toBe('id');
      expect((await call(shop, 'DELETE', '/api/builds')).status).toBe(405);
      expect((await call(shop, 'GET', '/api/%E0%A4%A')).status).toBeLessThan(500);
    });
  });

  it('calculates over HTTP, refuses by field, and describes itself', async () => {
    const teeth = await call(shop, 'POST', '/api/calc/gearing.teeth', { ring: 41, pinion: 11 });
    expect(teeth.body).toEqual(jasmine.objectContaining({ hunting: 'hunting' }));
    const withWorking = await call(shop, 'POST', '/api/calc/gearing.teeth?working=true', { ring: 41, pinion: 11 });
    expect(withWorking.body.working.formula).toContain('ring teeth');
    const bad = await call(shop, 'POST', '/api/calc/tyre.size', { designation: '245/40Z' });
    expect(bad.status).toBe(422);
    expect(bad.body.error).toEqual({
      field: 'designation',
      message: jasmine.stringContaining('245/40Z'),
      allowed: jasmine.any(String),
    });
    expect((await call(shop, 'POST', '/api/calc/nothing', {})).body.error.field).toBe('name');
    expect((await call(shop, 'GET', '/api/openapi.json')).body.paths['/api/calc/unit.lock']).toBeDefined();
  });

  it('a request with two Hosts, or none, is refused; a page may ask the browser for a serial line alone', async () => {
    const { hostname, port, host } = new URL(shop.url);
    const raw = (...heads: string[]): Promise<string> =>
      new Promise((resolve) => {
        let text = '';
        const socket = connect(Number(port), hostname, () => {
          socket.write(['GET /api/calc HTTP/1.1', ...heads, 'Connection: close', '', ''].join('\r\n'));
        });
        socket.on('data', (chunk) => (text += String(chunk)));
        socket.on('close', () => resolve(text));
      });
    expect(await raw(`Host: ${host}`, 'Host: elsewhere.test')).toMatch(/^HTTP\/1.1 400 /);
    expect(await raw(`Host: ${host}`, `host: ${host}`)).toMatch(/^HTTP\/1.1 400 /);
    expect(await raw()).toMatch(/^HTTP\/1.1 400 /);
    const well = await raw(`Host: ${host}`);
    expect(well).toMatch(/^HTTP\/1.1 200 /);
    expect(well).toContain('serial=(self)');
    expect(well).toContain('camera=()');
  });

  it('answers only to its own name, so that a page elsewhere can’t reach it under another', async () => {
    const { port } = new URL(shop.url);
    const status = await new Promise<number>((resolve, reject) => {
      http
        .get({ host: '127.0.0.1', port, path: '/api/builds', headers: { host: 'elsewhere.example' } }, (response) =>
          resolve(response.statusCode ?? 0),
        )
        .on('error', reject);
    });
    expect(status).toBe(421);
  });

  it('sends a strict content security policy', async () => {
    const response = await fetch(new URL('/api/health', shop.url));
    expect(response.headers.get('content-security-policy')).toContain("script-src 'self'");
    expect(response.headers.get('content-security-policy')).not.toContain('unsafe-eval');
  });
});
