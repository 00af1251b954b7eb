import { rebaseOverEdits } from '@periwinkle/core/patch/rebase-over-edits';
import { guarded } from '@periwinkle/core/patch/identity';
import type { Patch } from '@periwinkle/core/patch/operations';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { relocated } from '@periwinkle/core/patch/relocate';
import type { HistoryEnds, NamedChange, StoredDocument, StoredEdit } from '@periwinkle/protocol/wire';
import type { HistoryStep, PendingEdit, PendingPart } from '../working-copy';

type Written = StoredEdit & { readonly inverse: Patch };

interface Change {
  readonly id: string;
  readonly author: string;
  state: 'done' | 'undone';
  /** Numbers of its newest edit, and of the newest that did it, took it back or brought it back. */
  made: number;
  position: number;
  isInTheWay: boolean;
  /** Under which the edits stand that were the last to do or undo it. */
  act: string;
}

export type Answer =
  | { readonly status: 'stored'; readonly edits: readonly StoredEdit[] }
  | { readonly status: 'stale'; readonly since: readonly StoredEdit[] }
  | { readonly status: 'refused'; readonly isGone?: boolean };

/** What a server must do, in the plainest words: a list of edits, each made on the revision before it, or placed there. */
export class NaiveServer {
  readonly edits: Written[] = [];
  readonly changes: Change[] = [];
  private readonly documents = new Map<string, StoredDocument>();

  constructor(bodies: Readonly<Record<string, unknown>>) {
    for (const [path, body] of Object.entries(bodies)) this.documents.set(path, { path, revision: 1, body });
  }

  whole(): { documents: StoredDocument[]; lastEdit: number } {
    return { documents: [...this.documents.values()], lastEdit: this.edits.length };
  }

  body(path: string): unknown {
    return this.at(path).body;
  }

  private at(path: string): StoredDocument {
    return this.documents.get(path) ?? { path, revision: 0, body: null };
  }

  since(after: number): StoredEdit[] {
    return this.edits.slice(after);
  }

  store(edit: PendingEdit, revisions: readonly number[], author: string, isRefused: boolean): Answer {
    const twins = this.edits.filter(each => edit.parts.some(({ key }) => key === each.editKey));
    if (twins.length > 0) return { status: 'stored', edits: twins };
    const made = new Map(edit.parts.map(({ path }, index) => [path, revisions[index]!]));
    const since = this.edits.filter(each => each.revision > (made.get(each.path) ?? Infinity));
    const placed = edit.parts.map(part => this.placed(part, made.get(part.path)!, since));
    if (placed.some(patch => patch === null)) return { status: 'stale', since };
    const change = this.changes.find(({ id }) => id === edit.changeId);
    if (isRefused || (change && change.act !== change.id)) return { status: 'refused' };
    const number = this.edits.length + edit.parts.length;
    const last = { made: number, position: number };
    if (change) Object.assign(change, last);
    else
      this.changes.push({
        ...{ id: edit.changeId, author, state: 'done', act: edit.changeId, isInTheWay: false },
        ...last,
      });
    const names = { kind: 'edit', changeId: edit.changeId, target: null, label: edit.label, author } as const;
    const edits = edit.parts.map(({ key, path }, index) =>
      this.write(path, placed[index]!, { ...names, editKey: key }),
    );
    return { status: 'stored', edits };
  }

  /** A part as it follows what was stored since; `null` where it meets it, or was made on a state that is none. */
  private placed({ path, patch }: PendingPart, made: number, since: readonly Written[]): Patch | null {
    const { revision, body } = this.at(path);
    const own = since.filter(each => each.path === path);
    if (own.length !== revision - made) return null;
    const along = rebaseOverEdits(body, own, patch);
    return along.ok ? along.patch : null;
  }

  /** What an author would take back and bring back next. */
  ends(author: string): HistoryEnds {
    const own = this.changes.filter(each => each.author === author && !each.isInTheWay);
    const newest = (state: Change['state']): Change | undefined =>
      own.filter(each => each.state === state).sort((a, b) => b.position - a.position)[0];
    const [undo, redo] = [newest('done'), newest('undone')];
    const made = Math.max(0, ...this.changes.filter(each => each.author === author).map(each => each.made));
    const named = (change: Change | undefined): NamedChange | null =>
      change ? { change: change.id, label: change.id } : null;
    return { undo: named(undo), redo: redo && made > redo.position ? null : named(redo) };
  }

  stepNamed({ direction, change: id }: HistoryStep, author: string, key: string): Answer {
    const before = this.edits.filter(each => each.changeId === key);
    if (before.length > 0) return { status: 'stored', edits: before };
    const change = this.changes.find(each => each.id === id);
    if (!change) return { status: 'refused', isGone: true };
    if (change.state !== (direction === 'undo' ? 'done' : 'undone')) return { status: 'refused' };
    const edits = this.step(change, author, key);
    if (edits.length > 0) return { status: 'stored', edits };
    change.isInTheWay = true;
    return { status: 'refused' };
  }

  /** Takes a change back or brings it back; no edits where something stands in the way. */
  step(change: Change, author: string, key: string): readonly StoredEdit[] {
    const before = this.edits.filter(each => each.changeId === key);
    if (before.length > 0) return before;
    const parts = this.edits.filter(each => each.changeId === change.act).reverse();
    const bodies = new Map(parts.map(({ path }) => [path, this.body(path)]));
    const patches: [string, Patch][] = [];
    for (const { path, inverse } of parts) {
      const found = relocated(bodies.get(path), inverse);
      if (!found.ok) return [];
      bodies.set(path, applyPatch(bodies.get(path), found.patch).document);
      patches.push([path, found.patch]);
    }
    const kind = change.state === 'done' ? 'undo' : 'redo';
    const done = patches.map(([path, patch], index) =>
      this.write(path, patch, {
        kind,
        changeId: key,
        target: change.id,
        editKey: `${key}.${index}`,
        label: change.id,
        author,
      }),
    );
    change.state = kind === 'undo' ? 'undone' : 'done';
    change.act = key;
    change.position = this.edits.length;
    return done;
  }

  private write(
    path: string,
    patch: Patch,
    names: Pick<StoredEdit, 'kind' | 'changeId' | 'target' | 'editKey' | 'label' | 'author'>,
  ): StoredEdit {
    const current = this.at(path);
    const { document: body, inverse } = applyPatch(current.body, patch);
    const revision = current.revision + 1;
    this.documents.set(path, { path, revision, body });
    const edit = { id: this.edits.length + 1, path, revision, patch, ...names, at: '' };
    this.edits.push({ ...edit, inverse: guarded(body, inverse) });
    return edit;
  }
}
