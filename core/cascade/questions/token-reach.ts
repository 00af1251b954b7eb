import type { Component, Rule } from '../../components/component';
import { writtenAs } from '../../components/rule-source';
import { slotsOf } from '../slots';
import type { System } from '../../components/system';
import { tokensIn, type Value } from '../../css/value-syntax';
import { NOWHERE, type Extent } from '../../space/extent';
import { referencesIn, readReference } from '../../tokens/references';
import type { Token, TokenSet } from '../../tokens/token-set';
import { absentWhere, winsOnAllowed } from '../winning-rules';

/** What a token touches, directly or through other tokens. */
export interface TokenReach {
  readonly components: readonly ComponentReach[];
  /** Rules that use it, each counted where it was written: what is derived from it takes it over. */
  readonly rules: number;
  /** Allowed combinations that look different when the token does. */
  readonly combinations: bigint;
}

interface ComponentReach {
  readonly component: Component;
  /** Rules that use the token. */
  readonly rules: readonly Rule[];
  /** Where a value that depends on the token has the last word. */
  readonly where: Extent;
}

export function tokenReach(system: System, key: string): TokenReach {
  const sets = system.tokens.alongEach();
  const keys = dependentKeys(key, sets);
  const components = system.components.flatMap(component => componentReach(component, key, keys, sets) ?? []);
  return {
    components,
    rules: new Set(
      components.flatMap(({ component, rules }) => rules.map(({ id }) => writtenAs(component, id))),
    ).size,
    combinations: components.reduce(
      (sum, { component, where }) => sum + component.space.extents.count(where),
      0n,
    ),
  };
}

function componentReach(
  component: Component,
  key: string,
  keys: ReadonlySet<string>,
  sets: readonly TokenSet[],
): ComponentReach | null {
  const depends = (value: Value): boolean =>
    value.kind === 'member'
      ? sets.some(set => memberDepends(set, value.key, value.member.key, key, keys))
      : tokensIn(value).some(each => keys.has(each));
  const rules = component.rules.filter(rule => rule.settings.some(({ value }) => depends(value)));
  if (rules.length === 0) return null;
  const { extents } = component.space;
  let where: Extent = NOWHERE;
  for (const slot of slotsOf(component).all) {
    if (!slot.speakers.some(({ setting }) => depends(setting.value))) continue;
    // What is not there looks like nothing.
    const absent = absentWhere(component, slot.part);
    winsOnAllowed(component, slot).forEach((heard, place) => {
      if (depends(slot.speakers[place]!.setting.value))
        where = extents.or(where, extents.minus(heard, absent));
    });
  }
  return { component, rules, where };
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

/** Whether one member of a composite token depends on a token, given all the keys that do. */
function memberDepends(
  set: TokenSet,
  composite: string,
  member: string,
  key: string,
  keys: ReadonlySet<string>,
): boolean {
  if (composite === key) return true;
  const token: Token | undefined = set.byKey.get(composite);
  if (!token || !keys.has(composite)) return false;
  const whole = readReference(token.raw);
  if (whole) return whole.kind !== 'alias' || memberDepends(set, whole.key, member, key, keys);
  const share = (token.raw as Readonly<Record<string, unknown>>)[member];
  // A pointer may lead anywhere inside another token; that it depends on it is all that is known.
  return referencesIn(share).some(({ reference }) => reference.kind !== 'alias' || keys.has(reference.key));
}
