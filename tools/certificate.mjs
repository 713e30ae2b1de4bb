// Makes a certificate for the shop: node tools/certificate.mjs [names]
import { pathToFileURL } from 'node:url';
import { ensurePackages } from './ensure.mjs';
import { ensureBundle } from './bundle.mjs';

ensurePackages({ quiet: true });
const server = await ensureBundle('server');
await import(pathToFileURL(server.replace(/main\.mjs$/, 'certificate-cli.mjs')).href);
