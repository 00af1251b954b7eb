import type { RequestHandler } from 'express';
import type { Socket } from 'node:net';
import onHeaders from 'on-headers';
import { busy } from '../http/refusal';

/** How many requests may be asked at once: whoever comes in a crowd is told so at once, for less than an answer would take. */

/**
 * Browsers and proxies send the next request on a connection once the one before is answered. Whoever sends more than so many is refused the
 * first that is too many; the connection ends with that, and what comes behind it is left.
 */
export function fewOnAConnection(most: number): RequestHandler {
  const underWay = new WeakMap<Socket, number>();
  const change = (socket: Socket, by: number): number => {
    const count = (underWay.get(socket) ?? 0) + by;
    underWay.set(socket, count);
    return count;
  };
  return ({ socket }, response, next) => {
    const count = change(socket, 1);
    response.once('close', () => change(socket, -1));
    if (count <= most) return next();
    if (count > most + 1) return;
    response.set('Connection', 'close');
    throw busy();
  };
}

/**
 * No more than so many that only ask, until their answers begin. Those that send something are bounded where that is read, and where it waits
 * to be worked on.
 */
export function fewAtOnce(most: number): RequestHandler {
  let count = 0;
  return (request, response, next) => {
    const { 'content-length': length = '0', 'transfer-encoding': transfer } = request.headers;
    if (length !== '0' || transfer !== undefined) return next();
    if (count >= most) throw busy();
    count++;
    let isUnderWay = true;
    const end = (): void => {
      if (isUnderWay) count--;
      isUnderWay = false;
    };
    onHeaders(response, end);
    response.once('close', end);
    next();
  };
}
