import { BLANK, type Effect, type FieldState } from './field-state';
import { heldByType } from './input-types';
import { validated, validatedAgain } from './validation';
import type { Drawn, KeyPress } from './kinds/value-kind';
import { valueFormatOf, shownText } from './value-format';
import { isNative } from './native-list';
import { BUTTON_ROLES, REPEATING, type PartRole, type Target } from './plan-data';
import type { Plan } from './plan';
import { combinationAt } from './derived-states';

/** ms until a held button acts again. */
const HELD_FOR = 400;

/** A field as it begins: at rest, with the options and the value that it is given. */
export function atRest(
  plan: Plan,
  given: Partial<Pick<FieldState, 'value' | 'set' | 'locale'>> = {},
): FieldState {
  const { value = '' } = given;
  const held = heldByType(plan, value);
  const state = { ...BLANK, ...given, value: held, known: held, initial: held };
  const text = shownText(plan, state);
  // A browser begins before several lines, and behind a single one.
  const caret = plan.kind.takesLines ? 0 : text.length;
  return { ...state, text, selection: [caret, caret] };
}

/**
 * What a field makes of what happens to it: pure, with time given from outside, and effects as data. It is told what a browser does (a text was
 * edited, the focus has moved); what a browser makes of a person's acts is told in `user-input`. Sources: HTML (4.10), UI Events, WAI-ARIA 1.2 with
 * its Authoring Practices.
 */
export class Machine {
  readonly effects: Effect[] = [];

  constructor(
    private readonly plan: Plan,
    public state: FieldState,
    readonly drawn: Drawn,
  ) {}

  change(parts: Partial<FieldState>): void {
    this.state = { ...this.state, ...parts };
  }

  /** Places of values, after the limits. */
  get combination(): readonly number[] {
    return combinationAt(this.plan, this.state);
  }

  private get controlPart(): string | undefined {
    return this.plan.control?.part;
  }

  get isInControl(): boolean {
    return this.state.focus !== null && this.state.focus.part === this.controlPart;
  }

  private is(availability: string): boolean {
    return this.state.set['availability'] === availability;
  }

  /** Whether the control can have the focus: nothing that is disabled can (HTML, 4.10.18.5). */
  get canFocus(): boolean {
    return this.plan.control !== null && !this.is('disabled');
  }

  /** Whether a person can change the value; what is asked about can be. */
  get canEdit(): boolean {
    return this.canFocus && !this.is('readonly');
  }

  /** Whether a button answers nothing: those of a disabled field's own are off with it. */
  private isOff(part: string): boolean {
    return this.drawn.isDisabled(part);
  }

  /** Whether a browser shows the focus of the control, by whatever it came: what takes text does, and a list of the platform's own. */
  private get showsFocus(): boolean {
    const { plan } = this;
    return plan.kind.takesText || isNative(this, plan);
  }

  private roleOf(part: string): PartRole | undefined {
    return BUTTON_ROLES.find(role => this.plan.roles[role] === part);
  }

  /** What a press on a part comes to now: a button that is off lets it through to the frame that it stands in. */
  targetAt(part: string): Target | undefined {
    const target = this.plan.targets[part];
    return target?.kind === 'button' && target.isInFrame && this.isOff(target.part)
      ? { kind: 'control' }
      : target;
  }

  /** The pointer is over a part, or over nothing of it. */
  point(part: string | null, entry: number | null = null): void {
    this.change({ pointer: { part, entry, isDown: false } });
  }

  /** The pointer goes down: the focus moves now, and what can be held acts now. */
  down(part: string, entry: number | null = null): void {
    this.change({ pointer: { part, entry, isDown: true } });
    const target = this.targetAt(part);
    if (!target || target.kind === 'none') {
      if (this.state.focus) this.leave();
    } else if (target.kind === 'control') {
      // To what takes no text a label brings the focus only as it is clicked.
      const isNow = this.plan.kind.takesText || part === this.controlPart;
      if (isNow && this.canFocus) this.focus(this.controlPart!, this.showsFocus);
    } else if (target.kind === 'button' && !this.isOff(target.part)) {
      const role = this.roleOf(target.part);
      // Less, more, reveal and clear leave the focus in the control if it was there.
      if (!(role && this.isInControl)) this.focus(target.part, false);
      if (role && REPEATING.includes(role)) {
        this.pressButton(target.part);
        this.change({ held: { part: target.part, next: this.state.time + HELD_FOR } });
      }
    }
  }

  /** The pointer goes up, wherever it is. */
  release(): void {
    this.change({ pointer: { ...this.state.pointer, isDown: false }, held: null });
  }

  /** A part is clicked, by the pointer that went down on it or by something else. */
  click(part: string, entry: number | null, wasDown: boolean): void {
    const target = this.targetAt(part);
    if (target?.kind === 'control') this.pressControl();
    else if (target?.kind === 'entry' && entry !== null && this.canEdit)
      this.plan.kind.list?.chosen(this, this.plan, entry);
    else if (target?.kind === 'button') {
      const role = this.roleOf(target.part);
      // What repeats has acted when it was pressed down.
      if (!(wasDown && role && REPEATING.includes(role))) this.pressButton(target.part);
    }
  }

  private pressControl(): void {
    const { kind } = this.plan;
    if (!this.canFocus) return;
    this.focus(this.controlPart!, this.showsFocus);
    if (!this.canEdit) return;
    if (kind.press) this.enter(kind.press(this.state.value));
    kind.list?.pressed(this, this.plan);
  }

  /** A button is pressed, by whatever. */
  pressButton(part: string): void {
    const { kind, value } = this.plan;
    if (this.isOff(part)) return;
    const role = this.roleOf(part);
    if (role === 'reveal') return this.change({ isRevealed: !this.state.isRevealed });
    const change = role && kind.parts?.[role];
    if (change && this.canEdit) this.enter(change(this.state.value, value));
  }

  /** The focus comes to a part; `isVisible` where a browser shows it. */
  focus(part: string, isVisible: boolean): void {
    const wasInControl = this.isInControl;
    const { focus } = this.state;
    // What shows its focus goes on showing it.
    this.change({ focus: { part, isVisible: isVisible || (focus?.part === part && focus.isVisible) } });
    if (!this.isInControl || wasInControl) return;
    const { kind } = this.plan;
    const text =
      this.canEdit && kind.edited
        ? kind.edited(this.state.value, valueFormatOf(this.plan, this.state))
        : this.state.text;
    this.change({ text, selection: [text.length, text.length] });
  }

  /** A button that has the focus is disabled or goes by what came: the focus goes to the control, rather than to nowhere. */
  rescue(): void {
    if (this.canFocus) this.focus(this.controlPart!, this.showsFocus);
    else this.leave();
  }

  /** The focus leaves the field: the usual moment to complain. */
  leave(): void {
    this.change({ focus: null, isOpen: false, active: null, sought: null, held: null });
    this.showAnew();
    const { complain, forgive } = this.plan.judging;
    if (!this.canEdit) return;
    if (this.state.complaint !== null) {
      if (forgive === 'leaving') this.judge();
    } else if (complain === 'leaving' && !this.state.isApproved && !this.state.asking) this.judge();
  }

  /** A person has edited the text of the control. */
  edit(text: string, selection: readonly [number, number]): void {
    const { kind } = this.plan;
    const held = heldByType(this.plan, text);
    const value = kind.read?.(held, valueFormatOf(this.plan, this.state), this.state.known) ?? held;
    this.change({ text, selection, isBackward: false });
    this.become(value);
  }

  select(selection: readonly [number, number], isBackward = false): void {
    this.change({ selection, isBackward });
  }

  /** Characters were not taken. */
  refuse(text: string): void {
    this.effects.push({ kind: 'refuse', text });
  }

  autofill(text: string): void {
    this.edit(text, [text.length, text.length]);
    if (!this.isInControl) this.showAnew();
    this.change({ isAutofilled: true });
  }

  /** A value that a person has come to otherwise than by writing. */
  enter(value: string): void {
    const { kind } = this.plan;
    this.become(value);
    const text =
      this.isInControl && kind.edited
        ? kind.edited(value, valueFormatOf(this.plan, this.state))
        : shownText(this.plan, this.state);
    this.write(text);
  }

  /** The value is another now. */
  become(value: string): void {
    if (value === this.state.value) return;
    const { kind, value: document } = this.plan;
    const isOfKind = !kind.isEmpty(value) && !kind.isMisfit(value, document);
    this.change({
      value,
      known: isOfKind ? value : this.state.known,
      isApproved: false,
      isAutofilled: false,
      asking: null,
      isSending: false,
      answers: {},
    });
    const { complain, forgive } = this.plan.judging;
    if (this.state.complaint !== null) {
      if (forgive === 'typing') this.state = validatedAgain(this.plan, this.state);
    } else if (complain === 'typing') this.judge();
  }

  judge(): void {
    const { state, effects } = validated(this.plan, this.state);
    this.state = state;
    this.effects.push(...effects);
  }

  /** A key goes down in the control. Whether it has been answered here; else a browser goes on with it. */
  key(press: KeyPress): boolean {
    const { kind, value: document } = this.plan;
    if (press.key === 'Tab' && !(kind.list && this.state.isOpen)) return false;
    // Keys show the focus, whatever it came by (Selectors 4, 8.6); shortcuts do not.
    this.focus(this.controlPart!, !press.control && !press.alt);
    if (!this.canEdit) return false;
    if (kind.list) return kind.list.keyed(this, this.plan, press);
    const { control, alt } = press;
    // A button is pressed by Enter as by Space.
    const key = press.key === 'Enter' && this.plan.control?.element === 'button' ? ' ' : press.key;
    const changed = control || alt ? undefined : kind.key?.(key, this.state.value, document);
    if (changed !== undefined) this.enter(changed);
    return changed !== undefined;
  }

  /** Judges it as sending does. `null` while the application is asked. */
  sendable(): boolean | null {
    if (!this.state.asking && this.canEdit) this.judge();
    if (this.state.asking) return null;
    if (this.state.complaint === null) this.change({ isRevealed: false });
    return this.state.complaint === null;
  }

  /** Sends the field alone: what fails gets the focus. */
  send(): void {
    const isFine = this.sendable();
    if (isFine === null) this.change({ isSending: true });
    else if (!isFine) this.focus(this.controlPart!, true);
    else if (!this.is('disabled')) this.effects.push({ kind: 'send', value: this.state.value });
  }

  reset(): void {
    const { initial: value } = this.state;
    this.change({ value, known: value, isAutofilled: false, isOpen: false, active: null });
    // What a browser held otherwise than it was typed goes as well.
    this.write(shownText(this.plan, this.state));
    this.forget();
  }

  /** Writes the text for a value that nobody typed. */
  private showAnew(): void {
    const text = shownText(this.plan, this.state);
    // What a browser holds otherwise than it was typed stays as it was typed.
    if (heldByType(this.plan, this.state.text) !== text) this.write(text);
  }

  /** Another text in the control, with the caret at its end; the same leaves the caret where it is. */
  private write(text: string): void {
    if (text !== this.state.text)
      this.change({ text, selection: [text.length, text.length], isBackward: false });
  }

  /** What becomes disabled, read-only or is reset loses complaint, approval and pending asks. */
  private forget(): void {
    this.change({ complaint: null, isApproved: false, asking: null, isSending: false, answers: {} });
  }

  /** The application gives a value. */
  give(given: string): void {
    const value = heldByType(this.plan, given);
    this.change({ value, known: value, isApproved: false, isAutofilled: false, asking: null, answers: {} });
    this.showAnew();
    this.takeBack();
  }

  /** The application has another locale. */
  speak(locale: string): void {
    this.change({ locale });
    this.showAnew();
  }

  /** The application changes an axis to one of its values. */
  app(axis: string, value: string): void {
    this.change({ set: { ...this.state.set, [axis]: value } });
    if (!this.isInControl) this.showAnew();
    if (axis !== 'availability') return this.takeBack();
    if (this.canEdit) return;
    this.forget();
    this.change({ isOpen: false, active: null, held: null });
    // The focus does not stay in what is disabled (HTML, 6.6.3).
    if (!this.canFocus) this.change({ focus: null });
  }

  /** What the application does is not judged, but takes a complaint back that no longer holds. */
  private takeBack(): void {
    const { complaint } = this.state;
    if (complaint !== null && validatedAgain(this.plan, this.state).complaint !== complaint)
      this.change({ complaint: null });
  }
}
