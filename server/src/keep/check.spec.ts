import { createHash, randomUUID } from 'node:crypto';
import { closeSync, existsSync, openSync, readFileSync, readSync, readdirSync, statSync, writeSync } from 'node:fs';
import path from 'node:path';
import { FORMAT_VERSION, newBuild, type HealthAnswer } from '@hot-spline/model';
import { migrate, readMigrations } from '../db/migrate';
import { openPglite } from '../db/pglite';
import { DAMAGED_FOLDER } from '../db/read-round';
import { call, freshFolder, makeBuild, someReading, startShop } from '../testing/shop';
import type { Running } from '../serve';
import { REMEMBERED } from './care';
import { ChainReader, linkHash, type Head, type Link } from './chain';

const check = async (shop: Running): Promise<HealthAnswer> =>
  (await call(shop, 'POST', '/api/check')).body as HealthAnswer;
/** Does in the database what no route does. */
async function tamper(folder: string, ...statements: string[]): Promise<void> {
  const db = await openPglite(path.join(folder, 'pg'));
  await db.query('alter table ledger disable trigger ledger_append_only');
  for (const statement of statements) await db.query(statement);
  await db.close();
}

// By hand, from the rule alone: SHA-256 over the one before, place, format and text, each on a line.
describe('a chain', () => {
  const sha = (text: string): string => createHash('sha256').update(text).digest('hex');
  const link = (before: string, n: number, text: string): Link => ({
    n,
    format: 10,
    text,
    hash: linkHash(before, n, 10, text),
  });

  const brokenChain = (links: readonly Link[], head: Head, what: string): string | null => {
    const chain = new ChainReader(head, what);
    for (const one of links) chain.take(one);
    return chain.end();
  };

  it('is the hash of what stood before, the place, the format and the text', () => {
    expect(linkHash('', 1, 10, '{"a":1}')).toBe(sha('\n1\n10\n{"a":1}'));
  });

  it('misses what is taken out, changed, moved or added, wherever it stands', () => {
    const [a, b, c] = [link('', 1, 'a'), link(linkHash('', 1, 10, 'a'), 2, 'b'), link('', 3, 'c')];
    const third = { ...c, hash: linkHash(b.hash ?? '', 3, 10, 'c') };
    const whole = [a, b, third];
    const head = { count: 3, head: third.hash, closed: 0, closing: '' };
    expect(brokenChain(whole, head, 'entry')).toBeNull();
    expect(brokenChain(whole.slice(1), head, 'entry')).toBe('1 of 3 entries missing');
    expect(brokenChain([...whole, third], head, 'entry')).toBe('1 entry too many');
    expect(brokenChain([b, a, third], head, 'entry')).toBe('entry 1 is not as it was kept');
    expect(brokenChain([a, { ...b, text: 'B' }, third], head, 'entry')).toBe('entry 2 is not as it was kept');
    expect(brokenChain([a, { ...b, format: 9 }, third], head, 'entry')).toBe('entry 2 is not as it was kept');
    // Even where whoever changed it hashed it anew, the head that is kept elsewhere tells.
    const forged = { ...third, text: 'C', hash: linkHash(b.hash ?? '', 3, 10, 'C') };
    expect(brokenChain([a, b, forged], head, 'entry')).toBe('the last entry is not the one that was kept last');
    // Of before there were chains: one hash over all of them.
    const early: Link[] = ['old', 'older'].map((text) => ({ n: null, format: 9, text, hash: null }));
    const closing = sha('9\nold\n9\nolder');
    const closed = { count: 3, head: linkHash(closing, 3, 10, 'new'), closed: 2, closing };
    const next: Link = { n: 3, format: 10, text: 'new', hash: closed.head };
    expect(brokenChain([...early, next], closed, 'version')).toBeNull();
    const touched: Link[] = [{ n: null, format: 9, text: 'OLD', hash: null }, ...early.slice(1), next];
    expect(brokenChain(touched, closed, 'version')).toBe('the first 2 versions are not as they were kept');
  });
});

describe('what is kept', () => {
  it('is counted and hashed: what somebody took out, changed or put in is said by name', async () => {
    const folder = await freshFolder();
    const first = await startShop(folder);
    const [short, changed, whole, gone, older] = [
      await makeBuild(first, 'Short', 6),
      await makeBuild(first, 'Changed', 3),
      await makeBuild(first, 'Whole', 3),
      await makeBuild(first, 'Gone', 2),
      await makeBuild(first, 'Document', 1),
    ];
    expect(await check(first)).toEqual(jasmine.objectContaining({ ok: true, damage: [] }));
    await first.stop();
    // Every build is remembered beside the database.
    expect((JSON.parse(readFileSync(path.join(folder, REMEMBERED), 'utf8')) as unknown[]).length).toBe(5);

    await tamper(
      folder,
      `delete from ledger where build_id = '${short}' and n in (3, 4)`,
      `update ledger set entry = replace(entry::text, 'Ines', 'Olaf')::json where build_id = '${changed}' and n = 2`,
      `delete from ledger where build_id = '${gone}'`,
      `delete from build_versions where build_id = '${gone}'`,
      `delete from build_facets where build_id = '${gone}'`,
      `delete from build_words where build_id = '${gone}'`,
      `delete from builds where id = '${gone}'`,
      `update builds set document = replace(document::text, 'Document', 'Else')::json where id = '${older}'`,
    );
    const shop = await startShop(folder);
    const { ok, damage } = await check(shop);
    expect(ok).toBeFalse();
    const said = new Map(damage.map((one) => [one.build, `${one.name}: ${one.says}`]));
    expect(said.get(short)).toBe('Short: 2 of 6 entries missing');
    expect(said.get(changed)).toBe('Changed: entry 2 is not as it was kept');
    expect(said.get(gone)).toBe('Gone: the build is gone, and its 2 entries with it');
    expect(said.get(older)).toBe('Document: it is not its last version');
    expect(said.has(whole)).toBeFalse();
    const health = (await call(shop, 'GET', '/api/health')).body as HealthAnswer;
    expect(health.damage.length).toBe(4);
    // The rest is read and written as ever.
    expect((await call(shop, 'GET', '/api/board')).status).toBe(200);
    expect((await call(shop, 'POST', `/api/builds/${whole}/ledger`, someReading())).status).toBe(201);
    await shop.stop();
    // While something is missing it is not forgotten.
    expect(readFileSync(path.join(folder, REMEMBERED), 'utf8')).toContain('Gone');
  });

  it('a build is looked at when it is given out', async () => {
    const folder = await freshFolder();
    const first = await startShop(folder);
    const id = await makeBuild(first, 'Out', 3);
    await check(first);
    await first.db.query('alter table ledger disable trigger ledger_append_only');
    await first.db.query('delete from ledger where build_id = $1 and n = 2', [id]);
    expect(((await call(first, 'GET', '/api/health')).body as HealthAnswer).ok).toBeTrue();
    await call(first, 'GET', `/api/builds/${id}/export`);
    expect(((await call(first, 'GET', '/api/health')).body as HealthAnswer).damage).toEqual([
      { build: id, name: 'Out', says: '1 of 3 entries missing' },
    ]);
    await first.stop();
  });

  it('damaged pages cost the rows on them: board, search and export go on, and what is lost is named', async () => {
    const folder = await freshFolder();
    const first = await startShop(folder);
    const ids = [];
    for (let i = 0; i < 12; i++) ids.push(await makeBuild(first, `Car ${i}`, 12));
    await check(first);
    const fileOf = async (relation: string): Promise<string> => {
      const [row] = await first.db.query<{ at: string }>('select pg_relation_filepath($1::regclass) as at', [relation]);
      return path.join(folder, 'pg', row?.at ?? '');
    };
    const files = [await fileOf('ledger'), await fileOf('build_rows'), await fileOf('builds_pkey')];
    await first.stop();
    // One byte each, in the last page of the tables and in the index.
    for (const file of files) {
      const handle = openSync(file, 'r+');
      const at = statSync(file).size - 100;
      const byte = Buffer.alloc(1);
      readSync(handle, byte, 0, 1, at);
      writeSync(handle, Buffer.from([byte.readUInt8() ^ 0xff]), 0, 1, at);
      closeSync(handle);
    }
    const shop = await startShop(folder);
    const { ok, damage } = await check(shop);
    expect(ok).toBeFalse();
    expect(damage.length).toBeGreaterThan(0);
    for (const { name, says } of damage) {
      expect(name).toMatch(/^Car \d+$/);
      expect(says).toMatch(/missing|gone/);
    }
    for (const url of ['/api/board', '/api/board?search=Car', '/api/builds', '/api/archive'])
      expect((await call(shop, 'GET', url)).status)
        .withContext(url)
        .toBe(200);
    const left = (await call(shop, 'GET', '/api/builds')).body as { id: string }[];
    const lost = new Set(damage.map(({ build }) => build));
    // Whoever is not on a damaged page is all there.
    expect(ids.filter((id) => !left.some((one) => one.id === id)).every((id) => lost.has(id))).toBeTrue();
    for (const { id } of left) {
      const ledger = (await call(shop, 'GET', `/api/builds/${id}/ledger`)).body as unknown[];
      expect(ledger.length === 12 || lost.has(id)).toBeTrue();
    }
    // The damaged files are there for whoever wants to save more.
    expect(readdirSync(path.join(folder, DAMAGED_FOLDER)).length).toBeGreaterThan(0);
    await shop.stop();
  });

  it('what was kept before there were chains is closed by one hash, and missed from then on', async () => {
    const folder = await freshFolder();
    // A folder as the program before wrote it.
    const db = await openPglite(path.join(folder, 'old'));
    const before = readMigrations().filter(({ name }) => name < '0008');
    await migrate(db, before);
    const id = randomUUID();
    const document = JSON.stringify(newBuild('Before'));
    await db.query(
      `insert into builds (id, name, vehicle, use, version, document, format_version) values ($1, 'Before', '', '', 1, $2, $3)`,
      [id, document, FORMAT_VERSION],
    );
    await db.query(
      'insert into build_versions (build_id, version, write_id, document, format_version) values ($1, 1, $1, $2, $3)',
      [id, document, FORMAT_VERSION],
    );
    for (const entry of [someReading(), someReading()])
      await db.query('insert into ledger (build_id, id, kind, entry, format_version) values ($1, $2, $3, $4, $5)', [
        id,
        entry.id,
        entry.kind,
        // Umlauts and what JSON escapes are hashed as they are kept.
        JSON.stringify({ ...entry, who: 'Jörg "µ" 🛠' }),
        FORMAT_VERSION,
      ]);
    await migrate(db, readMigrations());
    await db.close();
    const data = await freshFolder();
    const { cpSync, rmSync } = await import('node:fs');
    rmSync(path.join(data, 'pg'), { recursive: true });
    cpSync(path.join(folder, 'old'), path.join(data, 'pg'), { recursive: true });
    const shop = await startShop(data);
    expect((await check(shop)).damage).toEqual([]);
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, someReading())).status).toBe(201);
    expect((await check(shop)).damage).toEqual([]);
    await shop.stop();
    await tamper(data, `delete from ledger where build_id = '${id}' and n is null and seq = 1`);
    const again = await startShop(data);
    expect((await check(again)).damage.map(({ says }) => says)).toEqual(['1 of 3 entries missing']);
    await again.stop();
    expect(existsSync(path.join(data, 'pg'))).toBeTrue();
  });
});
