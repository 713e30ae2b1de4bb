import { execFile, spawnSync } from 'node:child_process';
import { promisify } from 'node:util';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { BuildFile, HealthAnswer } from '@hot-spline/model';
import { ROOT, type Running } from '../serve';
import { PIXEL, sha256 } from '../testing/pictures';
import { call, freshFolder, makeBuild, startShop } from '../testing/shop';
import { after, keptOf, nameAt } from './backups';
import { BadArchive, NotEmpty, restoreArchive, verifyArchive } from './open-archive';

const backupsOf = (folder: string): string[] =>
  readdirSync(path.join(folder, 'backups')).filter((name) => name.endsWith('.zip'));
const keep = (folder: string, ...args: string[]) =>
  spawnSync(process.execPath, ['--import', 'tsx', 'server/src/keep-cli.ts', ...args], {
    cwd: fileURLToPath(ROOT),
    env: { ...process.env, HOT_SPLINE_DATA: folder },
    encoding: 'utf8',
  });
const made = async (shop: Running): Promise<HealthAnswer> =>
  (await call(shop, 'POST', '/api/backup')).body as HealthAnswer;
/** All that is given out of a shop, ids and versions too. */
async function allOf(shop: Running): Promise<unknown> {
  const builds = (await call(shop, 'GET', '/api/builds')).body as { id: string }[];
  return {
    shop: (await call(shop, 'GET', '/api/shop')).body as unknown,
    builds: await Promise.all(
      builds.map(async ({ id }) => ({
        stored: (await call(shop, 'GET', `/api/builds/${id}`)).body as unknown,
        first: (await call(shop, 'GET', `/api/builds/${id}/versions/1`)).body as unknown,
        raw: (await call(shop, 'GET', `/api/builds/${id}/raw`)).body as unknown,
        file: (await call(shop, 'GET', `/api/builds/${id}/export`)).body as BuildFile,
      })),
    ),
    library: (await call(shop, 'GET', '/api/library')).body as unknown,
    customers: (await call(shop, 'GET', '/api/customers')).body as unknown,
    setUps: (await call(shop, 'GET', '/api/set-ups')).body as unknown,
  };
}

describe('backups', () => {
  it('a folder that was destroyed comes back to the letter, and its chains go on', async () => {
    const folder = await freshFolder();
    const shop = await startShop(folder, { HOT_SPLINE_DEMO: '1', HOT_SPLINE_BACKUPS: 'second' });
    const id = await makeBuild(shop, 'Umlaut ä "µ" 🛠');
    const customer = randomUUID();
    await call(shop, 'PUT', `/api/customers/${customer}`, { name: 'A. Reed', reach: 'by the river' });
    await call(shop, 'POST', `/api/builds/${id}/archive`, { archived: true });
    const photo = sha256(PIXEL);
    const sent = await fetch(new URL(`/api/photos/${photo}`, shop.url), {
      method: 'PUT',
      headers: { 'content-type': 'image/png' },
      body: PIXEL,
    });
    expect(sent.status).toBeLessThan(300);
    const before = await allOf(shop);
    const builds = ((await call(shop, 'GET', '/api/builds')).body as unknown[]).length;
    expect(builds).toBeGreaterThan(5);
    const { backup } = await made(shop);
    expect(backup?.problem).toContain('The second place for backups');
    await shop.stop();
    const [name = ''] = backupsOf(folder).slice(-1);
    const zip = path.join(mkdtempSync(path.join(tmpdir(), 'hot-spline-backup-')), name);
    writeFileSync(zip, readFileSync(path.join(folder, 'backups', name)));
    expect((await verifyArchive(zip)).counts).toEqual(jasmine.objectContaining({ builds, photos: 1 }));

    rmSync(path.join(folder, 'pg', 'base'), { recursive: true });
    await expectAsync(startShop(folder)).toBeRejectedWithError(/not whole/);
    const { status, stdout, stderr } = keep(folder, 'restore', zip);
    expect(stderr).toBe('');
    expect(status).toBe(0);
    expect(stdout).toContain(`${builds} builds`);
    const again = await startShop(folder);
    expect(await allOf(again)).toEqual(before);
    const bytes = await (await fetch(new URL(`/api/photos/${photo}`, again.url))).arrayBuffer();
    expect(Buffer.from(bytes).equals(PIXEL)).toBeTrue();
    // By the page of a new shop as well.
    const fresh = await freshFolder();
    const other = await startShop(fresh);
    const send = (body: Buffer, type = 'application/zip') =>
      fetch(new URL('/api/restore', other.url), {
        method: 'POST',
        headers: { 'content-type': type },
        body: new Uint8Array(body),
      });
    expect((await send(Buffer.from('no zip'))).status).toBe(422);
    expect((await send(Buffer.from('{}'), 'application/json')).status).toBe(415);
    const whole = readFileSync(zip);
    expect((await send(whole.subarray(0, whole.length / 2))).status).toBe(422);
    expect(((await call(other, 'GET', '/api/builds')).body as unknown[]).length).toBe(0);
    const answer = await send(whole);
    expect(answer.status).toBe(200);
    expect(await answer.json()).toEqual(jasmine.objectContaining({ builds, photos: 1 }));
    expect(await allOf(other)).toEqual(before);
    expect((await send(whole)).status).toBe(409);
    await other.stop();
    // Nothing lies about, and the folder says whose data it holds now.
    expect(readdirSync(fresh).filter((one) => one.includes('restore'))).toEqual([]);
    const reopened = await startShop(fresh);
    expect(((await call(reopened, 'POST', '/api/check')).body as HealthAnswer).ok).toBeTrue();
    await reopened.stop();
    // What is written now goes on behind what was.
    await makeBuild(again, 'After');
    expect(((await call(again, 'POST', '/api/check')).body as HealthAnswer).damage).toEqual([]);
    // Where something is, nothing is put over it.
    await expectAsync(restoreArchive(again.db, zip)).toBeRejectedWithError(NotEmpty);
    await again.stop();
  });

  it('are made where something was written since, copied to the second place, and their age is said', async () => {
    const folder = await freshFolder();
    const second = mkdtempSync(path.join(tmpdir(), 'hot-spline-second-'));
    const shop = await startShop(folder, { HOT_SPLINE_BACKUPS: second });
    const first = await made(shop);
    expect(first.backup).toEqual(jasmine.objectContaining({ old: false, problem: '' }));
    // A folder of before there were marks is copied as it lay, before this program changed it.
    expect(readdirSync(path.join(folder, 'backups')).some((name) => name.startsWith('pg-before-'))).toBeTrue();
    const before = backupsOf(folder);
    expect((await made(shop)).backup?.file).toBe(first.backup?.file);
    expect(backupsOf(folder)).toEqual(before);
    await makeBuild(shop, 'New');
    // Their names tell seconds: the next one is of another.
    while (nameAt(new Date(), 'hand') === nameAt(new Date(Date.parse(first.backup?.last ?? '')), 'hand'))
      await new Promise((resolve) => setTimeout(resolve, 50));
    const next = await made(shop);
    expect(next.backup?.file).not.toBe(first.backup?.file);
    expect(readdirSync(second).sort()).toEqual(backupsOf(folder).sort());
    // While the server runs, the command asks it.
    await makeBuild(shop, 'Newer');
    const { hostname, port } = new URL(shop.url);
    const asked = await promisify(execFile)(process.execPath, ['--import', 'tsx', 'server/src/keep-cli.ts', 'backup'], {
      cwd: fileURLToPath(ROOT),
      env: { ...process.env, HOT_SPLINE_DATA: folder, HOST: hostname, PORT: port },
    });
    expect(asked.stdout).toContain('opened and read to its end');
    await shop.stop();
    const { status, stdout } = keep(folder, 'backup');
    expect(status).toBe(0);
    expect(stdout).toContain('2 builds, 0 ledger entries');
  });

  it('what does not add up is no backup, and takes no other one’s place', async () => {
    const folder = await freshFolder();
    const shop = await startShop(folder, { HOT_SPLINE_BACKUPS: path.join(folder, '..') });
    const id = await makeBuild(shop, 'Was whole');
    await made(shop);
    const before = backupsOf(folder);
    await shop.db.query(`delete from build_versions where build_id = $1`, [id]);
    await shop.db.query(`update builds set name = name || '!', ledger_count = 1 where id = $1`, [id]);
    const { backup } = await made(shop);
    expect(backup?.problem).toContain('Was whole!: 1 of 1 entry missing');
    expect(backupsOf(folder)).toEqual(before);
    await shop.stop();
  });

  it('one that is no backup, is damaged or of a later program is refused by name, and nothing is changed', async () => {
    const folder = await freshFolder();
    const shop = await startShop(folder, { HOT_SPLINE_BACKUPS: path.join(folder, 'elsewhere') });
    await makeBuild(shop, 'Only');
    await made(shop);
    await shop.stop();
    const zip = path.join(folder, 'backups', backupsOf(folder).at(-1) ?? '');
    const whole = readFileSync(zip);
    const broken = path.join(folder, 'broken.zip');
    const refused = async (bytes: Buffer): Promise<string> => {
      writeFileSync(broken, bytes);
      return verifyArchive(broken).then(
        () => 'taken',
        (error: unknown) => (error instanceof BadArchive ? error.message : `thrown: ${String(error)}`),
      );
    };
    expect(await refused(Buffer.from('PK'))).toContain('no archive that can be opened');
    expect(await refused(whole.subarray(0, whole.length - 40))).toContain('no archive that can be opened');
    let missed = 0;
    // One byte in each tenth of it: never taken, never another error.
    for (let i = 0; i < 10; i++) {
      const bytes = Buffer.from(whole);
      const at = Math.floor((i / 10) * (whole.length - 200)) + 60;
      bytes.writeUInt8(bytes.readUInt8(at) ^ 0xff, at);
      const said = await refused(bytes);
      expect(said)
        .withContext(`byte ${at}`)
        .not.toMatch(/^thrown/);
      // What no reader of zips looks at, such as a time, may be anything: all that is kept has its hash.
      if (said !== 'taken') missed++;
    }
    expect(missed).toBeGreaterThan(5);
    const before = readdirSync(path.join(folder, 'pg'));
    const { status, stderr } = keep(folder, 'restore', broken);
    expect(status).toBe(1);
    expect(stderr).toContain('This backup can’t be used');
    expect(readdirSync(path.join(folder, 'pg'))).toEqual(before);
    const again = await startShop(folder);
    expect(((await call(again, 'GET', '/api/builds')).body as unknown[]).length).toBe(1);
    await again.stop();
  });

  it('three, one of seven days, four weeks and twelve months are kept', () => {
    const now = new Date('2026-11-30T12:00:00Z');
    const hours = (n: number): string => nameAt(new Date(now.getTime() - n * 3_600_000), 'day');
    const names = Array.from({ length: 24 * 400 }, (_, i) => hours(i));
    const kept = keptOf(names, now);
    expect(kept.size).toBeLessThanOrEqual(3 + 7 + 4 + 12);
    for (const n of [0, 1, 2])
      expect(kept.has(hours(n)))
        .withContext(`${n} h`)
        .toBeTrue();
    expect(kept.has(hours(3))).toBeFalse();
    // As it goes, day by day: what is thrown away is not there any more when it would have grown old.
    let there: string[] = [];
    const days = (n: number): Date => new Date(now.getTime() - n * 86_400_000);
    for (let day = 400; day >= 0; day--) {
      const all = [...there, nameAt(days(day), 'day')];
      const left = keptOf(all, days(day));
      there = all.filter((name) => left.has(name));
    }
    const ages = Array.from({ length: 401 }, (_, n) => n).filter((n) => there.includes(nameAt(days(n), 'day')));
    expect(ages.slice(0, 7)).toEqual([0, 1, 2, 3, 4, 5, 6]);
    const between = (from: number, to: number): number => ages.filter((n) => n >= from && n < to).length;
    expect(between(14, 28)).toBeGreaterThan(0);
    expect(between(60, 180)).toBe(4);
    expect(between(300, 360)).toBeGreaterThan(0);
    // What is no backup of ours is left alone.
    expect(keptOf(['holiday.zip'], now).size).toBe(0);
    // Of two within a second the later one is the last by its name too.
    const [first, soon] = [nameAt(now, 'start'), new Date(now.getTime() + 300)];
    expect([first, nameAt(after(first, soon), 'hand')].sort().at(-1)).toContain('-hand');
    expect(after(first, new Date(now.getTime() + 5000))).toEqual(new Date(now.getTime() + 5000));
    expect(after(undefined, now)).toEqual(now);
  });
});
