import 'reflect-metadata';
import { webcrypto } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { hostname, networkInterfaces } from 'node:os';
import path from 'node:path';
import * as x509 from '@peculiar/x509';
import { tlsFiles, type TlsFiles } from './files';

const DAY_MS = 86_400_000;
/** An authority is trusted once by every device: as long as a shop keeps its devices. Ours. */
const AUTHORITY_DAYS = 3650;
/** Longer ones are refused by some devices: 398 days at the most [CA/Browser Forum baseline, from memory]. */
const SERVER_DAYS = 397;
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;
const ORGANISATION = 'Hot Spline, this shop alone';

/** Names and addresses by which other devices of the shop may call this machine. */
export function ownNames(): string[] {
  const name = hostname().toLowerCase();
  const addresses = Object.values(networkInterfaces())
    .flatMap((of) => of ?? [])
    .filter(({ internal, address }) => !internal && !address.startsWith('fe80'))
    .map(({ address }) => address);
  return [...new Set([name, `${name.split('.')[0]}.local`, 'localhost', '127.0.0.1', '::1', ...addresses])];
}

function writePrivate(file: string, text: string): void {
  writeFileSync(file, text, { mode: 0o600 });
  chmodSync(file, 0o600);
}

async function pemOf(key: webcrypto.CryptoKey): Promise<string> {
  const raw = await webcrypto.subtle.exportKey('pkcs8', key);
  return `${x509.PemConverter.encode(raw, 'PRIVATE KEY')}\n`;
}

const keyFrom = (pem: string): Promise<webcrypto.CryptoKey> =>
  webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decode(pem)[0] ?? new ArrayBuffer(0), ALGORITHM, true, [
    'sign',
  ]);

const pair = (): Promise<webcrypto.CryptoKeyPair> => webcrypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);

/** Twenty random bytes, the first of them no sign: a serial number is positive [RFC 5280]. */
function serial(): string {
  const bytes = webcrypto.getRandomValues(new Uint8Array(16));
  bytes[0] = ((bytes[0] ?? 0) & 0x7f) | 0x40;
  return Buffer.from(bytes).toString('hex');
}

async function makeAuthority(files: ReturnType<typeof tlsFiles>): Promise<void> {
  const keys = await pair();
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=${hostname().replace(/[^\w.-]/g, '-')}, O=${JSON.stringify(ORGANISATION)}`,
    notBefore: new Date(Date.now() - DAY_MS),
    notAfter: new Date(Date.now() + AUTHORITY_DAYS * DAY_MS),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  writePrivate(files.authorityKey, await pemOf(keys.privateKey));
  writeFileSync(files.authority, `${certificate.toString('pem')}\n`);
}

/**
 * Makes a certificate for the shop’s names by an authority of the shop’s own, which is made with the first one and stays: every device
 * that trusts it trusts the next certificate too.
 * @param names host names and addresses
 */
export async function makeCertificate(dataFolder: string, names: readonly string[]): Promise<TlsFiles> {
  const files = tlsFiles(dataFolder);
  mkdirSync(path.dirname(files.key), { recursive: true, mode: 0o700 });
  if (!existsSync(files.authorityKey) || !existsSync(files.authority)) await makeAuthority(files);
  const authority = new x509.X509Certificate(readFileSync(files.authority, 'utf8'));
  const keys = await pair();
  const certificate = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=${(names[0] ?? 'localhost').replace(/[^\w.:-]/g, '-')}`,
    issuer: authority.subject,
    notBefore: new Date(Date.now() - DAY_MS),
    notAfter: new Date(Date.now() + SERVER_DAYS * DAY_MS),
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey,
    signingKey: await keyFrom(readFileSync(files.authorityKey, 'utf8')),
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map((value) => ({ type: isIP(value) ? ('ip' as const) : ('dns' as const), value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(authority),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  writePrivate(files.key, await pemOf(keys.privateKey));
  writeFileSync(files.certificate, `${certificate.toString('pem')}\n`);
  return files;
}
