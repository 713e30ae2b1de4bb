import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { defineConfig } from '@playwright/test';

const chromium =
  process.env['CHROME_BIN'] ??
  ['/usr/lib/chromium/chromium-headless-shell', '/usr/bin/chromium', '/usr/bin/google-chrome'].find((file) =>
    existsSync(file),
  );
// The config is read in every worker: only the first reading may choose port and folder.
const FREE =
  'const s = require("net").createServer().listen(0, "127.0.0.1", () => { console.log(s.address().port); s.close(); });';
process.env['E2E_PORT'] ??= execFileSync(process.execPath, ['-e', FREE], { encoding: 'utf8' }).trim();
const port = Number(process.env['E2E_PORT']);
process.env['E2E_DATA'] ??= mkdtempSync(path.join(tmpdir(), 'hot-spline-e2e-'));

export default defineConfig({
  testDir: '.',
  globalSetup: './kept-library.ts',
  outputDir: '../test-results',
  fullyParallel: true,
  workers: 2,
  retries: 0,
  // Generous: a busy machine is no failure.
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [['list'], ['./times.ts']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    // What moves takes time to nobody's use here.
    contextOptions: { reducedMotion: 'reduce' },
    acceptDownloads: true,
    // What a story holds up is the server's; the one about the cache allows it.
    serviceWorkers: 'block',
    launchOptions: {
      ...(chromium === undefined ? {} : { executablePath: chromium }),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-dev-shm-usage',
        '--disable-background-networking',
        // A name that is neither localhost nor https: how another device of the shop sees the server.
        '--host-resolver-rules=MAP shop.test 127.0.0.1',
      ],
    },
  },
  webServer: {
    command: 'node dist/server/main.mjs',
    cwd: '..',
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 90_000,
    env: {
      PORT: String(port),
      HOT_SPLINE_DATA: process.env['E2E_DATA'],
      HOT_SPLINE_DEMO: '1',
      HOT_SPLINE_BACKUPS: 'none',
      HOT_SPLINE_GAUGE_PACE: '10',
      LOG_LEVEL: 'warn',
    },
  },
});
