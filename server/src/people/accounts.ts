import { randomUUID } from 'node:crypto';
import { InputError } from '@hot-spline/core';
import type { People, Person, Role } from '@hot-spline/model';
import type { Database, Queries } from '../db/database';
import { Problem } from '../base/problem';
import { tell } from '../keep/tell';
import { hashWord, newToken, tokenHash } from './secrets';

/** Days that an invitation waits. Ours. */
const INVITED_DAYS = 3;

interface PersonRow extends Record<string, unknown> {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly password: string;
  readonly pin: string | null;
  readonly active: boolean;
}

const COLUMNS = 'id, name, role, password, pin, active';

export async function findPerson(db: Queries, by: { name: string } | { id: string }): Promise<PersonRow | null> {
  const [row] =
    'name' in by
      ? await db.query<PersonRow>(`select ${COLUMNS} from people where lower(name) = lower($1)`, [by.name])
      : await db.query<PersonRow>(`select ${COLUMNS} from people where id = $1`, [by.id]);
  return row ?? null;
}

export async function hasOwner(db: Queries): Promise<boolean> {
  const [row] = await db.query<{ n: number }>(`select count(*)::int as n from people where role = 'owner' and active`);
  return (row?.n ?? 0) > 0;
}

const nameTaken = (name: string): InputError =>
  new InputError('name', `name: ${name} is somebody here already.`, 'a name of their own');

async function insert(db: Queries, name: string, role: Role, word: string): Promise<Person> {
  const id = randomUUID();
  const rows = await db.query(
    `insert into people (id, name, role, password) values ($1, $2, $3, $4) on conflict do nothing returning id`,
    [id, name, role, word],
  );
  if (rows.length === 0) throw nameTaken(name);
  return { id, name, role };
}

/** @throws Problem 409 where there is an owner already */
export async function makeFirstOwner(db: Database, name: string, password: string): Promise<Person> {
  const word = await hashWord(password);
  return db.transaction(async (tx) => {
    // Two at once: the second one waits, and finds the first.
    await tx.query('lock table people in share row exclusive mode');
    if (await hasOwner(tx)) throw new Problem(409, 'owned', 'There is an owner', 'This shop has an owner already.');
    const person = await insert(tx, name, 'owner', word);
    await tell(tx, { of: 'people' });
    return person;
  });
}

export async function invite(
  db: Queries,
  role: Role,
  by: string,
): Promise<{ id: string; token: string; until: string }> {
  const [id, token] = [randomUUID(), newToken()];
  const [row] = await db.query<{ until: Date | string }>(
    `insert into invitations (id, token, role, by_name, until)
     values ($1, $2, $3, $4, now() + interval '${INVITED_DAYS} days') returning until`,
    [id, tokenHash(token), role, by],
  );
  return { id, token, until: timeText(row?.until ?? null) ?? '' };
}

/**
 * Makes an account of an invitation, which works once.
 * @throws Problem 410 where it was used, taken back or is over
 */
export async function acceptInvitation(db: Database, token: string, name: string, password: string): Promise<Person> {
  const word = await hashWord(password);
  return db.transaction(async (tx) => {
    const [row] = await tx.query<{ role: Role }>(
      `update invitations set used = $2 where token = $1 and used is null and until > now() returning role`,
      [tokenHash(token), name],
    );
    if (!row)
      throw new Problem(
        410,
        'invitation-over',
        'Invitation over',
        'It was used, taken back, or is over: ask for another.',
      );
    const person = await insert(tx, name, row.role, word);
    await tell(tx, { of: 'people' });
    return person;
  });
}

/** @throws Problem 404; 409 where the shop would be left without an owner */
export async function changePerson(
  db: Database,
  id: string,
  change: { readonly role?: Role | undefined; readonly active?: boolean | undefined },
): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.query('lock table people in share row exclusive mode');
    const rows = await tx.query(
      'update people set role = coalesce($2, role), active = coalesce($3, active) where id = $1 returning id',
      [id, change.role ?? null, change.active ?? null],
    );
    if (rows.length === 0) throw unknownPerson(id);
    if (!(await hasOwner(tx)))
      throw new Problem(409, 'last-owner', 'The last owner', 'A shop has an owner: make another one first.');
    if (change.active === false) await signOutEverywhere(tx, id);
    await tell(tx, { of: 'people' });
  });
}

export const unknownPerson = (id: string): Problem =>
  new Problem(404, 'unknown-person', 'Unknown person', `There is nobody ${id}.`);

/** Takes every session and every device from somebody. */
export async function signOutEverywhere(db: Queries, person: string, but: string | null = null): Promise<void> {
  await db.query('delete from sessions where person = $1 and token is distinct from $2', [person, but]);
  await db.query(
    `delete from device_people d where person = $1
       and not exists (select 1 from sessions s where s.device = d.device and s.person = d.person)`,
    [person],
  );
}

export async function keepWord(
  db: Queries,
  person: string,
  which: 'password' | 'pin',
  word: string | null,
): Promise<void> {
  const kept = word === null ? null : await hashWord(word);
  await db.query(`update people set ${which} = $2 where id = $1`, [person, kept]);
}

/** Drivers give a time as a date, or as text. */
const timeText = (at: Date | string | null): string | null => (at === null ? null : new Date(at).toISOString());

export async function readPeople(db: Queries): Promise<Omit<People, 'trustPort'>> {
  const people = await db.query<PersonRow & { created: Date; seen: Date | null; devices: number }>(
    `select p.id, p.name, p.role, p.active, p.created, max(s.seen) as seen, count(s.token)::int as devices
     from people p left join sessions s on s.person = p.id group by p.id order by lower(p.name)`,
  );
  const invitations = await db.query<{ id: string; role: Role; by_name: string; until: Date; used: string | null }>(
    `select id, role, by_name, until, used from invitations where until > now() - interval '30 days' order by until desc`,
  );
  return {
    people: people.map(({ id, name, role, active, created, seen, devices }) => ({
      ...{ id, name, role, active, devices },
      created: timeText(created) ?? '',
      seen: timeText(seen),
    })),
    invitations: invitations.map(({ id, role, by_name: by, until, used }) => ({
      ...{ id, role, by, used },
      until: timeText(until) ?? '',
    })),
  };
}
