import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdtempSync, readFileSync, readdirSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Bench, alone as test, expect, ownShop } from './bench';
import { kill, startServer } from './server';

const root = fileURLToPath(new URL('..', import.meta.url));
const typedOf = async (answer: Promise<{ json(): Promise<unknown> }>): Promise<string> =>
  JSON.stringify(await (await answer).json());

test.describe('what this device keeps', () => {
  test('nothing, where its browser refuses: the app opens, says so, and what the server has not is said to be nowhere', async ({
    page,
    playwright,
  }) => {
    const { folder, port, base, server, request, id } = await ownShop(playwright);
    // As a browser that blocks what a page keeps: the names themselves throw.
    await page.addInitScript(() => {
      const refuse = () => {
        throw new DOMException('Access is denied for this document.', 'SecurityError');
      };
      for (const name of ['localStorage', 'sessionStorage', 'indexedDB', 'caches'])
        Object.defineProperty(window, name, { get: refuse });
    });
    const bench = new Bench(page, id);
    await page.goto(`${base}/builds/${id}/mesh`);
    await expect(page.getByText('keeps nothing on this device')).toBeVisible();
    await bench.enter('Backlash, again from place 1', '9; 9; 9; 9; 8; 8; 8; 8');
    const ask = page.getByRole('dialog', { name: 'Who works here' });
    await ask.getByRole('textbox').fill('Mo');
    await ask.getByRole('button', { name: 'Keep' }).click();
    await expect.poll(() => typedOf(request.get(`/api/builds/${id}/ledger`))).toContain('"who":"Mo"');
    await kill(server);
    const round = '8.25; 8; 8; 8; 7; 7; 7; 7';
    await bench.enter('Backlash, again from place 1', round);
    await expect(page.getByText(/Not recorded: this device could not keep it/)).toBeVisible();
    await expect(bench.field('Backlash, again from place 1')).toHaveValue(round);
    const again = await startServer(folder, port);
    await bench.field('Backlash, again from place 1').press('Enter');
    await expect.poll(() => typedOf(request.get(`/api/builds/${id}/ledger`))).toContain('"typed":"8.25');
    await request.dispose();
    again.kill('SIGTERM');
  });

  test('no more, where it is full: what goes to the server is kept, and the next reading too', async ({
    drift,
    page,
    request,
  }) => {
    await drift.open('mesh');
    await expect(drift.figure('mesh.rear.backlash')).toBeVisible();
    await page.evaluate(() => {
      const add = IDBObjectStore.prototype.add;
      IDBObjectStore.prototype.add = function (this: IDBObjectStore, ...args: Parameters<typeof add>) {
        if (this.name === 'writes') throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
        return add.apply(this, args);
      };
    });
    await drift.enter('Backlash, again from place 1', '9; 9; 9; 9');
    await drift.enter('Backlash, place 5 of 8', '8; 8; 8; 8');
    await expect(drift.figure('mesh.rear.backlash')).toContainText('8.5');
    await expect(page.getByText('No room on this device')).toBeVisible();
    await expect.poll(() => typedOf(request.get(`/api/builds/${drift.id}/ledger`))).toContain('"typed":"8 thou"');
  });

  test('a new build, readings and a photo made while the server is away are there when it is back', async ({
    browser,
    playwright,
  }) => {
    test.setTimeout(120_000);
    const { folder, port, base, server: first, request, id } = await ownShop(playwright);
    let server = first;
    const context = await browser.newContext({ baseURL: base });
    const page = await context.newPage();
    await page.addInitScript(() => localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Edda' })));
    await page.goto(`/builds/${id}/pack?tab=inspect`);
    const bench = new Bench(page, id);
    await page.getByRole('button', { name: 'Look at left 1 steel' }).click();
    await kill(server);
    const picture = await page.evaluate(async () => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [40, 30];
      const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve));
      return [...new Uint8Array((await blob?.arrayBuffer()) ?? new ArrayBuffer())];
    });
    await page
      .getByLabel(/^Photo of/)
      .first()
      .setInputFiles({ name: 'plate.png', mimeType: 'image/png', buffer: Buffer.from(picture) });
    const photo = page.locator('hs-photo-taker img').first();
    await expect(photo).toHaveAttribute('src', /^blob:/);
    await expect.poll(() => photo.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0);
    await expect(page.locator('.saving')).toContainText('kept here');
    server = await startServer(folder, port);
    await bench.saved();
    const { build } = await bench.stored(request);
    const hash = /"photos":\["([0-9a-f]{64})"/.exec(JSON.stringify(build))?.[1] ?? 'none';
    expect((await request.get(`/api/photos/${hash}`)).status()).toBe(200);
    await context.close();
    await request.dispose();
    server.kill('SIGTERM');
  });

  test('a tab that was opened on another shop writes nothing into this one', async ({ page, playwright }) => {
    const { port, base, server: first, request, id } = await ownShop(playwright);
    const bench = new Bench(page, id);
    await page.goto(`${base}/builds/${id}/mesh`);
    await bench.enter('Backlash, again from place 1', '9; 9; 9; 9; 8; 8; 8; 8');
    await bench.saved();
    await kill(first);
    // The same address, the same build, copied there once: another shop all the same.
    const other = await startServer(mkdtempSync(path.join(tmpdir(), 'hot-spline-other-')), port);
    await request.post('/api/builds', {
      data: { id, file: await (await request.get(`/api/builds/${id}/export`)).json() },
      failOnStatusCode: false,
    });
    await bench.enter('Backlash, again from place 1', '8.25; 8; 8; 8; 7; 7; 7; 7');
    await expect(page.getByRole('button', { name: /Another shop: 1 wait/ })).toBeVisible();
    expect(await typedOf(request.get(`/api/builds/${id}/ledger`))).not.toContain('8.25');
    await request.dispose();
    other.kill('SIGTERM');
  });

  test('a clock that was set back changes nothing: what was read last stands', async ({ drift, page }) => {
    await drift.open('mesh');
    await drift.enter('Backlash, again from place 1', '9; 9; 9; 9');
    await drift.enter('Backlash, place 5 of 8', '8; 8; 8; 8');
    await expect(drift.figure('mesh.rear.backlash')).toContainText('8.5');
    await page.clock.setFixedTime(new Date('2019-02-03T04:05:00Z'));
    await drift.enter('Backlash, again from place 1', '7; 7; 7; 7');
    await drift.enter('Backlash, place 5 of 8', '6; 6; 6; 6');
    await expect(drift.figure('mesh.rear.backlash')).toContainText('6.5');
    await drift.saved();
    await page.reload();
    await expect(drift.figure('mesh.rear.backlash')).toContainText('6.5');
  });

  test('an app of before goes on against a newer server, takes readings, and is renewed when it is reloaded', async ({
    browser,
    playwright,
  }) => {
    test.setTimeout(120_000);
    // The program as it is, and as it will be: another page, told to the worker as a build tells it.
    const newer = mkdtempSync(path.join(tmpdir(), 'hot-spline-newer-'));
    cpSync(path.join(root, 'dist'), path.join(newer, 'dist'), { recursive: true });
    for (const name of ['node_modules', 'demo', 'core', 'model', 'package.json'])
      if (existsSync(path.join(root, name))) symlinkSync(path.join(root, name), path.join(newer, name));
    const web = path.join(newer, 'dist/web/browser');
    const page2 = readFileSync(path.join(web, 'index.html'), 'utf8').replace('<head>', '<head><meta name="newer">');
    writeFileSync(path.join(web, 'index.html'), page2);
    const told = JSON.parse(readFileSync(path.join(web, 'ngsw.json'), 'utf8')) as {
      timestamp: number;
      hashTable: Record<string, string>;
    };
    told.timestamp += 1;
    told.hashTable['/index.html'] = createHash('sha1').update(page2).digest('hex');
    writeFileSync(path.join(web, 'ngsw.json'), JSON.stringify(told));
    expect(readdirSync(web)).toContain('ngsw-worker.js');

    const { folder, port, base, server: first, request, id } = await ownShop(playwright);
    let server = first;
    const context = await browser.newContext({ serviceWorkers: 'allow', baseURL: base });
    const page = await context.newPage();
    await page.addInitScript(() => {
      if (localStorage.getItem('hot-spline.ui') === null)
        localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Edda' }));
    });
    const bench = new Bench(page, id);
    await page.goto(`/builds/${id}/mesh`);
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await page.reload();
    await expect(bench.figure('mesh.rear.backlash')).toBeVisible();
    await kill(server);
    server = await startServer(folder, port, {}, newer);
    await bench.enter('Backlash, again from place 1', '9; 9; 9; 9');
    await bench.enter('Backlash, place 5 of 8', '8; 8; 8; 8');
    await bench.saved();
    // The worker finds it when it is asked, as it is at every start.
    await expect
      .poll(
        async () => {
          await page.reload();
          await expect(bench.figure('mesh.rear.backlash')).toContainText('8.5');
          return page.locator('meta[name=newer]').count();
        },
        { timeout: 60_000 },
      )
      .toBe(1);
    await context.close();
    await request.dispose();
    server.kill('SIGTERM');
  });
});
