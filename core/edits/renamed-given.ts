import type { Component } from '../components/component';
import { axisOfValues } from '../components/content/sample-text';
import { iconKeys } from '../components/icon-keys';
import { mapEntries, mapMembers } from '../json/change-members';
import { isObject } from '../json/json';
import type { Narrowing } from '../derivation/narrowing';
import type { Names } from '../documents/names';

type Given = Readonly<Record<string, unknown>>;

/** What a sample of a component gives for a key, as everything is called by now; `null` where nothing of it is left. */
export function renamedGiven(
  component: Component,
  names: Names,
  narrowing: Narrowing | undefined,
  key: string,
  given: unknown,
): unknown {
  const drawn = iconKeys(component).has(key) ? renamedDrawing(names, given) : given;
  if (Array.isArray(drawn)) return renamedEntries(component, names, key, drawn);
  if (!isObject(drawn)) return drawn;
  const axis = axisOfValues(Object.keys(drawn), component.space.axes)?.id;
  return axis === undefined ? drawn : renamedTexts(names, axis, narrowing?.heldAt(axis) ?? null, drawn);
}

/** A drawing by its name, or one for each value of an axis. */
function renamedDrawing(names: Names, given: unknown): unknown {
  if (typeof given === 'string') return names.now('icon', given);
  if (!isObject(given)) return given;
  const left = mapMembers(given as Given, (value, name) => {
    const now = names.now('icon', String(name));
    return now === null ? null : [value, now];
  });
  return Object.keys(left).length === 0 ? null : left;
}

/** A text for each value of an axis; where that is held, the text of the value at which it is. */
function renamedTexts(names: Names, axis: string, held: string | null, texts: Given): unknown {
  if (held !== null) return texts[held] ?? null;
  return mapMembers(texts, (value, each) => {
    const now = names.now('value', value, axis);
    return now === null ? null : [now, each];
  });
}

/** The entries of a list, each for a copy of the component that is repeated for them. */
function renamedEntries(
  component: Component,
  names: Names,
  key: string,
  list: readonly unknown[],
): readonly unknown[] {
  const nested = component.nested.find(({ repeat }) => repeat === key);
  const used = nested && names.of(nested.component.id);
  if (!used) return list;
  return mapEntries(list, entry => {
    if (!isObject(entry)) return entry;
    return mapMembers(entry as Given, (name, value) => {
      if (name === 'is' && isObject(value)) {
        const is = mapMembers(value as Given, (axis, each) => used.setting(axis, String(each)));
        return Object.keys(is).length === 0 ? null : [name, is];
      }
      const now = nested.content.has(name) ? name : used.now('content', name);
      return now === null ? null : [now, value];
    });
  });
}
