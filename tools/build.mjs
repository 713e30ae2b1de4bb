// Builds what is older than its sources: the web app, and the bundles of server and calc.
import { existsSync, statSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { ensureBundle, newestOf } from './bundle.mjs';
import { ensurePackages, root, run } from './ensure.mjs';

/** The web app. `quiet` keeps standard output clean. */
export function ensureBuilt({ force = false, quiet = false } = {}) {
  const index = `${root}dist/web/browser/index.html`;
  const sources = ['core/src', 'model/src', 'web/src', 'web/public'];
  const files = ['angular.json', 'package-lock.json', 'web/tsconfig.app.json'];
  if (!force && existsSync(index) && statSync(index).mtimeMs >= newestOf(sources, files)) return;
  if (existsSync(index) && !existsSync(`${root}node_modules/@angular/cli`)) return;
  console.error('Building the web app…');
  const stdio = quiet ? ['ignore', 'ignore', 'inherit'] : 'inherit';
  run('npx', ['ng', 'build', '--configuration', 'production'], { stdio });
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  ensurePackages();
  const force = !process.argv.includes('--what-is-older');
  ensureBuilt({ force });
  await ensureBundle('server', { force });
  await ensureBundle('calc', { force });
}
