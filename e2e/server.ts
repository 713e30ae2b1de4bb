import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, lstatSync, mkdtempSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

/** A port that is free now. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

/** Makes a new shop, once for all stories that have a server of their own: making one costs more than starting on it. */
export async function emptyShop(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-empty-'));
  const server = await startServer(folder, await freePort());
  const gone = new Promise((resolve) => server.once('exit', resolve));
  server.kill('SIGTERM');
  await gone;
  process.env['E2E_EMPTY_SHOP'] = folder;
}

/** A folder for the data of a server of one's own: a new shop, nothing in it. */
export function dataFolder(): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-own-'));
  cpSync(process.env['E2E_EMPTY_SHOP'] ?? '', folder, {
    recursive: true,
    // A lock is its server's own: where that one had to be ended it may still lie there, and a copy of it locks nothing.
    filter: (file) => !lstatSync(file).isSocket(),
  });
  return folder;
}

/** Starts the built server on a folder; it is up when this returns. @param program where it was built */
export function startServer(
  folder: string,
  port: number,
  env: Readonly<Record<string, string>> = {},
  program = root,
): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--liftoff-only', 'dist/server/main.mjs'], {
    cwd: program,
    env: {
      ...process.env,
      PORT: String(port),
      HOT_SPLINE_DATA: folder,
      HOT_SPLINE_DEMO: '0',
      HOT_SPLINE_BACKUPS: 'none',
      LOG_LEVEL: 'silent',
      ...env,
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    child.stdout.on('data', (chunk) => String(chunk).includes('is at') && resolve(child));
    child.once('exit', (code) => reject(new Error(`left with ${code}`)));
  });
}

/** Ends it at once, as a power cut would. */
export async function kill(server: ChildProcess): Promise<void> {
  const gone = new Promise((resolve) => server.once('exit', resolve));
  server.kill('SIGKILL');
  await gone;
}
