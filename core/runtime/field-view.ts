import type { FieldState } from '../behaviour/field-state';
import type { Plan } from '../behaviour/plan';
import type { FieldElements } from './field-elements';
import type { ShippedPlan } from './shipped-plan';

/** What is asked of a page for words: instead of what the script has. */
export interface Words {
  readonly [check: string]: string;
}

/** Selects a part of a text; some types of input, as `email`, hide theirs and throw (HTML, 4.10.20). */
export function placeCaret(
  control: TextControl,
  from: number,
  to: number,
  direction: 'forward' | 'backward' | 'none' = 'none',
): void {
  if (control.selectionStart !== null) control.setSelectionRange(from, to, direction);
}

type TextControl = HTMLInputElement | HTMLTextAreaElement;

/** Writes into a page's elements where a field is: what each field needs. */
export class FieldView {
  /** What describes the control apart from what comes and goes. */
  private readonly described: readonly string[];

  constructor(
    private readonly plan: Plan & ShippedPlan,
    private readonly elements: FieldElements,
    private readonly words: Words,
  ) {
    const messages = plan.messages.map(part => elements.first(part)?.id);
    this.described = (elements.control?.getAttribute('aria-describedby') ?? '')
      .split(/\s+/)
      .filter(id => id !== '' && !messages.includes(id));
  }

  marks(combination: readonly number[]): void {
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
      elements.mark(on === 'root' ? elements.root : elements.control, attribute, text);
    }
  }

  text({ text, selection }: FieldState): void {
    const control = this.elements.control as TextControl | null;
    if (!control || control.value === text) return;
    control.value = text;
    if (this.elements.active() === control) placeCaret(control, ...selection);
  }

  message({ complaint, isApproved }: FieldState, others: readonly string[]): void {
    const { plan, elements, words } = this;
    const said = complaint ?? (isApproved ? 'valid' : null);
    const text = said === null ? '' : (words[said] ?? plan.texts[said] ?? complaint ?? '');
    const told = plan.messages.flatMap(part => {
      const element = elements.first(part);
      elements.write(element, text);
      return element?.id && text !== '' ? [element.id] : [];
    });
    // As readers hear them: in the order of the document, but for what is said now, which comes last.
    const ids = [...new Set([...this.described, ...others, ...told])].filter(id =>
      (elements.root.getRootNode() as Document | ShadowRoot).getElementById(id),
    );
    elements.mark(elements.control, 'aria-describedby', ids.length > 0 ? ids.join(' ') : null);
  }
}
