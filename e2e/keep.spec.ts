import { readFileSync } from 'node:fs';
import { Bench, demoFile, expect, ownShop, test } from './bench';
import { kill, startServer } from './server';

test.describe('story 5: keep', () => {
  test('undo and redo, and what was saved is there after a reload', async ({ drift, page, request }) => {
    await drift.open('gearing');
    await drift.enter('Ring teeth', '41');
    await drift.enter('Pinion teeth', '11');
    await expect(drift.figure('gearing.rear.final')).toHaveText('3.727');
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(drift.figure('gearing.rear.final')).toHaveText('4.100');
    await page.locator('h1').click();
    await page.keyboard.press('Control+z');
    await expect(drift.figure('gearing.rear.final')).toHaveText('4.300');
    await page.keyboard.press('Control+y');
    await page.keyboard.press('Control+Shift+z');
    await expect(drift.figure('gearing.rear.final')).toHaveText('3.727');
    await drift.saved();
    await page.reload();
    await expect(drift.figure('gearing.rear.final')).toHaveText('3.727');
    expect((await drift.stored(request)).version).toBeGreaterThan(1);
  });

  test('a reload in the middle of typing loses nothing', async ({ drift, page }) => {
    await drift.open('pack?tab=measure');
    await drift.field('8 shim right').pressSequentially('34.5 th');
    await page.reload();
    await expect(drift.field('8 shim right')).toHaveValue('34.5 th');
    await drift.field('8 shim right').press('Enter');
    await expect(drift.field('8 shim right')).toHaveValue('34.5 th');
    await expect(drift.finding(/2 of 18 pieces not measured/)).toBeVisible();
    await drift.open('gearing');
    await drift.field('Tyre').fill('245/4');
    await page.reload();
    await expect(drift.field('Tyre')).toHaveValue('245/4');
  });

  test('while the server is away, changes wait here and go later', async ({ drift, page, request }) => {
    await drift.open('pack?tab=measure');
    await page.route('**/api/builds/**', (route) => route.abort());
    await drift.enter('8 shim right', '35 thou');
    await expect(page.locator('.saving')).toContainText('1 change waits, kept here');
    await page.unroute('**/api/builds/**');
    await page.reload();
    await expect(drift.finding('Right stack on target')).toBeVisible();
    await expect
      .poll(async () => ((await (await request.get(`/api/builds/${drift.id}/ledger`)).json()) as unknown[]).length)
      .toBe(demoFile('kittiwake-drift-coupe').ledger.length + 1);
  });

  test('a stale change is refused with both versions, and the screen offers what to keep', async ({
    drift,
    page,
    request,
  }) => {
    // A page that does not hear of it before it writes itself.
    await page.route('**/api/changes*', (route) => route.abort());
    await drift.open('gearing');
    const other = demoFile('kittiwake-drift-coupe').build;
    other.axles.rear.finalDrive = { ring: 37, pinion: 9 };
    await request.put(`/api/builds/${drift.id}`, {
      data: { writeId: crypto.randomUUID(), baseVersion: 1, who: 'Ben', build: other },
    });
    await drift.enter('Ring teeth', '41');
    const dialog = page.getByRole('dialog', { name: 'Changed elsewhere' });
    const row = dialog.getByRole('row', { name: /Rear axle: final drive/ });
    await expect(row).toContainText('41/10');
    await expect(row).toContainText('37/9');
    await expect(dialog).toContainText('by Ben');
    await page.getByRole('button', { name: /Take theirs/ }).click();
    await expect(drift.figure('gearing.rear.final')).toHaveText('4.111');
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(drift.figure('gearing.rear.final')).toHaveText('4.100');
    await drift.saved();
    expect((await drift.stored(request)).version).toBe(3);
  });

  test('changes to different places are put together without a question', async ({ drift, page, request }) => {
    await drift.open('gearing');
    const other = demoFile('kittiwake-drift-coupe').build;
    other.notes = 'from the office';
    await request.put(`/api/builds/${drift.id}`, {
      data: { writeId: crypto.randomUUID(), baseVersion: 1, build: other },
    });
    await drift.enter('Ring teeth', '41');
    await expect.poll(async () => (await drift.stored(request)).version).toBe(3);
    const { build } = await drift.stored(request);
    expect(build).toMatchObject({ notes: 'from the office', axles: { rear: { finalDrive: { ring: 41 } } } });
    await expect(page.getByRole('dialog', { name: 'Changed elsewhere' })).toHaveCount(0);
  });

  test('what the server does not take is kept where it can be seen, and sent again', async ({
    drift,
    page,
    request,
  }) => {
    await drift.open('pack?tab=measure');
    let refuse = true;
    await page.route('**/ledger', (route) =>
      refuse && route.request().method() === 'POST'
        ? route.fulfill({ status: 404, contentType: 'text/html', body: '<h1>Not here</h1>' })
        : route.fallback(),
    );
    await drift.enter('Case depth left', '0.7430 in');
    await page.getByRole('button', { name: /1 not taken/ }).click();
    const panel = page.getByRole('dialog', { name: 'Not taken' });
    await expect(panel).toContainText('case depth');
    await page.keyboard.press('Escape');
    await page.reload();
    await page.getByRole('button', { name: /1 not taken/ }).click();
    refuse = false;
    await panel.getByRole('button', { name: 'Send again' }).click();
    await expect(page.getByRole('button', { name: /not taken/ })).toHaveCount(0);
    const lastSubject = async (): Promise<string | undefined> => {
      const answer = await request.get(`/api/builds/${drift.id}/ledger`);
      return ((await answer.json()) as { subject?: { what: string } }[]).at(-1)?.subject?.what;
    };
    await expect.poll(lastSubject).toBe('case-depth');
  });

  test('another tab takes over what was saved in this one', async ({ drift, page, context }) => {
    await drift.open('gearing');
    const second = await context.newPage();
    const mirror = new Bench(second, drift.id);
    await mirror.open('gearing');
    await drift.enter('Ring teeth', '41');
    await expect(mirror.figure('gearing.rear.final')).toHaveText('4.100');
    await mirror.enter('Pinion teeth', '11');
    await expect(drift.figure('gearing.rear.final')).toHaveText('3.727');
    await expect(page.getByRole('dialog', { name: 'Changed elsewhere' })).toHaveCount(0);
  });

  test('a reading is voided with a reason and stays in the ledger', async ({ drift, page }) => {
    await drift.open('ledger');
    // Only rows in sight are drawn: what is looked for is filtered.
    const packs = page.getByLabel('Filter the ledger');
    await packs.fill('right pack');
    await expect(page.locator('tbody tr.void')).toHaveCount(1);
    await page.getByRole('button', { name: /^Void Rear, right pack: 7 friction/ }).click();
    await drift.field('Reason').fill(' ');
    await drift.field('Reason').press('Enter');
    await expect(page.locator('.wrong [id$="-said"]')).toContainText('Reason must say why');
    await drift.enter('Reason', 'Dropped the plate');
    await expect(page.locator('tbody tr.void')).toHaveCount(2);
    await expect(page.locator('tbody').first()).toContainText('void: Dropped the plate');
    await page.reload();
    await packs.fill('right pack');
    await expect(page.locator('tbody tr.void')).toHaveCount(2);
  });

  test('export and import bring the same build back', async ({ drift, page, request }) => {
    await drift.open('gearing');
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Export this build' }).click(),
    ]);
    const file = await download.path();
    const out = JSON.parse(readFileSync(file, 'utf8'));
    // The kept document as this program keeps it: nothing of it is lost on the way in.
    const kept = demoFile('kittiwake-drift-coupe');
    expect([out.build.name, out.ledger]).toEqual([kept.build.name, kept.ledger]);
    expect(out.build.axles.rear.unit.plate).toEqual({ frictionFrom: null, ...kept.build.axles.rear.unit.plate });
    await page.goto('/');
    await page.getByLabel('Build file to import').setInputFiles(file);
    await expect(page.getByRole('alert')).toContainText('is here already');
    await page.getByRole('button', { name: 'Keep both' }).click();
    await expect(page).toHaveURL(/\/builds\/[0-9a-f-]{36}\/work/);
    const id = /builds\/([0-9a-f-]{36})/.exec(page.url())?.[1];
    expect(id).not.toBe(drift.id);
    expect(await (await request.get(`/api/builds/${id}/export`)).json()).toEqual(out);
  });

  test('a build of a name that is here is left out, or takes the place of the one that is put away', async ({
    page,
    request,
  }) => {
    const file = demoFile('wren-hill-climb');
    file.build.name = `Twice ${crypto.randomUUID().slice(0, 8)}`;
    const buffer = Buffer.from(JSON.stringify(file));
    const first = crypto.randomUUID();
    await request.post('/api/builds', { data: { id: first, file } });
    const named = async (): Promise<{ id: string; archived: boolean }[]> =>
      (await (await request.get('/api/builds')).json()).filter(
        ({ name }: { name: string }) => name === file.build.name,
      );
    const bring = async (how: string): Promise<void> => {
      await page.goto('/');
      await expect(page.getByRole('heading', { name: 'Builds' })).toBeVisible();
      const upload = { name: 'twice.json', mimeType: 'application/json', buffer };
      await page.getByLabel('Build file to import').setInputFiles(upload);
      await page.getByRole('button', { name: how }).click();
      await expect(page.getByRole('alert')).toHaveCount(0);
    };
    await bring('Leave it out');
    expect((await named()).length).toBe(1);
    await bring('Replace: put mine away');
    await expect.poll(async () => (await named()).length).toBe(2);
    expect((await named()).find(({ id }) => id === first)?.archived).toBe(true);
  });

  test('a file of a whole shop of before brings its library, and nothing twice', async ({ page, request }) => {
    const known = (await (await request.get('/api/library')).json()) as { spec: { name: string } }[];
    expect(known.length).toBeGreaterThan(5);
    const { formatVersion } = demoFile('kittiwake-drift-coupe');
    const shop = { format: 'hot-spline/shop-file', formatVersion, library: known.map(({ spec }) => spec) };
    const name = `Story axle ${crypto.randomUUID().slice(0, 8)}`;
    const library = [shop.library[0], { ...shop.library[0], name }];
    const file = { format: shop.format, formatVersion: shop.formatVersion, builds: [], library };
    await page.goto('/');
    await page.getByLabel('Build file to import').setInputFiles({
      name: 'shop.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(file)),
    });
    await expect(page.getByText('1 taken, 1 were here already.')).toBeVisible();
    const specs = await (await request.get('/api/library')).json();
    expect(specs.filter((one: { spec: { name: string } }) => one.spec.name === name).length).toBe(1);
  });

  test('the archive of one shop comes into another beside what is there, and is seen when all of it is', async ({
    page,
    playwright,
    request,
  }) => {
    const { base, server, request: there, id } = await ownShop(playwright);
    const name = `Sandpiper ${crypto.randomUUID().slice(0, 8)}`;
    const file = await (await there.get(`/api/builds/${id}/export`)).json();
    const build = crypto.randomUUID();
    await there.post('/api/builds', { data: { id: build, file: { ...file, build: { ...file.build, name } } } });
    await page.goto(base);
    await page.getByRole('button', { name: 'Archive' }).click();
    await page.getByLabel('Customers’ names and addresses too').uncheck();
    const [saved] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Save the archive' }).click(),
    ]);
    expect(saved.suggestedFilename()).toMatch(/^shop-.*\.hot-spline\.zip$/);
    const zip = await saved.path();
    const buffer = readFileSync(zip);
    await page.goto(`/?search=${encodeURIComponent(name)}`);
    // By the button for any file: an archive is known by its name.
    await page
      .getByLabel('Build file to import')
      .setInputFiles({ name: 'shop.hot-spline.zip', mimeType: 'application/zip', buffer });
    const panel = page.getByRole('region', { name: 'Bring an archive in' });
    await expect(panel.getByText(/^comes? in$/).first()).toBeVisible();
    expect((await request.get(`/api/builds/${build}`)).status()).toBe(404);
    await panel.getByRole('button', { name: 'Bring it in' }).click();
    await expect(panel.getByText('All of it is here.')).toBeVisible();
    await expect(page.locator('tbody tr', { hasText: name })).toHaveCount(1);
    expect(await (await request.get(`/api/builds/${build}/raw`)).json()).toEqual(
      await (await there.get(`/api/builds/${build}/raw`)).json(),
    );
    await panel.getByRole('button', { name: 'Choose another' }).click();
    await page.getByLabel('Archive to bring in').setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer });
    await expect(panel.getByText('are here already: nothing changes').first()).toBeVisible();
    await panel.getByRole('button', { name: 'Leave it' }).click();
    await there.dispose();
    await kill(server);
  });

  test('a broken file is refused by the name of its field', async ({ page }) => {
    await page.goto('/');
    const broken = demoFile('kittiwake-drift-coupe');
    delete broken.build.gearbox;
    const send = (name: string, text: string) =>
      page
        .getByLabel('Build file to import')
        .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
    await send('a.json', JSON.stringify(broken));
    await expect(page.getByText('build.gearbox is missing.')).toBeVisible();
    await send('b.json', 'not json');
    await expect(page.getByText('file “b.json” is not JSON.')).toBeVisible();
  });

  test('what was typed comes back as typed when the units are flipped', async ({ drift, page }) => {
    await drift.open('pack?tab=springs');
    await drift.enter('Tolerance ±', '.0035');
    await page.locator('h1').click();
    await page.keyboard.press('u');
    await expect(drift.field('Tolerance ±')).toHaveValue(/0\.089\smm/);
    await expect(drift.station('Packs')).toContainText('N·m');
    await page.keyboard.press('u');
    await expect(drift.field('Tolerance ±')).toHaveValue('.0035');
    await page.getByRole('radio', { name: 'metric' }).click();
    await page.reload();
    await expect(drift.station('Tyres')).toContainText('km/h');
  });
});

test.describe('kill and restart', () => {
  test('the server is killed while somebody works; everything is there afterwards', async ({ page, playwright }) => {
    test.setTimeout(120_000);
    const { folder, port, base, server: first, request, id } = await ownShop(playwright);
    let server = first;
    const bench = new Bench(page, id);
    await page.goto(`${base}/builds/${id}/gearing`);
    await bench.enter('Ring teeth', '41');
    await bench.saved();
    await kill(server);
    await bench.enter('Pinion teeth', '11');
    await expect(page.locator('.saving')).toContainText('kept here');
    server = await startServer(folder, port);
    await bench.saved();
    await page.reload();
    await expect(bench.figure('gearing.rear.final')).toHaveText('3.727');
    // The same in the middle of a set-up: half a round of backlash with the server, half without.
    await page.goto(`${base}/builds/${id}/mesh`);
    await bench.enter('Backlash, again from place 1', '9; 9; 9; 9');
    await kill(server);
    await bench.enter('Backlash, place 5 of 8', '8; 8; 8; 8');
    await expect(bench.figure('mesh.rear.backlash')).toContainText('8.5');
    await expect(page.locator('.saving')).toContainText('kept here');
    server = await startServer(folder, port);
    await bench.saved();
    await page.reload();
    await expect(bench.figure('mesh.rear.backlash')).toContainText('8.5');
    await request.dispose();
    server.kill('SIGTERM');
  });

  test('with the server away, a reload opens what this device knows, says so, and takes readings', async ({
    browser,
    playwright,
  }) => {
    test.setTimeout(120_000);
    const { folder, port, base, server: first, request, id } = await ownShop(playwright);
    let server = first;
    const context = await browser.newContext({ serviceWorkers: 'allow', baseURL: base });
    const page = await context.newPage();
    await page.addInitScript(() => {
      if (localStorage.getItem('hot-spline.ui') === null)
        localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Edda' }));
    });
    await page.goto(`${base}/builds/${id}/mesh`);
    await expect(page).toHaveTitle(/^Mesh · Kittiwake.* · Hot Spline$/);
    // Once the worker is in charge, everything that is read is kept.
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready;
      if (!navigator.serviceWorker.controller)
        await new Promise((resolve) => {
          navigator.serviceWorker.addEventListener('controllerchange', resolve, { once: true });
        });
    });
    await page.reload();
    const bench = new Bench(page, id);
    await expect(bench.figure('mesh.rear.backlash')).toBeVisible();
    await expect
      .poll(() =>
        page.evaluate(async () => (await caches.keys()).some((key) => key.includes('what-this-device-knows'))),
      )
      .toBe(true);
    await kill(server);
    await page.reload();
    await expect(page.locator('.saving')).toContainText('Server away');
    await bench.enter('Backlash, again from place 1', '9; 9; 9; 9');
    await bench.enter('Backlash, place 5 of 8', '8; 8; 8; 8');
    await expect(bench.figure('mesh.rear.backlash')).toContainText('8.5');
    await page.reload();
    await expect(bench.figure('mesh.rear.backlash')).toContainText('8.5');
    server = await startServer(folder, port);
    await expect(page.locator('.saving')).toContainText('Saved', { timeout: 45_000 });
    const ledger = (await (await request.get(`/api/builds/${id}/ledger`)).json()) as unknown[];
    expect(JSON.stringify(ledger)).toContain('"typed":"8 thou"');
    await context.close();
    await request.dispose();
    server.kill('SIGTERM');
  });
});
