import { parseOrRefuse, type WireRoute, type z } from '@hot-spline/model';
import express, { type Request, type RequestHandler, type Response, type Router } from 'express';
import { letIn } from './asker';
import { Problem, tooLarge, unsupportedText } from './problem';

type Parsed<S> = S extends z.ZodType ? z.output<S> : undefined;
type BodyOf<R extends WireRoute> = R extends { readonly body: { readonly schema: infer S } } ? Parsed<S> : undefined;
type PartOf<R extends WireRoute, P extends 'params' | 'query'> =
  R extends Readonly<Record<P, infer S>> ? Parsed<S> : undefined;

interface Call<R extends WireRoute> {
  readonly params: PartOf<R, 'params'>;
  readonly query: PartOf<R, 'query'>;
  readonly body: BodyOf<R>;
  /** The body as it came, where the route reads it elsewhere. */
  readonly bytes: Uint8Array;
  readonly request: Request;
  readonly response: Response;
}

const JSON_TYPES = ['application/json', 'application/*+json'];

/** Refuses a body of a type that the route does not take, before anything of it is read. */
function requireType(types: readonly string[]): RequestHandler {
  return (request, _response, next) => {
    const empty = request.headers['content-length'] === '0' || request.is('*/*') === null;
    if (empty || request.is([...types])) return next();
    const given = request.headers['content-type'] ?? 'none';
    throw new Problem(415, 'unsupported', 'Type not taken', `body is ${given.slice(0, 80)}.`, {
      error: { field: 'body', message: `body is ${given.slice(0, 80)}.`, allowed: types.join(', ') },
    });
  };
}

/** Refuses what says that it is too large before anything of it is read; who waits for a word before it sends is given it. */
function requireSize(limit: number): RequestHandler {
  return (request, response, next) => {
    if (Number(request.headers['content-length'] ?? 0) > limit) throw tooLarge(limit);
    if (request.headers.expect?.toLowerCase() === '100-continue') response.writeContinue();
    next();
  };
}

function parser({ body }: WireRoute): RequestHandler[] {
  if (!body) return [];
  const { limit, types, spooled, unread } = body;
  const before = [requireType(types ?? JSON_TYPES), requireSize(limit)];
  if (types && spooled) return before;
  if (unread) return [...before, requireUtf8, express.raw({ type: JSON_TYPES, limit })];
  if (types) return [...before, express.raw({ type: [...types], limit })];
  return [...before, express.json({ limit, strict: false, type: JSON_TYPES })];
}

/** JSON is UTF-8 [RFC 8259]; whoever says otherwise is told. */
const requireUtf8: RequestHandler = (request, _response, next) => {
  const [, charset = 'utf-8'] = /charset\s*=\s*"?([^\s";]+)/i.exec(request.headers['content-type'] ?? '') ?? [];
  next(/^utf-?8$/i.test(charset) ? undefined : unsupportedText());
};

/** How a version is called in ETag and If-Match. */
export const tagOf = (version: number): string => `"${version}"`;

/**
 * Honours If-Match: a write is for the version that it names, or for any by `*`.
 * @param version the one that is here; 0: none
 * @throws Problem 412
 */
export function requireMatch(request: Request, version: number): void {
  const said = request.headers['if-match'];
  if (said === undefined) return;
  const tags = said.split(',').map((tag) => tag.trim());
  if (tags.includes('*') ? version > 0 : tags.includes(tagOf(version))) return;
  throw new Problem(
    412,
    'other-version',
    'Another version is here',
    version === 0 ? 'Nothing is here to match.' : `Version ${version} is here, and If-Match says ${said.slice(0, 80)}.`,
    { version },
  );
}

const expressPath = (path: string): string => path.replace(/\{(\w+)\}/g, ':$1');

/**
 * Puts a route of the wire on a router: its path, query and body are parsed by their schemas before the handler sees
 * them. What the handler does with a body that was of a later or earlier format is its own.
 * @param prepare turns the body into what its schema takes, e.g. upgrades an earlier version
 */
export function on<R extends WireRoute>(
  router: Router,
  route: R,
  handler: (call: Call<R>) => unknown,
  prepare: (body: unknown) => unknown = (body) => body,
): void {
  router[route.method](expressPath(route.path), letIn(route), ...parser(route), async (request, response) => {
    const params = route.params ? parseOrRefuse(route.params, request.params, 'path') : undefined;
    const query = route.query ? parseOrRefuse(route.query, { ...request.query }, 'query') : undefined;
    const raw: unknown = request.body;
    const body = !route.body
      ? undefined
      : route.body.types || route.body.unread
        ? raw
        : parseOrRefuse(route.body.schema, prepare(raw ?? {}), 'body');
    const bytes = Buffer.isBuffer(raw) ? raw : new Uint8Array();
    await handler({ params, query, body, bytes, request, response } as Call<R>);
  });
}

/** Who asks, by address and program, and whether they still wait. */
export function whoAsks(
  request: Request,
  response: Response,
): { readonly client: string; readonly signal: AbortSignal } {
  const left = new AbortController();
  response.once('close', () => {
    if (!response.writableFinished) left.abort();
  });
  return {
    client: `${request.socket.remoteAddress ?? ''} ${request.headers['user-agent'] ?? ''}`,
    signal: left.signal,
  };
}

/** What a path that is there answers to a method that it does not take. */
export function refuseOtherMethods(router: Router, routes: readonly WireRoute[]): void {
  const methods = new Map<string, string[]>();
  for (const { path, method } of routes) methods.set(path, [...(methods.get(path) ?? []), method.toUpperCase()]);
  // Paths without parameters first: they are not caught by one that has some.
  const paths = [...methods.keys()].sort((a, b) => Number(a.includes('{')) - Number(b.includes('{')));
  for (const path of paths) {
    router.all(expressPath(path), (request, response) => {
      const allowed = [...(methods.get(path) ?? [])];
      if (allowed.includes('GET')) allowed.push('HEAD');
      response.set('Allow', allowed.join(', '));
      if (request.method === 'OPTIONS') return void response.status(204).end();
      throw new Problem(405, 'method', 'Method not taken', `${request.path} takes ${allowed.join(', ')}.`);
    });
  }
}
