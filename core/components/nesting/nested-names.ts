import type { Part } from '../anatomy/part';
import type { Component, Nested } from '../component';
import type { Axis } from '../../space/axis';
import type { Combination } from '../../space/space';

/** Marks the copies of what is repeated, counted from 1: `entry:2/frame`. */
const COPY = /:\d+(?=\/)/g;

/** A name without the numbers of copies. */
export const withoutCopies = (name: string): string => name.replace(COPY, '');

/** The axis that a name stands for in a component, those of nested ones included, bound or not; `null` where there is none. */
export function axisNamed(component: Component, name: string): Axis | null {
  const [first, ...rest] = name.split('/') as [string, ...string[]];
  if (rest.length === 0) return component.space.axes.find(axis => axis.id === first) ?? null;
  const [, part, copy] = /^(.*?)(?::([1-9]\d{0,4}))?$/.exec(first)!;
  const nested = component.nested.find(each => each.name === part);
  if (!nested || (copy !== undefined && nested.repeat === null)) return null;
  return axisNamed(nested.component, rest.join('/'));
}

/** The component that some part uses, by its way: `less`, `less/inner`. There must be one. */
export function componentAt(nested: readonly Nested[], way: string): Component {
  const found = nested.find(({ name }) => name === way || way.startsWith(`${name}/`))!;
  const { component, name } = found;
  return name === way ? component : componentAt(component.nested, way.slice(name.length + 1));
}

/**
 * Way to the component that a part belongs to as people meet it: the nearest around it that bears states of its own, `''` the
 * outermost. A nested label or message belongs to the field that it stands in, what is in a nested button to that button.
 */
export function bearingWay({ nested }: Component, part: Part): string {
  const steps = part.nested?.split('/') ?? [];
  for (let length = steps.length; length > 0; length--) {
    const way = steps.slice(0, length).join('/');
    if (componentAt(nested, way).anatomy.bearer) return way;
  }
  return '';
}

/** Value of an axis of a nested component after its limits, by name, in one of the parent's allowed combinations. */
export function valueWithin(component: Component, settled: readonly number[], name: string): string | null {
  const nested = component.nested.find(each => name.startsWith(`${each.name}/`));
  if (!nested) return null;
  const inside = name.slice(nested.name.length + 1);
  const { space } = nested.component;
  const within = nested.reading.indices(settled).settled;
  const place = space.axisIndex(inside);
  if (place < 0 || place >= space.axes.length) return valueWithin(nested.component, within, inside);
  return space.axes[place]!.values[within[place]!]!.id;
}

/** The copies that a combination speaks of, `entry:2`, in order of mention; those around them first. */
export function copiesIn(combination: Combination): string[] {
  const found = new Set<string>();
  for (const name of Object.keys(combination))
    for (const { index, 0: mark } of name.matchAll(COPY)) found.add(name.slice(0, index + mark.length));
  return [...found].sort((a, b) => a.split('/').length - b.split('/').length);
}

/** A combination as one copy has it: what is said of all, then of the copies around it, then of itself. */
export function combinationOfCopy(combination: Combination, copy: string): Combination {
  const own: Record<string, string> = {};
  const isOver = (name: string): boolean =>
    copiesIn({ [name]: '' }).every(each => `${copy}/`.startsWith(`${each}/`));
  const entries = Object.entries(combination).filter(([name]) => isOver(name));
  const marks = (name: string): number => name.match(COPY)?.length ?? 0;
  entries.sort(([a], [b]) => marks(a) - marks(b));
  for (const [name, value] of entries) own[withoutCopies(name)] = value;
  return own;
}
