import type { Queries } from '../db/database';

/** The work of a build has changed: how far it is is worked out when the board is looked at. */
export const touchBuild = (tx: Queries, id: string): Promise<unknown> =>
  tx.query('update builds set stale = true where id = $1 and not stale', [id]);
