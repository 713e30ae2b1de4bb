import { mkdirSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino, type Logger } from 'pino';
import { createApp } from './app';
import { surveyBuilds } from './keep/builds';
import type { Config } from './config';
import type { Database } from './db/database';
import { lockFolder } from './db/folder-lock';
import { migrate, readMigrations } from './db/migrate';
import { openPglite } from './db/pglite';
import { openPostgres } from './db/postgres';
import { seedDemo } from './seed';

export const ROOT = new URL('../../', import.meta.url);
export const VERSION = '0.1.0';

export interface Running {
  readonly url: string;
  readonly db: Database;
  stop(): Promise<void>;
}

/** The port is taken by another program. */
export class PortInUse extends Error {
  constructor(readonly port: number) {
    super(`Port ${port} is in use by another program.`);
  }
}

async function openDatabase(config: Config): Promise<{ db: Database; unlock: () => Promise<void> }> {
  if (config.databaseUrl !== undefined)
    return { db: await openPostgres(config.databaseUrl), unlock: async () => undefined };
  mkdirSync(config.dataFolder, { recursive: true });
  const unlock = await lockFolder(config.dataFolder);
  try {
    return { db: await openPglite(path.join(config.dataFolder, 'pg')), unlock };
  } catch (error) {
    await unlock();
    throw error;
  }
}

/** A connection is kept so long: at Node's 5 s a write is now and then sent just as it closes, and is lost on the way. */
const KEEP_ALIVE_MS = 65_000;

/**
 * Opens the database, brings it up to date and listens.
 * @throws FolderInUse, PortInUse
 */
export async function serve(config: Config, log: Logger = pino({ level: config.logLevel })): Promise<Running> {
  const { db, unlock } = await openDatabase(config);
  const close = async (): Promise<void> => {
    await db.close();
    await unlock();
  };
  try {
    const applied = await migrate(db, readMigrations());
    if (applied.length > 0) log.info({ applied }, 'migrated');
    const unreadable = await surveyBuilds(db);
    if (unreadable > 0) log.warn({ unreadable }, 'builds that can’t be read; they are kept as they are');
    if (config.demo) {
      const seeded = await seedDemo(db, new URL('demo/', ROOT));
      if (seeded > 0) log.info({ seeded }, 'demo data');
    }
    const webFolder = fileURLToPath(new URL('dist/web/browser/', ROOT));
    const app = createApp({ db, log, version: VERSION, webFolder, hosts: config.hosts, gaugePace: config.gaugePace });
    const server = await new Promise<Server>((resolve, reject) => {
      const listening = app.listen(config.port, config.host, (error?: Error) => {
        if (error === undefined) resolve(listening);
        else reject((error as NodeJS.ErrnoException).code === 'EADDRINUSE' ? new PortInUse(config.port) : error);
      });
    });
    server.keepAliveTimeout = KEEP_ALIVE_MS;
    const { port } = server.address() as AddressInfo;
    return {
      url: `http://${config.host}:${port}/`,
      db,
      stop: async () => {
        await new Promise<void>((resolve) => {
          server.close(() => resolve());
          server.closeAllConnections();
        });
        await close();
      },
    };
  } catch (error) {
    await close();
    throw error;
  }
}
