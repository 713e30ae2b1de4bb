// Runs a registered calculation: npm run --silent calc -- NAME '{json}' (or JSON on standard input).
import { pathToFileURL } from 'node:url';
import { ensurePackages } from './ensure.mjs';
import { ensureBundle } from './bundle.mjs';

ensurePackages({ quiet: true });
await import(pathToFileURL(await ensureBundle('calc')).href);
