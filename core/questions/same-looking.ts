import type { Component } from '../rules/component';
import type { System } from '../rules/system';
import { EVERYWHERE, NOWHERE, type Extent } from '../space/extent';
import type { Box } from '../space/box';
import { looksOf } from './looks';

/** Two values of an axis between which nothing changes in some combinations of the other axes. */
export interface SameLooking {
  /** Index of the axis in the space. */
  readonly axis: number;
  /** Indices of the values, ascending. */
  readonly values: readonly [number, number];
  /** Combinations of the other axes, the axis itself free. */
  readonly where: Extent;
  /** Where both values can be at all. */
  readonly both: Extent;
  /** Whether they look the same wherever both can be. */
  readonly everywhere: boolean;
  /** Number of pairs that look the same. */
  readonly pairs: bigint;
}

/** For every axis the pairs of values that look the same somewhere, in all contexts, with where. */
export function sameLooking(component: Component, system: System): SameLooking[] {
  const { space } = component;
  const { extents } = space;
  const slots = looksOf(component, system).map(({ looks }) => ({
    looks,
    axes: new Set(looks.flatMap(look => [...extents.support(look)])),
  }));
  return space.axes.flatMap(({ values }, axis) => {
    const differing = slots.filter(slot => slot.axes.has(axis));
    return values.flatMap((_, later) =>
      Array.from({ length: later }, (_unused, earlier) => {
        const both = extents.and(
          extents.along(space.allowed, axis, earlier),
          extents.along(space.allowed, axis, later),
        );
        const where = differing.reduce<Extent>((same, { looks }) => {
          if (same === NOWHERE) return NOWHERE;
          const alike = looks.map(look =>
            extents.and(extents.along(look, axis, earlier), extents.along(look, axis, later)),
          );
          return extents.and(same, extents.union(alike));
        }, both);
        return {
          axis,
          values: [earlier, later] as const,
          where,
          both,
          everywhere: where === both,
          pairs: extents.count(where) / BigInt(values.length),
        };
      }).filter(found => found.where !== NOWHERE),
    );
  });
}

/** The same as few readable conditions on the other axes. */
export function sameLookingRegions({ space }: Component, found: SameLooking): Box[] {
  const free = space.extents.minus(EVERYWHERE, found.both);
  return space.readable(found.where, free);
}
