import type { HistoryEnds, NamedChange, StoredEdit } from '@periwinkle/protocol/wire';
import type { KnownEdit } from '../data/api';
import { placedParts, type Kept } from './kept';
import { ownHistory, withMade, type OwnHistory } from './own-history';
import type { Unplaced } from './unplaced';
import type { HistoryStep, Meeting, PendingEdit, WorkingCopy } from './working-copy';

export interface Refused {
  readonly key: string;
  readonly reason: string;
  /** Whether there is nothing that it could be about. */
  readonly isGone?: boolean;
}

/** How a window stands to the server. */
export interface Synchronisation {
  readonly copy: WorkingCopy;
  /** Who works in this window, as the server knows them. */
  readonly author: string;
  readonly history: OwnHistory;
  /** What could not be placed, and is kept until somebody has seen to it. */
  readonly unplaced: readonly Unplaced[];
  /** Key of the edit that is on its way. */
  readonly sent: string | null;
  /** Key of the edit that was sent last: without an answer nobody knows whether it is stored. */
  readonly tried: string | null;
  /** What the server has refused, until it is known whether something was stored that the edit did not know of. */
  readonly doubt: Refused | null;
  /** Why nothing could be stored last, in words. */
  readonly trouble: string | null;
  /** How often in a row an answer did not come. */
  readonly failures: number;
  /** Whether nothing is sent until some time has passed. */
  readonly isWaiting: boolean;
  /** Whether edits are asked for that were missed. */
  readonly isFilling: boolean;
  /** The history as it was when its ends were asked for, while no answer has come. */
  readonly asked: OwnHistory | null;
}

/** What happens to it. */
export type SyncEvent =
  /** An edit is made; in the stead of one that could not be placed. */
  | { readonly type: 'made'; readonly edit: PendingEdit; readonly insteadOf?: string }
  /** A step through the history is asked for, by a key of its own: of one change, or of the next one. */
  | {
      readonly type: 'step';
      readonly direction: HistoryStep['direction'];
      readonly key: string;
      readonly change?: NamedChange;
    }
  | { readonly type: 'stored'; readonly key: string; readonly edits: readonly StoredEdit[] }
  /** The edit was made on revisions that are not the server's; what was stored since. */
  | {
      readonly type: 'stale';
      /** As it was sent: what it is about may lie elsewhere by now. */
      readonly edit: PendingEdit;
      readonly revisions: readonly number[];
      readonly since: readonly StoredEdit[];
    }
  | (Refused & { readonly type: 'refused' })
  /** No answer, or one that says no more than: later. */
  | { readonly type: 'failed'; readonly key: string; readonly reason?: string }
  | { readonly type: 'told'; readonly edits: readonly StoredEdit[] }
  /** Edits that were asked for; `null` where no answer came. */
  | { readonly type: 'filled'; readonly edits: readonly StoredEdit[] | null }
  /** The ends of the history that were asked for; `null` where no answer came. */
  | { readonly type: 'ends'; readonly ends: HistoryEnds | null }
  /** The time to wait is over, or the server can be reached. */
  | { readonly type: 'due' }
  | { readonly type: 'decided'; readonly meeting: Meeting; readonly mine: PendingEdit | null }
  /** An edit that met another, and is put aside. */
  | { readonly type: 'put aside'; readonly meeting: Meeting }
  | { readonly type: 'put away'; readonly key: string }
  /** The system as it was read anew, because the server has another state than was known. */
  | { readonly type: 'read'; readonly copy: WorkingCopy; readonly ends: HistoryEnds }
  /** What a window left that was closed, and all that has been stored since. */
  | { readonly type: 'taken up'; readonly kept: Kept; readonly since: readonly StoredEdit[] };

/** What is to be done then. */
export type SyncEffect =
  | { readonly type: 'send'; readonly edit: PendingEdit; readonly revisions: readonly number[] }
  | { readonly type: 'fill'; readonly after: KnownEdit }
  /** The server has another state than this window knows. */
  | { readonly type: 'read anew' }
  | { readonly type: 'ask ends' }
  | { readonly type: 'wait'; readonly failures: number }
  | { readonly type: 'keep' }
  /** What was left could not be taken up yet. */
  | { readonly type: 'not taken up' }
  | { readonly type: 'say'; readonly tone: 'plain' | 'error'; readonly text: string };

export interface SyncStep {
  readonly state: Synchronisation;
  readonly effects: readonly SyncEffect[];
}

const NOTHING_EARLIER: HistoryEnds = { undo: null, redo: null };

export const synchronising = (
  copy: WorkingCopy,
  author: string = '',
  earlier: HistoryEnds = NOTHING_EARLIER,
): Synchronisation => ({
  copy,
  author,
  history: ownHistory(earlier),
  unplaced: [],
  sent: null,
  tried: null,
  doubt: null,
  trouble: null,
  failures: 0,
  isWaiting: false,
  isFilling: false,
  asked: null,
});

export const only = (state: Synchronisation, ...effects: SyncEffect[]): SyncStep => ({ state, effects });
export const say = (tone: 'plain' | 'error', text: string): SyncEffect => ({ type: 'say', tone, text });
export const problem = (text: string): SyncEffect => say('error', text);

/** An edit is made on what is shown; in the stead of one that could not be placed. */
export function made(state: Synchronisation, edit: PendingEdit, insteadOf?: string): Synchronisation {
  const copy = state.copy.withEdit(edit);
  const history = withMade(state.history, edit, state.copy);
  const unplaced =
    insteadOf === undefined
      ? state.unplaced
      : state.unplaced.filter(({ edit: each }) => each.key !== insteadOf);
  return { ...state, copy, history, unplaced };
}

/** An edit as it is to be made on what is shown by now, by other keys; `null` where it has no place. */
export function placedAnew(
  copy: WorkingCopy,
  edit: PendingEdit,
  key: string,
  changeId: string,
): PendingEdit | null {
  const parts = placedParts(copy, edit.parts)?.map((part, index) => ({
    ...part,
    key: index === 0 ? key : `${key}.${index}`,
  }));
  return parts ? { key, changeId, label: edit.label, parts } : null;
}

/** Keeps an edit that could not be placed. A step has nothing that would be lost. */
export const aside = (state: Synchronisation, edit: PendingEdit, reason: string): Synchronisation =>
  edit.step ? state : { ...state, unplaced: [...state.unplaced, { edit, reason }] };
