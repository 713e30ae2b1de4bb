import { InputError } from '@hot-spline/core';
import { routes, type Me, type People } from '@hot-spline/model';
import { Router, type Response } from 'express';
import { askerOf, sessionOf, type Asker, type Session } from '../base/asker';
import { on } from '../base/http';
import { Problem } from '../base/problem';
import type { Database } from '../db/database';
import { tell } from '../keep/tell';
import {
  acceptInvitation,
  changePerson,
  findPerson,
  hasOwner,
  invite,
  keepWord,
  makeFirstOwner,
  readPeople,
  signOutEverywhere,
  unknownPerson,
} from './accounts';
import { claimTry, forgive } from './attempts';
import { note, readAudit } from './audit';
import { giveCookie, type Cookie } from './guard';
import { isWord } from './secrets';
import { beginSession, endSession, findSession, isOnDevice, meOf } from './sessions';

/** Wrong PINs until a device takes a password alone: a PIN is short. Ours. */
const PINS = 5;

const wrong = (): Problem =>
  new Problem(401, 'wrong-word', 'Not signed in', 'Name and password do not belong together.');
const wrongOwn = (): InputError => new InputError('password', 'password is not yours.', 'your own password');
const noDoor = (): Problem =>
  new Problem(
    409,
    'no-door',
    'Nobody signs in here',
    'This server asks nobody who they are: see HOST and HOT_SPLINE_OPEN.',
  );

/** Signing in and out, people, invitations, and what was done. */
/** @param trustPort where a device learns to trust the shop’s own authority; null: it has none */
export function peopleRoutes(db: Database, cookie: Cookie, trustPort: number | null): Router {
  const router = Router();
  const people = async (): Promise<People> => ({ ...(await readPeople(db)), trustPort });
  const me = async (response: Response, session: Session | null = askerOf(response).session): Promise<Me> =>
    meOf(db, { door: askerOf(response).door, session }, await hasOwner(db));
  const requireDoor = (response: Response): Asker => {
    const asker = askerOf(response);
    if (asker.door !== 'people') throw noDoor();
    return asker;
  };

  /** Begins a session and answers with who is in it. */
  const enter = async (response: Response, person: string, status: number, sameDevice: boolean): Promise<void> => {
    const before = askerOf(response).session;
    const token = await db.transaction((tx) => beginSession(tx, person, before, sameDevice));
    giveCookie(response, cookie, token);
    response.status(status).json(await me(response, await findSession(db, token)));
  };

  /** The own password, before something of one’s own is changed. Wrong ones cost time here too. */
  const requireOwnPassword = async (response: Response, password: string): Promise<Session> => {
    const session = sessionOf(response);
    const keys = [`own ${session.person.id}`];
    await claimTry(db, keys);
    const person = await findPerson(db, { id: session.person.id });
    if (!(await isWord(password, person?.password ?? null))) throw wrongOwn();
    await forgive(db, keys);
    return session;
  };

  on(router, routes.me, async ({ response }) => {
    response.json(await me(response));
  });

  on(router, routes.signIn, async ({ body: { name, password }, response }) => {
    const asker = requireDoor(response);
    const { from } = asker;
    // By name and place, so that nobody can shut out somebody who is elsewhere; by place alone, whoever is tried.
    const keys = [`in ${name.toLowerCase()} ${from}`, `from ${from}`];
    await claimTry(db, keys);
    const person = await findPerson(db, { name });
    const right = await isWord(password, person?.password ?? null);
    if (!right || !person?.active) {
      await note(db, asker, name, 'wrong password');
      throw wrong();
    }
    await forgive(db, keys);
    await note(db, asker, person.name, 'signed in');
    // On a device that somebody is in already both stay, each by a PIN of their own.
    await enter(response, person.id, 200, true);
  });

  on(router, routes.signOut, async ({ body: { everywhere }, response }) => {
    const asker = requireDoor(response);
    const session = sessionOf(response);
    await db.transaction(async (tx) => {
      await endSession(tx, session);
      if (everywhere) await signOutEverywhere(tx, session.person.id);
      await tell(tx, { of: 'people' });
    });
    await note(db, asker, session.person.name, everywhere ? 'signed out everywhere' : 'signed out');
    giveCookie(response, cookie, null);
    response.json(await me(response, null));
  });

  on(router, routes.switchPerson, async ({ body: { id, pin }, response }) => {
    const asker = requireDoor(response);
    const session = sessionOf(response);
    const key = `pin ${session.device} ${id}`;
    const count = await claimTry(db, [key]);
    const person = (await isOnDevice(db, session.device, id)) ? await findPerson(db, { id }) : null;
    const right = await isWord(pin, person?.pin ?? null);
    if (!right || !person?.active) {
      // So often wrong, this device takes no PIN of theirs any more: a password, then it does again.
      if (count >= PINS)
        await db.query('delete from device_people where device = $1 and person = $2', [session.device, id]);
      await note(db, asker, session.person.name, 'wrong PIN', person?.name ?? '');
      throw new Problem(401, 'wrong-pin', 'Another PIN', 'That is not their PIN, or they have none on this device.');
    }
    await forgive(db, [key]);
    await note(db, asker, person.name, 'signed in by PIN', `after ${session.person.name}`);
    await enter(response, person.id, 200, true);
  });

  on(router, routes.savePin, async ({ body: { password, pin }, response }) => {
    requireDoor(response);
    const { person } = await requireOwnPassword(response, password);
    await keepWord(db, person.id, 'pin', pin);
    await note(db, askerOf(response), person.name, pin === null ? 'took the PIN away' : 'set a PIN');
    response.json(await me(response));
  });

  on(router, routes.savePassword, async ({ body: { before, password }, response }) => {
    requireDoor(response);
    const { person, key } = await requireOwnPassword(response, before);
    await keepWord(db, person.id, 'password', password);
    await db.transaction(async (tx) => {
      await signOutEverywhere(tx, person.id, key);
      await tell(tx, { of: 'people' });
    });
    await note(db, askerOf(response), person.name, 'changed the password');
    response.json(await me(response));
  });

  on(router, routes.firstOwner, async ({ body: { name, password }, response }) => {
    const asker = askerOf(response);
    if (asker.door !== 'alone')
      throw new Problem(
        403,
        'not-here',
        'Not from here',
        'The first owner is made on the machine itself: start it without HOST, or run npm run owner.',
      );
    const { name: made } = await makeFirstOwner(db, name, password);
    await note(db, asker, made, 'became the first owner');
    response.status(201).json(await me(response));
  });

  on(router, routes.people, async ({ response }) => {
    response.json(await people());
  });

  on(router, routes.changePerson, async ({ params: { id }, body: { role, active }, response }) => {
    await changePerson(db, id, { role, active });
    response.json(await people());
  });

  on(router, routes.signOutPerson, async ({ params: { id }, response }) => {
    if (!(await findPerson(db, { id }))) throw unknownPerson(id);
    await db.transaction(async (tx) => {
      await signOutEverywhere(tx, id);
      await tell(tx, { of: 'people' });
    });
    response.json(await people());
  });

  on(router, routes.invite, async ({ body: { role }, response }) => {
    const by = askerOf(response).session?.person.name ?? '';
    response.status(201).json(await invite(db, role, by));
  });

  on(router, routes.acceptInvitation, async ({ body: { token, name, password }, response }) => {
    const asker = requireDoor(response);
    const keys = [`invited ${asker.from}`];
    await claimTry(db, keys);
    const person = await acceptInvitation(db, token, name, password);
    await forgive(db, keys);
    await note(db, asker, person.name, 'came by invitation', person.role);
    await enter(response, person.id, 201, false);
  });

  on(router, routes.dropInvitation, async ({ params: { id }, response }) => {
    const rows = await db.query('delete from invitations where id = $1 and used is null returning id', [id]);
    if (rows.length === 0)
      throw new Problem(404, 'no-invitation', 'No invitation', 'It was used or taken back already.');
    response.json(await people());
  });

  on(router, routes.audit, async ({ query: { before, limit }, response }) => {
    response.json(await readAudit(db, before, limit));
  });

  return router;
}
