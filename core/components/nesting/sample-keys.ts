import type { Part } from '../anatomy/part';
import type { Component, Nested } from '../component';

/** What a control shows of a sample: what is entered, and while nothing is, the placeholder. */
const PLACEHOLDER = 'placeholder';

/**
 * The keys of the outermost component's content that a part shows as text, by the part's full name (`less/label`); of a control first what is
 * entered, then its placeholder. None for boxes, for drawings, and within what is repeated, whose texts are those of a list's entries.
 */
export function sampleKeysOf(component: Component, name: string): readonly string[] {
  const found = partWithin(component, name);
  if (!found || found.part.kind.box || found.part.kind.kind === 'icon') return [];
  const { part, way } = found;
  const shown =
    part.kind.kind === 'control'
      ? [part.content ?? 'value', PLACEHOLDER]
      : part.content === null
        ? []
        : [part.content];
  return shown.flatMap(key => outerKey(way, key) ?? []);
}

/** The key of the outermost component's content that a part shows, drawings included; `null` where it shows none of it. */
export function sampleKeyOf(component: Component, name: string): string | null {
  const found = partWithin(component, name);
  const content = found?.part.content ?? null;
  return content === null ? null : (outerKey(found!.way, content) ?? null);
}

/** A part as its own component has it, and the components around that, innermost first; nothing within what is repeated. */
function partWithin(
  component: Component,
  name: string,
): { readonly part: Part; readonly way: readonly Nested[] } | null {
  const steps = name.split('/');
  const own = steps.pop()!;
  let holder = component;
  const way: Nested[] = [];
  for (const step of steps) {
    const nested = holder.nested.find(each => each.name === step);
    if (!nested || nested.repeat !== null) return null;
    way.unshift(nested);
    holder = nested.component;
  }
  const part = holder.anatomy.byName.get(own);
  return part ? { part, way } : null;
}

const outerKey = (way: readonly Nested[], key: string): string | undefined =>
  way.reduce<string | undefined>(
    (outer, nested) => (outer === undefined ? undefined : nested.content.get(outer)),
    key,
  );
