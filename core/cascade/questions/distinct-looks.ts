import type { Component } from '../../components/component';
import type { System } from '../../components/system';
import { NOWHERE, type Extent, type Extents } from '../../space/extent';
import { looksOf } from './looks';

/** How many different looks there are. */
export interface DistinctLooks {
  readonly number: bigint;
  /** Whether `number` is the number; else there are more, too entangled to tell how many. */
  readonly exact: boolean;
}

/** Counting is given up after so many intersections, or when they have made so many new nodes. */
const MAX_WORK = 1_000_000;
const MAX_NODES = 200_000;

/**
 * Counts the different looks of the allowed combinations, all contexts taken together, with nested components at rest. Axes that no limit and no property
 * ties together vary by themselves, so their numbers multiply; within a tied group the combinations are parted property by
 * property (partition refinement).
 */
export function distinctLooks(component: Component, system: System): DistinctLooks {
  const steps = distinctLooksInSteps(component, system);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** The same in steps, between which it can be stopped. */
export function* distinctLooksInSteps(
  component: Component,
  system: System,
): Generator<undefined, DistinctLooks> {
  const { space } = component;
  const { extents } = space;
  if (space.allowed === NOWHERE) return { number: 0n, exact: true };
  const slots = looksOf(component, system)
    .map(({ looks }) => ({ looks: looks.map(look => space.atRest(look)).filter(look => look !== NOWHERE) }))
    .filter(({ looks }) => looks.length > 1)
    .map(({ looks }) => ({ looks, axes: new Set(looks.flatMap(look => [...extents.support(look)])) }));
  const ties = [
    ...slots.map(({ axes }) => axes),
    ...space.limits.map(limit => extents.support(space.brokenWhere(limit))),
  ];
  let number = 1n;
  let work = 0;
  const before = extents.size;
  for (const group of tiedGroups(space.axes.length, ties)) {
    const own = slots.filter(({ axes }) => [...axes].some(axis => group.has(axis)));
    let parts: readonly Extent[] = [space.allowed];
    for (const { looks } of own) {
      work += parts.length * looks.length;
      if (work > MAX_WORK || extents.size - before > MAX_NODES)
        return { number: number * BigInt(parts.length), exact: false };
      parts = refined(extents, parts, looks);
      yield;
    }
    number *= BigInt(parts.length);
  }
  return { number, exact: true };
}

/** Parts split where their looks differ. */
function refined(extents: Extents, parts: readonly Extent[], looks: readonly Extent[]): Extent[] {
  const result: Extent[] = [];
  for (const part of parts) {
    for (const look of looks) {
      const both = extents.and(part, look);
      if (both !== NOWHERE) result.push(both);
      if (both === part) break;
    }
  }
  return result;
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
