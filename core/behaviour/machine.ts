import { RefusedAct, type Act } from './acts';
import type { Effect, FieldState } from './field-state';
import { judged, judgedAgain, kindOf } from './judging';
import { isOn, type MoveDeed } from './moves';
import type { Plan, Role } from './plan';
import { combinationAt } from './states';
import { editedByKey, inserted } from './value-kinds';

/** What an act leads to. */
export interface Step {
  readonly state: FieldState;
  readonly effects: readonly Effect[];
}

/** What only whoever draws the field knows: which parts are there, and which let the pointer through to what lies behind. */
export interface Drawn {
  readonly isThere: (part: string) => boolean;
  readonly letsThrough: (part: string) => boolean;
}

/**
 * Does an act. Pure: nothing but what is given goes in, nothing but what is returned comes out; time is an act. Throws `RefusedAct` for what a
 * browser would refuse. Sources: HTML (4.10), UI Events, WAI-ARIA 1.2 with its Authoring Practices.
 */
export function act(plan: Plan, state: FieldState, what: Act, drawn: Drawn): Step {
  const deed = new Deed(plan, state, drawn);
  const combination = combinationAt(plan, state);
  deed.do(what);
  // Moves of the component's own follow what the kind of value does; what held before decides.
  for (const move of plan.moves)
    if (isOn(move.on, what) && move.when.every((mask, axis) => (mask >> combination[axis]!) & 1))
      deed.move(move.deeds);
  return { state: deed.state, effects: deed.effects };
}

class Deed {
  effects: readonly Effect[] = [];

  constructor(
    private readonly plan: Plan,
    public state: FieldState,
    private readonly drawn: Drawn,
  ) {}

  do(what: Act): void {
    switch (what.kind) {
      case 'point':
        if (what.part !== null) this.refuseAbsent(what.part);
        return this.change({ pointer: { part: what.part, isDown: false } });
      case 'press':
      case 'hold':
        this.refuseAbsent(what.part);
        this.change({ pointer: { part: what.part, isDown: what.kind === 'hold' } });
        return this.press(what.part);
      case 'release':
        return this.change({ pointer: { ...this.state.pointer, isDown: false } });
      case 'type':
        return this.type(what.text);
      case 'paste':
        return this.put(what.text);
      case 'autofill':
        if (!this.canEdit()) throw new RefusedAct('A browser fills in only what can be changed.');
        this.enter(what.text);
        return this.change({ isAutofilled: true });
      case 'key':
        return this.key(what);
      case 'leave':
        if (!this.state.focus) throw new RefusedAct('It does not have the focus.');
        return this.leave();
      case 'send':
        return this.send();
      case 'reset':
        return this.reset();
      case 'wait':
        return this.change({ time: this.state.time + what.ms });
      case 'answer':
        return this.answer(what.ask, what.accepted);
      case 'app':
        return this.app(what.axis, what.value);
    }
  }

  move(deeds: readonly MoveDeed[]): void {
    for (const deed of deeds) {
      if (deed.kind === 'set') this.change({ set: { ...this.state.set, [deed.axis]: deed.value } });
      else if (deed.kind === 'focus') this.focus(deed.part, true);
      else if (deed.kind === 'value') this.enter(deed.text);
      else {
        const { step } = kindOf(this.plan);
        if (step) this.enter(step(this.state.value, this.plan.value, deed.by));
      }
    }
  }

  private change(parts: Partial<FieldState>): void {
    this.state = { ...this.state, ...parts };
  }

  /** What is absent or lets the pointer through cannot be pressed or pointed at. */
  private refuseAbsent(part: string): void {
    if (!Object.hasOwn(this.plan.targets, part)) throw new RefusedAct(`There is no part “${part}”.`);
    if (!this.drawn.isThere(part)) throw new RefusedAct(`“${part}” is not there.`);
    if (this.drawn.letsThrough(part)) throw new RefusedAct(`“${part}” lets the pointer through.`);
  }

  /** Whether the control can have the focus: nothing that is disabled can (HTML, 4.10.18.5). */
  private canFocus(): boolean {
    return this.plan.control !== null && this.state.set['availability'] !== 'disabled';
  }

  /** Whether a person can change the value; what is asked about can be. */
  private canEdit(): boolean {
    return this.canFocus() && this.state.set['availability'] !== 'readonly';
  }

  private press(part: string): void {
    const target = this.plan.targets[part]!;
    if (target.kind === 'none') return this.state.focus ? this.leave() : undefined;
    if (target.kind === 'button') return this.pressButton(target.part, 'pointer');
    if (!this.canFocus()) return;
    const kind = kindOf(this.plan);
    this.focus(this.plan.control!.part, kind.takesText);
    if (kind.press && this.canEdit()) this.enter(kind.press(this.state.value));
    const end = this.state.value.length;
    this.change({ selection: [end, end] });
  }

  private focus(part: string, isVisible: boolean): void {
    this.change({ focus: { part, isVisible } });
  }

  /** A button pressed: by the pointer its focus is not shown; less, more, reveal and clear leave the focus in the control if it was there. */
  private pressButton(part: string, by: 'pointer' | 'key'): void {
    if (this.state.set['availability'] === 'disabled') return;
    const role = (Object.keys(this.plan.roles) as Role[]).find(each => this.plan.roles[each] === part);
    const isInControl = this.state.focus !== null && this.state.focus.part === this.plan.control?.part;
    if (by === 'pointer' && !(role && isInControl)) this.focus(part, false);
    if (role === 'reveal') return this.change({ isRevealed: !this.state.isRevealed });
    const change = role && kindOf(this.plan).parts?.[role];
    if (change && this.canEdit()) this.enter(change(this.state.value, this.plan.value));
  }

  private type(text: string): void {
    const { focus } = this.state;
    if (!focus) throw new RefusedAct('Nothing has the focus, so nothing can be typed into.');
    if (focus.part !== this.plan.control?.part || !kindOf(this.plan).takesText)
      throw new RefusedAct(`“${focus.part}” has the focus and takes no text.`);
    this.put(text);
  }

  /** Text put where the caret is, as pasting does; a line takes no line breaks (HTML, 4.10.5.1.2). */
  private put(text: string): void {
    const { focus } = this.state;
    if (focus?.part !== this.plan.control?.part || !kindOf(this.plan).takesText)
      throw new RefusedAct('Nothing that takes text has the focus.');
    if (!this.canEdit()) return;
    const fitting = kindOf(this.plan).takesLines ? text : text.replace(/[\r\n]/g, '');
    const next = inserted(this.state, fitting, this.plan.value);
    this.enter(next.value, next.selection);
  }

  /** A value that a person has come to. */
  private enter(value: string, selection: readonly [number, number] = [value.length, value.length]): void {
    if (value === this.state.value) return this.change({ selection });
    const { complaint } = this.state;
    this.change({
      value,
      selection,
      isApproved: false,
      isAutofilled: false,
      asking: null,
      isSending: false,
      answers: {},
    });
    const { complain, forgive } = this.plan.judging;
    if (complaint !== null) {
      if (forgive === 'typing') this.change(judgedAgain(this.plan, this.state));
    } else if (complain === 'typing') this.judge();
  }

  private judge(): void {
    const { state, effects } = judged(this.plan, this.state);
    this.state = state;
    this.effects = [...this.effects, ...effects];
  }

  private key({ key, shift, control, alt }: Extract<Act, { kind: 'key' }>): void {
    const { focus } = this.state;
    if (!focus) throw new RefusedAct('Nothing has the focus, so no key does anything.');
    if (key === 'Tab') return this.tab(shift ? -1 : 1);
    const isControl = focus.part === this.plan.control?.part;
    if (!isControl) {
      // Buttons answer Enter and Space (ARIA Authoring Practices, button).
      if (key === 'Enter' || key === ' ') {
        this.focus(focus.part, true);
        this.pressButton(focus.part, 'key');
      }
      return;
    }
    const kind = kindOf(this.plan);
    // Keys show the focus, whatever it came by (Selectors 4, 8.6).
    this.focus(focus.part, true);
    const { value } = this.state;
    const changed = control || alt || !this.canEdit() ? undefined : kind.key?.(key, value, this.plan.value);
    if (changed !== undefined) return this.enter(changed);
    if (key === 'Enter') return kind.takesLines ? this.put('\n') : this.send();
    if (!kind.takesText) return;
    if (control && key.toLowerCase() === 'a') return this.change({ selection: [0, value.length] });
    if (control || alt) return;
    const edited = editedByKey(this.state, key, shift);
    if (edited) {
      if (edited.value === value || this.canEdit()) this.enter(edited.value, edited.selection);
    } else if ([...key].length === 1) this.put(key);
  }

  /** To the next stop within the field, or out of it. */
  private tab(by: -1 | 1): void {
    const stops = this.plan.stops.filter(part => this.drawn.isThere(part));
    const next = stops[stops.indexOf(this.state.focus!.part) + by];
    if (next === undefined) return this.leave();
    this.focus(next, true);
    if (next === this.plan.control?.part) this.change({ selection: [0, this.state.value.length] });
  }

  /** The focus leaves the field: the usual moment to complain. */
  private leave(): void {
    this.change({ focus: null });
    const { complain, forgive } = this.plan.judging;
    if (!this.canEdit()) return;
    if (this.state.complaint !== null) {
      if (forgive === 'leaving') this.judge();
    } else if (complain === 'leaving' && !this.state.isApproved && !this.state.asking) this.judge();
  }

  private send(): void {
    if (this.state.asking) return this.change({ isSending: true });
    if (this.canEdit()) this.judge();
    if (this.state.asking) return this.change({ isSending: true });
    if (this.state.complaint !== null) return this.focus(this.plan.control!.part, true);
    this.change({ isRevealed: false });
    this.effects = [...this.effects, { kind: 'send', value: this.state.value }];
  }

  private reset(): void {
    const { initial } = this.state;
    this.change({ value: initial, selection: [initial.length, initial.length], isAutofilled: false });
    this.forget();
  }

  /** What becomes disabled, read-only or is reset loses complaint, approval and pending asks. */
  private forget(): void {
    this.change({ complaint: null, isApproved: false, asking: null, isSending: false, answers: {} });
  }

  private answer(ask: string, isAccepted: boolean): void {
    const { asking, value, isSending } = this.state;
    const check = this.plan.checks.find(each => each.id === asking?.check && each.ask === ask);
    // An answer that comes for a value that has changed since is ignored.
    if (!check || asking?.value !== value) return;
    this.change({
      asking: null,
      isSending: false,
      answers: { ...this.state.answers, [check.id]: isAccepted },
    });
    if (isSending) this.send();
    else this.judge();
  }

  private app(axis: string, value: string): void {
    if (axis === 'value') {
      const end = value.length;
      this.change({
        value,
        selection: [end, end],
        isApproved: false,
        isAutofilled: false,
        asking: null,
        answers: {},
      });
      return this.takeBack();
    }
    const known = this.plan.axes.find(({ id }) => id === axis);
    if (!known) throw new RefusedAct(`There is no axis “${axis}”.`);
    if (!known.values.includes(value))
      throw new RefusedAct(`“${value}” is no value of ${axis}; there is ${known.values.join(', ')}.`);
    this.change({ set: { ...this.state.set, [axis]: value } });
    if (axis !== 'availability') return this.takeBack();
    if (value === 'disabled' || value === 'readonly') this.forget();
    // The focus does not stay in what is disabled (HTML, 6.6.3).
    if (value === 'disabled') this.change({ focus: null });
  }

  /** What the application does is not judged, but takes a complaint back that no longer holds. */
  private takeBack(): void {
    const { complaint } = this.state;
    if (complaint !== null && judgedAgain(this.plan, this.state).complaint !== complaint)
      this.change({ complaint: null });
  }
}
