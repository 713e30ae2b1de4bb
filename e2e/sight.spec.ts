import type { Page } from '@playwright/test';
import { FIELDS as gearing } from '../web/src/app/gearing/fields';
import { FIELDS as identity } from '../web/src/app/identity/fields';
import { FIELDS as inspect } from '../web/src/app/inspect/fields';
import { FIELDS as joint } from '../web/src/app/joint/fields';
import { FIELDS as mesh } from '../web/src/app/mesh/fields';
import { FIELDS as pack } from '../web/src/app/pack/fields';
import { FIELDS as papers } from '../web/src/app/papers/fields';
import { FIELDS as plan } from '../web/src/app/plan/fields';
import { FIELDS as point } from '../web/src/app/point/fields';
import { FIELDS as preload } from '../web/src/app/preload/fields';
import { FIELDS as road } from '../web/src/app/road/fields';
import { FIELDS as runin } from '../web/src/app/runin/fields';
import { FIELDS as shaft } from '../web/src/app/shaft/fields';
import { FIELDS as unit } from '../web/src/app/unit/fields';
import { expect, goWithin, test } from './bench';

// What the eye finds first, measured in the browser: the one answer of a sheet inside the first of the page, nothing of the Rail
// scrolled away, a drawing beside every step. The sizes are the issue's: 570 px of a page of 1280 × 800, 400 px of a phone.

const SHEETS = [
  'brief',
  'engine',
  'gearing',
  'road',
  'sets',
  'box',
  'unit',
  'pack',
  'work',
  'parts',
  'inspect',
  'joint',
  'shafts',
  'close',
  'gates',
  'baseline',
  'depth',
  'carrier',
  'mesh',
  'preload',
  'summary',
  'papers',
  'ledger',
] as const;

/** Sheets with one answer: where it stands, and what says it. */
const ANSWERS = [
  ['mesh', '', /thou|Paint|Read|band/],
  ['preload', '', /Read|turn|deg|°|band/i],
  ['work', '', /Next|done|hold/],
  ['work', '?tab=step', /./],
  ['gearing', '?tab=find', /\d+\/\d+/],
  ['pack', '', /Breakaway/],
  ['pack', '?tab=shims', /thou|mm/],
] as const;

async function answerOf(page: Page): Promise<{ top: number; bottom: number; size: number; largest: number }> {
  await page.locator('[data-answer]').first().waitFor();
  return page.evaluate(() => {
    const answer = document.querySelector('[data-answer]') as HTMLElement;
    const sizeOf = (root: Element): number =>
      Math.max(
        ...[root, ...root.querySelectorAll('*')]
          .filter((one) =>
            [...one.childNodes].some((node) => node.nodeType === 3 && (node.textContent ?? '').trim() !== ''),
          )
          .map((one) => Number.parseFloat(getComputedStyle(one).fontSize)),
      );
    const sheet = document.querySelector('#sheet') as HTMLElement;
    const { top, bottom } = answer.getBoundingClientRect();
    return { top, bottom, size: sizeOf(answer), largest: sizeOf(sheet) };
  });
}

test.describe('the one answer', () => {
  for (const [name, width, height, most] of [
    ['a page of 1280 × 800', 1280, 800, 570],
    ['a phone', 390, 844, 400],
  ] as const)
    test(`is on top and biggest, of ${name}`, async ({ page, drift }) => {
      await page.setViewportSize({ width, height });
      for (const [sheet, tab, says] of ANSWERS) {
        await page.goto(`/builds/${drift.id}/${sheet}${tab}`);
        await expect(page.locator('[data-answer]').first(), `${sheet}${tab}`).toContainText(says);
        const { top, bottom, size, largest } = await answerOf(page);
        expect(top, `${sheet}${tab} begins`).toBeGreaterThan(0);
        // What it is stands inside; what to do about it may go on below on a phone.
        expect(top + Math.min(bottom - top, 120), `${sheet}${tab}`).toBeLessThanOrEqual(most);
        if (width > 1000) expect(bottom, `${sheet}${tab} ends`).toBeLessThanOrEqual(most);
        expect(size, `${sheet}${tab} is biggest`).toBeGreaterThanOrEqual(largest);
      }
    });
});

async function railOf(page: Page): Promise<{ over: number; open: number }> {
  return page.evaluate(() => {
    const rail = document.querySelector('hs-rail') as HTMLElement;
    return {
      over: rail.scrollHeight - rail.clientHeight,
      open: rail.querySelectorAll('h2 button[aria-expanded="true"]').length,
    };
  });
}

test('at 1280 × 800 the Rail never scrolls, its group in hand is open, and the frame never scrolls', async ({
  drift,
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  for (const sheet of SHEETS) {
    await drift.open(sheet);
    const { over, open } = await railOf(page);
    expect(over, sheet).toBeLessThanOrEqual(0);
    expect(open, sheet).toBe(1);
    await expect(page.locator('hs-rail a.here')).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollHeight), sheet).toBeLessThanOrEqual(800);
  }
});

test('the Line is one row on bench and set-up sheets, whole where one specifies; findings of the sheet come first', async ({
  drift,
  page,
}) => {
  await drift.open('engine');
  await expect(page.locator('#line')).toBeVisible();
  await drift.open('mesh');
  await expect(page.locator('#line')).toBeHidden();
  const row = page.locator('hs-line nav.row');
  expect((await row.boundingBox())?.height ?? 99).toBeLessThanOrEqual(40);
  await page.getByRole('button', { name: 'Show the Line' }).click();
  await expect(page.locator('#line')).toBeVisible();
  await drift.open('pack');
  const list = page.locator('#findings-list');
  await expect(list.locator('h3')).toContainText('This sheet');
  const others = list.getByRole('button', { name: /Other sheets/ });
  await others.click(); // these devices have it open
  await expect(page.locator('#findings-others')).toHaveCount(0);
  await page.reload();
  await expect(others).toHaveAttribute('aria-expanded', 'false');
});

test('a shim that is touched shows what it moves, in the signs of this axle; a drop-out’s goes the other way', async ({
  page,
  drift,
}) => {
  await drift.open('depth');
  const play = page.locator('hs-shim-play');
  await play.getByRole('button', { name: /^Pinion shim/ }).click();
  await expect(play.locator('.text')).toContainText('pinion deeper');
  await expect(play.locator('[data-part="pinion"]')).toHaveAttribute('transform', /translate\(11/);
  // Its middle is the pinion’s: the shim lies above and below.
  await play.locator('[data-part="pinion-shim"]').dispatchEvent('click');
  await expect(play.locator('[data-part="pinion"]')).toHaveAttribute('transform', /translate\(0/);
});

test('every step of a job has its drawing beside it, or none by its own word', async ({ page, drift }) => {
  await page.goto(`/builds/${drift.id}/work`);
  await expect(page.locator('.list li a').first()).toBeAttached();
  const steps = await page
    .locator('.list li a')
    .evaluateAll((links) => links.map((link) => (link as HTMLAnchorElement).href));
  expect(steps.length).toBeGreaterThan(40);
  let without = 0;
  for (const step of steps.filter((_, i) => i % 3 === 0)) {
    const { pathname, search } = new URL(step);
    await page.goto(pathname + search);
    await expect(page.locator('hs-work-step h2')).toBeVisible();
    const svg = page.locator('hs-step-drawing svg[role="img"]');
    if ((await svg.count()) === 0) without++;
    else expect((await svg.first().boundingBox())?.width ?? 0).toBeGreaterThan(200);
  }
  // Talks, papers and what is chosen on its own sheet.
  expect(without).toBeLessThanOrEqual(5);
});

/** What is one of many of its kind, and is found as a part or by the first of them. */
const ONE_OF_MANY =
  /\d|[Kk]nown from|^Sign$|^Why|^Add|^Left out|left$|right$|^Search|^Show|^Another|^Step$|^What|^Minutes|upside|where$|CSV|^Length or facing|, out$|^Where |^Page or|^came out$|^goes in$|^faces/;

test('the finder knows every field of every sheet, and where it says that one is, it is', async ({ drift, page }) => {
  test.setTimeout(240_000);
  const lists = [gearing, identity, inspect, joint, mesh, pack, papers, plan, point, preload, road, runin, shaft, unit];
  const known = lists.flat();
  const labels = new Set(known.map(([, , label]) => label));
  const unknown = new Set<string>();
  let there = 0;
  for (const sheet of SHEETS.filter((one) => !['work', 'summary', 'ledger'].includes(one))) {
    await page.goto(`/builds/${drift.id}/${sheet}`);
    await expect(page.locator('#sheet h1')).toBeVisible();
    const tabs = await page
      .locator('hs-tabs a')
      .evaluateAll((links) => links.map((link) => new URL((link as HTMLAnchorElement).href).searchParams.get('tab')));
    for (const tab of tabs.length > 0 ? tabs : [null]) {
      // Within the app: as by its tabs, without another start.
      if (tab) await goWithin(page, `/builds/${drift.id}/${sheet}?tab=${tab}`);
      await expect(page.locator('#sheet h1')).toBeVisible();
      if (tab)
        await expect(page.locator('hs-tabs [aria-current="page"]')).toHaveAttribute(
          'href',
          new RegExp(`tab=${tab}|${sheet}$`),
        );
      const { said, ids } = await page.evaluate(() => {
        const fields = [...document.querySelectorAll<HTMLInputElement>('#sheet input[id], #sheet select[id]')];
        return {
          said: fields
            .filter(({ type }) => type !== 'radio')
            .map((field) =>
              document.querySelector(`label[for="${field.id}"]`)?.textContent?.replace(/\s+/g, ' ').trim(),
            ),
          ids: [...document.querySelectorAll<HTMLInputElement>('#sheet input, #sheet select')].flatMap((field) => [
            field.id,
            field.name,
          ]),
        };
      });
      for (const label of said)
        if (label && !labels.has(label) && !ONE_OF_MANY.test(label)) unknown.add(`${sheet}: ${label}`);
      there += known.filter(
        ([of, at, , field]) =>
          of === sheet && (at === '' || at === tab) && ids.includes(field.replaceAll('{axle}', 'rear')),
      ).length;
    }
  }
  expect([...unknown]).toEqual([]);
  // The rest belongs to other units, constructions and engines.
  expect(there).toBeGreaterThan(known.length / 2);
});
