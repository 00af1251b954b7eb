import { guarded, identified } from '@periwinkle/core/patch/identity';
import type { Patch } from '@periwinkle/core/patch/operations';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { relocated } from '@periwinkle/core/patch/relocate';
import type { HistoryEnds, NamedChange, StoredEdit } from '@periwinkle/protocol/wire';
import type { EditPart, PendingEdit, PendingPart, WorkingCopy } from './working-copy';

/** What an edit did to a document, and what that was before: what takes it back is worked out only when somebody does. */
interface DonePart extends EditPart {
  readonly before: unknown;
}

/** An edit of a change. */
interface OwnEdit {
  readonly key: string;
  /** Keys of its parts, by which it is heard of. */
  readonly partKeys: readonly string[];
  /** `null` where it is only heard of. */
  readonly parts: readonly DonePart[] | null;
}

const doneOn = (copy: WorkingCopy, parts: readonly EditPart[]): DonePart[] =>
  parts.map(({ path, patch }) => ({ path, patch, before: copy.shownAt(path) }));

function inverseOf({ before, patch }: DonePart): Patch {
  const { document, inverse } = applyPatch(before, patch);
  return guarded(document, inverse);
}

/** A change of this person, made in this window or heard of. */
export interface OwnChange extends NamedChange {
  readonly edits: readonly OwnEdit[];
  /** What it was made of, where it was taken back before any of it was sent. */
  readonly unsent?: readonly PendingEdit[];
}

/** What comes next below what a window knows of; `undefined` while it has not been asked for. */
interface Earlier {
  readonly undo: NamedChange | null | undefined;
  readonly redo: NamedChange | null | undefined;
}

/**
 * What this person has done, as far as a window knows: what was done since it was opened, oldest first, and what was taken back of it, the
 * last at the end.
 */
export interface OwnHistory {
  readonly done: readonly OwnChange[];
  readonly undone: readonly OwnChange[];
  readonly earlier: Earlier;
}

export const UNKNOWN: Earlier = { undo: undefined, redo: undefined };

/** So many changes are remembered with what takes them back. */
const MOST = 200;

export const ownHistory = (earlier: HistoryEnds): OwnHistory => ({ done: [], undone: [], earlier });

/** What can be taken back and brought back next; neither while that is not known. */
export function endsOf({ done, undone, earlier }: OwnHistory): HistoryEnds {
  const named = (change: OwnChange | undefined): NamedChange | null =>
    change ? { change: change.change, label: change.label } : null;
  return {
    undo: named(done.at(-1)) ?? earlier.undo ?? null,
    redo: named(undone.at(-1)) ?? earlier.redo ?? null,
  };
}

/** Whether it takes the server to know what comes next. */
export const isOpen = ({ done, undone, earlier }: OwnHistory): boolean =>
  (done.length === 0 && earlier.undo === undefined) || (undone.length === 0 && earlier.redo === undefined);

/** Takes in the ends as the server knows them: they are below what is known here, or there instead of it. */
export function withEnds({ done, undone }: OwnHistory, ends: HistoryEnds): OwnHistory {
  const isLast = (list: readonly OwnChange[], end: NamedChange | null): boolean =>
    list.length > 0 && list.at(-1)!.change === end?.change;
  const [isDone, isUndone] = [isLast(done, ends.undo), isLast(undone, ends.redo)];
  return {
    done: isDone ? done : [],
    undone: isUndone ? undone : [],
    earlier: { undo: isDone ? undefined : ends.undo, redo: isUndone ? undefined : ends.redo },
  };
}

/** An edit is made here; `copy` is what it was made on. Nothing can be brought back after it. */
export function withMade(history: OwnHistory, edit: PendingEdit, copy: WorkingCopy): OwnHistory {
  const partKeys = edit.parts.map(({ key }) => key);
  const own = { key: edit.key, partKeys, parts: doneOn(copy, edit.parts) };
  return withDone(history, edit, own, history.done.length);
}

function withDone(
  { done, earlier }: OwnHistory,
  { changeId, label }: { readonly changeId: string; readonly label: string },
  edit: OwnEdit,
  place: number,
): OwnHistory {
  const known = done.find(({ change }) => change === changeId);
  const change: OwnChange = known
    ? { ...known, edits: [...known.edits, edit] }
    : { change: changeId, label, edits: [edit] };
  const others = done.filter(each => each !== known);
  const all = others.toSpliced(Math.min(place, others.length), 0, change);
  return { done: all.slice(-MOST), undone: [], earlier: { ...earlier, redo: null } };
}

/** Takes in an edit that was stored elsewhere: by this person in another window, or a step of anybody. */
export function withHeard(
  history: OwnHistory,
  edit: StoredEdit,
  author: string,
  pending: readonly PendingEdit[],
): OwnHistory {
  const { done, undone } = history;
  const { kind, target } = edit;
  if (kind === 'edit') {
    if (edit.author !== author) return history;
    const isIt = ({ partKeys }: OwnEdit): boolean => partKeys.includes(edit.editKey);
    const isKnown = [...done, ...history.undone].some(({ edits }) => edits.some(isIt));
    if (isKnown) return history;
    // What waits here is stored after it.
    const waiting = new Set(pending.map(({ changeId }) => changeId));
    const first = done.findIndex(({ change }) => waiting.has(change));
    const heard = { key: edit.editKey, partKeys: [edit.editKey], parts: null };
    return withDone(history, edit, heard, first < 0 ? done.length : first);
  }
  const [from, to] = kind === 'undo' ? ([done, undone] as const) : ([undone, done] as const);
  // It was asked for here, or is heard of a second time.
  if (to.some(({ change }) => change === target)) return history;
  const known = from.find(({ change }) => change === target);
  // Whose it is only the server knows.
  if (!known) return { ...history, earlier: UNKNOWN };
  const moved = { ...known, edits: known.edits.map(each => ({ ...each, parts: null })) };
  const [left, more] = [from.filter(each => each !== known), [...to, moved]];
  return kind === 'undo'
    ? { ...history, done: left, undone: more }
    : { ...history, undone: left, done: more };
}

/** Forgets edits that will never be stored, and changes of which nothing is left. */
export function withoutEdits(history: OwnHistory, keys: ReadonlySet<string>): OwnHistory {
  if (keys.size === 0) return history;
  const done = history.done.flatMap(change => {
    const edits = change.edits.filter(({ key }) => !keys.has(key));
    return edits.length === change.edits.length ? [change] : edits.length > 0 ? [{ ...change, edits }] : [];
  });
  return { ...history, done };
}

/** Forgets a change: nobody can step by it any more. */
export function withoutChange(history: OwnHistory, id: string): OwnHistory {
  const isOther = ({ change }: NamedChange): boolean => change !== id;
  return { ...history, done: history.done.filter(isOther), undone: history.undone.filter(isOther) };
}

/** What a step does to what is shown; nothing where that is not known here, or has no place by now. */
export function stepParts(copy: WorkingCopy, { edits }: OwnChange, stepKey: string): readonly PendingPart[] {
  const documents = new Map<string, unknown>();
  const patches = new Map<string, Patch>();
  for (const { parts } of edits.toReversed()) {
    if (!parts) return [];
    for (const part of parts.toReversed()) {
      const { path } = part;
      const before = documents.has(path) ? documents.get(path) : copy.shownAt(path);
      const found = relocated(before, inverseOf(part));
      if (!found.ok) return [];
      patches.set(path, [...(patches.get(path) ?? []), ...identified(before, found.patch)]);
      documents.set(path, applyPatch(before, found.patch).document);
    }
  }
  return [...patches].map(([path, patch], index) => ({ key: `${stepKey}.${index}`, path, patch }));
}

/** A change as it stands once a step of some `parts` has turned it the other way round. */
export function turned(
  copy: WorkingCopy,
  { change, label, edits }: OwnChange,
  parts: readonly EditPart[],
): OwnChange {
  const partKeys = edits.flatMap(each => each.partKeys);
  const done = parts.length > 0 ? doneOn(copy, parts) : null;
  return { change, label, edits: [{ key: edits[0]?.key ?? change, partKeys, parts: done }] };
}
