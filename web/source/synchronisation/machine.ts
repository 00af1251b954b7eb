import { carriedAlong, mayRename, renamedBy } from '@periwinkle/core/editing/renamed-by';
import { compileSystem } from '@periwinkle/core/components/system';
import { PatchError } from '@periwinkle/core/formats/patch';
import { identified } from '@periwinkle/core/formats/identity';
import { placed } from '@periwinkle/core/formats/placing';
import type { HistoryEnds, KnownEdit, NamedChange } from '../data/api';
import type { StoredEdit } from '../data/stored';
import { broughtUpToDate, keptOf, placedOn, type Kept } from './kept';
import {
  endsOf,
  isOpen,
  ownHistory,
  stepParts,
  turned,
  UNKNOWN,
  withEnds,
  withHeard,
  withMade,
  withoutChange,
  withoutEdits,
  type OwnChange,
  type OwnHistory,
} from './own-history';
import type { Unplaced } from './unplaced';
import type { Carry, HistoryStep, Meeting, PendingEdit, WorkingCopy } from './working-copy';

interface Refused {
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
      readonly key: string;
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

/**
 * One step: what a window knows and does after an event. Pure; who runs it carries out the effects and answers with events. Throws
 * `PatchError` for an edit that does not fit what is shown.
 */
export function synchronise(before: Synchronisation, event: SyncEvent): SyncStep {
  const { state, effects } = asking(sending(after(before, event)));
  const isKept =
    state.copy.pending === before.copy.pending &&
    state.copy.meetings === before.copy.meetings &&
    state.unplaced === before.unplaced &&
    (state.copy.confirmed === before.copy.confirmed || isAtRest(state.copy));
  return { state, effects: isKept ? effects : [...effects, { type: 'keep' }] };
}

/** The server has answered what was sent. */
const ANSWERED = { sent: null, trouble: null, failures: 0 };

const isAtRest = ({ pending, meetings }: WorkingCopy): boolean => pending.length + meetings.length === 0;

const only = (state: Synchronisation, ...effects: SyncEffect[]): SyncStep => ({ state, effects });
const say = (tone: 'plain' | 'error', text: string): SyncEffect => ({ type: 'say', tone, text });
const problem = (text: string): SyncEffect => say('error', text);

function after(state: Synchronisation, event: SyncEvent): SyncStep {
  switch (event.type) {
    case 'made':
      return only(made(state, event.edit, event.insteadOf));
    case 'step':
      return stepping(state, event.direction, event.key, event.change);
    case 'stored':
      return afterStored({ ...state, ...ANSWERED, doubt: null }, event.key, event.edits);
    case 'stale':
      return afterStale({ ...state, sent: null, trouble: null }, event);
    case 'refused':
      return inDoubt({ ...state, ...ANSWERED }, event);
    case 'failed':
      return afterFailure({ ...state, sent: null, trouble: event.reason ?? null }, event.key);
    case 'told':
      return taking(state, event.edits);
    case 'filled':
      return afterFilled({ ...state, isFilling: false }, event.edits);
    case 'ends':
      return afterEnds(state, event.ends);
    case 'due':
      return only({ ...state, isWaiting: false });
    case 'decided':
      return only(decided(state, event.meeting, event.mine));
    case 'put aside':
      return only(aside(decided(state, event.meeting, null), event.meeting.mine, metReason(event.meeting)));
    case 'put away':
      return only({ ...state, unplaced: state.unplaced.filter(({ edit }) => edit.key !== event.key) });
    case 'read':
      return readAnew(state, event.copy, event.ends);
    case 'taken up':
      return takingUp(state, event.kept, event.since);
  }
}

/** Sends the first edit that waits, one at a time. */
function sending({ state, effects }: SyncStep): SyncStep {
  const [edit] = state.copy.pending;
  if (!edit || state.sent !== null || state.isWaiting || state.isFilling) return { state, effects };
  const revisions = revisionsOf(state.copy, edit);
  const next = { ...state, sent: edit.key, tried: edit.key };
  return { state: next, effects: [...effects, { type: 'send', edit, revisions }] };
}

/** Asks what can be taken back next where that is not known and nothing is under way that would change it. */
function asking({ state, effects }: SyncStep): SyncStep {
  const isBusy = state.asked !== null || state.isWaiting || state.copy.pending.length > 0;
  if (isBusy || !isOpen(state.history)) return { state, effects };
  return { state: { ...state, asked: state.history }, effects: [...effects, { type: 'ask ends' }] };
}

function afterEnds(before: Synchronisation, ends: HistoryEnds | null): SyncStep {
  const state = { ...before, asked: null };
  if (!ends) return waiting(state);
  // What was done meanwhile the server may not have known of.
  return only(before.asked === state.history ? { ...state, history: withEnds(state.history, ends) } : state);
}

const lastKnown = ({ lastEdit, lastKey }: WorkingCopy): KnownEdit => ({ id: lastEdit, key: lastKey });

/** The revisions that the parts of an edit were made on. */
const revisionsOf = (copy: WorkingCopy, { parts }: PendingEdit): number[] =>
  parts.map(({ path }) => copy.confirmedAt(path).revision);

function made(state: Synchronisation, edit: PendingEdit, insteadOf?: string): Synchronisation {
  const copy = state.copy.withEdit(edit);
  const history = withMade(state.history, edit, state.copy);
  return { ...state, copy, history, unplaced: state.unplaced.filter(each => each.edit.key !== insteadOf) };
}

/** A step means what stands last when it is asked for. What was never sent is taken back where it waits; all else by the server, in its turn. */
function stepping(
  state: Synchronisation,
  direction: HistoryStep['direction'],
  key: string,
  wanted?: NamedChange,
): SyncStep {
  const target = wanted ?? endsOf(state.history)[direction];
  if (!target) return only(state);
  const known = state.history[direction === 'undo' ? 'done' : 'undone'].find(
    ({ change }) => change === target.change,
  );
  if (!known) return only(withStep(state, direction, key, { ...target, edits: [] }));
  const there = direction === 'undo' ? takenBackHere(state, known) : broughtBackHere(state, known, key);
  return there ?? only(withStep(state, direction, key, known));
}

function withStep(
  state: Synchronisation,
  direction: HistoryStep['direction'],
  key: string,
  known: OwnChange,
): Synchronisation {
  const { copy, history } = state;
  const { change, label } = known;
  const isUnderWay = copy.pending.some(({ step }) => step?.change === change && step.direction === direction);
  if (isUnderWay) return state;
  const parts = stepParts(copy, known, key);
  const after = turned(copy, known, parts);
  const { done, undone } = withoutChange(history, change);
  const isEarlier = history.earlier[direction]?.change === change;
  const earlier = isEarlier ? { ...history.earlier, [direction]: undefined } : history.earlier;
  const lists =
    direction === 'undo' ? { done, undone: [...undone, after] } : { done: [...done, after], undone };
  const step = { key, changeId: key, label, parts, step: { direction, change } };
  return { ...state, copy: copy.withEdit(step), history: { ...lists, earlier } };
}

/** Takes a change back that has not been sent, if nothing that waits builds on it. */
function takenBackHere(state: Synchronisation, known: OwnChange): SyncStep | null {
  const unsent = state.copy.pending.filter(
    ({ key, changeId, step }) => !step && changeId === known.change && key !== state.tried,
  );
  if (unsent.length === 0 || unsent.length < known.edits.length) return null;
  let { copy } = state;
  for (const { key } of unsent.toReversed()) {
    const { copy: left, lost } = copy.without(key);
    if (lost.length > 0) return null;
    copy = left;
  }
  const { done, undone } = withoutChange(state.history, known.change);
  const history = { ...state.history, done, undone: [...undone, { ...known, unsent }] };
  return only({ ...state, copy, history }, say('plain', `Taken back: ${known.label}.`));
}

/** Makes a change again that was taken back before it was sent; or leaves a step that has not been sent. */
function broughtBackHere(state: Synchronisation, known: OwnChange, key: string): SyncStep | null {
  const { done, undone } = withoutChange(state.history, known.change);
  const back = say('plain', `Brought back: ${known.label}.`);
  if (known.unsent) {
    let next: Synchronisation = { ...state, history: { ...state.history, done, undone } };
    for (const [index, edit] of known.unsent.entries()) {
      const again = placedAnew(next.copy, edit, `${key}.${index}`, key);
      if (!again)
        return only(
          aside(next, edit, 'what it changed is gone'),
          problem(`“${known.label}” cannot be brought back: what it changed is gone.`),
        );
      next = made(next, again);
    }
    return only({ ...next, history: { ...next.history, undone, earlier: state.history.earlier } }, back);
  }
  const waiting = state.copy.pending.find(each => each.step?.change === known.change);
  if (!waiting || waiting.key === state.tried) return null;
  const { copy, lost } = state.copy.without(waiting.key);
  if (lost.length > 0) return null;
  const stands = turned(state.copy, known, stepParts(state.copy, known, key));
  return only({ ...state, copy, history: { ...state.history, done: [...done, stands], undone } }, back);
}

/** An edit as it is to be made on what is shown by now, by other keys; `null` where it has no place. */
export function placedAnew(
  copy: WorkingCopy,
  edit: PendingEdit,
  key: string,
  changeId: string,
): PendingEdit | null {
  const parts = [];
  for (const [index, { path, patch }] of edit.parts.entries()) {
    const document = copy.shownAt(path);
    const found = placed(document, patch);
    if (!found.ok) return null;
    const partKey = index === 0 ? key : `${key}.${index}`;
    parts.push({ key: partKey, path, patch: identified(document, found.patch) });
  }
  return { key, changeId, label: edit.label, parts };
}

const aside = (state: Synchronisation, edit: PendingEdit, reason: string): Synchronisation =>
  edit.step ? state : { ...state, unplaced: [...state.unplaced, { edit, reason }] };

function waiting(state: Synchronisation): SyncStep {
  const failures = state.failures + 1;
  return only({ ...state, failures, isWaiting: true }, { type: 'wait', failures });
}

/** What has been stored all the same is known by now from elsewhere. */
const afterFailure = (state: Synchronisation, key: string): SyncStep =>
  state.copy.pending.some(edit => edit.key === key) ? waiting(state) : only(state);

const DONE: Readonly<Record<HistoryStep['direction'], string>> = { undo: 'Taken back', redo: 'Brought back' };

/** What a step has done only the server says. */
function afterStored(state: Synchronisation, key: string, edits: readonly StoredEdit[]): SyncStep {
  const step = state.copy.pending.find(edit => edit.key === key && edit.step);
  const taken = taking(state, edits);
  if (!step || taken.state.isFilling) return taken;
  const copy = taken.state.copy.without(key).copy;
  const told = say('plain', `${DONE[step.step!.direction]}: ${step.label}.`);
  return only({ ...taken.state, copy }, ...taken.effects, told);
}

/** Takes in what was stored, in its order; asks for what is missing before it. */
function taking(before: Synchronisation, edits: readonly StoredEdit[]): SyncStep {
  let state = before;
  for (const together of inSteps(edits)) {
    if (!state.copy.lacksBefore(together[0]!)) state = withStored(state, together);
    else if (!state.isFilling)
      return only({ ...state, isFilling: true }, { type: 'fill', after: lastKnown(state.copy) });
  }
  return only(state);
}

/** Edits as they are taken in: those by which one step changed one document are one, as it is shown here. */
function inSteps(edits: readonly StoredEdit[]): readonly (readonly StoredEdit[])[] {
  const groups: StoredEdit[][] = [];
  for (const edit of edits) {
    const last = groups.at(-1)?.at(-1);
    const isGoingOn =
      last !== undefined &&
      edit.kind !== 'edit' &&
      edit.changeId === last.changeId &&
      edit.path === last.path &&
      edit.revision === last.revision + 1;
    if (isGoingOn) groups.at(-1)!.push(edit);
    else groups.push([edit]);
  }
  return groups;
}

function withStored(state: Synchronisation, edits: readonly StoredEdit[]): Synchronisation {
  const { copy, author } = state;
  const next = copy.withStoredTogether(edits, carrying(copy, edits));
  const isNew = next.lastEdit !== copy.lastEdit;
  const heard = isNew
    ? edits.reduce((now, edit) => withHeard(now, edit, author, copy.pending), state.history)
    : state.history;
  const met = next.meetings.filter(({ mine }) => !copy.meetings.some(each => each.mine.key === mine.key));
  // Nobody is asked of what is to be taken back anyway.
  const settled = met.filter(({ mine }) => isBeingUndone(next, mine));
  return {
    ...state,
    copy: settled.reduce((now, meeting) => now.withoutMeeting(meeting), next),
    history: withoutEdits(heard, new Set(met.map(({ mine }) => mine.key))),
  };
}

const isBeingUndone = ({ pending }: WorkingCopy, { changeId }: PendingEdit): boolean =>
  pending.some(({ step }) => step?.direction === 'undo' && step.change === changeId);

/** How what waits is carried along where an edit gives something another name. */
function carrying(copy: WorkingCopy, edits: readonly StoredEdit[]): Carry | null {
  const patch = edits.flatMap(each => each.patch);
  if (copy.pending.length === 0 || !mayRename(patch)) return null;
  const system = compileSystem(copy.documents);
  const { path } = edits[0]!;
  const names = renamedBy(system, path, copy.confirmedAt(path).body, patch);
  return names && ((of, document) => carriedAlong(system, names, of, document));
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
  return only(waits.state, ...waits.effects, { type: 'read anew' });
}

/** Goes on from another state of the server, as after a backup was put back: what waits is placed there by what it means. */
function readAnew(state: Synchronisation, fresh: WorkingCopy, ends: HistoryEnds): SyncStep {
  const kept = keptOf(state.copy);
  const left = kept ? placedOn(fresh, kept) : { pending: [], meetings: [], lost: [] };
  const copy = left.pending.reduce((now, edit) => now.withEdit(edit), fresh).withMeetings(left.meetings);
  const base = { ...state, copy: fresh, history: ownHistory(ends) };
  const next: Synchronisation = {
    ...base,
    copy,
    history: takenUpHistory(base, left.pending),
    ...{ doubt: null, asked: null, isFilling: false },
  };
  const text =
    'The server has another state of this system than before, as after a backup was put back; it has been read anew.';
  return only(
    left.lost.reduce((now, edit) => aside(now, edit, 'what it changed is gone'), next),
    problem(text),
    ...left.lost.map(({ label }) => problem(`“${label}” no longer fits it. It is kept under “not placed”.`)),
  );
}

/** A refusal may be of what somebody has stored that the edit does not know of: it is only believed where there is nothing of that kind. */
const inDoubt = (state: Synchronisation, { key, reason, isGone = false }: Refused): SyncStep =>
  state.copy.pending.some(edit => edit.key === key) && !state.isFilling
    ? only(
        { ...state, doubt: { key, reason, isGone }, isFilling: true },
        { type: 'fill', after: lastKnown(state.copy) },
      )
    : only(state);

function afterFilled(state: Synchronisation, edits: readonly StoredEdit[] | null): SyncStep {
  if (!edits) return waiting(state);
  const { doubt, copy } = state;
  const taken = taking({ ...state, doubt: null }, edits);
  const isNew = taken.state.copy.lastEdit > copy.lastEdit || taken.state.isFilling;
  return doubt && !isNew ? afterRefusal(taken.state, doubt) : taken;
}

function afterRefusal(state: Synchronisation, { key, reason, isGone }: Refused): SyncStep {
  const edit = state.copy.pending.find(each => each.key === key);
  if (!edit) return only(state);
  const { copy, lost } = state.copy.without(key);
  const gone = [edit, ...lost].filter(each => !isBeingUndone(state.copy, each));
  const history = edit.step
    ? { ...withoutChange(state.history, edit.step.change), earlier: UNKNOWN }
    : withoutEdits(state.history, new Set(gone.map(each => each.key)));
  const more =
    lost.length === 0
      ? ''
      : ` With it went what builds on it: ${lost.map(each => `“${each.label}”`).join(', ')}.`;
  const text = edit.step
    ? reason
    : `“${edit.label}” was not stored and has been taken back: ${reason}${more} It is kept under “not placed”.`;
  if (gone.length === 0) return only({ ...state, copy, history });
  const next = gone.reduce(
    (now, each) =>
      aside(now, each, each === edit ? reason : `it builds on “${edit.label}”, which was refused`),
    { ...state, copy, history },
  );
  // A change that never came to be stored need not be taken back.
  return edit.step && isGone ? only(next) : only(next, problem(text));
}

function decided(state: Synchronisation, meeting: Meeting, mine: PendingEdit | null): Synchronisation {
  const left = { ...state, copy: state.copy.withoutMeeting(meeting) };
  return mine ? made(left, mine) : left;
}

const metReason = ({ theirs }: Meeting): string => `“${theirs.label}” was stored at the same place`;

/** Takes up what another window has left, once nothing of our own is under way and both know the same of the server. */
function takingUp(before: Synchronisation, kept: Kept, since: readonly StoredEdit[]): SyncStep {
  const taken = taking(before, since);
  const left = taken.state.isFilling ? null : broughtUpToDate(kept, since, taken.state.copy);
  if (left === null) return only(taken.state, ...taken.effects, { type: 'not taken up' });
  let { copy } = taken.state;
  const lost = [...left.lost];
  for (const edit of left.pending) {
    try {
      copy = copy.withEdit(edit);
    } catch (error) {
      if (!(error instanceof PatchError)) throw error;
      lost.push(edit);
    }
  }
  const state: Synchronisation = {
    ...taken.state,
    copy: copy.withMeetings(left.meetings),
    // That window may have sent it.
    tried: left.pending[0]?.key ?? taken.state.tried,
    history: takenUpHistory(taken.state, left.pending),
    unplaced: [...taken.state.unplaced, ...(kept.unplaced ?? [])],
  };
  return only(
    lost.reduce((now, edit) => aside(now, edit, 'what it changed is gone'), state),
    ...taken.effects,
    ...lost.map(edit => problem(lostText(edit))),
  );
}

/** What was taken up can be taken back like what was done here. */
function takenUpHistory({ history, copy }: Synchronisation, edits: readonly PendingEdit[]): OwnHistory {
  let now = copy;
  return edits.reduce((all, edit) => {
    const before = now;
    try {
      now = now.withEdit(edit);
    } catch {
      return all;
    }
    return edit.step
      ? { ...withoutChange(all, edit.step.change), earlier: UNKNOWN }
      : withMade(all, edit, before);
  }, history);
}

const lostText = ({ label }: PendingEdit): string =>
  `“${label}”, made before in a window that is closed, no longer fits: what it changed is gone. It is kept under “not placed”.`;
