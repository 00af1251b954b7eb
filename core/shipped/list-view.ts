import type { FieldState } from '../behaviour/field-state';
import { chosenIn } from '../behaviour/kinds/choice';
import type { ListEntry } from '../behaviour/kinds/value-kind';
import { setAttribute, setText, type FieldElements } from './field-elements';

/** How a list of choices stands in a page. */
export interface ListView {
  readonly entries: (elements: FieldElements) => ListEntry[];
  /** What forms submit, one name several times. */
  readonly values: (value: string) => readonly string[];
  readonly show: (state: FieldState, elements: FieldElements) => void;
}

/** An entry's own words; what forms submit is `data-value`, where it says so. */
const wordsOf = (element: HTMLElement): string =>
  [...element.children]
    .filter(child => child.getAttribute('aria-hidden') !== 'true')
    .map(child => child.textContent.trim())[0] ?? element.textContent.trim();

function entriesOf({
  control,
  entries,
}: {
  control: HTMLElement | null;
  entries: HTMLElement[];
}): ListEntry[] {
  if (control?.localName === 'select')
    return [...(control as HTMLSelectElement).options].map(({ value, text, disabled }) => ({
      id: value,
      text,
      isDisabled: disabled,
    }));
  return entries.map(element => {
    const text = wordsOf(element);
    return {
      id: element.dataset['value'] ?? text,
      text,
      isDisabled: element.getAttribute('aria-disabled') === 'true',
    };
  });
}

/** A select-only combobox (WAI-ARIA 1.2; ARIA Authoring Practices). */
export const listView: ListView = {
  entries: elements => entriesOf({ control: elements.control, entries: elements.entries() }),
  values: chosenIn,
  show({ value, isOpen, active }, elements) {
    const { control } = elements;
    if (!control || control.localName === 'select') return;
    const all = elements.entries();
    const known = entriesOf({ control, entries: all });
    const chosen = chosenIn(value);
    all.forEach((element, place) => {
      setAttribute(element, 'aria-selected', String(chosen.includes(known[place]!.id)));
      setAttribute(element, 'data-focus', isOpen && place === active ? 'keyboard' : null);
    });
    const here = isOpen && active !== null ? all[active] : undefined;
    setAttribute(control, 'aria-activedescendant', here?.id ?? null);
    here?.scrollIntoView?.({ block: 'nearest' });
    control.dataset['placeholder'] ??= value === '' ? (control.textContent ?? '') : '';
    const texts = known.filter(({ id }) => chosen.includes(id)).map(({ text }) => text);
    setText(control, texts.length > 0 ? texts.join(', ') : value || control.dataset['placeholder']);
  },
};
