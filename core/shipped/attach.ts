import { admitted } from '../behaviour/admitted';
import type { Act } from '../behaviour/acts';
import type { Effect, FieldState } from '../behaviour/field-state';
import type { ValueKind } from '../behaviour/kinds/value-kind';
import { atRest, Machine } from '../behaviour/machine';
import { REPEATING, type Plan } from '../behaviour/plan';
import { combinationAt } from '../behaviour/states';
import { FieldElements } from './field-elements';
import { FieldView, type Words } from './field-view';
import { formOf, type FormField } from './form';
import type { ListView } from './list-view';
import type { ShippedPlan } from './shipped-plan';

/** What a page gives to a field. */
export interface AttachOptions {
  readonly value?: string;
  /** Called with what forms submit, whenever that has changed. */
  readonly onChange?: (value: string) => void;
  /** Answers what only the application knows; what nobody answers is accepted. */
  readonly ask?: (ask: string, value: string) => boolean | Promise<boolean>;
  /** Called where the field stands in no form, when Enter sends it. */
  readonly onSend?: (value: string) => void;
  readonly locale?: string;
  /** Words instead of the script’s own, by id of the check; `valid` for what is approved. */
  readonly messages?: Words;
  /** Told of each act as it is done, for whoever notes them. */
  readonly onAct?: (act: Act) => void;
}

/** A field brought to life. */
export interface AttachedField {
  value: string;
  readonly state: FieldState;
  /** By axis. */
  readonly combination: Readonly<Record<string, string>>;
  /** The application changes an option or a state. */
  set(axis: string, value: string): void;
  send(): void;
  reset(): void;
  /** Calls back after each change; gives a function that ends it. */
  observe(seen: (state: FieldState) => void): () => void;
  detach(): void;
}

/** What a component's own module gives along. */
export interface ShippedKind {
  readonly kind: ValueKind;
  readonly list?: ListView;
}

/**
 * Brings the shipped markup of a field to life. Editing, the caret, composition and undo stay the browser's; handlers of the page come first, and
 * what they prevent is not done.
 */
export function attachWith(
  data: ShippedPlan,
  kind: ShippedKind,
  root: HTMLElement,
  options: AttachOptions = {},
): AttachedField {
  return new LiveField({ ...data, kind: kind.kind }, kind.list ?? null, root, options);
}

class LiveField implements AttachedField, FormField {
  state: FieldState;
  private readonly elements: FieldElements;
  private readonly view: FieldView;
  private readonly observers = new Set<(state: FieldState) => void>();
  private readonly ended = new AbortController();
  private readonly began = performance.now();
  private readonly live: HTMLElement;
  private timer = 0;
  private isComposing = false;
  /** Whether a browser is moving the focus by itself just now. */
  private isMoving = false;
  private waiting: ((isFine: boolean) => void)[] = [];
  /** Where the pointer went down last, until it is clicked. */
  private downAt: string | null = null;
  private readonly watch: MutationObserver;

  constructor(
    private readonly plan: Plan & ShippedPlan,
    private readonly list: ListView | null,
    root: HTMLElement,
    private readonly options: AttachOptions,
  ) {
    this.elements = new FieldElements(root, plan);
    this.view = new FieldView(plan, this.elements, options.messages ?? {}, list);
    const { control } = this.elements;
    this.state = atRest(plan, {
      value: options.value ?? this.found(),
      locale: options.locale ?? (root.closest<HTMLElement>('[lang]')?.lang || 'en'),
      set: this.given(),
    });
    this.live = root.ownerDocument.createElement('span');
    this.live.setAttribute('role', 'status');
    this.live.style.cssText =
      'position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap';
    if (plan.kind.taken) root.append(this.live);
    this.equip(control);
    if (control && 'defaultValue' in control && plan.kind.takesText) {
      const { text } = this.state;
      if (control.defaultValue !== text) control.defaultValue = text as never;
    }
    this.listen(root);
    this.watch = new MutationObserver(() => this.follow());
    if (control) this.watch.observe(control, { attributeFilter: ['disabled', 'readonly', 'required'] });
    this.view.show(this.state);
    formOf(control)?.add(this);
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

  get name(): string {
    return (this.control as HTMLInputElement | null)?.name ?? '';
  }

  get isDisabled(): boolean {
    return this.state.set['availability'] === 'disabled';
  }

  get values(): readonly string[] {
    const { value } = this.state;
    return this.list?.values(value) ?? [value];
  }

  get combination(): Readonly<Record<string, string>> {
    const { axes } = this.plan;
    const places = combinationAt(this.plan, this.state);
    return Object.fromEntries(axes.map(({ id, values }, axis) => [id, values[places[axis]!]!]));
  }

  set(axis: string, value: string): void {
    this.run(machine => machine.app(axis, value));
    const place = this.plan.axes.findIndex(({ id, kind }) => id === axis && kind === 'option');
    if (place >= 0) this.elements.root.setAttribute(this.plan.attributes[place]!, value);
  }

  send(): void {
    this.run(machine => machine.send());
  }

  reset(): void {
    this.run(machine => machine.reset());
  }

  /** Another field of the form was left. */
  other(name: string, value: string): void {
    this.run(machine => machine.other(name, value));
  }

  /** Judges before the form is sent; resolves with whether it may be. */
  ready(): boolean | Promise<boolean> {
    let isFine: boolean | null = null;
    this.run(machine => (isFine = machine.sendable()));
    return isFine ?? new Promise(resolve => this.waiting.push(resolve));
  }

  /** The focus comes to the control, and the caret to the end of its text. */
  focus(): void {
    const control = this.control as HTMLInputElement | null;
    if (!control || this.elements.active() === control) return;
    control.focus();
    if (!this.plan.kind.takesText) return;
    const end = control.value.length;
    control.setSelectionRange(end, end);
    this.select();
  }

  observe(seen: (state: FieldState) => void): () => void {
    this.observers.add(seen);
    return () => this.observers.delete(seen);
  }

  detach(): void {
    this.ended.abort();
    this.watch.disconnect();
    clearTimeout(this.timer);
    this.live.remove();
    formOf(this.control)?.remove(this);
  }

  /** What stands in the markup. */
  private found(): string {
    const control = this.control as HTMLInputElement | null;
    if (!control) return '';
    if (control.type === 'checkbox') return String(control.checked);
    if (control.localName !== 'button') return control.value;
    const entries = this.list?.entries(this.elements) ?? [];
    const place = this.elements.entries().findIndex(each => each.getAttribute('aria-selected') === 'true');
    return this.combinationInMarkup('content') === 'filled' ? (entries[place]?.id ?? '') : '';
  }

  /** The value of an axis as an attribute of the root says it. */
  private combinationInMarkup(id: string): string | null {
    const axis = this.plan.axes.findIndex(each => each.id === id);
    return axis < 0 ? null : this.elements.root.getAttribute(this.plan.attributes[axis]!);
  }

  /** What the markup says of options and of states that are the application's. */
  private given(): Record<string, string> {
    const control = this.control as HTMLInputElement | null;
    const options = this.plan.axes.flatMap(({ id, kind }) => {
      const value = kind === 'option' ? this.combinationInMarkup(id) : null;
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

  /** What a pattern of the ARIA Authoring Practices asks of the control beyond the markup. */
  private equip(control: HTMLElement | null): void {
    const { kind, least, most, length, of } = this.plan.value;
    if (!control) return;
    if (kind === 'count') {
      control.setAttribute('role', 'spinbutton');
      control.inputMode = 'numeric';
      if (typeof least === 'number') control.setAttribute('aria-valuemin', String(least));
      if (typeof most === 'number') control.setAttribute('aria-valuemax', String(most));
    }
    // Tab passes by what only repeats what keys do in the control.
    for (const role of REPEATING)
      for (const element of this.elements.all(this.plan.roles[role] ?? '')) element.tabIndex = -1;
    if (kind === 'amount') control.inputMode = 'decimal';
    if (kind === 'code') {
      control.inputMode = of === 'digits' ? 'numeric' : 'text';
      control.setAttribute('autocomplete', 'one-time-code');
      if (length !== undefined) control.setAttribute('maxlength', String(length));
    }
  }

  private machine(): Machine {
    return new Machine(
      this.plan,
      { ...this.state, time: performance.now() - this.began },
      {
        isDisabled: part => (this.elements.first(part) as HTMLButtonElement | null)?.disabled === true,
        entries: () => this.list?.entries(this.elements) ?? [],
      },
    );
  }

  /** Lets something happen, shows what has come of it, and does what is to be done outside. */
  private run(what: (machine: Machine) => unknown): void {
    const before = this.state;
    const machine = this.machine();
    what(machine);
    this.state = machine.state;
    this.view.show(this.state);
    if (this.isLost()) {
      machine.rescue();
      this.state = machine.state;
    }
    if (this.plan.value.kind === 'count')
      this.control?.setAttribute(
        'aria-valuenow',
        this.state.value === '' ? '' : String(Number(this.state.value)),
      );
    this.moveFocus(before);
    for (const effect of machine.effects) this.effect(effect);
    if (this.state.value !== before.value) this.options.onChange?.(this.state.value);
    if (before.asking && !this.state.asking) {
      const isFine = this.state.complaint === null;
      for (const resolve of this.waiting.splice(0)) resolve(isFine);
    }
    this.hold();
    for (const seen of this.observers) seen(this.state);
  }

  /** Whether a button that had the focus cannot have it any more. */
  private isLost(): boolean {
    const { focus } = this.state;
    if (focus === null || focus.part === this.plan.control?.part) return false;
    const element = this.elements.first(focus.part) as HTMLButtonElement | null;
    return !element || element.disabled || element.getClientRects().length === 0;
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

  private effect(effect: Effect): void {
    if (effect.kind === 'refuse') this.say(effect.text);
    else if (effect.kind === 'ask') this.ask(effect.ask, effect.value);
    else this.options.onSend?.(effect.value);
  }

  /** Read out, and not seen. */
  private say(refused: string): void {
    const check = this.plan.checks.find(({ kind }) => kind === 'kind');
    const text = check ? (this.options.messages?.[check.id] ?? this.plan.texts[check.id]) : undefined;
    // The same once more has to be another text, to be read out again.
    const said = text ?? this.plan.notTaken.replace('{text}', refused);
    this.live.textContent = this.live.textContent === said ? `${said}\u00a0` : said;
  }

  private ask(ask: string, value: string): void {
    const answered = (isAccepted: boolean): void => {
      if (!this.ended.signal.aborted && this.state.asking?.value === value)
        this.run(machine => machine.answer(ask, isAccepted));
    };
    const answer = this.options.ask?.(ask, value) ?? true;
    // What could not be asked is not accepted: the field would wait for ever.
    Promise.resolve(answer).then(answered, () => answered(false));
  }

  /** A button that is held acts again when its time comes. */
  private hold(): void {
    clearTimeout(this.timer);
    const { held, time } = this.state;
    if (held)
      this.timer = setTimeout(
        () => this.run(machine => machine.wait(performance.now() - this.began)),
        Math.max(0, held.next - time),
      ) as unknown as number;
  }

  private listen(root: HTMLElement): void {
    const { signal } = this.ended;
    const on = <Name extends keyof HTMLElementEventMap>(
      name: Name,
      handle: (event: HTMLElementEventMap[Name]) => void,
    ): void =>
      root.addEventListener(
        name,
        event => {
          if (!event.defaultPrevented) handle(event);
        },
        { signal },
      );
    on('focusin', event => this.focused(event));
    on('focusout', event => this.left(event));
    on('pointerover', ({ target }) => this.pointed(target));
    on('pointerleave', () => this.run(machine => machine.point(null)));
    on('mousedown', event => this.down(event));
    on('click', event => this.clicked(event));
    on('beforeinput', event => this.admit(event));
    on('input', event => this.edited(event));
    on('compositionstart', () => (this.isComposing = true));
    on('compositionend', () => {
      this.isComposing = false;
      this.edit();
    });
    on('keydown', event => this.key(event));
    on('keyup', event => {
      // A press of Space on a button counts as its key comes up.
      if (this.list && event.key === ' ' && event.target === this.control) event.preventDefault();
    });
    root.ownerDocument.addEventListener('pointerup', () => this.released(), { signal });
    root.ownerDocument.addEventListener('pointercancel', () => this.released(), { signal });
    if (this.plan.boxes)
      root.ownerDocument.addEventListener('selectionchange', () => this.selected(), { signal });
  }

  private act(act: Act, what: (machine: Machine) => void): void {
    this.options.onAct?.(act);
    const before = this.state;
    this.run(machine => {
      what(machine);
      machine.moves(act, before);
    });
  }

  private focused({ target }: FocusEvent): void {
    const at = this.elements.partAt(target);
    if (!at) return;
    const isFromOutside = this.state.focus === null && this.downAt === null;
    this.browserMoves(() =>
      this.run(machine => machine.focus(at.part, (target as Element).matches(':focus-visible'))),
    );
    this.select();
    if (isFromOutside) this.noteFocus(at.part);
  }

  /** The focus came by keys from elsewhere: as acts a press, and where a browser selects the whole text, that. */
  private noteFocus(part: string): void {
    const { onAct } = this.options;
    const { text, selection } = this.state;
    onAct?.({ kind: 'press', part, entry: null });
    if (text !== '' && selection[0] === 0 && selection[1] === text.length)
      onAct?.({ kind: 'key', key: 'a', shift: false, control: true, alt: false });
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

  private left({ relatedTarget, target }: FocusEvent): void {
    if (this.elements.root.contains(relatedTarget as Node | null)) return;
    // A window that goes to the back keeps the focus where it was.
    if (relatedTarget === null && this.elements.active() === target) return;
    if (this.state.focus) this.browserMoves(() => this.act({ kind: 'leave' }, machine => machine.leave()));
    if (this.name !== '') formOf(this.control)?.left(this);
  }

  private pointed(target: EventTarget | null): void {
    const at = this.elements.partAt(target);
    const { pointer } = this.state;
    const part = at?.part ?? null;
    const entry = at?.entry ?? null;
    if (pointer.part === part && pointer.entry === entry) return;
    this.act({ kind: 'point', part, entry: entry === null ? null : { place: entry + 1 } }, machine =>
      machine.point(part, entry),
    );
  }

  private down(event: MouseEvent): void {
    const at = event.button === 0 ? this.elements.partAt(event.target) : null;
    if (!at) return;
    this.downAt = at.part;
    const { control, plan } = this;
    const kind = this.machine().targetAt(at.part)?.kind ?? 'none';
    // What takes no focus is left to the browser, which tells when the focus leaves.
    if (kind === 'none') return this.run(machine => machine.point(at.part));
    const wasInControl = this.state.focus?.part === plan.control?.part;
    this.browserMoves(() => this.run(machine => machine.down(at.part, at.entry)));
    if (!control || event.target === control) return;
    const isInControl = this.state.focus?.part === plan.control!.part;
    // A label brings the focus to what takes no text as it is clicked.
    if (!isInControl || (kind === 'control' && !wasInControl && !plan.kind.takesText)) return;
    // The focus stays in the control, or comes to it, where a press lands on it in a roundabout way.
    event.preventDefault();
    this.focus();
  }

  private clicked(event: MouseEvent): void {
    const at = this.elements.partAt(event.target);
    if (!at) return;
    const { control } = this;
    const kind = this.machine().targetAt(at.part)?.kind ?? 'none';
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
    this.act({ kind: 'press', part, entry: entry === null ? null : { place: entry + 1 } }, machine =>
      machine.click(part, entry, wasDown),
    );
  }

  private released(): void {
    if (this.state.pointer.isDown) this.run(machine => machine.release());
  }

  private admit(event: InputEvent): void {
    const { plan } = this;
    if (event.target !== this.control || event.isComposing || !event.inputType.startsWith('insert')) return;
    if (!plan.kind.taken && !plan.value.stop) return;
    const added = event.data ?? event.dataTransfer?.getData('text/plain') ?? '';
    const selection = this.selection();
    if (!selection || added === '') return;
    const { put, refused } = admitted(
      plan,
      { text: (this.control as HTMLInputElement).value, selection },
      added,
    );
    if (put === added) return;
    event.preventDefault();
    // Goes through the browser's own editing, so that it can be undone there.
    if (put !== '') this.elements.root.ownerDocument.execCommand('insertText', false, put);
    if (refused !== '') this.run(machine => machine.refuse(refused));
  }

  private edited({ target, isComposing }: Event & { isComposing?: boolean }): void {
    if (target === this.control && !isComposing && !this.isComposing) this.edit();
  }

  private edit(): void {
    const control = this.control as HTMLInputElement;
    if (control.type === 'checkbox' || control.localName === 'select') {
      const value = control.localName === 'select' ? control.value : String(control.checked);
      return this.run(machine => machine.become(value));
    }
    const selection = this.selection() ?? [control.value.length, control.value.length];
    const isFilled = control.matches(':autofill');
    if (!isFilled) return this.run(machine => machine.edit(control.value, selection));
    this.act({ kind: 'autofill', text: control.value }, machine => machine.autofill(control.value));
  }

  private selection(): readonly [number, number] | null {
    const { selectionStart, selectionEnd } = this.control as HTMLInputElement;
    return typeof selectionStart === 'number' ? [selectionStart, selectionEnd!] : null;
  }

  private selected(): void {
    const selection = this.selection();
    const isHere = this.elements.active() === this.control;
    if (!selection || !isHere || selection.join() === this.state.selection.join()) return;
    this.run(machine => machine.select(selection));
  }

  private key(event: KeyboardEvent): void {
    if (event.isComposing || this.isComposing) return;
    const { key, shiftKey: shift, ctrlKey, metaKey, altKey: alt } = event;
    const press = { key, shift, control: ctrlKey || metaKey, alt };
    const act: Act = { kind: 'key', ...press };
    if (event.target !== this.control) {
      if (this.plan.moves.length > 0) this.act(act, () => undefined);
      return;
    }
    let isDone = false;
    this.act(act, machine => (isDone = machine.key(press)));
    if (isDone) event.preventDefault();
    else if (key === 'Enter' && !this.plan.kind.takesLines && !formOf(this.control)) this.send();
  }
}
