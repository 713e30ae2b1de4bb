import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { FORMAT_VERSION, buildSchema, newBuild, readBuildFile, type BuildFile } from '@hot-spline/model';
import { readLedgerCsv } from '@hot-spline/model/csv';
import { ROOT, type Running } from './serve';
import { surveyBuilds } from './keep/builds';
import { archiveOf, call, freshFolder, startShop } from './testing/shop';

const old = (name: string): { build: Record<string, unknown>; ledger: Record<string, unknown>[] } =>
  JSON.parse(readFileSync(new URL(`model/src/document/old/1/${name}`, ROOT), 'utf8'));
const file = (name = 'Test'): BuildFile => ({
  format: 'hot-spline/build-file',
  formatVersion: FORMAT_VERSION,
  build: newBuild(name),
  ledger: [],
});

describe('a shop that has been running for years', () => {
  let shop: Running;

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
  });

  afterAll(async () => {
    await shop.stop();
  });

  /** A row as an earlier or later program wrote it. */
  async function row(document: string, { version = 1, name = 'Old', ledger = [] as unknown[] } = {}): Promise<string> {
    const id = randomUUID();
    await shop.db.query(
      "insert into builds (id, name, vehicle, use, version, document, format_version) values ($1, $2, '', 'street', 1, $3, $4)",
      [id, name, document, version],
    );
    await shop.db.query('insert into build_versions (build_id, version, write_id, document) values ($1, 1, $1, $2)', [
      id,
      document,
    ]);
    for (const entry of ledger as { id: string; kind: string; voids?: string }[])
      await shop.db.query('insert into ledger (build_id, id, kind, voids, entry) values ($1, $2, $3, $4, $5)', [
        id,
        entry.id,
        entry.kind,
        entry.voids ?? null,
        JSON.stringify(entry),
      ]);
    await surveyBuilds(shop.db);
    return id;
  }

  const summary = async (id: string) =>
    (
      (await call(shop, 'GET', '/api/builds')).body as { id: string; unreadable: string | null; rechecks: unknown[] }[]
    ).find((one) => one.id === id);

  it('a row of version 1 opens, is saved as the new version, and its ledger is read', async () => {
    const before = old('kittiwake-drift-coupe.json');
    const id = await row(JSON.stringify(before.build), { ledger: before.ledger });
    const read = await call(shop, 'GET', `/api/builds/${id}`);
    expect(read.status).toBe(200);
    expect(read.body.build.formatVersion).toBe(FORMAT_VERSION);
    expect((await summary(id))?.rechecks).toEqual([{ on: '2027-01-15', why: 'Breakaway after bedding in' }]);
    const exported = await call(shop, 'GET', `/api/builds/${id}/export`);
    expect(exported.body).toEqual(
      readBuildFile({ format: 'hot-spline/build-file', formatVersion: 1, ...before }) as never,
    );
    const write = { writeId: randomUUID(), baseVersion: 1, who: 'Ada', build: { ...read.body.build, notes: 'now' } };
    expect((await call(shop, 'PUT', `/api/builds/${id}`, write)).body.version).toBe(2);
    const [kept] = await shop.db.query('select format_version, who from builds where id = $1', [id]);
    expect(kept).toEqual({ format_version: FORMAT_VERSION, who: 'Ada' });
    expect((await call(shop, 'GET', `/api/builds/${id}/versions/1`)).body.build.notes).toBe(before.build['notes']);
  });

  it('a save and a reading of an earlier web app are taken as one of today', async () => {
    const before = old('plover-electric-hatch.json');
    const id = randomUUID();
    await call(shop, 'POST', '/api/builds', {
      id,
      file: { format: 'hot-spline/build-file', formatVersion: 1, ...before },
    });
    const write = { writeId: randomUUID(), baseVersion: 1, build: { ...before.build, notes: 'from an old tab' } };
    expect((await call(shop, 'PUT', `/api/builds/${id}`, write)).body.version).toBe(2);
    const [reading] = old('kittiwake-drift-coupe.json').ledger;
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, reading)).status).toBe(201);
    expect((await call(shop, 'GET', `/api/builds/${id}/ledger`)).body[0].value.of).toBe('number');
  });

  it('a later version, rubbish and a NUL stand on the board with why; the rest of the shop works', async () => {
    const good = randomUUID();
    await call(shop, 'POST', '/api/builds', { id: good, file: file('Good') });
    const document = newBuild('Later');
    const texts = [
      JSON.stringify({ ...document, formatVersion: FORMAT_VERSION + 1, wings: 2 }),
      JSON.stringify({ formatVersion: 1, name: 'half' }),
      JSON.stringify({ ...document, notes: 'x\ud83dy' }),
      JSON.stringify({ ...document, notes: 'a\u0000b' }),
    ];
    for (const text of texts) {
      const id = await row(text, { version: FORMAT_VERSION });
      expect((await summary(id))?.unreadable)
        .withContext(text.slice(0, 60))
        .toMatch(/later|missing|character/);
      expect((await call(shop, 'GET', `/api/builds/${id}`)).status).toBe(422);
      expect((await call(shop, 'GET', `/api/builds/${id}/figures`)).status).toBe(422);
      const raw = await call(shop, 'GET', `/api/builds/${id}/raw`);
      expect(raw.body.document).toBe(text);
    }
    expect((await summary(good))?.unreadable).toBeNull();
    // In the archive of the shop they are as they stand.
    const archived = await archiveOf(shop);
    for (const text of texts) expect(archived).toContain(JSON.stringify(text));
    expect(archived).toContain('Good');
  });

  it('refuses NUL and half characters by field, at every edge', async () => {
    const id = randomUUID();
    await call(shop, 'POST', '/api/builds', { id, file: file() });
    for (const bad of ['x\ud83dy', 'a\u0000b']) {
      const build = { ...newBuild('Test'), name: bad };
      const created = await call(shop, 'POST', '/api/builds', { id: randomUUID(), file: { ...file(), build } });
      expect([created.status, created.body.error.field]).toEqual([422, 'file.build.name']);
      const write = { writeId: randomUUID(), baseVersion: 1, build };
      const saved = await call(shop, 'PUT', `/api/builds/${id}`, write);
      expect([saved.status, saved.body.error.field]).toEqual([422, 'build.name']);
      const entry = {
        kind: 'void',
        id: randomUUID(),
        at: '2026-11-24T10:00:00.000Z',
        who: bad,
        voids: id,
        reason: 'x',
      };
      expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, entry)).body.error.field).toBe('who');
      const spec = { kind: 'shims', name: bad, seat: 'pack', bore: null, outside: null, pieces: [] };
      const kept = await call(shop, 'PUT', `/api/library/${randomUUID()}`, {
        writeId: randomUUID(),
        baseVersion: 0,
        spec,
      });
      expect([kept.status, kept.body.error.field]).toEqual([422, 'spec.name']);
    }
    expect((await call(shop, 'POST', '/api/calc/tyre.size', { designation: '\u0000' })).body.error.field).toBe(
      'designation',
    );
  });

  it('takes a decision and a signature, and voids them', async () => {
    const id = randomUUID();
    await call(shop, 'POST', '/api/builds', { id, file: file() });
    const written = { at: '2026-11-24T10:00:00.000Z', who: 'Ada' };
    const decision = { kind: 'decision', id: randomUUID(), ...written, about: 'Spacer', decided: 'solid', why: 'drag' };
    const signature = {
      kind: 'signature',
      id: randomUUID(),
      ...written,
      gate: 'A',
      name: 'Ada',
      figures: { 'x.y': 1.5 },
    };
    const send = (entry: object) => call(shop, 'POST', `/api/builds/${id}/ledger`, entry);
    expect((await send(decision)).status).toBe(201);
    expect((await send(signature)).status).toBe(201);
    const voids = { kind: 'void', id: randomUUID(), ...written, voids: decision.id, reason: 'changed' };
    expect((await send(voids)).status).toBe(201);
    expect((await send({ ...voids, id: randomUUID(), voids: voids.id })).body.error.field).toBe('voids');
    const ledger = (await call(shop, 'GET', `/api/builds/${id}/ledger`)).body;
    expect(ledger).toEqual([decision, signature, voids] as never);
    const csv = (await call(shop, 'GET', `/api/builds/${id}/ledger?as=csv`)).body as string;
    expect(readLedgerCsv(csv)).toEqual({ entries: ledger, made: new Set(), bad: [] });
  });
});

describe('the wire', () => {
  let shop: Running;
  const id = randomUUID();

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
    const drift = JSON.parse(readFileSync(new URL('demo/kittiwake-circuit-coupe.json', ROOT), 'utf8')) as BuildFile;
    await call(shop, 'POST', '/api/builds', { id, file: drift });
  });

  afterAll(async () => {
    await shop.stop();
  });

  it('the same id with other content is a conflict with both, never a silent success', async () => {
    const other = { ...file(), build: newBuild('Another') };
    const created = await call(shop, 'POST', '/api/builds', { id, file: other });
    expect([created.status, created.body.yours.name, created.body.current.version]).toEqual([409, 'Another', 1]);
    const [entry] = (await call(shop, 'GET', `/api/builds/${id}/ledger`)).body;
    const changed = await call(shop, 'POST', `/api/builds/${id}/ledger`, { ...entry, instrument: 'Ruler' });
    expect([changed.status, changed.body.yours.instrument]).toEqual([409, 'Ruler']);
    expect(changed.body.current).toEqual(entry);
  });

  it('one write id on two records is a conflict, not a mistake of the server', async () => {
    const two = randomUUID();
    await call(shop, 'POST', '/api/builds', { id: two, file: file() });
    const write = { writeId: randomUUID(), baseVersion: 1, build: newBuild('Once') };
    expect((await call(shop, 'PUT', `/api/builds/${two}`, write)).status).toBe(200);
    const again = await call(shop, 'PUT', `/api/builds/${id}`, write);
    expect([again.status, again.body.error.field]).toEqual([409, 'writeId']);
    const changed = await call(shop, 'PUT', `/api/builds/${two}`, { ...write, build: newBuild('Twice') });
    expect(changed.status).toBe(409);
    const spec = { kind: 'shims', name: 'Drawer', seat: 'pack', bore: null, outside: null, pieces: [] };
    const keep = (to: string) =>
      call(shop, 'PUT', `/api/library/${to}`, { writeId: write.writeId, baseVersion: 0, spec });
    expect((await keep(randomUUID())).status).toBe(201);
    expect((await keep(randomUUID())).status).toBe(409);
  });

  it('405 names what a path takes, 415 what a body may be, 413 and 400 say so', async () => {
    const response = await fetch(new URL(`/api/builds/${id}`, shop.url), { method: 'DELETE' });
    expect([response.status, response.headers.get('allow')]).toEqual([405, 'GET, PUT, HEAD']);
    expect((await call(shop, 'POST', '/api/health', {})).status).toBe(405);
    expect((await call(shop, 'GET', '/api/nothing')).status).toBe(404);
    const typed = await call(shop, 'POST', '/api/builds', 'a=1', {
      'content-type': 'application/x-www-form-urlencoded',
    });
    expect([typed.status, typed.body.error.field]).toEqual([415, 'body']);
    const latin = await call(shop, 'POST', '/api/builds', '{}', { 'content-type': 'application/json; charset=latin1' });
    expect(latin.status).toBe(415);
    expect((await call(shop, 'PUT', '/api/shop', `{"currency":"${'x'.repeat(5000)}"}`)).status).toBe(413);
    expect((await call(shop, 'PUT', '/api/shop', '{')).status).toBe(400);
  });

  it('a shop has an id that stays, and a currency', async () => {
    const first = (await call(shop, 'GET', '/api/shop')).body;
    expect(first.id).toMatch(/^[0-9a-f-]{36}$/);
    expect((await call(shop, 'PUT', '/api/shop', { currency: 'GBP' })).body).toEqual({ ...first, currency: 'GBP' });
    const comma = await call(shop, 'PUT', '/api/shop', { decimal: 'comma' });
    expect(comma.body).toEqual({ ...first, currency: 'GBP', decimal: 'comma' });
    expect((await call(shop, 'PUT', '/api/shop', { decimal: null })).body.decimal).toBeNull();
    expect((await call(shop, 'PUT', '/api/shop', {})).status).toBe(422);
    expect((await call(shop, 'PUT', '/api/shop', { decimal: 'dot' })).body.error.field).toBe('decimal');
    expect((await call(shop, 'PUT', '/api/shop', { currency: 'pounds' })).body.error.field).toBe('currency');
  });

  it('gives what the screen shows of a build, with workings where they are asked for', async () => {
    const { body } = await call(shop, 'GET', `/api/builds/${id}/figures?system=inch&rpm=5000&working=true`);
    const figure = (of: string) => body.figures.find((one: { id: string }) => one.id === of);
    // The sum of what was read of the seven pieces [exact].
    expect(figure('pack.rear.left.height').value).toBeCloseTo(2.13 + 1.8 + 2.08 + 1.79 + 2.14 + 1.8 + 0.65, 9);
    expect(figure('point.engine').working.formula).toContain('torque curve');
    expect(body.point.rpm).toBe(5000);
    const [finding] = body.findings;
    expect(finding.facts).toBeDefined();
    expect(finding.place.sheet).toBeDefined();
    expect(finding.title.length).toBeGreaterThan(3);
    expect((await call(shop, 'GET', `/api/builds/${id}/figures?rpm=0`)).body.error.field).toBe('rpm');
    expect((await call(shop, 'GET', `/api/builds/${id}/figures?colour=red`)).body.error.field).toBe('colour');
  });

  it('describes every route, and the files', async () => {
    const { paths, components } = (await call(shop, 'GET', '/api/openapi.json')).body;
    for (const path of [
      '/api/builds',
      '/api/builds/{id}/ledger',
      '/api/library',
      '/api/photos/{id}',
      '/api/calc/road.run',
    ])
      expect(paths[path]).withContext(path).toBeDefined();
    expect(components.schemas.Build.properties.engine.description).toBeDefined();
    const refs = [...JSON.stringify(paths).matchAll(/#\/components\/schemas\/(\w+)/g)].map((match) => match[1] ?? '');
    for (const ref of refs) expect(components.schemas[ref]).withContext(ref).toBeDefined();
    const schema = await call(shop, 'GET', '/api/schemas/build-file');
    expect(schema.body.$defs.Build.required).toContain('engine');
    expect((await call(shop, 'GET', '/api/schemas/other')).status).toBe(422);
    expect(buildSchema.safeParse(newBuild('x')).success).toBeTrue();
  });

  it('says of each number its quantity, unit and range, of each parameter what it is, and every type that comes', async () => {
    const { paths, components, servers } = (await call(shop, 'GET', '/api/openapi.json')).body;
    expect(servers[0].url).toBe('/');
    interface Parameter {
      readonly name: string;
      readonly description?: string;
    }
    interface Operation {
      readonly parameters: readonly Parameter[];
      readonly responses: Record<string, { content: Record<string, unknown> }>;
    }
    const operations = Object.entries(paths as Record<string, Record<string, Operation>>);
    const bare = operations.flatMap(([path, methods]) =>
      Object.values(methods).flatMap(({ parameters }) =>
        parameters.filter(({ description }) => !description).map(({ name }) => `${path} ${name}`),
      ),
    );
    expect(bare).toEqual([]);
    for (const path of ['/api/board', '/api/builds/{id}/ledger', '/api/library/export'])
      expect(Object.keys(paths[path].get.responses['200'].content)).withContext(path).toContain('text/csv');
    for (const [path, methods] of operations)
      if (methods['delete'] && path.includes('{'))
        expect(methods['delete'].responses['422']).withContext(path).toBeDefined();
    // The ring of an axle: lengths above 0 up to 5000 mm [core/limits], in inches 5000 / 25.4 [exact].
    const ring = JSON.stringify(components.schemas.LibrarySpec).match(
      /"(#\/components\/schemas\/Entry_length_above_0_to_5000)"/,
    );
    expect(ring).not.toBeNull();
    const shape = components.schemas['Entry_length_above_0_to_5000'];
    expect(shape['x-quantity']).toBe('length');
    const units = shape.allOf[1].anyOf as { properties: { unit: { const: string }; value: Record<string, number> } }[];
    expect(units.map(({ properties }) => properties.unit.const)).toContain('thou');
    expect(units.map(({ properties }) => properties.unit.const)).not.toContain('N·m');
    const inch = units.find(({ properties }) => properties.unit.const === 'in')?.properties.value;
    expect(inch?.['exclusiveMinimum']).toBe(0);
    expect(inch?.['maximum']).toBeCloseTo(5000 / 25.4, 9);
    const at = JSON.stringify(components.schemas.LedgerEntry);
    expect(at).toContain('at a wheel or at the pinion');
    const calc = paths['/api/calc/pack.shims'].post.requestBody.content['application/json'].schema;
    expect(JSON.stringify(calc)).toContain('"x-unit":"mm"');
  });

  it('gives a build to begin with, which it takes', async () => {
    const file = await call(
      shop,
      'GET',
      '/api/builds/template?name=Begun&use=drift&driven=rear&power=manual&construction=drop-out',
    );
    expect(file.body.build).toEqual(jasmine.objectContaining({ name: 'Begun', use: 'drift', driven: 'rear' }));
    expect(file.body.build.assumed.length).toBeGreaterThan(5);
    expect((await call(shop, 'POST', '/api/builds', { id: randomUUID(), file: file.body })).status).toBe(201);
    for (const [query, field] of [
      ['use=drift&driven=rear&power=manual', 'name'],
      ['name=X&driven=rear&power=manual', 'use'],
      ['name=X&use=drift&driven=rear&power=steam', 'power'],
      ['name=X&use=drift&driven=rear&power=manual&colour=red', 'colour'],
    ] as const) {
      const { status, body } = await call(shop, 'GET', `/api/builds/template?${query}`);
      expect([status, body.error.field]).toEqual([422, field]);
    }
  });
});
