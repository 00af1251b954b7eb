import { createStore, del, keys, promisifyRequest, set, type UseStore } from 'idb-keyval';
import { nanoid } from 'nanoid';
import { parseJson, writeJson } from '@periwinkle/core/json/json-text';
import type { Kept } from '../synchronisation/kept';
import { leftHere, noteLeft, reloadingFor } from './reloads';

/** Most edits are stored before that has passed, and need not be written here at all. */
const REST_MS = 50;
/** How long living windows have to say that they are there. */
const ANSWER_MS = 300;

const rest = (ms: number): Promise<void> => new Promise(resolve => setTimeout(resolve, ms));

type Message = { readonly ask: string } | { readonly here: string } | { readonly decided: string };

/** What this window is told of by others of the same system. */
interface Neighbours {
  /** A meeting has been decided there, by the key of the edit that met. */
  readonly onDecided: (key: string) => void;
}

/**
 * What windows of this browser have not yet stored in a system, in IndexedDB. Each window writes its own; what windows have left that
 * are closed is there for whoever opens next; one that is loaded again goes on with its own. Should a window that only slept go on too,
 * nothing is stored twice: edits have keys.
 */
export class Outbox {
  private opened: UseStore | null = null;
  private readonly window = nanoid();
  /** The window whose page was here before this one was loaded. */
  private before: string | null = null;
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
    this.before ??= leftHere(this.systemId);
    addEventListener('pagehide', this.noteLeft);
    const channel = new BroadcastChannel(`periwinkle:windows:${this.systemId}`);
    channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if ('ask' in data) for (const here of this.names) channel.postMessage({ here });
      if ('decided' in data) this.neighbours.onDecided(data.decided);
    };
    this.channel = channel;
  }

  close(): void {
    removeEventListener('pagehide', this.noteLeft);
    this.channel?.close();
    this.channel = null;
  }

  private readonly noteLeft = (): void => noteLeft(this.systemId, this.window);

  private get names(): readonly string[] {
    return this.before === null ? [this.window] : [this.window, this.before];
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
        await rest(REST_MS);
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

  /** The keys of what windows of this system have left that are closed: what this one left before it was loaded again comes first, and at once. */
  async *left(): AsyncGenerator<string> {
    yield* await this.keysOf(window => window === this.before);
    const isOther = (window: string): boolean => window !== this.window;
    if ((await this.keysOf(isOther)).length === 0) return;
    // A window that is being loaded again does not answer, and is not closed.
    const reloading = reloadingFor(this.systemId);
    if (reloading > 0) await rest(reloading);
    const living = await this.livingWindows();
    yield* await this.keysOf(window => isOther(window) && !living.has(window));
  }

  private async keysOf(isMeant: (window: string) => boolean): Promise<string[]> {
    const all = await keys<string>(this.store);
    return all.filter(key => {
      const [system, window] = key.split('/') as [string, string];
      return system === this.systemId && isMeant(window);
    });
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
    await rest(ANSWER_MS);
    this.channel?.removeEventListener('message', listener);
    return living;
  }
}
