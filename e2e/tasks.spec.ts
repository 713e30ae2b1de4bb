import type { Page } from '@playwright/test';
import { Bench, byTheRail, expect, test } from './bench';

/**
 * The nine tasks that newcomers were watched at, from the first tyre to the learned friction, and how many actions each takes. An
 * action is one press, one choice of a list, one field typed and taken, one paste; where a field takes the cursor by itself, typing
 * goes on. The most that each may take stands beside it, with what it took when they were watched.
 */
class Counted {
  actions = 0;
  constructor(
    readonly page: Page,
    readonly bench: Bench,
  ) {}

  async press(name: string | RegExp, role: 'button' | 'link' | 'radio' = 'button'): Promise<void> {
    this.actions += 1;
    const whole = typeof name === 'string' ? new RegExp(`^\\W*${name}\\s*$`, 'u') : name;
    await this.page.getByRole(role, { name: whole }).first().click({ timeout: 10_000 });
  }

  /** To a sheet, by the Rail. */
  async go(sheet: string): Promise<void> {
    this.actions += await byTheRail(this.page, sheet);
  }

  async type(label: string, text: string): Promise<void> {
    this.actions += 1;
    await this.bench.enter(label, text);
  }

  async choose(label: string, option: string | RegExp): Promise<void> {
    this.actions += 1;
    const box = this.bench.field(label);
    const value = await box.locator('option', { hasText: option }).first().getAttribute('value');
    await box.selectOption(value);
  }

  /** As the clipboard brings it. */
  async paste(label: string, text: string): Promise<void> {
    this.actions += 1;
    await this.bench.field(label).evaluate((field, pasted) => {
      (field as HTMLElement).focus();
      const data = new DataTransfer();
      data.setData('text/plain', pasted);
      const event = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });
      if (field.dispatchEvent(event)) {
        (field as HTMLTextAreaElement).value = pasted;
        field.dispatchEvent(new Event('input', { bubbles: true }));
      }
    }, text);
  }

  async key(...keys: string[]): Promise<void> {
    for (const key of keys) {
      this.actions += 1;
      await this.page.keyboard.press(key);
    }
  }
}

test.describe.configure({ mode: 'serial' });

const NAME = `Newcomer ${Date.now()}`;
let address = '';

/** One task, in the build that the first of them has begun. */
function task(name: string, most: number, before: string, run: (hand: Counted) => Promise<void>): void {
  test(`${name}: at most ${most} actions, ${before} before`, async ({ page }) => {
    const id = address.split('/').at(-1) ?? '';
    const hand = new Counted(page, new Bench(page, id));
    if (address === '') await page.goto('/');
    else {
      await page.goto(`${address}/gearing`);
      await expect(page.locator('hs-line')).toBeVisible();
    }
    await run(hand);
    expect(hand.actions).toBeLessThanOrEqual(most);
    // What was changed has reached the server; nothing says so where nothing was.
    await expect(page.locator('.saving')).toHaveText(/^(Saved.*)?$/, { timeout: 15_000 });
  });
}

task(
  '1 a new build: tyre, final drive, gears and what it does at cruise',
  13,
  '45, and 22 for the next',
  async (hand) => {
    const { page, bench } = hand;
    await hand.press('New build');
    await bench.field('Name of the new build').fill(NAME); // the cursor is there
    hand.actions += 1;
    await hand.choose('What it is for', 'Drift');
    await hand.choose('Axle', /^Heron 8\.2/);
    await hand.press('Start the build');
    await expect(page.locator('hs-line')).toBeVisible();
    address = new URL(page.url()).pathname.split('/').slice(0, 3).join('/');
    await hand.go('Tyre and ratio');
    await hand.type('Tyre', '255/40R17');
    await hand.type('Ring teeth', '41');
    await hand.type('Pinion teeth', '11');
    await hand.type('Cruise', '65 mph');
    await hand.go('Engine and gearbox');
    await hand.paste('Gear 1', '3.15\t2.07\t1.49\t1.15\t0.93\t0.77');
    await expect(bench.field('Gear 6')).toHaveValue('0.77');
    await hand.type('Limiter', '7,400');
    await expect(bench.field('Limiter')).toHaveValue(/7\s?400 rpm/);
  },
);

task('2 the torque curve from a spreadsheet', 4, '8 failed pastes', async (hand) => {
  await hand.go('Engine and gearbox');
  await hand.press('Import');
  await hand.paste(
    'Paste rpm, torque (or power), or open a CSV file',
    '2.500\t280,5\n4.500\t400\n6.500\t390\n7.400\t350\n',
  );
  await expect(hand.page.getByText('4 points, 2500 to 7400 rpm')).toBeVisible();
  hand.actions -= 1; // the sheet was open
  // Nothing in it says N·m: it is asked, once.
  await hand.choose('Torque or power in', 'N·m');
  await hand.press('Take the curve');
});

task('3 which final drive serves it', 7, '30', async (hand) => {
  const { page } = hand;
  await hand.go('Brief and axle');
  await hand.type('Weight, driver in', '2,980 lb');
  await hand.choose('Goal', 'Least time to the finish');
  await hand.type('Finish at', '660 ft');
  await hand.go('Tyre and ratio');
  await hand.press('Find a ratio', 'link');
  await hand.press(/^Take 3\d\/10$/);
  await expect(page.locator('li.present')).toBeVisible();
});

task('4 which unit, side by side', 4, '12', async (hand) => {
  await hand.go('Unit');
  await hand.press('Side by side', 'link');
  await hand.press('Keep Helical at the top');
  await hand.press('Take Plates with ramps into the build');
  await expect(hand.bench.station('Packs')).toHaveCount(1);
});

task('5 both packs measured', 8, '44', async (hand) => {
  const { page, bench } = hand;
  await hand.go('Clutch packs');
  await hand.press('Measure', 'link');
  for (const [kind, text] of [
    ['steel', '2.02 mm'],
    ['friction', '1.98 mm'],
  ] as const) {
    // All that measure alike are typed once.
    hand.actions += 1;
    const field = page.getByRole('group', { name: 'All of a kind at once' }).getByRole('textbox', { name: kind });
    await field.fill(text);
    await field.press('Enter');
  }
  for (const side of ['left', 'right']) {
    await hand.type(`6 shim ${side}`, '0.8 mm');
    await hand.type(`Case depth ${side}`, '12.8 mm');
  }
  await expect(bench.field('1 steel left')).toHaveValue('0.0795 in');
  await expect(bench.field('4 friction right')).toHaveValue('0.0780 in');
});

task('6 packs to the wanted breakaway, out of the drawer', 7, '32', async (hand) => {
  const { page, bench } = hand;
  await hand.go('Clutch packs');
  await hand.press('Wanted', 'link');
  await hand.type('Breakaway from', '7 lbf·ft');
  await hand.type('to', '9 lbf·ft');
  await hand.choose('Drawer', 'Drawer 2, pack shims');
  await hand.press('Put in: plan 1');
  const asked = page.getByRole('alertdialog', { name: 'Before it is laid' });
  const done = bench.finding('Breakaway in the wanted band');
  await expect(asked.or(done).first()).toBeVisible();
  if (await asked.isVisible()) {
    hand.actions += 1;
    await asked
      .getByRole('button', { name: /^Put these in/ })
      .first()
      .click();
  }
  await expect(done).toBeVisible();
});

task('7 the wrench read, the friction learned', 6, '11', async (hand) => {
  const { page, bench } = hand;
  await hand.go('Clutch packs');
  await hand.press('Torque wrench', 'link');
  await hand.type('Turning torque, both wheels free', '0.5 lbf·ft');
  await hand.press(/other wheel held/i, 'radio');
  await hand.type('Breakaway reading', '8.5 lbf·ft');
  await hand.press('Use it');
  await expect(bench.finding('Breakaway as predicted')).toBeVisible();
  await expect(page.locator('hs-learn-bar')).toBeVisible();
});

task('8 something to hand over', 3, '14', async (hand) => {
  await hand.go('Summary');
  const file = hand.page.waitForEvent('download');
  await hand.press('Export this build', 'link');
  expect((await file).suggestedFilename()).toContain('newcomer');
});

task('9 a piece measured with the keyboard alone', 6, 'partly possible', async (hand) => {
  const { page, bench } = hand;
  await hand.key('g', 'p', 'k');
  await expect(page.getByRole('heading', { name: 'Clutch packs' })).toBeVisible();
  await hand.key('m');
  const field = page.locator('input:focus');
  await expect(field).toBeVisible();
  const name = (await field.getAttribute('id')) ?? '';
  hand.actions += 1;
  // As thick as it should be: what lies far from that is asked about.
  await field.fill(`${(await field.getAttribute('placeholder')) ?? ''} in`);
  await hand.key('Enter');
  await expect(page.locator(`input:focus`)).not.toHaveId(name);
  await expect(bench.page.locator(`#${name}`)).not.toHaveValue('');
});
