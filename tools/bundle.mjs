// Bundles the server and the calc command once, so that plain node runs them: dist/server and dist/calc.
import { cpSync, existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { root } from './ensure.mjs';

const newest = (folder) =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && !entry.name.endsWith('.spec.ts'))
    .reduce((latest, entry) => Math.max(latest, statSync(path.join(entry.parentPath, entry.name)).mtimeMs), 0);

/** Newest change in these folders and files of the project. */
export const newestOf = (folders, files) =>
  Math.max(...folders.map((folder) => newest(root + folder)), ...files.map((file) => statSync(root + file).mtimeMs));

const TARGETS = {
  server: {
    output: 'dist/server/main.mjs',
    sources: ['core/src', 'model/src', 'server/src'],
    entries: {
      main: 'server/src/main.ts',
      thread: 'server/src/threads/thread.ts',
      'pglite-worker': 'server/src/db/pglite-worker.ts',
      'keep-cli': 'server/src/keep-cli.ts',
      'owner-cli': 'server/src/owner-cli.ts',
      'certificate-cli': 'server/src/certificate-cli.ts',
    },
    // What has files of its own beside its code, or code for several platforms, stays a package.
    external: ['@electric-sql/pglite', 'express', 'helmet', 'pg', 'pino'],
  },
  calc: {
    output: 'dist/calc/main.mjs',
    sources: ['core/src', 'model/src'],
    entries: { main: 'tools/calc-cli.ts' },
    external: [],
  },
  // What the bench measures of core/ against packages: as it ships, not as it is run from its sources.
  bench: {
    output: 'dist/bench/road.mjs',
    sources: ['core/src', 'model/src', 'tools'],
    entries: { road: 'tools/bench-road.mjs', pack: 'tools/bench-pack.mjs', derive: 'tools/bench-derive.mjs' },
    external: ['highs', 'odex'],
  },
};

/**
 * Bundles a target unless its bundle is newer than its sources. Where the bundler is not installed (`npm ci
 * --omit=dev`), the bundle that is there is used as it is.
 * @returns the file to run
 */
export async function ensureBundle(name, { force = false } = {}) {
  const { output, sources, entries, external } = TARGETS[name];
  const file = root + output;
  const files = ['package-lock.json', 'tools/bundle.mjs', ...(name === 'calc' ? ['tools/calc-cli.ts'] : [])];
  if (!force && existsSync(file) && statSync(file).mtimeMs >= newestOf(sources, files)) return file;
  if (!existsSync(`${root}node_modules/esbuild`)) {
    if (existsSync(file)) return file;
    console.error(`There is no ${output} and nothing to build it with: run npm ci and npm run build first.`);
    process.exit(1);
  }
  const { build } = await import('esbuild');
  await build({
    entryPoints: Object.fromEntries(Object.entries(entries).map(([to, from]) => [to, root + from])),
    outdir: path.dirname(file),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    minifySyntax: true,
    minifyWhitespace: true,
    sourcemap: 'linked',
    logLevel: 'warning',
    external,
    alias: {
      '@hot-spline/core/page': `${root}core/src/page.ts`,
      '@hot-spline/core/practice': `${root}core/src/practice/index.ts`,
      '@hot-spline/core': `${root}core/src/index.ts`,
      '@hot-spline/model/csv': `${root}model/src/csv.ts`,
      '@hot-spline/model': `${root}model/src/index.ts`,
    },
    // CommonJS packages inside the bundle ask for Node's own modules this way.
    banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);" },
  });
  if (name === 'server')
    cpSync(`${root}server/src/db/migrations`, `${path.dirname(file)}/migrations`, { recursive: true });
  return file;
}
