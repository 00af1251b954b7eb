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

/** What is smaller need not wait for anybody. */
const SMALL_BYTES = 64_000;
/** An upload that has not sent so much more for so long stands still. */
const STEP_BYTES = 16_000;
const PATIENCE_MS = 500;

/** What is sent is read as far as there is room for it: others wait, and what comes too slowly gives way to them. */
export function uploadsInTurn(): RequestHandler {
  const uploads = new UnderWay<Upload>(LIMITS.lettersUnderWay, ({ bytes }) => bytes, PATIENCE_MS);
  return (request, _, next) => {
    const bytes = bytesOf(request.headers);
    if (bytes <= SMALL_BYTES) return next();
    let come = 0;
    const hold = uploads.holdInTurn(
      [{ bytes }],
      () => request.destroy(),
      () => {
        // Whoever reads it begins in the same turn, so that nothing is missed.
        request.on('data', (chunk: Buffer) => {
          come += chunk.length;
          if (come < STEP_BYTES) return;
          come = 0;
          hold.goOn();
        });
        next();
      },
    );
    request.once('end', hold.end).once('close', hold.end);
  };
}
