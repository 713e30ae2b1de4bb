import { TestBed } from '@angular/core/testing';
import { until } from '../../testing/harness';
import { Outbox } from './outbox';
import { ShopSettings } from './shop-settings';

describe('prices', () => {
  const answer = (currency: string): Promise<Response> =>
    Promise.resolve(
      new Response(
        JSON.stringify({
          id: crypto.randomUUID(),
          version: '1',
          open: true,
          currency,
          decimal: 'comma',
          name: '',
          logo: null,
          address: '',
          hourRate: 60,
          weekHours: null,
        }),
        {
          headers: { 'content-type': 'application/json' },
        },
      ),
    );

  beforeEach(() => ['currency', 'decimal', 'hour-rate'].forEach((key) => localStorage.removeItem(`hot-spline.${key}`)));
  afterEach(() => ['currency', 'decimal', 'hour-rate'].forEach((key) => localStorage.removeItem(`hot-spline.${key}`)));

  it('are said in the currency of the shop, cents only where there are any', async () => {
    const fetch = spyOn(window, 'fetch').and.callFake(() => answer('USD'));
    const prices = TestBed.inject(ShopSettings);
    expect(prices.settings().currency).toBe('EUR');
    await until(() => prices.settings().currency === 'USD');
    expect(prices.open()).toBeTrue();
    expect(prices.say(340)).toMatch(/340(?![.,]00)/);
    expect(prices.say(340.5)).toMatch(/340[.,]50/);
    fetch.and.callFake(() => answer('SEK'));
    spyOn(TestBed.inject(Outbox), 'putSettings').and.resolveTo();
    await prices.choose({ currency: 'SEK' });
    expect([prices.settings().currency, localStorage.getItem('hot-spline.currency')]).toEqual(['SEK', 'SEK']);
    expect([prices.settings().decimal, localStorage.getItem('hot-spline.decimal')]).toEqual(['comma', 'comma']);
    expect([prices.settings().hourRate, localStorage.getItem('hot-spline.hour-rate')]).toEqual([60, '60']);
  });

  it('stay what they were while the server is away; another is kept for it, and where it can’t be, that is said', async () => {
    localStorage.setItem('hot-spline.currency', 'CHF');
    spyOn(window, 'fetch').and.rejectWith(new TypeError('Failed to fetch'));
    const put = spyOn(TestBed.inject(Outbox), 'putSettings').and.rejectWith(new Error('no room, and no server'));
    const prices = TestBed.inject(ShopSettings);
    expect(prices.settings().currency).toBe('CHF');
    await expectAsync(prices.choose({ currency: 'GBP' })).toBeRejected();
    expect(prices.settings().currency).toBe('CHF');
    put.and.resolveTo();
    await prices.choose({ currency: 'GBP' });
    expect(put).toHaveBeenCalledWith({ currency: 'GBP' });
    expect([prices.settings().currency, localStorage.getItem('hot-spline.currency')]).toEqual(['GBP', 'GBP']);
  });
});
