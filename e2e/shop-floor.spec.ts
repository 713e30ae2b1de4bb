import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { APIRequestContext, Page } from '@playwright/test';
import { alone as test, demoFile, expect, ownShop } from './bench';

interface Draft {
  worker: string;
  promised: string;
  axles: { rear: { work: Record<string, unknown> } };
}

/** A scanner that is a keyboard: its letters in one go, and Enter. */
async function scan(page: Page, code: string): Promise<void> {
  // As the keys of a device come: nobody waits for an answer between them.
  await page.evaluate((text) => {
    const at = document.activeElement ?? document.body;
    for (const key of [...text, 'Enter']) {
      const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, composed: true });
      if (at.dispatchEvent(event) && key.length === 1 && at instanceof HTMLInputElement) at.value += key;
    }
  }, code);
}

async function makeBuild(request: APIRequestContext, name: string, change: (build: never) => void): Promise<string> {
  const [id, file] = [randomUUID(), demoFile('kittiwake-drift-coupe')];
  file.build.name = name;
  file.ledger = [];
  change(file.build as never);
  const answer = await request.post('/api/builds', { data: { id, file } });
  expect(answer.status(), await answer.text()).toBe(201);
  return id;
}

const dayFrom = (days: number): string => {
  const day = new Date();
  day.setDate(day.getDate() + days);
  return [day.getFullYear(), day.getMonth() + 1, day.getDate()].map((n) => String(n).padStart(2, '0')).join('-');
};

test('the board of a shop: filtered, a view kept, a promise moved, what does not fit said, orders handed out', async ({
  playwright,
  browser,
}) => {
  test.setTimeout(120_000);
  const shop = await ownShop(playwright);
  for (const [i, who] of ['Ada', 'Bo', 'Ada'].entries())
    await makeBuild(shop.request, `Car ${i}`, (build: Draft) => {
      build.worker = who;
      build.promised = dayFrom(i + 1);
      build.axles.rear.work['hold'] = i === 0 ? { for: 'customer', why: 'which ratio?', since: dayFrom(-3) } : null;
      build.axles.rear.work['parts'] =
        i === 2
          ? [
              {
                id: 'seals',
                name: 'Seals',
                count: 2,
                state: 'needed',
                supplier: 'Wicks',
                price: 9,
                promised: null,
                number: 'W-7',
              },
            ]
          : [];
    });
  const page = await (await browser.newContext({ baseURL: shop.base, acceptDownloads: true })).newPage();
  await page.addInitScript(() => {
    if (!localStorage.getItem('hot-spline.ui'))
      localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Ada', system: 'metric' }));
  });
  await page.goto('/');
  const rows = page.locator('tbody tr');
  await expect(rows).toHaveCount(4);

  await page.getByLabel('Whose').selectOption('Ada');
  await expect(rows).toHaveCount(2);
  await page.getByLabel('Waits for').selectOption('customer');
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toContainText('for the customer, since');
  await expect(rows.first()).toContainText('which ratio?');
  await page.getByRole('button', { name: 'Keep this view' }).click();
  await page.getByLabel('Name of this view').fill('Ada waits');
  await page.getByLabel('Name of this view').press('Enter');
  await page.reload();
  await expect(rows).toHaveCount(4);
  await page.getByLabel('Kept view').selectOption('Ada waits');
  await expect(rows).toHaveCount(1);
  await page.getByLabel('Waits for').selectOption('');
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(rows).toHaveCount(4);

  // By day: the hours of the shop are said, and what does not fit into them is.
  await page.getByRole('radio', { name: 'By day' }).check();
  await expect(page.locator('[data-answer]')).toContainText('Nobody has said how many hours');
  await page.getByRole('button', { name: 'Say the hours' }).click();
  for (const name of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']) {
    await page.getByLabel(name, { exact: true }).fill('1');
    await page.getByLabel(name, { exact: true }).press('Enter');
  }
  await expect(page.locator('[data-answer]')).toContainText('Not all of it fits');
  const card = page.locator('.days .card', { hasText: 'Car 1' });
  const there = page.locator('.days section').nth(5);
  await expect(there.locator('.card')).toHaveCount(0);
  await card.dragTo(there);
  await expect(there.locator('.card')).toContainText('Car 1');
  await expect(page.getByRole('status').filter({ hasText: 'Put it back' })).toContainText('Car 1 is promised for');
  const kept = async (): Promise<unknown> => {
    const { rows: all } = await (await shop.request.get('/api/board')).json();
    return all.find((one: { name: string }) => one.name === 'Car 1').promised;
  };
  expect(await kept()).toBe(dayFrom(5));
  // Without a mouse: the day is typed.
  await page.getByLabel(/Promised for\s*, Car 1/).fill(dayFrom(2));
  await page.getByLabel(/Promised for\s*, Car 1/).press('Enter');
  await expect.poll(kept).toBe(dayFrom(2));

  await page.getByRole('button', { name: 'To order' }).click();
  const orders = page.getByRole('region', { name: 'To order' });
  await expect(orders).toContainText('Wicks');
  await expect(orders).toContainText('W-7');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    orders.getByRole('link', { name: 'All of it as CSV' }).click(),
  ]);
  expect(readFileSync(await file.path(), 'utf8')).toContain('Wicks,W-7,Seals,2,9,Car 2,rear');
  shop.server.kill('SIGKILL');
});

test('a scanner opens what it reads, anywhere; labels lie several on a sheet', async ({ playwright, browser }) => {
  test.setTimeout(120_000);
  const shop = await ownShop(playwright);
  const id = await makeBuild(shop.request, 'Siskin', (build: Draft) => {
    build.axles.rear.work['parts'] = [
      {
        id: 'seals',
        name: 'Seals',
        count: 2,
        state: 'needed',
        supplier: '',
        price: null,
        promised: null,
        number: '40-1127',
      },
    ];
  });
  const drawer = randomUUID();
  const length = (typed: string, value: number) => ({ typed, value, unit: 'mm' });
  const spec = {
    ...{ kind: 'shims', name: 'Drawer P', seat: 'pinion-head', bore: null, outside: null },
    pieces: [{ thickness: length('0.75 mm', 0.75), count: 4, origin: 'measured' }],
  };
  const made = await shop.request.put(`/api/library/${drawer}`, {
    data: { writeId: randomUUID(), baseVersion: 0, who: 'Ada', spec },
  });
  expect(made.ok(), await made.text()).toBe(true);
  const page = await (await browser.newContext({ baseURL: shop.base, acceptDownloads: true })).newPage();
  await page.addInitScript(() =>
    localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Ada', system: 'metric' })),
  );
  await page.goto('/');
  await expect(page.locator('tbody tr')).toHaveCount(2);
  // None of its letters is a command: `u` would change the units, `/` open the finder.
  await scan(page, `http://shop.example:8010/builds/${id}#Siskin__uu/um`);
  await expect(page).toHaveURL(new RegExp(`/builds/${id}`));
  await expect(page.locator('.title')).toContainText('Siskin');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(
    page
      .getByRole('radio', { name: 'metric' })
      .or(page.getByRole('button', { name: 'metric' }))
      .first(),
  ).toBeVisible();
  await scan(page, '40-1127');
  await expect(page).toHaveURL(/\/parts/);
  await expect(page.locator('#part-seals-rear')).toContainText('Seals');
  // Into a field a number is typed; a label opens what it is, and leaves the field as it was.
  const field = page.getByLabel('Number, box = part').first();
  await field.focus();
  await scan(page, `${shop.base}/library?spec=${drawer}&piece=0.75%20mm`);
  await expect(page).toHaveURL(/library\?spec=/);
  await expect(page.getByRole('status').filter({ hasText: 'Scanned' })).toContainText('0.75 mm');
  await expect(page.getByRole('region', { name: 'Drawer P' })).toBeVisible();
  await scan(page, 'nobody-knows-this');
  await expect(page.getByText('Nobody here knows what')).toBeVisible();

  await page.getByText('Labels', { exact: true }).click();
  await page.getByLabel('Label sheet', { exact: true }).selectOption({ label: '48.5 × 25.4 mm, 40 on A4' });
  await page.getByLabel('Of each').fill('41');
  await page.getByLabel('Of each').press('Enter');
  const [shims] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Its shims' }).click(),
  ]);
  const pdf = readFileSync(await shims.path(), 'latin1');
  expect(pdf.startsWith('%PDF-')).toBe(true);
  expect(pdf.match(/\/Type\s*\/Page[^s]/g)?.length).toBe(2);
  await page.goto(`/builds/${id}/papers`);
  const [boxes] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'For boxes of parts' }).click(),
  ]);
  expect(boxes.suggestedFilename()).toBe('labels-parts.pdf');
  shop.server.kill('SIGKILL');
});

test('a program of somebody else is told, tried and told no more', async ({ playwright, browser }) => {
  const shop = await ownShop(playwright);
  const heard: string[] = [];
  const receiver: Server = createServer((request, response) => {
    let body = '';
    request.setEncoding('utf8').on('data', (piece: string) => (body += piece));
    request.on('end', () => {
      heard.push(`${request.headers['webhook-signature'] ? 'signed' : 'bare'} ${body}`);
      response.writeHead(204).end();
    });
  });
  await new Promise<void>((resolve) => receiver.listen(0, '127.0.0.1', resolve));
  const url = `http://127.0.0.1:${(receiver.address() as AddressInfo).port}/told`;
  const page = await (await browser.newContext({ baseURL: shop.base })).newPage();
  await page.goto('/people');
  // The shop gets an owner: only who keeps it says who is told.
  await page.getByLabel('Name, as it stands on what they write').fill('Ada');
  await page.getByLabel('Password, eight').fill('a long word of ours');
  await page.getByLabel('Once more').fill('a long word of ours');
  await page.getByRole('button', { name: 'Make the owner' }).click();
  const told = page.getByRole('region', { name: 'Programs that are told' });
  await told.getByLabel('Address that is called').fill(url);
  await told.getByRole('button', { name: 'Tell it' }).click();
  await expect(told.locator('code')).toContainText('whsec_');
  await told.getByRole('button', { name: `Try it: ${url}` }).click();
  await expect(told.getByRole('status').filter({ hasText: 'took it' })).toBeVisible();
  expect(heard.at(-1)).toMatch(/^signed .*"type":"test"/);
  await makeBuild(shop.request, 'Siskin', () => undefined);
  await expect.poll(() => heard.some((one) => one.includes('"build.state"') && one.includes('Siskin'))).toBe(true);
  await page.reload();
  await expect(told).not.toContainText('whsec_');
  await told.getByRole('button', { name: `Remove ${url}` }).click();
  await told.getByRole('button', { name: `Really remove ${url}` }).click();
  await expect(told).toContainText('Nobody is told anything.');
  receiver.close();
  shop.server.kill('SIGKILL');
});
