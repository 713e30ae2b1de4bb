import { readFileSync } from 'node:fs';
import { createServer, type RequestListener, type Server } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import { tmpdir } from 'node:os';
import { X509Certificate } from 'node:crypto';
import { isIPv6, type AddressInfo } from 'node:net';
import { createSecureContext } from 'node:tls';
import { fileURLToPath } from 'node:url';
import { FORMAT_VERSION } from '@hot-spline/model';
import { pino, type Logger } from 'pino';
import { createApp } from './app';
import { Feed } from './changes/feed';
import { START_BYTES, freeIn } from './base/room';
import { StartProblem } from './base/start-problem';
import { Arrivals } from './keep/arrivals';
import { Backups, copyBeforeMigration } from './keep/backups';
import { Care } from './keep/care';
import { surveyBuilds } from './keep/builds';
import { Notes } from './keep/notes';
import { Teller } from './board/tell';
import { readShop } from './keep/shop';
import type { Config } from './config';
import {
  databaseFolder,
  examineFolder,
  existsWhole,
  prepareFolder,
  requireRoom,
  restoreAdvice,
  sizeOf,
  writeMark,
  type Mark,
} from './db/data-folder';
import type { Database } from './db/database';
import { lockFolder, type FolderLock } from './db/folder-lock';
import { migrate, readMigrations } from './db/migrate';
import { openPgliteThread } from './db/pglite-thread';
import { openPostgres } from './db/postgres';
import { readingRound } from './db/read-round';
import { trustPages } from './tls/trust';
import { Pool } from './threads/pool';
import { hasOwner } from './people/accounts';
import { seedDemo } from './seed';

export const ROOT = new URL('../../', import.meta.url);
export const VERSION = '0.1.0';

export interface Running {
  readonly url: string;
  /** Where a device learns to trust the shop’s own authority; null: it has none. */
  readonly trust: string | null;
  readonly db: Database;
  /** Comes where the server can’t go on: the database went down, or another took the folder. */
  readonly lost: Promise<Error>;
  stop(): Promise<void>;
}

/** The port is taken by another program. */
export class PortInUse extends StartProblem {
  constructor(readonly port: number) {
    super(
      `Port ${port} is in use by another program.`,
      `Stop it, or start here on another port: PORT=${port === 65535 ? 8017 : port + 1}`,
    );
  }
}

/** How often it is looked whether the lock in the folder is still ours, ms. */
const LOCK_LOOK_MS = 2000;
/** A connection is kept so long: at Node's 5 s a write is now and then sent just as it closes, and is lost on the way. */
const KEEP_ALIVE_MS = 65_000;

/** A body may take so long to arrive: an archive over a slow line. Node’s own is five minutes. */
const REQUEST_MS = 3_600_000;
/** Beyond the time that a connection is kept: who sends half a head and no more is cut off after it. */
const HEADERS_MS = KEEP_ALIVE_MS + 5000;

interface Kept {
  readonly db: Database;
  readonly lost: Promise<Error>;
  /** Says in the folder which shop it holds. */
  readonly mark: (shop: string) => void;
  /** Says that it holds another shop from now on. */
  readonly markAnew: (shop: string) => void;
  readonly close: () => Promise<void>;
}

const never = new Promise<never>(() => undefined);

type OpenFolder = (folder: string) => Promise<Database & { readonly lost?: Promise<Error> }>;

/** The folder's lock is looked at while the server runs: who has lost it must not write any more. */
function watch(lock: FolderLock, folder: string): { readonly lost: Promise<Error>; readonly stop: () => void } {
  let timer: NodeJS.Timeout | undefined;
  const lost = new Promise<Error>((resolve) => {
    timer = setInterval(() => {
      if (lock.holds()) return;
      clearInterval(timer);
      resolve(new Error(`The lock in ${folder} is not this server’s any more: another one may have taken the folder.`));
    }, LOCK_LOOK_MS).unref();
  });
  return { lost, stop: () => clearInterval(timer) };
}

async function openFolder(config: Config, open: OpenFolder, log: Logger): Promise<Kept> {
  const folder = config.dataFolder;
  await prepareFolder(folder);
  const lock = await lockFolder(folder);
  try {
    const mark = examineFolder(folder);
    const migrations = readMigrations().length;
    const created = mark?.created ?? new Date().toISOString();
    const write = (shop: Mark['shop']): void =>
      writeMark(folder, { program: 'hot-spline', shop, created, format: FORMAT_VERSION, migrations });
    const fresh = !mark && !existsWhole(folder);
    requireRoom(folder, fresh ? START_BYTES.newShop : START_BYTES.shop);
    if (fresh) write(null);
    else if (config.backups && mark?.migrations !== migrations) {
      // What another program kept is copied as it lies, before this one changes it.
      requireRoom(folder, START_BYTES.shop + sizeOf(databaseFolder(folder)));
      log.info({ copy: copyBeforeMigration(folder) }, 'copied before migrating');
    }
    const db = await open(databaseFolder(folder)).catch((error: unknown) => {
      if (fresh) throw error;
      const why = error instanceof Error ? error.message : String(error);
      throw new StartProblem(`The database in ${folder} can’t be opened: ${why}.`, restoreAdvice(folder));
    });
    const watched = watch(lock, folder);
    return {
      db: readingRound(db, folder, log),
      lost: Promise.race([db.lost ?? never, watched.lost]),
      mark(shop) {
        if (mark && mark.shop !== shop)
          throw new StartProblem(
            `The folder ${folder} says that it holds the shop ${mark.shop}, and its database is that of ${shop}.`,
            'Nothing was changed. One of them came from elsewhere: bring back the one that belongs to the other.',
          );
        if (mark?.format !== FORMAT_VERSION || mark.migrations !== migrations) write(shop);
      },
      markAnew: write,
      async close() {
        watched.stop();
        await db.close();
        await lock.release();
      },
    };
  } catch (error) {
    await lock.release();
    throw error;
  }
}

async function openKept(config: Config, open: OpenFolder, log: Logger): Promise<Kept> {
  if (config.databaseUrl === undefined) return openFolder(config, open, log);
  const db = await openPostgres(config.databaseUrl);
  return { db, lost: never, mark: () => undefined, markAnew: () => undefined, close: () => db.close() };
}

const NO_ADDRESS = ['EADDRNOTAVAIL', 'ENOTFOUND', 'EAI_AGAIN', 'EINVAL', 'EAFNOSUPPORT'];

/** Takes the port before anything else is done: who can’t have it knows at once. */
function listen(server: Server, { port, host }: Config): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      const code = error.code ?? '';
      if (code === 'EADDRINUSE') reject(new PortInUse(port));
      else if (NO_ADDRESS.includes(code))
        reject(
          new StartProblem(
            `HOST=${host}: this machine has no such address (${code}).`,
            'Allowed: 127.0.0.1 or ::1 for this machine alone, 0.0.0.0 for the whole network, or an address that it has.',
          ),
        );
      else if (code === 'EACCES')
        reject(new StartProblem(`Port ${port} may not be opened by this user.`, 'Choose one above 1023: PORT=8017'));
      else reject(error);
    });
    server.listen(port, host, () => resolve());
  });
}

/** Certificate and key, as they lie. @throws StartProblem where they can’t be used */
function readTls({ certificate, key }: NonNullable<Config['tls']>): { readonly cert: string; readonly key: string } {
  try {
    const read = { cert: readFileSync(certificate, 'utf8'), key: readFileSync(key, 'utf8') };
    const { validTo } = new X509Certificate(read.cert);
    if (Date.parse(validTo) < Date.now()) throw new Error(`the certificate is over since ${validTo}`);
    createSecureContext(read);
    return read;
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new StartProblem(
      `https does not start: ${why}.`,
      'Make a certificate: npm run certificate – or name files of your own by HOT_SPLINE_CERT and HOT_SPLINE_KEY.',
    );
  }
}

/** The page in the clear beside https, on a port of its own. */
async function openTrust(
  { authority, port }: NonNullable<NonNullable<Config['tls']>['trust']>,
  tlsPort: number,
  config: Config,
): Promise<{ readonly server: Server; readonly port: number; readonly url: string }> {
  const server = createServer(trustPages(readFileSync(authority, 'utf8'), tlsPort));
  await listen(server, { ...config, port });
  const { port: own } = server.address() as AddressInfo;
  return { server, port: own, url: `http://${nameOf(config.host)}:${own}/` };
}

/** Until the database is open: nobody is sent away for good. */
const starting: RequestListener = (_request, response) => {
  response.writeHead(503, { 'Content-Type': 'application/problem+json', 'Retry-After': '2' });
  response.end(
    JSON.stringify({
      type: 'urn:hot-spline:starting',
      title: 'Starting',
      status: 503,
      detail: 'The server is starting.',
    }),
  );
};

const nameOf = (host: string): string => (isIPv6(host) ? `[${host}]` : host);

/**
 * Listens, opens the database and brings it up to date, then serves.
 * @param open how the database in the folder is opened
 * @param threads a pool that it shares with others; its own otherwise
 * @throws StartProblem saying in a sentence why it does not start
 */
export async function serve(
  config: Config,
  log: Logger = pino({ level: config.logLevel }),
  open: OpenFolder = openPgliteThread,
  threads: Pool | null = null,
): Promise<Running> {
  let answer: RequestListener = starting;
  const prefix = config.address?.prefix ?? '/';
  const heard: RequestListener = (request, response) => {
    const { url = '/' } = request;
    // Whoever stands before it may take the path off that it stands under, or leave it.
    if (prefix !== '/' && url.startsWith(prefix)) request.url = url.slice(prefix.length - 1);
    else if (`${url}/` === prefix) return void response.writeHead(308, { Location: prefix }).end();
    answer(request, response);
  };
  const server = config.tls ? createTlsServer(readTls(config.tls), heard) : createServer(heard);
  // What is refused is refused before its body is sent, where its sender waits for a word.
  server.on('checkContinue', heard);
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  server.headersTimeout = HEADERS_MS;
  server.requestTimeout = REQUEST_MS;
  await listen(server, config);
  const own = (server.address() as AddressInfo).port;
  const trust = config.tls?.trust ? await openTrust(config.tls.trust, own, config) : null;
  const hangUp = (): Promise<void> =>
    new Promise((resolve) => {
      server.close(() => resolve());
      server.closeAllConnections();
      trust?.server.close();
      trust?.server.closeAllConnections();
    });
  let kept: Kept;
  try {
    kept = await openKept(config, open, log);
  } catch (error) {
    await hangUp();
    throw error;
  }
  const { db } = kept;
  try {
    const applied = await migrate(db, readMigrations());
    const { id: shop } = await readShop(db);
    kept.mark(shop);
    if (applied.length > 0) log.info({ applied }, 'migrated');
    if (config.door === 'people' && !(await hasOwner(db)))
      throw new StartProblem(
        `${config.address ? `HOT_SPLINE_ADDRESS=${config.address.url}` : `HOST=${config.host}`} is open to the network, and this shop has no owner yet: nobody could sign in.`,
        'Make one: npm run owner – or start it on this machine alone and open People. Where every device of that network is trusted, say so instead: HOT_SPLINE_OPEN=1.',
      );
    const spool = config.databaseUrl === undefined ? config.dataFolder : tmpdir();
    const free = config.databaseUrl === undefined ? () => freeIn(config.dataFolder) : undefined;
    const arrivals = new Arrivals(db, spool, log, free, config.databaseUrl === undefined);
    await arrivals.begin();
    const unreadable = await surveyBuilds(db);
    if (unreadable > 0) log.warn({ unreadable }, 'builds that can’t be read; they are kept as they are');
    if (config.demo) {
      const seeded = await seedDemo(db, new URL('demo/', ROOT));
      if (seeded > 0) log.info({ seeded }, 'demo data');
    }
    const care = new Care(db, config.databaseUrl === undefined ? config.dataFolder : null, log);
    care.begin();
    const { second } = config.backups ?? {};
    const backups =
      config.databaseUrl === undefined && second !== undefined ? new Backups(db, config.dataFolder, second, log) : null;
    backups?.begin();
    const webFolder = fileURLToPath(new URL('dist/web/browser/', ROOT));
    const pool = threads ?? new Pool();
    const feed = new Feed();
    await db.listen(feed.hear);
    const teller = new Teller(db, log);
    teller.wake();
    const notes = new Notes(db, pool, log, () => teller.wake());
    notes.wake();
    feed.listen(({ change: { of } }) => {
      if (of === 'build' || of === 'ledger' || of === 'all') notes.wake();
      if (of === 'ledger') teller.wake();
    });
    answer = createApp({
      db,
      log,
      version: VERSION,
      webFolder,
      hosts: config.hosts,
      door: config.door,
      shop,
      trustPort: trust?.port ?? null,
      secure: config.tls !== null || (config.address?.url.startsWith('https:') ?? false),
      address: config.address,
      proxy: config.proxy,
      pool,
      notes,
      care,
      backups,
      feed,
      arrivals,
      restore: {
        spool,
        restored: (other) => kept.markAnew(other),
      },
      gaugePace: config.gaugePace,
      free,
    });
    return {
      url: `${config.tls ? 'https' : 'http'}://${nameOf(config.host)}:${own}/`,
      trust: trust?.url ?? null,
      db,
      lost: kept.lost,
      stop: async () => {
        await hangUp();
        await arrivals.end();
        const noted = notes.end();
        await teller.end();
        if (!threads) await pool.end();
        await noted;
        await backups?.end();
        await care.end();
        await kept.close();
      },
    };
  } catch (error) {
    await hangUp();
    await kept.close();
    throw error;
  }
}
