import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { APIRequestContext, Page } from '@playwright/test';
import { readBuildFile, type LedgerEntry } from '@hot-spline/model';
import { walk } from '../model/src/testing/walk';
import { Bench, demoFile, expect, goWithin, type DemoName } from './bench';

/** A demo build of one's own, changed before it is taken in; of its ledger stays what is read of `keep`. */
export async function jobOf(
  page: Page,
  request: APIRequestContext,
  name: DemoName,
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- a file is changed freely before it is imported
  change: (build: any) => void,
  keep: readonly string[] = [],
  read: (ledger: readonly LedgerEntry[]) => readonly LedgerEntry[] = (ledger) => ledger,
): Promise<Bench> {
  const file = demoFile(name);
  file.ledger = read(
    file.ledger.filter((entry: { subject?: { what: string } }) => keep.includes(entry.subject?.what ?? '')),
  );
  change(file.build);
  const id = randomUUID();
  const answer = await request.post('/api/builds', { data: { id, file } });
  expect(answer.status(), await answer.text()).toBe(201);
  return new Bench(page, id);
}

/** What is typed where a step asks for a number: as in a job that goes well. Torques are those of the kept sheets; the rest is ours. */
const READ: Readonly<Record<string, string>> = {
  'Cap bolts': '68 N·m',
  'Side cover bolts': '68 N·m',
  'Cover bolts': '22 lbf·ft',
  Retention: '33 lbf·ft',
  Volume: '1.9 l',
  Additive: '115 ml',
  'Free fit': '0.1 mm',
  'Taken off the faces': '0.04 mm',
  'Washers, diameter before': '27.2 mm',
  'Washers, diameter after': '26.7 mm',
  'Least gap to ring, cap or carrier': '5 mm',
  'Bulkhead fitting': '2.2 N·m',
  'Pressure at the start': '640 kPa',
  'Pressure at the end': '639 kPa',
  'Minutes held': '10',
};

/** Teeth as the build has them, where they are what is counted. */
async function teethOf(page: Page, label: string): Promise<string | undefined> {
  const [, wheel] = /^(Ring|Pinion) teeth counted/.exec(label) ?? [];
  if (wheel === undefined) return undefined;
  const id = new URL(page.url()).pathname.split('/')[2] ?? '';
  const { build } = await (await page.request.get(`/api/builds/${id}`)).json();
  return String(build.axles.rear.finalDrive[wheel.toLowerCase()]);
}

/** What is to be written down at the step that is open. */
async function answer(page: Page): Promise<void> {
  const step = page.locator('hs-work-step article');
  for (const group of await step.getByRole('radiogroup').all()) {
    const good = group.getByRole('radio').first();
    if (await good.isChecked()) continue;
    await good.press('Space');
    await expect(good).toBeChecked();
  }
  for (const field of await step.locator('.records input[type=text], .records input:not([type])').all()) {
    if ((await field.inputValue()) !== '') continue;
    const label = await field.evaluate((input: HTMLInputElement) => input.labels?.[0]?.textContent?.trim() ?? '');
    await field.fill(READ[label] ?? (await teethOf(page, label)) ?? '45');
    await field.press('Enter');
  }
}

/** Reads what a step sends for: it is done by that, and the bar of the step says so. */
async function readOn(page: Page, sheet: string, label: string, text: string): Promise<void> {
  await page.getByRole('link', { name: `Open ${sheet}` }).click();
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(text);
  await field.press('Enter');
  const bar = page.getByRole('complementary', { name: 'The step that is in hand' });
  await expect(bar).toContainText('read, so done');
}

/** What a step sends to another sheet for, and how it is done there. */
const ELSEWHERE: Readonly<Record<string, (page: Page) => Promise<void>>> = {
  'Clean, inspect, decide': async (page) => {
    await page.getByRole('link', { name: 'Open Inspect' }).click();
    const rows = page.locator('hs-inspect-sheet .rows > li');
    await expect(rows.first()).toBeVisible();
    for (const row of await rows.all()) await row.getByRole('radio', { name: 'Run on' }).check();
    const all = await rows.count();
    await expect(page.getByText(`${all} of ${all} decided`)).toBeVisible();
  },
  'Ratio by turns, while it is closed': async (page) => {
    await page.getByRole('link', { name: 'Open Brief and axle' }).click();
    for (const [label, turns] of [
      ['Prop shaft, turns', '37'],
      ['Left wheel, turns', '10'],
      ['Right wheel, turns', '10'],
    ] as const) {
      const field = page.getByRole('textbox', { name: label, exact: true });
      await field.fill(turns);
      await field.press('Enter');
    }
    await expect(page.getByRole('complementary', { name: 'The step that is in hand' })).toContainText('read, so done');
  },
  'Run-out of the ring': (page) => readOn(page, 'Carrier', 'Run-out of the ring, indicator', '0.04 mm'),
  'Drag of the seal alone': (page) => readOn(page, 'Preload', 'Drag of the seal alone', '0.1 N·m'),
  'Side preload': async (page) => {
    await page.getByRole('link', { name: 'Open Preload' }).click();
    await page.locator('#side-feel-rear').getByRole('radio', { name: 'right', exact: true }).check();
    await expect(page.getByRole('complementary', { name: 'The step that is in hand' })).toContainText('read');
  },
  'Ring bolts to torque': async (page) => {
    await page.getByRole('link', { name: 'Open Ring joint' }).click();
    await expect(page.locator('#star-svg')).toBeVisible();
    const bolts = await page.locator('#star-svg .bolt').count();
    const rounds = await page.locator('.rounds button').count();
    // One bolt after the other, as the picture says; a round that is whole brings the next. The thumb itself is another story's.
    await page.evaluate(async (many) => {
      const next = () => document.querySelector<SVGElement>('#star-svg [aria-label$=", next"]');
      for (let i = 0; i < many; i++) {
        next()?.dispatchEvent(new MouseEvent('click', { bubbles: true }));
        await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      }
    }, bolts * rounds);
    await expect(page.locator('.rounds button:not(.whole)')).toHaveCount(0);
  },
};

async function sign(page: Page, gate: 'A' | 'B'): Promise<void> {
  await page.getByRole('link', { name: `Sign Gate ${gate}` }).click();
  const region = page.getByRole('region', { name: `Gate ${gate}` });
  const name = region.getByLabel('Sign with your name');
  await name.fill('Ada');
  await name.press('Enter');
  await expect(region).toContainText('Signed by Ada');
}

/** Goes through steps with the button of a thumb, and to the sheets that they need, until the step is open that has this title. */
export async function walkTo(page: Page, title: string): Promise<void> {
  const heading = page.locator('hs-work-step h2');
  for (let i = 0; i < 80; i++) {
    const now = await heading.innerText();
    if (now === title) return;
    const gate = /^Gate ([AB])$/.exec(now)?.[1] as 'A' | 'B' | undefined;
    const elsewhere = gate ? (of: Page) => sign(of, gate) : ELSEWHERE[now];
    if (elsewhere) {
      const here = page.url();
      await elsewhere(page);
      await goWithin(page, new URL(here));
      await expect(heading).toHaveText(now);
    }
    if (gate) {
      await expect(page.getByRole('link', { name: 'Signed', exact: true })).toBeVisible();
      await page.getByRole('link', { name: 'Step after' }).click();
    } else {
      await answer(page);
      // What was read is done by that.
      const after = page.getByRole('link', { name: 'Step after' });
      const done = (await page.getByText('Done by what was read').isVisible())
        ? after
        : page.getByRole('button', { name: /^Done/ });
      await expect(done, `${now}: ${await page.locator('hs-work-step').innerText()}`).toBeEnabled();
      await done.click();
    }
    await expect(heading).not.toHaveText(now);
  }
  throw new Error(`${title} was not reached`);
}

export const openStep = (page: Page) => page.getByRole('link', { name: 'Open this step' });

/** Takes papers of the build out as PDF. @returns what the files are called */
export async function takePapers(page: Page, papers: readonly string[]): Promise<string[]> {
  const names: string[] = [];
  for (const paper of papers) {
    const [file] = await Promise.all([
      page.waitForEvent('download', { timeout: 30_000 }),
      page.getByRole('button', { name: paper }).click(),
    ]);
    const start = readFileSync(await file.path()).subarray(0, 5);
    expect(start.toString()).toBe('%PDF-');
    names.push(file.suggestedFilename());
  }
  return names;
}

/** Everything on the parts list of the rear axle has come. */
export async function partsAreHere(request: APIRequestContext, id: string): Promise<void> {
  const { version, build } = await (await request.get(`/api/builds/${id}`)).json();
  for (const part of build.axles.rear.work.parts) part.state = 'here';
  const answer = await request.put(`/api/builds/${id}`, {
    data: { writeId: randomUUID(), baseVersion: version, build },
  });
  expect(answer.status(), await answer.text()).toBe(200);
}

/** Works the rear axle up to a step through the API, everything that the steps ask for written to the ledger. @param setUp the readings of its set-up */
export async function walkThroughApi(
  request: APIRequestContext,
  id: string,
  until: string,
  setUp: readonly LedgerEntry[] = [],
): Promise<void> {
  const { build, ledger } = readBuildFile(await (await request.get(`/api/builds/${id}/export`)).json());
  for (const entry of walk(build, ledger, { setUp, until }).slice(ledger.length)) {
    const answer = await request.post(`/api/builds/${id}/ledger`, { data: { ...entry, id: randomUUID() } });
    expect(answer.status(), await answer.text()).toBe(201);
  }
}
