import type { Component } from './component';

/** Keys of a component's content that are drawings, those that it hands on to nested ones among them. */
export function iconKeys({ anatomy, nested, document }: Component): ReadonlySet<string> {
  const own = anatomy.parts.flatMap(part =>
    part.nested === null && part.kind.kind === 'icon' ? (part.content ?? []) : [],
  );
  const handed = nested.flatMap(({ component, content }) => {
    const inner = iconKeys(component);
    return [...content].flatMap(([key, from]) => (inner.has(key) ? from : []));
  });
  const declared = (document.content ?? []).flatMap(({ id, kind }) => (kind === 'icon' ? id : []));
  return new Set([...own, ...handed, ...declared]);
}
