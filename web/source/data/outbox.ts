import { createStore, del, entries, promisifyRequest, set, type UseStore } from 'idb-keyval';
import { nanoid } from 'nanoid';
import { parseJson, writeJson } from '@periwinkle/core/formats/json-text';
import type { Kept } from '../synchronisation/kept';

/** Most edits are stored before that has passed, and need not be written here at all. */
const REST_MS = 50;
/** How long living windows have to say that they are there. */
const ANSWER_MS = 300;

type Message = { readonly ask: string } | { readonly here: string } | { readonly decided: string };

/** What this window is told of by others of the same system. */
interface Neighbours {
  /** A meeting has been decided there, by the key of the edit that met. */
  readonly onDecided: (key: string) => void;
}

/**
 * What windows of this browser have not yet stored in a system, in IndexedDB. Each window writes its own; what windows have left that
 * are closed is there for whoever opens next. Should a window that only slept go on too, nothing is stored twice: edits have keys.
 */
export class Outbox {
  private opened: UseStore | null = null;
  private readonly window = nanoid();
  private channel: BroadcastChannel | null = null;
  private wanted: Kept | null = null;
  private written: Kept | null = null;
  private writing: Promise<void> | null = null;

  constructor(
    private readonly systemId: string,
    private readonly neighbours: Neighbours,
  ) {}

  /** Throws where the browser keeps nothing. */
  private get store(): UseStore {
    this.opened ??= createStore('periwinkle-outbox-2', 'windows');
    return this.opened;
  }

  open(): void {
    const channel = new BroadcastChannel(`periwinkle:windows:${this.systemId}`);
    channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if ('ask' in data) channel.postMessage({ here: this.window });
      if ('decided' in data) this.neighbours.onDecided(data.decided);
    };
    this.channel = channel;
  }

  close(): void {
    this.channel?.close();
    this.channel = null;
  }

  /** Tells other windows that a meeting has been decided here: one that only slept may have it too. */
  tellDecided(key: string): void {
    this.channel?.postMessage({ decided: key });
  }

  /** Whether all that is to be kept has been written. */
  get isKept(): boolean {
    return this.written === this.wanted;
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

  /** What windows of this system have left that are closed, by the keys under which it lies. */
  async left(): Promise<string[]> {
    const all = await entries<string, string>(this.store);
    const found = all.flatMap(([key]) => {
      const [system, window] = key.split('/') as [string, string];
      return system === this.systemId && window !== this.window ? [{ window, key }] : [];
    });
    if (found.length === 0) return [];
    const living = await this.livingWindows();
    return found.filter(({ window }) => !living.has(window)).map(({ key }) => key);
  }

  /** Takes over what a closed window has left: one window alone can. From then on it lies here; `null` where another was first. */
  async claim(key: string): Promise<{ readonly key: string; readonly kept: Kept } | null> {
    const own = `${this.keyOf(this.window)}/${nanoid()}`;
    const text = await this.store('readwrite', async store => {
      const found = await promisifyRequest<string | undefined>(store.get(key));
      if (found === undefined) return null;
      store.put(found, own);
      store.delete(key);
      return found;
    });
    return text === null ? null : { key: own, kept: parseJson(text) as unknown as Kept };
  }

  /** Forgets what a closed window has left, once it is kept as this window's. */
  async forget(key: string): Promise<void> {
    await this.writing;
    await del(key, this.store);
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
