import type { Component } from '../components/component';
import type { Nested } from '../components/component';
import type { Combination } from '../space/space';

/** One entry of a list of which a nested component shows each. */
export interface RepeatedEntry {
  /** Counted from 0. */
  readonly index: number;
  readonly of: number;
  /** Its content by key; a character of a code is a `value`. */
  readonly content: Readonly<Record<string, unknown>>;
  /** Values of axes that it sets. */
  readonly is: Combination;
}

/** A component as it stands in a field, the outermost or one within it, in its own combination. */
export interface RenderScope {
  readonly component: Component;
  /** How it is used; `null` for the outermost. */
  readonly nested: Nested | null;
  /** The component around it. */
  readonly outer: RenderScope | null;
  /** The part of the outermost that uses it, `less/inner`; empty for that itself. */
  readonly way: string;
  /** After its limits; value indices, inner axes last. */
  readonly indices: readonly number[];
  /** The same as written, own axes only. */
  readonly combination: Combination;
  readonly entry: RepeatedEntry | null;
}

/** The outermost component in an allowed combination, which may name inner axes too. */
export function outermost(component: Component, combination: Combination): RenderScope {
  const indices = component.space.indices(combination);
  return { component, nested: null, outer: null, way: '', indices, combination, entry: null };
}

/** A component within another. */
export function renderScopeWithin(
  outer: RenderScope,
  nested: Nested,
  entry: RepeatedEntry | null,
): RenderScope {
  const { component, name, reading } = nested;
  const { space } = component;
  const raw = [...reading.indices(outer.indices).raw];
  for (const [id, value] of Object.entries(entry ? { place: positionOf(entry), ...entry.is } : {})) {
    const axis = space.axisIndex(id);
    const index = space.axes[axis]?.indexOf.get(value);
    if (index !== undefined && reading.isFree(axis)) raw[axis] = index;
  }
  const indices = space.settled(raw).combination;
  return {
    component,
    nested,
    outer,
    way: outer.way === '' ? name : `${outer.way}/${name}`,
    indices,
    combination: space.written(indices),
    entry,
  };
}

const positionOf = ({ index, of }: RepeatedEntry): string =>
  of === 1 ? 'only' : index === 0 ? 'first' : index === of - 1 ? 'last' : 'middle';

/** Name of a part of a component within, as the outermost knows it. */
export const nameIn = ({ way }: RenderScope, part: string): string => (way === '' ? part : `${way}/${part}`);

/** Where content comes from. */
export interface ContentSource {
  /** The component whose key it is in the end, which may say how it follows from other things. */
  readonly standing: RenderScope;
  /** The key there. Those of the outermost component are given by whoever uses it. */
  readonly key: string;
  /** What an entry of a list gives. */
  readonly entry?: unknown;
}

export function contentSource(standing: RenderScope, key: string): ContentSource {
  const { nested, outer, entry } = standing;
  const mapped = nested?.content.get(key);
  if (outer && mapped !== undefined) return contentSource(outer, mapped);
  return entry && Object.hasOwn(entry.content, key)
    ? { standing, key, entry: entry.content[key] }
    : { standing, key };
}
