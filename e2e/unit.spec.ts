import { expect, test } from './bench';

test.describe('story 2: the unit', () => {
  test('ramps, convention and action change the lock; the steel stays when the convention changes', async ({
    drift,
    page,
  }) => {
    await drift.open('unit');
    const bias = () => drift.number('unit.rear.drive.bias');
    const before = await bias();
    await drift.field('The maker quotes the ramp as').selectOption('axis');
    await expect(drift.field('Drive ramp')).toHaveValue('45°');
    expect(await bias()).toBeCloseTo(before, 2);
    await drift.enter('Drive ramp', '30');
    // 30° from the axis is 60° from the plane of rotation: locks less [exact, ramp thrust]
    await expect.poll(bias).toBeLessThan(before);
    await page.getByRole('radio', { name: '1½-way' }).click();
    await drift.enter('Overrun ramp', '10');
    const drive = await bias();
    await expect.poll(() => drift.number('unit.rear.overrun.bias')).toBeLessThan(drive);
    await page.getByRole('radio', { name: 'One-way' }).click();
    // springs alone hold 41.0 of 453.7 lbf·ft: (1 + S)/(1 − S) [exact]
    await expect.poll(() => drift.number('unit.rear.overrun.bias')).toBe(1.2);
  });

  test('ramps that lock solid are said, with the angle at which it lets go', async ({ drift }) => {
    await drift.open('unit');
    await drift.enter('Drive ramp', '25');
    await expect(drift.figure('unit.rear.drive.bias')).toHaveText('locked');
    await expect(drift.finding('locks solid under power at any torque')).toContainText('above 25.2°');
    await drift.enter('Ramp friction', '0');
    await expect(drift.finding('locks solid under power at any torque')).toContainText('above 30.9°'); // 25.2° + atan 0.1 [exact]
    await drift.enter('Drive ramp', '0');
    await expect(drift.finding('Can’t be worked out')).toContainText('without limit');
    await drift.enter('Drive ramp', '91');
    await expect(drift.field('Drive ramp')).toHaveAttribute('aria-invalid', 'true');
  });

  test('open and spool, and back with the plates as they were', async ({ drift, page }) => {
    await drift.open('unit');
    await drift.field('Type').selectOption('Open');
    await expect(drift.figure('unit.rear.drive.bias')).toHaveText('1.00');
    await expect(drift.station('Packs')).toHaveCount(0);
    await drift.field('Type').selectOption('Spool or welded');
    await expect(drift.figure('unit.rear.drive.bias')).toHaveText('locked');
    await expect(page.locator('hs-unit-sheet').getByText(/off its stands/)).toBeVisible();
    await page.keyboard.press('Escape');
    await drift.saved();
    await drift.open('pack');
    await expect(page.getByText('This axle has no clutch packs')).toBeVisible();
    await page.getByRole('link', { name: 'To the unit' }).click();
    await drift.field('Type').selectOption('Plate, with ramps');
    await expect(drift.field('Drive ramp')).toHaveValue('45°');
    await drift.saved();
  });

  test('a helical unit is taken from side by side, described, and kept', async ({ drift, page }) => {
    await drift.open('unit?tab=compare');
    await page.getByRole('button', { name: 'Take Helical into the build' }).click();
    await expect(page.locator('tr.own')).toContainText('This one: helical');
    await page.getByRole('link', { name: 'This unit' }).click();
    await drift.enter('Bias ratio of the gears', '3');
    await drift.enter('Locking torque at no input', '0');
    // [exact, docs/unit.md]: a bias ratio of 3 at every torque without preload
    await expect(drift.figure('unit.rear.drive.bias')).toHaveText('3.00');
    await expect(drift.station('Unit')).toContainText('Helical');
    await drift.saved();
    await page.reload();
    await expect(drift.field('Bias ratio of the gears')).toHaveValue('3');
  });

  test('every type side by side; more grip on the slippery side lifts them all', async ({ drift, page }) => {
    await drift.open('unit');
    await page.getByRole('link', { name: 'Side by side' }).click();
    await expect(page).toHaveURL(/tab=compare/);
    await drift.field('Show').selectOption('every situation');
    const open = page
      .locator('hs-compare-tab tbody tr', { has: page.locator('.name', { hasText: /^Open$/ }) })
      .locator('.thrust')
      .first();
    const before = Number((await open.innerText()).replace(/\D/g, ''));
    await page.getByLabel(/Grip of the slippery side/).fill('0.6');
    await expect.poll(async () => Number((await open.innerText()).replace(/\D/g, ''))).toBeCloseTo(2 * before, -2); // 0.3 to 0.6 [exact]
    await expect(page.locator('tr.own')).toContainText('This one: plate, with ramps');
  });
});

test.describe('unit story: what the use wants', () => {
  test('weights decide the order, are kept, and go back to the usual ones', async ({ drift, page }) => {
    await drift.open('unit?tab=compare');
    const first = page.locator('hs-compare-tab tbody th .name').first();
    await expect(first).not.toHaveText('Open');
    await page.getByLabel('Weight of price').fill('100');
    await page.getByLabel('Weight of price').press('Tab');
    for (const criterion of ['drive out of the corner', 'tunable', 'steady on lift', 'drive on split grip']) {
      await page.getByLabel(`Weight of ${criterion}`).fill('0');
      await page.getByLabel(`Weight of ${criterion}`).press('Tab');
    }
    await expect(first).toHaveText('Open'); // nothing is cheaper than none [exact]
    await drift.saved();
    await page.reload();
    await expect(first).toHaveText('Open');
    await page.getByLabel('Weight of price').fill('101');
    await page.getByLabel('Weight of price').press('Tab');
    await expect(page.locator('hs-compare-tab').getByRole('alert')).toContainText(/100/);
    await page.getByRole('button', { name: 'as usual' }).click();
    await expect(first).not.toHaveText('Open');
  });
});

test.describe('unit story: tune later', () => {
  test('from the driver’s words to one step, its effect on lock and breakaway, taken and undone', async ({
    drift,
    page,
  }) => {
    await drift.open('unit?tab=tune');
    await page.getByRole('button', { name: 'snaps on lift', exact: true }).click();
    await page.getByRole('button', { name: 'pushes wide', exact: true }).click();
    const pushes = page.getByRole('region', { name: 'pushes wide' });
    await expect(pushes).toContainText('drive ramp 45° → 50°');
    await pushes.getByRole('button', { name: /drive ramp 45° → 50°/ }).click();
    await expect(drift.station('Unit')).toContainText('50°');
    await expect(pushes).toContainText('drive ramp 50° → 55°');
    await drift.saved();
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(drift.station('Unit')).toContainText('45°');
  });
});

test.describe('unit story: how this shop does it', () => {
  test('the shop’s schools are chosen with their reasons, and a new plate unit follows them', async ({
    hatch,
    page,
  }) => {
    await page.goto('/library');
    await page.getByRole('button', { name: 'How we do it', exact: true }).click();
    await page.getByLabel('Ramp angles are quoted').selectOption('From the axle’s axis');
    await expect(page.getByText('A larger angle locks harder')).toBeVisible();
    await page.getByLabel('Ring gear is').selectOption('Pulled on');
    await expect(page.getByText(/strains the bolts and sits cocked/)).toBeVisible();
    await expect(page.getByText(/^version \d+$/)).toBeVisible();
    await hatch.open('unit');
    await hatch.field('Type').selectOption('Plate, with ramps');
    await expect(hatch.field('The maker quotes the ramp as')).toHaveValue('axis');
    await expect(hatch.field('Drive ramp')).toHaveValue('40 °'); // 90° less 50° [exact]
  });
});
