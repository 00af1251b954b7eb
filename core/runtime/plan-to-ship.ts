import type { Part } from '../components/anatomy/part';
import { planOf } from '../behaviour/make-plan';
import { messageKeys, messageOf } from '../behaviour/rendered-field';
import { notTaken } from '../behaviour/play';
import { atRest } from '../behaviour/machine';
import type { Component, Nested } from '../components/component';
import type { System } from '../components/system';
import { componentAt } from '../components/nesting/nested-names';
import { isReached } from '../components/nesting/entries';
import { sampleKeyOf } from '../components/nesting/sample-keys';
import { sampleText } from '../components/content/sample-text';
import { namedIn, TEMPLATE_WORDS } from '../components/content/derived-text';
import { announcedParts } from '../render/accessibility';
import { fieldTree, type FieldNode } from '../render/field-tree';
import { fieldHtml } from '../render/html';
import { namesOf } from '../render/names';
import { markOf } from '../render/state-attributes';
import type { SampleDocument, SampleText } from '../documents/component-document';
import { isObject } from '../json/json';
import {
  ID,
  type Boxes,
  type Face,
  type InsertionPoint,
  type ShippedMark,
  type ShippedPlan,
  type Template,
  type WithinMark,
} from './shipped-plan';

/** All that a script which ships must know of a component; where a sample is shown, with the words of that. */
export function planToShip(system: System, component: Component, sample?: SampleDocument): ShippedPlan {
  const drawn = sample ?? component.samples[0];
  const whole = planOf(component);
  const { kind: _, comparing: __, ...plan } = whole;
  const names = namesOf(system).component(component.id);
  const { anatomy, space, document } = component;
  const state = atRest(whole);
  const field = { system, component, plan: whole, sample: drawn };
  return {
    ...plan,
    limits: plan.limits.map(({ region, holds }) => ({ region, holds })),
    classes: Object.fromEntries(anatomy.parts.map(({ name }) => [name, names.part(name)])),
    attributes: space.axes.map(({ id }) => names.axis(id)),
    marks: marksOf(component, names.axis),
    within: [...ownButtons(component), ...component.nested.flatMap(nested => withinMarks(component, nested))],
    messages: [...announcedParts(component)],
    texts: {
      ...approval(component, sample),
      ...Object.fromEntries(plan.checks.map(check => [check.id, messageOf(field, state, check)])),
    },
    templates: templatesOf(system, component, drawn),
    faces: facesOf(system, component, drawn),
    boxes: document.behaviour?.value?.kind === 'code' ? boxesOf(system, component) : null,
    secretType: anatomy.control?.type === 'password' && space.axisIndex('secret') >= 0,
    notTaken: notTaken('{text}'),
  };
}

/** What a sample says of an approved entry, in the place of what a check would say. */
function approval(component: Component, sample: SampleDocument | undefined): { readonly valid?: string } {
  const key = messageKeys(component).find(each => sample?.content[each] !== undefined);
  const given = key === undefined ? undefined : (sample!.content[key] as SampleText);
  const text = sampleText(given, { validity: 'valid' }, component.space.axes);
  return text === undefined ? {} : { valid: text };
}

/** States that the machine decides on and that no browser shows by itself. */
function marksOf(component: Component, attribute: (axis: string) => string): ShippedMark[] {
  const { anatomy, space } = component;
  const elements = anatomy.control?.elements.length
    ? anatomy.control.elements
    : [anatomy.control?.element ?? ''];
  return space.axes.flatMap((axis, place) =>
    (axis.state?.values ?? []).slice(1).flatMap(({ id }): ShippedMark[] => {
      const value = axis.indexOf.get(id);
      if (value === undefined) return [];
      const found = elements.map(element => ({
        element,
        mark: markOf(component, axis, id, element, attribute),
      }));
      return found.flatMap(({ element, mark }) =>
        mark
          ? [{ axis: place, value, ...mark, ...(elements.length > 1 ? { elements: [element] } : {}) }]
          : [],
      );
    }),
  );
}

/** The buttons of a field itself are off with it. */
function ownButtons({ anatomy, space }: Component): WithinMark[] {
  const axis = space.axes.findIndex(({ id }) => id === 'availability');
  const value = space.axes[axis]?.indexOf.get('disabled');
  if (!anatomy.control || value === undefined) return [];
  const disabled = space.full.map((full, index) => (index === axis ? 1 << value : full));
  const where = space.readable(space.allowedIn(disabled));
  return anatomy.parts.flatMap(({ name, kind, nested }) =>
    kind.kind === 'action' && nested === null ? [{ part: name, attribute: 'disabled', text: '', where }] : [],
  );
}

/** What a nested button follows of the field around it: whether it can be used. */
function withinMarks({ space }: Component, { name, component, reading, repeat }: Nested): WithinMark[] {
  const { bearer } = component.anatomy;
  const axis = component.space.axes.find(({ id }) => id === 'availability');
  const value = axis?.indexOf.get('disabled');
  if (!bearer || repeat !== null || value === undefined) return [];
  const place = component.space.axisIndex('availability');
  if (reading.isFree(place)) return [];
  const disabled = component.space.full.map((full, index) => (index === place ? 1 << value : full));
  const where = space.readable(
    space.extents.and(space.allowed, reading.where(component.space.allowedIn(disabled))),
  );
  return [{ part: `${name}/${bearer.name}`, attribute: 'disabled', text: '', where }];
}

/** The part around a part, and those behind it there, as they stand in the markup. */
function insertionPointOf({ anatomy }: Component, part: Part): InsertionPoint {
  const outer = anatomy.outer(part)!;
  const at = outer.children.indexOf(part);
  return { outer: outer.name, behind: outer.children.slice(at + 1).map(({ name }) => name) };
}

const nodesOf = (node: FieldNode): FieldNode[] => [
  node,
  ...node.children.flatMap(child => (typeof child === 'string' ? [] : nodesOf(child))),
];

/** What a script knows of a field by itself: not its list, and ends only where its value has them. */
function isKnown({ document }: Component, name: string): boolean {
  const { least, most } = document.behaviour?.value ?? {};
  if (name === 'value.least') return least !== undefined;
  if (name === 'value.most') return most !== undefined;
  return Object.hasOwn(TEMPLATE_WORDS, name) && name !== 'list.length';
}

/** Texts that follow from what is entered, and from nothing that only an application knows. */
function templatesOf(system: System, component: Component, sample: SampleDocument | undefined): Template[] {
  return component.anatomy.parts.flatMap(part => {
    const key = part.kind.kind === 'control' ? null : sampleKeyOf(component, part.name);
    // What a nested component says of its own key holds where nobody gives it another.
    const holder =
      part.nested !== null && key === null ? componentAt(component.nested, part.nested) : component;
    const own = holder.anatomy.byName.get(holder === component ? part.name : part.name.split('/').at(-1)!);
    const declared = holder.document.content?.find(({ id }) => id === (key ?? own?.content));
    const template = declared?.text ?? '';
    const named = namedIn(template);
    const isOurs = named.length > 0 && named.every(name => isKnown(component, name));
    if (!isOurs) return [];
    const html = htmlOf(system, component, part, {
      ...sample?.content,
      ...(key === null ? {} : { [key]: ' ' }),
    });
    return html === null ? [] : [{ part: part.name, template, html, ...insertionPointOf(component, part) }];
  });
}

/** Parts that a sample shows in another way by a state that the machine decides on, but for what is said of the entry. */
function facesOf(system: System, component: Component, sample: SampleDocument | undefined): Face[] {
  const said = messageKeys(component);
  return component.anatomy.parts.flatMap((part): Face[] => {
    const key = part.kind.kind === 'control' ? null : sampleKeyOf(component, part.name);
    const written = key === null || said.includes(key) ? undefined : sample?.content[key];
    if (!isObject(written)) return [];
    const place = component.space.axes.findIndex(
      ({ id, kind, values }) =>
        kind === 'state' && DECIDED.includes(id) && values.some(each => Object.hasOwn(written, each.id)),
    );
    if (place < 0 || !component.anatomy.outer(part)) return [];
    const { values } = component.space.axes[place]!;
    const html = values.map(({ id }) => {
      const text = (written as Record<string, unknown>)[id];
      return typeof text === 'string' && text !== ''
        ? htmlOf(system, component, part, { ...sample?.content, [key!]: text })
        : null;
    });
    return [{ part: part.name, axis: place, html, ...insertionPointOf(component, part) }];
  });
}

/** Axes by which a machine, and nobody else, changes what a part shows. */
const DECIDED: readonly string[] = ['validity', 'secret', 'disclosure', 'range'];

function htmlOf(
  system: System,
  component: Component,
  part: Part,
  content: SampleDocument['content'],
): string | null {
  const { space } = component;
  const tree = fieldTree({
    component,
    names: namesOf(system).component(component.id),
    icons: system.icons,
    sample: { id: 'shipped', content },
    combination: space.written(space.settled(space.indices({ content: 'filled' })).combination),
    mode: 'shipped',
    id: ID,
  });
  const found = nodesOf(tree).find(node => node.part === part.name);
  return found ? fieldHtml(found) : null;
}

/** Boxes that show a code: the component that is repeated, and its text. */
function boxesOf(system: System, component: Component): Boxes | null {
  const names = namesOf(system).component(component.id);
  const box = component.nested.find(
    ({ repeat, component: { anatomy }, component: nested }) =>
      repeat !== null && !isReached(nested) && !anatomy.bearer,
  );
  const character = box?.component.anatomy.parts.find(({ kind }) => kind.kind === 'text');
  if (!box || !character) return null;
  const turn = box.component.space.axes.find(({ id }) => id === 'turn');
  const other = turn?.values.find(({ id }) => id !== 'current')?.id;
  return {
    box: `${box.name}/${box.component.anatomy.root.name}`,
    character: `${box.name}/${character.name}`,
    turn:
      turn && other !== undefined
        ? { attribute: names.axis(`${box.name}/turn`), here: 'current', other }
        : null,
  };
}
