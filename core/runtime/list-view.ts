import { chosenIn } from '../behaviour/kinds/choice';
import type { ListEntry } from '../behaviour/kinds/value-kind';
import type { ControlView } from './page-field';

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
    // The option that stands for nothing chosen is none of the entries.
    return [...(control as HTMLSelectElement).options]
      .filter(({ value }) => value !== '')
      .map(({ value, text, disabled }) => ({ id: value, text, isDisabled: disabled }));
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
export const listView: ControlView = {
  entries: elements => entriesOf({ control: elements.control, entries: elements.entries() }),
  read(field) {
    const { elements, control } = field;
    if (control?.localName === 'select') return (control as HTMLSelectElement).value;
    const all = elements.entries();
    const place = all.findIndex(each => each.getAttribute('aria-selected') === 'true');
    const isFilled = field.inMarkup('content') === 'filled';
    return (isFilled ? entriesOf({ control, entries: all })[place]?.id : undefined) ?? '';
  },
  values: chosenIn,
  show({ value, isOpen, active }, elements) {
    const { control } = elements;
    if (control?.localName === 'select') {
      (control as HTMLSelectElement).value = value;
      return;
    }
    if (!control) return;
    const all = elements.entries();
    const known = entriesOf({ control, entries: all });
    const chosen = chosenIn(value);
    all.forEach((element, place) => {
      elements.mark(element, 'aria-selected', String(chosen.includes(known[place]!.id)));
      elements.mark(element, 'data-focus', isOpen && place === active ? 'keyboard' : null);
    });
    const here = isOpen && active !== null ? all[active] : undefined;
    elements.mark(control, 'aria-activedescendant', here?.id ?? null);
    here?.scrollIntoView?.({ block: 'nearest' });
    control.dataset['placeholder'] ??= value === '' ? (control.textContent ?? '') : '';
    const texts = known.filter(({ id }) => chosen.includes(id)).map(({ text }) => text);
    elements.write(control, texts.length > 0 ? texts.join(', ') : value || control.dataset['placeholder']);
  },
};
