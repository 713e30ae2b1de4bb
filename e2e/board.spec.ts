import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { alone, expect, test } from './bench';
import { jobOf } from './job';

test.describe('the board', () => {
  test('shows the demo builds and opens one', async ({ page }) => {
    await page.goto('/');
    for (const name of ['Kittiwake', 'Bracken', 'Wren', 'Plover', 'Skua'])
      await expect(page.getByRole('link', { name: new RegExp(name) }).first()).toBeVisible();
    await page
      .getByRole('link', { name: /Plover/ })
      .first()
      .click();
    await expect(page.locator('hs-line')).toContainText('Motor');
    await expect(page.locator('hs-line')).toContainText('First stage');
  });

  test('a new build is started, copied, put away and brought back', async ({ page }) => {
    const name = `Sandpiper ${Date.now()}`;
    await page.goto('/');
    await page.getByRole('button', { name: 'New build' }).click();
    await page.getByLabel('Name of the new build').fill(name);
    // Enter goes on to the next question, it starts nothing with guesses.
    await page.getByLabel('Name of the new build').press('Enter');
    await expect(page.getByLabel('Car, or class of car')).toBeFocused();
    await page.getByRole('button', { name: 'Start the build' }).click();
    await expect(page).toHaveURL(/gearing/);
    await expect(page.locator('.title')).toHaveText(name);
    await page.getByRole('link', { name: 'Hot Spline' }).click();
    await page.getByRole('button', { name: `Copy ${name}`, exact: true }).click();
    await expect(page.getByText(`${name} (copy)`)).toBeVisible();
    await page.getByRole('button', { name: `Put ${name} away`, exact: true }).click();
    await page.getByRole('button', { name: `Bring ${name} back`, exact: true }).click();
    await expect(page.getByRole('button', { name: `Put ${name} away`, exact: true })).toBeVisible();
  });

  test('what is looked for is handed out as CSV', async ({ page }) => {
    await page.goto('/');
    await page.getByRole('searchbox', { name: 'Find builds' }).fill('oval');
    await expect(page.getByRole('link', { name: /Kittiwake/ })).toHaveCount(0);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'CSV', exact: true }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('board.hot-spline.csv');
    const lines = readFileSync(await download.path(), 'utf8')
      .trim()
      .split('\n');
    expect(lines[0]).toContain('build,vehicle,use,customer,state,next step');
    expect(lines.slice(1).map((line) => line.split(',')[1])).toContain('Dunnock');
    expect(lines.join()).not.toContain('Kittiwake');
  });

  test('a build that is not there says so', async ({ page }) => {
    await page.goto('/builds/00000000-0000-4000-8000-00000000dead/gearing');
    await expect(page.getByRole('heading', { name: 'No such build' })).toBeVisible();
  });

  test('engine and gearbox: a gear as a tooth pair, a torque point, a converter', async ({ drift, page }) => {
    await drift.open('engine');
    await drift.enter('Gear 1', '41/13');
    await expect(page.locator('#gear-0-said')).toHaveText('3.154');
    await drift.enter('Point 5 torque', '600 Nm');
    await expect(drift.finding('Clutch holds ×1.02')).toBeVisible();
    await drift.field('Coupling').selectOption('Converter');
    await drift.enter('Rated stall', '2800');
    await expect(drift.finding(/Cruise is \d+ rpm from converter stall/)).toBeVisible();
    await page.getByRole('button', { name: 'Add transfer case' }).click();
    await page.getByRole('radio', { name: 'Low', exact: true }).click();
    await expect(drift.station('Range Low')).toBeVisible();
    await drift.saved();
  });
});

alone.describe('west of Greenwich', () => {
  alone.use({ timezoneId: 'America/Los_Angeles', locale: 'en-GB' });

  alone('a promised day is that day, on the board and on the sheet', async ({ page, request }) => {
    const name = `Dunlin ${randomUUID().slice(0, 6)}`;
    const job = await jobOf(page, request, 'dunnock-rally-saloon', (build) => {
      build.name = name;
      build.promised = '2026-12-24';
    });
    await page.goto('/');
    await page.getByPlaceholder(/customer, part number/).fill(name);
    await expect(page.getByRole('row').filter({ hasText: name })).toContainText('24 Dec 2026');
    await job.open('work');
    await expect(job.field('Promised for')).toHaveValue('2026-12-24');
  });
});
