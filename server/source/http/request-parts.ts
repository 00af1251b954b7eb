import { QUOTAS } from '@periwinkle/core/json/quotas';
import type { Request } from 'express';
import { KEY } from '../worker/request-bodies';
import { Refusal } from './refusal';

const parameterOf = (request: Request, name: string): string => {
  const value: unknown = request.params[name];
  return Array.isArray(value) ? value.join('/') : String(value ?? '');
};
export const idOf = (request: Request): string => parameterOf(request, 'systemId');
export const documentPath = (request: Request): string => parameterOf(request, 'path');

/** A header in percent-encoded UTF-8. Throws 400 for what is not, or has more letters than it may. */
export function headerText(
  request: Request,
  name: string,
  fallback: string,
  most: number = QUOTAS.nameLetters,
): string {
  const value = request.get(name);
  if (value === undefined) return fallback;
  let decoded: string;
  try {
    decoded = decodeURIComponent(value);
  } catch {
    throw badHeader(`The header ${name} is not percent-encoded UTF-8.`);
  }
  if ([...decoded].length > most) throw badHeader(`The header ${name} may have ${most} letters at most.`);
  return decoded;
}

const badHeader = (detail: string): Refusal => new Refusal(400, 'bad-header', 'Not readable', detail);

/** A name that a client has made up, compared letter by letter. */
export function keyIn(request: Request, name: string, fallback: () => string): string {
  const value = request.get(name);
  if (value === undefined) return fallback();
  if (!new RegExp(KEY).test(value))
    throw badHeader(`${name} holds 1 to ${QUOTAS.nameLetters} visible ASCII characters, without spaces.`);
  return value;
}

/** Who a request is from: as the proxy says where one is set to, and then by nothing else; as the client says otherwise. */
export const authorsFrom =
  (proxyHeader: string | null) =>
  (request: Request): string => {
    if (proxyHeader === null) return headerText(request, 'Periwinkle-Author', '').trim();
    // Proxies write names as they have them, in UTF-8; Node reads headers as Latin-1.
    const name = Buffer.from(request.get(proxyHeader) ?? '', 'latin1')
      .toString('utf8')
      .trim();
    if ([...name].length > QUOTAS.nameLetters)
      throw badHeader(`The header ${proxyHeader} may have ${QUOTAS.nameLetters} letters at most.`);
    return name;
  };

/** A whole number of the query; `null` where there is none. Throws 400 for anything else. */
export function numberOf(request: Request, name: string): number | null {
  const value: unknown = request.query[name];
  if (value === undefined) return null;
  if (typeof value !== 'string' || !/^\d{1,15}$/.test(value))
    throw new Refusal(400, 'bad-number', 'Not readable', `“${name}” is a whole number, 0 or more.`);
  return Number(value);
}

/** The key of the last edit that somebody knows. */
export function keyOfQuery(request: Request): string | null {
  const value: unknown = request.query['key'];
  return typeof value === 'string' ? value : null;
}

/** The revision in `If-Match`. Throws 428 without the header and 400 for anything but one revision in quotes. */
export function revisionOf(request: Request): number {
  const header = request.get('If-Match');
  if (header === undefined) {
    throw new Refusal(
      428,
      'revision-required',
      'Revision required',
      'Send If-Match with the revision the patch was made on; or send it to /edits, where it is placed if the document has gone on.',
    );
  }
  const match = /^"(\d{1,9})"$/.exec(header);
  if (!match)
    throw new Refusal(400, 'bad-revision', 'Not readable', 'If-Match must hold one revision in quotes.');
  return Number(match[1]);
}

/** A body that was sent, as text; nothing of a request without one. */
export const bodyOf = (request: Request): string => (typeof request.body === 'string' ? request.body : '');
