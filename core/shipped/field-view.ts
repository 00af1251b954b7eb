import { graphemesOf, lengthOf } from '../content/graphemes';
import type { FieldState } from '../behaviour/field-state';
import { combinationAt } from '../behaviour/states';
import type { Plan } from '../behaviour/plan';
import type { Box } from '../space/box';
import { setAttribute, setText, type FieldElements } from './field-elements';
import type { ListView } from './list-view';
import { ID, type Place, type ShippedPlan } from './shipped-plan';

/** What is asked of a page for words: instead of what the script has. */
export interface Words {
  readonly [check: string]: string;
}

const holds = (box: Box, combination: readonly number[]): boolean =>
  box.every((mask, axis) => (mask >> combination[axis]!) & 1);

type TextControl = HTMLInputElement | HTMLTextAreaElement;

/** Writes into a page's elements where a field is. */
export class FieldView {
  /** What describes the control apart from what comes and goes. */
  private readonly described: readonly string[];
  /** Markup that was put into parts last. */
  private readonly shown = new Map<string, string>();

  constructor(
    private readonly plan: Plan & ShippedPlan,
    private readonly elements: FieldElements,
    private readonly words: Words,
    private readonly list: ListView | null,
  ) {
    const messages = plan.messages.map(part => elements.first(part)?.id);
    this.described = (elements.control?.getAttribute('aria-describedby') ?? '')
      .split(/\s+/)
      .filter(id => id !== '' && !messages.includes(id));
  }

  show(state: FieldState): void {
    const combination = combinationAt(this.plan, state);
    this.marks(combination);
    this.faces(combination);
    this.control(state);
    this.message(state, this.texts(state));
    this.boxes(state);
    this.list?.show(state, this.elements);
  }

  private marks(combination: readonly number[]): void {
    const { plan, elements } = this;
    const tag = elements.control?.localName ?? '';
    const wanted = new Map<string, string | null>();
    for (const { axis, value, on, attribute, text, elements: only } of plan.marks) {
      if (only && !only.includes(tag)) continue;
      const key = `${on} ${attribute}`;
      if (combination[axis] === value) wanted.set(key, text);
      else if (!wanted.has(key)) wanted.set(key, attribute === 'aria-expanded' ? 'false' : null);
    }
    for (const [key, text] of wanted) {
      const [on, attribute] = key.split(' ') as [string, string];
      setAttribute(on === 'root' ? elements.root : elements.control, attribute, text);
    }
    for (const { part, attribute, text, where } of plan.within)
      for (const element of elements.all(part)) {
        const isOff = where.some(box => holds(box, combination));
        setAttribute(element, attribute, isOff ? text : null);
        // A press goes through to the frame: on what is disabled it would take the focus from the control and give it to nothing.
        element.style.pointerEvents = isOff ? 'none' : '';
      }
  }

  /** Parts that look otherwise by a state come, change and go. */
  private faces(combination: readonly number[]): void {
    const { plan, elements } = this;
    for (const face of plan.faces) {
      const html = face.html[combination[face.axis]!] ?? null;
      const there = elements.first(face.part);
      if (html === null) there?.remove();
      else if (!there) this.insert(html, face);
      else if (this.shown.get(face.part) !== html) {
        // It stays the same element: it may have the focus, and listeners of the page.
        there.replaceChildren(...this.made(html).childNodes);
      }
      if (html !== null) this.shown.set(face.part, html);
    }
  }

  private made(html: string): HTMLElement {
    const { root, control } = this.elements;
    const made = root.ownerDocument.createElement('template');
    const part = this.plan.control?.part ?? '';
    made.innerHTML = html.replaceAll(ID, control?.id.slice(0, -part.length - 1) ?? '');
    return made.content.firstElementChild as HTMLElement;
  }

  private insert(html: string, { outer, behind }: Place): HTMLElement {
    const { elements } = this;
    const node = this.made(html);
    const next = behind.map(each => elements.first(each)).find(each => each !== null) ?? null;
    elements.first(outer)?.insertBefore(node, next);
    return node;
  }

  /** Texts that follow from what is entered; an empty one is not there. Gives the ids of those that are. */
  private texts({ value, locale }: FieldState): string[] {
    const { plan, elements } = this;
    const words: Record<string, () => string> = {
      value: () => value,
      'value.length': () => String(lengthOf(value)),
      'value.least': () => String(plan.value.least ?? ''),
      'value.most': () => String(plan.value.most ?? ''),
      'value.half': () => plan.kind.half?.(value, locale) ?? '',
    };
    return plan.templates.flatMap(each => {
      const text = each.template.replace(/\{\s*([^{}]*?)\s*\}/g, (_, name: string) => words[name]?.() ?? '');
      const there = elements.first(each.part);
      if (text === '') there?.remove();
      const element = text === '' ? null : (there ?? this.insert(each.html, each));
      setText(element, text);
      return element?.id ? [element.id] : [];
    });
  }

  private control({ text, isRevealed, selection, value }: FieldState): void {
    const { plan, elements } = this;
    const control = elements.control as TextControl | null;
    if (!control) return;
    if (control.localName === 'select') {
      if (control.value !== value) control.value = value;
      return;
    }
    if (plan.secretType) this.reveal(control as HTMLInputElement, isRevealed);
    if (plan.kind.list) return;
    if ((control as HTMLInputElement).type === 'checkbox') {
      (control as HTMLInputElement).checked = value === 'true';
      return;
    }
    if (control.value === text) return;
    control.value = text;
    if (elements.active() === control) control.setSelectionRange(...selection);
  }

  /** The caret and what is selected stay where they are. */
  private reveal(control: HTMLInputElement, isRevealed: boolean): void {
    const type = isRevealed ? 'text' : 'password';
    if (control.type === type) return;
    const { selectionStart, selectionEnd, selectionDirection } = control;
    control.type = type;
    control.setSelectionRange(selectionStart, selectionEnd, selectionDirection ?? 'none');
  }

  private message({ complaint, isApproved }: FieldState, others: readonly string[]): void {
    const { plan, elements, words } = this;
    const said = complaint ?? (isApproved ? 'valid' : null);
    const text = said === null ? '' : (words[said] ?? plan.texts[said] ?? complaint ?? '');
    const told = plan.messages.flatMap(part => {
      const element = elements.first(part);
      setText(element, text);
      return element?.id && text !== '' ? [element.id] : [];
    });
    // As readers hear them: in the order of the document, but for what is said now, which comes last.
    const ids = [...new Set([...this.described, ...others, ...told])].filter(id =>
      (elements.root.getRootNode() as Document | ShadowRoot).getElementById(id),
    );
    setAttribute(elements.control, 'aria-describedby', ids.length > 0 ? ids.join(' ') : null);
  }

  private boxes({ text, selection }: FieldState): void {
    const { plan, elements } = this;
    if (!plan.boxes) return;
    const { box, character, turn } = plan.boxes;
    const characters = graphemesOf(text);
    const boxes = elements.all(box);
    const here = Math.min(lengthOf(text.slice(0, selection[0])), boxes.length - 1);
    const shown = elements.all(character);
    boxes.forEach((element, place) => {
      setText(shown[place] ?? null, characters[place] ?? ' ');
      if (turn) setAttribute(element, turn.attribute, place === here ? turn.here : turn.other);
    });
  }
}
