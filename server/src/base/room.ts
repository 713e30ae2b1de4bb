import { statfsSync } from 'node:fs';
import type { RequestHandler } from 'express';
import { Problem } from './problem';

/**
 * Kept free of writes, bytes: two files of the database's log (16 MB each) and as much again for what it rewrites. Ours. When the
 * log can't grow the database stops for good; so writes stop before.
 */
export const RESERVE_BYTES = 64e6;
/** What a start needs, bytes; a new shop is 39 MB before anything is in it. Ours. */
export const START_BYTES = { shop: 32e6, newShop: 39e6 + RESERVE_BYTES } as const;
/** A write is kept as a document, as a version and in the log. */
const TIMES_KEPT = 4;

const mb = (bytes: number): string => `${Math.ceil(bytes / 1e6)} MB`;

/** Free bytes of the disk that a folder lies on, for this user. */
export function freeIn(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}

/** @throws Problem 507 where less is free than is needed, bytes */
export function requireFree(has: number, needs = RESERVE_BYTES): void {
  if (has >= needs) return;
  throw new Problem(
    507,
    'no-room',
    'The disk is full',
    `Not kept: the disk has ${mb(has)} free, and this needs ${mb(needs)}. Make room for ${mb(needs - has)} more; what is here can still be read.`,
    { freeBytes: has, neededBytes: needs },
  );
}

/** Refuses writes while the disk has no room for them; reading goes on, and writing when there is room again. */
export function refuseWithoutRoom(free: () => number): RequestHandler {
  return (request, _response, next) => {
    if (request.method === 'GET' || request.method === 'HEAD' || request.path.startsWith('/calc')) return next();
    requireFree(free(), RESERVE_BYTES + TIMES_KEPT * Number(request.headers['content-length'] ?? 0));
    next();
  };
}
