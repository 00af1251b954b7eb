import type { Component } from './component';

/** What every control shows. */
export const OF_CONTROLS = ['value', 'placeholder'];

/** The keys that parts of a component show, those of the ones nested in it by what they are mapped to. */
export function shownKeys({ anatomy, nested }: Component): ReadonlySet<string> {
  const keys = anatomy.parts.flatMap(({ content }) => content ?? []);
  const ofControl = anatomy.control && anatomy.control.nested === null ? OF_CONTROLS : [];
  const ofUses = nested.flatMap(({ content, repeat }) => [
    ...content.values(),
    ...(repeat === null ? [] : [repeat]),
  ]);
  return new Set([...keys, ...ofControl, ...ofUses]);
}

/** Keys of what a component declares or shows of its own, in the order in which they are read. */
export function contentKeys(component: Component): readonly string[] {
  const { anatomy, document } = component;
  const own = {
    ...component,
    anatomy: { ...anatomy, parts: anatomy.parts.filter(part => part.nested === null) },
  };
  const declared = (document.content ?? []).map(({ id }) => id);
  return [...new Set([...declared, ...shownKeys(own)])];
}

/** Key of the list that a component declares. */
export const listKey = ({ document }: Component): string | null =>
  document.content?.find(({ kind }) => kind === 'list')?.id ?? null;
