import { PatchError } from '@periwinkle/core/formats/patch';
import type { StoredEdit } from '../data/stored';
import { broughtUpToDate, type Kept } from './kept';
import type { Meeting, PendingEdit, WorkingCopy } from './working-copy';

/** How a window stands to the server. */
export interface Synchronisation {
  readonly copy: WorkingCopy;
  /** Key of the edit that is on its way. */
  readonly sent: string | null;
  /** How often in a row an answer did not come. */
  readonly failures: number;
  /** Whether nothing is sent until some time has passed. */
  readonly isWaiting: boolean;
  /** Whether edits are asked for that were missed. */
  readonly isFilling: boolean;
}

/** What happens to it. */
export type SyncEvent =
  | { readonly type: 'made'; readonly edit: PendingEdit }
  | { readonly type: 'stored'; readonly edits: readonly StoredEdit[] }
  /** The edit was made on revisions that are not the server's; what was stored since. */
  | {
      readonly type: 'stale';
      readonly key: string;
      readonly revisions: readonly number[];
      readonly since: readonly StoredEdit[];
    }
  | { readonly type: 'refused'; readonly key: string; readonly reason: string }
  /** No answer, or one that says no more than: later. */
  | { readonly type: 'failed'; readonly key: string }
  | { readonly type: 'told'; readonly edits: readonly StoredEdit[] }
  /** Edits that were asked for; `null` where no answer came. */
  | { readonly type: 'filled'; readonly edits: readonly StoredEdit[] | null }
  /** The time to wait is over, or the server can be reached. */
  | { readonly type: 'due' }
  | { readonly type: 'decided'; readonly meeting: Meeting; readonly mine: PendingEdit | null }
  /** What a window left that was closed, and all that has been stored since. */
  | { readonly type: 'taken up'; readonly kept: Kept; readonly since: readonly StoredEdit[] };

/** What is to be done then. */
export type SyncEffect =
  | { readonly type: 'send'; readonly edit: PendingEdit; readonly revisions: readonly number[] }
  | { readonly type: 'fill'; readonly after: number }
  | { readonly type: 'wait'; readonly failures: number }
  | { readonly type: 'keep' }
  /** What was left could not be taken up yet. */
  | { readonly type: 'not taken up' }
  | { readonly type: 'say'; readonly tone: 'plain' | 'error'; readonly text: string };

export interface SyncStep {
  readonly state: Synchronisation;
  readonly effects: readonly SyncEffect[];
}

export const synchronising = (copy: WorkingCopy): Synchronisation => ({
  copy,
  sent: null,
  failures: 0,
  isWaiting: false,
  isFilling: false,
});

/**
 * One step: what a window knows and does after an event. Pure; who runs it carries out the effects and answers with events. Throws
 * `PatchError` for an edit that does not fit what is shown.
 */
export function synchronise(before: Synchronisation, event: SyncEvent): SyncStep {
  const { state, effects } = sending(after(before, event));
  const isKept =
    state.copy.pending === before.copy.pending &&
    state.copy.meetings === before.copy.meetings &&
    (state.copy.confirmed === before.copy.confirmed || isAtRest(state.copy));
  return { state, effects: isKept ? effects : [...effects, { type: 'keep' }] };
}

const isAtRest = ({ pending, meetings }: WorkingCopy): boolean => pending.length + meetings.length === 0;

const only = (state: Synchronisation, ...effects: SyncEffect[]): SyncStep => ({ state, effects });
const problem = (text: string): SyncEffect => ({ type: 'say', tone: 'error', text });

function after(state: Synchronisation, event: SyncEvent): SyncStep {
  switch (event.type) {
    case 'made':
      return only({ ...state, copy: state.copy.withEdit(event.edit) });
    case 'stored':
      return taking({ ...state, sent: null, failures: 0 }, event.edits);
    case 'stale':
      return afterStale({ ...state, sent: null }, event);
    case 'refused':
      return afterRefusal({ ...state, sent: null, failures: 0 }, event.key, event.reason);
    case 'failed':
      return afterFailure({ ...state, sent: null }, event.key);
    case 'told':
      return taking(state, event.edits);
    case 'filled':
      return event.edits
        ? taking({ ...state, isFilling: false }, event.edits)
        : waiting({ ...state, isFilling: false });
    case 'due':
      return only({ ...state, isWaiting: false });
    case 'decided':
      return afterDecision(state, event.meeting, event.mine);
    case 'taken up':
      return takingUp(state, event.kept, event.since);
  }
}

/** Sends the first edit that waits, one at a time. */
function sending({ state, effects }: SyncStep): SyncStep {
  const [edit] = state.copy.pending;
  if (!edit || state.sent !== null || state.isWaiting || state.isFilling) return { state, effects };
  const revisions = revisionsOf(state.copy, edit);
  return { state: { ...state, sent: edit.key }, effects: [...effects, { type: 'send', edit, revisions }] };
}

/** The revisions that the parts of an edit were made on. */
const revisionsOf = (copy: WorkingCopy, { parts }: PendingEdit): number[] =>
  parts.map(({ path }) => copy.confirmedAt(path).revision);

function waiting(state: Synchronisation): SyncStep {
  const failures = state.failures + 1;
  return only({ ...state, failures, isWaiting: true }, { type: 'wait', failures });
}

/** What has been stored all the same is known by now from elsewhere. */
const afterFailure = (state: Synchronisation, key: string): SyncStep =>
  state.copy.pending.some(edit => edit.key === key) ? waiting(state) : only(state);

/** Takes in what was stored, in its order; asks for what is missing before it. */
function taking(before: Synchronisation, edits: readonly StoredEdit[]): SyncStep {
  let state = before;
  for (const edit of edits) {
    if (!state.copy.lacksBefore(edit)) state = { ...state, copy: state.copy.withStored(edit) };
    else if (!state.isFilling)
      return only({ ...state, isFilling: true }, { type: 'fill', after: state.copy.lastEdit });
  }
  return only(state);
}

function afterStale(
  before: Synchronisation,
  { key, revisions, since }: Extract<SyncEvent, { type: 'stale' }>,
): SyncStep {
  const edit = before.copy.pending.find(each => each.key === key);
  const taken = taking(before, since);
  if (!edit) return taken;
  const known = revisionsOf(taken.state.copy, edit);
  if (taken.state.isFilling || known.some((revision, index) => revision !== revisions[index])) return taken;
  // A server with an earlier state than ours, as after a backup was put back, has nothing to tell.
  const waits = waiting(taken.state);
  const text = `“${edit.label}” waits: the server has another state of ${edit.parts.map(({ path }) => path).join(', ')} than this window, as if a backup had been put back. Reload to go on from there; what waits is kept.`;
  return before.failures > 0 ? waits : only(waits.state, ...waits.effects, problem(text));
}

function afterRefusal(state: Synchronisation, key: string, reason: string): SyncStep {
  const label = state.copy.pending.find(edit => edit.key === key)?.label;
  const { copy, lost } = state.copy.without(key);
  if (label === undefined) return only({ ...state, copy });
  const more =
    lost.length === 0
      ? ''
      : ` With it went what builds on it: ${lost.map(each => `“${each.label}”`).join(', ')}.`;
  const text = `“${label}” was not stored and has been taken back: ${reason}${more}`;
  return only({ ...state, copy }, problem(text));
}

function afterDecision(state: Synchronisation, meeting: Meeting, mine: PendingEdit | null): SyncStep {
  const copy = state.copy.withoutMeeting(meeting);
  return only({ ...state, copy: mine ? copy.withEdit(mine) : copy });
}

/** Takes up what another window has left, once nothing of our own is under way and both know the same of the server. */
function takingUp(before: Synchronisation, kept: Kept, since: readonly StoredEdit[]): SyncStep {
  const taken = taking(before, since);
  const left = taken.state.isFilling ? null : broughtUpToDate(kept, since, taken.state.copy);
  if (left === null) return only(taken.state, ...taken.effects, { type: 'not taken up' });
  let { copy } = taken.state;
  const effects = [...taken.effects];
  for (const edit of left.pending) {
    try {
      copy = copy.withEdit(edit);
    } catch (error) {
      if (!(error instanceof PatchError)) throw error;
      effects.push(problem(lostText(edit)));
    }
  }
  effects.push(...left.lost.map(edit => problem(lostText(edit))));
  return only({ ...taken.state, copy: copy.withMeetings(left.meetings) }, ...effects);
}

const lostText = ({ label }: PendingEdit): string =>
  `“${label}”, made before in a window that is closed, no longer fits: what it changed is gone. Nothing else was touched.`;
