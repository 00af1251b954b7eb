import type { BehaviourDocument } from '../documents/behaviour-document';
import { entriesOf, listOf, member, membersOf, objectOf, originOf, traced, type Traced } from './origin';

interface Named {
  readonly id: string;
}

/**
 * Behaviour of a derived component: what its value is, its parts and its judging member by member, checks and moves by id. What it does not mention is
 * the base's own object. Nothing where neither has any.
 */
export function derivedBehaviour(
  base: Traced<BehaviourDocument> | undefined,
  own: Traced<BehaviourDocument> | undefined,
): { readonly behaviour?: Traced<BehaviourDocument> } {
  if (!base || !own) return base || own ? { behaviour: (own ?? base)! } : {};
  const members: Record<string, Traced<unknown>> = { ...membersOf(base), ...membersOf(own) };
  for (const key of ['value', 'parts', 'judging'] as const) {
    const [before, after] = [member(base, key), member(own, key)] as (Traced<object> | undefined)[];
    if (before && after)
      members[key] = objectOf({ ...membersOf(before), ...membersOf(after) }, originOf(own.origin, key));
  }
  for (const key of ['checks', 'moves'] as const) {
    const [before, after] = [member(base, key), member(own, key)] as (Traced<readonly Named[]> | undefined)[];
    if (before && after) members[key] = byId(before, after);
  }
  return { behaviour: objectOf<BehaviourDocument>(members, own.origin) };
}

/** The base's entries, one of the same id in its place, others behind them. */
function byId(base: Traced<readonly Named[]>, own: Traced<readonly Named[]>): Traced<readonly Named[]> {
  const instead = new Map(entriesOf(own).map(entry => [entry.value.id, entry]));
  const kept = entriesOf(base).map(entry => instead.get(entry.value.id) ?? entry);
  const ids = new Set(base.value.map(({ id }) => id));
  const added = entriesOf(own).filter(({ value }) => !ids.has(value.id));
  const { value, origin } = listOf([...kept, ...added], base, own.origin);
  return traced(value, origin);
}
