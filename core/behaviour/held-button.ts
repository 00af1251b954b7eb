import type { Machine } from './machine';

/** ms between the acts of a button that is held. */
const AGAIN_AFTER = 60;

/** Time goes on; a button that is held acts again. */
export function repeatHeldButton(machine: Machine, until: number): void {
  for (let { held } = machine.state; held && held.next <= until; { held } = machine.state) {
    machine.change({ time: held.next, held: { ...held, next: held.next + AGAIN_AFTER } });
    const { value } = machine.state;
    machine.pressButton(held.part);
    // At an end there is nothing left to repeat.
    if (value === machine.state.value) machine.change({ held: null });
  }
  machine.change({ time: until });
}
