import { withRenames, mayRename, renamesInPatch } from '@periwinkle/core/edits/renames-in-patch';
import { compileSystem, type System } from '@periwinkle/core/components/system';
import type { NameLookup } from '@periwinkle/core/edits/renamed-names';
import { PatchError } from '@periwinkle/core/patch/operations';
import type { HistoryEnds, StoredEdit } from '@periwinkle/protocol/wire';
import type { KnownEdit } from '../data/api';
import { broughtUpToDate, keptOf, placedOn, type Kept, type Left } from './kept';
import {
  isOpen,
  ownHistory,
  UNKNOWN,
  withEnds,
  withHeard,
  withMade,
  withoutChange,
  withoutEdits,
  type OwnHistory,
} from './own-history';
import {
  aside,
  made,
  only,
  problem,
  say,
  type Refused,
  type SyncEvent,
  type Synchronisation,
  type SyncStep,
} from './state';
import { isMadeAgain } from './made-again';
import { makingFirst, movedDocuments, namesOfMove, type MovedDocument } from './moved-documents';
import { isBeingUndone, stepping } from './stepping';
import type { Carry, HistoryStep, Meeting, PendingEdit, WorkingCopy } from './working-copy';

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
  const moves = movedDocuments(edits);
  for (const together of inSteps(makingFirst(edits, moves))) {
    const [first] = together as [StoredEdit];
    const move = moves.find(({ removal }) => removal === first);
    if (move) state = withMoved(state, move);
    if (!state.copy.lacksBefore(first)) state = withStored(state, together);
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
  return withMeetings(state, next, heard, edits);
}

/** Goes on with a copy in which edits may have met what others did; `edits` are those that are told. */
function withMeetings(
  state: Synchronisation,
  next: WorkingCopy,
  history: OwnHistory,
  edits: readonly StoredEdit[],
): Synchronisation {
  const known = state.copy.meetings;
  const met = next.meetings.filter(({ mine }) => !known.some(each => each.mine.key === mine.key));
  // Nobody is asked of what is to be taken back anyway, nor of what another window has decided.
  const settled = [
    ...met.filter(({ mine }) => isBeingUndone(next, mine)),
    ...next.meetings.filter(meeting => edits.some(({ editKey }) => isMadeAgain(meeting, editKey))),
  ];
  return {
    ...state,
    copy: settled.reduce((now, meeting) => now.withoutMeeting(meeting), next),
    history: withoutEdits(history, new Set(met.map(({ mine }) => mine.key))),
  };
}

/** What waits on a document that is put in another place goes with it, and so does what names it in others. */
function withMoved(state: Synchronisation, { removal, to }: MovedDocument): Synchronisation {
  const { copy } = state;
  if (copy.pending.length + copy.meetings.length === 0) return state;
  const [before, after] = [copy.confirmedAt(removal.path).body, copy.confirmedAt(to).body];
  // What is missing before it is asked for first.
  if (before === null || after === null) return state;
  const names = namesOfMove(removal.path, before, to, after);
  const next = copy.withMoved(removal, to, names && carriedBy(compileSystem(copy.documents), names));
  return withMeetings(state, next, state.history, []);
}

/** How what waits is carried along where an edit gives something another name. */
function carrying(copy: WorkingCopy, edits: readonly StoredEdit[]): Carry | null {
  const patch = edits.flatMap(each => each.patch);
  if (copy.pending.length === 0 || !mayRename(patch)) return null;
  const system = compileSystem(copy.documents);
  const { path } = edits[0]!;
  const names = renamesInPatch(system, path, copy.confirmedAt(path).body, patch);
  return names && carriedBy(system, names);
}

/** `system` as things are called in what waits. */
const carriedBy =
  (system: System, names: NameLookup): Carry =>
  (path, document) =>
    withRenames(system, names, path, document);

function afterStale(
  before: Synchronisation,
  { edit, revisions, since }: Extract<SyncEvent, { type: 'stale' }>,
): SyncStep {
  const isPending = before.copy.pending.some(({ key }) => key === edit.key);
  const taken = taking(before, since);
  if (!isPending) return taken;
  const known = revisionsOf(taken.state.copy, edit);
  if (taken.state.isFilling || known.some((revision, index) => revision !== revisions[index])) return taken;
  // A server with an earlier state than ours, as after a backup was put back, has nothing to tell.
  const waits = waiting(taken.state);
  return only(waits.state, ...waits.effects, { type: 'read anew' });
}

/** Goes on from another state of the server, as after a backup was put back: what waits is placed there by what it means. */
function readAnew(before: Synchronisation, fresh: WorkingCopy, ends: HistoryEnds): SyncStep {
  const kept = keptOf(before.copy);
  const left = kept ? placedOn(fresh, kept) : { pending: [], meetings: [], lost: [] };
  const base = {
    ...before,
    copy: fresh,
    history: ownHistory(ends),
    doubt: null,
    asked: null,
    isFilling: false,
  };
  const { state, lost } = withLeft(base, left);
  const text =
    'The server has another state of this system than before, as after a backup was put back; it has been read anew.';
  return only(
    state,
    problem(text),
    ...lost.map(({ label }) => problem(`“${label}” no longer fits it. It is kept under “not placed”.`)),
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
  const state = { ...taken.state, unplaced: [...taken.state.unplaced, ...(kept.unplaced ?? [])] };
  const on = withLeft(state, left);
  return only(on.state, ...taken.effects, ...on.lost.map(edit => problem(lostText(edit))));
}

/** Goes on with what was left: it can be taken back like what was done here. Gives what has no place any more, too, which is kept aside. */
function withLeft(
  before: Synchronisation,
  left: Left,
): { readonly state: Synchronisation; readonly lost: readonly PendingEdit[] } {
  let { copy, history } = before;
  const lost = [...left.lost];
  for (const edit of left.pending) {
    try {
      const next = copy.withEdit(edit);
      history = edit.step
        ? { ...withoutChange(history, edit.step.change), earlier: UNKNOWN }
        : withMade(history, edit, copy);
      copy = next;
    } catch (error) {
      if (!(error instanceof PatchError)) throw error;
      lost.push(edit);
    }
  }
  const state: Synchronisation = {
    ...before,
    copy: copy.withMeetings(left.meetings),
    history,
    // It may have been sent.
    tried: left.pending[0]?.key ?? before.tried,
  };
  return { state: lost.reduce((now, edit) => aside(now, edit, 'what it changed is gone'), state), lost };
}

const lostText = ({ label }: PendingEdit): string =>
  `“${label}”, made before in a window that is closed, no longer fits: what it changed is gone. It is kept under “not placed”.`;
