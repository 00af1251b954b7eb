import type { Component, Situation } from '../components/component';
import { inBox } from '../space/space';

/**
 * The situation that says most of a combination (value indices): of those that hold there the one that, drawn with all else at rest, differs from it in the
 * fewest states, and among these the narrowest. `null` where none holds.
 */
export function situationAt(component: Component, indices: readonly number[]): Situation | null {
  const { situations, space } = component;
  let found: { readonly situation: Situation; readonly apart: number; readonly count: bigint } | null = null;
  for (const situation of situations) {
    if (!inBox(situation.region, indices)) continue;
    const drawn = space.settled(space.indices(situation.when)).combination;
    const apart = space.axes.filter(
      ({ kind }, axis) => kind === 'state' && drawn[axis] !== indices[axis],
    ).length;
    const count = space.count(situation.region);
    if (!found || apart < found.apart || (apart === found.apart && count < found.count))
      found = { situation, apart, count };
  }
  return found?.situation ?? null;
}
