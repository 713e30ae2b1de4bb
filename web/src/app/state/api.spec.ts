import { api, type ApiError } from './api';

const SHOP = {
  id: '40000000-0000-4000-8000-000000000001',
  version: '0',
  open: false,
  currency: 'EUR',
  decimal: null,
  name: '',
  logo: null,
  address: '',
  hourRate: null,
  weekHours: null,
};

/** As a proxy answers whose server is away. */
const away = (): Response => {
  const answer = new Response('<h1>502 Bad Gateway</h1>', { status: 502, headers: { 'content-type': 'text/html' } });
  Object.defineProperty(answer, 'url', { value: 'http://shop.example/spline/api/shop' });
  return answer;
};

describe('the server', () => {
  const error = (call: Promise<unknown>): Promise<unknown> =>
    call.then(
      () => null,
      (thrown: unknown) => thrown,
    );

  it('that is away behind a proxy is away: what this device has kept stands for it, a write waits', async () => {
    spyOn(globalThis, 'fetch').and.callFake(() => Promise.resolve(away()));
    const kept = spyOn(caches, 'match').and.resolveTo(undefined);
    expect(((await error(api.shop())) as ApiError).status).toBe(0);
    kept.and.resolveTo(Response.json(SHOP));
    expect(await api.shop()).toEqual(SHOP);
    expect(kept.calls.mostRecent().args[0]).toBe('http://shop.example/spline/api/shop');
    expect(((await error(api.saveShop(SHOP.id, { name: 'X' }))) as ApiError).status).toBe(0);
    kept.and.rejectWith(new DOMException('refused', 'SecurityError'));
    expect(((await error(api.shop())) as ApiError).status).toBe(0);
  });

  it('that says why it can’t is not away', async () => {
    const starting = {
      type: 'urn:hot-spline:starting',
      title: 'Starting',
      status: 503,
      detail: 'The server is starting.',
    };
    spyOn(globalThis, 'fetch').and.callFake(() => Promise.resolve(Response.json(starting, { status: 503 })));
    const thrown = (await error(api.shop())) as ApiError;
    expect([thrown.status, thrown.message]).toEqual([503, 'The server is starting.']);
  });
});
