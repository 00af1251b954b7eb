import { graphemesOf } from '../text/graphemes';
import { isLocale } from '../components/content/locale-digits';
import { RefusedAct, type Act, type EntryReference } from './acts';
import { acceptedText } from './accepted-text';
import { isPicked, steppedByType } from './input-types';
import type { Effect, FieldState } from './field-state';
import { takeAnswer } from './application-answers';
import { repeatHeldButton } from './held-button';
import type { KeyPress, Drawn } from './kinds/value-kind';
import { isNative } from './native-list';
import { Machine } from './machine';
import { doMoves } from './custom-transitions';
import { takeOtherField } from './other-fields';
import { combinationAt } from './derived-states';
import type { Plan } from './plan';
import { editedByKey, inserted } from './typing';
import { withoutWord } from './word-deletion';

/** What an act leads to. */
export interface Step {
  readonly state: FieldState;
  readonly effects: readonly Effect[];
}

/** What is seen of a field by whoever acts: which parts are there, and which let the pointer through to what lies behind. */
export interface Seen extends Drawn {
  readonly isThere: (part: string) => boolean;
  readonly letsThrough: (part: string) => boolean;
}

/**
 * Does an act as a browser would for a person: moves the focus, edits text, tells the machine. `look` gives what is seen in a state. Pure. Throws `RefusedAct` for what a browser
 * would refuse.
 */
export function performAct(
  plan: Plan,
  state: FieldState,
  what: Act,
  look: (state: FieldState) => Seen,
): Step {
  const seen = look(state);
  const machine = new Machine(plan, state, seen);
  new Hands(plan, machine, seen).do(what);
  if (plan.moves.length > 0) doMoves(machine, plan, what, combinationAt(plan, state));
  const { focus } = machine.state;
  if (focus && focus.part !== plan.control?.part) {
    const now = look(machine.state);
    if (now.isDisabled(focus.part) || !now.isThere(focus.part)) machine.rescue();
  }
  return { state: machine.state, effects: machine.effects };
}

/** `app field:arrival=15:00` */
const OTHER = 'field:';

/** Keys that open a list of the platform's own (HTML, `select`). */
const opensList = ({ key, alt }: KeyPress): boolean =>
  ['Enter', ' '].includes(key) || (alt && key.startsWith('Arrow'));

class Hands {
  constructor(
    private readonly plan: Plan,
    private readonly machine: Machine,
    private readonly seen: Seen,
  ) {}

  do(what: Act): void {
    const { machine } = this;
    switch (what.kind) {
      case 'point':
        return what.part === null
          ? machine.point(null)
          : machine.point(what.part, this.place(what.part, what.entry));
      case 'press':
      case 'hold':
        machine.down(what.part, this.place(what.part, what.entry));
        // A press on the text itself moves the caret: it is taken to be at its end.
        if (what.part === this.plan.control?.part && machine.isInControl)
          machine.select([machine.state.text.length, machine.state.text.length]);
        return what.kind === 'press' ? this.release() : undefined;
      case 'release':
        return this.release();
      case 'type':
        return this.type(what.text);
      case 'paste':
        return this.put(what.text);
      case 'autofill':
        if (!machine.canEdit) throw new RefusedAct('A browser fills in only what can be changed.');
        return machine.autofill(what.text);
      case 'key':
        return this.key(what);
      case 'leave':
        if (!machine.state.focus) throw new RefusedAct('It does not have the focus.');
        return machine.leave();
      case 'send':
        return machine.send();
      case 'reset':
        return machine.reset();
      case 'wait':
        return repeatHeldButton(machine, machine.state.time + what.ms);
      case 'answer':
        return takeAnswer(machine, this.plan, what.ask, what.accepted);
      case 'app':
        return this.app(what.axis, what.value);
    }
  }

  private release(): void {
    const { part, entry, isDown } = this.machine.state.pointer;
    this.machine.release();
    if (isDown && part !== null) this.machine.click(part, entry, true);
  }

  private app(axis: string, value: string): void {
    if (axis === 'value') return this.machine.give(value);
    // Another field of the form, as it was left.
    if (axis.startsWith(OTHER))
      return takeOtherField(this.machine, this.plan, axis.slice(OTHER.length), value);
    const known = this.plan.axes.find(({ id }) => id === axis);
    if (!known && axis === 'locale') {
      if (!isLocale(value)) throw new RefusedAct(`“${value}” is no locale (BCP 47).`);
      return this.machine.speak(value);
    }
    if (!known) throw new RefusedAct(`There is no axis “${axis}”.`);
    if (!known.values.includes(value))
      throw new RefusedAct(`“${value}” is no value of ${axis}; there is ${known.values.join(', ')}.`);
    this.machine.app(axis, value);
  }

  /** What is absent or lets the pointer through cannot be pressed or pointed at. Gives the place of an entry. */
  private place(part: string, entry: EntryReference | null): number | null {
    const target = Object.hasOwn(this.plan.targets, part) ? this.plan.targets[part] : undefined;
    if (!target) throw new RefusedAct(`There is no part “${part}”.`);
    if (!this.seen.isThere(part)) throw new RefusedAct(`“${part}” is not there.`);
    if (this.seen.letsThrough(part)) throw new RefusedAct(`“${part}” lets the pointer through.`);
    if (entry === null && target.kind !== 'entry') return null;
    const entries = this.seen.entries();
    if (target.kind !== 'entry') throw new RefusedAct(`“${part}” is no list of entries.`);
    if (entry === null) throw new RefusedAct(`Which entry? Say “${part}:1”, or its text in quotes.`);
    const at = 'place' in entry ? entry.place - 1 : entries.findIndex(({ text }) => text === entry.text);
    if (!entries[at])
      throw new RefusedAct(
        'place' in entry ? `There is no entry ${entry.place}.` : `There is no entry “${entry.text}”.`,
      );
    return at;
  }

  private type(text: string): void {
    const { focus } = this.machine.state;
    const { kind } = this.plan;
    if (!focus) throw new RefusedAct('Nothing has the focus, so nothing can be typed into.');
    // Letters typed into a list seek in it.
    this.notPicked();
    if (!this.machine.isInControl || !(kind.takesText || kind.list))
      throw new RefusedAct(`“${focus.part}” has the focus and takes no text.`);
    this.refuseToOpen(' ', text.startsWith(' '));
    for (const letter of this.portions(text)) {
      if (kind.list) this.machine.key({ key: letter, shift: false, control: false, alt: false });
      else this.put(letter);
    }
  }

  /** Where a control has pieces or a picker of its own, what a key does there is known to a browser alone. */
  private notPicked(): void {
    const { machine, plan } = this;
    if (!machine.isInControl || !isPicked(plan)) return;
    const { type } = plan.control!;
    throw new RefusedAct(
      `An input of type ${type} has pieces of its own, in which only a browser knows what keys do; “autofill” and “app value=” give it a value.`,
    );
  }

  /** What is typed at once: letter by letter wherever something may come of one in between, as a complaint that goes. */
  private portions(text: string): readonly string[] {
    const { plan, machine } = this;
    const { kind, judging, value } = plan;
    const isPlain = !kind.list && !kind.read && !kind.taken && value.stop !== true;
    const isSilent = machine.state.complaint === null && judging.complain !== 'typing';
    return isPlain && isSilent ? [text] : graphemesOf(text);
  }

  /** Text put where the caret is, as pasting does. */
  private put(text: string): void {
    const { machine, plan } = this;
    this.notPicked();
    if (!machine.isInControl || !plan.kind.takesText)
      throw new RefusedAct('Nothing that takes text has the focus.');
    if (!machine.canEdit) return;
    const { put, refused } = acceptedText(plan, machine.state, text);
    if (refused !== '') machine.refuse(refused);
    const [from, to] = machine.state.selection;
    // What a type of input does not take still takes the place of what is selected.
    if (put === '' && text !== '' && (plan.kind.taken || from === to)) return;
    const next = inserted(machine.state, put);
    machine.edit(next.text, next.selection);
  }

  private key(press: Extract<Act, { kind: 'key' }>): void {
    const { machine, plan } = this;
    const { focus } = machine.state;
    const { key, shift, control, alt } = press;
    if (!focus) {
      if (key === 'Tab') return this.tab(shift ? -1 : 1);
      throw new RefusedAct('Nothing has the focus, so no key does anything.');
    }
    if (key !== 'Escape') this.notPicked();
    this.refuseToOpen(key, opensList(press));
    if (machine.isInControl) {
      if (machine.key(press)) return;
      if (key === 'Tab') return this.tab(shift ? -1 : 1);
      if (key === 'Enter') return plan.kind.takesLines ? this.put('\n') : machine.send();
      if (plan.kind.takesText && !alt) this.editByKey(key, shift, control);
      return;
    }
    if (key === 'Tab') return this.tab(shift ? -1 : 1);
    machine.focus(focus.part, !control && !alt);
    // Buttons answer Enter and Space (ARIA Authoring Practices, button).
    if (key === 'Enter' || key === ' ') machine.pressButton(focus.part);
  }

  /** What opens a list of the platform's own leads where nothing of ours is. */
  private refuseToOpen(key: string, isOpening: boolean): void {
    if (isOpening && this.machine.isInControl && isNative(this.machine, this.plan))
      throw new RefusedAct(`“${key}” opens the platform’s own list, whose inside is not ours.`);
  }

  private editByKey(key: string, shift: boolean, control: boolean): void {
    const { machine, plan } = this;
    const { text, value } = machine.state;
    const stepped = control ? undefined : steppedByType(plan, key, value);
    if (stepped !== undefined)
      return machine.canEdit ? machine.edit(stepped, [stepped.length, stepped.length]) : undefined;
    if (control && key.toLowerCase() === 'a') return machine.select([0, text.length]);
    const edited = control
      ? withoutWord(machine.state, key, plan.value.kind === 'secret' && !machine.state.isRevealed)
      : editedByKey(machine.state, key, shift, plan.kind.takesLines);
    if (!edited && control) return;
    if (!edited) return [...key].length === 1 ? this.put(key) : undefined;
    if (edited.text === text) machine.select(edited.selection, edited.isBackward);
    else if (machine.canEdit) machine.edit(edited.text, edited.selection);
  }

  /**
   * To the next stop within the field, or out of it. A line that is come to by Tab is selected whole; where there are several lines, the caret is
   * where it was.
   */
  private tab(by: -1 | 1): void {
    const { machine, plan, seen } = this;
    const here = machine.state.focus?.part ?? null;
    // From what is no stop itself it goes on from there.
    const order = Object.keys(plan.targets).filter(
      part =>
        part === here ||
        (plan.stops.includes(part) &&
          seen.isThere(part) &&
          !seen.isDisabled(part) &&
          (part !== plan.control?.part || machine.canFocus)),
    );
    // From outside it comes to the first, backwards to the last.
    const next = here !== null ? order[order.indexOf(here) + by] : order.at(by > 0 ? 0 : -1);
    if (here === null && next === undefined)
      throw new RefusedAct('There is nothing in it that Tab comes to.');
    if (next === undefined) return machine.leave();
    if (here === null && by < 0 && next === plan.control?.part && isPicked(plan))
      throw new RefusedAct('Backwards one comes to its last piece, which only a browser knows.');
    const { selection } = machine.state;
    machine.focus(next, true);
    if (machine.isInControl)
      machine.select(plan.kind.takesLines ? selection : [0, machine.state.text.length]);
  }
}
