import { expect, test } from './bench';

test.describe('story 4: trust', () => {
  test('a figure opens its working: formula, inputs, steps, source, sensitivity', async ({ drift, page }) => {
    await drift.open('unit');
    await page.locator('[data-figure="unit.rear.drive.lock"]').click();
    const panel = page.locator('hs-working');
    await expect(panel).toContainText('k = μ × n × r_m ÷ (r_p × tan(α + ρ))');
    await expect(panel).toContainText('cross pin radius');
    await expect(panel).toContainText('k, locking torque per input torque');
    await expect(panel.locator('.kind').first()).toHaveText('exact');
    await expect(panel).toContainText('1 % more ramp from the plane of rotation');
    await page.keyboard.press('Escape');
    await expect(panel.locator('.formula')).toHaveCount(0);
  });

  test('sources say standard and from memory', async ({ drift, page }) => {
    await drift.open('gearing');
    await page.locator('[data-figure="gearing.rear.circumference"]').click();
    await expect(page.locator('hs-working')).toContainText('standard, from memory');
    await expect(page.locator('hs-working')).toContainText('Rests on what was typed');
    await expect(page.locator('hs-working')).toContainText('3.05 × overall diameter');
  });

  test('findings list the most serious first and jump to their place', async ({ drift, page }) => {
    await drift.open('engine');
    await drift.enter('Clutch holds', '100 lbf·ft');
    const first = page.locator('hs-findings li').first();
    await expect(first).toContainText('Clutch slips at full torque');
    await expect(first.locator('hs-verdict svg')).toHaveAttribute('aria-label', 'stop');
    await drift.finding('pieces not measured yet').getByRole('button').click();
    await expect(page).toHaveURL(/pack/);
    await expect(drift.field('9 dished spring left')).toBeFocused();
    await page.goBack();
    await expect(page).toHaveURL(/engine/);
    await first.getByRole('button').click();
    await expect(drift.field('Clutch holds')).toBeFocused();
  });

  test('find anything with the slash', async ({ drift, page }) => {
    await drift.open('gearing');
    await page.keyboard.press('/');
    await page.getByLabel('Find a build, part, figure or command').fill('bias power');
    await page.keyboard.press('Enter');
    await expect(page.locator('hs-working')).toContainText('Bias ratio under power');
    await expect(page.getByLabel('Find a build, part, figure or command')).toHaveCount(0);
    await page.keyboard.press('Escape');
    await expect(page.locator('hs-working .formula')).toHaveCount(0);
    await page.keyboard.press('?');
    await expect(page.getByText('Measure the next thing')).toBeVisible();
  });
});
