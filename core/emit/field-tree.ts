import type { Part } from '../anatomy/anatomy';
import type { SampleDocument, SampleText } from '../formats/component-document';
import type { Component } from '../rules/component';
import type { Combination } from '../space/space';
import { axisAttribute, partClass } from './class-names';
import { plainIcon } from './icon';
import type { StateMark } from '../space/state-catalogue';

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
  readonly prefix: string;
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
  return new FieldBuilder(input).part(input.component.anatomy.root)!;
}

class FieldBuilder {
  private readonly messages: readonly string[];

  constructor(private readonly input: FieldTreeInput) {
    this.messages = input.component.anatomy.parts
      .filter(
        part =>
          part.kind.kind === 'text' && DESCRIBES.has(part.content ?? '') && this.text(part) !== undefined,
      )
      .map(part => this.idOf(part));
  }

  part(part: Part): FieldNode | null {
    const children = part.kind.box ? part.children.flatMap(child => this.part(child) ?? []) : [];
    const text = this.text(part);
    if (!part.kind.box && part.kind.kind !== 'control' && text === undefined) return null;
    if (part.kind.box && part.children.length > 0 && children.length === 0) return null;
    const { component, prefix } = this.input;
    const attributes: [string, string][] = [['class', partClass(prefix, component, part.name)]];
    if (part === component.anatomy.root) attributes.push(...this.rootAttributes());
    const node = { tag: part.kind.element, part: part.name, attributes, children };
    return this.finished(part, node, text);
  }

  private finished(
    part: Part,
    node: FieldNode & { attributes: [string, string][] },
    text: string | undefined,
  ): FieldNode {
    switch (part.kind.kind) {
      case 'label': {
        const { control } = this.input.component.anatomy;
        if (control) node.attributes.push(['for', this.idOf(control)]);
        return { ...node, children: [text ?? ''] };
      }
      case 'text':
        if (this.messages.includes(this.idOf(part))) node.attributes.push(['id', this.idOf(part)]);
        return { ...node, children: [text ?? ''] };
      case 'icon': {
        node.attributes.push(['aria-hidden', 'true']);
        const svg = this.input.icons.get(text ?? '');
        const drawing = svg === undefined ? null : plainIcon(svg);
        return drawing === null ? { ...node, children: [] } : { ...node, drawing };
      }
      case 'action':
        node.attributes.push(['type', 'button']);
        return { ...node, children: [text ?? ''] };
      case 'control':
        return this.control(part, node);
      default:
        return node;
    }
  }

  private control(part: Part, node: FieldNode & { attributes: [string, string][] }): FieldNode {
    const { component, combination } = this.input;
    const first = part === component.anatomy.control;
    const filled = combination['content'] !== 'empty';
    const value = filled ? (this.content(part.content ?? 'value') ?? '') : '';
    node.attributes.push(['id', this.idOf(part)]);
    if (part.element === 'input') node.attributes.push(['type', part.type ?? 'text']);
    if (part.element === 'input' || part.element === 'textarea') {
      // Without a placeholder nothing would tell an empty control from a filled one.
      node.attributes.push(['placeholder', this.content('placeholder') || ' ']);
    }
    if (part.element === 'input' && value !== '') node.attributes.push(['value', value]);
    if (first && this.messages.length > 0)
      node.attributes.push(['aria-describedby', this.messages.join(' ')]);
    if (first && this.input.mode === 'shipped') node.attributes.push(...this.marks('control'));
    const children = part.element === 'input' ? [] : part.element === 'select' ? [] : [value];
    return { ...node, tag: part.element, children };
  }

  private rootAttributes(): [string, string][] {
    const { component, combination, mode } = this.input;
    const shown = component.space.axes.filter(axis => mode === 'held' || axis.kind === 'option');
    const axes = shown.map((axis): [string, string] => [axisAttribute(axis.id), combination[axis.id]!]);
    return mode === 'held' ? axes : [...axes, ...this.marks('root')];
  }

  private marks(on: StateMark['on']): [string, string][] {
    return this.input.component.space.axes.flatMap(axis => {
      const mark = axis.state?.values.find(value => value.id === this.input.combination[axis.id])?.mark;
      return mark?.on === on && mark.attribute !== 'value'
        ? [[mark.attribute, mark.value] as [string, string]]
        : [];
    });
  }

  private idOf(part: Part): string {
    return `${this.input.id}-${part.name}`;
  }

  private text(part: Part): string | undefined {
    return part.content === null ? undefined : this.content(part.content) || undefined;
  }

  /** Content for a key; where it depends on an axis, the text of the combination's value. */
  private content(key: string): string | undefined {
    const content: SampleText | undefined = this.input.sample?.content[key];
    if (content === undefined || typeof content === 'string') return content;
    const values = this.input.component.space.axes.map(axis => this.input.combination[axis.id]!);
    const fitting = values.find(value => Object.hasOwn(content, value));
    if (fitting !== undefined) return content[fitting];
    // A real page needs the words before the state that shows them comes about.
    return this.input.mode === 'shipped' && key !== 'value' ? Object.values(content)[0] : undefined;
  }
}

/** Content keys whose text describes the control to assistive technology. */
const DESCRIBES = new Set(['message', 'description', 'counter']);
