import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './bench';

const sheets = [
  'brief',
  'brief?tab=axle',
  'engine',
  'gearing',
  'gearing?tab=thrust',
  'gearing?tab=ladder',
  'gearing?tab=match',
  'gearing?tab=find',
  'gearing?tab=heat',
  'gearing?tab=noise',
  'road',
  'sets',
  'sets?tab=shelf',
  'sets?tab=course',
  'unit',
  'unit?tab=compare',
  'unit?tab=tune',
  'pack',
  'pack?tab=measure',
  'pack?tab=inspect',
  'pack?tab=wanted',
  'pack?tab=shims',
  'pack?tab=sure',
  'pack?tab=springs',
  'pack?tab=wrench',
  'baseline?tab=sheet',
  'mesh',
  'preload',
  'gates',
  'ledger',
];

/**
 * @param rules all of them by day; by night what colours can change: the rest of the page is the same
 * @param where a part of the page, where what is round it was looked at before
 */
async function serious(page: Page, rules: 'all' | 'colours', where?: string): Promise<string[]> {
  const axe = new AxeBuilder({ page });
  if (where !== undefined) axe.include(where);
  const { violations } = await (
    rules === 'all' ? axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']) : axe.withRules(['color-contrast'])
  ).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(
      ({ id, nodes }) =>
        `${id}: ${nodes
          .map((n) => n.target.join(' '))
          .slice(0, 4)
          .join(' | ')}`,
    );
}

for (const night of [false, true]) {
  test(`axe finds nothing serious on any view, ${night ? 'night' : 'day'}`, async ({ drift, page }) => {
    test.setTimeout(240_000);
    const rules = night ? 'colours' : 'all';
    // Tall, so that each sheet is whole: what the bar of figures half covers would count as a small target.
    await page.setViewportSize({ width: 1280, height: 1800 });
    await page.addInitScript(
      (n) => localStorage.setItem('hot-spline.ui', JSON.stringify({ system: 'inch', night: n, findingsOpen: true })),
      night,
    );
    await page.goto('/');
    await expect(page.getByRole('link', { name: /Kittiwake/ }).first()).toBeVisible();
    expect(await serious(page, rules), 'board').toEqual([]);
    await page.goto('/library');
    await expect(page.getByRole('button', { name: /Heron/ })).toBeVisible();
    expect(await serious(page, rules), 'library').toEqual([]);
    for (const [i, sheet] of sheets.entries()) {
      await drift.open(sheet);
      await expect(page.locator('h1')).toBeVisible();
      expect(await serious(page, rules, i === 0 ? undefined : '#sheet'), sheet).toEqual([]);
    }
    await drift.open('pack');
    await page.locator('[data-member="l9"]').click();
    expect(await serious(page, rules), 'a spring chosen').toEqual([]);
    await page.locator('[data-figure="pack.rear.slope"]').click();
    await expect(page.locator('hs-working .formula')).toBeVisible();
    expect(await serious(page, rules), 'working').toEqual([]);
  });
}

test('the frame does not scroll at 1280×800; a phone scrolls only down', async ({ drift, page }) => {
  test.setTimeout(120_000);
  const overflow = () =>
    page.evaluate(() => [
      document.documentElement.scrollWidth - innerWidth,
      document.documentElement.scrollHeight - innerHeight,
    ]);
  for (const sheet of sheets) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await drift.open(sheet);
    await expect(page.locator('h1')).toBeVisible();
    expect(await overflow(), sheet).toEqual([0, 0]);
    await page.setViewportSize({ width: 390, height: 844 });
    await expect.poll(async () => (await overflow())[0], `${sheet} on a phone`).toBe(0);
  }
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('every field, select and button of the sheets in use at the bench is 44 px high', async ({ drift, page }) => {
    for (const path of [
      'pack?tab=measure',
      'pack?tab=inspect',
      'pack?tab=springs',
      'pack?tab=wanted',
      'unit',
      'engine',
    ]) {
      await drift.open(path);
      const small = await page
        .locator('select:visible, input.control:visible, button.quiet:visible')
        .evaluateAll((all) =>
          all
            .filter((one) => one.getBoundingClientRect().width > 1 && one.getBoundingClientRect().height < 44)
            .map((one) => one.id || one.textContent),
        );
      expect(small, path).toEqual([]);
    }
  });

  test('the sheet starts within the first 200 px', async ({ drift, page }) => {
    await drift.open('pack?tab=measure');
    const top = await page
      .getByRole('heading', { name: 'Clutch packs' })
      .evaluate((e) => e.getBoundingClientRect().top);
    expect(top).toBeLessThan(200);
  });
});

test('measuring on a phone: the Write button in place of Enter', async ({ drift, page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await drift.open('pack?tab=measure');
  await drift.field('8 shim right').fill('35 thou');
  await page.getByRole('button', { name: 'Write' }).click();
  await expect(drift.finding('Right stack on target')).toBeAttached();
});

test('nothing is fetched from elsewhere', async ({ drift, page }) => {
  const away: string[] = [];
  page.on('request', (request) => {
    if (
      !request.url().startsWith('http://127.0.0.1') &&
      !request.url().startsWith('data:') &&
      !request.url().startsWith('blob:')
    )
      away.push(request.url());
  });
  for (const sheet of sheets) await drift.open(sheet);
  expect(away).toEqual([]);
});
