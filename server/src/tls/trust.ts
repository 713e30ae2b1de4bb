import { createHash } from 'node:crypto';
import type { RequestListener } from 'node:http';
import { fingerprintOf } from './files';

const escape = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/**
 * What is said in the clear, beside https: a page that tells a device how to trust this shop, and the certificate of its authority. Nothing
 * of the shop is on it, and everything else is sent to https.
 * @param tlsPort where the shop itself listens; its name is the one by which this page was called
 */
export function trustPages(authorityPem: string, tlsPort: number): RequestListener {
  const fingerprint = fingerprintOf(authorityPem);
  const style =
    'body{font:17px/1.5 system-ui,sans-serif;max-width:34em;margin:2em auto;padding:0 1em}a.b{display:block;padding:.8em;border:2px solid;border-radius:8px;text-align:center;font-weight:600}code{word-break:break-all}';
  const hash = createHash('sha256').update(style).digest('base64');
  return ({ url = '/', headers, method }, response) => {
    const name = /^[\w.-]+$|^\[[\da-f:]+\]$/i.exec((headers.host ?? '').replace(/:\d+$/, ''))?.[0] ?? 'localhost';
    const home = `https://${name}${tlsPort === 443 ? '' : `:${tlsPort}`}/`;
    const common = {
      'Cache-Control': 'no-store',
      'X-Content-Type-Options': 'nosniff',
      'Content-Security-Policy': `default-src 'none'; style-src 'sha256-${hash}'; frame-ancestors 'none'`,
    };
    if (method !== 'GET' && method !== 'HEAD') return void response.writeHead(405, { ...common, Allow: 'GET' }).end();
    if (url === '/authority.crt')
      return void response
        .writeHead(200, {
          ...common,
          'Content-Type': 'application/x-x509-ca-cert',
          'Content-Disposition': 'attachment; filename="hot-spline-shop.crt"',
        })
        .end(authorityPem);
    if (url !== '/') return void response.writeHead(308, { ...common, Location: `${home}${url.slice(1)}` }).end();
    response.writeHead(200, { ...common, 'Content-Type': 'text/html; charset=utf-8' }).end(
      `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Trust this shop</title><style>${style}</style>
<h1>Trust this shop, once</h1>
<p>This device talks to the shop over https by a certificate of the shop’s own. Nobody else vouches for it: you do, once on each device.</p>
<ol>
<li><a class="b" href="/authority.crt">Take the shop’s certificate</a></li>
<li>Open what was taken, and install it as a <b>certificate authority</b>. On a phone or tablet: Settings, search for “certificate”; on some of them it is then still to be switched on as fully trusted. On a computer: open the file, put it among the trusted root authorities; a browser with a list of its own has it under its privacy settings.</li>
<li>Hold this fingerprint (SHA-256) against the one that <code>npm run certificate</code> said on the shop’s machine. If they differ, trust nothing:<br><code>${escape(fingerprint)}</code></li>
<li><a class="b" href="${escape(home)}">Open the shop</a></li>
</ol>
<p>Only what this one shop makes is trusted by it. Its key lies on the shop’s machine: take the certificate off a device that leaves the shop.</p>`,
    );
  };
}
