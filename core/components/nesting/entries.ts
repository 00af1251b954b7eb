import type { Component, Nested } from '../component';

/**
 * Whether the focus only points to a component, by `aria-activedescendant`, and is never in it: what can be chosen and holds
 * nothing that one could be in.
 */
export const isReached = ({ anatomy, space }: Component): boolean =>
  anatomy.bearer === null && space.axisIndex('selection') >= 0;

/** A list of what can be chosen. */
export interface Choices {
  /** Name of the box around the entries. */
  readonly list: string;
  readonly entry: Nested;
  /** Way to the component that holds it; empty for the component itself. */
  readonly way: string;
}

/**
 * The first list of choices in a component, those of nested components included that bear no states of their own; `null` where
 * there is none.
 */
export function choicesOf({ nested, anatomy }: Component): Choices | null {
  for (const each of nested) {
    const { name, component, repeat } = each;
    if (repeat !== null && isReached(component)) {
      const box = anatomy.outer(anatomy.byName.get(name)!);
      if (box) return { list: box.name, entry: each, way: '' };
    } else if (component.anatomy.bearer === null) {
      const found = choicesOf(component);
      if (found)
        return { ...found, list: `${name}/${found.list}`, way: [name, found.way].filter(Boolean).join('/') };
    }
  }
  return null;
}
