import type { Component, Nested } from '../component';

/** What a control shows of a sample: what is entered, and while nothing is, the placeholder. */
const PLACEHOLDER = 'placeholder';

/**
 * The keys of the outermost component's content that a part shows as text, by the part's full name (`less/label`); of a control first what is
 * entered, then its placeholder. None for boxes, for drawings, and within what is repeated, whose texts are those of a list's entries.
 */
export function sampleKeysOf(component: Component, name: string): readonly string[] {
  const steps = name.split('/');
  const own = steps.pop()!;
  let holder = component;
  const way: Nested[] = [];
  for (const step of steps) {
    const nested = holder.nested.find(each => each.name === step);
    if (!nested || nested.repeat !== null) return [];
    way.unshift(nested);
    holder = nested.component;
  }
  const part = holder.anatomy.byName.get(own);
  if (!part || part.kind.box || part.kind.kind === 'icon') return [];
  const shown =
    part.kind.kind === 'control'
      ? [part.content ?? 'value', PLACEHOLDER]
      : part.content === null
        ? []
        : [part.content];
  return shown.flatMap(key => {
    let outer: string | undefined = key;
    for (const nested of way) outer = outer === undefined ? undefined : nested.content.get(outer);
    return outer ?? [];
  });
}
