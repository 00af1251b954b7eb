import { and, inArray, isNull } from 'drizzle-orm';
import type { Request, Response } from 'express';
import type { Database } from './database';
import { editJson, editsAfter, type StoredEdit } from './edit-rows';
import { systems } from './schema';

const POLL_MS = 400;
const HEARTBEAT_MS = 15_000;
/** Of what a reader has not taken yet: whoever is slower is dropped, and goes on from the last id when it comes back. */
const BACKLOG_BYTES = 4_000_000;

interface Listener {
  readonly response: Response;
  /** The last edit it was told of. */
  last: number;
  /** Whether it knows all that was told to the others; until then it reads for itself. */
  isLive: boolean;
}

interface Followed {
  readonly listeners: Set<Listener>;
  /** The last edit that was told. */
  told: number;
  isRead: boolean;
  isAsked: boolean;
}

/**
 * Tells windows of edits as server-sent events (HTML Standard, section 9.2). The table of edits is the only source, so that several
 * applications on one database tell the same. It is followed once for all listeners: one question asks which systems have new edits,
 * and each of these is read once. Our own edits are looked for at once.
 */
export class EventTail {
  private readonly followed = new Map<string, Followed>();
  private timers: readonly NodeJS.Timeout[] = [];

  constructor(private readonly db: Database) {}

  /** Looks for new edits of a system now. */
  wake(systemId: string): void {
    if (this.followed.has(systemId)) void this.read(systemId);
  }

  /** Tells of the edits of a system after one that is known; `lastEdit` is the newest there is. */
  open(systemId: string, after: number, lastEdit: number, request: Request, response: Response): void {
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    });
    response.write('retry: 1000\n\n');
    const known = this.followed.get(systemId);
    const system = known ?? { listeners: new Set(), told: lastEdit, isRead: false, isAsked: false };
    const listener: Listener = { response, last: after, isLive: false };
    system.listeners.add(listener);
    this.followed.set(systemId, system);
    this.start();
    const close = (): void => {
      system.listeners.delete(listener);
      if (system.listeners.size === 0 && this.followed.get(systemId) === system)
        this.followed.delete(systemId);
      if (this.followed.size === 0) this.stop();
    };
    request.on('close', close);
    response.on('close', close);
    void this.catchUp(systemId, system, listener);
  }

  private start(): void {
    if (this.timers.length > 0) return;
    this.timers = [
      setInterval(() => void this.look(), POLL_MS),
      setInterval(() => this.everyone(({ response }) => response.write(': still here\n\n')), HEARTBEAT_MS),
    ];
  }

  private stop(): void {
    this.timers.forEach(clearInterval);
    this.timers = [];
  }

  private everyone(tell: (listener: Listener) => void): void {
    for (const { listeners } of this.followed.values()) listeners.forEach(tell);
  }

  /** Reads for one listener what was stored before it came, until it knows what the others know. */
  private async catchUp(systemId: string, system: Followed, listener: Listener): Promise<void> {
    try {
      for (;;) {
        const missed = await editsAfter(this.db, systemId, listener.last);
        missed.forEach(edit => tell(listener, edit, eventText(edit)));
        if (!system.listeners.has(listener)) return;
        if (missed.length === 0 && listener.last >= system.told) break;
      }
      listener.isLive = true;
    } catch {
      // The database is away: the browser comes back and goes on from the last id it has seen.
      listener.response.end();
    }
  }

  /** Asks which of the systems that are listened to have new edits. */
  private async look(): Promise<void> {
    try {
      const rows = await this.db
        .select({ id: systems.id, lastEdit: systems.lastEdit })
        .from(systems)
        .where(and(inArray(systems.id, [...this.followed.keys()]), isNull(systems.removedAt)));
      for (const { id, lastEdit } of rows) {
        const system = this.followed.get(id);
        if (system && lastEdit > system.told) void this.read(id);
        // An earlier state, as after a backup was put back: what comes is told from there on.
        else if (system) system.told = lastEdit;
      }
    } catch {
      // The database is away: it is asked again in a moment.
    }
  }

  /** Reads what a system has that was not told, and tells it to all who listen. */
  private async read(systemId: string): Promise<void> {
    const system = this.followed.get(systemId);
    if (!system) return;
    system.isAsked = true;
    if (system.isRead) return;
    system.isRead = true;
    try {
      while (system.isAsked) {
        system.isAsked = false;
        const found = await editsAfter(this.db, systemId, system.told);
        for (const edit of found) {
          const text = eventText(edit);
          system.told = edit.id;
          system.listeners.forEach(listener => {
            if (listener.isLive) tell(listener, edit, text);
          });
        }
        if (found.length > 0) system.isAsked = true;
      }
    } catch {
      // As above.
    } finally {
      system.isRead = false;
    }
  }
}

const eventText = (edit: StoredEdit): string =>
  `id: ${edit.id}\nevent: edit\ndata: ${editJson(edit).text}\n\n`;

function tell(listener: Listener, edit: StoredEdit, text: string): void {
  if (edit.id <= listener.last) return;
  listener.last = edit.id;
  listener.response.write(text);
  if (listener.response.writableLength > BACKLOG_BYTES) listener.response.destroy();
}
