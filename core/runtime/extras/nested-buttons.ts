import type { Box } from '../../space/box';
import type { MakeExtra } from '../extra';

const holds = (box: Box, combination: readonly number[]): boolean =>
  box.every((mask, axis) => (mask >> combination[axis]!) & 1);

/** Buttons in a field: which can be used, and where the focus goes when one that had it cannot. */
export const nestedButtons: MakeExtra = field => {
  const { plan, elements } = field;
  return {
    show(_, combination) {
      for (const { part, attribute, text, where } of plan.within)
        for (const element of elements.all(part)) {
          const isOff = where.some(box => holds(box, combination));
          elements.mark(element, attribute, isOff ? text : null);
          // A press goes through to the frame: on what is disabled it would take the focus from the control and give it to nothing.
          element.style.pointerEvents = isOff ? 'none' : '';
        }
      return undefined;
    },
    shown(machine) {
      const { focus } = machine.state;
      if (focus === null || focus.part === plan.control?.part) return;
      const element = elements.first(focus.part) as HTMLButtonElement | null;
      if (!element || element.disabled || element.getClientRects().length === 0) machine.rescue();
    },
  };
};
