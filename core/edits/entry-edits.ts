import type { Component } from '../components/component';
import type { System } from '../components/system';
import { originAt } from '../derivation/origin';
import {
  LIST_ENTRIES,
  LISTS,
  type ComponentDocument,
  type WithoutList,
  type WrittenComponent,
} from '../documents/component-document';
import type { Documents } from '../documents/document-kinds';
import { NAME_KINDS } from '../documents/names';
import { pointer, pointerSteps } from '../json/json';
import {
  CannotRestructure,
  familyOf,
  renameEverywhere,
  noSuch,
  refuseName,
  theComponent,
  withWritten,
  writtenOf,
  type StructuralEdit,
} from './restructure';

/** Lists of a component whose entries are made, changed, ordered and taken out alike. */
export const ENTRY_LISTS = (Object.keys(LISTS) as WithoutList[]).filter(
  (list): list is EntryList => list !== 'axes' && list !== 'rules',
);

export type EntryList = Exclude<WithoutList, 'axes' | 'rules'>;
export type EntryOf<List extends EntryList> = NonNullable<ComponentDocument[List]>[number];
interface AnyEntry {
  readonly id?: string;
}

/** Adds an entry, behind the component's own or at a place among these. */
export const addEntry =
  <List extends EntryList>(id: string, list: List, entry: EntryOf<List>, at?: number): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    if (entry.id !== undefined) refuseEntryId(system, component, list, entry.id);
    const own = ownEntries(component, list);
    return withEntries(system, system.documents, component, list, own.toSpliced(at ?? own.length, 0, entry));
  };

/** Replaces the entry at a place of the whole list by what it is to be; in a derived component that departs from its base. */
export const changeEntry =
  <List extends EntryList>(id: string, list: List, index: number, entry: EntryOf<List>): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const before = theEntry(component, list, index);
    if (before.id !== undefined && before.id !== entry.id)
      throw new CannotRestructure(`“${before.id}” is renamed by itself, so that all that names it follows.`);
    const at = ownIndex(system, component, list, index);
    const own = ownEntries(component, list);
    if (at !== null) return withEntries(system, system.documents, component, list, own.with(at, entry));
    const { documents, key } = nameInBase(system, component, list, index);
    return withEntries(system, documents, component, list, [...own, { ...entry, id: key }]);
  };

/** Takes an entry out: its own, or, of its base's, by leaving that out. What names it follows. */
export const removeEntry =
  (id: string, list: EntryList, index: number): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const entry = theEntry(component, list, index);
    const at = ownIndex(system, component, list, index);
    const kind = LIST_ENTRIES[list];
    const of = new Set(familyOf(system, id).map(each => each.id));
    const isOfBase = entry.id !== undefined && isOfBaseList(component, list, entry.id);
    if (at !== null && !isOfBase) {
      const own = ownEntries(component, list).toSpliced(at, 1);
      const documents = withEntries(system, system.documents, component, list, own);
      if (entry.id === undefined) return documents;
      return renameEverywhere(system, documents, { of, changes: [{ kind, name: entry.id, to: null }] });
    }
    const { documents, key } = nameInBase(system, component, list, index);
    const left = renameEverywhere(system, documents, { of, changes: [{ kind, name: key, to: null }] });
    const written = left.get(system.fileOf.get(id)!) as WrittenComponent;
    const without = { ...written.without, [list]: [...(written.without?.[list] ?? []), key] };
    return withWritten(system, left, component, { ...written, without });
  };

/** Has an entry of a derived component follow its base again. */
export const returnEntry =
  (id: string, list: EntryList, index: number): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const entry = theEntry(component, list, index);
    const at = ownIndex(system, component, list, index);
    if (at === null || entry.id === undefined || !isOfBaseList(component, list, entry.id))
      throw new CannotRestructure('It departs from nothing.');
    return withEntries(
      system,
      system.documents,
      component,
      list,
      ownEntries(component, list).toSpliced(at, 1),
    );
  };

/** Moves an entry of the component's own to another place among these. */
export const moveEntry =
  (id: string, list: EntryList, index: number, to: number): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const entry = theEntry(component, list, index);
    const at = ownIndex(system, component, list, index);
    if (at === null)
      throw new CannotRestructure(`“${entry.id ?? ''}” comes from the base, whose order holds here too.`);
    const own = ownEntries(component, list);
    const place = Math.min(Math.max(0, to), own.length - 1);
    return withEntries(
      system,
      system.documents,
      component,
      list,
      own.toSpliced(at, 1).toSpliced(place, 0, own[at]!),
    );
  };

/** Gives an entry, or a rule, another id, wherever it is named. */
export const renameEntry =
  (id: string, list: EntryList | 'rules', name: string, to: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const kind = LIST_ENTRIES[list];
    const known = idsOf(component.document, list);
    if (!known.includes(name)) throw noSuch(kind, name, known);
    if (component.derivation && idsOf(component.derivation.base, list).includes(name))
      throw new CannotRestructure(
        `“${name}” comes from “${component.derivation.bases[0]!.id}” and is named there.`,
      );
    refuseEntryId(system, component, list, to);
    const of = new Set(familyOf(system, id).map(each => each.id));
    return renameEverywhere(system, system.documents, { of, changes: [{ kind, name, to }] });
  };

const idsOf = (document: ComponentDocument, list: EntryList | 'rules'): string[] =>
  ((document[list] ?? []) as readonly AnyEntry[]).flatMap(({ id }) => id ?? []);

function refuseEntryId(system: System, component: Component, list: EntryList | 'rules', id: string): void {
  const taken = familyOf(system, component.id).flatMap(({ document }) => idsOf(document, list));
  refuseName(`a ${NAME_KINDS[LIST_ENTRIES[list]]}`, id, taken);
}

function theEntry<List extends EntryList>({ document }: Component, list: List, index: number): AnyEntry {
  const entry = (document[list] as readonly AnyEntry[] | undefined)?.[index];
  if (!entry) throw new CannotRestructure(`There is no ${LIST_ENTRIES[list]} at place ${index + 1}.`);
  return entry;
}

const ownEntries = (component: Component, list: EntryList): readonly AnyEntry[] =>
  (writtenOf(component)[list] ?? []) as readonly AnyEntry[];

const isOfBaseList = ({ derivation }: Component, list: EntryList, id: string): boolean =>
  derivation !== null && idsOf(derivation.base, list).includes(id);

/** Where an entry stands in the component's own document; `null` where it was written elsewhere. */
function ownIndex(system: System, component: Component, list: EntryList, index: number): number | null {
  if (!component.derivation) return index;
  const { file, pointer: at } = originAt(component.derivation.origin, pointer(list, index));
  return file === system.fileOf.get(component.id) ? Number(pointerSteps(at)![1]) : null;
}

/** The id of a base's entry; a limit without one is given one there, so that others can refer to it. */
function nameInBase(
  system: System,
  component: Component,
  list: EntryList,
  index: number,
): { readonly documents: Documents; readonly key: string } {
  const { id } = theEntry(component, list, index);
  if (id !== undefined) return { documents: system.documents, key: id };
  const { file, pointer: at } = originAt(component.derivation!.origin, pointer(list, index));
  const place = Number(pointerSteps(at)![1]);
  const written = system.documents.get(file) as WrittenComponent;
  const taken = new Set(system.components.flatMap(({ document }) => idsOf(document, list)));
  let number = place + 1;
  while (taken.has(`${LIST_ENTRIES[list]}-${number}`)) number++;
  const key = `${LIST_ENTRIES[list]}-${number}`;
  const entries = written[list] as readonly AnyEntry[];
  const named = { ...written, [list]: entries.with(place, { id: key, ...entries[place] }) };
  return { documents: new Map(system.documents).set(file, named), key };
}

const withEntries = (
  system: System,
  documents: Documents,
  component: Component,
  list: EntryList,
  entries: readonly AnyEntry[],
): Documents => {
  const written = documents.get(system.fileOf.get(component.id)!) as WrittenComponent;
  return withWritten(system, documents, component, { ...written, [list]: entries });
};
