import { existsSync } from 'node:fs';
import path from 'node:path';
import { routes, type Me } from '@hot-spline/model';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { boardRoutes } from './board/routes';
import { buildRoutes } from './builds/routes';
import { calcRoutes } from './calc/routes';
import { changeRoutes } from './changes/routes';
import type { Feed } from './changes/feed';
import type { Database } from './db/database';
import type { Backups } from './keep/backups';
import type { Care } from './keep/care';
import type { Notes } from './keep/notes';
import { noteWrites } from './people/audit';
import { cookieOf, identify } from './people/guard';
import { peopleRoutes } from './people/routes';
import { ledgerRoutes } from './ledger/routes';
import { gaugeRoutes } from './gauges/routes';
import { photoRoutes } from './photos/routes';
import { refuseOtherMethods } from './base/http';
import { libraryRoutes } from './library/routes';
import { Problem, errorHandler, notFound } from './base/problem';
import { refuseWithoutRoom } from './base/room';
import type { Pool } from './threads/pool';
import type { Arrivals } from './keep/arrivals';
import { archiveRoutes } from './shop/archive';
import { refuseOtherShop } from './shop/refuse-other';
import { restoreRoutes } from './shop/restore';
import { shopRoutes } from './shop/routes';
import { webApp } from './web-app';

export interface AppOptions {
  readonly db: Database;
  readonly log: Logger;
  readonly version: string;
  /** Folder of the built web app; none in tests of the API alone. */
  readonly webFolder?: string;
  /** Names by which the server may be called; anything else is a page that points its own name here. */
  readonly hosts: readonly string[];
  /** Where others reach it; null: not said. */
  readonly address?: { readonly url: string; readonly prefix: string } | null;
  /** The proxy that is believed about where somebody comes from, where it is on another machine. */
  readonly proxy?: string | null;
  /** Who is let in. */
  readonly door?: Me['door'];
  /** Which shop it is, for the name of its cookie. */
  readonly shop?: string;
  /** Where a device learns to trust its own authority. */
  readonly trustPort?: number | null;
  /** Whether it is spoken to over https. */
  readonly secure?: boolean;
  /** Threads that calculate. */
  readonly pool: Pool;
  /** Works out behind what is written what the board shows and other builds learn. */
  readonly notes: Notes;
  /** Looks after what is kept. */
  readonly care: Care;
  /** Makes backups; null where the database is a server’s own. */
  readonly backups?: Backups | null;
  /** Where a backup that is brought back lies meanwhile, and what follows from it. */
  readonly restore?: { readonly spool: string; readonly restored: (shop: string) => void };
  /** Archives that are brought in beside what is here. */
  readonly arrivals?: Arrivals;
  /** What changes, for those who listen. */
  readonly feed?: Feed;
  readonly gaugePace?: number;
  /** Free bytes of the disk that the data lies on; nothing where it lies elsewhere. */
  readonly free?: (() => number) | undefined;
}

/** What a page of ours may ask the browser for: a gauge on a serial line, and nothing else. */
const POLICY =
  'accelerometer=(), bluetooth=(), camera=(), display-capture=(), geolocation=(), gyroscope=(), hid=(), magnetometer=(), microphone=(), midi=(), payment=(), serial=(self), usb=()';

const hostName = (host: string | undefined): string => (host ?? '').replace(/:\d+$/, '').toLowerCase();

const hostOf = (origin: string): string | null => (URL.canParse(origin) ? new URL(origin).host : null);

/**
 * A page of another site may not ask for anything in the name of who looks at it: its browser says where it comes from. Programs say
 * nothing, and are heard.
 */
const refuseForeign: RequestHandler = (request, _response, next) => {
  const { origin, host, 'sec-fetch-site': site } = request.headers;
  const reads = request.method === 'GET' || request.method === 'HEAD' || request.method === 'OPTIONS';
  const elsewhere = !reads && site !== undefined && site !== 'same-origin' && site !== 'none';
  if (elsewhere || (origin !== undefined && hostOf(origin) !== host))
    throw new Problem(403, 'foreign-page', 'A page of another site', 'Only the app’s own pages may do this.');
  next();
};

/** One process serves the API and the web app. */
export function createApp({
  db,
  log,
  version,
  webFolder,
  hosts,
  gaugePace = 1,
  free,
  pool,
  notes,
  care,
  backups = null,
  restore,
  arrivals,
  feed,
  door = 'alone',
  shop = '',
  secure = false,
  trustPort = null,
  address = null,
  proxy = null,
}: AppOptions): Express {
  const app = express();
  const prefix = address?.prefix ?? '/';
  app.disable('x-powered-by');
  // It says which version a build or spec has, or nothing: a hash of every answer would be worked out for nobody.
  app.set('etag', false);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  // Text alone: pictures and archives are pressed already, and what is told as it happens must not wait for more.
  app.use(
    compression({
      threshold: 1024,
      filter: (request, response) =>
        !String(response.getHeader('Content-Type') ?? '').startsWith('text/event-stream') &&
        compression.filter(request, response),
    }),
  );
  app.use((request, response, next) => {
    const started = performance.now();
    response.on('finish', () => {
      const { method } = request;
      // A secret of a link is none in a log.
      const url = request.originalUrl.replace(/([?&]key=)[^&]*/, '$1…');
      const entry = { method, url, status: response.statusCode, ms: Math.round(performance.now() - started) };
      if (method !== 'GET') care.touched();
      if (url.startsWith('/api/')) log.info(entry, 'request');
      else log.debug(entry, 'request');
    });
    next();
  });
  app.use((request, response, next) => {
    response.set('Permissions-Policy', POLICY);
    // Two names are one too many: whoever stands before this server may have looked at the other.
    const names = request.rawHeaders.filter((name, i) => i % 2 === 0 && name.toLowerCase() === 'host');
    if (names.length !== 1)
      throw new Problem(400, 'one-host', 'One Host', 'A request names the server that it is for, once.');
    if (!hosts.includes('*') && !hosts.includes(hostName(request.headers.host))) {
      throw new Problem(421, 'wrong-host', 'Wrong host', 'This server answers only to its own address.');
    }
    next();
  });
  app.use('/api', (_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  app.use('/api', refuseForeign);
  const cookie = cookieOf(shop, prefix, secure);
  app.use('/api', identify(db, door, cookie, { proxied: address !== null, at: proxy }));
  app.use('/api', noteWrites(db, log));
  if (free) app.use('/api', refuseWithoutRoom(free));
  app.use('/api', refuseOtherShop(db));
  const api = express.Router();
  api.use(
    peopleRoutes(db, cookie, trustPort),
    shopRoutes(db, { version, open: door === 'open' }, address?.url ?? '', care, backups),
    calcRoutes(pool),
    boardRoutes(db, notes, address?.url ?? ''),
    buildRoutes(db, care, pool),
    ledgerRoutes(db, notes, pool),
    libraryRoutes(db),
    photoRoutes(db),
    gaugeRoutes(gaugePace),
  );
  if (feed) api.use(changeRoutes(db, feed));
  if (arrivals) api.use(archiveRoutes(db, arrivals, log, free));
  if (restore) api.use(restoreRoutes(db, restore.spool, restore.restored, free));
  refuseOtherMethods(api, Object.values(routes));
  app.use('/api', api, notFound);
  if (webFolder !== undefined && existsSync(webFolder)) {
    const { page, served } = webApp(webFolder, prefix);
    app.use(served);
    app.use(
      express.static(webFolder, {
        index: false,
        setHeaders: (response, file) => {
          const hashed = /-[A-Z0-9]{8}\.\w+$/.test(path.basename(file));
          response.set('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      }),
    );
    app.get('/{*page}', (request, response, next) => {
      if (path.extname(request.path) !== '') {
        next();
        return;
      }
      response.set('Cache-Control', 'no-cache').type('html').send(page());
    });
  }
  app.use(notFound);
  app.use(errorHandler(log));
  return app;
}
