import type { Page } from '@playwright/test';
import axe, { type AxeResults, type RunOptions } from 'axe-core';
import { CAPABILITIES } from '../web/src/app/sheets';
import { alone as test, boxOf, expect, type Bench } from './bench';

/** Every screen that a build has, from the descriptors: a sheet or tab that is added is looked at. */
const screens = CAPABILITIES.flatMap(({ sheets }) => sheets).flatMap(({ sheet, tabs }) =>
  tabs.length === 0 ? [sheet] : tabs.map(({ tab }) => `${sheet}?tab=${tab}`),
);

/** The first screen of each sheet. */
const FIRST = new Set(screens.filter((one, i) => one.split('?')[0] !== screens[i - 1]?.split('?')[0]));

/**
 * @param rules all of them by day; by night what colours can change: the rest of the page is the same
 * @param where a part of the page, where what is round it was looked at before
 */
async function serious(page: Page, rules: 'all' | 'colours', where?: string): Promise<string[]> {
  // Read once by a page, not once by a look at it: half a megabyte is compiled each time.
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(axe.source);
  const options: RunOptions = {
    resultTypes: ['violations'],
    // Style sheets are read again for what the whole page alone is asked: whether it locks how a phone is held.
    preload: rules === 'all' && where === undefined,
    runOnly:
      rules === 'all'
        ? { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] }
        : { type: 'rule', values: ['color-contrast'] },
  };
  const { violations } = await page.evaluate(
    ([part, how]) =>
      (globalThis as unknown as { axe: typeof axe }).axe.run(part ?? document, how) as Promise<AxeResults>,
    [where, options] as const,
  );
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
  await byNight(page, what, where);
}

async function byNight(page: Page, what: string, where?: string): Promise<void> {
  const night = (on: boolean) => page.evaluate((dark) => document.documentElement.classList.toggle('night', dark), on);
  await night(true);
  expect(await serious(page, 'colours', where), `${what}, night`).toEqual([]);
  await night(false);
}

const calmly = async (page: Page): Promise<void> => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  // Tall, so that each sheet is whole: what the bar of figures half covers would count as a small target.
  await page.setViewportSize({ width: 1280, height: 1800 });
  await page.addInitScript(() =>
    localStorage.setItem(
      'hot-spline.ui',
      JSON.stringify({ system: 'inch', night: false, findingsOpen: true, elsewhereOpen: true, who: 'Edda' }),
    ),
  );
};

const overflow = (page: Page): Promise<number[]> =>
  page.evaluate(() => [
    document.documentElement.scrollWidth - innerWidth,
    document.documentElement.scrollHeight - innerHeight,
  ]);

/** What a thumb would miss, of fields, choices and buttons that are seen. */
const small = (page: Page): Promise<string[]> =>
  page
    .locator('#sheet')
    .locator('select:visible, input.control:visible, button.quiet:visible')
    .evaluateAll((all) =>
      all
        .filter((one) => one.getBoundingClientRect().width > 1 && one.getBoundingClientRect().height < 44)
        .map((one) => one.id || (one.textContent ?? '')),
    );

/** Every one of these screens by day and night, on a page and on a phone, by eye, thumb and axe. */
async function walk(bench: Bench, of: readonly string[]): Promise<void> {
  const { page } = bench;
  const device = await page.context().newCDPSession(page);
  const thumb = (enabled: boolean) => device.send('Emulation.setTouchEmulationEnabled', { enabled });
  for (const [i, screen] of of.entries()) {
    await bench.open(screen);
    await expect(page.locator('h1')).toBeVisible();
    const where = i === 0 ? undefined : '#sheet';
    expect(await serious(page, 'all', where), screen).toEqual([]);
    // Both themes are the same variables on every tab of a sheet: one of each is looked at by night.
    if (FIRST.has(screen)) await byNight(page, screen, where);
    await page.setViewportSize({ width: 1280, height: 800 });
    await expect.poll(() => overflow(page), screen).toEqual([0, 0]);
    await page.setViewportSize({ width: 390, height: 844 });
    await expect.poll(async () => (await overflow(page))[0], `${screen} on a phone`).toBe(0);
    await thumb(true);
    expect(await small(page), `${screen} on a phone`).toEqual([]);
    await thumb(false);
    await page.setViewportSize({ width: 1280, height: 1800 });
  }
}

for (const half of [0, 1])
  test(`screens, every ${half === 0 ? 'first' : 'second'} one: axe finds nothing serious by day or night; the frame never scrolls, a phone only down; a thumb hits everything`, async ({
    drift,
    page,
  }) => {
    test.setTimeout(240_000);
    await calmly(page);
    await walk(
      drift,
      screens.filter((screen, n) => n % 2 === half && !screen.startsWith('box')),
    );
  });

test('the box, once it is described: the same', async ({ hill, page }) => {
  test.setTimeout(120_000);
  await calmly(page);
  await hill.open('box');
  await page.getByRole('button', { name: 'Describe the box' }).click();
  await hill.open('box?tab=drum');
  await page.getByRole('button', { name: 'Describe the drum' }).click();
  await walk(
    hill,
    screens.filter((screen) => screen.startsWith('box')),
  );
});

test('the theme is chosen by its button, and stays', async ({ drift, page }) => {
  await drift.open('engine');
  await page.getByRole('button', { name: 'Night theme' }).click();
  await expect(page.locator('html.night')).toBeAttached();
  await page.reload();
  await expect(page.locator('html.night')).toBeAttached();
  await page.getByRole('button', { name: 'Day theme' }).click();
  await expect(page.locator('html.night')).not.toBeAttached();
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

  test('a plate of the pack is 44 px to the thumb, however thin it is drawn', async ({ drift, page }) => {
    await drift.open('pack');
    const sizes = await page
      .locator('.plate')
      .evaluateAll((all) => all.map((one) => [one.getBoundingClientRect().width, one.getBoundingClientRect().height]));
    expect(sizes.length).toBe(18);
    for (const [width, height] of sizes) {
      expect(width).toBeGreaterThanOrEqual(44);
      expect(height).toBeGreaterThanOrEqual(44);
    }
    // what is wider than the page scrolls by itself, and a finger on a plate scrolls the page
    expect(
      await page
        .locator('.plate')
        .first()
        .evaluate((one) => getComputedStyle(one).touchAction),
    ).toBe('manipulation');
  });

  test('the sheet starts within the first 200 px', async ({ drift, page }) => {
    await drift.open('pack?tab=measure');
    const top = await page
      .getByRole('heading', { name: 'Clutch packs' })
      .evaluate((e) => e.getBoundingClientRect().top);
    expect(top).toBeLessThan(200);
  });
});

test('measuring on a phone: the Record button in place of Enter', async ({ drift, page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await drift.open('pack?tab=measure');
  await drift.field('8 shim right').fill('35 thou');
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(drift.finding('Right stack on target')).toBeAttached();
});

for (const [width, height] of [
  [1024, 768],
  [640, 400],
] as const)
  test(`at ${width} × ${height} both packs are whole, the sheet starts above 200 px and nothing hangs over`, async ({
    drift,
    page,
  }) => {
    await page.setViewportSize({ width, height });
    for (const path of ['pack', 'gearing', 'engine', 'unit?tab=compare', 'pack?tab=shims', 'mesh']) {
      await drift.open(path);
      await expect.poll(async () => (await overflow(page))[0], path).toBeLessThanOrEqual(0);
      const main = page.locator('#sheet');
      expect(await main.evaluate((e) => e.scrollWidth - e.clientWidth), path).toBeLessThanOrEqual(0);
      const top = await main
        .getByRole('heading')
        .first()
        .evaluate((e) => e.getBoundingClientRect().top);
      expect(top, path).toBeLessThanOrEqual(200);
    }
    await drift.open('pack');
    const sheet = await boxOf(page.locator('#sheet'));
    for (const side of ['left', 'right']) {
      const pack = page.locator(`#stack-${side}`);
      await expect(pack.locator('.plate')).toHaveCount(9);
      const box = await boxOf(pack);
      expect(box.x).toBeGreaterThanOrEqual(sheet.x);
      expect(box.x + box.width).toBeLessThanOrEqual(sheet.x + sheet.width);
      // nothing of it is scrolled out of sight
      expect(await pack.evaluate((e) => e.scrollWidth - e.clientWidth)).toBeLessThanOrEqual(1);
    }
  });

test('findings fold beside the sheet where the page is tight, and open when they are asked for', async ({
  drift,
  page,
}) => {
  await drift.open('pack');
  await expect(page.locator('hs-findings li').first()).toBeVisible();
  await page.setViewportSize({ width: 1024, height: 768 });
  await expect(page.locator('hs-findings li')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show findings' }).click();
  await expect(page.locator('hs-findings li').first()).toBeVisible();
});

test('words that come and go shove nothing: an error, a question, what is understood', async ({ drift, page }) => {
  await drift.open('engine');
  const below = page.getByRole('heading', { name: 'Gearbox', exact: true });
  const before = (await boxOf(below)).y;
  for (const text of ['what', '99999999', '12', '7,0,0']) {
    await drift.field('Limiter').fill(text);
    await drift.field('Limiter').press('Enter');
    expect((await boxOf(below)).y, text).toBe(before);
    if (text === 'what') {
      const said = page.locator('#limit-rpm-said');
      await expect(said).toContainText('Limiter');
      const box = await boxOf(said);
      const seen = await page.evaluate(
        ({ x, y }) => document.elementFromPoint(x, y)?.closest('hs-field')?.querySelector('input')?.id,
        { x: box.x + 5, y: box.y + box.height / 2 },
      );
      expect(seen, 'nothing lies over the error').toBe('limit-rpm');
    }
    await drift.field('Limiter').press('Escape');
  }
});

test('Tab goes from field to field past what removes; Alt Delete removes, and it is taken back at the place', async ({
  drift,
  page,
}) => {
  await drift.open('engine');
  await drift.field('Point 2 torque').focus();
  await page.keyboard.press('Tab');
  await expect(drift.field('Point 3 rpm')).toBeFocused();
  const third = await drift.field('Point 3 rpm').inputValue();
  await page.keyboard.press('Alt+Delete');
  await expect(drift.field('Point 3 rpm')).not.toHaveValue(third);
  const toast = page.locator('.p-toast', { hasText: 'Removed point 3' });
  await toast.getByRole('button', { name: 'Undo' }).click();
  await expect(drift.field('Point 3 rpm')).toHaveValue(third);
  await expect(toast).toBeHidden();
});

test('in the library, where nothing is undone, a removal asks at the place', async ({ page }) => {
  await page.goto('/library?');
  await page.getByRole('button', { name: /Heron 8/ }).click();
  await expect(page.getByRole('region', { name: /Heron 8/ })).toBeVisible();
  const rows = page.getByRole('button', { name: /^Remove set / });
  const many = await rows.count();
  await rows.first().click();
  await expect(page.getByRole('button', { name: /^Really remove set / })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(rows).toHaveCount(many);
});

test('one of a few is chosen with the arrow keys', async ({ drift, page }) => {
  await drift.open('gearing');
  const gears = page.getByRole('radiogroup', { name: 'Gear' });
  await gears.getByRole('radio', { name: '3' }).click();
  await expect(gears.getByRole('radio', { name: '3' })).toBeChecked();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('hs-line .main').nth(2)).toHaveText('1.15');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(page.locator('hs-line .main').nth(2)).toHaveText('2.07');
});

test('a word that not everybody knows is explained at its place, a length with a drawing', async ({ drift, page }) => {
  await drift.open('pack?tab=springs');
  await page.getByRole('button', { name: 'What is meant by Case depth' }).click();
  const panel = page.getByRole('dialog', { name: 'Case depth' });
  await expect(panel).toContainText('from the inner wall of the case to the back of the side gear');
  await expect(panel.getByRole('img')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(panel).toBeHidden();
});

/** What has the focus, and whether somebody sees it. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const at = document.activeElement as HTMLElement;
    const { top, bottom } = at.getBoundingClientRect();
    return {
      tag: at.tagName,
      id: at.id,
      seen: top >= 0 && bottom <= innerHeight,
      inSheet: at.closest('main') !== null,
    };
  });

test.describe('keys alone, at twice the size', () => {
  // 1280 × 800 at 200 % is a page of 640 × 400: it scrolls as a whole.
  test.use({ viewport: { width: 640, height: 400 } });

  test('the focus is where the work is: m, a name, a plan that is put in; few stops between the packs', async ({
    drift,
    page,
  }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'New build' }).click();
    await expect(page.getByLabel('Name of the new build')).toBeFocused();

    await drift.open('pack');
    await page.keyboard.press('m');
    await expect.poll(async () => (await focused(page)).tag).toBe('INPUT');
    await expect.poll(async () => (await focused(page)).seen).toBe(true);

    await drift.open('pack');
    const left = page.locator('hs-pack-drawing').first().getByRole('option').first();
    await left.focus();
    let stops = 0;
    while (stops < 20 && !(await page.evaluate(() => document.activeElement?.closest('hs-pack-drawing:not(.left)')))) {
      await page.keyboard.press('Tab');
      stops++;
    }
    expect(stops).toBeLessThanOrEqual(8);

    await drift.open('pack?tab=shims');
    await drift.field('Drawer').selectOption('Drawer 2, pack shims');
    const put = page.getByRole('button', { name: /^(Put these in both packs|These are in the packs)$/ });
    await expect(put).toBeEnabled();
    await put.focus();
    await page.keyboard.press('Enter');
    await expect(put).toHaveText('These are in the packs');
    await expect.poll(async () => (await focused(page)).inSheet).toBe(true);
  });
});

test('paper is white by night too, and what is asked for is no value on it', async ({ drift, page }) => {
  await page.addInitScript(() =>
    localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Edda', night: true, elsewhereOpen: true })),
  );
  await drift.open('brief');
  const colours = () =>
    page.evaluate(() => ({
      ink: getComputedStyle(document.body).color,
      placeholder: getComputedStyle(document.getElementById('brief-tyre') as HTMLElement, '::placeholder').color,
    }));
  /** Of red, 0 to 255: ink is a grey by day and by night. */
  const luminance = (css: string): number => Number(/\d+/.exec(css)?.[0]);
  expect(luminance((await colours()).ink)).toBeGreaterThan(180);
  await page.emulateMedia({ media: 'print' });
  expect(luminance((await colours()).ink)).toBeLessThan(60);
  expect((await colours()).placeholder).toBe('rgba(0, 0, 0, 0)');
});
