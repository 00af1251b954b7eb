import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { answerProblem } from './answers';
import { QUEUE_IS_FULL } from '../storage/database';
import { problemText } from './problem-text';
import { busy, notFound, Refusal, WrittenRefusal } from './refusal';

/** Errors of the body parser, by their `type`. */
const BODY_ERRORS: Readonly<Record<string, (limit: number) => Refusal>> = {
  'entity.too.large': limit =>
    new Refusal(413, 'too-large', 'Too large', `A request may hold ${limit} bytes at most.`),
  'entity.parse.failed': () => new Refusal(400, 'invalid-json', 'Not JSON', 'The body is not valid JSON.'),
  'encoding.unsupported': () =>
    new Refusal(415, 'unsupported-encoding', 'Encoded', 'Send the body as it is, without encoding it.'),
  'charset.unsupported': () =>
    new Refusal(415, 'unsupported-charset', 'Unknown character set', 'Send UTF-8.'),
};

/** Every error leaves as `application/problem+json` (RFC 9457); what we did not foresee is logged and says nothing more. */
export function problemResponses(logger: Logger): ErrorRequestHandler {
  const countBusy = busyLog(logger);
  return (error, request, response, next) => {
    // It was answered before all of the request had come.
    if (response.writableEnded) return;
    if (response.headersSent) return next(error);
    if (error instanceof WrittenRefusal) return answerProblem(response, error.status, error.text);
    const { type = '', limit = 0 } = error as { type?: string; limit?: number };
    const refusal = error instanceof Refusal ? error : (BODY_ERRORS[type]?.(limit) ?? unforeseen(error));
    // Whoever is told of it can be helped by it: the log has the same id.
    const isFault = refusal.status >= 500 && refusal.kind !== BUSY;
    const id = isFault ? crypto.randomUUID() : null;
    if (id !== null)
      logger.error({ id, method: request.method, path: request.path, ...causeOf(error) }, 'request failed');
    if (refusal.kind === BUSY) countBusy();
    if (refusal.status === 503) response.set('Retry-After', '1');
    answerProblem(response, refusal.status, problemText(refusal, id));
  };
}

const BUSY = busy().kind;
const BUSY_LOG_MS = 1_000;

/** Of requests that were too many the log says how many, once a second: a line for each would be too much as well. */
function busyLog(logger: Logger): () => void {
  let refused = 0;
  const tell = (): void => {
    logger.warn({ refused }, 'too much was asked at once');
    refused = 0;
  };
  return () => {
    if (++refused === 1) setTimeout(tell, BUSY_LOG_MS).unref();
  };
}

/** Errors of the engine itself, whose messages hold no texts of people. */
const OF_THE_ENGINE = new Set(['TypeError', 'RangeError', 'ReferenceError']);

/** What the log says of an error: kind, code and place. Statements and values stay out of it: they hold people's texts. */
export function causeOf(error: unknown): object {
  const inner = (error as { cause?: unknown }).cause ?? error;
  const { code, sqlState, stack } = inner as { code?: unknown; sqlState?: unknown; stack?: unknown };
  const frames = [error, inner].flatMap(each => String((each as Error).stack ?? '').split('\n'));
  return {
    kind: inner instanceof Error ? inner.name : typeof inner,
    ...(code === undefined ? {} : { code }),
    ...(sqlState === undefined ? {} : { sqlState }),
    ...(inner instanceof Error && OF_THE_ENGINE.has(inner.name) ? { message: inner.message } : {}),
    ...(stack === undefined
      ? {}
      : { at: frames.filter(line => /^\s+at /.test(line)).map(line => line.trim()) }),
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
    message?: string;
  };
  if (cause.message === QUEUE_IS_FULL) return busy();
  if (isOfDatabase(cause)) {
    return new Refusal(
      503,
      'no-database',
      'The database does not answer',
      'Nothing was stored. Try again in a moment.',
    );
  }
  if (cause.status === 404) return notFound('There is nothing at this address.');
  if (cause.status !== undefined && cause.status < 500)
    return new Refusal(cause.status, 'bad-request', 'Bad request', 'The request cannot be read.');
  return new Refusal(
    500,
    'internal',
    'Something went wrong here',
    'Nothing was stored. The log has the details, under the id in `instance`.',
  );
}
