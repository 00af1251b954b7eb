import { doMoves } from '../../behaviour/custom-transitions';
import type { MakeExtra } from '../extra';

/** Moves of a component's own. */
export const moving: MakeExtra = field => ({
  acted: (act, machine, before) => doMoves(machine, field.plan, act, field.placesAt(before)),
});
