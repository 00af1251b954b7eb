import type { Component } from '../components/component';
import type { System } from '../components/system';
import { fieldTree, type FieldNode } from '../emit/field-tree';
import { namesOf, type ComponentNames } from '../emit/names';
import type { SampleDocument } from '../formats/component-document';
import { resolverFor } from '../resolution/resolve';
import type { Outcomes } from '../resolution/outcome';
import type { Combination } from '../space/space';
import type { ContextInput } from '../tokens/contexts';
import type { DrawnBox } from './drawn-box';
import { Layout, type LaidBox } from './layout';
import { PartStyle } from './part-style';

/** Where a part lies: its border box in px from the top and the inline start of the root's. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Whether its place along the line or its width follows from the width of a text, which is only reckoned. */
  readonly estimated: boolean;
}

export interface GeometryInput {
  readonly system: System;
  readonly component: Component;
  /** May name axes of nested components, too. */
  readonly combination: Combination;
  readonly sample: SampleDocument | undefined;
  /** What the page gives it, in px. */
  readonly width: number;
  readonly contexts?: ContextInput;
  readonly direction?: 'ltr' | 'rtl';
  /** Size of the page's text in px, where it is not the system's. */
  readonly rootFontSize?: number;
}

/** The same with amounts as people and other programs read them: at most two decimals. */
export const roundedGeometry = (input: GeometryInput): Record<string, Place> =>
  Object.fromEntries(
    Object.entries(geometry(input)).map(([name, { x, y, width, height, estimated }]) => {
      const [left, top, wide, tall] = [x, y, width, height].map(rounded) as [number, number, number, number];
      return [name, { x: left, y: top, width: wide, height: tall, estimated }];
    }),
  );

// Adding 0 keeps a zero from being negative.
const rounded = (amount: number): number => Math.round(amount * 100) / 100 + 0;

/** The parts that are drawn, by name, copies of what is repeated by their numbers (`entry:2/frame`). */
export function geometry(input: GeometryInput): Record<string, Place> {
  const { width, direction } = input;
  const root = drawnTree(input);
  const found: Record<string, Place> = {};
  if (!root) return found;
  const own = root.style.px('width', width);
  const laid = new Layout(direction === 'rtl').root(
    root,
    own ?? Math.min(width, root.style.px('max-width', width) ?? width),
  );
  const record = (each: LaidBox, x: number, y: number): void => {
    const { width: wide, height, estimated } = each;
    found[each.box.name] = { x: x + each.x, y: y + each.y, width: wide, height, estimated };
    for (const child of each.children) record(child, x + each.x, y + each.y);
  };
  record(laid, 0, 0);
  return inheritingEstimates(laid, found);
}

/** What lies in a part whose place is only reckoned is itself only reckoned. */
function inheritingEstimates(laid: LaidBox, places: Record<string, Place>): Record<string, Place> {
  const visit = (each: LaidBox, outer: boolean): void => {
    const place = places[each.box.name]!;
    const estimated = outer || place.estimated;
    places[each.box.name] = { ...place, estimated };
    each.children.forEach(child => visit(child, estimated));
  };
  visit(laid, false);
  return places;
}

function drawnTree(input: GeometryInput): DrawnBox | null {
  const { system, component, combination, sample, contexts = {} } = input;
  const names = namesOf(system).component(component.id);
  const tree = fieldTree({
    component,
    names,
    icons: system.icons,
    sample,
    combination,
    mode: 'held',
    id: 'g',
  });
  const rem = input.rootFontSize ?? system.rootFontSize;
  const context = { tokens: system.tokens.in(contexts), rootFontSize: rem };
  const named = new Naming(component, names);
  const root = named.tree(tree, null);
  const { parts } = resolverFor(component, context).resolve({ ...named.states, ...combination });
  return drawn(root, null, { component, parts, rem, page: input.direction ?? 'ltr' });
}

interface Surroundings {
  readonly component: Component;
  readonly parts: Outcomes;
  readonly rem: number;
  /** Direction of writing of the page. */
  readonly page: 'ltr' | 'rtl';
}

/** A node of a field with the name of its part, copies by their numbers. */
interface NamedNode {
  readonly name: string;
  readonly node: FieldNode;
  readonly children: readonly NamedNode[];
}

class Naming {
  /** In which states the copies are, by `entry:2/focus`. */
  readonly states: Record<string, string> = {};

  constructor(
    private readonly component: Component,
    private readonly names: ComponentNames,
  ) {}

  tree(
    node: FieldNode,
    around: { readonly part: string; readonly name: string } | null,
    copy = 0,
  ): NamedNode {
    const name = this.nameOf(node, around, copy);
    const copies = new Map<string, number>();
    const children = node.children.flatMap(child => {
      if (typeof child === 'string' || child.tag === 'option') return [];
      const count = (copies.get(child.part) ?? 0) + 1;
      copies.set(child.part, count);
      return [this.tree(child, { part: node.part, name }, count)];
    });
    return { name, node, children };
  }

  private nameOf(node: FieldNode, around: { part: string; name: string } | null, copy: number): string {
    const { nested, anatomy } = this.component;
    const part = anatomy.byName.get(node.part)!;
    const repeated = nested.find(each => each.repeat !== null && node.part.startsWith(`${each.name}/`));
    if (!repeated || !around) return node.part;
    const isRoot = part === anatomy.byName.get(repeated.name);
    const prefix = isRoot ? `${repeated.name}:${copy}` : around.name.slice(0, around.name.indexOf('/'));
    if (isRoot) this.takeStates(node, repeated.name, prefix);
    return `${prefix}/${node.part.slice(repeated.name.length + 1)}`;
  }

  private takeStates(node: FieldNode, use: string, copy: string): void {
    for (const { id } of this.component.space.everyAxis) {
      if (!id.startsWith(`${use}/`)) continue;
      const said = node.attributes.find(([name]) => name === this.names.axis(id));
      if (said) this.states[`${copy}/${id.slice(use.length + 1)}`] = said[1];
    }
  }
}

function drawn(
  { name, node, children }: NamedNode,
  outer: PartStyle | null,
  around: Surroundings,
): DrawnBox | null {
  const { component, parts, rem, page } = around;
  const part = component.anatomy.byName.get(node.part)!;
  const style = new PartStyle(part, parts[name] ?? parts[node.part] ?? {}, outer, rem, page);
  if (style.value('present') === 'false') return null;
  return {
    name,
    part,
    style,
    text: node.children.filter(child => typeof child === 'string').join(''),
    element: node.tag,
    children: children.flatMap(child => drawn(child, style, around) ?? []),
  };
}
