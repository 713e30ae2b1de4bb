import type { Audit } from '@hot-spline/model';
import type { RequestHandler } from 'express';
import type { Logger } from 'pino';
import { askerOf, saidOf, type Asker } from '../base/asker';
import type { Queries } from '../db/database';

/** So many lines are kept; the oldest go. Ours. */
const KEPT = 200_000;

export async function note(
  db: Queries,
  { from }: Pick<Asker, 'from'>,
  who: string,
  did: string,
  about = '',
): Promise<void> {
  const [row] = await db.query<{ id: number }>(
    'insert into audit (who, came_from, did, about) values ($1, $2, $3, $4) returning id::int as id',
    [who.slice(0, 60), from, did.slice(0, 80), about.slice(0, 200)],
  );
  if (row && row.id % 1000 === 0) await db.query('delete from audit where id <= $1', [row.id - KEPT]);
}

/** Every write that was taken, by whom and from where. What was signed in, out and refused notes itself. */
export function noteWrites(db: Queries, log: Logger): RequestHandler {
  return (request, response, next) => {
    response.on('finish', () => {
      const { method, path: did } = request;
      const reads = method === 'GET' || method === 'HEAD' || method === 'OPTIONS';
      const said = saidOf(response);
      if (reads || said === '' || response.statusCode >= 300) return;
      const asker = askerOf(response);
      if (!asker.session) return;
      note(db, asker, asker.session.person.name, said, `${method} ${did}`).catch((error: unknown) =>
        log.error({ err: error }, 'what was done could not be noted'),
      );
    });
    next();
  };
}

export async function readAudit(db: Queries, before: number | undefined, limit: number): Promise<Audit> {
  const rows = await db.query<{ id: number; at: Date; who: string; came_from: string; did: string; about: string }>(
    `select id::int as id, at, who, came_from, did, about from audit where ($1::bigint is null or id < $1) order by audit.id desc limit $2`,
    [before ?? null, limit],
  );
  return rows.map(({ id, at, who, came_from: from, did, about }) => ({
    ...{ id, who, from, did, about },
    at: new Date(at).toISOString(),
  }));
}
