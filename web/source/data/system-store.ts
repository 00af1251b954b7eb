import { LIMITS } from '@periwinkle/core/formats/limits';
import { shortened } from '@periwinkle/core/content/shortened';
import { nanoid } from 'nanoid';
import { identified } from '@periwinkle/core/formats/identity';
import { applyPatch, type Patch } from '@periwinkle/core/formats/patch';
import { placed } from '@periwinkle/core/formats/placing';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import { keptOf, type Kept } from '../synchronisation/kept';
import {
  synchronise,
  synchronising,
  type SyncEffect,
  type SyncEvent,
  type Synchronisation,
} from '../synchronisation/machine';
import {
  WorkingCopy,
  type EditPart,
  type Meeting,
  type PendingEdit,
  type PendingPart,
} from '../synchronisation/working-copy';
import { ApiError } from './api-error';
import { api, author, type HistoryEnds, type NamedChange, type WholeSystem } from './api';
import { backOff } from './back-off';
import { EditStream } from './edit-stream';
import { HistorySteps, type Direction } from './history-steps';
import { Outbox } from './outbox';
import type { StoredEdit } from './stored';

/** Whether all is stored. */
export type Storing = 'stored' | 'storing' | 'waiting';

/** Something to tell the person; errors stay until they are put away. */
export interface Notice {
  readonly id: number;
  readonly tone: 'plain' | 'error';
  readonly text: string;
}

/** One view of everything, replaced as a whole at each change. */
export interface SystemState {
  /** As shown: with pending edits, and with the preview if there is one. */
  readonly system: System;
  /** As edited, without the preview. */
  readonly edited: System;
  readonly storing: Storing;
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
  private hasTakenUp = false;
  /** Edits that were told and are taken in a moment later. */
  private heard: StoredEdit[] = [];
  private hearing: ReturnType<typeof setTimeout> | undefined;
  private readonly outbox: Outbox;
  private readonly steps: HistorySteps;
  private readonly listeners = new Set<() => void>();
  private readonly whenIdle = new Set<() => void>();
  /** What was typed into fields that are tried, by content key, for as long as the window is open. */
  readonly typedTexts = new Map<string, string>();

  constructor(
    readonly id: string,
    whole: WholeSystem,
  ) {
    this.outbox = new Outbox(id);
    this.sync = synchronising(WorkingCopy.of(whole.documents, whole.lastEdit));
    const system = compileSystem(this.sync.copy.documents);
    this.current = {
      system,
      edited: system,
      storing: 'stored',
      history: whole.history,
      meetings: [],
      notices: [],
    };
    this.steps = new HistorySteps(id, {
      idle: () => this.idle(),
      ends: () => this.current.history,
      onEnds: history => {
        if (this.sync.copy.pending.length === 0) this.show({ history });
      },
      onEdits: edits => void this.dispatch({ type: 'told', edits }),
      say: (tone, text) => this.say(tone, text),
    });
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
    const label = shortened(words, LIMITS.titleLetters);
    const meant = parts
      .filter(({ patch }) => patch.length > 0)
      .map(({ path, patch }) => ({
        key: nanoid(),
        path,
        patch: identified(this.sync.copy.shownAt(path), patch),
      }));
    if (meant.length === 0) return;
    this.preview = null;
    this.dispatch(
      { type: 'made', edit: { key: meant[0]!.key, changeId, label, parts: meant } },
      { history: { undo: { change: changeId, label }, redo: null } },
    );
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

  /** Takes this person's last change back, or brings it back again, once all that is pending has been stored. */
  step(direction: Direction): Promise<void> {
    this.endTryOut();
    return this.steps.step(direction);
  }

  /** Takes any change back, whoever made it, or brings it back. */
  stepTo(direction: Direction, change: NamedChange): Promise<void> {
    this.endTryOut();
    return this.steps.stepTo(direction, change);
  }

  /** Decides a meeting: our edit is made again on top of theirs, or given up. */
  decide(meeting: Meeting, keep: 'mine' | 'theirs'): void {
    const { mine, parts } = meeting;
    if (keep === 'theirs' || parts) {
      const again = keep === 'mine' && parts ? madeAgain(mine, parts) : null;
      const undo = again && { change: again.changeId, label: again.label };
      this.dispatch({ type: 'decided', meeting, mine: again }, undo ? { history: { undo, redo: null } } : {});
      return;
    }
    this.dispatch({ type: 'decided', meeting, mine: null });
    this.say('error', `“${mine.label}” no longer fits: what it changed is gone. Nothing else was touched.`);
  }

  say(tone: Notice['tone'], text: string): void {
    const notice = { id: ++this.noticeCount, tone, text };
    this.show({ notices: [...this.current.notices.slice(-3), notice] });
    if (tone === 'plain') setTimeout(() => this.putAway(notice.id), 4000);
  }

  putAway(id: number): void {
    this.show({ notices: this.current.notices.filter(notice => notice.id !== id) });
  }

  /** Resolves when everything is stored. */
  private idle(): Promise<void> {
    if (this.sync.copy.pending.length === 0) return Promise.resolve();
    return new Promise(resolve => this.whenIdle.add(resolve));
  }

  /** Takes a step of the machine; what else changes with it in the window is shown along. */
  private dispatch(event: SyncEvent, parts: Partial<SystemState> = {}): readonly SyncEffect[] {
    const { state, effects } = synchronise(this.sync, event);
    this.sync = state;
    this.show(parts);
    for (const effect of effects) this.carryOut(effect);
    if (state.copy.pending.length === 0) {
      this.whenIdle.forEach(resolve => resolve());
      this.whenIdle.clear();
    }
    return effects;
  }

  private carryOut(effect: SyncEffect): void {
    switch (effect.type) {
      case 'send':
        return void this.send(effect.edit, effect.revisions);
      case 'fill':
        return void this.fill(effect.after);
      case 'wait':
        clearTimeout(this.retry);
        this.retry = setTimeout(() => this.dispatch({ type: 'due' }), backOff(effect.failures));
        return;
      case 'keep':
        return void this.outbox.keep(keptOf(this.sync.copy)).catch(() => {
          // A browser that keeps nothing: whoever closes the window before all is stored is asked.
        });
      case 'say':
        return this.say(effect.tone, effect.text);
      case 'not taken up':
        // Whoever takes it up tries again.
        return;
    }
  }

  private async send(edit: PendingEdit, revisions: readonly number[]): Promise<void> {
    this.dispatch(await this.sent(edit, revisions));
  }

  private async sent(edit: PendingEdit, revisions: readonly number[]): Promise<SyncEvent> {
    try {
      return { type: 'stored', edits: await api.edit(this.id, edit, revisions) };
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      const { key } = edit;
      if (error.status === 412) return { type: 'stale', key, revisions, since: error.body.since ?? [] };
      return error.passing ? { type: 'failed', key } : { type: 'refused', key, reason: error.message };
    }
  }

  private async fill(after: number): Promise<void> {
    const edits = await api.editsAfter(this.id, after).catch(() => null);
    this.dispatch({ type: 'filled', edits });
  }

  /** Goes on with what windows have left that are closed. */
  private async takeUpLeft(): Promise<void> {
    for (const { window, kept } of await this.outbox.left()) {
      await this.takeUp(kept);
      await this.outbox.forget(window);
    }
  }

  private async takeUp(kept: Kept): Promise<void> {
    for (let tries = 1; ; tries++) {
      const since = await this.editsSince(kept.lastEdit);
      const effects = since && this.dispatch({ type: 'taken up', kept, since });
      if (effects && !effects.some(({ type }) => type === 'not taken up')) return;
      await new Promise(resolve => setTimeout(resolve, backOff(tries)));
    }
  }

  /** All edits after one; `null` while no answer comes. */
  private async editsSince(after: number): Promise<StoredEdit[] | null> {
    const since: StoredEdit[] = [];
    try {
      for (;;) {
        const more = await api.editsAfter(this.id, since.at(-1)?.id ?? after);
        if (more.length === 0) return since;
        since.push(...more);
      }
    } catch (error) {
      if (error instanceof ApiError && error.passing) return null;
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
    this.current = { ...this.current, ...parts, system, edited, storing, meetings: copy.meetings };
    this.listeners.forEach(listener => listener());
  }

  /** The documents with what is being tried out; `null` where an edit from elsewhere has left no place for it. */
  private tried({ path, document, patch }: Preview): ReadonlyMap<string, unknown> | null {
    const { documents } = this.sync.copy;
    const now = documents.get(path);
    const found = now === document ? ({ ok: true, patch } as const) : placed(now, patch);
    if (found.ok) return new Map(documents).set(path, applyPatch(now, found.patch).document);
    this.preview = null;
    return null;
  }

  private compiled(documents: ReadonlyMap<string, unknown>, before: System): System {
    return before.documents === documents ? before : compileSystem(documents);
  }

  /** Closing a window ends its sending; another window can only go on with it later. */
  private readonly askBeforeLeaving = (event: BeforeUnloadEvent): void => {
    if (this.sync.copy.pending.length > 0) event.preventDefault();
  };

  private open(): void {
    addEventListener('beforeunload', this.askBeforeLeaving);
    this.outbox.open();
    this.stream = new EditStream(this.id, this.sync.copy.lastEdit, {
      onEdit: edit => this.hear(edit),
      onOpen: () => {
        if (this.sync.isWaiting) this.dispatch({ type: 'due' });
      },
    });
    this.stream.open();
    if (this.hasTakenUp) return;
    this.hasTakenUp = true;
    void this.takeUpLeft().catch(() => {
      // A browser that keeps nothing has left nothing.
    });
  }

  /** What is told together is taken in together: a change of several documents is not shown half done. */
  private hear(edit: StoredEdit): void {
    this.heard.push(edit);
    this.hearing ??= setTimeout(() => {
      const edits = this.heard;
      [this.heard, this.hearing] = [[], undefined];
      const own = new Set(this.sync.copy.pending.flatMap(({ parts }) => parts.map(({ key }) => key)));
      this.dispatch({ type: 'told', edits });
      // What others do moves none of our ends; what we do in another window does, and steps may concern anything.
      const isOfOurs = ({ author: by, kind, editKey }: StoredEdit): boolean =>
        !own.has(editKey) && (by === author() || kind !== 'edit');
      if (edits.some(isOfOurs)) void this.steps.readEnds();
    });
  }

  private close(): void {
    removeEventListener('beforeunload', this.askBeforeLeaving);
    this.outbox.close();
    this.stream?.close();
    this.stream = null;
  }
}

/** An edit that met another, to be made once more on top of that. */
function madeAgain(edit: PendingEdit, parts: readonly PendingPart[]): PendingEdit {
  const fresh = parts.map(part => ({ ...part, key: nanoid() }));
  return { ...edit, key: fresh[0]!.key, changeId: nanoid(), parts: fresh };
}
