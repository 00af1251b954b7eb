import { valueIds } from '../derivation/narrowing';
import type { AxisDocument } from '../documents/component-document';
import type { ConditionDocument } from '../documents/condition-document';
import type { Names } from '../documents/names';
import { mapEntries, mapMembers } from '../json/change-members';
import { isObject } from '../json/json';

type Bindings = Readonly<Record<string, unknown>>;
/** What a value of the nested axis is called by now. */
type ValueOf = (id: unknown) => string | null;

/**
 * What axes of a nested component follow, as both are called by now. `axes` are those of the component around it, as they were before; `used` the
 * names of the nested one.
 */
export function renamedBindings(
  bindings: Bindings,
  names: Names,
  used: Names | null,
  axes: readonly AxisDocument[],
): Bindings {
  return mapMembers(bindings, (axis, binding) => {
    const there = used ? used.now('axis', axis) : axis;
    // What bound an axis that is gone binds nothing.
    if (there === null) return null;
    const valueOf: ValueOf = id =>
      typeof id === 'string' ? (used ? used.now('value', id, axis) : id) : null;
    const own = used && typeof binding === 'string' ? axes.find(({ id }) => id === binding) : undefined;
    const translated = own ? renamedLink(own, names, valueOf) : renamedBinding(binding, names, valueOf);
    return translated === null ? null : [there, translated];
  });
}

function renamedBinding(binding: unknown, names: Names, valueOf: ValueOf): unknown {
  if (typeof binding === 'string') return names.now('axis', binding) ?? binding;
  if (Array.isArray(binding)) return renamedCases(binding, names, valueOf);
  if (!isObject(binding)) return binding;
  if ('is' in binding) {
    const is = valueOf(binding['is']);
    return is === null ? null : is === binding['is'] ? binding : { is };
  }
  if (typeof binding['axis'] !== 'string' || !isObject(binding['map'])) return binding;
  const from = binding['axis'];
  const now = names.now('axis', from) ?? from;
  const map = mapMembers(binding['map'] as Bindings, (key, each) => {
    const [here, there] = [names.now('value', key, from), valueOf(each)];
    return here === null || there === null ? null : [here, there];
  });
  return now === from && map === binding['map'] ? binding : { axis: now, map };
}

const renamedCases = (cases: readonly unknown[], names: Names, valueOf: ValueOf): readonly unknown[] =>
  mapEntries(cases, each => {
    if (!isObject(each) || !isObject(each['when'])) return each;
    const when = names.condition(each['when'] as ConditionDocument);
    const is = valueOf(each['is']);
    if (when === null || is === null) return null;
    return when === each['when'] && is === each['is'] ? each : { ...each, when, is };
  });

/** An axis that follows another of the same values goes on doing so while they are the same, else through a map. */
function renamedLink(own: AxisDocument, names: Names, valueOf: ValueOf): unknown {
  const now = names.now('axis', own.id) ?? own.id;
  const pairs = valueIds(own).map(id => [names.now('value', id, own.id), valueOf(id)] as const);
  if (pairs.every(([here, there]) => here === null || here === there)) return now;
  const map = pairs.filter(([here, there]) => here !== null && there !== null);
  return { axis: now, map: Object.fromEntries(map) };
}
