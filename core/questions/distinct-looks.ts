import type { Component } from '../rules/component';
import type { System } from '../rules/system';
import { NOWHERE, type Extent } from '../space/extent';
import { looksOf } from './looks';

/** How many different looks there are. */
export interface DistinctLooks {
  readonly number: bigint;
  /** Whether `number` is the number; else there are more, too entangled to tell how many. */
  readonly exact: boolean;
}

/** A group of axes may come to so many looks before counting is given up. */
const MAX_LOOKS = 20_000;

/**
 * Counts the different looks of the allowed combinations, all contexts taken together. Axes that no limit and no property
 * ties together vary by themselves, so their numbers multiply; within a tied group the combinations are parted property by
 * property (partition refinement).
 */
export function distinctLooks(component: Component, system: System): DistinctLooks {
  const { space } = component;
  const { extents } = space;
  if (space.allowed === NOWHERE) return { number: 0n, exact: true };
  const slots = looksOf(component, system)
    .filter(({ looks }) => looks.length > 1)
    .map(({ looks }) => ({ looks, axes: new Set(looks.flatMap(look => [...extents.support(look)])) }));
  const ties = [
    ...slots.map(({ axes }) => axes),
    ...space.limits.map(limit => extents.support(space.brokenWhere(limit))),
  ];
  const groups = tiedGroups(space.axes.length, ties);
  let number = 1n;
  let exact = true;
  for (const group of groups) {
    const own = slots.filter(({ axes }) => [...axes].some(axis => group.has(axis)));
    let parts: Extent[] = [space.allowed];
    for (const { looks } of own) {
      parts = parts.flatMap(part =>
        looks.map(look => extents.and(part, look)).filter(each => each !== NOWHERE),
      );
      if (parts.length <= MAX_LOOKS) continue;
      exact = false;
      break;
    }
    number *= BigInt(parts.length);
  }
  return { number, exact };
}

/** Axes in groups such that every tie lies within one. */
function tiedGroups(axes: number, ties: readonly ReadonlySet<number>[]): Set<number>[] {
  let groups = Array.from({ length: axes }, (_, axis) => new Set([axis]));
  for (const tie of ties) {
    const met = groups.filter(group => [...tie].some(axis => group.has(axis)));
    if (met.length < 2) continue;
    groups = [...groups.filter(group => !met.includes(group)), new Set(met.flatMap(group => [...group]))];
  }
  return groups;
}
