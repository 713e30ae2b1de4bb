import { ROLES, mayCall, type Me, type Person, type Role, type WireRoute } from '@hot-spline/model';
import type { RequestHandler, Response } from 'express';
import { Problem } from './problem';

/** Somebody who is signed in on a device. */
export interface Session {
  readonly person: Person;
  readonly device: string;
  /** Hash of its token: what the database calls it. */
  readonly key: string;
}

/** Who asks: the door, and who came in by it. */
export interface Asker {
  readonly door: Me['door'];
  readonly session: Session | null;
  /** Where from: the address that the connection, or a proxy of ours, says. */
  readonly from: string;
}

const atLeast = (role: Role, wanted: Role): boolean => ROLES.indexOf(role) >= ROLES.indexOf(wanted);

/** Says who asks, for everything behind it. */
export function tellAsker(response: Response, asker: Asker): void {
  response.locals['asker'] = asker;
}

/** Who asks. @throws Error where nobody has found out: then nothing is answered */
export function askerOf(response: Response): Asker {
  const asker = response.locals['asker'] as Asker | undefined;
  if (!asker) throw new Error('nobody has found out who asks');
  return asker;
}

/** What a route that was let in does, in a few words; empty where nothing of it is kept. */
export const saidOf = (response: Response): string => String(response.locals['said'] ?? '');

/** Somebody who is signed in. @throws Problem 401 */
export function sessionOf(response: Response): Session {
  const { session } = askerOf(response);
  if (!session) throw signInFirst();
  return session;
}

const signInFirst = (): Problem => new Problem(401, 'sign-in', 'Sign in first', 'Nobody is signed in on this device.');

/**
 * Lets in who may call a route, before a byte of its body is read. Where nobody has to sign in everybody may.
 * @throws Problem 401 or 403
 */
export function letIn(route: WireRoute): RequestHandler {
  const may = mayCall(route);
  const said = route.keeps === false ? '' : (route.summary.split(/[.:;,]/)[0] ?? route.path);
  return (_request, response, next) => {
    response.locals['said'] = said;
    if (may !== 'anyone') requireRole(askerOf(response), may);
    next();
  };
}

function requireRole({ door, session }: Asker, wanted: Role): void {
  if (door !== 'people') return;
  if (!session) throw signInFirst();
  const { name, role } = session.person;
  if (!atLeast(role, wanted))
    throw new Problem(403, 'role', 'Not yours to do', `${name} is a ${role} here; this takes a ${wanted}.`, {
      role,
      wanted,
    });
}
