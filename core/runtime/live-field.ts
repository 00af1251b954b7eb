import type { Act, EntryReference } from '../behaviour/acts';
import type { FieldState } from '../behaviour/field-state';
import type { Fails, Plan } from '../behaviour/plan';
import type { ValueKind } from '../behaviour/kinds/value-kind';
import { atRest, Machine } from '../behaviour/machine';
import type { Target } from '../behaviour/plan-data';
import { combinationAt } from '../behaviour/derived-states';
import type { Extra, MakeExtra } from './extra';
import { FieldElements } from './field-elements';
import { FieldView, placeCaret } from './field-view';
import type { AttachOptions, ControlView, PageField } from './page-field';
import type { ShippedPlan } from './shipped-plan';

/** A field brought to life. */
export interface AttachedField {
  value: string;
  /** BCP 47. */
  set locale(locale: string);
  readonly state: FieldState;
  /** By axis. */
  readonly combination: Readonly<Record<string, string>>;
  /** The application changes an option or a state. Throws `RangeError` for what there is not. */
  set(axis: string, value: string): void;
  send(): void;
  reset(): void;
  detach(): void;
}

/** What the modules that a component asks for give along. */
export interface ShippedKind {
  readonly kind: ValueKind;
  readonly control?: ControlView;
  readonly comparing?: Readonly<Record<string, Fails>>;
  readonly extras?: readonly MakeExtra[];
}

/** An entry as acts count it. */
const placed = (entry: number | null): EntryReference | null =>
  entry === null ? null : { place: entry + 1 };

/**
 * The shipped markup of a field, alive. Editing, the caret, composition and undo stay the browser's; handlers of the page come first, and what they
 * prevent is not done.
 */
export class LiveField implements AttachedField, PageField {
  state: FieldState;
  readonly elements: FieldElements;
  readonly plan: Plan & ShippedPlan;
  /** Of a control that holds no text. */
  readonly controlView: ControlView | undefined;
  /** Ends with the field. */
  readonly signal: AbortSignal;
  private readonly view: FieldView;
  private readonly extras: readonly Extra[];
  private readonly ended = new AbortController();
  private readonly began = performance.now();
  private isComposing = false;
  /** Whether a browser is moving the focus by itself just now. */
  private isMoving = false;
  /** Where the pointer went down last, until it is clicked. */
  private downAt: string | null = null;

  constructor(
    data: ShippedPlan,
    { kind, control: controlView, comparing, extras = [] }: ShippedKind,
    root: HTMLElement,
    readonly options: AttachOptions,
  ) {
    const plan = (this.plan = { ...data, kind, ...(comparing ? { comparing } : {}) });
    this.controlView = controlView;
    this.signal = this.ended.signal;
    this.elements = new FieldElements(root, plan);
    this.view = new FieldView(plan, this.elements, options.messages ?? {});
    const { control } = this;
    this.state = atRest(plan, {
      value: options.value ?? this.found(),
      locale: options.locale ?? (root.closest<HTMLElement>('[lang]')?.lang || 'en'),
      set: this.given(),
    });
    this.keepDefault();
    this.listen(root);
    const watch = new MutationObserver(() => this.follow());
    if (control) watch.observe(control, { attributeFilter: ['disabled', 'readonly', 'required'] });
    this.signal.addEventListener('abort', () => watch.disconnect());
    this.extras = extras.map(make => make(this));
    this.show();
  }

  get control(): HTMLElement | null {
    return this.elements.control;
  }

  get value(): string {
    return this.state.value;
  }

  set value(value: string) {
    this.run(machine => machine.give(value));
  }

  get combination(): Readonly<Record<string, string>> {
    const { axes } = this.plan;
    const places = this.placesAt(this.state);
    return Object.fromEntries(axes.map(({ id, values }, axis) => [id, values[places[axis]!]!]));
  }

  /** The combination in a state, by places of values. */
  placesAt(state: FieldState): readonly number[] {
    return combinationAt(this.plan, state);
  }

  set locale(locale: string) {
    this.run(machine => machine.speak(locale));
  }

  set(axis: string, value: string): void {
    const { axes, attributes } = this.plan;
    const place = axes.findIndex(({ id }) => id === axis);
    if (!axes[place]?.values.includes(value)) throw new RangeError(`${axis}=${value}`);
    this.run(machine => machine.app(axis, value));
    if (axes[place].kind === 'option') this.elements.root.setAttribute(attributes[place]!, value);
  }

  send(): void {
    this.run(machine => machine.send());
  }

  /** Called before a browser resets the control itself. */
  reset(): void {
    this.run(machine => machine.reset());
    this.keepDefault();
  }

  /** What a browser writes when a form is reset is what is shown by now: in another locale it is written otherwise. */
  private keepDefault(): void {
    const { control } = this;
    if (!control || !('defaultValue' in control) || !this.plan.kind.takesText) return;
    const { text } = this.state;
    if (control.defaultValue !== text) control.defaultValue = text;
  }

  /** The focus comes to the control, and the caret to the end of its text. */
  focus(): void {
    const control = this.control as HTMLInputElement | null;
    if (!control || this.elements.active() === control) return;
    control.focus();
    if (!this.plan.kind.takesText) return;
    const end = control.value.length;
    placeCaret(control, end, end);
    this.select();
  }

  detach(): void {
    this.ended.abort();
  }

  /** What stands in the markup. */
  private found(): string {
    const control = this.control as HTMLInputElement | null;
    if (!control) return '';
    return this.controlView?.read(this) ?? control.value;
  }

  /** The value of an axis as an attribute of the root says it. */
  inMarkup(id: string): string | null {
    const axis = this.plan.axes.findIndex(each => each.id === id);
    return axis < 0 ? null : this.elements.root.getAttribute(this.plan.attributes[axis]!);
  }

  /** What the markup says of options and of states that are the application's. */
  private given(): Record<string, string> {
    const control = this.control as HTMLInputElement | null;
    const options = this.plan.axes.flatMap(({ id, kind }) => {
      const value = kind === 'option' ? this.inMarkup(id) : null;
      return value === null ? [] : [[id, value] as const];
    });
    const is = (name: string): boolean =>
      control?.hasAttribute(name) === true || control?.getAttribute(`aria-${name}`) === 'true';
    return {
      ...Object.fromEntries(options),
      ...(is('required') ? { requirement: 'required' } : {}),
      ...(is('disabled') ? { availability: 'disabled' } : is('readonly') ? { availability: 'readonly' } : {}),
    };
  }

  /** The page has set or taken an attribute of the control. */
  private follow(): void {
    const { requirement = 'optional', availability = 'enabled' } = this.given();
    for (const [axis, value] of Object.entries({ requirement, availability })) {
      const known = this.plan.axes.find(({ id }) => id === axis);
      if (known?.values.includes(value) && (this.state.set[axis] ?? known.values[known.rest]) !== value)
        this.set(axis, value);
    }
  }

  private machine(): Machine {
    return new Machine(
      this.plan,
      { ...this.state, time: performance.now() - this.began },
      {
        isDisabled: part => (this.elements.first(part) as HTMLButtonElement | null)?.disabled === true,
        entries: () => this.controlView?.entries?.(this.elements) ?? [],
      },
    );
  }

  /** Lets something happen, shows what has come of it, and does what is to be done outside. */
  run(what: (machine: Machine) => unknown): void {
    const before = this.state;
    const machine = this.machine();
    what(machine);
    this.state = machine.state;
    this.show();
    for (const { shown } of this.extras) shown?.(machine);
    this.state = machine.state;
    this.moveFocus(before);
    for (const effect of machine.effects) {
      if (effect.kind === 'send') this.options.onSend?.(effect.value);
      for (const extra of this.extras) extra.effect?.(effect);
    }
    if (this.state.value !== before.value) this.options.onChange?.(this.state.value);
    for (const { after } of this.extras) after?.(before);
  }

  private show(): void {
    const { state } = this;
    const combination = this.placesAt(state);
    this.view.marks(combination);
    const described = this.extras.flatMap(({ show }) => show?.(state, combination) ?? []);
    if (this.controlView) this.controlView.show(state, this.elements);
    // Another text would end what is being composed.
    else if (!this.isComposing) this.view.text(state);
    this.view.message(state, described);
  }

  /** The machine may move the focus; a browser that has moved it already is left alone. */
  private moveFocus({ focus: before }: FieldState): void {
    const { focus } = this.state;
    if (focus?.part === before?.part) return;
    const activeElement = this.elements.active();
    if (focus === null) {
      // What is disabled keeps the focus for a while.
      if (this.elements.root.contains(activeElement)) (activeElement as HTMLElement).blur();
      return;
    }
    const element = this.elements.first(focus.part);
    if (!element || activeElement === element || this.isMoving) return;
    if (element === this.control) this.focus();
    else element.focus();
  }

  /** Listens to what the page has not prevented. */
  on<Name extends keyof HTMLElementEventMap>(
    name: Name,
    handle: (event: HTMLElementEventMap[Name]) => void,
  ): void {
    this.elements.root.addEventListener(
      name,
      event => {
        if (!event.defaultPrevented) handle(event);
      },
      { signal: this.signal },
    );
  }

  private listen(root: HTMLElement): void {
    this.on('focusin', event => this.focused(event));
    this.on('focusout', event => this.leave(event));
    this.on('pointerover', ({ target }) => this.pointed(target));
    this.on('pointerleave', () => this.run(machine => machine.point(null)));
    this.on('mousedown', event => this.down(event));
    this.on('click', event => this.clicked(event));
    this.on('input', event => this.edited(event));
    this.on('compositionstart', () => (this.isComposing = true));
    this.on('compositionend', ({ data }) => {
      const refused = this.extras.map(({ composed }) => composed?.(data) ?? '').join('');
      this.isComposing = false;
      this.edit();
      if (refused !== '') this.run(machine => machine.refuse(refused));
    });
    this.on('keydown', event => this.key(event));
    this.on('keyup', event => {
      // A press of Space on a button counts as its key comes up.
      if (this.plan.kind.list && event.key === ' ' && event.target === this.control) event.preventDefault();
    });
    for (const name of ['pointerup', 'pointercancel'])
      root.ownerDocument.addEventListener(name, () => this.released(), { signal: this.signal });
  }

  private act(act: Act, what: (machine: Machine) => void): void {
    const before = this.state;
    this.run(machine => {
      what(machine);
      for (const { acted } of this.extras) acted?.(act, machine, before);
    });
  }

  private focused({ target }: FocusEvent): void {
    const at = this.elements.partAt(target);
    if (!at) return;
    const isFromOutside = this.state.focus === null && this.downAt === null;
    const shown = this.state.text;
    const [from, to] = this.selection() ?? [0, 0];
    this.browserMoves(() =>
      this.run(machine => machine.focus(at.part, (target as Element).matches(':focus-visible'))),
    );
    // A text that one came to by Tab is selected whole, also where it is written otherwise while one edits it.
    const { text } = this.state;
    if (text !== shown && to - from === shown.length)
      placeCaret(this.control as HTMLInputElement, 0, text.length);
    this.select();
    if (isFromOutside) for (const { entered } of this.extras) entered?.(at.part);
  }

  /** The text may have changed as the focus came; what the browser has selected since is what counts. */
  private select(): void {
    const selection = this.selection();
    if (selection) this.state = { ...this.state, selection };
  }

  private browserMoves(what: () => void): void {
    this.isMoving = true;
    what();
    this.isMoving = false;
  }

  private leave({ relatedTarget, target }: FocusEvent): void {
    if (this.elements.root.contains(relatedTarget as Node | null)) return;
    // A window that goes to the back keeps the focus where it was.
    if (relatedTarget === null && this.elements.active() === target) return;
    if (this.state.focus) this.browserMoves(() => this.act({ kind: 'leave' }, machine => machine.leave()));
    for (const { left } of this.extras) left?.();
  }

  private pointed(target: EventTarget | null): void {
    const at = this.elements.partAt(target);
    const { pointer } = this.state;
    const part = at?.part ?? null;
    const entry = at?.entry ?? null;
    if (pointer.part === part && pointer.entry === entry) return;
    this.act({ kind: 'point', part, entry: placed(entry) }, machine => machine.point(part, entry));
  }

  /** What a press on a part comes to. */
  private kindOf(part: string): Target['kind'] {
    return this.machine().targetAt(part)?.kind ?? 'none';
  }

  private down(event: MouseEvent): void {
    const at = event.button === 0 ? this.elements.partAt(event.target) : null;
    if (!at) return;
    this.downAt = at.part;
    const { control, plan } = this;
    const kind = this.kindOf(at.part);
    // What takes no focus is left to the browser, which tells when the focus leaves.
    if (kind === 'none') return this.run(machine => machine.point(at.part));
    const wasInControl = this.machine().isInControl;
    this.browserMoves(() => this.run(machine => machine.down(at.part, at.entry)));
    if (!control || event.target === control) return;
    const { isInControl } = this.machine();
    // A label brings the focus to what takes no text as it is clicked.
    if (!isInControl || (kind === 'control' && !wasInControl && !plan.kind.takesText)) return;
    // The focus stays in the control, or comes to it, where a press lands on it in a roundabout way.
    event.preventDefault();
    // Else what is selected on the page would stay so, and a label in it does nothing.
    if (!plan.kind.takesText) control.ownerDocument.getSelection()?.removeAllRanges();
    this.focus();
  }

  private clicked(event: MouseEvent): void {
    const at = this.elements.partAt(event.target);
    if (!at) return;
    const { control } = this;
    const kind = this.kindOf(at.part);
    // What a key or a reader clicks has no count.
    const wasDown = this.downAt === at.part && event.detail > 0;
    this.downAt = null;
    // A label clicks the control in its turn.
    if (kind === 'control' && event.target !== control) {
      if (this.plan.kind.takesText && this.machine().canFocus) this.focus();
      return;
    }
    if (kind === 'none') return;
    const { part, entry } = at;
    this.act({ kind: 'press', part, entry: placed(entry) }, machine => machine.click(part, entry, wasDown));
  }

  private released(): void {
    if (this.state.pointer.isDown) this.run(machine => machine.release());
  }

  private edited({ target, isComposing }: Event & { isComposing?: boolean }): void {
    if (target === this.control && !isComposing && !this.isComposing) this.edit();
  }

  private edit(): void {
    const control = this.control as HTMLInputElement;
    if (this.controlView) {
      const value = this.controlView.read(this);
      // Where nothing can be changed a browser changes a select all the same; what it held is shown again.
      return this.run(machine => machine.canEdit && machine.become(value));
    }
    const selection = this.selection() ?? [control.value.length, control.value.length];
    const isFilled = control.matches(':autofill');
    if (!isFilled) return this.run(machine => machine.edit(control.value, selection));
    this.act({ kind: 'autofill', text: control.value }, machine => machine.autofill(control.value));
  }

  selection(): readonly [number, number] | null {
    const { selectionStart, selectionEnd } = this.control as HTMLInputElement;
    return typeof selectionStart === 'number' ? [selectionStart, selectionEnd!] : null;
  }

  private key(event: KeyboardEvent): void {
    if (event.isComposing || this.isComposing) return;
    const { key, shiftKey: shift, ctrlKey, metaKey, altKey: alt } = event;
    const act = { kind: 'key', key, shift, control: ctrlKey || metaKey, alt } as const;
    if (event.target !== this.control) {
      if (this.plan.moves.length > 0) this.act(act, () => undefined);
      return;
    }
    let isDone = false;
    this.act(act, machine => (isDone = machine.key(act)));
    if (isDone) event.preventDefault();
    else if (key === 'Enter' && !this.plan.kind.takesLines && !(this.control as HTMLInputElement).form)
      this.send();
  }
}
