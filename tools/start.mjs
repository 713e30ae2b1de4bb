// Starts Hot Spline: installs what is missing, builds if needed, then serves. With --demo the demo data is put in once.
import { pathToFileURL } from 'node:url';
import { ensurePackages } from './ensure.mjs';
import { ensureBuilt } from './build.mjs';
import { ensureBundle } from './bundle.mjs';

ensurePackages();
ensureBuilt();
const server = await ensureBundle('server');
process.env.LOG_LEVEL ??= 'warn';
if (process.argv.includes('--demo')) process.env.HOT_SPLINE_DEMO = '1';
// npm runs this inside a shell, and passes a signal on to that shell alone: when the shell is gone, so are we.
if (process.env.npm_lifecycle_event !== undefined) {
  const shell = process.ppid;
  setInterval(() => {
    if (process.ppid !== shell) process.kill(process.pid, 'SIGTERM');
  }, 250).unref();
}
// In this very process: whoever stops it stops the server.
await import(pathToFileURL(server).href);
