import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { readConfig } from '../config';
import { migrate, readMigrations } from '../db/migrate';
import { openPglite } from '../db/pglite';
import { Pool } from '../threads/pool';
import { ROOT, serve, type Running } from '../serve';

/** One for all servers of a run: from its sources a thread takes seconds to start. */
const pool = new Pool();
let template: Promise<string> | undefined;
const folders: string[] = [];
process.once('exit', () => {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

/** A migrated, empty data folder, made once a run: a new one takes seconds, a copy does not. */
async function templateFolder(): Promise<string> {
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-template-'));
  const db = await openPglite(path.join(folder, 'pg'));
  await migrate(db, readMigrations());
  await db.close();
  folders.push(folder);
  return folder;
}

/** A data folder of its own for one test. */
export async function freshFolder(): Promise<string> {
  template ??= templateFolder();
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-test-'));
  cpSync(await template, folder, { recursive: true });
  folders.push(folder);
  return folder;
}

/** A whole server on a port of its own. */
export async function startShop(folder: string, env: Record<string, string> = {}): Promise<Running> {
  const config = readConfig(
    { PORT: '0', HOT_SPLINE_DATA: folder, LOG_LEVEL: 'silent', HOT_SPLINE_BACKUPS: 'none', ...env },
    fileURLToPath(ROOT),
  );
  // In this thread: what the thread of its own adds is tried where a server runs as a process.
  return serve(config, pino({ level: 'silent' }), openPglite, pool);
}

export interface Answer {
  readonly status: number;
  readonly type: string;
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- answers are looked into freely in tests
  readonly body: any;
}

/** Calls the server as anybody could: `body` is sent as JSON unless it is text already. */
export async function call(
  shop: Running,
  method: string,
  url: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer> {
  const response = await fetch(new URL(url, shop.url), {
    method,
    headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    body: body === undefined ? null : typeof body === 'string' ? body : JSON.stringify(body),
  });
  const type = response.headers.get('content-type') ?? '';
  return { status: response.status, type, body: type.includes('json') ? await response.json() : await response.text() };
}
