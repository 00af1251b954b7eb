import { listKey } from '../components/content-keys';
import type { Part } from '../components/anatomy/part';
import { showsPlaceholder } from '../documents/part-kinds';
import { choicesOf, isReached, type Choices } from '../components/nesting/entries';
import type { Component, Nested } from '../components/component';
import type { SampleDocument, SampleText } from '../documents/component-document';
import { isObject } from '../json/json';
import type { Combination } from '../space/space';
import { accessibility, type Accessibility } from './accessibility';
import { plainIcon } from './icon';
import type { ComponentNames } from './names';
import {
  chosenText,
  entryId,
  entryOf,
  entryText,
  isDisabledEntry,
  MAX_ENTRIES,
} from '../components/content/entries';
import { derivedText, type Surroundings } from '../components/content/derived-text';
import { bearerMarks, chosenElement, inputType, rootMarks, type Attributes } from './state-attributes';
import { sampleText } from '../components/content/sample-text';
import { valueText } from '../components/content/value-text';
import {
  contentSource,
  nameIn,
  outermost,
  renderScopeWithin,
  type RepeatedEntry,
  type RenderScope,
} from './render-scope';

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
  /** An allowed combination; it may name free axes of nested components, too. */
  readonly combination: Combination;
  /** `held`: every axis as an attribute, for plates. `shipped`: options as attributes, states as markup says them. */
  readonly mode: 'held' | 'shipped';
  /** Makes ids unique on a page. */
  readonly id: string;
  /** BCP 47; English where it is not said. */
  readonly locale?: string;
  /** What stands in the control while someone writes in it, instead of the sample's value. */
  readonly written?: string;
}

/** A field with a sample's content in one combination. Parts without content are left out, and leave no gap. */
export function fieldTree(input: FieldTreeInput): FieldNode {
  return new FieldBuilder(input).root();
}

/** A component whose parts belong together for whoever uses the field: it bears states of its own, or is the outermost. */
interface Unit {
  readonly standing: RenderScope;
  readonly told: Accessibility;
  /** Ends all ids in it: the numbers of the entries around it. */
  readonly copy: string;
}

class FieldBuilder {
  /** How many labels are open: in these only phrasing content may stand (HTML, 3.2.5.2.5). */
  private labels = 0;
  /** Keys whose text is being made, with the way to their component: what leads back to itself is nothing. */
  private readonly open = new Set<string>();

  constructor(private readonly input: FieldTreeInput) {}

  /** The outermost part is there even where nothing is in it. */
  root(): FieldNode {
    const { component, combination } = this.input;
    const standing = outermost(component, combination);
    const unit = this.unit(standing, '');
    const { root } = component.anatomy;
    return this.part(root, standing, unit) ?? this.element(root, standing, unit, [], []);
  }

  private unit(standing: RenderScope, copy: string): Unit {
    const { component, combination } = standing;
    const told = accessibility(component, combination, part => this.text(part, this.at(standing, part)));
    return { standing, told, copy };
  }

  /** Where a part of a component stands that may lie in one within it. */
  private at(standing: RenderScope, part: Part): RenderScope {
    return this.holderAt(standing, part.nested ?? '');
  }

  private holderAt(standing: RenderScope, fullWay: string): RenderScope {
    let here = standing;
    let way = fullWay;
    while (way !== '') {
      const nested = here.component.nested.find(({ name }) => name === way || way.startsWith(`${name}/`))!;
      here = renderScopeWithin(here, nested, null);
      way = way.slice(nested.name.length + 1);
    }
    return here;
  }

  /** `part` is a part of the component that stands there. */
  private part(part: Part, standing: RenderScope, unit: Unit): FieldNode | null {
    if (part.kind.box) {
      const isLabel = this.isPressArea(part, standing, unit);
      if (isLabel) this.labels++;
      const children = part.children.flatMap(child => this.child(child, standing, unit));
      if (isLabel) this.labels--;
      return part.children.length > 0 && children.length === 0
        ? null
        : this.element(part, standing, unit, this.listAttributes(part, standing, unit), children);
    }
    if (part.kind.kind === 'control') return this.control(part, standing, unit);
    const text = this.text(part, standing);
    const isBare = part.kind.kind === 'action' && part.content === null;
    if (text === undefined && !isBare && !this.isAwaited(part, standing, unit)) return null;
    return part.kind.kind === 'icon'
      ? this.icon(part, standing, unit, text ?? '')
      : this.element(part, standing, unit, this.textAttributes(part, standing, unit), text ? [text] : []);
  }

  private child(child: Part, standing: RenderScope, unit: Unit): FieldNode[] {
    const nested = standing.component.nested.find(({ name }) => name === child.nested);
    if (!nested) return this.found(this.part(child, standing, unit));
    return this.entries(nested, standing).flatMap(entry => {
      const within = renderScopeWithin(standing, nested, entry);
      const copy = entry ? `${unit.copy}-${entry.index + 1}` : unit.copy;
      const own = within.component.anatomy.bearer || entry ? this.unit(within, copy) : unit;
      return this.found(this.part(within.component.anatomy.root, within, own));
    });
  }

  private found<Child>(child: Child | null | undefined | ''): Child[] {
    return child ? [child] : [];
  }

  /** The entries that a nested component shows one each; `null` for one alone that is not repeated. */
  private entries({ repeat }: Nested, standing: RenderScope): (RepeatedEntry | null)[] {
    if (repeat === null) return [null];
    const drawn = this.listAt(repeat, standing).slice(0, MAX_ENTRIES);
    return drawn.map(({ is, ...own }, index, all) => ({
      index,
      of: all.length,
      content: own,
      is: isObject(is) ? (is as Combination) : {},
    }));
  }

  /** The entries of a list; of a text, its characters. */
  private listAt(name: string, standing: RenderScope): Record<string, unknown>[] {
    const { standing: at, key, entry } = contentSource(standing, name);
    const list = at.nested === null ? this.input.sample?.content[key] : entry;
    if (Array.isArray(list)) return list.filter(isObject);
    const text = this.content(name, standing);
    return text === undefined ? [] : [...text].map(value => ({ value }));
  }

  private element(
    part: Part,
    standing: RenderScope,
    unit: Unit,
    own: Attributes,
    children: readonly (FieldNode | string)[],
    tag?: string,
  ): FieldNode {
    const { names } = this.input;
    const name = nameIn(standing, part.name);
    const attributes: Attributes = [['class', names.part(name)]];
    if (part === standing.component.anatomy.root) {
      attributes.push(...this.optionAttributes(standing, unit));
      attributes.push(...this.rootAttributes(standing));
    }
    const isLabel = this.isPressArea(part, standing, unit);
    if (isLabel) attributes.push(['for', this.controlId(unit)]);
    const plain = this.labels > 0 && part.kind.box ? 'span' : part.kind.element;
    const element = isLabel ? 'label' : (tag ?? plain);
    return { tag: element, part: name, attributes: [...attributes, ...own], children };
  }

  private isPressArea(part: Part, standing: RenderScope, unit: Unit): boolean {
    const area = unit.told.pressArea;
    return area !== null && nameIn(standing, part.name) === nameIn(unit.standing, area.name);
  }

  private textAttributes(part: Part, standing: RenderScope, unit: Unit): Attributes {
    const { told } = unit;
    const local = this.localName(part, standing, unit);
    const attributes: Attributes = [];
    if (part.kind.kind === 'label' && unit.standing.component.anatomy.control)
      attributes.push(['for', this.controlId(unit)]);
    if (part.kind.kind === 'action') attributes.push(['type', 'button']);
    if (told.identified.has(local)) attributes.push(['id', this.idOf(local, unit)]);
    if (told.announced.has(local)) attributes.push(['role', 'alert']);
    if (this.input.mode !== 'shipped') return attributes;
    const { bearer, control } = standing.component.anatomy;
    if (part === bearer) attributes.push(...bearerMarks(standing, part.kind.element));
    // The buttons of a field itself are off with it.
    else if (part.kind.kind === 'action' && control && standing.combination['availability'] === 'disabled')
      attributes.push(['disabled', '']);
    return attributes;
  }

  /** On a page a message's element is there before the message is, so that readers hear it come. */
  private isAwaited(part: Part, standing: RenderScope, unit: Unit): boolean {
    return this.input.mode === 'shipped' && unit.told.announced.has(this.localName(part, standing, unit));
  }

  private icon(part: Part, standing: RenderScope, unit: Unit, name: string): FieldNode {
    const svg = this.input.icons.get(name);
    const drawing = svg === undefined ? null : plainIcon(svg);
    const node = this.element(part, standing, unit, [['aria-hidden', 'true']], []);
    return drawing === null ? node : { ...node, drawing };
  }

  private control(part: Part, standing: RenderScope, unit: Unit): FieldNode {
    const element = chosenElement(part, standing);
    const { anatomy } = standing.component;
    const content = (key: string): string | undefined => this.content(key, standing);
    const value = this.writtenIn(part, standing);
    const local = this.localName(part, standing, unit);
    const attributes: Attributes = [['id', this.idOf(local, unit)]];
    if (element === 'input') attributes.push(['type', inputType(part, standing)]);
    if (element === 'button') attributes.push(['type', 'button']);
    // Without a placeholder nothing would tell an empty control from a filled one.
    if (showsPlaceholder(element, part.type)) attributes.push(['placeholder', content('placeholder') || ' ']);
    if (element === 'input' && value !== '') attributes.push(['value', value]);
    if (local === unit.standing.component.anatomy.control?.name)
      attributes.push(...this.wiring(unit), ...this.comboboxAttributes(unit, element));
    if (part === anatomy.control && this.input.mode === 'shipped')
      attributes.push(...bearerMarks(standing, element));
    const children: (FieldNode | string)[] =
      element === 'select'
        ? this.options(part, standing, value)
        : element === 'button'
          ? this.found(value || content('placeholder'))
          : element === 'textarea'
            ? this.found(value)
            : [];
    return this.element(part, standing, unit, attributes, children, element);
  }

  /** What a select offers: the entries of its list, the chosen one marked; what stands in it though no entry says so comes first. */
  private options(part: Part, standing: RenderScope, value: string): FieldNode[] {
    const name = nameIn(standing, part.name);
    const option = (attributes: Attributes, text: string): FieldNode => ({
      tag: 'option',
      part: name,
      attributes,
      children: this.found(text),
    });
    const list = listKey(standing.component);
    const entries = list === null ? [] : this.listAt(list, standing);
    const chosen = value === '' ? undefined : entryOf(entries, value);
    const offered = entries.map(entry => {
      const text = entryText(entry);
      const id = entryId(entry);
      return option(
        [
          ...(id === text ? [] : ([['value', id]] as Attributes)),
          ...(isDisabledEntry(entry) ? ([['disabled', '']] as Attributes) : []),
          ...(entry === chosen ? ([['selected', '']] as Attributes) : []),
        ],
        text,
      );
    });
    if (chosen) return offered;
    const first = value || this.content('placeholder', standing);
    return first === undefined
      ? offered
      : [
          option(
            [
              ['value', value],
              ['selected', ''],
            ],
            first,
          ),
          ...offered,
        ];
  }

  /** A box around entries to choose from, as assistive technology sees it. */
  private listAttributes(part: Part, standing: RenderScope, unit: Unit): Attributes {
    if (this.input.mode === 'held') return [];
    const local = this.localName(part, standing, unit);
    if (choicesOf(unit.standing.component)?.list !== local) return [];
    const { named } = unit.told;
    return [
      ['id', this.idOf(local, unit)],
      ['role', 'listbox'],
      named.length > 0
        ? ['aria-labelledby', named.map(name => this.idOf(name, unit)).join(' ')]
        : ['aria-label', unit.standing.component.title],
    ];
  }

  /** An entry of a list, as assistive technology sees it. */
  private optionAttributes(standing: RenderScope, unit: Unit): Attributes {
    const { outer, nested, component, entry } = standing;
    if (this.input.mode === 'held' || !outer || !nested?.repeat) return [];
    // What a control holds is drawn once more for eyes; readers have it from the control.
    if (!isReached(component)) return Object.hasOwn(entry!.content, 'value') ? [['aria-hidden', 'true']] : [];
    return [
      ['id', this.idOf(component.anatomy.root.name, unit)],
      ['role', 'option'],
      ...this.entryValue(entry!.content),
      ...(standing.combination['selection'] === 'selected'
        ? []
        : ([['aria-selected', 'false']] as Attributes)),
    ];
  }

  /** What forms submit of an entry, where that is not what it is called. */
  private entryValue(entry: Readonly<Record<string, unknown>>): Attributes {
    const id = entryId(entry);
    return id === entryText(entry) ? [] : [['data-value', id]];
  }

  /** What a control says of the list that it opens; a select has its own. */
  private comboboxAttributes(unit: Unit, element: string): Attributes {
    const { component, combination } = unit.standing;
    if (this.input.mode === 'held' || element === 'select') return [];
    const choices = choicesOf(component);
    if (!choices) return [];
    const isOpen = combination['disclosure'] === 'open';
    const active = isOpen ? this.activeEntry(choices, unit) : null;
    return [
      ['role', 'combobox'],
      ['aria-haspopup', 'listbox'],
      ...(isOpen ? [] : ([['aria-expanded', 'false']] as Attributes)),
      ['aria-controls', this.idOf(choices.list, unit)],
      ...(active === null ? [] : ([['aria-activedescendant', active]] as Attributes)),
    ];
  }

  /** The id of the entry that the focus points to. */
  private activeEntry({ entry, way }: Choices, unit: Unit): string | null {
    const holder = this.holderAt(unit.standing, way);
    for (const each of this.entries(entry, holder)) {
      const within = renderScopeWithin(holder, entry, each);
      if ((within.combination['focus'] ?? 'out') === 'out') continue;
      const { name } = within.component.anatomy.root;
      return this.idOf(name, { ...unit, standing: within, copy: `${unit.copy}-${each!.index + 1}` });
    }
    return null;
  }

  /** What names and describes a control. */
  private wiring(unit: Unit): Attributes {
    const { named, described, pressArea } = unit.told;
    const ids = (parts: readonly string[]): string => parts.map(name => this.idOf(name, unit)).join(' ');
    const attributes: Attributes = [];
    if (named.length > 0) attributes.push(['aria-labelledby', ids(named)]);
    else if (pressArea) attributes.push(['aria-label', unit.standing.component.title]);
    if (described.length > 0) attributes.push(['aria-describedby', ids(described)]);
    return attributes;
  }

  /** Held: all axes of the component. Shipped: the options that it does not take from the component around it, and its states. */
  private rootAttributes(standing: RenderScope): Attributes {
    const { mode, names } = this.input;
    const { component, combination, nested } = standing;
    const shown = component.space.axes.filter(
      (axis, index) =>
        mode === 'held' || (axis.kind === 'option' && (nested === null || nested.reading.isFree(index))),
    );
    const axes = shown.map((axis): [string, string] => [
      names.axis(nameIn(standing, axis.id)),
      combination[axis.id]!,
    ]);
    return mode === 'held' ? axes : [...axes, ...rootMarks(standing, names)];
  }

  /** A part's name in the component of the unit that it belongs to. */
  private localName(part: Part, standing: RenderScope, { standing: { way } }: Unit): string {
    const name = nameIn(standing, part.name);
    return way === '' ? name : name.slice(way.length + 1);
  }

  private controlId(unit: Unit): string {
    return this.idOf(unit.standing.component.anatomy.control!.name, unit);
  }

  /** The id of a part by its name in the unit. */
  private idOf(part: string, { standing, copy }: Unit): string {
    return `${this.input.id}-${nameIn(standing, part).replaceAll('/', '--')}${copy}`;
  }

  private text(part: Part, standing: RenderScope): string | undefined {
    const { content } = this.ownPart(part, standing);
    return content === null ? undefined : this.content(content, standing) || undefined;
  }

  /** The part as its own component has it: in that it names that component's content. */
  private ownPart(part: Part, standing: RenderScope): Part {
    const own = part.name.split('/').at(-1)!;
    return part.nested === null ? part : standing.component.anatomy.byName.get(own)!;
  }

  /** What is given counts; else what the key itself says of where it comes from. */
  private content(name: string, standing: RenderScope): string | undefined {
    const { standing: at, key, entry } = contentSource(standing, name);
    const { sample, combination, component } = this.input;
    const written = at.nested === null ? sample?.content[key] : entry;
    const given = sampleText(written as SampleText | undefined, combination, component.space.axes);
    if (given !== undefined) return given;
    const declared = at.component.document.content?.find(({ id }) => id === key);
    const place = `${at.way} ${key}`;
    if (!declared || this.open.has(place)) return undefined;
    this.open.add(place);
    const text = derivedText(declared, this.surroundings(at));
    this.open.delete(place);
    return text;
  }

  /** What stands in a control; nothing while that is empty. */
  private entered(name: string, standing: RenderScope): string {
    const { standing: owner } = contentSource(standing, name);
    return owner.combination['content'] === 'empty' ? '' : (this.content(name, standing) ?? '');
  }

  /** The same as the control shows it. */
  private writtenIn(part: Part, standing: RenderScope): string {
    const { written, locale } = this.input;
    if (written !== undefined && standing.way === '') return written;
    const { component, combination } = standing;
    const value = this.entered(part.content ?? 'value', standing);
    const list = component.document.behaviour?.value?.kind === 'choice' ? listKey(component) : null;
    if (list !== null) return chosenText(this.listAt(list, standing), value);
    return valueText(component.document, component.space.axes, combination, value, locale);
  }

  private surroundings(standing: RenderScope): Surroundings {
    const { anatomy } = standing.component;
    const list = listKey(standing.component);
    return {
      value: () => this.entered(anatomy.control?.content ?? 'value', standing),
      entries: () => (list === null ? 0 : this.listAt(list, standing).length),
      sources: this.input.sample?.sources ?? {},
      ...(this.input.locale === undefined ? {} : { locale: this.input.locale }),
    };
  }
}
