import type { Patch, PatchOperation } from './operations';
import { applyPatch } from './patch';
import { rebase, type PatchConflict } from './rebase';

/** An edit as it was made: what it did, and what takes it back. */
export interface DoneEdit {
  readonly patch: Patch;
  readonly inverse: Patch;
}

export type RebasedOverEdits =
  | { readonly ok: true; readonly patch: Patch }
  /** `index` is that of the edit which was met. */
  | { readonly ok: false; readonly index: number; readonly meeting: PatchConflict };

/**
 * A patch that was made before some edits, as it follows them: step by step, as whoever hears of them one by one would have it. `now` is the
 * document as they have left it. Costs the operations of both sides, and what those touched that have to do with one another.
 */
export function rebaseOverEdits(now: unknown, edits: readonly DoneEdit[], mine: Patch): RebasedOverEdits {
  let states: unknown[] | null = null;
  let patch: readonly PatchOperation[] = mine;
  for (const [index, { patch: theirs }] of edits.entries()) {
    if (areApart(patch, theirs)) continue;
    states ??= statesBefore(now, edits);
    const both = rebase(states[index], patch, theirs);
    if (!both.ok) return { ok: false, index, meeting: both.meeting };
    patch = both.mine;
  }
  return { ok: true, patch };
}

/** The document as it was before each of the edits. */
function statesBefore(now: unknown, edits: readonly DoneEdit[]): unknown[] {
  const states = [now];
  for (const { inverse } of edits.toReversed()) states.push(applyPatch(states.at(-1), inverse).document);
  return states.reverse().slice(0, -1);
}

/** Whether what they did can be told from the paths alone to leave mine as it is. */
function areApart(mine: Patch, theirs: Patch): boolean {
  const done = theirs.filter(({ op }) => op !== 'test');
  return (
    done.every(each => isPlain(each) && !shifts(each)) &&
    // What follows a shift of mine is said in other indices.
    mine.every((each, index) => isPlain(each) && (index === mine.length - 1 || !shifts(each))) &&
    mine.every(my => done.every(their => !leads(my.path, their.path) && !leads(their.path, my.path)))
  );
}

/** Whether it concerns one place, said as it is. */
const isPlain = ({ op, path }: PatchOperation): boolean =>
  op !== 'move' && op !== 'copy' && !path.endsWith('/-');

/** Whether others of a list may have other indices by it. */
const shifts = ({ op, path }: PatchOperation): boolean => op !== 'replace' && /\/\d+$/.test(path);

const leads = (from: string, to: string): boolean => to === from || to.startsWith(`${from}/`);
