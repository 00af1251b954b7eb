import { calcReferences } from '../rules/calc';
import type { Component, Rule } from '../rules/component';
import type { System } from '../rules/system';
import { subtract, volume, type Box } from '../space/box';
import type { TokenSet } from '../tokens/token-set';

/** What a token touches, directly or through other tokens. */
export interface TokenReach {
  readonly components: readonly { readonly component: Component; readonly rules: readonly Rule[] }[];
  readonly rules: number;
  /** Allowed combinations in which some of these rules speak. */
  readonly combinations: bigint;
}

/** Keys of all tokens that refer to one, however indirectly, itself included. */
export function dependentKeys(key: string, sets: readonly TokenSet[]): Set<string> {
  const found = new Set([key]);
  for (let before = 0; before !== found.size;) {
    before = found.size;
    for (const set of sets) {
      for (const token of set.byKey.values())
        if (token.refersTo.some(target => found.has(target))) found.add(token.key);
    }
  }
  return found;
}

export function tokenReach(system: System, key: string): TokenReach {
  const sets = [
    system.tokens.usual(),
    ...system.tokens.modifiers.flatMap(modifier => [...system.tokens.along(modifier).values()]),
  ];
  const keys = dependentKeys(key, sets);
  const components = system.components
    .map(component => ({ component, rules: component.rules.filter(rule => usesAny(rule, keys)) }))
    .filter(({ rules }) => rules.length > 0);
  return {
    components,
    rules: components.reduce((sum, { rules }) => sum + rules.length, 0),
    combinations: components.reduce(
      (sum, { component, rules }) =>
        sum +
        unionCount(
          component,
          rules.map(rule => rule.region),
        ),
      0n,
    ),
  };
}

function usesAny(rule: Rule, keys: ReadonlySet<string>): boolean {
  return rule.settings.some(({ value }) => {
    if (value.kind === 'token') return keys.has(value.key);
    return value.kind === 'calc' && calcReferences(value.calc).tokens.some(key => keys.has(key));
  });
}

/** Number of allowed combinations in any of some regions, each counted once. */
export function unionCount(component: Component, regions: readonly Box[]): bigint {
  let counted: Box[] = [];
  let total = 0n;
  for (const region of regions) {
    let fresh = component.space.allowed(region);
    for (const known of counted) fresh = fresh.flatMap(box => subtract(box, known));
    total += fresh.reduce((sum, box) => sum + volume(box), 0n);
    counted = [...counted, region];
  }
  return total;
}
