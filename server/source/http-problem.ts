import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import { notFound, Refusal } from './refusal';

/** Paths that lead nowhere. */
export const unknownPath: RequestHandler = request => {
  throw notFound(`There is nothing at ${request.method} ${request.path}.`);
};

/** Errors of the body parser, by their `type`. */
const BODY_ERRORS: Readonly<Record<string, (limit: string) => Refusal>> = {
  'entity.too.large': limit =>
    new Refusal(413, 'too-large', 'Too large', `A request may hold ${limit} at most.`),
  'entity.parse.failed': () => new Refusal(400, 'invalid-json', 'Not JSON', 'The body is not valid JSON.'),
  'encoding.unsupported': () =>
    new Refusal(415, 'unsupported-encoding', 'Unknown encoding', 'The body’s encoding is not known.'),
  'charset.unsupported': () =>
    new Refusal(415, 'unsupported-charset', 'Unknown character set', 'Send UTF-8.'),
};

/** Every error leaves as `application/problem+json` (RFC 9457); what we did not foresee is logged and says nothing more. */
export function problemResponses(logger: Logger, bodyLimit: string): ErrorRequestHandler {
  return (error, request, response, next) => {
    if (response.headersSent) return next(error);
    const known =
      error instanceof Refusal ? error : BODY_ERRORS[(error as { type?: string }).type ?? '']?.(bodyLimit);
    if (!known) logger.error({ error, method: request.method, path: request.path }, 'request failed');
    const refusal = known ?? unforeseen(error);
    response
      .status(refusal.status)
      .type('application/problem+json')
      .send(
        JSON.stringify({
          type: `urn:periwinkle:problem:${refusal.kind}`,
          title: refusal.title,
          status: refusal.status,
          detail: refusal.detail,
          ...refusal.extra,
        }),
      );
  };
}

/** Classes of SQLSTATE that say that the statement itself is wrong: bad data, broken constraints, bad syntax. */
const OF_THE_STATEMENT = /^(22|23|42)/;

/** Whether the database is away, full, read-only, shutting down or otherwise in trouble that passes. */
function isOfDatabase(cause: {
  code?: string;
  sqlState?: string;
  fatal?: boolean;
  syscall?: string;
}): boolean {
  if (cause.sqlState !== undefined) return !OF_THE_STATEMENT.test(cause.sqlState);
  return cause.fatal === true || cause.syscall === 'connect' || CONNECTION.has(cause.code ?? '');
}

const CONNECTION = new Set([
  'ECONNREFUSED',
  'PROTOCOL_CONNECTION_LOST',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EHOSTUNREACH',
]);

function unforeseen(error: unknown): Refusal {
  const cause = ((error as { cause?: unknown }).cause ?? error) as {
    code?: string;
    status?: number;
  };
  if (isOfDatabase(cause)) {
    return new Refusal(
      503,
      'no-database',
      'The database does not answer',
      'Nothing was stored. Try again in a moment.',
    );
  }
  if (cause.status !== undefined && cause.status < 500)
    return new Refusal(cause.status, 'bad-request', 'Bad request', 'The request cannot be read.');
  return new Refusal(
    500,
    'internal',
    'Something went wrong here',
    'Nothing was stored. The log has the details.',
  );
}
