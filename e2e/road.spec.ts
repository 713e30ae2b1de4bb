import { expect, test } from './bench';

test.describe('ratio story 3: match in full', () => {
  test('thrust, ladder and match are live, each with its address', async ({ drift, page }) => {
    await drift.open('gearing');
    await page.getByRole('link', { name: 'Thrust' }).click();
    await expect(page).toHaveURL(/tab=thrust/);
    await expect(page.locator('hs-thrust-tab canvas')).toBeVisible();
    await page.getByRole('link', { name: 'Rpm ladder' }).click();
    await drift.enter('Road speeds, with commas', '40, 70 mph, 160 km/h');
    await expect(drift.field('Road speeds, with commas')).toHaveValue('40 mph, 70 mph, 99 mph');
    await page.getByRole('link', { name: 'Match' }).click();
    const cruise = await drift.number('gearing.cruise');
    await drift.enter('Driven wheels slip', '5');
    await expect.poll(() => drift.number('gearing.cruise')).toBeCloseTo(cruise / 0.95, -1);
    await expect(drift.figure('match.reading')).toHaveText('86.2 %');
    await page.goBack();
    await expect(page).toHaveURL(/tab=ladder/);
    await drift.saved();
  });

  test('cruise against converter stall, with its slip', async ({ truck }) => {
    await truck.open('engine');
    await truck.enter('Rated stall', '2200');
    await expect(truck.finding(/Cruise is \d+ rpm from converter stall/)).toContainText('slips and heats');
  });

  test('operating points are kept on the build and shown on the Line', async ({ drift, page }) => {
    await drift.open('gearing');
    await page.getByRole('button', { name: 'Trap', exact: true }).click();
    await expect(page.locator('output')).toContainText('7 100 rpm'.replace(' ', '\u202f'));
    await page.getByRole('radio', { name: '1', exact: true }).click();
    await page.getByRole('button', { name: /Keep this operating point/ }).click();
    await page.getByRole('button', { name: 'Crawl', exact: true }).click();
    await drift.saved();
    await page.reload();
    await expect(page.getByRole('button', { name: 'Crawl', exact: true })).toHaveAttribute('aria-pressed', 'true');
    await page.getByRole('button', { name: 'Cruise', exact: true }).click();
    await expect(drift.station('Gear 6')).toBeVisible();
  });
});

test.describe('ratio story 4: run it', () => {
  test('every final drive on one picture, times at the marks, limits in words', async ({ drift, page }) => {
    await drift.open('road');
    await expect(page.locator('hs-road-sheet tbody tr')).toHaveCount(5); // present, three candidates, seconds by gear
    const before = await drift.number('road.time');
    await drift.enter('Grip μ', '1.4');
    await expect.poll(() => drift.number('road.time')).toBeLessThan(before);
    await drift.enter('Slope', '10');
    await expect.poll(() => drift.number('road.time')).toBeGreaterThan(before - 1);
    await drift.enter('Slope', '95');
    await expect(page.getByText(/does not move off/)).toBeVisible();
    await expect(drift.figure('road.time')).toHaveText('not reached');
    await drift.enter('Slope', '0');
    await page.locator('[data-figure="road.time"]').click();
    await expect(page.locator('hs-working')).toContainText('a = the least of: engine');
    await expect(page.locator('hs-working')).toContainText('Wong');
    await page.keyboard.press('Escape');
    await drift.field('Drawn').selectOption('over distance');
    await drift.saved();
  });

  test('a time slip starts after the rollout and has mean speeds at its end', async ({ drift, page }) => {
    await drift.open('road');
    const cell = async (n: number) =>
      (await page.locator('hs-road-sheet tbody tr').first().locator('td').nth(n).innerText()).split(/\s+/).map(Number);
    const plain = await cell(1);
    await drift.field('Clock').selectOption('time slip');
    await expect(page.getByText(/from .* of rollout on, speeds the mean of the last 66 ft/)).toBeVisible();
    const slip = await cell(1);
    expect(slip[0]).toBeLessThan(plain[0] ?? 0);
    expect(slip[1]).toBeLessThan(plain[1] ?? 0);
  });

  test('a converter launch runs too', async ({ truck, page }) => {
    await truck.open('road');
    await expect(page.getByText('Launched against the converter’s stall')).toBeVisible();
    expect(await truck.number('road.time')).toBeGreaterThan(10);
  });
});

test.describe('ratio story 5: find it', () => {
  test('sets of the axle are ranked with reasons, changes and cost; one is taken', async ({ drift, page }) => {
    await drift.open('gearing?tab=find');
    const first = page.locator('[data-final]').first();
    await expect(first).toContainText('quickest of all');
    await expect(first).toContainText(/carrier: 3 series/);
    const before = await first.getAttribute('data-final');
    await page.getByRole('button', { name: `Take ${before}`, exact: true }).click();
    await expect(page.locator('li.present')).toContainText(before ?? '');
    await expect(drift.finding('does not take')).toBeVisible();
    await drift.open('brief');
    await drift.field('Goal').selectOption('Rpm range at cruise');
    await drift.enter('Rpm from', '2400');
    await drift.enter('Rpm to', '2600');
    await drift.open('gearing?tab=find');
    await expect(page.locator('[data-final]').first()).toContainText('inside the window');
  });
});

test('prices are in the currency of the shop, chosen in the library', async ({ drift, page, request }) => {
  await page.goto('/library');
  await page.getByLabel('Currency of the shop’s prices').selectOption('prices in SEK');
  await expect.poll(async () => (await request.get('/api/shop')).json()).toMatchObject({ currency: 'SEK' });
  await drift.open('gearing?tab=find');
  await expect(page.locator('[data-final]').first()).toContainText(/SEK|kr/);
});

test.describe('ratio story 6: sets of pairs', () => {
  test('the shelf is searched in the worker, proven, and the best set goes into the box', async ({ hill, page }) => {
    await hill.open('sets');
    // It takes a second or two; a busy machine is no failure.
    await hill.field('Time for the search').selectOption({ index: 1 });
    await page.getByRole('button', { name: 'Search the shelf' }).click();
    await expect(page.getByText(/Proven best of 50,000 sets/)).toBeVisible({ timeout: 40_000 });
    const gain = page.locator('tr.on td').nth(-3);
    await expect(gain).toHaveText(/0\.\d\d s faster/);
    // slowest first, and what was picked stays picked
    const sets = page.getByRole('region', { name: 'Sets by course time' });
    const slowest = page.getByRole('columnheader', { name: 'Time' });
    await slowest.click();
    await slowest.click();
    await expect(sets.getByRole('row').last()).toContainText('best');
    await page.getByRole('button', { name: 'Take set 1', exact: true }).click();
    await hill.saved();
    await hill.open('engine');
    await expect(hill.field('Gear 1')).toHaveValue(/^\d+\/\d+$/);
  });

  test('a search can be stopped, and says how far its bound is', async ({ hill, page, request }) => {
    // as many pairs as a shelf takes, 66 a gear: more than can be settled while somebody reaches for the button
    const stored = (await (await request.get(`/api/builds/${hill.id}`)).json()) as {
      build: { shelf: { pairs: unknown[]; steps: string } };
    };
    stored.build.shelf.steps = 'descending';
    stored.build.shelf.pairs = [2.7, 2.06, 1.68, 1.41, 1.22, 1.08].flatMap((ratio, k) =>
      Array.from({ length: 66 }, (_, i) => ({
        id: `x${k}-${i}`,
        driver: 40 + i,
        driven: Math.round((40 + i) * ratio * (0.9 + 0.002 * i)),
        positions: [k + 1],
        torqueLimit: null,
      })),
    );
    const put = await request.put(`/api/builds/${hill.id}`, {
      data: { writeId: crypto.randomUUID(), baseVersion: 1, build: stored.build },
    });
    expect(put.ok()).toBe(true);
    await hill.open('sets');
    await page.getByLabel('Time for the search').selectOption('at most 120 s');
    await page.getByRole('button', { name: 'Search the shelf' }).click();
    await expect(page.getByRole('status').filter({ hasText: 'settled, best' })).toBeVisible({ timeout: 20_000 });
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(
      page.getByText(/Stopped after [\d.]+ s: not proven, no set can be more than [\d.]+ s faster/),
    ).toBeVisible();
    await page.getByLabel('Time for the search').selectOption('at most 5 s');
    await page.getByRole('button', { name: 'Search the shelf' }).click();
    await expect(page.getByText(/Ended after [\d.]+ s: not proven/)).toBeVisible({ timeout: 15_000 });
  });

  test('a shelf that can’t reach the course’s speed says which constraint', async ({ hill, page }) => {
    await hill.open('sets?tab=shelf');
    await hill.enter('No shift ends below', '9900');
    await page.getByRole('link', { name: 'Search', exact: true }).click();
    await page.getByRole('button', { name: 'Search the shelf' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'rpm floor' })).toContainText('9900');
  });

  test('a course from a speed trace: units confirmed, bad rows listed, a million rows thinned', async ({
    hill,
    page,
  }) => {
    test.setTimeout(90_000);
    await hill.open('sets?tab=course');
    const rows = ['Time (s),Speed (km/h)'];
    for (let i = 0; i < 1_000_000; i++)
      rows.push(`${(i * 0.0001).toFixed(4)},${(90 + 50 * Math.sin(i / 40_000)).toFixed(2)}`);
    rows.splice(100, 0, 'NaN,80', '0.0098,80');
    await page
      .getByLabel('CSV file of a speed trace')
      .setInputFiles({ name: 'long lap.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
    await expect(page.getByText(/1,000,002 rows/)).toBeVisible({ timeout: 40_000 });
    await expect(page.getByText(/rows thinned to \d+ samples/)).toBeVisible();
    await expect(page.getByText('time is not a number')).toBeVisible();
    await page.getByRole('button', { name: 'Take this course' }).click();
    await expect(hill.field('Course')).toHaveValue('long lap');
    await hill.saved();
  });
});
