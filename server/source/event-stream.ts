import { writeJson } from '@periwinkle/core/formats/json-text';
import type { Request, Response } from 'express';
import type { Database } from './database';
import { editsAfter } from './edits';

const POLL_MS = 400;
const HEARTBEAT_MS = 15_000;

/**
 * Tells windows of edits as server-sent events (HTML Standard, section 9.2). The table of edits is the only source, so
 * that several applications on one database tell the same; our own edits wake the stream at once.
 */
export class EventStreams {
  private readonly streams = new Map<string, Set<() => void>>();

  constructor(private readonly db: Database) {}

  /** Tells streams of a system to look now. */
  wake(systemId: string): void {
    this.streams.get(systemId)?.forEach(look => look());
  }

  open(systemId: string, after: number, request: Request, response: Response): void {
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    });
    response.write('retry: 1000\n\n');
    let last = after;
    let looking = false;
    let again = false;
    const look = async (): Promise<void> => {
      if (looking) {
        again = true;
        return;
      }
      looking = true;
      try {
        do {
          again = false;
          for (const edit of await editsAfter(this.db, systemId, last)) {
            response.write(`id: ${edit.id}\nevent: edit\ndata: ${writeJson(edit)}\n\n`);
            last = edit.id;
          }
        } while (again);
      } catch {
        // The database is away: the browser reconnects and goes on from the last id it has seen.
        response.end();
      } finally {
        looking = false;
      }
    };
    const wake = (): void => void look();
    const streams = this.streams.get(systemId) ?? new Set();
    this.streams.set(systemId, streams.add(wake));
    const poll = setInterval(wake, POLL_MS);
    const heartbeat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS);
    const close = (): void => {
      clearInterval(poll);
      clearInterval(heartbeat);
      streams.delete(wake);
    };
    request.on('close', close);
    response.on('close', close);
    wake();
  }
}
