import { expect, test } from './bench';

test.describe('numbers as people write them', () => {
  test('a mass and a limiter in thousands are thousands, as they were typed', async ({ drift, request }) => {
    await drift.open('brief');
    await drift.enter('Weight, driver in', '1,480 kg');
    await drift.open('engine');
    await drift.enter('Limiter', '7,000');
    await drift.saved();
    const { build } = (await drift.stored(request)) as unknown as {
      build: { brief: { mass: { value: number } }; engine: { limiter: number | { value: number } } };
    };
    expect(JSON.stringify(build)).toContain('"typed":"1,480 kg","value":1480,"unit":"kg"');
    expect(JSON.stringify(build.engine)).toContain('7000');
  });

  test('an unusual thickness is asked about beside the field, the cursor stays, nothing is written until it is answered', async ({
    drift,
    page,
    request,
  }) => {
    await drift.open('pack?tab=measure');
    const before = (await (await request.get(`/api/builds/${drift.id}/ledger`)).json()).length;
    const field = drift.field('1 steel left');
    await field.fill('0.785');
    await field.press('Enter');
    const asked = page.getByRole('group', { name: 'What was meant, 1 steel left' });
    await expect(asked.getByRole('button')).toHaveText(['0.0785 in', 'really 0.785 in', 'No']);
    await expect(field).toBeFocused();
    await asked.getByRole('button', { name: '0.0785 in', exact: true }).click();
    await expect(asked).not.toBeVisible();
    await drift.saved();
    const ledger = await (await request.get(`/api/builds/${drift.id}/ledger`)).json();
    expect(ledger.length).toBe(before + 1);
    expect(ledger.at(-1).value.entries[0]).toEqual({ typed: '0.0785 in', value: 0.0785, unit: 'in' });
  });

  test('a shop that writes decimals with a comma says so once', async ({ drift, page, request }) => {
    // For this page alone: other stories share the shop.
    await page.route('**/api/shop', async (route) => {
      const shop = await (await route.fetch()).json();
      await route.fulfill({ json: { ...shop, decimal: 'comma' } });
    });
    await drift.open('brief');
    await drift.enter('Weight, driver in', '1.480 kg');
    await drift.saved();
    expect(JSON.stringify(await drift.stored(request))).toContain('"typed":"1.480 kg","value":1480,"unit":"kg"');
  });
});
