import { InputError } from '@hot-spline/core';
import type { Me } from '@hot-spline/model';
import type { Request, RequestHandler, Response } from 'express';
import { askerOf, sessionOf, tellAsker } from '../base/asker';
import type { Queries } from '../db/database';
import { findSession, namesOn } from './sessions';

/** How the cookie of a session is called here, and how it is sent. */
export interface Cookie {
  readonly name: string;
  readonly path: string;
  /** Over https alone. */
  readonly secure: boolean;
}

/** Of a shop its own: two on one machine share a name, and a browser tells ports not apart. */
export const cookieOf = (shop: string, path: string, secure: boolean): Cookie => ({
  name: `hot-spline-${shop.slice(0, 8)}`,
  path,
  secure,
});

const COOKIE_DAYS = 90;

export function giveCookie(response: Response, { name, path, secure }: Cookie, token: string | null): void {
  response.cookie(name, token ?? '', {
    httpOnly: true,
    sameSite: 'strict',
    secure,
    path,
    maxAge: token === null ? 0 : COOKIE_DAYS * 86_400_000,
  });
}

function tokenIn(request: Request, name: string): string | null {
  const all = (request.headers.cookie ?? '').split(';').map((part) => part.trim());
  const found = all.find((part) => part.startsWith(`${name}=`))?.slice(name.length + 1) ?? '';
  return /^[\w-]{43}$/.test(found) ? found : null;
}

/** What stands before this server, where something does: on the same machine, or at an address of its own. */
export interface Proxy {
  readonly proxied: boolean;
  readonly at: string | null;
}

/** The machine that a request comes from: what stands before this server says it, nobody else is believed. */
export function fromOf(request: Pick<Request, 'headers' | 'socket'>, { proxied, at }: Proxy): string {
  const own = (request.socket.remoteAddress ?? '').replace(/^::ffff:/, '');
  const here = /^(::1$|127\.)/.test(own) || own === at;
  const said = request.headers['x-forwarded-for'];
  const last = (Array.isArray(said) ? said.join(',') : (said ?? '')).split(',').at(-1)?.trim() ?? '';
  return (proxied && here && last !== '' ? last : own).slice(0, 60);
}

/** Finds out who asks, before anything of the API is looked at. */
export function identify(db: Queries, door: Me['door'], cookie: Cookie, proxy: Proxy): RequestHandler {
  return async (request, response, next) => {
    const token = door === 'people' ? tokenIn(request, cookie.name) : null;
    const session = token === null ? null : await findSession(db, token);
    tellAsker(response, { door, session, from: fromOf(request, proxy) });
    next();
  };
}

/**
 * What somebody writes carries a name that signed in on the device that sends it: what was written there before the person changed goes
 * out in the name of who wrote it.
 * @throws InputError naming the field
 */
export async function requireOwnName(
  db: Queries,
  response: Response,
  fields: Readonly<Record<string, string | undefined>>,
): Promise<void> {
  if (askerOf(response).door !== 'people') return;
  const session = sessionOf(response);
  const names = await namesOn(db, session);
  for (const [field, name] of Object.entries(fields))
    if (name !== undefined && !names.includes(name))
      throw new InputError(
        field,
        name === ''
          ? `${field} is empty: here everything is written by somebody.`
          : `${field} is ${name}, and this device is signed in as ${session.person.name}.`,
        names.join(', '),
      );
}
