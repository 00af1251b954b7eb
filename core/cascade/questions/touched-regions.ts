import type { Component, Rule } from '../../components/component';
import type { Extent } from '../../space/extent';
import type { Limit } from '../../space/limit';
import { winningExtents } from '../winning-rules';

/** What a change of a rule or a limit touches. */
export interface Touch {
  readonly where: Extent;
  readonly combinations: bigint;
}

/** The allowed combinations in which a rule has the last word on something. */
export const touchedByRule = (component: Component, rule: Rule): Touch =>
  touch(component, winningExtents(component, rule));

/** The raw combinations, those included that never occur, which would count as others if a limit were not there. */
export function touchedByLimit(component: Component, limit: Limit): Touch {
  return touch(component, component.space.effectOf(limit));
}

const touch = ({ space }: Component, where: Extent): Touch => ({
  where,
  combinations: space.extents.count(where),
});
