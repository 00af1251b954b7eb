import { repeatHeldButton } from '../../behaviour/held-button';
import type { MakeExtra } from '../extra';

/** Buttons that step: one that is held acts again when its time comes. */
export const holding: MakeExtra = field => {
  const { less = '', more = '' } = field.plan.roles;
  // Tab passes by what only repeats what keys do in the control.
  for (const part of [less, more]) for (const element of field.elements.all(part)) element.tabIndex = -1;
  let timer: ReturnType<typeof setTimeout> | undefined;
  field.signal.addEventListener('abort', () => clearTimeout(timer));
  return {
    after() {
      clearTimeout(timer);
      const { held, time } = field.state;
      if (!held) return;
      timer = setTimeout(
        () => field.run(machine => repeatHeldButton(machine, machine.state.time)),
        Math.max(0, held.next - time),
      );
    },
  };
};
