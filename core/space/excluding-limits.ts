import type { Box } from './box';
import type { Space } from './space';

/**
 * Places (in the document) of the limits that leave nothing of a region: one alone if there is one, else all that take something of it. None where
 * something is left.
 */
export function excludingLimits(space: Space, region: Box): number[] {
  const { extents, limits, allowed } = space;
  if (extents.meets(allowed, region)) return [];
  const whole = extents.of(region);
  const taken = limits.map(limit => extents.and(whole, space.brokenWhere(limit)));
  const alone = taken.findIndex(each => each === whole);
  if (alone >= 0) return [limits[alone]!.index];
  return limits.flatMap(({ index }, place) => (extents.count(taken[place]!) > 0n ? [index] : []));
}
