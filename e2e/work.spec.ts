import { randomUUID } from 'node:crypto';
import { alone, boxOf, expect, test } from './bench';
import { jobOf, openStep, walkTo } from './job';

test.describe('the order of work', () => {
  test('a ratio swap with c-clips: chosen, walked step by step, what is reachable only now, left out with a reason', async ({
    page,
    request,
  }) => {
    const job = await jobOf(page, request, 'kittiwake-drift-coupe', (build) => {
      build.axles.rear.work = null;
    });
    await job.open('work');
    await page.getByRole('button', { name: /^Gears Ring and pinion/ }).click();
    await expect(page.locator('.next .what')).toContainText('Brief and complaint');
    await expect(page.getByText(/^0\s*of 5\d done$/)).toBeVisible();
    await expect(page.locator('#step-pin-pass-rear')).toContainText('only now');
    await expect(page.locator('#step-ring-off-rear')).toContainText('LEFT-hand thread');
    await openStep(page).click();
    await walkTo(page, 'Choose ratio and unit');
    await job.saved();
    // A step that can’t be taken back waits for its gate.
    await page.goto(`/builds/${job.id}/work?tab=step&step=pinion-bearing`);
    await expect(page.getByText('Gate A is not signed')).toBeVisible();
    await expect(page.getByRole('button', { name: /^Done/ })).toBeDisabled();
    // Left out with a reason, and the rules say what that breaks.
    await page.goto(`/builds/${job.id}/work?tab=step&step=shafts-in`);
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await job.enter('Left out, because', 'comes with the wheels');
    await expect(page.getByText('Left out: comes with the wheels')).toBeVisible();
    await page.getByRole('link', { name: 'Order of work' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'Cross pin' })).toBeVisible();
    await job.saved();
  });

  test('a drop-out with a new unit: no pinion, prop shaft off, on hold for parts, said on the board', async ({
    page,
    request,
  }) => {
    const name = `Stint ${randomUUID().slice(0, 6)}`;
    const job = await jobOf(page, request, 'bracken-raid-truck', (build) => {
      build.name = name;
      build.axles.rear.work = null;
      build.axles.rear.unit.type = 'helical';
      build.axles.rear.unit.helical = {
        biasRatio: { typed: '2.7', value: 2.7, unit: '' },
        preload: { typed: '0 N·m', value: 0, unit: 'N·m' },
        platesFrom: { typed: '600 N·m', value: 600, unit: 'N·m' },
        platesHold: { typed: '30 %', value: 30, unit: '%' },
      };
    });
    await job.open('work');
    await page.getByRole('button', { name: /^Unit Another unit/ }).click();
    await expect(page.locator('#step-pinion-out-rear')).toHaveCount(0);
    await expect(page.locator('#step-prop-off-rear')).toBeVisible();
    await expect(page.locator('#step-compare-carriers-rear')).toBeVisible();
    await job.enter('Promised for', '2026-12-24');
    await job.enter('Why', 'seals are late');
    await expect(page.getByText('On hold for parts')).toBeVisible();
    await page.getByRole('link', { name: 'Parts and tools' }).click();
    await page.locator('#part-oil-rear').getByRole('radio', { name: 'ordered' }).check();
    await job.enter('Supplier', 'oil house');
    await page.getByRole('link', { name: 'Tools', exact: true }).click();
    await page.locator('#tool-adjuster-wrench-rear').getByRole('radio', { name: 'missing' }).check();
    await expect(job.finding('a tool is not here')).toBeVisible();
    await job.saved();
    await page.goto('/');
    await page.getByPlaceholder(/customer, part number/).fill(name);
    const row = page.getByRole('row').filter({ hasText: name });
    await expect(row).toContainText('Waiting');
    await expect(row).toContainText('seals are late');
    await page.getByRole('radio', { name: 'By state' }).check();
    await expect(page.getByRole('region', { name: 'Waiting' })).toContainText(name);
  });

  test('an independent unit with an insert: too tight is a stop, the washers come before it closes', async ({
    page,
    request,
  }) => {
    const job = await jobOf(page, request, 'kittiwake-drift-coupe', (build) => {
      const axle = build.axles.rear;
      axle.work = null;
      axle.identity.construction = { value: 'independent', origin: 'measured' };
      axle.identity.retention = { value: 'stub', origin: 'measured' };
      axle.unit.type = 'friction-insert';
      axle.unit.insert = { lock: { typed: '120 N·m', value: 120, unit: 'N·m' } };
    });
    await job.open('work');
    await page.getByRole('button', { name: /^Friction insert/ }).click();
    const ids = await page.locator('.list li').evaluateAll((items) => items.map(({ id }) => id));
    expect(ids.indexOf('step-stub-washers-rear')).toBeLessThan(ids.indexOf('step-fit-insert-rear'));
    await page.goto(`/builds/${job.id}/work?tab=step&step=fit-insert`);
    await job.enter('Free fit', '1.5 thou');
    await expect(page.locator('.records').getByText('0.06 to 0.14 mm')).toBeVisible();
    await expect(job.finding('Rear: free fit is 1.5 thou')).toBeVisible();
    await job.enter('Free fit', '4 thou');
    await expect(job.finding('Rear: free fit')).toHaveCount(0);
  });

  test('a locker on reused gears: unbolted outside first, its leak test with a loss a minute', async ({
    page,
    request,
  }) => {
    const job = await jobOf(page, request, 'bracken-raid-truck', (build) => {
      build.axles.rear.work = null;
    });
    await job.open('work');
    await page.getByRole('button', { name: /^Locker A selectable/ }).click();
    await expect(page.locator('#step-pinion-preload-rear')).toHaveCount(0);
    await page.goto(`/builds/${job.id}/work?tab=step&step=undo-outside`);
    await expect(page.getByText('unbolted from outside first')).toBeVisible();
    await page.goto(`/builds/${job.id}/work?tab=step&step=locker-line`);
    await job.enter('Pressure at the start', '100 psi');
    await job.enter('Pressure at the end', '80 psi');
    await job.enter('Minutes held', '10');
    await expect(job.finding(/locker loses .* a minute/)).toBeVisible();
    await job.enter('Least gap to ring, cap or carrier', '1 mm');
    await expect(job.finding('least gap to ring, cap or carrier is 1 mm')).toBeVisible();
  });
});

alone.describe('at phone width', () => {
  alone.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  alone('one step fills the phone: hand of the thread, one action, a photo, done', async ({ drift, page }) => {
    await drift.open('work');
    await openStep(page).tap();
    const title = page.locator('hs-work-step h2');
    await expect(title).toHaveText('Next move, until both are right');
    // The step comes first: no rpm line above it, and of the findings those that are about it.
    await expect(page.locator('hs-line')).toBeHidden();
    const [step, head] = [await boxOf(title), await boxOf(page.locator('h1'))];
    expect(step.y).toBeLessThan(300);
    expect(head.y).toBeLessThan(step.y);
    const all = page.getByRole('button', { name: /Other sheets/ });
    const others = page.locator('#findings-others li');
    const open = (await all.getAttribute('aria-expanded')) === 'true';
    if (!open) await all.tap();
    await expect(others.first()).toBeVisible();
    await page.goto(`/builds/${drift.id}/work?tab=step&step=ring-off`);
    await expect(page.getByText('LEFT-hand thread')).toBeVisible();
    await expect(page.getByText('Undoes clockwise.')).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await page.goto(`/builds/${drift.id}/work?tab=step&step=backlash`);
    await page.getByRole('link', { name: 'Open Mesh' }).tap();
    await expect(page.getByRole('heading', { name: 'Mesh', level: 1 })).toBeVisible();
    // On the sheet that it sent to, the step says that it is read, and leads on.
    const bar = page.getByRole('complementary', { name: 'The step that is in hand' });
    await expect(bar).toContainText('read, so done');
    await bar.getByRole('link', { name: /^Next: Pattern/ }).tap();
    await expect(title).toHaveText('Pattern, both flanks');
    await expect(page.locator('hs-work-step')).toContainText('Done by what was read');
  });

  alone(
    'the ring is drawn up bolt by bolt with a thumb: which is next, rounds, open compound',
    async ({ page, request, browser }) => {
      const job = await jobOf(page, request, 'kittiwake-drift-coupe', () => undefined);
      await page.goto(`/builds/${job.id}/joint?tab=torque`);
      await expect(page.getByText('tightens anticlockwise')).toBeVisible();
      await page.getByRole('button', { name: 'Threadlocker is opened' }).tap();
      await expect(page.getByText('Started means finished')).toBeVisible();
      await expect(page.getByText('Bolt 1 to 26 lbf·ft')).toBeVisible();
      for (const bolt of [1, 6, 3, 8, 5, 10, 2, 7, 4, 9])
        await page.getByRole('button', { name: `Bolt ${bolt}, next`, exact: true }).tap();
      await expect(page.getByText('Bolt 1 to 46 lbf·ft')).toBeVisible();
      await page.getByRole('button', { name: 'Bolt 1, next', exact: true }).tap();
      // Half a round is in the ledger: whoever takes over sees it on another device.
      await job.saved();
      const other = await (await browser.newContext({ baseURL: new URL(page.url()).origin })).newPage();
      await other.goto(`/builds/${job.id}/joint?tab=torque`);
      await expect(other.getByText('1 of 10')).toBeVisible();
      await expect(other.getByText('Bolt 6 to 46 lbf·ft')).toBeVisible();
      await other.context().close();
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    },
  );
});

test('interrupted, and taken over on another device: it opens on the step in hand, with what is out, made and not yet allowed', async ({
  page,
  request,
  browser,
}) => {
  const job = await jobOf(page, request, 'kittiwake-drift-coupe', (build) => {
    build.axles.rear.work = null;
  });
  await job.open('work');
  await page.getByRole('button', { name: /^Gears Ring and pinion/ }).click();
  await openStep(page).click();
  await walkTo(page, 'Choose ratio and unit');
  await job.saved();
  // Somebody else, a phone, the address of the build and no more.
  const other = await browser.newContext({ viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });
  // This device knows whose it is; that it asks is another story’s.
  await other.addInitScript(() => localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Ines' })));
  const phone = await other.newPage();
  await phone.goto(`/builds/${job.id}`);
  await expect(phone).toHaveURL(/\/work/);
  await expect(phone.locator('.next .what')).toContainText('Choose ratio and unit');
  await phone.getByRole('link', { name: 'Open this step' }).click();
  await expect(phone.locator('hs-work-step h2')).toHaveText('Choose ratio and unit');
  // One tap away on a phone: the step itself comes first.
  await phone.getByText('State of the metal').tap();
  await expect(phone.getByText('Not before Gate A')).toBeVisible();
  // Done there, and seen here.
  await phone.getByRole('button', { name: /^Done/ }).click();
  await expect(phone.locator('hs-work-step h2')).not.toHaveText('Choose ratio and unit');
  const next = await phone.locator('hs-work-step h2').innerText();
  await expect(phone.locator('.saving')).toHaveText(/^Saved/);
  await page.reload();
  await job.open('work');
  await expect(page.locator('.next .what')).toContainText(next);
  await other.close();
});

test('inspect: a pitted race run on is a stop, replaced it is decided; what was cut is cleaned twice', async ({
  page,
  request,
}) => {
  const job = await jobOf(page, request, 'kittiwake-drift-coupe', () => undefined);
  await job.open('inspect');
  const races = page.locator('.rows li').filter({ hasText: 'Bearing races' });
  await races.getByRole('button', { name: 'pitted' }).click();
  await expect(races).toContainText('All bearings');
  await races.getByRole('radio', { name: 'Run on' }).check();
  await expect(job.finding('bearing races run on, pitted')).toBeVisible();
  await races.getByRole('radio', { name: 'Replace' }).check();
  await expect(job.finding('bearing races run on')).toHaveCount(0);
  await page.getByRole('link', { name: 'Will it pass' }).click();
  await job.enter('What was cut, and where', 'two teeth of the ring');
  await expect(job.finding('the case was cut and not cleaned twice')).toBeVisible();
});

test('shafts: the weakest link of the driveline is first, and stands on the Line', async ({ drift, page }) => {
  await drift.open('shafts');
  const links = page.getByRole('region', { name: 'Weakest link first' }).getByRole('listitem');
  await expect(links.first()).toContainText('×');
  await expect(links.first()).not.toContainText('Left shaft');
  await page.locator('#shear-left-rear').fill('100');
  await page.locator('#shear-left-rear').press('Enter');
  await expect(links.first()).toContainText('Left shaft');
  await expect(drift.finding('Rear left shaft holds')).toBeVisible();
});

test('recall: every build with a part, with the customer to call; a customer is erased', async ({ page, request }) => {
  const serial = `SN-${randomUUID().slice(0, 8)}`;
  const name = `C. Heron ${serial}`;
  const customer = randomUUID();
  await request.put(`/api/customers/${customer}`, { data: { name, reach: '01632 960 002' } });
  for (const build of ['One', 'Two'])
    await jobOf(page, request, 'kittiwake-drift-coupe', (one) => {
      one.name = `${build} ${serial}`;
      one.customer = build === 'One' ? customer : null;
      one.axles.rear.work.parts[0].number = serial;
    });
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Recall' })).toBeVisible();
  // The finder knows customers too; one leads to the board with what is theirs.
  await page.keyboard.press('/');
  await page.locator('#finder-box').fill(name);
  await page.getByRole('option', { name: new RegExp(`customer.*${name}`) }).click();
  await expect(page.getByRole('link', { name: `One ${serial}` })).toBeVisible();
  await expect(page.getByRole('link', { name: `Two ${serial}` })).toHaveCount(0);
  await page.getByRole('button', { name: 'Recall' }).click();
  await page.getByLabel('What failed').fill(serial);
  await page.getByRole('button', { name: `part: ${serial}` }).click();
  const calls = page.getByRole('region', { name: 'Recall', exact: true });
  await expect(calls).toContainText(`One ${serial}`);
  await expect(calls).toContainText('01632 960 002');
  await expect(calls).toContainText('no customer said');
  await page.getByRole('button', { name: `Remove ${name}` }).click();
  await page.getByRole('button', { name: `Really remove ${name}` }).click();
  await expect(page.getByLabel('Name', { exact: true }).filter({ hasText: name })).toHaveCount(0);
  const left = async (): Promise<boolean> =>
    ((await (await request.get('/api/customers')).json()) as { id: string }[]).some((one) => one.id === customer);
  // It is gone from the page at once, and from the server when it has heard of it.
  await expect.poll(left).toBe(false);
});
