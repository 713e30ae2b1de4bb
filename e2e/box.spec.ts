import { boxOf, expect, test, type Bench } from './bench';

/** A box begun with the teeth of the gears; its stand-in lengths taken as they are. */
async function described(hill: Bench): Promise<void> {
  const { page } = hill;
  await hill.open('box');
  await page.getByRole('button', { name: 'Describe the box' }).click();
  await hill.open('box?tab=inside');
  await page.getByRole('button', { name: /^Assumed.*keep the box/ }).click();
  await hill.saved();
}

test('a set that the course chose goes into the box: what comes off is listed, ticked off, and goes on again', async ({
  hill,
  page,
  request,
}) => {
  await described(hill);
  await hill.open('sets');
  await hill.field('Time for the search').selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Search the shelf' }).click();
  await expect(page.getByText(/Proven best of/)).toBeVisible({ timeout: 40_000 });
  await page.getByRole('button', { name: 'Take set 1', exact: true }).click();
  await hill.saved();
  await hill.open('box');
  await expect(page.locator('.card')).toContainText(/other pairs? than in the box/);
  await page.getByRole('button', { name: 'Look at them in the box' }).click();
  const pieces = Number(/(\d+) pieces/.exec(await page.locator('.card').innerText())?.[1]);
  expect(pieces).toBeGreaterThan(2);
  const list = page.getByRole('region', { name: 'Re-stack' });
  await expect(list.locator('ol').first().locator('li')).toHaveCount(pieces);
  const off = await list.locator('ol').first().locator('li').count();
  await page.getByRole('button', { name: /^Put (in and re-stack|it in all the same)$/ }).click();
  await hill.saved();
  // The same teeth in both places.
  const { build } = (await (await request.get(`/api/builds/${hill.id}`)).json()) as {
    build: { gearbox: { gears: { ratio: { typed: string } }[] }; box: { pairs: { driver: number; driven: number }[] } };
  };
  expect(build.gearbox.gears.map(({ ratio }) => ratio.typed)).toEqual(
    build.box.pairs.map(({ driven, driver }) => `${driven}/${driver}`),
  );
  await page.getByRole('link', { name: 'Apart and together' }).click();
  await expect(page.getByText(`Round 2, ${off} pieces`)).toBeVisible();
  const done = page.getByRole('button', { name: 'Done, next' });
  const apart = await page.locator('.list li').count();
  for (let i = 0; i < apart; i++) await done.click();
  await expect(page.locator('.out strong')).toHaveText(String(off));
  await page.reload();
  await expect(page.locator('.out strong')).toHaveText(String(off));
  const together = await page.locator('.list li').count();
  for (let i = 0; i < together; i++) await done.click();
  await expect(page.getByText('It is together')).toBeVisible();
  await expect(page.locator('.out')).toHaveCount(0);
  await hill.saved();
});

test('a pair is dragged onto another gear’s place: it is said there, and nothing is kept until it is put in', async ({
  hill,
  page,
  request,
}) => {
  await described(hill);
  await hill.open('box');
  const before = await hill.stored(request);
  const chip = await boxOf(page.locator('.chip', { hasText: '37/14' }).first());
  const third = await boxOf(page.locator('.place').nth(2));
  await page.mouse.move(chip.x + 20, chip.y + 10);
  await page.mouse.down();
  await page.mouse.move(chip.x + 10, chip.y + 14, { steps: 4 });
  await page.mouse.move(third.x + third.width / 2, third.y + 60, { steps: 20 });
  await expect(page.locator('.card')).toContainText('Gear 3, looked at');
  await page.mouse.up();
  await expect(page.locator('.card')).toContainText('made for another place');
  await expect(page.locator('.place button.stop')).toHaveText('3');
  await expect(hill.finding(/made for another place/)).toBeVisible();
  await page.getByRole('button', { name: 'As it was' }).click();
  await expect(hill.finding(/made for another place/)).toHaveCount(0);
  expect((await hill.stored(request)).version).toBe(before.version);
});

test('a drum is edited until it is right: the crossings decide, not the corners', async ({ hill, page }) => {
  await described(hill);
  await hill.open('box?tab=drum');
  await page.getByRole('button', { name: 'Describe the drum' }).click();
  const track = (gears: string) => `Track of ${gears}: degrees and millimetres of each corner`;
  const answer = page.locator('[data-answer]');
  await hill.enter(track('1–2'), '-10 -6, 6 -6, 24 0, 26 0, 44 6, 56 6, 74 0, 260 0');
  await hill.enter(track('5–6'), '-10 0, 176 0, 194 -6, 206 -6, 224 0, 226 0, 244 6, 260 6');
  // Two forks that pass on one stretch: at each corner one gear, between them both.
  await hill.enter(track('3–4'), '-10 0, 52 0, 72 -6, 106 -6, 124 0, 126 0, 144 6, 156 6, 174 0, 260 0');
  await expect(answer).toContainText('two gears are touched at once');
  await expect(page.locator('rect.both')).not.toHaveCount(0);
  await hill.enter(track('3–4'), '-10 0, 76 0, 94 -6, 106 -6, 124 0, 126 0, 144 6, 156 6, 174 0, 260 0');
  await expect(answer).toContainText('one gear at any angle');
  const gear = page.locator('.play strong');
  await expect(gear).toHaveText('Gear 1 is in');
  for (const n of [2, 3, 4, 5, 6]) {
    await page.getByRole('button', { name: 'Gear up' }).click();
    await expect(gear).toHaveText(`Gear ${n} is in`);
  }
  // A corner by the mouse: so steep that its fork jams.
  const steep = page.locator('circle.corner').nth(1);
  await steep.scrollIntoViewIfNeeded();
  const corner = await boxOf(steep);
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2);
  await page.mouse.down();
  await page.mouse.move(corner.x + 200, corner.y + corner.height / 2, { steps: 10 });
  await page.mouse.up();
  await expect(answer).toContainText('a ramp stands at');
  await page.keyboard.press('Control+z');
  await expect(answer).toContainText('one gear at any angle');
  await hill.saved();
});

test.describe('on a phone', () => {
  test('the end float: what does not repeat does not count, the next shim, approved; what is read stays', async ({
    hill,
    page,
  }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    await described(hill);
    await hill.open('box?tab=inside');
    const of = (name: string) => page.locator(`#${name}`);
    for (const [name, text] of [
      ['box-low-driven', '0.10 mm'],
      ['box-high-driven', '0.18 mm'],
    ] as const) {
      await of(name).fill(text);
      await of(name).press('Enter');
    }
    await hill.open('box?tab=float');
    const enter = async (name: string, text: string): Promise<void> => {
      await of(name).fill(text);
      await of(name).press('Enter');
    };
    await enter('box-shim-driven', '1.70 mm');
    await enter('box-float-driven', '0.30 mm');
    await expect(page.getByText('one reading alone does not count')).toBeVisible();
    await enter('box-float-driven', '0.36 mm');
    await expect(page.getByText(/apart: does not count/)).toBeVisible();
    // The wrong one is voided in the ledger’s way: a shim read anew is read anew.
    await page.getByRole('button', { name: 'Void float with shim 1' }).click();
    await page.getByLabel('Reason').fill('not seated');
    await page.getByLabel('Reason').press('Enter');
    await enter('box-float-driven', '0.31 mm');
    await expect(page.locator('hs-box-float .next')).toContainText('Next shim');
    await enter('box-next-shim-driven', '1.87 mm');
    await enter('box-float-driven', '0.14 mm');
    await enter('box-float-driven', '0.15 mm');
    await page.getByRole('button', { name: 'Approve this float' }).click();
    await expect(page.getByText('Approved', { exact: true })).toBeVisible();
    await hill.saved();
    await page.reload();
    await expect(page.getByText('Approved', { exact: true })).toBeVisible();
    // Nothing stands wider than the phone.
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});

test('an electric unit is counted out and in: the gate waits for the last bolt, and the cover for the gate', async ({
  hatch,
  page,
}) => {
  await described(hatch);
  await hatch.open('box?tab=counted');
  const add = page.getByRole('button', { name: 'Add a place' });
  await add.click();
  await hatch.enter('Place', 'Case joint');
  await hatch.enter('How many', '14');
  await page.getByRole('button', { name: 'All 14 out: Case joint' }).click();
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'One in: Case joint' }).click();
  await expect(hatch.finding('Still out')).toContainText('12 of Case joint');
  await hatch.open('gates');
  const gate = page.getByRole('region', { name: 'Gate B' });
  await expect(gate).toContainText('Everything counted in again');
  await expect(gate).toContainText('not all, on Box');
  await hatch.open('box?tab=counted');
  await page.getByRole('button', { name: 'All 14 in: Case joint' }).click();
  await expect(hatch.finding('Everything is counted in')).toBeVisible();
  await hatch.saved();
  await hatch.open('gates');
  await expect(gate).toContainText('all of it');
});
