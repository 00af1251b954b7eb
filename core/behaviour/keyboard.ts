import type { Component } from '../components/component';
import { planOf } from './make-plan';
import type { Plan } from './plan';

/** What keys do with a field, for readers. */
export interface KeyRow {
  /** As `KeyboardEvent.key` names them. */
  readonly keys: readonly string[];
  readonly does: string;
}

/** By kind of value: what keys do in the control. Sources: HTML, ARIA Authoring Practices (button, combobox, spinbutton, switch). */
const IN_CONTROL: Readonly<Record<string, (plan: Plan) => readonly KeyRow[]>> = {
  text: () => [ENTER_SENDS],
  secret: () => [ENTER_SENDS],
  amount: () => [ENTER_SENDS],
  time: () => [ENTER_SENDS],
  area: () => [{ keys: ['Enter'], does: 'begins a line' }],
  search: () => [{ keys: ['Escape'], does: 'clears what was entered' }, ENTER_SENDS],
  count: ({ value: { least, most, step = 1 } }) => [
    { keys: ['ArrowUp', 'ArrowDown'], does: `${step} more, ${step} less` },
    { keys: ['PageUp', 'PageDown'], does: `${10 * step} more, ${10 * step} less` },
    ...(typeof least === 'number' ? [{ keys: ['Home'], does: `the least, ${least}` }] : []),
    ...(typeof most === 'number' ? [{ keys: ['End'], does: `the most, ${most}` }] : []),
    ENTER_SENDS,
  ],
  code: () => [
    { keys: ['ArrowLeft', 'ArrowRight'], does: 'to the box before, to the next' },
    { keys: ['Backspace'], does: 'empties the box before, and goes there' },
    ENTER_SENDS,
  ],
  toggle: () => [{ keys: [' '], does: 'turns it on, and off again' }],
  choice: ({ value: { several } }) => [
    { keys: ['ArrowDown', 'Enter', ' '], does: 'opens the list' },
    { keys: ['ArrowUp', 'Home', 'End'], does: 'opens it at the first entry, the first, the last' },
    {
      keys: ['A to Z'],
      does: 'opens it, and goes to the entry that begins so; the same letter goes to the next',
    },
    { keys: ['ArrowDown', 'ArrowUp'], does: 'in the open list: to the next entry, to the one before' },
    { keys: ['PageDown', 'PageUp'], does: 'ten entries on, ten back' },
    several
      ? { keys: ['Enter', ' '], does: 'takes the entry, or takes it back' }
      : { keys: ['Enter', ' ', 'Alt+ArrowUp', 'Tab'], does: 'takes the entry and closes the list' },
    { keys: ['Escape'], does: 'closes the list, and changes nothing' },
  ],
};

const ENTER_SENDS: KeyRow = { keys: ['Enter'], does: 'sends the form' };

/** What a button within does, by its role. */
const BUTTONS: Readonly<Record<string, string>> = {
  reveal: 'on the button: shows what was entered, and hides it again',
  clear: 'on the button: clears what was entered',
};

/** The keys that a field answers, in the order in which one comes to them. */
export function keyboardOf(component: Component): KeyRow[] {
  const plan = planOf(component);
  if (!plan.control) return [];
  const { stops, roles, kind, value } = plan;
  const buttons = Object.entries(BUTTONS).filter(([role]) => roles[role as keyof typeof roles] !== undefined);
  const tab = stops.length > 1 ? 'into the entry, on to its button, and out' : 'into the entry, and out';
  const there = kind.takesLines ? 'the caret is where it was' : 'what stands there is selected';
  return [
    { keys: ['Tab', 'Shift+Tab'], does: kind.takesText ? `${tab}; ${there}` : tab },
    ...(IN_CONTROL[value.kind]?.(plan) ?? []),
    ...buttons.map(([, does]) => ({ keys: [' ', 'Enter'], does })),
  ];
}
