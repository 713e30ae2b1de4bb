import type { Queries } from '../db/database';

/** Takes turns over an id that may not be there yet: of two who make it at once the second sees what the first has made. */
export const lockId = (tx: Queries, id: string): Promise<unknown> =>
  tx.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [id]);

/** The work of a build has changed: how far it is is worked out when the board is looked at. */
export const touchBuild = (tx: Queries, id: string): Promise<unknown> =>
  tx.query('update builds set stale = true where id = $1 and not stale', [id]);
