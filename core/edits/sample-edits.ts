import { contentKeys } from '../components/content-keys';
import type { Component } from '../components/component';
import type { System } from '../components/system';
import { axisOfValues } from '../components/content/sample-text';
import type { SampleDocument } from '../documents/component-document';
import { isObject, isSameJson } from '../json/json';
import type { Combination } from '../space/space';
import { changeEntry } from './entry-edits';
import {
  CannotRestructure,
  inTurn,
  theComponent,
  withWritten,
  writtenOf,
  type StructuralEdit,
} from './restructure';

type Content = SampleDocument['content'];

/**
 * Samples are written with the component that they are drawn with. Those of one id in the components of a group are one set: what they say alike is
 * written once and follows in all of them. A derived component that has a sample from its base alone departs by writing.
 */
export const sharersOf = (system: System, component: Component, sample: string): readonly Component[] =>
  ownSample(component, sample) === undefined
    ? []
    : system.components.filter(
        other =>
          other.id !== component.id &&
          isSameGroup(other, component) &&
          ownSample(other, sample) !== undefined,
      );

/** Components of the group that a sample could be given to. */
export const sharableWith = (system: System, component: Component, sample: string): readonly Component[] =>
  system.components.filter(
    other =>
      other.id !== component.id &&
      isSameGroup(other, component) &&
      !other.samples.some(({ id }) => id === sample) &&
      Object.keys(heldBy(other, theSample(component, sample).content)).length > 0,
  );

const isSameGroup = (a: Component, b: Component): boolean =>
  a.group.length > 0 && a.group.join('/') === b.group.join('/');

/** A sample that a component does not merely have from its base. */
const ownSample = ({ document, derivation }: Component, id: string): SampleDocument | undefined =>
  (derivation ? (derivation.own.samples ?? []) : (document.samples ?? [])).find(each => each.id === id);

function theSample(component: Component, id: string): SampleDocument {
  const found = (component.document.samples ?? []).find(each => each.id === id);
  if (!found) throw new CannotRestructure(`There is no sample “${id}” in “${component.id}”.`);
  return found;
}

/** Gives a sample another content for one key, `undefined` for none; where others of its set said the same, there too. */
export const writeContent =
  (id: string, sample: string, key: string, content: unknown): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theSample(component, sample).content[key];
    const alike = sharersOf(system, component, sample).filter(other =>
      isSameJson(theSample(other, sample).content[key], before),
    );
    const within = [component, ...alike].filter(
      each => each === component || content === undefined || fits(each, key, content),
    );
    return inTurn(...within.map(each => putContent(each, sample, key, content)))(system);
  };

const putContent = (component: Component, sample: string, key: string, content: unknown): StructuralEdit => {
  const index = component.document.samples!.findIndex(each => each.id === sample);
  const before = theSample(component, sample);
  const { [key]: _, ...rest } = before.content;
  const next = (content === undefined ? rest : { ...before.content, [key]: content }) as Content;
  return changeEntry(component.id, 'samples', index, { ...before, content: next });
};

/**
 * Writes the text that a sample gives for a key in a combination: where it differs by an axis, that of the value there. Empty text is none.
 */
export const writeText =
  (id: string, sample: string, key: string, text: string, combination: Combination): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theSample(component, sample).content[key] as unknown;
    if (Array.isArray(before)) throw new CannotRestructure(`“${key}” is a list.`);
    if (!isObject(before)) return writeContent(id, sample, key, text === '' ? undefined : text)(system);
    const axis = axisOfValues(Object.keys(before), component.space.axes);
    const value = axis && combination[axis.id];
    if (value === undefined) throw new CannotRestructure(`“${key}” has no text here.`);
    const { [value]: _, ...others } = before;
    return writeContent(id, sample, key, text === '' ? others : { ...before, [value]: text })(system);
  };

/** Gives a sample to other components of the group, with what they have a key for; what is derived from one of them has it from there. */
export const shareSample =
  (id: string, sample: string, others: readonly string[]): StructuralEdit =>
  system => {
    const { title, content } = theSample(theComponent(system, id), sample);
    const named = title === undefined ? { id: sample } : { id: sample, title };
    return others
      .map(other => theComponent(system, other))
      .filter(({ derivation }) => !derivation?.bases.some(base => others.includes(base.id)))
      .reduce((documents, other) => {
        const written = writtenOf(other);
        const samples = [...(written.samples ?? []), { ...named, content: heldBy(other, content) }];
        return withWritten(system, documents, other, { ...written, samples });
      }, system.documents);
  };

/** What of a content a component has keys for. */
const heldBy = (component: Component, content: Content): Content => {
  const known = new Set(contentKeys(component));
  return Object.fromEntries(
    Object.entries(content).filter(([key, given]) => known.has(key) && fits(component, key, given)),
  ) as Content;
};

/** Whether a component could say something of a key: a text, or one for each value of an axis that it has. */
function fits({ space, document }: Component, key: string, given: unknown): boolean {
  const isList = document.content?.find(each => each.id === key)?.kind === 'list';
  if (Array.isArray(given) || isList) return Array.isArray(given) && isList;
  if (!isObject(given)) return true;
  const values = Object.keys(given);
  return space.axes.some(axis => values.every(value => axis.indexOf.has(value)));
}
