import type { NameChange, NameLookup } from '@periwinkle/core/edits/renamed-names';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import type { StoredEdit } from '@periwinkle/protocol/wire';

/** What becomes of a whole document by an edit: it is there afterwards, or not; `null` where only something in it changes. */
function wholeAfter({ patch }: StoredEdit): 'made' | 'removed' | null {
  const whole = patch.findLast(operation => operation.path === '' && operation.op !== 'test');
  if (!whole) return null;
  return whole.op === 'remove' || ('value' in whole && whole.value === null) ? 'removed' : 'made';
}

const kindOf = (path: string): string | undefined => documentKind(path)?.kind;

/** A document that one change has put in another place: a component or an icon that is called otherwise from then on. */
export interface MovedDocument {
  readonly removal: StoredEdit;
  readonly to: string;
}

/** Where documents went that a change removed while it made one of their kind. */
export function movedDocuments(edits: readonly StoredEdit[]): readonly MovedDocument[] {
  return edits.flatMap(removal => {
    if (wholeAfter(removal) !== 'removed') return [];
    const ofItsKind = edits.filter(
      ({ changeId, path }) => changeId === removal.changeId && kindOf(path) === kindOf(removal.path),
    );
    const made = ofItsKind.filter(each => wholeAfter(each) === 'made');
    const removed = ofItsKind.filter(each => wholeAfter(each) === 'removed');
    // Which of several went where, nothing tells.
    return made.length === 1 && removed.length === 1 ? [{ removal, to: made[0]!.path }] : [];
  });
}

/** The same edits, what a change makes before what it removes, so that what is moved is there before its old place is gone. */
export function makingFirst(
  edits: readonly StoredEdit[],
  moves: readonly MovedDocument[],
): readonly StoredEdit[] {
  const targets = new Set(moves.map(({ to }) => to));
  const isMaking = (edit: StoredEdit): boolean => targets.has(edit.path) && wholeAfter(edit) === 'made';
  return targets.size === 0 ? edits : [...edits.filter(isMaking), ...edits.filter(edit => !isMaking(edit))];
}

/** What is named otherwise once a document lies in another place; `null` where nobody names it by that. */
export function namesOfMove(from: string, before: unknown, to: string, after: unknown): NameLookup | null {
  const change = changeOf(from, before, to, after);
  return change && change.name !== change.to ? { of: null, changes: [change] } : null;
}

function changeOf(from: string, before: unknown, to: string, after: unknown): NameChange | null {
  switch (kindOf(from)) {
    case 'component':
      return { kind: 'component', name: idOf(before), to: idOf(after) };
    case 'icon':
      return { kind: 'icon', name: fileName(from), to: fileName(to) };
    default:
      return null;
  }
}

const idOf = (component: unknown): string => String((component as { readonly id?: unknown }).id);

const fileName = (path: string): string => path.replace(/^.*\/|\.svg$/g, '');
