import { execFileSync } from 'node:child_process';
import { X509Certificate, createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Browser, Page } from '@playwright/test';
import { alone as test, expect } from './bench';
import { dataFolder, freePort, startServer } from './server';

const root = fileURLToPath(new URL('..', import.meta.url));
const WORD = 'a long word of ours';

/** Signs in at the door; the page that was wanted is there then. */
async function signIn(page: Page, name: string, password = WORD): Promise<void> {
  await page.getByLabel('Name, as it stands').fill(name);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}

/** What the server says to this page’s own session. */
const asked = <T>(page: Page, url: string): Promise<{ status: number; body: T }> =>
  page.evaluate(async (at) => {
    const answer = await fetch(at);
    return { status: answer.status, body: (await answer.json()) as never };
  }, url);

const me = (page: Page, name: string) => page.getByRole('button', { name: `This device writes as ${name}` });

/** Another device of the shop, in by an invitation of the owner. */
async function invited(owner: Page, browser: Browser, role: string, name: string): Promise<Page> {
  await owner.goto('/people');
  await owner.getByLabel('Who', { exact: true }).selectOption({ label: role });
  await owner.getByRole('button', { name: 'Make an invitation' }).click();
  const link = await owner.getByRole('status').filter({ hasText: '/invited#' }).locator('code').innerText();
  const context = await browser.newContext({ baseURL: new URL(link).origin });
  const page = await context.newPage();
  await page.goto(link);
  await page.getByLabel('Name or initials').fill(name);
  await page.getByLabel('Password, eight').fill(WORD);
  await page.getByLabel('Once more').fill(WORD);
  await page.getByRole('button', { name: 'Come in' }).click();
  await expect(me(page, name)).toBeVisible();
  return page;
}

test('a shop opens to its network: an owner made on the machine, others invited, each in by name, out everywhere', async ({
  browser,
  context: here,
}) => {
  test.setTimeout(180_000);
  const [folder, port] = [dataFolder(), await freePort()];
  const first = await startServer(folder, port, { HOT_SPLINE_DEMO: '1' });
  const machine = await here.newPage();
  await machine.goto(`http://127.0.0.1:${port}/people`);
  await machine.getByLabel('Name, as it stands on what they write').fill('Ada');
  await machine.getByLabel('Password, eight').fill(WORD);
  await machine.getByLabel('Once more').fill('another word of ours');
  await machine.getByRole('button', { name: 'Make the owner' }).click();
  await expect(machine.getByRole('alert')).toContainText('not the same');
  await machine.getByLabel('Once more').fill(WORD);
  await machine.getByRole('button', { name: 'Make the owner' }).click();
  await expect(machine.getByRole('region', { name: 'People' })).toContainText('Ada');
  await machine.close();
  const gone = new Promise((resolve) => first.once('exit', resolve));
  first.kill('SIGTERM');
  await gone;

  const server = await startServer(folder, port, { HOST: '0.0.0.0' });
  const baseURL = `http://shop.test:${port}`;
  const office = await browser.newContext({ baseURL });
  const ada = await office.newPage();
  // What was wanted is there behind the door.
  await ada.goto('/library');
  await expect(ada.getByRole('heading', { name: 'Hot Spline' })).toBeVisible();
  await signIn(ada, 'Ada', 'not the word');
  await expect(ada.getByRole('alert')).toContainText('do not belong together');
  await signIn(ada, 'Ada');
  await expect(ada).toHaveURL(/\/library$/);
  await expect(me(ada, 'Ada')).toBeVisible();

  const bo = await invited(ada, browser, 'builds', 'Bo');
  const lu = await invited(ada, browser, 'looks', 'Lu');

  // What Bo writes is stamped with Bo, and Ada sees it without asking.
  const builds = (await asked<{ id: string; name: string }[]>(ada, '/api/builds')).body;
  const id = builds.find(({ name }) => name === 'Kittiwake')?.id ?? '';
  await ada.goto(`/builds/${id}/brief`);
  await bo.goto(`/builds/${id}/brief`);
  const vehicle = bo.getByLabel('Vehicle', { exact: true });
  await vehicle.fill('Coupé seen from two screens');
  await vehicle.press('Enter');
  await expect(ada.getByLabel('Vehicle', { exact: true })).toHaveValue('Coupé seen from two screens');
  interface Kept {
    who: string;
    build: { vehicle: string };
  }
  await expect.poll(async () => (await asked<Kept>(ada, `/api/builds/${id}`)).body.who).toBe('Bo');

  // Each sees the other, and where; on one field neither writes over the other unasked.
  await expect(ada.getByRole('list', { name: 'Also in this build' })).toContainText('Bo');
  await vehicle.fill('Typed by Bo');
  await expect(ada.getByText('Bo types here.')).toBeVisible();
  await ada.getByLabel('Vehicle', { exact: true }).fill('Written by Ada');
  await ada.getByLabel('Vehicle', { exact: true }).press('Enter');
  const asks = bo.getByRole('group', { name: 'Changed meanwhile, Vehicle' });
  await expect(asks).toBeVisible();
  await vehicle.press('Enter');
  expect((await asked<Kept>(ada, `/api/builds/${id}`)).body.build.vehicle).toBe('Written by Ada');
  await asks.getByRole('button', { name: 'Keep “Typed by Bo”' }).click();
  await expect(ada.getByLabel('Vehicle', { exact: true })).toHaveValue('Typed by Bo');
  await vehicle.fill('Once more by Bo');
  await ada.getByLabel('Vehicle', { exact: true }).fill('Coupé seen from two screens');
  await ada.getByLabel('Vehicle', { exact: true }).press('Enter');
  await asks.getByRole('button', { name: 'Take “Coupé seen from two screens”' }).click();
  await expect(vehicle).toHaveValue('Coupé seen from two screens');

  // Who looks is told so, and at once where something would be changed: nothing of it is shown as done, or waits to be sent.
  await lu.goto(`/builds/${id}/brief`);
  await expect(lu.getByRole('note')).toContainText('nothing that you change here is kept');
  await lu.getByLabel('Vehicle', { exact: true }).fill('Not by a looker');
  await lu.getByLabel('Vehicle', { exact: true }).press('Enter');
  await expect(lu.getByText('You look on here')).toBeVisible();
  await expect(lu.getByLabel('Vehicle', { exact: true })).toHaveValue('Coupé seen from two screens');
  await expect(lu.getByRole('button', { name: /not taken/ })).toHaveCount(0);
  expect((await asked<Kept>(ada, `/api/builds/${id}`)).body.build.vehicle).toBe('Coupé seen from two screens');

  // The bench tablet changes hands: Ada signs in on it once and sets a PIN, Bo too; then a tap and the PIN.
  await me(bo, 'Bo').click();
  await bo.getByText('Set a PIN').click();
  await bo.getByLabel('Your password').fill(WORD);
  await bo.getByLabel('PIN, 4 to 12').fill('2580');
  await bo.getByRole('button', { name: 'Keep the PIN' }).click();
  await expect(bo.getByText('My PIN and password')).toBeVisible();
  await bo.getByRole('link', { name: 'Sign in as somebody else' }).click();
  await signIn(bo, 'Ada');
  await expect(me(bo, 'Ada')).toBeVisible();
  await me(bo, 'Ada').click();
  await bo.getByRole('button', { name: 'Bo', exact: true }).click();
  await bo.getByLabel('PIN of Bo').fill('1111');
  await bo.getByRole('button', { name: 'Change to Bo' }).click();
  await expect(bo.getByRole('alert')).toContainText('not their PIN');
  await bo.getByLabel('PIN of Bo').fill('2580');
  await bo.getByRole('button', { name: 'Change to Bo' }).click();
  await expect(me(bo, 'Bo')).toBeVisible();

  // Out everywhere: the bench is at the door without a reload.
  await ada.goto('/people');
  await ada.getByRole('button', { name: 'Sign out everywhere: Bo' }).click();
  await expect(bo.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible({ timeout: 20_000 });
  await expect(ada.getByRole('region', { name: 'What was done' })).toContainText('signed in by PIN');
  expect((await asked(bo, '/api/builds')).status).toBe(401);
  server.kill('SIGTERM');
});

test('a phone over https by the shop’s own authority: a secure page, kept for when the server is away', async ({
  playwright,
}) => {
  test.setTimeout(120_000);
  const [folder, port, trustPort] = [dataFolder(), await freePort(), await freePort()];
  const env = { ...process.env, HOT_SPLINE_DATA: folder };
  execFileSync(process.execPath, ['tools/certificate.mjs'], { env, cwd: root });
  execFileSync(process.execPath, ['tools/owner.mjs'], { env, cwd: root, input: `Ada\n${WORD}\n${WORD}\n` });
  const server = await startServer(folder, port, {
    ...{ HOST: '0.0.0.0', HOT_SPLINE_TLS: '1', HOT_SPLINE_TRUST_PORT: String(trustPort) },
  });
  const { publicKey } = new X509Certificate(readFileSync(path.join(folder, 'tls', 'server.crt'), 'utf8'));
  const trusted = createHash('sha256')
    .update(publicKey.export({ type: 'spki', format: 'der' }))
    .digest('base64');
  // This browser alone is told to trust it, as a device that took the authority in would.
  const phone = await playwright.chromium.launch({
    ...test.info().project.use.launchOptions,
    args: [...(test.info().project.use.launchOptions?.args ?? []), `--ignore-certificate-errors-spki-list=${trusted}`],
  });
  const context = await phone.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' });
  const page = await context.newPage();
  await page.goto(`http://localhost:${trustPort}/`);
  await expect(page.getByRole('link', { name: 'Take the shop’s certificate' })).toBeVisible();
  await page.getByRole('link', { name: 'Open the shop' }).click();
  await signIn(page, 'Ada');
  await expect(page.getByRole('heading', { name: 'Builds' }).or(page.getByText('New build')).first()).toBeVisible();
  const [secure, crypto, worker] = await page.evaluate(async () => [
    isSecureContext,
    'subtle' in globalThis.crypto,
    (await navigator.serviceWorker.ready).active !== null,
  ]);
  expect([secure, crypto, worker]).toEqual([true, true, true]);
  const [cookie] = await context.cookies();
  expect([cookie?.secure, cookie?.httpOnly, cookie?.sameSite]).toEqual([true, true, 'Strict']);
  await phone.close();
  server.kill('SIGTERM');
});
