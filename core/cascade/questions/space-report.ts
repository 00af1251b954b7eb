import type { Component } from '../../components/component';
import { bits, type Box } from '../../space/box';
import { excludingLimits } from '../../space/excluding-limits';
import type { Extent } from '../../space/extent';
import type { Progress } from './rules-report';

/** How many combinations there are, what rules out how many, and what has a name. */
export interface SpaceReport {
  /** All that can be said, limits apart. */
  readonly raw: bigint;
  readonly allowed: bigint;
  /** Allowed ones that some situation names. */
  readonly named: bigint;
  /** By place in the list: how many raw combinations a limit alone rules out. */
  readonly ruledOut: readonly bigint[];
  /** By place in the list: how many a situation names, and how many no other does. */
  readonly situations: readonly { readonly names: bigint; readonly alone: bigint }[];
  /** What has no name, as few readable regions, the largest first, each with how many it holds. */
  readonly nameless: readonly { readonly region: Box; readonly combinations: bigint }[];
  readonly pairs: readonly PairOfAxes[];
}

/** Every value of one axis against every value of an earlier one. */
export interface PairOfAxes {
  /** Indices of the axes, the earlier one first. */
  readonly axes: readonly [number, number];
  /** By value of the later axis, then of the earlier one. */
  readonly cells: readonly (readonly Pair[])[];
}

export interface Pair {
  /** `own`: some rule is for just the two together; `never`: they do not occur together. */
  readonly status: 'occurs' | 'own' | 'never';
  /** Of one that never occurs, places of the limits that rule it out; of `own`, ids of the rules. */
  readonly because: readonly (number | string)[];
}

/** So many regions without a name are told. */
const MOST_NAMELESS = 24;

/** The report, in steps. */
export function* spaceReport(component: Component): Generator<Progress, SpaceReport> {
  const { space } = component;
  const { extents } = space;
  const total = space.axes.length + 2;
  yield { done: 0, total };
  const regions = component.situations.map(({ region }) => space.allowedIn(region));
  const named = extents.union(regions);
  const situations = regions.map((region, index) => {
    const others = extents.union(regions.filter((_, other) => other !== index));
    return { names: extents.count(region), alone: extents.count(extents.minus(region, others)) };
  });
  const ruledOut = space.limits.map(limit => extents.count(space.brokenWhere(limit)));
  yield { done: 1, total };
  const nameless = readableParts(component, extents.minus(space.allowed, named), named);
  const pairs: PairOfAxes[] = [];
  for (let later = 1; later < space.axes.length; later++) {
    yield { done: later + 1, total };
    for (let earlier = 0; earlier < later; earlier++) pairs.push(pairOf(component, earlier, later));
  }
  return {
    raw: space.full.reduce((product, mask) => product * BigInt(bits(mask).length), 1n),
    allowed: extents.count(space.allowed),
    named: extents.count(named),
    ruledOut,
    situations,
    nameless,
    pairs,
  };
}

function readableParts({ space }: Component, where: Extent, not: Extent): SpaceReport['nameless'] {
  const { extents } = space;
  return space
    .readable(where)
    .map(region => ({ region, combinations: extents.count(extents.minus(space.allowedIn(region), not)) }))
    .filter(({ combinations }) => combinations > 0n)
    .toSorted((a, b) => (a.combinations > b.combinations ? -1 : 1))
    .slice(0, MOST_NAMELESS);
}

function pairOf(component: Component, earlier: number, later: number): PairOfAxes {
  const { space, rules } = component;
  const { axes, full } = space;
  const isNarrow = (region: Box, axis: number): boolean => region[axis] !== full[axis];
  const both = rules.filter(
    ({ nested, region }) => nested === undefined && isNarrow(region, earlier) && isNarrow(region, later),
  );
  const cell = (first: number, second: number): Pair => {
    const region = full.map((mask, axis) =>
      axis === earlier ? 1 << first : axis === later ? 1 << second : mask,
    );
    const because = excludingLimits(space, region);
    if (because.length > 0) return { status: 'never', because };
    const own = both.filter(
      rule => (rule.region[earlier]! >> first) & 1 && (rule.region[later]! >> second) & 1,
    );
    return own.length > 0
      ? { status: 'own', because: own.map(({ id }) => id) }
      : { status: 'occurs', because: [] };
  };
  return {
    axes: [earlier, later],
    cells: axes[later]!.values.map((_, second) =>
      axes[earlier]!.values.map((__, first) => cell(first, second)),
    ),
  };
}
