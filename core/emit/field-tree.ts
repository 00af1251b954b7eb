import type { Part } from '../anatomy/anatomy';
import type { Component } from '../components/component';
import type { SampleDocument } from '../formats/component-document';
import type { Combination } from '../space/space';
import type { StateMark } from '../space/state-catalogue';
import { accessibility, type Accessibility } from './accessibility';
import { plainIcon } from './icon';
import type { ComponentNames } from './names';
import { sampleText } from './sample-text';

/** An element of a field, free of any document model: written as HTML here, built as nodes by whoever shows it. */
export interface FieldNode {
  readonly tag: string;
  /** Which part it is. */
  readonly part: string;
  readonly attributes: readonly (readonly [name: string, value: string])[];
  readonly children: readonly (FieldNode | string)[];
  /** An SVG drawing inside, already reduced to plain shapes. */
  readonly drawing?: string;
}

export interface FieldTreeInput {
  readonly component: Component;
  readonly names: ComponentNames;
  readonly icons: ReadonlyMap<string, string>;
  readonly sample: SampleDocument | undefined;
  readonly combination: Combination;
  /** `held`: every axis as an attribute, for plates. `shipped`: options as attributes, states as markup says them. */
  readonly mode: 'held' | 'shipped';
  /** Makes ids unique on a page. */
  readonly id: string;
}

/** A field with a sample's content in one combination. Parts without content are left out, and leave no gap. */
export function fieldTree(input: FieldTreeInput): FieldNode {
  return new FieldBuilder(input).root();
}

type Attributes = [name: string, value: string][];

class FieldBuilder {
  private readonly told: Accessibility;

  constructor(private readonly input: FieldTreeInput) {
    const { component, combination } = input;
    this.told = accessibility(component, combination, part => this.text(part));
  }

  /** The outermost part is there even where nothing is in it. */
  root(): FieldNode {
    const { root } = this.input.component.anatomy;
    return this.part(root) ?? this.element(root, [], []);
  }

  private part(part: Part): FieldNode | null {
    const children = part.kind.box ? part.children.flatMap(child => this.part(child) ?? []) : [];
    if (part.kind.box)
      return part.children.length > 0 && children.length === 0 ? null : this.element(part, [], children);
    if (part.kind.kind === 'control') return this.control(part);
    const text = this.text(part);
    if (text === undefined && !this.isAwaited(part)) return null;
    return part.kind.kind === 'icon'
      ? this.icon(part, text ?? '')
      : this.element(part, this.textAttributes(part), text ? [text] : []);
  }

  private element(
    part: Part,
    own: Attributes,
    children: readonly (FieldNode | string)[],
    tag?: string,
  ): FieldNode {
    const { component, names } = this.input;
    const attributes: Attributes = [['class', names.part(part.name)]];
    if (part === component.anatomy.root) attributes.push(...this.rootAttributes());
    const isPressArea = part === this.told.pressArea;
    if (isPressArea) attributes.push(['for', this.idOf(component.anatomy.control!.name)]);
    const name = isPressArea ? 'label' : (tag ?? part.kind.element);
    return { tag: name, part: part.name, attributes: [...attributes, ...own], children };
  }

  private textAttributes(part: Part): Attributes {
    const { anatomy } = this.input.component;
    const attributes: Attributes = [];
    if (part.kind.kind === 'label' && anatomy.control)
      attributes.push(['for', this.idOf(anatomy.control.name)]);
    if (part.kind.kind === 'action') attributes.push(['type', 'button']);
    if (this.told.identified.has(part.name)) attributes.push(['id', this.idOf(part.name)]);
    if (this.told.announced.has(part.name)) attributes.push(['role', 'alert']);
    if (part === anatomy.bearer) attributes.push(...this.marks('control'));
    return attributes;
  }

  /** On a page a message's element is there before the message is, so that readers hear it come. */
  private isAwaited(part: Part): boolean {
    return this.input.mode === 'shipped' && this.told.announced.has(part.name);
  }

  private icon(part: Part, name: string): FieldNode {
    const svg = this.input.icons.get(name);
    const drawing = svg === undefined ? null : plainIcon(svg);
    const node = this.element(part, [['aria-hidden', 'true']], []);
    return drawing === null ? node : { ...node, drawing };
  }

  private control(part: Part): FieldNode {
    const { combination, component, mode } = this.input;
    const { element } = part;
    const value = combination['content'] === 'empty' ? '' : (this.content(part.content ?? 'value') ?? '');
    const attributes: Attributes = [['id', this.idOf(part.name)]];
    if (element === 'input') attributes.push(['type', part.type ?? 'text']);
    if (element === 'button') attributes.push(['type', 'button']);
    // Without a placeholder nothing would tell an empty control from a filled one.
    if (element === 'input' || element === 'textarea')
      attributes.push(['placeholder', this.content('placeholder') || ' ']);
    if (element === 'input' && value !== '') attributes.push(['value', value]);
    if (part === component.anatomy.control) {
      const { named, described } = this.told;
      const ids = (parts: readonly string[]): string => parts.map(name => this.idOf(name)).join(' ');
      if (named.length > 0) attributes.push(['aria-labelledby', ids(named)]);
      else if (this.told.pressArea) attributes.push(['aria-label', component.title]);
      if (described.length > 0) attributes.push(['aria-describedby', ids(described)]);
      if (mode === 'shipped') attributes.push(...this.marks('control'));
    }
    const children = element === 'input' || value === '' ? [] : [value];
    if (element !== 'select') return this.element(part, attributes, children, element);
    const option: FieldNode = { tag: 'option', part: part.name, attributes: [], children };
    return this.element(part, attributes, children.length > 0 ? [option] : [], element);
  }

  private rootAttributes(): Attributes {
    const { component, combination, mode, names } = this.input;
    const shown = component.space.axes.filter(axis => mode === 'held' || axis.kind === 'option');
    const axes = shown.map((axis): [string, string] => [names.axis(axis.id), combination[axis.id]!]);
    return mode === 'held' ? axes : [...axes, ...this.marks('root')];
  }

  private marks(on: StateMark['on']): Attributes {
    if (this.input.mode === 'held') return [];
    return this.input.component.space.axes.flatMap(axis => {
      const mark = axis.state?.values.find(value => value.id === this.input.combination[axis.id])?.mark;
      return mark?.on === on && mark.attribute !== 'value'
        ? [[mark.attribute, mark.value] as [string, string]]
        : [];
    });
  }

  private idOf(part: string): string {
    return `${this.input.id}-${part}`;
  }

  private text(part: Part): string | undefined {
    return part.content === null ? undefined : this.content(part.content) || undefined;
  }

  private content(key: string): string | undefined {
    const { sample, combination, component } = this.input;
    return sampleText(sample?.content[key], combination, component.space.axes);
  }
}
