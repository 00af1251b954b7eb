import { and, inArray, isNull } from 'drizzle-orm';
import type { Request, Response } from 'express';
import type { Database } from '../storage/open-database';
import { editJson, eventsAfter, type ToldEdit } from '../storage/edit-rows';
import { systems } from '../storage/schema';

const POLL_MS = 400;
const HEARTBEAT_MS = 7_000;
/** Of what a reader has not taken yet: whoever is slower is dropped, and goes on from the last id when it comes back. */
const BACKLOG_BYTES = 4_000_000;

/** What is known is none by now: it is to be read anew. */
const ANEW = 'event: anew\ndata: {}\n\n';

/** And whoever has not taken for so long what it missed. */
const TAKEN_MS = 10_000;

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

  /**
   * Tells of the edits of a system after one that is known; `lastEdit` is the newest there is. Who knows of a state that is none by now
   * (`after` is `null`) is told so.
   */
  open(systemId: string, after: number | null, lastEdit: number, request: Request, response: Response): void {
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    });
    response.write('retry: 1000\n\n');
    if (after === null) return void response.end(ANEW);
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
      setInterval(
        () => this.everyone(({ response }) => response.write('event: beat\ndata: here\n\n')),
        HEARTBEAT_MS,
      ),
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
        const missed = await eventsAfter(this.db, systemId, listener.last);
        missed.forEach(edit => tell(listener, edit, eventText(edit)));
        await taken(listener.response);
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
        // An earlier state, as after a backup was put back: whoever listens is to read it.
        else if (system && lastEdit < system.told) {
          system.listeners.forEach(({ response }) => response.end(ANEW));
          system.told = lastEdit;
        }
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
        const found = await eventsAfter(this.db, systemId, system.told);
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

/** An edit, or that there are some to be read that are too long to be told. */
function eventText(edit: ToldEdit): string {
  const { id, patch } = edit;
  if (patch === null) return `id: ${id}\nevent: more\ndata: {"after":${id - 1}}\n\n`;
  return `id: ${id}\nevent: edit\ndata: ${editJson({ ...edit, patch }).text}\n\n`;
}

function tell(listener: Listener, edit: ToldEdit, text: string): void {
  const { response, last } = listener;
  if (edit.id <= last) return;
  // What is told at once may be much; who has not taken what was told before is too slow.
  if (response.writableLength > BACKLOG_BYTES) response.destroy();
  else {
    listener.last = edit.id;
    response.write(text);
  }
}

/** Once what was written has been taken; or nobody is there any more to take it, or has taken too long. */
function taken(response: Response): Promise<void> {
  if (!response.writableNeedDrain) return Promise.resolve();
  return new Promise(resolve => {
    const late = setTimeout(() => response.destroy(), TAKEN_MS);
    const end = (): void => {
      clearTimeout(late);
      response.off('drain', end).off('close', end);
      resolve();
    };
    response.on('drain', end).on('close', end);
  });
}
