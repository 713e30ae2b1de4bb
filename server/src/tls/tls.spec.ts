import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { get } from 'node:https';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { freshFolder, startShop } from '../testing/shop';
import { readConfig } from '../config';
import { makeCertificate, ownNames } from './certificate';
import { fingerprintOf, tlsFiles } from './files';

/** The status of an answer over https, trusting one authority alone. */
const over = (url: string, ca: string): Promise<number> =>
  new Promise((resolve, reject) => {
    get(url, { ca }, (answer) => {
      answer.resume();
      answer.on('end', () => resolve(answer.statusCode ?? 0));
    }).on('error', reject);
  });

describe('https of the shop’s own', () => {
  let folder: string;
  beforeEach(async () => {
    folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-tls-'));
    await makeCertificate(folder, ['shop.local', '192.0.2.7', ...ownNames()]);
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('makes what a general-purpose tool takes for a chain: an authority, and a certificate for every name', () => {
    const { authority, certificate, key, authorityKey } = tlsFiles(folder);
    // OpenSSL’s own reading, outside this project.
    expect(
      execFileSync('openssl', [
        'verify',
        '-x509_strict',
        '-purpose',
        'sslserver',
        '-CAfile',
        authority,
        certificate,
      ]).toString(),
    ).toContain('OK');
    const read = new X509Certificate(readFileSync(certificate, 'utf8'));
    for (const name of ['shop.local', 'localhost']) expect(read.checkHost(name)).withContext(name).toBe(name);
    for (const ip of ['192.0.2.7', '127.0.0.1']) expect(read.checkIP(ip)).withContext(ip).toBe(ip);
    expect(read.checkHost('elsewhere.example')).toBeUndefined();
    // A certificate can’t make others, its key and the authority’s are its owner’s alone.
    expect(read.ca).toBeFalse();
    for (const file of [key, authorityKey])
      expect(statSync(file).mode & 0o077)
        .withContext(file)
        .toBe(0);
    expect(Date.parse(read.validTo) - Date.now()).toBeLessThan(398 * 86_400_000);
  });

  it('keeps its authority: what trusts it trusts the next certificate', async () => {
    const { authority, certificate } = tlsFiles(folder);
    const [before, first] = [readFileSync(authority, 'utf8'), readFileSync(certificate, 'utf8')];
    await makeCertificate(folder, ['other.local', ...ownNames()]);
    expect(readFileSync(authority, 'utf8')).toBe(before);
    expect(readFileSync(certificate, 'utf8')).not.toBe(first);
    expect(
      new X509Certificate(readFileSync(certificate, 'utf8')).verify(new X509Certificate(before).publicKey),
    ).toBeTrue();
  });

  it('a shop over it is trusted by its authority and by nobody else; its cookie is for https; the clear says how to trust it', async () => {
    const data = await freshFolder();
    await makeCertificate(data, ownNames());
    const ca = readFileSync(tlsFiles(data).authority, 'utf8');
    const shop = await startShop(data, { HOT_SPLINE_TLS: '1' });
    try {
      expect(await over(`${shop.url}api/health`, ca)).toBe(200);
      await expectAsync(
        over(`${shop.url}api/health`, readFileSync(tlsFiles(folder).authority, 'utf8')),
      ).toBeRejectedWithError(/signature|self.signed|certificate/i);
      const trust = shop.trust ?? '';
      const page = await fetch(trust);
      expect(await page.text()).toContain(fingerprintOf(ca));
      expect(await (await fetch(`${trust}authority.crt`)).text()).toBe(ca);
      const sent = await fetch(`${trust}builds/x?y`, { redirect: 'manual' });
      expect([sent.status, sent.headers.get('location')]).toEqual([308, `${shop.url}builds/x?y`]);
      expect((await fetch(trust, { method: 'POST', body: 'x' })).status).toBe(405);
    } finally {
      await shop.stop();
    }
  });

  it('does not start by what is no certificate, is over, or is one file of two', async () => {
    const data = await freshFolder();
    await expectAsync(startShop(data, { HOT_SPLINE_TLS: '1' })).toBeRejectedWithError(/https does not start/);
    const bad = path.join(folder, 'bad.pem');
    writeFileSync(bad, 'nothing of the kind');
    await expectAsync(startShop(data, { HOT_SPLINE_CERT: bad, HOT_SPLINE_KEY: bad })).toBeRejectedWithError(
      /https does not start/,
    );
    expect(() => readConfig({ HOT_SPLINE_CERT: bad }, '/')).toThrowError(/set alone/);
    expect(() => readConfig({ HOT_SPLINE_TRUST_PORT: '-1' }, '/')).toThrowError(/HOT_SPLINE_TRUST_PORT/);
  });
});
