import type { Component } from '../components/component';
import { compileSystem, componentNamed, type System } from '../components/system';
import type { Documents } from '../documents/document-kinds';
import { differenceOf } from '../patch/difference';
import type { PatchOperation } from '../patch/operations';
import { oneOf } from '../json/problem';
import { nearest } from '../text/suggestions';
import { type WrittenComponent } from '../documents/component-document';
import { renamedComponent, renamedTrials } from './renamed-documents';
import type { Anchors, NameChange, NameLookup } from './renamed-names';

/** An edit of how something is made: gives all documents as it leaves them. Throws `CannotRestructure`. */
export type StructuralEdit = (system: System) => Documents;

/** An edit that cannot be made, and why, for whoever wants to make it. */
export class CannotRestructure extends Error {}

/** A patch of one document; one that is not there is `null`. */
export interface DocumentPatch {
  readonly path: string;
  readonly patch: readonly PatchOperation[];
}

/** The patches that lead from some documents to others. */
export function patchesBetween(before: Documents, after: Documents): DocumentPatch[] {
  const paths = [...new Set([...before.keys(), ...after.keys()])].sort();
  return paths
    .filter(path => before.get(path) !== after.get(path))
    .map(path => ({ path, patch: differenceOf(before.get(path) ?? null, after.get(path) ?? null) }))
    .filter(({ patch }) => patch.length > 0);
}

/** The component of an id. Throws where there is none. */
export function theComponent(system: System, id: string): Component {
  const found = componentNamed(system, id);
  if (found) return found;
  const ids = system.components.map(each => each.id);
  const likely = nearest(id, ids);
  throw new CannotRestructure(
    `There is no component “${id}”${likely === undefined ? '' : `; did you mean “${likely}”?`}.`,
  );
}

/** A component and all that are derived from it, however indirectly. */
export const familyOf = (system: System, id: string): Component[] =>
  system.components.filter(each => each.id === id || each.derivation?.bases.some(base => base.id === id));

/** The document that a component is written in. */
export const writtenOf = ({ derivation, document }: Component): WrittenComponent =>
  (derivation?.own ?? document) as WrittenComponent;

/** Puts a changed document in the place of a component's. */
export const withWritten = (
  system: System,
  documents: Documents,
  component: Component,
  document: WrittenComponent,
): Documents => new Map(documents).set(system.fileOf.get(component.id)!, document);

/**
 * Documents in which everything is named as it is called by now. `system` is as names were before; `documents` may have been changed
 * already. What has nothing left to say goes too, and with it what named that.
 */
export function renameEverywhere(
  system: System,
  documents: Documents,
  names: NameLookup,
  anchorsOf: (component: Component) => Anchors | undefined = () => undefined,
): Documents {
  if (names.changes.length === 0 && !names.narrowing) return documents;
  const result = new Map(renamedTrials(system, documents, names));
  const lost: { readonly component: Component; readonly gone: readonly NameChange[] }[] = [];
  for (const component of system.components) {
    const file = system.fileOf.get(component.id)!;
    const written = documents.get(file) as WrittenComponent | undefined;
    if (!written) continue;
    const { document, gone } = renamedComponent(system, component, written, names, anchorsOf(component));
    result.set(file, document);
    if (gone.length > 0) lost.push({ component, gone });
  }
  // What stays has the same names as before.
  return lost.reduce<Documents>((now, { component, gone }) => {
    const of = new Set(familyOf(system, component.id).map(each => each.id));
    return renameEverywhere(system, now, { of, changes: gone });
  }, result);
}

const NAME = /^[A-Za-z][A-Za-z0-9_-]{0,63}$/;

/** Refuses a name that cannot be one, or that something has already. */
export function refuseName(what: string, name: string, taken: Iterable<string>): void {
  if (!NAME.test(name) || name.includes('--'))
    throw new CannotRestructure(
      `“${name.slice(0, 40)}” cannot be the name of ${what}: it begins with a letter and goes on with letters, digits, - and _, 64 at most, no two - in a row.`,
    );
  if ([...taken].includes(name)) throw new CannotRestructure(`There is ${what} “${name}” already.`);
}

/** Says that there is no such thing, and what there is. */
export const noSuch = (what: string, name: string, known: readonly string[]): CannotRestructure =>
  new CannotRestructure(
    known.length === 0
      ? `There is no ${what} “${name}”.`
      : `There is no ${what} “${name}”; there is ${oneOf(known, 12)}.`,
  );

/** Edits one after another as one; each sees what those before it have left. */
export const inTurn =
  (...edits: readonly StructuralEdit[]): StructuralEdit =>
  system =>
    edits.reduce(
      (now, edit) => edit(now === system.documents ? system : compileSystem(now)),
      system.documents,
    );
