import { plainestIn } from '@periwinkle/core/cascade/plates/region-plate';
import type { System } from '@periwinkle/core/components/system';
import type { Combination } from '@periwinkle/core/space/space';
import { tokenReach } from '@periwinkle/core/cascade/questions/token-reach';

/** What a token touches, as plain data: in numbers, and a specimen for each of the first rules that use it. */
export interface ReachReport {
  readonly fields: number;
  readonly rules: number;
  readonly combinations: bigint;
  readonly shown: readonly ReachedSpecimen[];
}

interface ReachedSpecimen {
  /** Ids of a component and of a rule of it, and where that is heard, as near to rest as it can be. */
  readonly component: string;
  readonly rule: string;
  readonly wants: Combination;
}

/** What a token touches, with so many specimens at most. */
export function reachReport(system: System, key: string, most: number): ReachReport {
  const { components, rules, combinations } = tokenReach(system, key);
  const shown: ReachedSpecimen[] = [];
  for (const { component, rules: own, where } of components) {
    const { space } = component;
    for (const rule of own) {
      if (shown.length === most) break;
      const plainest = plainestIn(component, space.extents.and(where, space.extents.of(rule.region)));
      if (plainest) shown.push({ component: component.id, rule: rule.id, wants: space.written(plainest) });
    }
  }
  return { fields: components.length, rules, combinations, shown };
}
