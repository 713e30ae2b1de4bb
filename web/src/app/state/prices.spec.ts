import { TestBed } from '@angular/core/testing';
import { Prices } from './prices';

describe('prices', () => {
  const answer = (currency: string): Promise<Response> =>
    Promise.resolve(
      new Response(JSON.stringify({ id: crypto.randomUUID(), version: '1', currency }), {
        headers: { 'content-type': 'application/json' },
      }),
    );

  beforeEach(() => localStorage.removeItem('hot-spline.currency'));
  afterEach(() => localStorage.removeItem('hot-spline.currency'));

  it('are said in the currency of the shop, cents only where there are any', async () => {
    const fetch = spyOn(window, 'fetch').and.callFake(() => answer('USD'));
    const prices = TestBed.inject(Prices);
    expect(prices.currency()).toBe('EUR');
    await fetch.calls.mostRecent().returnValue;
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(prices.currency()).toBe('USD');
    expect(prices.say(340)).toMatch(/340(?![.,]00)/);
    expect(prices.say(340.5)).toMatch(/340[.,]50/);
    fetch.and.callFake(() => answer('SEK'));
    await prices.choose('SEK');
    expect([prices.currency(), localStorage.getItem('hot-spline.currency')]).toEqual(['SEK', 'SEK']);
  });

  it('stay what they were while the server is away, and say so when one wants another', async () => {
    localStorage.setItem('hot-spline.currency', 'CHF');
    spyOn(window, 'fetch').and.rejectWith(new TypeError('Failed to fetch'));
    const prices = TestBed.inject(Prices);
    await expectAsync(prices.choose('GBP')).toBeRejected();
    expect(prices.currency()).toBe('CHF');
  });
});
