import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import {
  test as base,
  expect,
  type APIRequestContext,
  type ConsoleMessage,
  type Locator,
  type Page,
  type PlaywrightWorkerArgs,
  type Request,
} from '@playwright/test';
import { dataFolder, freePort, startServer } from './server';

/** Builds that stories are told on: kept documents, which don’t move when the demo builds are changed. */
export type DemoName =
  | 'kittiwake-drift-coupe'
  | 'bracken-raid-truck'
  | 'wren-hill-climb'
  | 'plover-electric-hatch'
  | 'dunnock-rally-saloon';

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- files are changed freely before they are imported
export function demoFile(name: DemoName): any {
  return JSON.parse(readFileSync(new URL(`../model/src/document/old/7/${name}.json`, import.meta.url), 'utf8'));
}

/** A build of its own for a test, made from a demo file. */
export async function importDemo(request: APIRequestContext, name: DemoName): Promise<string> {
  const id = randomUUID();
  const answer = await request.post('/api/builds', { data: { id, file: demoFile(name) } });
  expect(answer.status()).toBe(201);
  return id;
}

/** A shop of its own with a server that can be killed, and a build in it. */
export async function ownShop({ request: requests }: Pick<PlaywrightWorkerArgs['playwright'], 'request'>) {
  const [folder, port] = [dataFolder(), await freePort()];
  const base = `http://127.0.0.1:${port}`;
  const server = await startServer(folder, port);
  const request = await requests.newContext({ baseURL: base });
  return { folder, port, base, server, request, id: await importDemo(request, 'kittiwake-drift-coupe') };
}

/** Where something is drawn. */
export async function boxOf(locator: Locator): Promise<{ x: number; y: number; width: number; height: number }> {
  const box = await locator.boundingBox();
  if (!box) throw new Error('it is not drawn');
  return box;
}

/** Goes to another address of the app as a link in it does: it is not loaded anew. */
export const goWithin = (page: Page, to: string | URL): Promise<void> =>
  page.evaluate(async (address) => {
    history.pushState(null, '', address);
    dispatchEvent(new PopStateEvent('popstate'));
    // Another sheet of the same build is drawn after two frames at the latest.
    await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
  }, String(to));

/** To a sheet by the Rail: its group is opened where another one is in hand. @returns how many presses that took */
export async function byTheRail(page: Page, sheet: string | RegExp): Promise<number> {
  const rail = page.locator('hs-rail');
  const name = typeof sheet === 'string' ? new RegExp(`(^|\\s)${sheet}(\\s|$)`) : sheet;
  const link = rail.locator('a', { hasText: name }).first();
  await expect(link).toBeAttached();
  let presses = 1;
  if (!(await link.isVisible())) {
    const group = rail.locator('ul', { has: page.locator('a', { hasText: name }) }).first();
    await rail.locator(`h2 button[aria-controls="${await group.getAttribute('id')}"]`).click();
    presses++;
  }
  await link.click();
  return presses;
}

export class Bench {
  constructor(
    readonly page: Page,
    readonly id: string,
  ) {}

  /** Goes to a sheet: as a link in the app does where the build is open, as a bookmark where it is not. */
  async open(sheet: string): Promise<void> {
    const path = `/builds/${this.id}/${sheet}`;
    if (new URL(this.page.url(), 'http://nowhere').pathname.startsWith(`/builds/${this.id}/`))
      await goWithin(this.page, path);
    else await this.page.goto(path);
    await expect(this.page.locator('#sheet')).toBeVisible();
  }

  field(name: string): Locator {
    return this.page.getByLabel(name, { exact: true });
  }

  /** Types into a field and takes it with Enter. */
  async enter(name: string, text: string): Promise<void> {
    const field = this.field(name);
    await field.fill(text);
    await field.press('Enter');
  }

  figure(id: string): Locator {
    return this.page.locator(`[data-figure="${id}"] .value`).first();
  }

  /** The number shown by a figure, without its unit. */
  async number(id: string): Promise<number> {
    const text = await this.page.locator(`[data-figure="${id}"] .number`).first().innerText();
    return Number(text.replace(/[\u202f\s]/g, '').replace('−', '-'));
  }

  station(name: string): Locator {
    return this.page.locator('hs-line li', { hasText: name });
  }

  finding(title: string | RegExp): Locator {
    return this.page.locator('hs-findings li', { hasText: title });
  }

  /** Waits until the server has acknowledged everything. */
  async saved(): Promise<void> {
    await expect(this.page.locator('.saving')).toHaveText(/^Saved/, { timeout: 15_000 });
  }

  async stored(request: APIRequestContext): Promise<{ version: number; build: Record<string, never> }> {
    return (await request.get(`/api/builds/${this.id}`)).json();
  }
}

/** A page error, a blocked script, and anything fetched from elsewhere: what fails a story. */
async function calm(page: Page, use: (value: undefined) => Promise<void>): Promise<void> {
  const errors: string[] = [];
  const failed = (error: Error): void => void errors.push(error.message);
  const said = (message: ConsoleMessage): void => {
    if (/content security policy|NG0/i.test(message.text())) errors.push(message.text());
  };
  const fetched = (request: Request): void => {
    if (!/^(http:\/\/(127\.0\.0\.1|shop\.test)|data:|blob:)/.test(request.url()))
      errors.push(`fetched ${request.url()}`);
  };
  page.on('pageerror', failed).on('console', said).on('request', fetched);
  await use(undefined);
  page.off('pageerror', failed).off('console', said).off('request', fetched);
  expect(errors).toEqual([]);
}

/** On these devices somebody said a name before; the story of the first write has one where nobody did. */
const named = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    if (localStorage.getItem('hot-spline.ui') === null)
      localStorage.setItem('hot-spline.ui', JSON.stringify({ who: 'Edda', elsewhereOpen: true }));
  });

interface Builds {
  drift: Bench;
  truck: Bench;
  hill: Bench;
  hatch: Bench;
  calm: undefined;
}

/** A story on a device of its own: for what sets up the device itself (its screen, its place, a second tab). */
export const alone = base.extend<Builds>({
  calm: [
    async ({ page }, use) => {
      await named(page);
      await calm(page, use);
    },
    { auto: true },
  ],
  drift: async ({ page, request }, use) => use(new Bench(page, await importDemo(request, 'kittiwake-drift-coupe'))),
  hill: async ({ page, request }, use) => use(new Bench(page, await importDemo(request, 'wren-hill-climb'))),
  hatch: async ({ page, request }, use) => use(new Bench(page, await importDemo(request, 'plover-electric-hatch'))),
  truck: async ({ page, request }, use) => use(new Bench(page, await importDemo(request, 'bracken-raid-truck'))),
});

/** `drift`, `truck`, `hill`, `hatch`: a page on a build of its own. The page is the worker's: each story finds it empty,
 * as it comes from the box, but the app's code is warm, which is half of what a story costs. */
export const test = alone.extend<object, { device: Page }>({
  device: [
    async ({ browser }, use, { project }) => {
      const { baseURL, viewport, colorScheme, serviceWorkers, acceptDownloads, contextOptions } = project.use;
      const context = await browser.newContext({
        ...contextOptions,
        ...(baseURL === undefined ? {} : { baseURL }),
        ...(viewport === undefined ? {} : { viewport }),
        ...(colorScheme === undefined ? {} : { colorScheme }),
        ...(serviceWorkers === undefined ? {} : { serviceWorkers }),
        ...(acceptDownloads === undefined ? {} : { acceptDownloads }),
      });
      const page = await context.newPage();
      await named(page);
      await use(page);
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ device }, use) => use(device.context()),
  page: async ({ device, viewport }, use) => {
    await use(device);
    // Away from the app, on its own origin (elsewhere would be another process), so that nothing holds what is emptied.
    await device.unrouteAll({ behavior: 'wait' });
    for (const other of device.context().pages()) if (other !== device) await other.close();
    await device.goto('/api/health');
    await device.evaluate(() => sessionStorage.clear());
    const cdp = await device.context().newCDPSession(device);
    await cdp.send('Storage.clearDataForOrigin', { origin: new URL(device.url()).origin, storageTypes: 'all' });
    await cdp.detach();
    await device.context().clearCookies();
    await device.setViewportSize(viewport ?? { width: 1280, height: 800 });
  },
  calm: async ({ page }, use) => calm(page, use),
});

export { expect };
