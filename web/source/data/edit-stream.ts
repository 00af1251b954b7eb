import { parseJson } from '@periwinkle/core/json/json-text';
import type { StoredEdit } from '@periwinkle/protocol/wire';
import { api, eventsUrl, type KnownEdit } from './api';
import { ApiError } from './api-error';

/** What windows of one browser tell each other: an edit, that the server is there, or that it has another state than is known. */
type Message = { readonly edit: StoredEdit } | 'open' | 'anew';

const RETRY_MS = 1000;
/** ms without a sign of life after which a line counts as dead; the server gives one every seven seconds. */
const SILENT_MS = 20_000;

export interface EditListener {
  /** An edit as it is stored, whoever made it. The same may be told more than once. */
  readonly onEdit: (edit: StoredEdit) => void;
  /** The server can be reached. */
  readonly onOpen: () => void;
  /** What is known of the server is none of its states any more, as after a backup was put back. */
  readonly onAnew: () => void;
}

/**
 * The edits of a system, told as they are stored. All windows of a browser share one connection to the server, because over
 * HTTP/1.1 a browser grants a host only six: one window, chosen by a lock (Web Locks API), listens to the server and tells
 * the others; when it closes, the next takes over from the last edit it has heard of.
 */
export class EditStream {
  private readonly name: string;
  private channel: BroadcastChannel | null = null;
  private events: EventSource | null = null;
  private silence: ReturnType<typeof setTimeout> | undefined;
  /** What is told waits until what was stored before, and could not be heard, is known. */
  private caughtUp = Promise.resolve();
  /** Ends waiting for the lock. */
  private waiting = new AbortController();
  /** Gives the lock back. */
  private release: () => void = () => {};

  constructor(
    private readonly systemId: string,
    /** The last edit known; goes on with those that are told. */
    private heard: KnownEdit,
    private readonly listener: EditListener,
  ) {
    this.name = `periwinkle:edits:${systemId}`;
  }

  open(): void {
    window.addEventListener('pagehide', this.pause);
    window.addEventListener('pageshow', this.goOn);
    this.connect();
  }

  close(): void {
    window.removeEventListener('pagehide', this.pause);
    window.removeEventListener('pageshow', this.goOn);
    this.disconnect();
  }

  /** A page that is kept for going back to must not hold the connection that others wait for. */
  private readonly pause = (): void => this.disconnect();
  private readonly goOn = (event: PageTransitionEvent): void => {
    if (event.persisted) this.connect();
  };

  private connect(): void {
    this.channel = new BroadcastChannel(this.name);
    this.channel.onmessage = ({ data }: MessageEvent<Message>) =>
      void this.caughtUp.then(() => this.tell(data));
    this.waiting = new AbortController();
    const { signal } = this.waiting;
    // Browsers offer locks to secure addresses only; elsewhere each window listens for itself.
    if (!('locks' in navigator)) return void this.lead();
    navigator.locks
      .request(this.name, { ifAvailable: true }, lock => {
        if (signal.aborted) return;
        if (lock) return this.lead();
        this.caughtUp = this.catchUp(signal, message => this.tell(message));
        navigator.locks.request(this.name, { signal }, () => this.lead()).catch(stopped);
      })
      // Nor to those whose pages may keep nothing.
      .catch(() => void this.lead());
  }

  private disconnect(): void {
    this.waiting.abort();
    this.channel?.close();
    this.channel = null;
    clearTimeout(this.silence);
    this.events?.close();
    this.events = null;
    this.release();
  }

  /** Listens to the server and passes on what it says, until the lock is given back. */
  private lead(): Promise<void> {
    this.listen();
    return new Promise(resolve => (this.release = resolve));
  }

  private listen(): void {
    const events = new EventSource(eventsUrl(this.systemId, this.heard));
    this.events = events;
    const pass = (message: Message): void => {
      this.channel?.postMessage(message);
      this.tell(message);
    };
    // A line that died says nothing, not even that it did.
    const isHeard = (): void => {
      clearTimeout(this.silence);
      this.silence = setTimeout(() => {
        events.close();
        if (this.events === events) this.listen();
      }, SILENT_MS);
    };
    isHeard();
    for (const sign of ['open', 'beat', 'edit', 'more']) events.addEventListener(sign, isHeard);
    const passInTurn = (message: Message): void => void this.caughtUp.then(() => pass(message));
    events.addEventListener('edit', ({ data }: MessageEvent<string>) =>
      passInTurn({ edit: parseJson(data) as StoredEdit }),
    );
    // What is too long to be told is read; what is told meanwhile comes after it.
    events.addEventListener('more', () => {
      const { signal } = this.waiting;
      this.caughtUp = this.caughtUp.then(() => this.catchUp(signal, pass));
    });
    events.addEventListener('open', () => passInTurn('open'));
    events.addEventListener('anew', () => {
      events.close();
      passInTurn('anew');
    });
    // An answer that is no stream ends an event source for good (HTML, section 9.2.3), and one that goes on by itself does not say by its
    // key what it has heard last: whoever leads begins another.
    events.addEventListener('error', () => {
      events.close();
      const delay = RETRY_MS * (1 + Math.random());
      setTimeout(() => {
        if (this.events === events) this.listen();
      }, delay);
    });
  }

  /** Reads what was stored after the last edit that is known, and tells it. */
  private async catchUp(signal: AbortSignal, tell: (message: Message) => void): Promise<void> {
    while (!signal.aborted) {
      try {
        const missed = await api.editsAfter(this.systemId, this.heard);
        if (missed.length === 0 || signal.aborted) return;
        missed.forEach(edit => tell({ edit }));
      } catch (error) {
        if (error instanceof ApiError && error.status === 410) return tell('anew');
        // A system that is gone has no more edits.
        if (!(error instanceof ApiError && error.passing)) return;
        await new Promise(resolve => setTimeout(resolve, RETRY_MS));
      }
    }
  }

  private tell(message: Message): void {
    if (message === 'open') return this.listener.onOpen();
    if (message === 'anew') return this.listener.onAnew();
    const { id, editKey: key } = message.edit;
    if (id > this.heard.id) this.heard = { id, key };
    this.listener.onEdit(message.edit);
  }
}

/** Waiting for a lock ends with an error when it is called off, which is meant. */
function stopped(error: Error): void {
  if (error.name !== 'AbortError') throw error;
}
