import { createStore, del, entries, set } from 'idb-keyval';
import { nanoid } from 'nanoid';
import { parseJson, writeJson } from '@periwinkle/core/formats/json-text';
import type { Kept } from '../synchronisation/kept';

/** Most edits are stored before that has passed, and need not be written here at all. */
const REST_MS = 50;
/** How long living windows have to say that they are there. */
const ANSWER_MS = 300;

type Message = { readonly ask: string } | { readonly here: string };

/** What a closed window has left. */
export interface LeftBehind {
  readonly window: string;
  readonly kept: Kept;
}

/**
 * What windows of this browser have not yet stored in a system, in IndexedDB. Each window writes its own; what windows have left that
 * are closed is there for whoever opens next. Should a window that only slept go on too, nothing is stored twice: edits have keys.
 */
export class Outbox {
  private readonly store = createStore('periwinkle-outbox-2', 'windows');
  private readonly window = nanoid();
  private channel: BroadcastChannel | null = null;
  private wanted: Kept | null = null;
  private written: Kept | null = null;
  private writing: Promise<void> | null = null;

  constructor(private readonly systemId: string) {}

  open(): void {
    const channel = new BroadcastChannel(`periwinkle:windows:${this.systemId}`);
    channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if ('ask' in data) channel.postMessage({ here: this.window });
    };
    this.channel = channel;
  }

  close(): void {
    this.channel?.close();
    this.channel = null;
  }

  /** Writes what is to be kept, a moment later; while a writing is under way only the newest waits. */
  keep(kept: Kept | null): Promise<void> {
    this.wanted = kept;
    this.writing ??= this.write();
    return this.writing;
  }

  private async write(): Promise<void> {
    try {
      do {
        await new Promise(resolve => setTimeout(resolve, REST_MS));
        const { wanted } = this;
        const key = this.keyOf(this.window);
        if (wanted === this.written) continue;
        // As text, which keeps the order of all keys.
        await (wanted ? set(key, writeJson(wanted), this.store) : del(key, this.store));
        this.written = wanted;
      } while (this.written !== this.wanted);
    } finally {
      this.writing = null;
    }
  }

  private keyOf(window: string): string {
    return `${this.systemId}/${window}`;
  }

  /** What windows of this system have left that are closed. */
  async left(): Promise<LeftBehind[]> {
    const all = await entries<string, string>(this.store);
    const found = all.flatMap(([key, text]) => {
      const [system, window] = key.split('/') as [string, string];
      return system === this.systemId && window !== this.window ? [{ window, text }] : [];
    });
    if (found.length === 0) return [];
    const living = await this.livingWindows();
    return found
      .filter(({ window }) => !living.has(window))
      .map(({ window, text }) => ({ window, kept: parseJson(text) as unknown as Kept }));
  }

  /** Forgets what a closed window has left, once it is kept here. */
  async forget(window: string): Promise<void> {
    await this.writing;
    await del(this.keyOf(window), this.store);
  }

  private async livingWindows(): Promise<Set<string>> {
    const living = new Set<string>();
    const listener = ({ data }: MessageEvent<Message>): void => {
      if ('here' in data) living.add(data.here);
    };
    this.channel?.addEventListener('message', listener);
    this.channel?.postMessage({ ask: this.window });
    await new Promise(resolve => setTimeout(resolve, ANSWER_MS));
    this.channel?.removeEventListener('message', listener);
    return living;
  }
}
