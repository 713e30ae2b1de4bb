import { randomBytes, randomUUID } from 'node:crypto';
import type { Hook, HookEvent, HookEventType, HookWrite, Signature } from '@hot-spline/model';
import type { Database, Queries } from '../db/database';

/** How many programs a shop tells at most: ours. */
export const MOST_HOOKS = 20;

const SECRET = 'whsec_';

interface Row extends Record<string, unknown> {
  readonly id: string;
  readonly url: string;
  readonly events: HookEventType[];
  readonly ok_at: Date | string | null;
  readonly problem: string;
  readonly waiting: number;
}

/** The programs that are told, with what is still to be told them; no secret. */
export async function listHooks(db: Queries): Promise<Hook[]> {
  const rows = await db.query<Row>(
    `select h.id, h.url, h.events, h.ok_at, h.problem, count(c.id)::int as waiting
     from hooks h left join hook_calls c on c.hook_id = h.id group by h.id order by h.made, h.id`,
  );
  return rows.map(({ id, url, events, ok_at, problem, waiting }) => ({
    ...{ id, url, events, problem, waiting },
    okAt: ok_at === null ? null : new Date(ok_at).toISOString(),
  }));
}

/** Where a program is called, and what its calls are signed with; null where there is none. */
export async function findHook(db: Queries, id: string): Promise<{ url: string; secret: string } | null> {
  const [hook] = await db.query<{ url: string; secret: string }>('select url, secret from hooks where id = $1', [id]);
  return hook ?? null;
}

/** Tells another program from now on. @returns the secret that its calls are signed with: shown once */
export async function addHook(
  db: Database,
  { url, events }: HookWrite,
): Promise<{ id: string; secret: string } | null> {
  const [id, secret] = [randomUUID(), `${SECRET}${randomBytes(32).toString('base64')}`];
  return db.transaction(async (tx) => {
    await tx.query('lock table hooks in exclusive mode');
    const [all] = await tx.query<{ n: number }>('select count(*)::int as n from hooks');
    if ((all?.n ?? 0) >= MOST_HOOKS) return null;
    await tx.query('insert into hooks (id, url, secret, events) values ($1, $2, $3, $4)', [id, url, secret, events]);
    return { id, secret };
  });
}

/** What was still to be told it is gone with it. @returns whether there was one */
export async function dropHook(db: Queries, id: string): Promise<boolean> {
  return (await db.query('delete from hooks where id = $1 returning id', [id])).length > 0;
}

/** Writes down, in the transaction in which it happens, who is to be told what (board/tell.ts tells it). */
export async function callHooks(tx: Queries, event: HookEvent): Promise<void> {
  const hooks = await tx.query<{ id: string }>('select id from hooks where $1 = any(events)', [event.type]);
  for (const hook of hooks)
    await tx.query('insert into hook_calls (id, hook_id, body) values ($1, $2, $3)', [
      ...[randomUUID(), hook.id, hookBody(event)],
    ]);
}

/** A gate was signed. */
export async function tellSigned(tx: Queries, build: string, { id, gate, name }: Signature): Promise<void> {
  const [row] = await tx.query<{ name: string }>('select name from builds where id = $1', [build]);
  await callHooks(tx, { type: 'gate.signed', build, name: row?.name ?? '', gate, signedBy: name, entry: id });
}

/** What is sent: what happened, when, and its data. */
export const hookBody = ({ type, ...data }: HookEvent): string =>
  JSON.stringify({ type, timestamp: new Date().toISOString(), data });
