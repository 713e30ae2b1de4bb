import { randomUUID } from 'node:crypto';
import type { Browser } from '@playwright/test';
import { Bench, alone as test, boxOf, expect } from './bench';

/** Another device of the shop, with somebody else at it. */
async function device(browser: Browser, base: string, who: string) {
  const context = await browser.newContext({ baseURL: base });
  const page = await context.newPage();
  await page.addInitScript((name) => localStorage.setItem('hot-spline.ui', JSON.stringify({ who: name })), who);
  return { context, page };
}

test.describe('seen by the others', () => {
  test('a second device follows what is read and changed, and moves nothing that a hand is on', async ({
    drift,
    browser,
    baseURL,
  }) => {
    const { context, page } = await device(browser, baseURL ?? '', 'Mo');
    const other = new Bench(page, drift.id);
    await other.open('mesh');
    await drift.open('mesh');
    const field = other.field('Backlash, again from place 1');
    await field.fill('7; 7');
    const before = await boxOf(field);
    await drift.enter('Backlash, again from place 1', '9; 9; 9; 9; 8; 8; 8; 8');
    await expect(drift.figure('mesh.rear.backlash')).toContainText('8.5');
    await expect(other.figure('mesh.rear.backlash')).toContainText('8.5');
    await expect(field).toHaveValue('7; 7');
    await expect(field).toBeFocused();
    expect(Math.abs((await boxOf(field)).y - before.y)).toBeLessThan(2);
    // The specification too; on the board beside it, and on this tab’s own board when it comes back to it.
    await drift.open('gearing');
    await other.open('gearing');
    await drift.enter('Ring teeth', '41');
    await drift.enter('Pinion teeth', '11');
    await expect(other.figure('gearing.rear.final')).toHaveText('3.727');
    await expect(page.getByRole('dialog', { name: 'Changed elsewhere' })).toHaveCount(0);
    const name = `Sandpiper ${randomUUID().slice(0, 8)}`;
    await page.goto(`/?search=${encodeURIComponent(name)}`);
    const row = page.locator('tbody tr', { hasText: name });
    await expect(page.getByLabel('Find builds')).toHaveValue(name);
    await expect(row).toHaveCount(0);
    await drift.open('brief');
    await drift.enter('Build', name);
    await expect(row).toHaveCount(1);
    await context.close();
  });

  test('nobody signs over what they have not seen', async ({ drift, browser, baseURL, request }) => {
    const { context, page } = await device(browser, baseURL ?? '', 'Mo');
    // A device that hears nothing, as one in a bad corner of the shop.
    await page.route('**/api/changes*', (route) => route.abort());
    const other = new Bench(page, drift.id);
    await other.open('gates');
    const gate = page.getByRole('region', { name: 'Gate B' });
    await drift.open('mesh');
    await drift.enter('Backlash, again from place 1', '9; 9; 9; 9; 8; 8; 8; 8');
    await drift.saved();
    const sign = async (): Promise<void> => {
      const note = gate.getByLabel('Why it is opened all the same');
      await expect(note.or(gate.getByLabel(/your name/)).first()).toBeVisible();
      if (await note.isVisible()) {
        await note.fill('Practice');
        await note.press('Enter');
      }
      const name = gate.getByLabel(/your name/);
      await name.fill('Mo');
      await name.press('Enter');
    };
    const signed = async (): Promise<boolean> =>
      JSON.stringify(await (await request.get(`/api/builds/${drift.id}/ledger`)).json()).includes('"name":"Mo"');
    await sign();
    await expect(page.getByText('Not signed', { exact: true })).toBeVisible();
    await expect(gate).not.toContainText('Signed by Mo');
    expect(await signed()).toBe(false);
    await page.reload();
    await sign();
    await expect.poll(signed).toBe(true);
    await expect(gate).toContainText('Signed by Mo');
    await context.close();
  });
});
