import { InputError } from '@hot-spline/core';
import { DatabaseLost } from './lost';
import type { ErrorRequestHandler, RequestHandler, Response } from 'express';
import type { Logger } from 'pino';

/** An answer that is no success, as RFC 9457 writes it. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly title: string,
    detail: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(detail);
  }
}

/** Of a body that nobody reads any more so much is still taken, bytes, or so long, ms: an answer is read only by who can finish. Ours. */
const LEFT = { bytes: 1e6, ms: 5000 };

/** Answers before the body has arrived: the connection ends with it, and the rest of the body is not waited for. */
function endEarly(response: Response): void {
  const { req: request } = response;
  // It has gone already.
  if (request.destroyed) return;
  const { 'content-length': length = '0', 'transfer-encoding': coding } = request.headers;
  if (request.complete || (Number(length) === 0 && coding === undefined)) return;
  response.set('Connection', 'close');
  response.once('finish', () => {
    let taken = 0;
    const { socket } = request;
    const end = (): void => void socket.destroy();
    const timer = setTimeout(end, LEFT.ms);
    socket.once('close', () => clearTimeout(timer));
    request.on('data', (piece: Buffer) => {
      taken += piece.length;
      if (taken > LEFT.bytes) end();
    });
    request.resume();
  });
}

export function sendProblem(response: Response, problem: Problem): void {
  const { status, type, title, message: detail, more } = problem;
  endEarly(response);
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: `urn:hot-spline:${type}`, title, status, detail, ...more }));
}

/** A refused input: the field is named in `error`, which scripts of the shop read. */
export function refused({ field, message, allowed }: InputError): Problem {
  return new Problem(422, 'refused-input', 'Input refused', message, { error: { field, message, allowed } });
}

/** A write id under which something else was kept already: what was sent now is given back. */
export function otherContent(writeId: string, yours: unknown): Problem {
  const detail = `Under the write id ${writeId} another change was kept already.`;
  return new Problem(409, 'other-content', 'Another change has this id', detail, {
    yours,
    error: { field: 'writeId', message: 'writeId was used before.', allowed: 'a new UUID' },
  });
}

/** A change of a version that is not the last one any more, with both. */
export function staleVersion(
  what: 'build' | 'spec',
  baseVersion: number,
  yours: unknown,
  current: { readonly version: number } | null,
): Problem {
  const detail = `This change was made on version ${baseVersion}; the ${what} is at version ${current?.version ?? 0} now.`;
  return new Problem(409, 'stale-version', 'Changed elsewhere', detail, { baseVersion, yours, current });
}

const ofField = (
  status: number,
  type: string,
  title: string,
  field: string,
  message: string,
  allowed: string,
): Problem => new Problem(status, type, title, message, { error: { field, message, allowed } });

export const unsupportedText = (): Problem =>
  ofField(415, 'unsupported', 'Encoding not supported', 'body', 'body must be JSON in UTF-8.', 'UTF-8');

export const notJson = (): Problem =>
  ofField(400, 'not-json', 'Body is not JSON', 'body', 'body can’t be read as JSON.', 'JSON');

export function tooLarge(limit: number): Problem {
  const most = limit < 2 ** 20 ? `${Math.round(limit / 1024)} kB` : `${Math.round(limit / 2 ** 20)} MB`;
  return ofField(413, 'too-large', 'Body too large', 'body', `body is larger than ${most}.`, `at most ${most}`);
}

/** What express and its body parser throw, by their `type`. */
function fromParser(error: { type?: string; status?: number; limit?: number }): Problem | null {
  switch (error.type) {
    case 'entity.too.large':
      return tooLarge(error.limit ?? 0);
    case 'entity.parse.failed':
      return notJson();
    case 'charset.unsupported':
    case 'encoding.unsupported':
      return unsupportedText();
    default:
      return error.status !== undefined && error.status >= 400 && error.status < 500
        ? ofField(
            error.status,
            'bad-request',
            'Bad request',
            'request',
            'The request can’t be read.',
            'a well-formed request',
          )
        : null;
  }
}

export const notFound: RequestHandler = (request, response) => {
  sendProblem(response, new Problem(404, 'not-found', 'Not found', `There is nothing at ${request.path}.`));
};

/** The last stop of every error: a problem document; what nobody foresaw is logged and answered without its insides. */
export function errorHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    if (error instanceof Problem) return sendProblem(response, error);
    if (error instanceof InputError) return sendProblem(response, refused(error));
    if (error instanceof DatabaseLost)
      return sendProblem(
        response,
        new Problem(
          503,
          'database-lost',
          'The database went down',
          'Nothing of this was kept. The server is stopping, to be started again.',
        ),
      );
    const known = fromParser(error as { type?: string; status?: number });
    if (known) return sendProblem(response, known);
    log.error({ err: error, method: request.method, url: request.url }, 'unforeseen error');
    sendProblem(
      response,
      new Problem(500, 'unforeseen', 'Unforeseen error', 'The server made a mistake; it is in its log.'),
    );
  };
}
