import type { Component } from './component';

/** Keys of what a component shows or declares, in the order in which they are read. */
export function contentKeys({ anatomy, nested, document }: Component): readonly string[] {
  const own = anatomy.parts.flatMap(part =>
    part.nested === null && part.content !== null ? [part.content] : [],
  );
  const handed = nested.flatMap(({ content, repeat }) => [
    ...content.values(),
    ...(repeat === null ? [] : [repeat]),
  ]);
  const declared = (document.content ?? []).map(({ id }) => id);
  return [...new Set([...declared, ...own, ...handed])];
}
