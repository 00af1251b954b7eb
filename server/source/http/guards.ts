import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { Refusal } from './refusal';

const LOOPBACK = new Set(['localhost', '127.0.0.1', '[::1]']);
const SAFE_METHODS = new Set(['GET', 'HEAD', 'OPTIONS']);

const hostName = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/** Every host that a request names: there may be several, of which others may go by another one than we. */
function hostsOf({ url, headersDistinct }: Request): readonly string[] {
  const named = headersDistinct['host'] ?? [''];
  return URL.canParse(url) ? [...named, new URL(url).host] : named;
}

/** Answers only to names it was told to answer to, so that no foreign name can be pointed at it. */
export function allowHosts(allowed: readonly string[]): RequestHandler {
  const names = new Set([...LOOPBACK, ...allowed.map(name => name.toLowerCase())]);
  return (request: Request, _: Response, next: NextFunction) => {
    if (hostsOf(request).every(host => names.has(hostName(host)))) return next();
    throw new Refusal(
      421,
      'unknown-host',
      'Not for this host',
      'This application does not answer to that host name.',
    );
  };
}

/** What changes something must come from our own pages: browsers say where a request was begun. */
export const sameOriginWrites: RequestHandler = (request, _, next) => {
  if (SAFE_METHODS.has(request.method)) return next();
  const { origin, host } = request.headers;
  const site = request.headers['sec-fetch-site'];
  const foreign =
    (origin !== undefined && !sameHost(origin, host)) ||
    (site !== undefined && !['same-origin', 'none'].includes(String(site)));
  if (!foreign) return next();
  throw new Refusal(
    403,
    'foreign-origin',
    'Not from here',
    'Changes are taken from pages of this application only.',
  );
};

function sameHost(origin: string, host: string | undefined): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}
