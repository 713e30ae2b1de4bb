// Puts away and brings back what a shop keeps: node tools/keep.mjs backup [file] | restore file
import { pathToFileURL } from 'node:url';
import { ensurePackages } from './ensure.mjs';
import { ensureBundle } from './bundle.mjs';

ensurePackages({ quiet: true });
const server = await ensureBundle('server');
await import(pathToFileURL(server.replace(/main\.mjs$/, 'keep-cli.mjs')).href);
