import { readFileSync } from 'node:fs';
import { gaugeReader } from '@hot-spline/core';
import type { Running } from '../serve';
import { call, freshFolder, startShop } from '../testing/shop';

/** The rows of docs/gauge.md: the page is the test. */
const rows = readFileSync(new URL('../../../docs/gauge.md', import.meta.url), 'utf8')
  .split('\n')
  .flatMap((line) => {
    const cells = /^\| `(.*)` *\|([^|]*)\|([^|]*)\|([^|]*)\|([^|]*)\|([^|]*)\|$/.exec(line);
    return cells ? [cells.slice(1).map((cell, i) => (i === 0 ? cell : cell.trim()))] : [];
  });

describe('lines of a gauge', () => {
  it('are read as docs/gauge.md says [exact: 1 in = 25.4 mm; NIST SP 811 for torque]', () => {
    expect(rows.length).toBeGreaterThan(40);
    for (const [line = '', decimal = '', unit = '', read = '', base = '', quantity = ''] of rows) {
      const found = gaugeReader({
        ...(unit === '' ? {} : { unit }),
        ...(decimal === 'comma' || decimal === 'point' ? { decimal } : {}),
      })(line);
      if (base === '') {
        expect(found.kind === 'refused' ? found.why : found.kind)
          .withContext(line)
          .toBe(read);
        continue;
      }
      if (found.kind !== 'reading') {
        fail(`${line}: ${found.kind}`);
        continue;
      }
      expect(found.reading.value).withContext(line).toBe(Number(read)); // unrounded
      expect(Math.abs(found.reading.base - Number(base)))
        .withContext(line)
        .toBeLessThan(1e-6);
      expect(found.reading.unit.quantity).withContext(line).toBe(quantity);
    }
  });
});

describe('the simulated gauges', () => {
  let shop: Running;

  beforeAll(async () => {
    shop = await startShop(await freshFolder());
  });

  afterAll(async () => {
    await shop.stop();
  });

  /** The first lines of a gauge, then it is put down. */
  async function lines(url: string, count: number): Promise<string[]> {
    const away = new AbortController();
    const response = await fetch(new URL(url, shop.url), { signal: away.signal });
    expect(response.headers.get('content-type')).toContain('text/event-stream');
    const found: string[] = [];
    const decoder = new TextDecoder();
    let text = '';
    for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
      text += decoder.decode(chunk, { stream: true });
      found.splice(0, found.length, ...[...text.matchAll(/^data: (.*)$/gm)].map((match) => match[1] ?? ''));
      if (found.length >= count) break;
    }
    away.abort();
    return found.slice(0, count);
  }

  it('stream lines that a gauge on a serial line would send', async () => {
    const read = gaugeReader();
    const sent = await lines('/api/gauges/micrometer?values=1.5&seed=3', 5);
    const quantity = (line: string): string | undefined => {
      const found = read(line);
      return found.kind === 'reading' ? found.reading.unit.quantity : found.kind;
    };
    for (const line of sent) expect(quantity(line)).toBe('length');
    const [torque = ''] = await lines('/api/gauges/wrench?values=2', 1);
    expect(quantity(torque)).toBe('torque');
  });

  it('refuse what is no gauge and no number, by name', async () => {
    const cases: [string, string][] = [
      ['/api/gauges/ruler?values=1', 'kind'],
      ['/api/gauges/indicator?values=', 'values'],
      ['/api/gauges/indicator', 'values'],
      ['/api/gauges/indicator?values=1;x', 'values'],
      [`/api/gauges/indicator?values=${Array(100).fill('1').join(';')}`, 'values'],
      ['/api/gauges/indicator?values=1&seed=-1', 'seed'],
      ['/api/gauges/indicator?values=1&more=1', 'more'],
    ];
    for (const [url, field] of cases) {
      const { status, body } = await call(shop, 'GET', url);
      expect(status).withContext(url).toBe(422);
      expect(body.error.field).withContext(url).toContain(field);
    }
    expect((await call(shop, 'POST', '/api/gauges/indicator', {})).status).toBe(405);
  });

  it('so many at once and no more; one that is put down makes room', async () => {
    const away = new AbortController();
    const url = new URL('/api/gauges/indicator?values=1', shop.url);
    const open = await Promise.all(Array.from({ length: 24 }, () => fetch(url, { signal: away.signal })));
    expect(open.every(({ status }) => status === 200)).toBeTrue();
    expect((await fetch(url)).status).toBe(503);
    away.abort();
    // The server hears of it a moment later.
    let status = 503;
    for (let i = 0; i < 200 && status === 503; i++) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      const last = new AbortController();
      ({ status } = await fetch(url, { signal: last.signal }));
      last.abort();
    }
    expect(status).toBe(200);
  });
});
