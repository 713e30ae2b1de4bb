import { randomUUID } from 'node:crypto';
import type { Me, Role } from '@hot-spline/model';
import type { Asker, Session } from '../base/asker';
import type { Queries } from '../db/database';
import { newToken, tokenHash } from './secrets';

/** A session that nobody used for so long is over, and any after so long. Ours. */
const IDLE = '14 days';
const LONGEST = '90 days';
/** It is noted that somebody is here no more often than this. */
const SEEN = '1 minute';

interface SessionRow extends Record<string, unknown> {
  readonly device: string;
  readonly stale: boolean;
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}

/** The session of a token; null where there is none, it is over, or its person was shut out. */
export async function findSession(db: Queries, token: string): Promise<Session | null> {
  const key = tokenHash(token);
  const [row] = await db.query<SessionRow>(
    `select s.device, s.seen < now() - interval '${SEEN}' as stale, p.id, p.name, p.role
     from sessions s join people p on p.id = s.person
     where s.token = $1 and p.active and s.seen > now() - interval '${IDLE}' and s.made > now() - interval '${LONGEST}'`,
    [key],
  );
  if (!row) return null;
  const { device, stale, id, name, role } = row;
  if (stale) await db.query('update sessions set seen = now() where token = $1', [key]);
  return { person: { id, name, role }, device, key };
}

/** Whether a session still stands. */
export async function stillIn(db: Queries, { key }: Pick<Session, 'key'>): Promise<boolean> {
  const rows = await db.query(
    `select 1 from sessions s join people p on p.id = s.person where s.token = $1 and p.active`,
    [key],
  );
  return rows.length > 0;
}

/**
 * Begins a session of its own: the token is made here, whatever the browser brought along, and the one that it had is over.
 * @param before the session that this device had; its device goes on where the person changes by PIN
 * @returns the token, for the cookie alone
 */
export async function beginSession(
  db: Queries,
  person: string,
  before: Session | null,
  sameDevice: boolean,
): Promise<string> {
  const token = newToken();
  if (before) await db.query('delete from sessions where token = $1', [before.key]);
  const device = sameDevice && before ? before.device : randomUUID();
  await db.query('insert into sessions (token, device, person) values ($1, $2, $3)', [
    tokenHash(token),
    device,
    person,
  ]);
  await db.query('insert into device_people (device, person) values ($1, $2) on conflict do nothing', [device, person]);
  // What is over goes for good, now and then.
  await db.query(
    `delete from sessions where seen < now() - interval '${IDLE}' or made < now() - interval '${LONGEST}'`,
  );
  await db.query('delete from device_people d where not exists (select 1 from sessions s where s.device = d.device)');
  return token;
}

export async function endSession(db: Queries, { key, device }: Session): Promise<void> {
  await db.query('delete from sessions where token = $1', [key]);
  await db.query('delete from device_people where device = $1', [device]);
}

/** Names in which this device may write: who is signed in, and who signed in on it before. */
export async function namesOn(db: Queries, { device, person }: Session): Promise<readonly string[]> {
  const rows = await db.query<{ name: string }>(
    'select p.name from device_people d join people p on p.id = d.person where d.device = $1',
    [device],
  );
  return [...new Set([person.name, ...rows.map(({ name }) => name)])];
}

/** Whether somebody signed in on this device before. */
export async function isOnDevice(db: Queries, device: string, person: string): Promise<boolean> {
  const rows = await db.query('select 1 from device_people where device = $1 and person = $2', [device, person]);
  return rows.length > 0;
}

/** Who asks, for the page. */
export async function meOf(
  db: Queries,
  { door, session }: Pick<Asker, 'door' | 'session'>,
  owned: boolean,
): Promise<Me> {
  if (!session) return { door, owned, person: null, pin: false, others: [] };
  const rows = await db.query<{ id: string; name: string; pin: boolean }>(
    `select p.id, p.name, p.pin is not null as pin from device_people d join people p on p.id = d.person
     where d.device = $1 and p.active order by lower(p.name)`,
    [session.device],
  );
  return {
    door,
    owned,
    person: session.person,
    pin: rows.some(({ id, pin }) => id === session.person.id && pin),
    others: rows.filter(({ id, pin }) => id !== session.person.id && pin).map(({ id, name }) => ({ id, name })),
  };
}
