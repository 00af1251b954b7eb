import type { Component } from '../components/component';
import { compileSystem, type System } from '../components/system';
import type { ComponentDocument, DerivedDocument } from '../documents/component-document';
import type { SystemDocument } from '../documents/system-document';
import type { Documents } from '../documents/document-kinds';
import type { WrittenComponent } from '../documents/component-document';
import { renamedTrials } from './renamed-documents';
import { removePart } from './part-edits';
import {
  CannotRestructure,
  renameEverywhere,
  refuseName,
  theComponent,
  withWritten,
  writtenOf,
  type StructuralEdit,
} from './restructure';

/** How a component is called and where it stands. */
export interface ComponentName {
  readonly id: string;
  readonly title: string;
  readonly group?: string;
}

/** Puts a component in, behind another in the reader's order or as the last. */
export const addComponent =
  (document: ComponentDocument | DerivedDocument, behind?: string): StructuralEdit =>
  system => {
    refuseComponentId(system, document.id);
    const documents = new Map(system.documents).set(freeFile(system, document.id), document);
    return ordered(documents, insertedBehind(idsOf(system), document.id, behind));
  };

/** Makes a component that takes everything of another and follows it. */
export const deriveFrom = (base: string, { id, title, group }: ComponentName): StructuralEdit =>
  addComponent(
    {
      format: 'periwinkle-component/1',
      id,
      title,
      ...(group === undefined ? {} : { group }),
      extends: base,
    },
    base,
  );

/** Makes a component that says what another says, and goes its own way. Its page in the guide is copied too. */
export const duplicateComponent =
  (from: string, { id, title, group }: ComponentName): StructuralEdit =>
  system => {
    const written = writtenOf(theComponent(system, from));
    const copy = { ...written, id, title, ...(group === undefined ? {} : { group }) };
    const documents = addComponent(copy as ComponentDocument, from)(system);
    const page = system.documents.get(guideFile(from));
    return page === undefined ? documents : new Map(documents).set(guideFile(id), page);
  };

/** Gives a component another id, in all documents. Its files are named after it. */
export const renameComponent =
  (from: string, to: string): StructuralEdit =>
  system => {
    const component = theComponent(system, from);
    refuseComponentId(system, to);
    const followed = renameEverywhere(system, system.documents, {
      of: null,
      changes: [{ kind: 'component', name: from, to }],
    });
    const documents = new Map(followed);
    const carry = (before: string, after: string): void => {
      const body = documents.get(before);
      if (body === undefined || before === after) return;
      documents.delete(before);
      documents.set(after, body);
    };
    carry(system.fileOf.get(component.id)!, freeFile(system, to));
    carry(guideFile(from), guideFile(to));
    const manifest = documents.get('system.json') as SystemDocument;
    const order = manifest.order?.map(id => (id === from ? to : id));
    return order ? documents.set('system.json', { ...manifest, order }) : documents;
  };

/** Who would be touched if a component were removed. */
export interface Dependents {
  /** Those that are derived from it directly. */
  readonly derived: readonly Component[];
  /** Those in which it is nested, by parts of their own. */
  readonly users: readonly { readonly component: Component; readonly parts: readonly string[] }[];
}

/** What depends on a component, where it is written. */
export function dependentsOf(system: System, id: string): Dependents {
  const derived = system.components.filter(({ derivation }) => derivation?.bases[0]?.id === id);
  const users = system.components.flatMap(component => {
    const base = component.derivation?.base;
    const parts = component.nested
      .filter(nested => nested.component.id === id)
      .map(({ name }) => name)
      .filter(name => !base || !compiledUses(system, component).has(name));
    return parts.length > 0 ? [{ component, parts }] : [];
  });
  return { derived, users };
}

/** Parts of a component's base that use others. */
const compiledUses = (system: System, { derivation }: Component): Set<string> =>
  new Set(theComponent(system, derivation!.bases[0]!.id).nested.map(({ name }) => name));

/**
 * Removes a component. What is derived from it stands for itself from then on, with all that it took written out; where it was nested,
 * the part goes.
 */
export const removeComponent =
  (id: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const { derived, users } = dependentsOf(system, id);
    let documents: Documents = system.documents;
    for (const each of derived) {
      const { extends: _, ...whole } = each.document;
      documents = withWritten(system, documents, each, withoutTraces(whole) as WrittenComponent);
    }
    for (const { component: user, parts } of users)
      for (const part of parts) documents = removePart(user.id, part)(compileSystem(documents));
    const gone = { of: null, changes: [{ kind: 'component', name: id, to: null }] } as const;
    const left = new Map(renamedTrials(system, documents, gone));
    left.delete(system.fileOf.get(component.id)!);
    left.delete(guideFile(id));
    return ordered(
      left,
      idsOf(system).filter(each => each !== id),
    );
  };

/** Whatever only a derived component says is no part of one that stands for itself. */
function withoutTraces(document: Omit<ComponentDocument, 'extends'>): Omit<ComponentDocument, 'extends'> {
  const rules = document.rules?.map(rule => {
    const { after, ...rest } = rule;
    return after?.includes('/') ? rule : rest;
  });
  return { ...document, ...(rules ? { rules } : {}) };
}

/** Puts a component behind another in the reader's order, `null` before all, and into that one's or another group. */
export const moveComponent =
  (id: string, behind: string | null, group?: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const others = idsOf(system).filter(each => each !== id);
    const order = behind === null ? [id, ...others] : insertedBehind(others, id, behind);
    const documents = ordered(system.documents, order);
    const before = component.group.join('/');
    if (group === undefined || group === before) return documents;
    return withWritten(system, documents, component, { ...writtenOf(component), group });
  };

/** Says what a component is called, what it is for, and in which group it stands. */
export const wordComponent =
  (
    id: string,
    words: { readonly title?: string; readonly summary?: string; readonly group?: string },
  ): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    if (words.title?.trim() === '') throw new CannotRestructure('A component needs a title.');
    return withWritten(system, system.documents, component, { ...writtenOf(component), ...words });
  };

const guideFile = (id: string): string => `guide/${id}.md`;
const idsOf = ({ components }: System): string[] => components.map(({ id }) => id);

function refuseComponentId(system: System, id: string): void {
  refuseName('a component', id, idsOf(system));
}

/** A path that is free for a component's document. */
function freeFile({ documents }: System, id: string): string {
  for (let number = 1; ; number++) {
    const path = `components/${number === 1 ? id : `${id}-${number}`}.component.json`;
    if (!documents.has(path)) return path;
  }
}

const insertedBehind = (ids: readonly string[], id: string, behind: string | undefined): string[] => {
  const at = behind === undefined ? -1 : ids.indexOf(behind);
  return ids.toSpliced(at < 0 ? ids.length : at + 1, 0, id);
};

function ordered(documents: Documents, order: readonly string[]): Documents {
  const manifest = documents.get('system.json') as SystemDocument;
  return new Map(documents).set('system.json', { ...manifest, order });
}
