import { X509Certificate } from 'node:crypto';
import path from 'node:path';

/** Its files, in the data folder. */
const FOLDER = 'tls';
const FILES = {
  authorityKey: 'authority.key',
  authority: 'authority.crt',
  key: 'server.key',
  certificate: 'server.crt',
} as const;
export interface TlsFiles {
  readonly authority: string;
  readonly key: string;
  readonly certificate: string;
}

export const tlsFiles = (dataFolder: string): TlsFiles & { readonly authorityKey: string } => {
  const at = (file: string): string => path.join(dataFolder, FOLDER, file);
  return {
    authorityKey: at(FILES.authorityKey),
    authority: at(FILES.authority),
    key: at(FILES.key),
    certificate: at(FILES.certificate),
  };
};

/** What two people hold against each other before a device trusts an authority. */
export const fingerprintOf = (pem: string): string => new X509Certificate(pem).fingerprint256;
