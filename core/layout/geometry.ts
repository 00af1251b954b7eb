import type { Component } from '../components/component';
import type { System } from '../components/system';
import { fieldTree, type FieldNode } from '../render/field-tree';
import { namesOf, type ComponentNames } from '../render/names';
import type { SampleDocument } from '../documents/component-document';
import { resolverFor } from '../cascade/resolve';
import type { Outcomes } from '../cascade/outcome';
import type { Combination } from '../space/space';
import type { ContextInput } from '../tokens/contexts';
import { layAbsolutes } from './absolute-parts';
import { autos, isInFlow, margins, outside, type DrawnBox } from './drawn-box';
import { Guess, otherGuesses } from './guess';
import { clampWidth, ownWidth } from './intrinsic-sizes';
import type { LaidBox } from './laid-box';
import { lay } from './layout';
import { PartStyle, type Page } from './part-style';
import { isScrolled, isTransformed, isUnsupported } from './unsupported';

/** Where a part lies: its border box in px from the top and the inline start of the root's. */
export interface PartBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Whether it follows from the width of a text, or from something else that only a browser knows, and so is only reckoned. */
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
export const roundedGeometry = (input: GeometryInput): Record<string, PartBox> =>
  Object.fromEntries(
    Object.entries(geometry(input)).map(([name, { x, y, width, height, estimated }]) => {
      const [left, top, wide, tall] = [x, y, width, height].map(rounded) as [number, number, number, number];
      return [name, { x: left, y: top, width: wide, height: tall, estimated }];
    }),
  );

// Adding 0 keeps a zero from being negative.
const rounded = (amount: number): number => Math.round(amount * 100) / 100 + 0;

/** The parts that are drawn, by name, copies of what is repeated by their numbers (`entry:2/frame`). */
export function geometry(input: GeometryInput): Record<string, PartBox> {
  const draw = drawing(input);
  const first = new Guess(0);
  const likely = laidOut(draw, first);
  if (!first.isUsed) return withEstimates(likely, []);
  return withEstimates(
    likely,
    otherGuesses().map(guess => laidOut(draw, guess)),
  );
}

/** A part with its border box in px from the inline start and the top of the root's. */
interface Laid extends Omit<PartBox, 'estimated'> {
  /** Whether what it holds is not laid out but guessed. */
  readonly isUnsure: boolean;
}

/** What lies in a part that is only guessed is itself only guessed. */
function laidOut(draw: (guess: Guess) => DrawnBox | null, guess: Guess): Map<string, Laid> {
  const found = new Map<string, Laid>();
  const root = draw(guess);
  if (!root) return found;
  const { width } = root.style.page;
  const beside = outside(margins(root, 'inline', width, root.style.isRtl));
  const around = { width, height: null };
  const laid = lay(root, clampWidth(root, ownWidth(root, width) ?? width - beside, width), null, around);
  layAbsolutes(laid);
  const record = (each: LaidBox, left: number, top: number, isInUnsure: boolean): void => {
    const isUnsure = isInUnsure || each.isUnsure || isTransformed(each.box);
    const { width: wide, height } = each;
    const [x, y] = [left + each.x, top + each.y];
    found.set(each.box.name, { x, y, width: wide, height, isUnsure });
    // What stands beside a part whose measures are guessed may be narrower or wider by any amount.
    const isBesideUnlaid = each.children.some(
      each !== laid && sharesOut(each.box) ? holdsUnlaid : isUnlaidItem,
    );
    for (const child of each.children) record(child, x, y, isUnsure || isBesideUnlaid || isScrolled(each));
  };
  // What of the page a field that is out of its flow lies in, is not known.
  record(laid, 0, 0, !isInFlow(root));
  return found;
}

const isUnlaidItem = ({ box }: LaidBox): boolean => isInFlow(box) && isUnsupported(box);

/** Whether a part has measures that are guessed, or goes in its own by a part within that has. */
const holdsUnlaid = (laid: LaidBox): boolean =>
  isUnlaidItem(laid) ||
  (isInFlow(laid.box) && ownWidth(laid.box, null) === null && laid.children.some(holdsUnlaid));

/** Whether a box that is as wide as its content asked for has room left over that moves or widens what is in it. */
const sharesOut = ({ style, children }: DrawnBox): boolean =>
  style.px('width') === null &&
  (!['normal', 'flex-start'].includes(style.value('justify-content')) ||
    children.some(
      child => child.style.number('flex-grow') > 0 || autos(margins(child, 'inline', null, false)) > 0,
    ));

/** px by which two layings out may differ without anything having followed from what was guessed. */
const ALIKE = 0.01;
const MEASURES = ['x', 'y', 'width', 'height'] as const;

/** A place is an estimate where it would be another if what was guessed were more or less. */
function withEstimates(
  likely: ReadonlyMap<string, Laid>,
  others: readonly ReadonlyMap<string, Laid>[],
): Record<string, PartBox> {
  const isOther = (name: string, own: Laid): boolean =>
    others.some(other => {
      const its = other.get(name);
      return !its || MEASURES.some(measure => Math.abs(its[measure] - own[measure]) > ALIKE);
    });
  return Object.fromEntries(
    [...likely].map(([name, own]) => {
      const { isUnsure, ...place } = own;
      return [name, { ...place, estimated: isUnsure || isOther(name, own) }];
    }),
  );
}

/** Makes the tree of what is drawn, anew for each guess. */
function drawing(input: GeometryInput): (guess: Guess) => DrawnBox | null {
  const { system, component, combination, sample, width, contexts = {} } = input;
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
  const direction = input.direction ?? 'ltr';
  return guess =>
    drawn(root, null, { component, parts, page: { rem, direction, width, guess }, count: { parts: 0 } });
}

interface Surroundings {
  readonly component: Component;
  readonly parts: Outcomes;
  readonly page: Page;
  /** How many have been drawn. */
  readonly count: { parts: number };
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

/** Width by height of a drawing that has no size of its own (SVG 2, section 8.2). */
function ratioOf(drawing: string): number | null {
  const [tag = ''] = /^<svg[^>]*>/.exec(drawing) ?? [];
  const [, wide, tall] = /\sviewBox="\s*[-\d.]+[\s,]+[-\d.]+[\s,]+([\d.]+)[\s,]+([\d.]+)\s*"/.exec(tag) ?? [];
  const ratio = Number(wide) / Number(tall);
  return ratio > 0 && ratio < Infinity && !/\s(?:width|height)=/.test(tag) ? ratio : null;
}

function drawn(
  { name, node, children }: NamedNode,
  outer: PartStyle | null,
  around: Surroundings,
): DrawnBox | null {
  const { component, parts, page, count } = around;
  const part = component.anatomy.byName.get(node.part)!;
  const style = new PartStyle(part, parts[name] ?? parts[node.part] ?? {}, outer, page, count.parts++);
  if (style.value('present') === 'false') return null;
  return {
    name,
    part,
    style,
    text: node.children.filter(child => typeof child === 'string').join(''),
    drawing: node.drawing === undefined ? null : { ratio: ratioOf(node.drawing) },
    element: node.tag,
    children: children.flatMap(child => drawn(child, style, around) ?? []),
  };
}
