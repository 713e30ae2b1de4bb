import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { FORMAT_VERSION, newBuild, type LedgerEntry } from '@hot-spline/model';
import { pino } from 'pino';
import { readConfig } from '../config';
import { migrate, readMigrations } from '../db/migrate';
import { openPglite } from '../db/pglite';
import { Archive, BrokenBuild } from '../keep/open-archive';
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

/** The archive of a shop, in a file of its own. */
export async function archiveFile(shop: Running, query = ''): Promise<string> {
  const folder = mkdtempSync(path.join(tmpdir(), 'hot-spline-archive-'));
  folders.push(folder);
  const file = path.join(folder, 'shop.zip');
  const answer = await fetch(new URL(`/api/archive${query}`, shop.url));
  writeFileSync(file, Buffer.from(await answer.arrayBuffer()));
  return file;
}

/** All rows that are in it, as text. */
export async function archiveOf(shop: Running, query = ''): Promise<string> {
  const archive = await Archive.open(await archiveFile(shop, query));
  const lines: string[] = [];
  for (const piece of archive.pieces)
    try {
      if (piece.of !== 'photo') for await (const line of archive.lines(piece)) lines.push(JSON.stringify(line));
    } catch (error) {
      // Rows that a test wrote past every route have no chain.
      if (!(error instanceof BrokenBuild)) throw error;
    }
  archive.close();
  return lines.join('\n');
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

/** An entry as a bench sends it. */
export const someReading = (): LedgerEntry => ({
  kind: 'reading',
  id: randomUUID(),
  at: '2026-11-30T08:00:00.000Z',
  who: 'Ines',
  subject: { what: 'step', axle: 'rear', step: 'clean' },
  value: { of: 'choice', choice: 'done' },
  state: {},
  instrument: 'By hand',
});

/** Makes a build with so many entries. @returns its id */
export async function makeBuild(shop: Running, name: string, entries = 0): Promise<string> {
  const id = randomUUID();
  const file = { format: 'hot-spline/build-file', formatVersion: FORMAT_VERSION, build: newBuild(name), ledger: [] };
  expect((await call(shop, 'POST', '/api/builds', { id, file })).status).toBe(201);
  for (let i = 0; i < entries; i++)
    expect((await call(shop, 'POST', `/api/builds/${id}/ledger`, someReading())).status).toBe(201);
  return id;
}
