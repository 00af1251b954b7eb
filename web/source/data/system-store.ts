import { nanoid } from 'nanoid';
import { parseJson, writeJson } from '@periwinkle/core/formats/json-text';
import { applyPatch, PatchError, type Patch } from '@periwinkle/core/formats/patch';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import { ApiError } from './api-error';
import { api, type HistoryEnds, type StoredEdit, type WholeSystem } from './api';
import { EditStream } from './edit-stream';
import { WorkingCopy, type Meeting, type PendingEdit } from './working-copy';

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

const RETRY_MS = [500, 1000, 2000, 4000, 8000];
const storageKey = (id: string): string => `periwinkle:pending:${id}`;

/**
 * A system in this window. Edits show at once and are sent one after another behind; nothing here waits for the network.
 * What is not yet confirmed also lies in the session's storage, so that it survives a reload.
 */
export class SystemStore {
  private copy: WorkingCopy;
  private current: SystemState;
  private preview: { path: string; patch: Patch } | null = null;
  private sending = false;
  private failures = 0;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private stream: EditStream | null = null;
  private noticeCount = 0;
  private historyAsked = false;
  private filling = false;
  private readingHistory: Promise<void> | null = null;
  private readonly listeners = new Set<() => void>();
  private readonly whenIdle = new Set<() => void>();

  constructor(
    readonly id: string,
    whole: WholeSystem,
  ) {
    this.copy = WorkingCopy.of(whole.documents, whole.lastEdit);
    const system = compileSystem(this.copy.documents);
    this.current = {
      system,
      edited: system,
      storing: 'stored',
      history: whole.history,
      meetings: [],
      notices: [],
    };
    this.takeUpPending();
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

  /** Makes an edit. Edits with the same `changeId` are undone together. */
  edit(path: string, patch: Patch, label: string, changeId: string = nanoid()): void {
    if (patch.length === 0) return;
    const edit: PendingEdit = { key: nanoid(), changeId, path, patch, label };
    this.preview = null;
    this.copy = this.copy.withEdit(edit);
    this.show({ history: { undo: label, redo: null } });
    this.keepPending();
    void this.send();
  }

  /** Shows what an edit would do, without making it; `null` shows what is. */
  tryOut(path: string, patch: Patch): void {
    this.preview = patch.length > 0 ? { path, patch } : null;
    this.show({});
  }

  endTryOut(): void {
    if (!this.preview) return;
    this.preview = null;
    this.show({});
  }

  /** Takes the last change back, or brings it back again, once all that is pending has been stored. */
  async step(direction: 'undo' | 'redo'): Promise<void> {
    this.preview = null;
    await this.idle();
    try {
      const edits = await this.stepped(direction, nanoid());
      edits.forEach(edit => this.take(edit));
      const done = direction === 'undo' ? 'Taken back' : 'Brought back';
      this.say('plain', `${done}: ${edits[0]?.label ?? 'the last change'}.`);
      await this.readHistory();
    } catch (error) {
      this.say(
        error instanceof ApiError && error.status === 409 ? 'plain' : 'error',
        (error as Error).message,
      );
    }
  }

  /** A step, asked for again while no answer comes: who presses once goes one step. */
  private async stepped(direction: 'undo' | 'redo', key: string): Promise<StoredEdit[]> {
    for (let tries = 0; ; tries++) {
      try {
        return await api.step(this.id, direction, key);
      } catch (error) {
        const delay = RETRY_MS[tries];
        if (!(error instanceof ApiError && error.passing) || delay === undefined) throw error;
        await new Promise(resolve => setTimeout(resolve, delay));
      }
    }
  }

  /** Decides a meeting: our edit is made again on top of theirs, or given up. */
  decide(meeting: Meeting, keep: 'mine' | 'theirs'): void {
    this.copy = this.copy.withoutMeeting(meeting);
    this.show({});
    if (keep === 'theirs') return;
    if (meeting.patch) return this.edit(meeting.mine.path, meeting.patch, meeting.mine.label);
    this.say(
      'error',
      `“${meeting.mine.label}” no longer fits: what it changed is gone. Nothing else was touched.`,
    );
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
    if (this.copy.pending.length === 0) return Promise.resolve();
    return new Promise(resolve => this.whenIdle.add(resolve));
  }

  private show(parts: Partial<SystemState>): void {
    const { preview } = this;
    const edited = this.compiled(this.copy.documents, this.current.edited);
    let system = edited;
    const tried = preview && this.tried(preview);
    if (tried) system = this.compiled(tried, this.current.system);
    const waiting = this.failures > 0 ? 'waiting' : 'storing';
    const storing = this.copy.pending.length === 0 ? 'stored' : waiting;
    this.current = { ...this.current, ...parts, system, edited, storing, meetings: this.copy.meetings };
    this.listeners.forEach(listener => listener());
  }

  /** The documents with what is being tried out; `null` where an edit from elsewhere has left no place for it. */
  private tried({ path, patch }: { path: string; patch: Patch }): ReadonlyMap<string, unknown> | null {
    try {
      return new Map(this.copy.documents).set(
        path,
        applyPatch(this.copy.documents.get(path), patch).document,
      );
    } catch (error) {
      if (!(error instanceof PatchError)) throw error;
      this.preview = null;
      return null;
    }
  }

  private compiled(documents: ReadonlyMap<string, unknown>, before: System): System {
    return before.documents === documents ? before : compileSystem(documents);
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.retry);
    try {
      for (let edit = this.copy.pending[0]; edit; edit = this.copy.pending[0]) {
        if (!(await this.sendOne(edit))) return;
      }
      this.whenIdle.forEach(resolve => resolve());
      this.whenIdle.clear();
    } finally {
      this.sending = false;
    }
  }

  /** Sends one edit; says whether to go on. */
  private async sendOne(edit: PendingEdit): Promise<boolean> {
    const revision = this.copy.confirmed.get(edit.path)!.revision;
    try {
      const stored = await api.edit(this.id, { ...edit, revision });
      this.failures = 0;
      this.take(stored);
      return true;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.status === 412) {
        error.body.since?.forEach(since => this.take(since));
        if (this.copy.confirmed.get(edit.path)!.revision !== revision) return true;
        // A server with an earlier state than ours, as after a backup was put back, has nothing to tell.
        if (this.failures === 0)
          this.say(
            'error',
            `“${edit.label}” waits: the server has another state of ${edit.path} than this window, as if a backup had been put back. Reload to go on from there; what waits is kept.`,
          );
        this.waitAndRetry();
        return false;
      }
      if (error.passing) {
        this.waitAndRetry();
        return false;
      }
      const { copy, lost } = this.copy.without(edit.key);
      this.copy = copy;
      this.keepPending();
      const more =
        lost.length === 0
          ? ''
          : ` With it went what builds on it: ${lost.map(({ label }) => `“${label}”`).join(', ')}.`;
      this.say('error', `“${edit.label}” was not stored and has been taken back: ${error.message}${more}`);
      return true;
    }
  }

  private waitAndRetry(): void {
    const delay = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)]!;
    this.failures++;
    this.show({});
    this.retry = setTimeout(() => void this.send(), delay);
  }

  private take(edit: StoredEdit): void {
    const gap = this.copy.lacksBefore(edit);
    if (gap !== null) return void this.fillGap(gap);
    this.copy = this.copy.withStored(edit);
    this.keepPending();
    this.show({});
  }

  /** Asks for what was stored between what is known here and what was told. */
  private async fillGap(after: number): Promise<void> {
    if (this.filling) return;
    this.filling = true;
    try {
      const missed = await api.editsAfter(this.id, after);
      missed.forEach(edit => this.take(edit));
    } catch {
      // The next edit that is told asks again.
    } finally {
      this.filling = false;
    }
  }

  /** Closing a window forgets its session, and with it what could not be sent. */
  private readonly askBeforeLeaving = (event: BeforeUnloadEvent): void => {
    if (this.copy.pending.length > 0) event.preventDefault();
  };

  private open(): void {
    addEventListener('beforeunload', this.askBeforeLeaving);
    this.stream = new EditStream(this.id, this.copy.lastEdit, {
      onEdit: edit => {
        const own = this.copy.pending.some(pending => pending.key === edit.editKey);
        this.take(edit);
        if (!own) void this.readHistory();
      },
      onOpen: () => {
        if (this.failures > 0) void this.send();
      },
    });
    this.stream.open();
  }

  private close(): void {
    removeEventListener('beforeunload', this.askBeforeLeaving);
    this.stream?.close();
    this.stream = null;
  }

  /** Asks what can be taken back; whoever asks while an answer is awaited shares one more question. */
  private readHistory(): Promise<void> {
    this.historyAsked = true;
    this.readingHistory ??= this.readHistoryUntilFresh();
    return this.readingHistory;
  }

  private async readHistoryUntilFresh(): Promise<void> {
    while (this.historyAsked) {
      this.historyAsked = false;
      try {
        const history = await api.history(this.id);
        if (this.copy.pending.length === 0) this.show({ history });
      } catch {
        // What can be taken back is asked again with the next edit.
      }
    }
    this.readingHistory = null;
  }

  /** Pending edits with the documents they were made on, for after a reload. */
  private keepPending(): void {
    const { pending, confirmed, meetings, lastEdit } = this.copy;
    if (pending.length === 0 && meetings.length === 0) return sessionStorage.removeItem(storageKey(this.id));
    const paths = new Set([...pending, ...meetings.map(meeting => meeting.mine)].map(edit => edit.path));
    const bases = [...confirmed.values()].filter(document => paths.has(document.path));
    sessionStorage.setItem(storageKey(this.id), writeJson({ pending, meetings, bases, lastEdit }));
  }

  private takeUpPending(): void {
    const text = sessionStorage.getItem(storageKey(this.id));
    if (!text) return;
    const kept = parseJson(text) as {
      pending: PendingEdit[];
      meetings?: Meeting[];
      bases: { path: string; revision: number; body: unknown }[];
      lastEdit: number;
    };
    // Back to what the edits were made on; the stream of events then tells what has happened since. A server with an earlier
    // state, as after a backup was put back, has nothing to tell: there they are made on what it has.
    const documents = [...this.copy.confirmed.values()].map(
      document =>
        kept.bases.find(base => base.path === document.path && base.revision <= document.revision) ??
        document,
    );
    this.copy = WorkingCopy.of(documents, Math.min(kept.lastEdit, this.copy.lastEdit));
    for (const edit of kept.pending) {
      try {
        this.copy = this.copy.withEdit(edit);
      } catch {
        this.say('error', `“${edit.label}” could not be taken up again after the reload.`);
      }
    }
    this.copy = this.copy.withMeetings(kept.meetings ?? []);
    this.show({});
    void this.send();
  }
}
