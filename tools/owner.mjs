// Makes the owner of a shop, on the machine itself: node tools/owner.mjs
import { pathToFileURL } from 'node:url';
import { ensurePackages } from './ensure.mjs';
import { ensureBundle } from './bundle.mjs';

ensurePackages({ quiet: true });
const server = await ensureBundle('server');
await import(pathToFileURL(server.replace(/main\.mjs$/, 'owner-cli.mjs')).href);
