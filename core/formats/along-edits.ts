import { applyPatch, type Patch, type PatchOperation } from './patch';
import { rebase, type Meeting } from './rebase';

/** An edit as it was made: what it did, and what takes it back. */
export interface DoneEdit {
  readonly patch: Patch;
  readonly inverse: Patch;
}

export type Along =
  | { readonly ok: true; readonly patch: Patch }
  /** `index` is that of the edit which was met. */
  | { readonly ok: false; readonly index: number; readonly meeting: Meeting };

/**
 * A patch that was made before some edits, as it follows them: step by step, as whoever hears of them one by one would have it. `now` is the
 * document as they have left it. Costs what the edits touched, and the operations of both sides.
 */
export function alongEdits(now: unknown, edits: readonly DoneEdit[], mine: Patch): Along {
  const states = [now];
  for (const { inverse } of edits.toReversed()) states.unshift(applyPatch(states[0], inverse).document);
  let patch: readonly PatchOperation[] = mine;
  for (const [index, { patch: theirs }] of edits.entries()) {
    const both = rebase(states[index], patch, theirs);
    if (!both.ok) return { ok: false, index, meeting: both.meeting };
    patch = both.mine;
  }
  return { ok: true, patch };
}
