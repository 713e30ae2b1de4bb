import { readFileSync } from 'node:fs';
import { expect, test } from './bench';

test.describe('story 1: tyre and ratio', () => {
  test('a tyre in any form is read, said, and followed by every figure', async ({ drift, page }) => {
    await drift.open('gearing');
    const cruise = await drift.number('gearing.cruise');
    const forms: [string, RegExp, number][] = [
      // overall diameters: ISO 4000-1 / the designation itself [standard, exact]
      ['245/40R18', /Ø 25\.72\sin/, 653.2],
      ['37x12.50R17', /Ø 37\.00\sin/, 939.8],
      ['28.0/10.5-15', /the larger is across: 28 in diameter/, 711.2],
      ['300/680-18', /too much for an aspect ratio/, 680],
    ];
    for (const [text, said, diameter] of forms) {
      await drift.enter('Tyre', text);
      await expect(page.locator('#tyre-rear-said')).toHaveText(said);
      // the old tyre 255/40R17 is 635.8 mm: cruise rpm goes with the inverse of the diameter [exact]
      await expect.poll(() => drift.number('gearing.cruise')).toBeCloseTo((cruise * 635.8) / diameter, -1);
    }
    await drift.saved();
  });

  test('the picture is saved as SVG and the table as CSV, as they are seen', async ({ drift, page }) => {
    await drift.open('gearing');
    await expect(page.locator('hs-chart canvas').first()).toBeVisible();
    const save = async (name: RegExp): Promise<string> => {
      await page.getByRole('button', { name: 'Save a drawing or table of this sheet' }).click();
      const [file] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('list', { name: 'To be saved' }).getByRole('button', { name }).click(),
      ]);
      return readFileSync(await file.path(), 'utf8');
    };
    const svg = await save(/SVG$/);
    expect(svg).toMatch(/^<svg[^>]* xmlns="http:\/\/www.w3.org\/2000\/svg"/);
    // Axis and limiter are in it as text.
    expect(svg).toContain('road speed');
    expect(svg).toContain('limiter');
    const table = await save(/CSV$/);
    expect(table.split('\n')[0]).toContain('At the limiter');
    expect(table).toContain('3.727,45.6');
    await page.keyboard.press('Escape');
  });

  test('a measured rollout replaces the designation', async ({ drift }) => {
    await drift.open('gearing');
    await drift.field('Rolls by').selectOption('rollout');
    await drift.enter('One turn', '2000 mm');
    // 65 mph, 6th 0.77, 4.3, 2.000 m: 65·26.8224/60... rpm = 60·29.0576·0.77·4.3/2 [exact]
    await expect.poll(() => drift.number('gearing.cruise')).toBe(Math.round((60 * 65 * 0.44704 * 0.77 * 4.3) / 2));
    await expect(drift.finding(/tyre measured/)).toBeVisible();
  });

  test('bad tyres and teeth are refused in place, and nothing is lost', async ({ drift, page, request }) => {
    await drift.open('gearing');
    await drift.enter('Tyre', '245/40Z');
    await expect(page.locator('#tyre-rear-said')).toContainText('“245/40Z” is not a tyre size');
    await expect(drift.field('Tyre')).toHaveValue('245/40Z');
    await drift.enter('Pinion teeth', '99');
    await expect(page.locator('#final-rear-pinion-said')).toContainText('looks swapped');
    for (const bad of ['', '-3', '0', 'ten', '1e308', 'NaN']) {
      await drift.enter('Ring teeth', bad);
      await expect(page.locator('#final-rear-ring-said')).toContainText('Ring teeth must be a whole number');
    }
    expect((await drift.stored(request)).version).toBe(1);
  });

  test('final drive by tooth counts: ratio, hunting, speeds at the limiter', async ({ drift }) => {
    await drift.open('gearing');
    await drift.enter('Ring teeth', '40');
    await expect(drift.figure('gearing.rear.final')).toHaveText('4.000');
    await expect(drift.finding('40/10 does not hunt')).toBeVisible();
    await drift.enter('Ring teeth', '41');
    await expect(drift.finding('41/10 hunts')).toBeVisible();
    await expect(drift.station('Final drive')).toContainText('4.100');
  });

  test('up to four candidates on the same picture; taking one swaps it with the present', async ({ drift, page }) => {
    await drift.open('gearing');
    await drift.enter('Compare with', '37/9');
    await expect(page.locator('tbody tr')).toHaveCount(7); // present, its shift drops, the planned tyre, four candidates
    await expect(drift.field('Compare with')).toHaveCount(0);
    // All four are to be compared at one look: the last one stands on the page, not below it.
    const rows = await page
      .locator('tbody tr')
      .evaluateAll((all) => all.map((row) => row.getBoundingClientRect().bottom));
    expect(Math.max(...rows.slice(0, 6))).toBeLessThanOrEqual(await page.evaluate(() => innerHeight));
    await page.getByRole('button', { name: 'Take 41/11' }).click();
    await expect(drift.figure('gearing.rear.final')).toHaveText('3.727');
    await expect(page.getByRole('button', { name: 'Take 43/10' })).toBeVisible();
    await page.getByRole('button', { name: 'Remove 43/10' }).click();
    await expect(page.locator('tbody tr')).toHaveCount(6);
  });

  test('the final drive slider moves everything at once, and is taken or dropped', async ({ drift, page, request }) => {
    await drift.open('gearing');
    const before = await drift.station('Tyres').innerText();
    const slider = page.getByLabel(/Drag to try/);
    await slider.fill('3.5');
    await expect(page.getByRole('button', { name: /^Take \d+\/\d+/ }).first()).toBeVisible();
    expect(await drift.station('Tyres').innerText()).not.toBe(before);
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    await expect.poll(() => drift.station('Tyres').innerText()).toBe(before);
    expect((await drift.stored(request)).version).toBe(1);
    await slider.fill('3.5');
    await page.locator('.tried button').first().click();
    await drift.saved();
    await expect.poll(() => drift.number('gearing.rear.final')).toBeCloseTo(3.5, 1);
  });

  test('dragging the cursor on the chart moves the Line; arrow keys move it too', async ({ drift, page }) => {
    await drift.open('gearing');
    const box = await page.locator('hs-chart .canvas').boundingBox();
    if (!box) throw new Error('no chart');
    const speed = () => page.locator('output').innerText();
    const before = await speed();
    await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.5);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.5, { steps: 5 });
    const during = await speed();
    expect(during).not.toBe(before);
    const mph = (text: string) => /([\d.]+)\smph/.exec(text)?.[1];
    expect(mph(await drift.station('Tyres').innerText())).toBe(mph(during));
    await page.mouse.up();
    await page.getByLabel('Operating point, engine speed').focus();
    await page.keyboard.press('ArrowRight');
    await expect.poll(speed).not.toBe(during);
    await page.getByRole('radio', { name: '4', exact: true }).click();
    await expect(drift.station('Gear 4')).toBeVisible();
    const kept = await speed();
    await page.reload();
    await expect(page.locator('output')).toHaveText(kept);
    // where one looks is this device's own: no version of the build was made of it
    expect((await drift.stored(page.request)).version).toBe(1);
  });

  test('a whine has its frequencies at the speed where it is heard', async ({ drift, page }) => {
    await drift.open('gearing?tab=noise');
    const mesh = page.locator('hs-noise-tab tr.present td').first();
    // 10 pinion teeth · 43/10 · v / C, C = 3.05 · 635.8 mm [exact; factor ETRTO, from memory]
    for (const [typed, mps] of [
      ['100 km/h', 100 / 3.6],
      ['60 mph', 26.8224],
    ] as const) {
      await drift.enter('Heard at', typed);
      await expect.poll(async () => Number(await mesh.innerText())).toBeCloseTo((43 * mps) / (3.05 * 0.6358), 0);
    }
    await drift.enter('Rollers of the bearing', '2');
    await expect(drift.field('Rollers of the bearing')).toHaveAttribute('aria-invalid', 'true');
    await drift.enter('Rollers of the bearing', '18');
    await drift.saved();
    await page.reload();
    await expect(drift.field('Rollers of the bearing')).toHaveValue('18');
  });

  test('a climb heats the converter, less with a shorter final drive', async ({ truck, page }) => {
    await truck.open('gearing?tab=heat');
    const heat = () => truck.number('road.heat');
    const before = await heat();
    expect(await truck.number('road.heatBefore')).toBeGreaterThan(before);
    await truck.enter('Slope', '8');
    await expect.poll(heat).toBeLessThan(before);
    const light = await heat();
    await truck.enter('Carried or towed', '4000 lb');
    await expect.poll(heat).toBeGreaterThan(light);
    await truck.enter('Slope', '60');
    await expect(page.locator('hs-heat-tab')).toContainText('can’t hold');
  });

  test('front and rear axle with their mismatch', async ({ truck, page }) => {
    await truck.open('gearing');
    await expect(truck.figure('gearing.mismatch')).toHaveText('−0.27 %');
    await page.getByRole('radio', { name: 'Front axle' }).click();
    // The fields stand for the other axle once they show it.
    await expect(truck.field('Ring teeth')).toHaveValue('46');
    await truck.enter('Ring teeth', '44');
    await expect(truck.finding('Front shaft 4.61 % slower than rear')).toBeVisible();
    await expect(truck.finding(/transfer case winds up/)).toBeVisible();
  });
});
