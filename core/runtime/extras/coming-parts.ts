import { lengthOf } from '../../text/graphemes';
import type { FieldState } from '../../behaviour/field-state';
import type { MakeExtra } from '../extra';
import { ID, type InsertionPoint } from '../shipped-plan';

/** Parts that come, change and go: those that look otherwise by a state, and texts that follow from what is entered. */
export const comingParts: MakeExtra = ({ plan, elements }) => {
  /** Markup that was put into parts last. */
  const shown = new Map<string, string>();

  const made = (html: string): HTMLElement => {
    const { root, control } = elements;
    const template = root.ownerDocument.createElement('template');
    const part = plan.control?.part ?? '';
    template.innerHTML = html.replaceAll(ID, control?.id.slice(0, -part.length - 1) ?? '');
    return template.content.firstElementChild as HTMLElement;
  };

  const insert = (html: string, { outer, behind }: InsertionPoint): HTMLElement => {
    const node = made(html);
    const next = behind.map(each => elements.first(each)).find(each => each !== null) ?? null;
    elements.first(outer)?.insertBefore(node, next);
    return node;
  };

  const faces = (combination: readonly number[]): void => {
    for (const face of plan.faces) {
      const html = face.html[combination[face.axis]!] ?? null;
      const there = elements.first(face.part);
      if (html === null) there?.remove();
      else if (!there) insert(html, face);
      else if (shown.get(face.part) !== html) {
        // It stays the same element: it may have the focus, and listeners of the page.
        there.replaceChildren(...made(html).childNodes);
      }
      if (html !== null) shown.set(face.part, html);
    }
  };

  /** An empty text is not there. Gives the ids of those that are. */
  const texts = ({ value, locale }: FieldState): string[] => {
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
      const element = text === '' ? null : (there ?? insert(each.html, each));
      elements.write(element, text);
      return element?.id ? [element.id] : [];
    });
  };

  return {
    show(state, combination) {
      faces(combination);
      return texts(state);
    },
  };
};
