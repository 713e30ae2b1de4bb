import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import fs, { mkdtempSync, mkdirSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { FORMAT_VERSION, newBuild } from '@hot-spline/model';
import { FolderInUse, LOCK_FILE, lockFolder } from './db/folder-lock';
import { migrate, readMigrations } from './db/migrate';
import { openPglite } from './db/pglite';
import { PortInUse, ROOT, type Running } from './serve';
import { call, freshFolder, startShop } from './testing/shop';

const SHOP = [process.execPath, '--import', 'tsx', 'server/src/main.ts'] as const;
const shopOf = (folder: string, env: Record<string, string> = {}) => ({
  cwd: fileURLToPath(ROOT),
  env: { ...process.env, PORT: '0', HOT_SPLINE_DATA: folder, LOG_LEVEL: 'silent', HOT_SPLINE_BACKUPS: 'none', ...env },
});
/** A server in a process of its own, so that it can be killed. */
async function spawnShop(
  folder: string,
  env: Record<string, string> = {},
): Promise<{ process: ChildProcess; shop: Running }> {
  const [node, ...args] = SHOP;
  const child = spawn(node, args, { ...shopOf(folder, env), stdio: ['ignore', 'pipe', 'pipe'] });
  const url = await new Promise<string>((resolve, reject) => {
    let text = '';
    child.stdout.on('data', (chunk) => {
      text += String(chunk);
      const match = /is at (\S+)/.exec(text);
      if (match?.[1]) resolve(match[1]);
    });
    child.on('exit', (code) => reject(new Error(`the server left with ${code}: ${text}`)));
  });
  return { process: child, shop: { url } as Running };
}

const gone = (child: ChildProcess): Promise<void> => new Promise((resolve) => child.once('exit', () => resolve()));

describe('durability', () => {
  it('every commit reaches the disk with an fsync', async () => {
    const db = await openPglite(path.join(await freshFolder(), 'pg'));
    const sync = spyOn(fs, 'fsyncSync').and.callThrough();
    const commits = 20;
    for (let i = 0; i < commits; i++)
      await db.query('insert into settings (key, value) values ($1, $2)', [`k${i}`, 'v']);
    expect(sync.calls.count()).toBeGreaterThanOrEqual(commits);
    await db.close();
  });

  it('an acknowledged write survives kill -9, and the lock is free again', async () => {
    const folder = await freshFolder();
    const first = await spawnShop(folder);
    const ids = Array.from({ length: 5 }, () => randomUUID());
    for (const id of ids) {
      const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build: newBuild(id), ledger: [] };
      expect((await call(first.shop, 'POST', '/api/builds', { id, file })).status).toBe(201);
    }
    const dead = gone(first.process);
    first.process.kill('SIGKILL');
    await dead;
    const again = await startShop(folder);
    for (const id of ids) expect((await call(again, 'GET', `/api/builds/${id}`)).body.build.name).toBe(id);
    await again.stop();
  });

  it('a second process on the folder is refused and says what to do', async () => {
    const folder = await freshFolder();
    const shop = await startShop(folder);
    await expectAsync(startShop(folder)).toBeRejectedWithError(FolderInUse, /in use/);
    await expectAsync(spawnShop(folder)).toBeRejectedWithError(/left with 1/);
    await shop.stop();
    const next = await startShop(folder);
    expect((await call(next, 'GET', '/api/health')).body.ok).toBeTrue();
    await next.stop();
  });

  it('a lock file left behind by name is no lock; one that answers is, whoever sees it', async () => {
    // Longer than a socket’s path may be.
    const folder = path.join(mkdtempSync(path.join(tmpdir(), 'hot-spline-lock-')), 'x'.repeat(100));
    mkdirSync(folder);
    const first = await lockFolder(folder);
    await expectAsync(lockFolder(folder)).toBeRejectedWithError(FolderInUse);
    await first.release();
    expect(fs.readdirSync(folder)).toEqual([]);
    // As a dead process leaves it: a socket file that nobody listens at.
    const holder = spawn(process.execPath, [
      '-e',
      `process.chdir(${JSON.stringify(folder)}); require('net').createServer().listen('${LOCK_FILE}', () => console.log('up'))`,
    ]);
    await new Promise((resolve) => holder.stdout.once('data', resolve));
    // It has not the name of this namespace, as one in another container hasn’t: the file tells.
    await expectAsync(lockFolder(folder)).toBeRejectedWithError(FolderInUse);
    const dead = gone(holder);
    holder.kill('SIGKILL');
    await dead;
    expect(fs.existsSync(path.join(folder, LOCK_FILE))).toBeTrue();
    const other = await lockFolder(folder);
    expect(other.holds()).toBeTrue();
    // Somebody takes the file away and puts another there: the lock is not ours any more.
    fs.rmSync(path.join(folder, LOCK_FILE));
    expect(other.holds()).toBeFalse();
    await other.release();
  });

  it('two processes in two network namespaces do not open one folder', async () => {
    if (spawnSync('unshare', ['-n', 'true']).status !== 0)
      return pending('no right to make a network namespace here: `unshare -n` says no');
    const folder = await freshFolder();
    const first = await spawnShop(folder);
    const second = spawnSync('unshare', ['-n', ...SHOP], { ...shopOf(folder), encoding: 'utf8' });
    expect(second.status).toBe(1);
    expect(second.stderr).toContain('in use by another Hot Spline');
    const left = gone(first.process);
    first.process.kill('SIGTERM');
    await left;
    expect(first.process.exitCode).toBe(0);
  });

  it('a server whose folder is taken from it leaves, with a code for who watches over it', async () => {
    const folder = await freshFolder();
    const { process: server } = await spawnShop(folder);
    const left = gone(server);
    fs.rmSync(path.join(folder, LOCK_FILE));
    await left;
    expect(server.exitCode).toBe(70);
  });

  it('told to stop while it starts, or just as it says where it is, it leaves in order', async () => {
    const folder = await freshFolder();
    const lock = path.join(folder, LOCK_FILE);
    const [node, ...args] = SHOP;
    const starting = spawn(node, args, { ...shopOf(folder), stdio: 'ignore' });
    const left = gone(starting);
    while (!fs.existsSync(lock)) await new Promise((resolve) => setImmediate(resolve));
    starting.kill('SIGTERM');
    await left;
    expect([starting.exitCode, fs.existsSync(lock)]).toEqual([0, false]);
    const { process: server } = await spawnShop(folder);
    const over = gone(server);
    server.kill('SIGTERM');
    await over;
    expect([server.exitCode, fs.existsSync(lock)]).toEqual([0, false]);
  });

  it('leaves with a code where its database never comes back', async () => {
    const folder = await freshFolder();
    // Its thread turns round and round as soon as it is told to close, as PGlite does where it finds no room for its log.
    const spin =
      "import { isMainThread, parentPort } from 'node:worker_threads'; " +
      "if (!isMainThread) parentPort?.on('message', (m) => { if (m.kind === 'close') for (;;); });";
    const { process: server } = await spawnShop(folder, {
      NODE_OPTIONS: `--import=data:text/javascript,${encodeURIComponent(spin)}`,
    });
    const left = gone(server);
    server.kill('SIGTERM');
    await left;
    expect(server.exitCode).toBe(70);
  });

  it('a busy port is reported as such, and the folder let go', async () => {
    const folder = await freshFolder();
    const blocker = net.createServer().listen(0, '127.0.0.1');
    await new Promise((resolve) => blocker.once('listening', resolve));
    const { port } = blocker.address() as net.AddressInfo;
    await expectAsync(startShop(folder, { PORT: String(port) })).toBeRejectedWithError(PortInUse);
    blocker.close();
    await (await startShop(folder)).stop();
  });
});

describe('migrations', () => {
  it('are applied once, forward only, and watched', async () => {
    const db = await openPglite(path.join(await freshFolder(), 'pg'));
    const known = readMigrations();
    expect(await migrate(db, known)).toEqual([]);
    const more = {
      name: '9998_more.sql',
      sql: 'create table more (n integer)\n--;\ninsert into more values (1)',
      hash: 'a',
    };
    expect(await migrate(db, [...known, more])).toEqual(['9998_more.sql']);
    await expectAsync(migrate(db, [...known, { ...more, hash: 'b' }])).toBeRejectedWithError(/9998_more.sql changed/);
    await expectAsync(migrate(db, known)).toBeRejectedWithError(/newer than this program/);
    const broken = {
      name: '9999_broken.sql',
      sql: 'create table half (n integer)\n--;\nselect from nowhere',
      hash: 'c',
    };
    await expectAsync(migrate(db, [...known, more, broken])).toBeRejectedWithError(/9999_broken.sql failed/);
    await expectAsync(db.query('select * from half')).toBeRejected();
    await db.close();
  });
});

describe('demo data', () => {
  it('is put in once, and not again after it was changed', async () => {
    const folder = await freshFolder();
    const shop = await startShop(folder, { HOT_SPLINE_DEMO: '1' });
    const builds = (await call(shop, 'GET', '/api/builds')).body as { id: string }[];
    const files = fs.readdirSync(new URL('demo/', ROOT)).filter((name) => name.endsWith('.json'));
    expect(builds.length).toBe(files.length);
    await call(shop, 'POST', `/api/builds/${builds[0]?.id}/archive`, { archived: true });
    await shop.stop();
    const again = await startShop(folder, { HOT_SPLINE_DEMO: '1' });
    const after = (await call(again, 'GET', '/api/builds')).body as { archived: boolean }[];
    expect(after.filter((b) => b.archived).length).toBe(1);
    await again.stop();
  });
});
