import type { Changed } from '@hot-spline/model';
import { CHANNEL, type Queries } from '../db/database';

/** Tells whoever looks what is changed: they hear it when it is committed, and nothing of what is not. */
export const tell = (tx: Queries, change: Changed): Promise<unknown> =>
  tx.query('select pg_notify($1, $2)', [CHANNEL, JSON.stringify(change)]);
