import type { NamedChange } from '@periwinkle/protocol/wire';
import { endsOf, stepParts, turned, withoutChange, type OwnChange } from './own-history';
import { aside, made, only, placedAnew, problem, say, type Synchronisation, type SyncStep } from './state';
import type { HistoryStep, PendingEdit, WorkingCopy } from './working-copy';

/** A step means what stands last when it is asked for. What was never sent is taken back where it waits; all else by the server, in its turn. */
export function stepping(
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

/** Whether an edit is of a change that is to be taken back anyway. */
export const isBeingUndone = ({ pending }: WorkingCopy, { changeId }: PendingEdit): boolean =>
  pending.some(({ step }) => step?.direction === 'undo' && step.change === changeId);
