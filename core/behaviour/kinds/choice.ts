import type { FieldState } from '../field-state';
import { isNative } from '../native-list';
import type { FieldOfList, KeyPress, ListEntry, ListBehaviour, Turn, ValueKind } from './value-kind';

import { BETWEEN } from '../../components/content/entries';
/** Ids of what is chosen. */
export const chosenIn = (value: string): readonly string[] => (value === '' ? [] : value.split(BETWEEN));

/** Letters that follow one another sooner are sought together, in ms. */
const TOGETHER = 500;

/** So far a Page key goes. */
const PAGE = 10;

/** The next entry that can be chosen, from a place onwards in a direction; the place itself where there is none. */
function nextFrom(entries: readonly ListEntry[], from: number, by: 1 | -1, least = 1): number {
  let found = from;
  for (let at = from + by; at >= 0 && at < entries.length; at += by) {
    if (entries[at]!.isDisabled) continue;
    found = at;
    if (Math.abs(at - from) >= least) break;
  }
  return found;
}

/** What stands out as a list opens: the chosen entry, else the first that can be chosen. */
function opening(state: FieldState, entries: readonly ListEntry[]): number | null {
  const [first] = chosenIn(state.value);
  const chosen = entries.findIndex(({ id }) => id === first);
  const at = chosen >= 0 ? chosen : nextFrom(entries, -1, 1);
  return at >= 0 ? at : null;
}

/** Whether letters are being sought still. */
const isSeeking = ({ sought: open, time }: FieldState): boolean =>
  open !== null && time - open.at <= TOGETHER;

/** Type-ahead: letters in quick succession together; one letter again goes to the next of that beginning. */
function sought(state: FieldState, letter: string, entries: readonly ListEntry[], from: number): Turn {
  const letters = (isSeeking(state) ? state.sought!.letters : '') + letter.toLocaleLowerCase(state.locale);
  const isOneAgain = [...letters].every(each => each === letters[0]);
  const wanted = isOneAgain ? letters[0]! : letters;
  // One letter looks beyond what stands out, more of them look at that first.
  const first = isOneAgain ? from + 1 : Math.max(from, 0);
  const found = entries
    .map((_, index) => (first + index) % entries.length)
    .find(
      index =>
        !entries[index]!.isDisabled &&
        entries[index]!.text.toLocaleLowerCase(state.locale).startsWith(wanted),
    );
  return {
    change: { sought: { letters, at: state.time }, ...(found === undefined ? {} : { active: found }) },
  };
}

const isLetter = ({ key, control, alt }: KeyPress): boolean => !control && !alt && [...key].length === 1;

const closed = { isOpen: false, active: null, sought: null } as const;

function chosen(state: FieldState, { id, isDisabled }: ListEntry, several: boolean): Turn {
  if (isDisabled) return { change: {} };
  if (!several) return { change: closed, value: id };
  const ids = chosenIn(state.value);
  const next = ids.includes(id) ? ids.filter(each => each !== id) : [...ids, id];
  return { change: {}, value: next.join(BETWEEN) };
}

/** Places that keys go to, from where one is. */
const GOING: Readonly<Record<string, (entries: readonly ListEntry[], from: number) => number>> = {
  ArrowDown: (entries, from) => nextFrom(entries, from, 1),
  ArrowUp: (entries, from) => (from < 0 ? from : nextFrom(entries, from, -1)),
  Home: entries => nextFrom(entries, -1, 1),
  End: entries => nextFrom(entries, entries.length, -1),
  PageDown: (entries, from) => nextFrom(entries, from, 1, PAGE),
  PageUp: (entries, from) => nextFrom(entries, from, -1, PAGE),
};

/** What a closed list does at a key (ARIA Authoring Practices, select-only combobox). */
function keyOnClosed(state: FieldState, press: KeyPress, entries: readonly ListEntry[]): Turn | undefined {
  const { key } = press;
  const open = { isOpen: true, active: opening(state, entries) };
  if (['ArrowDown', 'Enter', ' '].includes(key)) return { change: open };
  if (['ArrowUp', 'Home', 'End'].includes(key)) {
    const at = GOING[key === 'ArrowUp' ? 'Home' : key]!(entries, 0);
    return { change: { ...open, active: entries[at] ? at : null } };
  }
  if (!isLetter(press)) return undefined;
  const { change } = sought(
    state,
    key,
    entries,
    open.active === null || state.value === '' ? -1 : open.active,
  );
  return { change: { ...open, ...change } };
}

/** Keys of our own list: ARIA Authoring Practices, select-only combobox, and listbox where several can be chosen. */
function keyInList(
  state: FieldState,
  press: KeyPress,
  entries: readonly ListEntry[],
  several: boolean,
): Turn | undefined {
  const { key, alt } = press;
  if (!state.isOpen) return keyOnClosed(state, press, entries);
  const active = state.active === null ? undefined : entries[state.active];
  const here = active ? chosen(state, active, several) : { change: closed };
  if (key === 'Escape') return { change: closed };
  if (key === 'Tab') return { ...(several ? {} : here), change: closed, goesOn: true };
  if (alt && key === 'ArrowUp') return { ...(several ? {} : here), change: closed };
  if (key === 'Enter' || (key === ' ' && !isSeeking(state))) return here;
  if (Object.hasOwn(GOING, key)) {
    const at = GOING[key]!(entries, state.active ?? -1);
    return { change: { active: entries[at] ? at : null, sought: null } };
  }
  return isLetter(press) ? sought(state, key, entries, state.active ?? -1) : undefined;
}

/** What else leads up and down where the list is not open. */
const SIDEWAYS: Readonly<Record<string, string>> = { ArrowLeft: 'ArrowUp', ArrowRight: 'ArrowDown' };

/** Keys on an element that opens a list of its own (HTML, `select`). */
function nativeKey(state: FieldState, press: KeyPress, entries: readonly ListEntry[]): Turn | undefined {
  const at = entries.findIndex(({ id }) => id === state.value);
  const key = SIDEWAYS[press.key] ?? press.key;
  const turn = Object.hasOwn(GOING, key)
    ? { change: {}, to: GOING[key]!(entries, at) }
    : isLetter(press) && press.key !== ' '
      ? asTurn(sought(state, press.key, entries, at))
      : undefined;
  const entry = turn && entries[turn.to];
  return turn && { change: turn.change, ...(entry && !entry.isDisabled ? { value: entry.id } : {}) };
}

const asTurn = ({ change: { active, ...change } }: Turn): { change: Partial<FieldState>; to: number } => ({
  change,
  to: active ?? -1,
});

function take(machine: FieldOfList, { change, value }: Turn): void {
  machine.change(change);
  if (value !== undefined) machine.enter(value);
}

const list: ListBehaviour = {
  keyed(machine, plan, press) {
    const { state } = machine;
    const entries = machine.drawn.entries();
    const turn = isNative(machine, plan)
      ? nativeKey(state, press, entries)
      : keyInList(state, press, entries, plan.value.several === true);
    if (turn) take(machine, turn);
    return turn !== undefined && !turn.goesOn;
  },
  pressed(machine, plan) {
    const { state } = machine;
    if (isNative(machine, plan)) return;
    const opened = { isOpen: true, active: opening(state, machine.drawn.entries()) };
    machine.change(state.isOpen ? closed : opened);
  },
  chosen(machine, plan, place) {
    const entry = machine.drawn.entries()[place];
    if (!entry) return;
    if (!entry.isDisabled) machine.change({ active: place });
    take(machine, chosen(machine.state, entry, plan.value.several === true));
  },
};

export const choice: ValueKind = {
  takesText: false,
  takesLines: false,
  isEmpty: value => value === '',
  isMisfit: () => false,
  list,
};
