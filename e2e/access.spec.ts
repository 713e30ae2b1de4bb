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
  'summary',
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

/** Looks at what is shown by day, whole, then at its colours by night, and by day again. */
async function byDayAndNight(page: Page, what: string, where?: string): Promise<void> {
  expect(await serious(page, 'all', where), what).toEqual([]);
  await page.getByRole('button', { name: 'Night theme' }).click();
  await expect(page.locator('html.night')).toBeAttached();
  expect(await serious(page, 'colours', where), `${what}, night`).toEqual([]);
  await page.getByRole('button', { name: 'Day theme' }).click();
  await expect(page.locator('html.night')).not.toBeAttached();
}

const calmly = async (page: Page): Promise<void> => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  // Tall, so that each sheet is whole: what the bar of figures half covers would count as a small target.
  await page.setViewportSize({ width: 1280, height: 1800 });
  await page.addInitScript(() =>
    localStorage.setItem('hot-spline.ui', JSON.stringify({ system: 'inch', night: false, findingsOpen: true })),
  );
};

const overflow = (page: Page): Promise<number[]> =>
  page.evaluate(() => [
    document.documentElement.scrollWidth - innerWidth,
    document.documentElement.scrollHeight - innerHeight,
  ]);

for (const half of [0, 1])
  test(`sheets, every ${half === 0 ? 'first' : 'second'} one: axe finds nothing serious by day or night; the frame never scrolls, a phone only down`, async ({
    drift,
    page,
  }) => {
    test.setTimeout(240_000);
    await calmly(page);
    for (const [i, sheet] of sheets.filter((_, n) => n % 2 === half).entries()) {
      if (i === 0) await drift.open(sheet);
      else
        await page.evaluate((url) => {
          history.pushState(null, '', url);
          dispatchEvent(new PopStateEvent('popstate'));
        }, `/builds/${drift.id}/${sheet}`);
      await expect(page.locator('h1')).toBeVisible();
      await page.waitForTimeout(100);
      await byDayAndNight(page, sheet, i === 0 ? undefined : '#sheet');
      await page.setViewportSize({ width: 1280, height: 800 });
      await expect.poll(() => overflow(page), sheet).toEqual([0, 0]);
      await page.setViewportSize({ width: 390, height: 844 });
      await expect.poll(async () => (await overflow(page))[0], `${sheet} on a phone`).toBe(0);
      await page.setViewportSize({ width: 1280, height: 1800 });
    }
  });

test('board, library and workings: axe finds nothing serious by day or night', async ({ drift, page }) => {
  await calmly(page);
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Kittiwake/ }).first()).toBeVisible();
  await byDayAndNight(page, 'board');
  await page.goto('/library');
  await expect(page.getByRole('button', { name: /Heron 8/ })).toBeVisible();
  await byDayAndNight(page, 'library');
  await drift.open('pack');
  await page.locator('[data-member="l9"]').click();
  await byDayAndNight(page, 'a spring chosen');
  await page.locator('[data-figure="pack.rear.slope"]').click();
  await expect(page.locator('hs-working .formula')).toBeVisible();
  // The working lies over the button of the theme.
  expect(await serious(page, 'all'), 'working').toEqual([]);
  await page.evaluate(() => document.documentElement.classList.add('night'));
  expect(await serious(page, 'colours'), 'working, night').toEqual([]);
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
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(drift.finding('Right stack on target')).toBeAttached();
});
