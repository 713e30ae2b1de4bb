// Builds the web app if its sources are newer than the last build.
import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensurePackages, root, run } from './ensure.mjs';

const newest = (folder) =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && !entry.name.endsWith('.spec.ts'))
    .reduce((latest, entry) => Math.max(latest, statSync(path.join(entry.parentPath, entry.name)).mtimeMs), 0);

/** `quiet` keeps standard output clean. */
export function ensureBuilt({ force = false, quiet = false } = {}) {
  const index = `${root}dist/web/browser/index.html`;
  const sources = ['core/src', 'model/src', 'web/src', 'web/public'].map((folder) => newest(root + folder));
  const files = ['angular.json', 'package-lock.json', 'web/tsconfig.app.json'].map(
    (file) => statSync(root + file).mtimeMs,
  );
  if (!force && existsSync(index) && statSync(index).mtimeMs >= Math.max(...sources, ...files)) return;
  console.error('Building the web app…');
  const stdio = quiet ? ['ignore', 'ignore', 'inherit'] : 'inherit';
  run('npx', ['ng', 'build', '--configuration', 'production'], { stdio });
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  ensurePackages();
  ensureBuilt({ force: true });
}
