import type { Request, Response } from 'express';
import { pino } from 'pino';
import { causeOf, problemResponses } from './source/http/problem';
import { Refusal } from './source/http/refusal';

/** Errors as answers: trouble of the database passes, a refusal is what it is, what we did not foresee says so. */

function answerTo(error: unknown): { readonly status: number; readonly headers: Record<string, string> } {
  let status = 0;
  const headers: Record<string, string> = {};
  const response = {
    headersSent: false,
    closed: true,
    status(code: number) {
      status = code;
      return response;
    },
    set(name: string, value: string) {
      headers[name] = value;
      return response;
    },
    type: () => response,
    send: () => response,
  };
  const request = { method: 'GET', path: '/' } as Request;
  problemResponses(pino({ level: 'silent' }))(error, request, response as unknown as Response, () => {});
  return { status, headers };
}
const statusOf = (error: unknown): number => answerTo(error).status;

test('what passes says when to come again', () => {
  const told = (status: number) => answerTo(new Refusal(status, 'x', 'X', 'x')).headers;
  expect(told(503)).toEqual({ 'Retry-After': '1' });
  expect(told(500)).toEqual({});
});

const driver = (members: object): Error => Object.assign(new Error('x'), { cause: members });

test.each([
  ['a server that shuts down', { code: 'ER_SERVER_SHUTDOWN', sqlState: '08S01', fatal: true }, 503],
  ['one that is read-only', { code: 'ER_OPTION_PREVENTS_STATEMENT', sqlState: 'HY000' }, 503],
  ['one with too many connections', { code: 'ER_CON_COUNT_ERROR', sqlState: '08004' }, 503],
  ['a full disk', { code: 'ER_RECORD_FILE_FULL', sqlState: 'HY000' }, 503],
  ['a deadlock', { code: 'ER_LOCK_DEADLOCK', sqlState: '40001' }, 503],
  ['a connection that is cut', { code: 'PROTOCOL_CONNECTION_LOST', fatal: true }, 503],
  ['a socket that is not there', { code: 'ENOENT', syscall: 'connect' }, 503],
  ['a file that is not there', { code: 'ENOENT', syscall: 'open' }, 500],
  ['data that does not fit', { code: 'ER_DATA_TOO_LONG', sqlState: '22001' }, 500],
  ['a statement of ours that is wrong', { code: 'ER_PARSE_ERROR', sqlState: '42000' }, 500],
])('%s', (_, cause, status) => expect(statusOf(driver(cause))).toBe(status));

test('a refusal is what it is', () => {
  expect(statusOf(new Refusal(409, 'patch-failed', 'Title', 'Detail'))).toBe(409);
});

test('the log learns what failed and where, and nothing of what people wrote', () => {
  const error = Object.assign(new Error('Failed query: insert into edits … params: My secret label'), {
    cause: Object.assign(new Error("Data too long for column 'label': My secret label"), {
      code: 'ER_DATA_TOO_LONG',
      sqlState: '22001',
    }),
  });
  const told = causeOf(error) as { at: string[] };
  expect(told).toMatchObject({ kind: 'Error', code: 'ER_DATA_TOO_LONG', sqlState: '22001' });
  expect(told.at.join()).toContain('http-problem.test');
  expect(JSON.stringify(told)).not.toContain('secret');
  expect(causeOf(new TypeError('x is not a function'))).toMatchObject({
    kind: 'TypeError',
    message: 'x is not a function',
  });
  expect(causeOf('thrown text')).toEqual({ kind: 'string' });
});
