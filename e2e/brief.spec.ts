import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { expect, test } from './bench';

test.describe('ratio story 1: brief and identify', () => {
  test('the brief steers what is judged', async ({ truck, page, request }) => {
    await truck.open('brief');
    await truck.field('Goal').selectOption('Crawl');
    await truck.enter('Crawl ratio wanted', '60');
    // 4.12 · 2.72 · 41/8 = 57.4 [exact]
    await expect(truck.finding('Crawl ratio 2.6 short of the brief')).toContainText('a final drive of 5.35 makes it');
    await page.getByRole('button', { name: 'whines' }).click();
    await truck.enter('Planned tyre', '40x13.50R17');
    await expect(page.locator('#brief-tyre-said')).toBeAttached();
    await truck.saved();
    await page.reload();
    await expect(page.getByRole('button', { name: 'whines' })).toHaveAttribute('aria-pressed', 'true');
    expect((await truck.stored(request)).build['brief']).toMatchObject({
      goal: 'crawl',
      crawlRatio: { typed: '60' },
      complaints: ['runs-hot', 'whines'],
      plannedTyre: '40x13.50R17',
    });
  });

  test('a complaint leads to where it is worked on', async ({ truck, page }) => {
    await truck.open('brief');
    await page.getByRole('link', { name: /^runs hot:/i }).click();
    await expect(page).toHaveURL(/gearing\?tab=heat/);
    await expect(truck.field('Steady speed')).toBeVisible();
    await page.goBack();
    await page.getByRole('button', { name: 'whines' }).click();
    await page.getByRole('link', { name: /^whines:/i }).click();
    await expect(page.getByText('Look at, in this order')).toBeVisible();
    await truck.open('brief');
    await page.getByRole('button', { name: 'pushes wide' }).click();
    await page.getByRole('link', { name: /^pushes wide:/i }).click();
    await expect(page).toHaveURL(/unit\?tab=tune/);
    await expect(page.getByRole('button', { name: 'pushes wide', exact: true })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
  });

  test('thread hand is shown large, match numbers are compared, the carrier is checked', async ({ drift, page }) => {
    await drift.open('brief?tab=axle');
    await expect(page.locator('hs-axle-spec .left')).toBeVisible();
    await expect(drift.finding('Rear ring bolts are left-hand')).toContainText('clockwise undoes them');
    await drift.enter('pinion', 'K118');
    await expect(drift.finding('Rear ring and pinion don’t match')).toBeVisible();
    await drift.field('Carrier in it').selectOption('3 series');
    await expect(drift.finding('does not take 4.300')).toContainText('4 series');
    await drift.finding('does not take 4.300').getByRole('button').click();
    await expect(drift.field('Carrier in it')).toBeFocused();
  });

  test('an axle is made once, kept in the library, exported, and taken into another build', async ({
    truck,
    page,
    request,
  }) => {
    const name = `Sandmartin ${Date.now()}`;
    await truck.open('brief?tab=axle');
    await page.getByRole('radio', { name: 'Front axle' }).click();
    await page.getByRole('button', { name: 'Describe it here' }).click();
    await page.locator('#front-name').fill(name);
    await page.locator('#front-name').press('Enter');
    await truck.field('Construction').selectOption('Drop-out carrier');
    await truck.enter('Add a set by teeth', '46/9');
    await truck.enter('46/9 price', '405');
    await truck.field('46/9 known from').selectOption('guess');
    await page.getByRole('button', { name: 'Keep in the library' }).click();
    await expect(page.getByText('In the library as it is')).toBeVisible();
    await page.goto('/library');
    await page
      .getByRole('region', { name: 'Specs' })
      .getByRole('button', { name: new RegExp(name) })
      .click();
    await expect(page.getByLabel('46/9 price')).toHaveValue('405');
    await expect
      .poll(async () => (await request.get('/api/library/export?as=csv')).text())
      .toContain(`axle,${name},set,46/9 |  | 405,guess`);
  });

  test('while the server is away, a change of the library waits here, over a reload, and goes later', async ({
    page,
    request,
  }) => {
    const name = `Dotterel ${Date.now()}`;
    await page.goto('/library');
    await page.route('**/api/library/**', (route) => route.abort());
    await page.getByRole('button', { name: 'Drawer', exact: true }).click();
    const drawer = page.getByLabel('Drawer', { exact: true });
    await drawer.fill(name);
    await drawer.press('Enter');
    await page.getByLabel('Add shims: thickness × how many').fill('30 thou × 4');
    await page.getByLabel('Add shims: thickness × how many').press('Enter');
    await expect(page.locator('.saving')).toContainText(/waits?, kept here/);
    await page.reload();
    const entry = page.getByRole('region', { name: 'Specs' }).getByRole('button', { name: new RegExp(name) });
    await expect(entry).toContainText('4 shims');
    await page.unroute('**/api/library/**');
    const stored = async (): Promise<string> => (await request.get('/api/library/export?as=csv')).text();
    await expect.poll(stored, { timeout: 15_000 }).toContain(`shims,${name},piece`);
    await expect(page.locator('.saving')).toHaveText('');
  });

  test('a spec changed in two places: both are kept until somebody chooses', async ({ page, request }) => {
    const id = crypto.randomUUID();
    const name = `Whimbrel ${Date.now()}`;
    const drawer = (count: number) => ({
      kind: 'shims',
      name,
      seat: 'pack',
      bore: null,
      outside: null,
      pieces: [{ thickness: { typed: '0.7', value: 0.7, unit: 'mm' }, count, origin: 'measured' }],
    });
    const put = (baseVersion: number, count: number) =>
      request.put(`/api/library/${id}`, {
        data: { writeId: crypto.randomUUID(), baseVersion, spec: drawer(count) },
      });
    // A page that does not hear of it before it writes itself.
    await page.route('**/api/changes*', (route) => route.abort());
    expect((await put(0, 2)).status()).toBe(201);
    await page.goto('/library');
    const list = page.getByRole('region', { name: 'Specs' });
    await list.getByRole('button', { name: new RegExp(name) }).click();
    expect((await put(1, 5)).status()).toBe(200);
    await page.getByLabel(/^How many of/).fill('3');
    await page.getByLabel(/^How many of/).press('Enter');
    await expect(page.getByText(`“${name}” was saved from another tab or machine (version 2)`)).toBeVisible();
    await page.getByRole('button', { name: 'Take the other, mine beside it' }).click();
    await expect(list.getByRole('button', { name: new RegExp(`${name} Drawer: 5 shims`) })).toBeVisible();
    await expect(list.getByRole('button', { name: new RegExp(`${name}, mine Drawer: 3 shims`) })).toBeVisible();
  });

  test('the library takes CSV in, lists bad lines and keeps the rest', async ({ page }) => {
    const name = `Turnstone ${Date.now()}`;
    const csv = [
      'kind,name,field,value,origin',
      `gearbox,${name},box,sequential,maker`,
      `gearbox,${name},gear,1 | 38/14,maker`,
      `gearbox,${name},gear,2 | two,maker`,
      `gearbox,${name},gear,2 | 35/17,measured`,
    ].join('\n');
    await page.goto('/library');
    await page
      .getByLabel('Library file to import')
      .setInputFiles({ name: 'box.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
    const brings = page.getByRole('region', { name: 'What the file brings' });
    await expect(brings).toContainText('1 line can’t be used');
    await brings.getByRole('button', { name: 'Take 1 in' }).click();
    await expect(page.getByText('1 taken from “box.csv”.')).toBeVisible();
    await page
      .getByRole('region', { name: 'Specs' })
      .getByRole('button', { name: new RegExp(name) })
      .click();
    await expect(page.getByLabel('Gear 2', { exact: true })).toHaveValue('35/17');
    await page
      .getByLabel('Library file to import')
      .setInputFiles({ name: 'no.json', mimeType: 'application/json', buffer: Buffer.from('{"format":"other"}') });
    await expect(page.getByText(/Nothing taken/)).toContainText('format');
  });

  test('a drawer is counted through in a spreadsheet and comes back: what changes is said, and nothing else does', async ({
    page,
    request,
  }) => {
    const name = `Avocet ${Date.now()}`;
    const id = randomUUID();
    const mm = (value: number) => ({ typed: `${value} mm`, value, unit: 'mm' });
    const piece = (value: number, count: number) => ({ thickness: mm(value), count, origin: 'measured' });
    const spec = {
      kind: 'shims',
      name,
      seat: 'pack',
      bore: null,
      outside: null,
      pieces: [piece(0.5, 3), piece(0.6, 2)],
    };
    await request.put(`/api/library/${id}`, { data: { writeId: randomUUID(), baseVersion: 0, spec } });
    await page.goto('/library');
    const [saved] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Drawers as CSV' }).click(),
    ]);
    const bytes = readFileSync(await saved.path());
    expect([...bytes.subarray(0, 3)]).toEqual([0xef, 0xbb, 0xbf]);
    const counted = bytes.toString('utf8').replace(`${id},${name},pack,,,0.5,3,`, `${id},${name},pack,,,0.5,1,`);
    await page
      .getByLabel('Library file to import')
      .setInputFiles({ name: 'drawers.csv', mimeType: 'text/csv', buffer: Buffer.from(counted) });
    const brings = page.getByRole('region', { name: 'What the file brings' });
    await expect(brings).toContainText('0 new, 1 changed');
    await expect(brings).toContainText('comes: piece 0.5 mm | 1');
    await brings.getByRole('button', { name: 'Take 1 in' }).click();
    await expect
      .poll(async () => {
        const all = (await (await request.get('/api/library')).json()) as {
          id: string;
          version: number;
          spec: unknown;
        }[];
        return all.find((one) => one.id === id);
      })
      .toMatchObject({ version: 2, spec: { ...spec, pieces: [piece(0.5, 1), piece(0.6, 2)] } });
  });

  test('the gearbox of a build comes from the library', async ({ drift, page }) => {
    await drift.open('engine');
    await drift.field('Gearbox of the library').selectOption('Fulmar six-speed automatic');
    await expect(drift.field('Gear 1')).toHaveValue('4.12');
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await expect(drift.field('Gear 1')).toHaveValue('3.15');
  });
});

test.describe('ratio story 2: engine', () => {
  test('a curve from a CSV file: units confirmed, bad rows by line, the rest kept', async ({ drift, page }) => {
    await drift.open('engine');
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    const csv = 'rpm,torque\n1500,200\n3000,300\n3000,301\nlots,2\n5000,340\n7000,300\n';
    await page
      .getByLabel('CSV file of a torque curve')
      .setInputFiles({ name: 'dyno.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
    await expect(page.getByText('4 points, 1500 to 7000 rpm. The file says no unit: which is it?')).toBeVisible();
    await expect(page.getByText('3000 rpm stands in line 3 already')).toBeVisible();
    await page.getByLabel('Torque or power in').selectOption('lbf·ft');
    await page.getByRole('button', { name: 'Take the curve' }).click();
    await expect(drift.field('Point 3 torque')).toHaveValue('340 lbf·ft');
    await drift.saved();
  });

  test('a quick curve from two peaks, and a motor from base speed, torque and power', async ({ drift, page }) => {
    await drift.open('engine');
    await page.getByRole('button', { name: 'From peaks' }).click();
    await drift.enter('Peak torque', '350 lbf·ft');
    await drift.enter('at engine speed', '4500');
    await drift.enter('Peak power', '390 hp');
    await drift.enter('at engine speed, power', '6800');
    await page.getByRole('button', { name: 'Take the curve' }).click();
    await expect(drift.field('Point 1 rpm')).toHaveValue('1125 rpm');
    await drift.field('Driven by').selectOption('Electric motor');
    await page.getByRole('button', { name: 'From peaks' }).click();
    await drift.enter('Peak torque', '310 Nm');
    await drift.enter('Peak power', '150 kW');
    await drift.enter('Base speed, if given', '9000');
    await expect(page.getByText('peak torque and peak power meet at 4621 rpm')).toBeVisible(); // P/T [exact]
  });
});

test.describe('finding and giving', () => {
  test('the finder knows other names, readings and pieces of the library, and says what it searched', async ({
    drift,
    page,
  }) => {
    await drift.open('mesh');
    const ask = async (typed: string) => {
      await page.keyboard.press('/');
      await page.locator('#finder-box').fill(typed);
    };
    await ask('lash');
    await expect(page.getByRole('listbox', { name: 'Found' })).toContainText('Backlash, mean of 8');
    await page.locator('#finder-box').fill('qqq');
    await expect(page.getByRole('listbox', { name: 'Found' })).toContainText('Nothing of that name among');
    await page.locator('#finder-box').fill('drawer');
    await page
      .getByRole('option', { name: /library .* drawer of shims/ })
      .first()
      .click();
    await expect(page).toHaveURL(/\/library\?spec=/);
  });

  test('one page to hand over is one page on paper', async ({ drift, page }) => {
    await drift.open('mesh');
    await page.keyboard.press('/');
    await page.locator('#finder-box').fill('summary');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Summary', level: 1 })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Final drive, and why' })).toContainText('hunting');
    const pdf = await page.pdf({ format: 'A4', margin: { top: '12mm', bottom: '12mm', left: '12mm', right: '12mm' } });
    expect((pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length).toBe(1);
  });
});
