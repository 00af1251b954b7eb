import type { RequestHandler } from 'express';
import { LIMITS } from '@periwinkle/core/formats/limits';
import { UnderWay } from './under-way';

interface Upload {
  readonly bytes: number;
}

/** How much a request says that it sends; of one that does not say as much as it may. */
function bytesOf(headers: Readonly<Record<string, unknown>>): number {
  if (headers['transfer-encoding'] !== undefined) return LIMITS.unpackedBytes;
  return Math.min(LIMITS.unpackedBytes, Number(headers['content-length'] ?? 0));
}

/** What is sent is read as far as there is room for it: others wait, and what comes too slowly gives way to them. */
export function uploadsInTurn(): RequestHandler {
  const uploads = new UnderWay<Upload>(LIMITS.lettersUnderWay, ({ bytes }) => bytes);
  return (request, _, next) => {
    const bytes = bytesOf(request.headers);
    if (bytes === 0) return next();
    const end = uploads.holdInTurn([{ bytes }], () => request.destroy(), next);
    request.once('end', end).once('close', end);
  };
}
