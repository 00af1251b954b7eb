import { QUOTAS } from '@periwinkle/core/json/quotas';
import { shortened } from '@periwinkle/core/text/shortened';
import { nanoid } from 'nanoid';
import { endsOf, type OwnHistory } from '../synchronisation/own-history';
import type { Unplaced } from '../synchronisation/unplaced';
import { identified } from '@periwinkle/core/patch/identity';
import type { Patch } from '@periwinkle/core/patch/operations';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { relocated } from '@periwinkle/core/patch/relocate';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import type { HistoryEnds, NamedChange, StoredEdit, WholeSystem } from '@periwinkle/protocol/wire';
import { keptOf, type Kept } from '../synchronisation/kept';
import { synchronise } from '../synchronisation/machine';
import { madeAgain } from '../synchronisation/made-again';
import {
  placedAnew,
  synchronising,
  type SyncEffect,
  type SyncEvent,
  type Synchronisation,
} from '../synchronisation/state';
import {
  WorkingCopy,
  type EditPart,
  type HistoryStep,
  type Meeting,
  type PendingEdit,
} from '../synchronisation/working-copy';
import { ApiError } from './api-error';
import { api, author, type KnownEdit } from './api';
import { backOff } from './back-off';
import { openDrafts } from './drafts';
import { EditStream } from './edit-stream';
import { Outbox } from './outbox';

/** Whether all is stored. */
type Storing = 'stored' | 'storing' | 'waiting';

/** Something to tell the person; all but what is plain stays until it is put away. */
export interface Notice {
  readonly id: number;
  readonly tone: 'plain' | 'lasting' | 'error';
  readonly text: string;
}

/** One view of everything, replaced as a whole at each change. */
export interface SystemState {
  /** As shown: with pending edits, and with the preview if there is one. */
  readonly system: System;
  /** As edited, without the preview. */
  readonly edited: System;
  readonly storing: Storing;
  /** What waits to be stored, in its order. */
  readonly pending: readonly PendingEdit[];
  /** What could not be placed. */
  readonly unplaced: readonly Unplaced[];
  /** Why nothing could be stored last, in words. */
  readonly trouble: string | null;
  /** Whether the browser keeps what is not stored yet until the window is opened again. */
  readonly keeps: boolean;
  readonly history: HistoryEnds;
  readonly meetings: readonly Meeting[];
  readonly notices: readonly Notice[];
}

/** What is being tried out: a patch that says what it means, on the document that it was made on. */
interface Preview {
  readonly path: string;
  readonly document: unknown;
  readonly patch: Patch;
}

/**
 * A system in this window: carries out what the machine of synchronisation decides, and keeps what concerns the window alone, previews,
 * notices and the ends of the history. Edits show at once and are sent one after another behind; nothing here waits for the network.
 */
export class SystemStore {
  private sync: Synchronisation;
  private current: SystemState;
  private preview: Preview | null = null;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private stream: EditStream | null = null;
  private noticeCount = 0;
  private shownHistory: OwnHistory | null = null;
  private hasTakenUp = false;
  private isReading = false;
  /** Edits that were told and are taken in a moment later. */
  private heard: StoredEdit[] = [];
  private hearing: ReturnType<typeof setTimeout> | undefined;
  private readonly outbox: Outbox;
  private readonly listeners = new Set<() => void>();
  /** What was typed into fields that are tried, by content key, for as long as the window is open. */
  readonly typedTexts = new Map<string, string>();

  constructor(
    readonly id: string,
    whole: WholeSystem,
  ) {
    this.outbox = new Outbox(id, { onDecided: key => this.hearDecided(key) });
    this.sync = synchronising(copyOf(whole), author(), whole.history);
    const system = compileSystem(this.sync.copy.documents);
    this.current = {
      system,
      edited: system,
      storing: 'stored',
      pending: [],
      unplaced: [],
      trouble: null,
      keeps: true,
      history: whole.history,
      meetings: [],
      notices: [],
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    if (this.listeners.size === 1) this.open();
    return () => {
      this.listeners.delete(listener);
      if (this.listeners.size === 0) this.close();
    };
  };

  readonly state = (): SystemState => this.current;

  /** Makes an edit of one document. Edits with the same `changeId` are undone together. */
  edit(path: string, patch: Patch, label: string, changeId?: string): void {
    this.editTogether([{ path, patch }], label, changeId);
  }

  /** Makes an edit of several documents, each named once: all of it is stored, or nothing. */
  editTogether(parts: readonly EditPart[], words: string, changeId: string = nanoid()): void {
    const label = shortened(words, QUOTAS.titleLetters);
    const meant = parts
      .filter(({ patch }) => patch.length > 0)
      .map(({ path, patch }) => ({
        key: nanoid(),
        path,
        patch: identified(this.sync.copy.shownAt(path), patch),
      }));
    if (meant.length === 0) return;
    this.preview = null;
    this.dispatch({ type: 'made', edit: { key: meant[0]!.key, changeId, label, parts: meant } });
  }

  /** Shows what an edit would do, without making it; no operation shows what is. */
  tryOut(path: string, patch: Patch): void {
    const document = this.sync.copy.documents.get(path);
    this.preview = patch.length > 0 ? { path, document, patch: identified(document, patch) } : null;
    this.show({});
  }

  endTryOut(): void {
    if (!this.preview) return;
    this.preview = null;
    this.show({});
  }

  /** Takes back what this person did last, as it stands at this moment, or brings back what they took back last. */
  step(direction: HistoryStep['direction']): void {
    this.endTryOut();
    this.dispatch({ type: 'step', direction, key: nanoid() });
  }

  /** Takes any change back, whoever made it, or brings it back. */
  stepTo(direction: HistoryStep['direction'], change: NamedChange): void {
    this.endTryOut();
    this.dispatch({ type: 'step', direction, key: nanoid(), change });
  }

  /** Decides a meeting: our edit is made again on top of theirs, given up, or put aside. */
  decide(meeting: Meeting, keep: 'mine' | 'theirs' | 'aside'): void {
    const { mine, parts } = meeting;
    if (keep === 'aside' || (keep === 'mine' && !parts)) this.dispatch({ type: 'put aside', meeting });
    else {
      const again = keep === 'mine' && parts ? madeAgain(mine, parts) : null;
      this.dispatch({ type: 'decided', meeting, mine: again });
    }
    this.outbox.tellDecided(mine.key);
  }

  /** Makes an edit again that could not be placed, where it fits what is shown: in its own documents, or in another instead of its only one. */
  place({ edit }: Unplaced, path?: string): boolean {
    const [only] = edit.parts;
    const meant = path === undefined || !only ? edit : { ...edit, parts: [{ ...only, path }] };
    const key = nanoid();
    const again = placedAnew(this.sync.copy, meant, key, key);
    if (again) this.dispatch({ type: 'made', edit: again, insteadOf: edit.key });
    return again !== null;
  }

  /** Puts an edit away that could not be placed. */
  forget({ edit }: Unplaced): void {
    this.dispatch({ type: 'put away', key: edit.key });
  }

  say(tone: Notice['tone'], text: string): void {
    const notice = { id: ++this.noticeCount, tone, text };
    this.show({ notices: [...this.current.notices.slice(-3), notice] });
    if (tone === 'plain') setTimeout(() => this.putAway(notice.id), 4000);
  }

  putAway(id: number): void {
    this.show({ notices: this.current.notices.filter(notice => notice.id !== id) });
  }

  /** Takes a step of the machine and shows what has come of it. */
  private dispatch(event: SyncEvent): readonly SyncEffect[] {
    const { state, effects } = synchronise(this.sync, event);
    this.sync = state;
    this.show({});
    for (const effect of effects) this.carryOut(effect);
    return effects;
  }

  private carryOut(effect: SyncEffect): void {
    switch (effect.type) {
      case 'send':
        return void this.send(effect.edit, effect.revisions);
      case 'fill':
        return void this.fill(effect.after);
      case 'ask ends':
        return void this.askEnds();
      case 'read anew':
        return void this.readAnew();
      case 'wait':
        clearTimeout(this.retry);
        this.retry = setTimeout(() => this.dispatch({ type: 'due' }), backOff(effect.failures));
        return;
      case 'keep':
        return void this.outbox.keep(keptOf(this.sync.copy, this.sync.unplaced)).then(
          () => this.show({ keeps: true }),
          () => this.saysThatNothingIsKept(),
        );
      case 'say':
        return this.say(effect.tone, effect.text);
      case 'not taken up':
        // Whoever takes it up tries again.
        return;
    }
  }

  private saysThatNothingIsKept(): void {
    if (!this.current.keeps) return;
    this.show({ keeps: false });
    this.say(
      'plain',
      'This browser keeps nothing: what is not stored yet is lost when this window is closed.',
    );
  }

  private async send(edit: PendingEdit, revisions: readonly number[]): Promise<void> {
    this.dispatch(await this.sent(edit, revisions));
  }

  private async sent(edit: PendingEdit, revisions: readonly number[]): Promise<SyncEvent> {
    try {
      const { key, step } = edit;
      const edits = await (step
        ? api.step(this.id, step.direction, step.change, key)
        : api.edit(this.id, edit, revisions));
      return { type: 'stored', key, edits };
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      const { key } = edit;
      if (error.status === 412) return { type: 'stale', edit, revisions, since: error.body.since ?? [] };
      if (error.passing) return { type: 'failed', key, reason: error.message };
      return { type: 'refused', key, reason: error.message, isGone: error.status === 404 };
    }
  }

  private async fill(after: KnownEdit): Promise<void> {
    try {
      this.dispatch({ type: 'filled', edits: await api.editsAfter(this.id, after) });
    } catch (error) {
      this.dispatch({ type: 'filled', edits: null });
      if (error instanceof ApiError && error.status === 410) void this.readAnew();
    }
  }

  /** Reads the system as the server has it by now, where that is not what is known here. */
  private async readAnew(): Promise<void> {
    if (this.isReading) return;
    this.isReading = true;
    try {
      for (let tries = 1; ; tries++) {
        const whole = await api.system(this.id).catch(() => null);
        if (whole) {
          this.dispatch({ type: 'read', copy: copyOf(whole), ends: whole.history });
          break;
        }
        await new Promise(resolve => setTimeout(resolve, backOff(tries)));
      }
    } finally {
      this.isReading = false;
    }
    if (this.stream) this.listen();
  }

  private hearDecided(key: string): void {
    const meeting = this.sync.copy.meetings.find(({ mine }) => mine.key === key);
    if (meeting) this.dispatch({ type: 'decided', meeting, mine: null });
  }

  private async askEnds(): Promise<void> {
    const ends = await api.history(this.id).catch(() => null);
    this.dispatch({ type: 'ends', ends });
  }

  /** Goes on with what windows have left that are closed. */
  private async takeUpLeft(): Promise<void> {
    for await (const key of this.outbox.left()) {
      const claimed = await this.outbox.claim(key);
      if (!claimed) continue;
      await this.takeUp(claimed.kept);
      await this.outbox.forget(claimed.key);
    }
  }

  private async takeUp(kept: Kept): Promise<void> {
    for (let tries = 1; ; tries++) {
      const since = await this.editsSince({ id: kept.lastEdit, key: kept.lastKey ?? '' });
      const effects = since && this.dispatch({ type: 'taken up', kept, since });
      if (effects && !effects.some(({ type }) => type === 'not taken up')) return;
      await new Promise(resolve => setTimeout(resolve, backOff(tries)));
    }
  }

  /** All edits after one; `null` while no answer comes. Of a state that is none by now, nothing has come since. */
  private async editsSince(known: KnownEdit): Promise<StoredEdit[] | null> {
    const since: StoredEdit[] = [];
    try {
      for (;;) {
        const last = since.at(-1);
        const more = await api.editsAfter(this.id, last ? { id: last.id, key: last.editKey } : known);
        if (more.length === 0) return since;
        since.push(...more);
      }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.status === 410) return [];
      if (error.passing) return null;
      throw error;
    }
  }

  private show(parts: Partial<SystemState>): void {
    const { copy, failures } = this.sync;
    const edited = this.compiled(copy.documents, this.current.edited);
    const tried = this.preview && this.tried(this.preview);
    const system = tried ? this.compiled(tried, this.current.system) : edited;
    const waiting = failures > 0 ? 'waiting' : 'storing';
    const storing = copy.pending.length === 0 ? 'stored' : waiting;
    const { pending, meetings } = copy;
    const history =
      this.sync.history === this.shownHistory ? this.current.history : endsOf(this.sync.history);
    this.shownHistory = this.sync.history;
    const { unplaced, trouble } = this.sync;
    this.current = {
      ...this.current,
      ...parts,
      system,
      edited,
      storing,
      history,
      pending,
      meetings,
      unplaced,
      trouble,
    };
    this.listeners.forEach(listener => listener());
  }

  /** The documents with what is being tried out; `null` where an edit from elsewhere has left no place for it. */
  private tried({ path, document, patch }: Preview): ReadonlyMap<string, unknown> | null {
    const { documents } = this.sync.copy;
    const now = documents.get(path);
    const found = now === document ? ({ ok: true, patch } as const) : relocated(now, patch);
    if (found.ok) return new Map(documents).set(path, applyPatch(now, found.patch).document);
    this.preview = null;
    return null;
  }

  private compiled(documents: ReadonlyMap<string, unknown>, before: System): System {
    return before.documents === documents ? before : compileSystem(documents);
  }

  /** Closing a window ends its sending; another window can only go on with it later. */
  private readonly askBeforeLeaving = (event: BeforeUnloadEvent): void => {
    // What is being written is made an edit where it can be; what cannot is asked about like what waits.
    const isWritten = [...openDrafts].map(keep => keep()).every(Boolean);
    const { copy, unplaced } = this.sync;
    const isUndecided = copy.meetings.length + unplaced.length > 0 && !this.outbox.isKept;
    if (!isWritten || copy.pending.length > 0 || isUndecided) event.preventDefault();
  };

  private open(): void {
    addEventListener('beforeunload', this.askBeforeLeaving);
    this.outbox.open();
    this.listen();
    if (this.hasTakenUp) return;
    this.hasTakenUp = true;
    void this.takeUpLeft().catch(() => {
      // A browser that keeps nothing has left nothing.
    });
  }

  private listen(): void {
    this.stream?.close();
    const { lastEdit, lastKey } = this.sync.copy;
    this.stream = new EditStream(
      this.id,
      { id: lastEdit, key: lastKey },
      {
        onEdit: edit => this.hear(edit),
        onOpen: () => {
          if (this.sync.isWaiting) this.dispatch({ type: 'due' });
        },
        onAnew: () => void this.readAnew(),
      },
    );
    this.stream.open();
  }

  /** What is told together is taken in together: a change of several documents is not shown half done. */
  private hear(edit: StoredEdit): void {
    this.heard.push(edit);
    this.hearing ??= setTimeout(() => {
      const edits = this.heard;
      [this.heard, this.hearing] = [[], undefined];
      this.dispatch({ type: 'told', edits });
    });
  }

  private close(): void {
    removeEventListener('beforeunload', this.askBeforeLeaving);
    this.outbox.close();
    this.stream?.close();
    this.stream = null;
  }
}

const copyOf = ({ documents, lastEdit, lastKey }: WholeSystem): WorkingCopy =>
  WorkingCopy.of(documents, lastEdit, lastKey);
