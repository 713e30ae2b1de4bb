import { spawn, spawnSync } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { newBuild } from '@hot-spline/model';
import { readConfig } from './config';
import { ROOT, type Running } from './serve';
import { call, freshFolder, makeBuild, someReading, startShop } from './testing/shop';
import { until } from './testing/until';
import { webApp } from './web-app';

/** What a server says to bytes that are sent as they stand, and whether it said so before more was sent. */
function raw(url: string, text: string): Promise<string> {
  const { port, hostname } = new URL(url);
  return new Promise((resolve, reject) => {
    const socket = connect(Number(port), hostname, () => socket.write(text));
    let said = '';
    socket.setEncoding('utf8');
    socket.on('data', (piece: string) => (said += piece));
    socket.on('close', () => resolve(said));
    socket.on('error', reject);
  });
}

describe('HTTP', () => {
  let shop: Running;
  let host: string;

  beforeAll(async () => {
    shop = await startShop(await freshFolder(), { HOT_SPLINE_DEMO: '1' });
    ({ host } = new URL(shop.url));
  });

  afterAll(async () => {
    await shop.stop();
  });

  it('text is pressed, what is told as it happens is not', async () => {
    const packed = await fetch(new URL('/api/library', shop.url), { headers: { 'accept-encoding': 'gzip' } });
    expect(packed.headers.get('content-encoding')).toBe('gzip');
    expect(packed.headers.get('vary')).toContain('Accept-Encoding');
    expect(((await packed.json()) as unknown[]).length).toBeGreaterThan(5);
    for (const url of ['/api/changes', '/api/gauges/indicator?values=1']) {
      const stop = new AbortController();
      const told = await fetch(new URL(url, shop.url), {
        headers: { 'accept-encoding': 'gzip' },
        signal: stop.signal,
      });
      expect(told.status).withContext(url).toBe(200);
      expect(told.headers.get('content-encoding')).withContext(url).toBeNull();
      expect(told.headers.get('x-accel-buffering')).withContext(url).toBe('no');
      stop.abort();
    }
  });

  it('ETag says the version; If-None-Match and If-Match are honoured', async () => {
    const id = await makeBuild(shop, 'Tagged', 1);
    const get = (url: string, headers: Record<string, string> = {}) => fetch(new URL(url, shop.url), { headers });
    const first = await get(`/api/builds/${id}`);
    expect(first.headers.get('etag')).toBe('"1"');
    // fetch says no-cache by itself where it is given If-None-Match.
    const ask = `GET /api/builds/${id} HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\nIf-None-Match: "1"\r\n\r\n`;
    expect(await raw(shop.url, ask)).toMatch(/^HTTP\/1.1 304 /);
    const save = (match: string, baseVersion = 1) =>
      call(
        shop,
        'PUT',
        `/api/builds/${id}`,
        { writeId: randomUUID(), baseVersion, build: { ...newBuild('Tagged'), notes: match } },
        { 'if-match': match },
      );
    const other = await save('"7"');
    expect([other.status, other.body.version]).toEqual([412, 1]);
    expect((await save('"7", "1"')).status).toBe(200);
    expect(await raw(shop.url, ask)).toMatch(/^HTTP\/1.1 200 /);
    expect((await save('*', 2)).status).toBe(200);
    const ledger = `/api/builds/${id}/ledger`;
    expect((await get(ledger)).headers.get('etag')).toBe('"1"');
    const append = (match: string) => call(shop, 'POST', ledger, someReading(), { 'if-match': match });
    expect((await append('"0"')).status).toBe(412);
    expect((await append('"1"')).status).toBe(201);
    expect((await append('"1"')).status).toBe(412);
    const spec = randomUUID();
    const drawer = { kind: 'shims', name: 'Drawer', seat: 'pack', bore: null, outside: null, pieces: [] };
    const put = (match: string) =>
      call(
        shop,
        'PUT',
        `/api/library/${spec}`,
        { writeId: randomUUID(), baseVersion: 0, spec: drawer },
        { 'if-match': match },
      );
    // A new one matches nothing, also not *.
    expect((await put('*')).status).toBe(412);
  });

  it('what is too large, of a wrong type or for nobody is refused before its body has come', async () => {
    const large = 200e6;
    const cases: [string, string, string, number][] = [
      ['POST', '/api/builds', 'application/json', 413],
      ['POST', '/api/builds', 'text/plain', 415],
      ['PUT', `/api/photos/${'0'.repeat(64)}`, 'image/jpeg', 413],
      ['POST', '/api/nowhere', 'application/json', 404],
      ['POST', '/api/calc/pack.stack', 'application/json', 413],
    ];
    for (const [method, url, type, status] of cases) {
      const head = `${method} ${url} HTTP/1.1\r\nHost: ${host}\r\nContent-Type: ${type}\r\nContent-Length: ${large}\r\n`;
      // Not a byte of the body is sent: whoever waits for all of it never answers.
      const said = await raw(shop.url, `${head}\r\n{`);
      expect(said)
        .withContext(url)
        .toMatch(new RegExp(`^HTTP/1.1 ${status} `));
      expect(said)
        .withContext(url)
        .toMatch(/connection: close/i);
      // Who asks before sending is told no, and never “go on”.
      expect(await raw(shop.url, `${head}Expect: 100-continue\r\n\r\n`))
        .withContext(url)
        .toMatch(new RegExp(`^HTTP/1.1 ${status} `));
    }
    const told = await raw(
      shop.url,
      `POST /api/check HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`,
    );
    expect(told).toMatch(/^HTTP\/1.1 200 /);
    const body = JSON.stringify({ archived: false });
    const id = await makeBuild(shop, 'Asked first');
    const answer = await new Promise<number>((resolve, reject) => {
      const asking = httpRequest(
        new URL(`/api/builds/${id}/archive`, shop.url),
        {
          method: 'POST',
          headers: { expect: '100-continue', 'content-type': 'application/json', 'content-length': body.length },
        },
        (response) => resolve(response.resume().statusCode ?? 0),
      );
      asking.on('continue', () => asking.end(body));
      asking.on('error', reject);
      asking.flushHeaders();
    });
    expect(answer).toBe(200);
  });
});

describe('an address of its own', () => {
  const root = fileURLToPath(ROOT);
  const config = (env: Record<string, string>) => readConfig({ ...env }, root);
  const at = { HOT_SPLINE_ADDRESS: 'https://shop.example/spline', HOT_SPLINE_OPEN: '1' };

  it('is said in full, and only where somebody trusts the network that it is on', () => {
    expect(config(at).address).toEqual({
      url: 'https://shop.example/spline',
      host: 'shop.example',
      prefix: '/spline/',
    });
    expect(config(at).hosts).toContain('shop.example');
    expect(config({ ...at, HOST: '0.0.0.0' }).hosts).not.toContain('*');
    expect(config({ HOT_SPLINE_ADDRESS: at.HOT_SPLINE_ADDRESS }).door).toBe('people');
    expect(config(at).door).toBe('open');
    for (const bad of ['shop.example', 'ftp://shop.example', 'https://shop.example/a b', 'https://shop.example/?x'])
      expect(() => config({ HOT_SPLINE_ADDRESS: bad, HOT_SPLINE_OPEN: '1' }))
        .withContext(bad)
        .toThrowError(/HOT_SPLINE_ADDRESS/);
  });

  it('is the one name beside this machine’s, is where labels lead, and is taken off paths', async () => {
    const shop = await startShop(await freshFolder(), at);
    const ask = (url: string, headers: Record<string, string>) =>
      new Promise<{ status: number; body: string; location: string }>((resolve, reject) => {
        httpRequest(new URL(url, shop.url), { headers }, (response) => {
          let body = '';
          response.on('data', (piece: Buffer) => (body += piece.toString()));
          response.on('end', () =>
            resolve({ status: response.statusCode ?? 0, body, location: response.headers.location ?? '' }),
          );
        })
          .on('error', reject)
          .end();
      });
    expect((await ask('/api/shop', { host: 'shop.example' })).status).toBe(200);
    expect((await ask('/api/shop', { host: 'other.example' })).status).toBe(421);
    const under = await ask('/spline/api/shop', { host: 'shop.example' });
    expect((JSON.parse(under.body) as { address: string }).address).toBe('https://shop.example/spline');
    expect((await ask('/spline', { host: 'shop.example' })).location).toBe('/spline/');
    expect((await call(shop, 'PUT', '/api/shop', { address: 'https://labels.example' })).body.address).toBe(
      'https://labels.example',
    );
    await shop.stop();
  });
});

describe('the web app under a path', () => {
  it('says so on its page, and to its service worker with the hash of that page', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-app-'));
    const page = '<!doctype html><base href="/"/>';
    writeFileSync(path.join(folder, 'index.html'), page);
    const worker = {
      index: '/index.html',
      assetGroups: [{ urls: ['/index.html', '/main-A.js'], patterns: [] }],
      dataGroups: [{ patterns: ['\\/api\\/builds\\/[^/]*'] }],
      navigationUrls: [{ positive: true, regex: '^\\/.*$' }],
      hashTable: { '/index.html': 'old', '/main-A.js': 'same' },
    };
    writeFileSync(path.join(folder, 'ngsw.json'), JSON.stringify(worker));
    const app = webApp(folder, '/spline/');
    expect(app.page()).toBe('<!doctype html><base href="/spline/"/>');
    let sent = '';
    const response = { set: () => response, type: () => response, send: (text: string) => (sent = text) };
    app.served({ path: '/ngsw.json' } as never, response as never, () => undefined);
    expect(JSON.parse(sent)).toEqual({
      index: '/spline/index.html',
      assetGroups: [{ urls: ['/spline/index.html', '/spline/main-A.js'], patterns: [] }],
      dataGroups: [{ patterns: ['\\/spline\\/api\\/builds\\/[^/]*'] }],
      // Taken from the scope of the worker on: as it was.
      navigationUrls: [{ positive: true, regex: '^\\/.*$' }],
      hashTable: {
        '/spline/main-A.js': 'same',
        '/spline/index.html': createHash('sha1').update(app.page()).digest('hex'),
      },
    });
    let passed = 0;
    webApp(folder, '/').served({ path: '/ngsw.json' } as never, response as never, () => passed++);
    app.served({ path: '/main-A.js' } as never, response as never, () => passed++);
    expect(passed).toBe(2);
    rmSync(folder, { recursive: true });
  });
});

const NGINX = '/usr/sbin/nginx';
const hasNginx = spawnSync(NGINX, ['-v']).status === 0;

describe('behind a proxy', () => {
  it('under a path and over its own name all of it works: pages, writes, what is told, an archive', async () => {
    if (!hasNginx) return pending('Debian’s nginx is not here');
    const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-nginx-'));
    // Two ways: the path is taken off, or left on; the second over TLS, which ends at the proxy.
    const shop = await startShop(await freshFolder(), {
      HOT_SPLINE_ADDRESS: 'http://shop.example/spline/',
      HOT_SPLINE_OPEN: '1',
    });
    const pass = (to: string): string => `
      proxy_pass ${to};
      proxy_http_version 1.1;
      proxy_set_header Host $host;
      proxy_set_header Connection "";
      proxy_buffering off;
      proxy_request_buffering off;
      client_max_body_size 0;`;
    const base = shop.url.replace(/\/$/, '');
    const socket = (name: string): string => path.join(folder, name);
    const certificate = ['-keyout', socket('key.pem'), '-out', socket('cert.pem'), '-subj', '/CN=shop.example'];
    const made = spawnSync('openssl', ['req', '-x509', '-nodes', '-newkey', 'rsa:2048', '-days', '2', ...certificate]);
    if (made.status !== 0) throw new Error(`No certificate: ${made.stderr}`);
    writeFileSync(
      path.join(folder, 'nginx.conf'),
      `daemon off; worker_processes 1; pid ${folder}/pid; error_log ${folder}/error.log;
      events {}
      http {
        access_log off;
        client_body_temp_path ${folder}/b; proxy_temp_path ${folder}/p; fastcgi_temp_path ${folder}/f;
        uwsgi_temp_path ${folder}/u; scgi_temp_path ${folder}/s;
        server { listen unix:${socket('off')}; location /spline/ { ${pass(`${base}/`)} } }
        server {
          listen unix:${socket('on')} ssl;
          ssl_certificate ${socket('cert.pem')}; ssl_certificate_key ${socket('key.pem')};
          location /spline/ { ${pass(base)} }
        }
      }`,
    );
    const proxy = spawn(NGINX, ['-p', folder, '-c', path.join(folder, 'nginx.conf')], { stdio: 'ignore' });
    try {
      for (const [way, scheme] of [
        ['off', 'http'],
        ['on', 'https'],
      ] as const) {
        const ask = (method: string, url: string, body = '', headers: Record<string, string> = {}) =>
          new Promise<{ status: number; body: string }>((resolve, reject) => {
            const asking = (scheme === 'https' ? httpsRequest : httpRequest)(
              {
                socketPath: socket(way),
                ca: scheme === 'https' ? readFileSync(socket('cert.pem')) : undefined,
                servername: 'shop.example',
                path: `/spline${url}`,
                method,
                headers: { host: 'shop.example', origin: `${scheme}://shop.example`, ...headers },
              },
              (response) => {
                let text = '';
                response.on('data', (piece: Buffer) => {
                  text += piece.toString('latin1');
                  if (url === '/api/changes' && text.includes('Proxied')) response.destroy();
                });
                response.on('close', () => resolve({ status: response.statusCode ?? 0, body: text }));
              },
            );
            asking.on('error', reject);
            asking.end(body);
          });
        await until(async () => {
          try {
            return (await ask('GET', '/api/health')).status === 200;
          } catch {
            // It is not listening yet.
            return false;
          }
        });
        const json = { 'content-type': 'application/json' };
        const customer = JSON.stringify({ name: `Proxied ${way}`, reach: '' });
        expect((await ask('PUT', `/api/customers/${randomUUID()}`, customer, json)).status)
          .withContext(way)
          .toBe(200);
        const foreign = { ...json, origin: 'http://evil.example' };
        expect((await ask('PUT', `/api/customers/${randomUUID()}`, customer, foreign)).status).toBe(403);
        const archive = await ask('GET', '/api/archive');
        expect([archive.status, archive.body.slice(0, 2)]).toEqual([200, 'PK']);
        const page = await ask('GET', '/builds/x/mesh');
        if (page.status === 200) expect(page.body).toContain('<base href="/spline/"');
      }
    } finally {
      proxy.kill();
      await shop.stop();
      rmSync(folder, { recursive: true, force: true });
    }
  });
});
