import { graphemesOf, lengthOf } from '../../text/graphemes';
import type { MakeExtra } from '../extra';

/** A code in boxes, one character each. */
export const boxes: MakeExtra = field => {
  const { plan, elements } = field;
  const control = field.control as HTMLInputElement | null;
  const { kind, of, length } = plan.value;
  if (control && kind === 'code') {
    control.inputMode = of === 'letters' || of === 'both' ? 'text' : 'numeric';
    control.setAttribute('autocomplete', 'one-time-code');
    if (length !== undefined) control.setAttribute('maxlength', String(length));
  }
  if (!plan.boxes) return {};
  const { box, character, turn } = plan.boxes;
  elements.root.ownerDocument.addEventListener(
    'selectionchange',
    () => {
      const selection = field.selection();
      if (!selection || elements.active() !== control) return;
      if (selection.join() !== field.state.selection.join()) field.run(machine => machine.select(selection));
    },
    { signal: field.signal },
  );
  return {
    show({ text, selection }) {
      const characters = graphemesOf(text);
      const all = elements.all(box);
      const here = Math.min(lengthOf(text.slice(0, selection[0])), all.length - 1);
      const shown = elements.all(character);
      all.forEach((element, place) => {
        elements.write(shown[place] ?? null, characters[place] ?? ' ');
        if (turn) elements.mark(element, turn.attribute, place === here ? turn.here : turn.other);
      });
      return undefined;
    },
  };
};
