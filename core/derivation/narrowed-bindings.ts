import type { ConditionDocument } from '../documents/condition-document';
import type { PartDocument } from '../documents/part-document';
import { isObject } from '../json/json';
import { stateAxis } from '../space/state-catalogue';
import type { Narrowing } from './narrowing';

/** Bindings of a nested component as far as that is left what they follow. The same object where nothing differs. */
export function narrowedBindings(
  bindings: NonNullable<PartDocument['with']>,
  narrowing: Narrowing,
): NonNullable<PartDocument['with']> {
  const entries = Object.entries(bindings).map(
    ([axis, written]) => [axis, narrowedBinding(written, narrowing)] as const,
  );
  return entries.every(([axis, written]) => written === bindings[axis])
    ? bindings
    : Object.fromEntries(entries);
}

/** What is in no known form stays, and is told where it is read. */
function narrowedBinding(written: unknown, narrowing: Narrowing): unknown {
  if (typeof written === 'string') {
    const held = narrowing.heldAt(written);
    return held === null ? written : { is: held };
  }
  if (Array.isArray(written)) return narrowedCases(written, narrowing);
  if (!isObject(written) || typeof written['axis'] !== 'string' || !isObject(written['map'])) return written;
  return narrowedMap(written['axis'], written['map'], narrowing) ?? written;
}

function narrowedCases(cases: readonly unknown[], narrowing: Narrowing): readonly unknown[] {
  const kept = cases.flatMap(each => {
    if (!isObject(each) || !isObject(each['when'])) return [each];
    const when = narrowing.condition(each['when'] as ConditionDocument);
    if (when === null) return [];
    return [when === each['when'] ? each : { ...each, when }];
  });
  return kept.length === cases.length && kept.every((each, index) => each === cases[index]) ? cases : kept;
}

/** `null` where nothing differs. On a ladder a key that is gone counts from the next rung that is left. */
function narrowedMap(axis: string, map: Readonly<Record<string, unknown>>, narrowing: Narrowing): unknown {
  const rungs = stateAxis(axis)?.ladder ? stateAxis(axis)!.values.map(({ id }) => id) : null;
  const of = (value: string): unknown => {
    const key = rungs
      ? rungs.slice(0, rungs.indexOf(value) + 1).findLast(rung => Object.hasOwn(map, rung))
      : value;
    return key !== undefined && Object.hasOwn(map, key) ? map[key] : undefined;
  };
  const held = narrowing.heldAt(axis);
  // Where nothing is said, the nested axis is at its default; it is bound all the same.
  if (held !== null) return of(held) === undefined ? [] : { is: of(held) };
  const left = narrowing.valuesLeft(axis);
  if (left === null || Object.keys(map).every(key => left.includes(key))) return null;
  const entries = left.flatMap(value => (of(value) === undefined ? [] : [[value, of(value)] as const]));
  return { axis, map: Object.fromEntries(entries) };
}
