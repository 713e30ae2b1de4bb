import { alone as test, expect } from './bench';
import { jobOf, openStep } from './job';
import { dataFolder, freePort, startServer } from './server';

/** A picture of one point. */
const DOT = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

interface Entry {
  readonly kind: string;
  readonly who: string;
  readonly subject?: { readonly what: string };
}

test('over plain http from another device of the shop: readings, Done, Brief, a photo, a reload; the first write asks for a name', async ({
  browser,
  playwright,
}) => {
  test.setTimeout(120_000);
  const port = await freePort();
  const server = await startServer(dataFolder(), port, { HOST: '0.0.0.0', HOT_SPLINE_OPEN: '1' });
  const request = await playwright.request.newContext({ baseURL: `http://127.0.0.1:${port}` });
  const context = await browser.newContext({ baseURL: `http://shop.test:${port}` });
  const page = await context.newPage();
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  // Set up once, and no step of its work is done: the first one is open.
  const bench = await jobOf(page, request, 'dunnock-rally-saloon', () => undefined, [
    'assembly',
    'backlash',
    'pattern',
  ]);
  const { id } = bench;
  const ledger = async (): Promise<Entry[]> =>
    (await (await request.get(`/api/builds/${id}/ledger`)).json()) as Entry[];
  const before = await ledger();

  await bench.open('mesh');
  await expect(page.getByRole('note')).toContainText('Open to the network');
  expect(
    await page.evaluate(() => [
      isSecureContext,
      'randomUUID' in crypto,
      crypto.subtle === undefined,
      'locks' in navigator,
    ]),
  ).toEqual([false, false, true, false]);
  // A reading: the device was never asked who works on it.
  const places = await page
    .locator('#backlash-1-rear')
    .evaluate((input: HTMLInputElement) => input.labels?.[0]?.textContent ?? '');
  expect(places).toContain('Backlash');
  await page.locator('#backlash-1-rear').fill(Array(8).fill('0.15 mm').join('; '));
  await page.locator('#backlash-1-rear').press('Enter');
  const ask = page.getByRole('dialog', { name: 'Who works here' });
  await expect(ask).toContainText('Asked once');
  await expect(ask.getByRole('button', { name: 'Keep' })).toBeDisabled();
  expect((await ledger()).length).toBe(before.length);
  await ask.getByRole('textbox').fill('Mo');
  await ask.getByRole('button', { name: 'Keep' }).click();
  await expect(ask).toBeHidden();
  await bench.saved();
  const read = (await ledger()).at(-1);
  expect([read?.subject?.what, read?.who]).toEqual(['backlash', 'Mo']);

  // Done: the first step of the work that asks for nothing but a word.
  await bench.open('work');
  await openStep(page).click();
  const done = page.getByRole('button', { name: /^Done/ });
  await expect(done).toBeVisible();
  for (const group of await page.locator('hs-work-step article').getByRole('radiogroup').all())
    await group.getByRole('radio').first().press('Space');
  await expect(done).toBeEnabled();
  await done.click();
  await expect
    .poll(async () => (await ledger()).filter(({ subject }) => subject?.what === 'step').length)
    .toBeGreaterThan(0);
  // Brief: a change of the specification.
  await bench.open('brief');
  const vehicle = page.getByLabel('Vehicle', { exact: true });
  await vehicle.fill('Saloon seen from the bench');
  await vehicle.press('Enter');
  await bench.saved();
  // A photo: its hash is made without the browser's help.
  await bench.open('baseline?tab=sheet');
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'page.png', mimeType: 'image/png', buffer: DOT });
  await expect.poll(async () => (await ledger()).at(-1)?.subject?.what).toBe('sheet-photo');
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByRole('dialog', { name: 'Who works here' })).toHaveCount(0);
  const stored = (await bench.stored(request)) as unknown as { build: { vehicle: string } };
  expect(stored.build.vehicle).toBe('Saloon seen from the bench');
  const since = (await ledger()).slice(before.length);
  expect(since.map(({ who }) => who)).toEqual(since.map(() => 'Mo'));
  expect(errors).toEqual([]);
  await context.close();
  await request.dispose();
  server.kill('SIGTERM');
});
