// Installs what the project needs and is not there yet: the packages of the lockfile, and for browser tests Chromium.
import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));

// The versions that what we build with runs on; package.json says the same.
const LEAST = { 20: 19, 22: 13 };
const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
if (major < 24 && !(minor >= (LEAST[major] ?? Number.POSITIVE_INFINITY))) {
  console.error(`Hot Spline needs Node 20.19, 22.13 or 24 and later of each; this is ${process.versions.node}.`);
  process.exit(1);
}

/** Runs a command to its end; leaves with its code if it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (result.error) throw result.error;
  if (result.status !== 0) process.exit(result.status ?? 1);
}

/** `npm ci` unless the installed packages are those of the lockfile. `quiet` keeps standard output clean. */
export function ensurePackages({ quiet = false } = {}) {
  const installed = `${root}node_modules/.package-lock.json`;
  const lock = `${root}package-lock.json`;
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  if (!quiet) console.log('Installing packages…');
  // Under `npm --silent` the child would fail without a word.
  const env = { ...process.env, npm_config_loglevel: 'error' };
  run('npm', ['ci', '--no-audit', '--no-fund'], { stdio: quiet ? ['ignore', 'ignore', 'inherit'] : 'inherit', env });
}

// The script /usr/bin/chromium-headless-shell outlives being killed: the program itself is started.
const BROWSERS = [
  '/usr/lib/chromium/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];

/**
 * Where Chromium is; Debian's is installed where that may be done. Its headless shell is preferred: without the window
 * that nobody sees, the same tests take half the time. `quiet` keeps standard output clean.
 */
export function ensureChromium({ quiet = false } = {}) {
  const known = [process.env.CHROME_BIN, ...BROWSERS];
  const found = () => known.find((path) => path && existsSync(path));
  if (!found() && process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.error('Installing Chromium…');
    const stdio = ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'];
    run('apt-get', ['update', '-qq'], { stdio });
    const shell = spawnSync('apt-cache', ['show', 'chromium-headless-shell'], { stdio: 'ignore' }).status === 0;
    const name = shell ? 'chromium-headless-shell' : 'chromium';
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], {
      stdio,
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  }
  const path = found();
  if (!path) {
    console.error('The browser tests need Chromium: install it, or say where it is with CHROME_BIN.');
    process.exit(1);
  }
  return path;
}
