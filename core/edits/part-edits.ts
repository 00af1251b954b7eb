import type { Part } from '../components/anatomy/part';
import type { Anatomy } from '../components/anatomy/anatomy';
import { partKind } from '../documents/part-kinds';
import type { Component } from '../components/component';
import { componentNamed, type System } from '../components/system';
import type { AnatomyEditDocument, PartDocument } from '../documents/part-document';
import type { Documents } from '../documents/document-kinds';
import { isObject, isSameJson } from '../json/json';
import type { WrittenComponent } from '../documents/component-document';
import type { Anchors, PartPlace } from './renamed-names';
import { mapEntries, withMember } from '../json/change-members';
import { type NameChange } from './renamed-names';
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

/** What of a part can be changed where it stands; `null` takes a member out. */
export type PartChange = {
  readonly [Member in Exclude<keyof PartDocument, 'part' | 'children'>]?: PartDocument[Member] | null;
};

/** Puts a part in, with what is in it. */
export const insertPart =
  (id: string, part: PartDocument, place: PartPlace): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    for (const { part: name } of allParts(part)) refusePartName(system, component, name);
    return edited(system, component, { insert: part, ...checkedPlace(component, place) });
  };

/** Moves a part, with what is in it. */
export const movePart =
  (id: string, name: string, place: PartPlace): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const part = movable(component, name);
    const target = ownPart(component, Object.values(place)[0] as string);
    if (within(part).includes(target)) throw new CannotRestructure(`“${name}” cannot be moved into itself.`);
    return edited(system, component, { move: name, ...checkedPlace(component, place) });
  };

/** Puts a box around parts that stand beside one another. */
export const wrapParts =
  (id: string, names: readonly string[], box: PartDocument): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    refusePartName(system, component, box.part);
    if (!partKind(box.kind)?.box)
      throw new CannotRestructure('What is put around parts is a row or a stack.');
    const outer = names.map(name => component.anatomy.outer(movable(component, name)));
    if (names.length === 0 || outer.some(each => each !== outer[0]))
      throw new CannotRestructure('Only parts that stand beside one another can be wrapped together.');
    return edited(system, component, { wrap: names, in: box });
  };

/** Takes a box away and leaves what is in it, in its place. */
export const unwrapPart =
  (id: string, name: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const part = movable(component, name);
    if (!part.kind.box || part.nested !== null)
      throw new CannotRestructure(`“${name}” is no box: there is nothing to take out of it.`);
    const documents = component.derivation
      ? unwrappedHere(system, component, part)
      : withTree(system, component, tree => mapPart(tree, name, box => box.children ?? []));
    return gone(system, documents, component, [part]);
  };

/** Takes a box away in a derived component: one that it has put in itself, or its base's, out of which all is moved. */
function unwrappedHere(system: System, component: Component, part: Part): Documents {
  const name = writtenName(part);
  const written = writtenOf(component);
  const edits = written.anatomyEdits ?? [];
  const inserting = edits.findIndex(({ insert, by }) => hasPart(insert, name) || hasPart(by, name));
  const wrapping = edits.find(edit => edit.wrap && edit.in?.part === name);
  if (inserting >= 0) {
    const left = flattened(edits[inserting]!, name);
    const anatomyEdits = edits.toSpliced(inserting, 1, ...left);
    return withWritten(system, system.documents, component, { ...written, anatomyEdits });
  }
  if (wrapping?.in?.children?.length)
    throw new CannotRestructure(
      `“${name}” was put around parts with parts of its own: move those out first.`,
    );
  if (wrapping) return system.documents;
  const moves = part.children.map(child => ({ move: writtenName(child), before: name }));
  return appended(system, component, system.documents, [...moves, { remove: name }]);
}

/** An edit that inserts a box, or one within what it inserts, with what is in that box instead. */
function flattened(edit: AnatomyEditDocument, name: string): AnatomyEditDocument[] {
  const key = edit.insert ? 'insert' : 'by';
  const part = edit[key]!;
  if (part.part !== name) return [{ ...edit, [key]: mapPart(part, name, box => box.children ?? []) }];
  const { insert: _, by: __, replace, ...where } = edit;
  const children = part.children ?? [];
  if (replace !== undefined) {
    const inserts = children.map(child => ({ insert: child, before: replace }));
    return [...inserts, { remove: replace }];
  }
  return children.map((child, index) => {
    const ahead = children[index - 1];
    return { insert: child, ...(where.after !== undefined && ahead ? { after: ahead.part } : where) };
  });
}

const hasPart = (tree: PartDocument | undefined, name: string): boolean =>
  tree !== undefined && allParts(tree).some(({ part }) => part === name);

/** Takes a part out, with what is in it and all that is said of it. */
export const removePart =
  (id: string, name: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const going = within(movable(component, name));
    const documents = gone(system, system.documents, component, going);
    const names = new Set(going.map(writtenName));
    const base = component.derivation && componentNamed(system, component.derivation.bases[0]!.id);
    if (!base) return documents;
    // What is the base's is there again once nothing else is said of it.
    const removed = [...names].filter(each => {
      const part = base.anatomy.byName.get(each);
      const outer = part && base.anatomy.outer(part);
      return part && !insertedHere(component, each) && !(outer && names.has(writtenName(outer)));
    });
    return appended(
      system,
      component,
      documents,
      removed.map(each => ({ remove: each })),
    );
  };

/** Gives a part another name, wherever it is spoken of. */
export const renamePart =
  (id: string, name: string, to: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    ownPart(component, name);
    if (component.derivation && !insertedHere(component, name)) throw fromBase(component, name);
    refusePartName(system, component, to);
    const of = new Set(familyOf(system, id).map(each => each.id));
    return renameEverywhere(system, system.documents, { of, changes: [{ kind: 'part', name, to }] });
  };

/** Changes what a part is and says of itself. */
export const changePart =
  (id: string, name: string, to: PartChange): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const part = ownPart(component, name);
    if (to.kind && part.children.length > 0 && part.nested === null && !partKind(to.kind)?.box)
      throw new CannotRestructure(
        `“${name}” holds parts; a ${to.kind} holds none. Move them out first, or take the box away.`,
      );
    return edited(system, component, { change: name, to: to as NonNullable<AnatomyEditDocument['to']> });
  };

/** Has a part of a derived component follow its base again: what differs in the part itself goes, not what is in it. */
export const returnPart =
  (id: string, name: string): StructuralEdit =>
  system => {
    const component = theComponent(system, id);
    const written = writtenOf(component);
    if (!component.derivation) throw new CannotRestructure(`“${component.title}” has no base to return to.`);
    const edits = written.anatomyEdits?.filter(
      edit => edit.change !== name && edit.move !== name && edit.remove !== name,
    );
    const rules = mapEntries(written.rules ?? [], rule => {
      const isOverlay = rule.when === undefined && rule.set && Object.hasOwn(rule.set, name);
      if (!isOverlay) return rule;
      const { [name]: _, ...set } = rule.set!;
      return Object.keys(set).length === 0 && rule.note === undefined ? null : { ...rule, set };
    });
    return withWritten(system, system.documents, component, {
      ...written,
      ...(edits ? { anatomyEdits: edits } : {}),
      ...(written.rules ? { rules } : {}),
    });
  };

/** Where a part of a component comes from. */
export type PartSource = 'own' | 'base' | 'changed' | 'added';

/** Whether a part is the component's own, of its base as it is, changed from that, or added here. */
export function partSource(component: Component, name: string): PartSource {
  if (!component.derivation) return 'own';
  if (insertedHere(component, name)) return 'added';
  const written = writtenOf(component);
  const isEdited = written.anatomyEdits?.some(edit => edit.change === name || edit.move === name);
  const isOverlaid = written.rules?.some(rule => rule.when === undefined && rule.set?.[name]);
  return isEdited || isOverlaid ? 'changed' : 'base';
}

const allParts = (part: PartDocument): PartDocument[] => [part, ...(part.children ?? []).flatMap(allParts)];

/** A part of the component itself, not of one nested in it; a part that uses another counts. */
function ownPart({ anatomy }: Component, name: string): Part {
  const part = name.includes('/') ? undefined : anatomy.byName.get(name);
  if (part && !part.pseudo) return part;
  throw noSuch('part', name, ownNames(anatomy));
}

/** The name of a part in the component's own document: that of a nested root is the name of the part that uses it. */
export const writtenName = (part: Part): string => part.nested ?? part.name;

const ownNames = (anatomy: Anatomy): string[] => [
  ...new Set(anatomy.parts.filter(part => !writtenName(part).includes('/')).map(part => writtenName(part))),
];

function movable(component: Component, name: string): Part {
  const part = ownPart(component, name);
  if (part === component.anatomy.root)
    throw new CannotRestructure('The outermost part stays where it is; change it, or what is in it.');
  return part;
}

function checkedPlace(component: Component, place: PartPlace): PartPlace {
  const [[key, name]] = Object.entries(place) as [[string, string]];
  const target = ownPart(component, name);
  if (key === 'into' && (!target.kind.box || target.nested !== null))
    throw new CannotRestructure(`“${name}” holds no parts; put it beside it.`);
  if (key !== 'into' && target === component.anatomy.root)
    throw new CannotRestructure('Nothing stands beside the outermost part; put it into it.');
  return place;
}

/** A part and all in it, nested ones by the part that uses them. */
const within = (part: Part): Part[] => [part, ...(part.nested === null ? part.children.flatMap(within) : [])];

function refusePartName(system: System, component: Component, name: string): void {
  const taken = familyOf(system, component.id).flatMap(({ anatomy }) => ownNames(anatomy));
  refuseName('a part', name, taken);
}

const fromBase = ({ derivation }: Component, name: string): CannotRestructure =>
  new CannotRestructure(`“${name}” comes from “${derivation!.bases[0]!.id}” and is named there.`);

/** Whether a derived component itself has put a part in. */
function insertedHere(component: Component, name: string): boolean {
  return (writtenOf(component).anatomyEdits ?? []).some(edit =>
    [edit.insert, edit.by, edit.in].some(part => hasPart(part, name)),
  );
}

/** Makes one edit of the tree: in the tree itself, or among what a derived component says of its base's. */
function edited(system: System, component: Component, edit: AnatomyEditDocument): Documents {
  if (component.derivation) return appended(system, component, system.documents, [edit]);
  return withTree(system, component, tree => inTree(tree, edit));
}

function withTree(
  system: System,
  component: Component,
  change: (tree: PartDocument) => PartDocument,
): Documents {
  const written = writtenOf(component);
  if (!written.anatomy) return system.documents;
  return withWritten(system, system.documents, component, { ...written, anatomy: change(written.anatomy) });
}

/** Replaces a part of a tree by any number of others. */
function mapPart(
  tree: PartDocument,
  name: string,
  change: (part: PartDocument) => readonly PartDocument[],
): PartDocument {
  if (tree.part === name) return change(tree)[0] ?? tree;
  return withMember(tree, 'children', children => {
    const next = children.flatMap(child =>
      child.part === name ? change(child) : [mapPart(child, name, change)],
    );
    if (next.length === children.length && next.every((child, index) => child === children[index]))
      return children;
    return next.length === 0 ? undefined : next;
  });
}

function inTree(tree: PartDocument, edit: AnatomyEditDocument): PartDocument {
  if (edit.insert) return placed(tree, edit.insert, edit);
  if (edit.move !== undefined) {
    const part = allParts(tree).find(each => each.part === edit.move)!;
    return placed(
      mapPart(tree, edit.move, () => []),
      part,
      edit,
    );
  }
  if (edit.wrap) {
    const names = new Set(edit.wrap);
    const around = (part: PartDocument): PartDocument => {
      const children = part.children ?? [];
      const inside = children.filter(child => names.has(child.part));
      if (inside.length === 0)
        return withMember(part, 'children', list => mapEntries(list, child => around(child)));
      const box = { ...edit.in!, children: [...(edit.in!.children ?? []), ...inside] };
      const next = children.flatMap(child =>
        child === inside[0] ? [box] : names.has(child.part) ? [] : [child],
      );
      return { ...part, children: next };
    };
    return around(tree);
  }
  return mapPart(tree, edit.change!, part => [changed(part, edit.to!)]);
}

function placed(
  tree: PartDocument,
  part: PartDocument,
  { before, after, into }: AnatomyEditDocument,
): PartDocument {
  if (into !== undefined)
    return mapPart(tree, into, box => [{ ...box, children: [...(box.children ?? []), part] }]);
  if (before !== undefined) return mapPart(tree, before, each => [part, each]);
  return mapPart(tree, after!, each => [each, part]);
}

/** `with` and `content` go by key, `null` takes out. */
function changed(part: PartDocument, to: Readonly<Record<string, unknown>>): PartDocument {
  const next: Record<string, unknown> = { ...part };
  for (const [key, value] of Object.entries(to)) {
    const before = next[key];
    if (value === null) delete next[key];
    else if (isObject(before) && isObject(value)) {
      const both = Object.entries({ ...before, ...value }).filter(([, each]) => each !== null);
      if (both.length === 0) delete next[key];
      else next[key] = Object.fromEntries(both);
    } else next[key] = value;
  }
  return next as unknown as PartDocument;
}

/**
 * Adds edits to what a derived component says of its base's anatomy. What concerns a part that it has put in itself is said there, and
 * a second change of a part is laid over the first.
 */
function appended(
  system: System,
  component: Component,
  documents: Documents,
  edits: readonly AnatomyEditDocument[],
): Documents {
  const file = system.fileOf.get(component.id)!;
  const written = documents.get(file) as WrittenComponent;
  const anatomyEdits = edits.reduce<readonly AnatomyEditDocument[]>(
    (list, edit) => withEdit(list, edit),
    written.anatomyEdits ?? [],
  );
  return withWritten(system, documents, component, { ...written, anatomyEdits });
}

function withEdit(
  list: readonly AnatomyEditDocument[],
  edit: AnatomyEditDocument,
): readonly AnatomyEditDocument[] {
  // Of moves one after another the last counts.
  if (edit.move !== undefined && list.at(-1)?.move === edit.move) return list.with(-1, edit);
  if (edit.change === undefined) return [...list, edit];
  const name = edit.change;
  for (const key of ['insert', 'by', 'in'] as const) {
    const at = list.findIndex(each => each[key] && allParts(each[key]).some(({ part }) => part === name));
    if (at < 0) continue;
    const part = mapPart(list[at]![key]!, name, each => [changed(each, edit.to!)]);
    return list.with(at, { ...list[at]!, [key]: part });
  }
  const at = list.findLastIndex(each => each.change === name);
  if (at < 0) return [...list, edit];
  return list.with(at, { change: name, to: merged(list[at]!.to!, edit.to!) });
}

/** A change on top of another: here `null` stays, it takes out what the base has. */
function merged(
  before: NonNullable<AnatomyEditDocument['to']>,
  after: NonNullable<AnatomyEditDocument['to']>,
): NonNullable<AnatomyEditDocument['to']> {
  const next: Record<string, unknown> = { ...before };
  for (const [key, value] of Object.entries(after)) {
    const known = next[key];
    next[key] = isObject(known) && isObject(value) ? { ...known, ...value } : value;
  }
  return isSameJson(before, next) ? before : next;
}

/** Documents without anything that speaks of parts that are gone. */
function gone(system: System, documents: Documents, component: Component, parts: readonly Part[]): Documents {
  const names = new Set(parts.map(writtenName));
  const changes: NameChange[] = [...names].map(name => ({ kind: 'part', name, to: null }));
  const of = new Set(familyOf(system, component.id).map(each => each.id));
  return renameEverywhere(system, documents, { of, changes }, each =>
    each === component ? ownAnchors(component, names) : anchors(component.anatomy, each.anatomy, names),
  );
}

/** In the component itself a base's part goes last, after all other edits; what came beside one put in here comes where that came. */
function ownAnchors(component: Component, names: ReadonlySet<string>): Anchors {
  const edits = writtenOf(component).anatomyEdits ?? [];
  const placeFor = (name: string): PartPlace | 'stays' => {
    const edit = edits.find(({ insert, by, in: box }) => [insert, by, box].some(each => hasPart(each, name)));
    if (!edit) return 'stays';
    const place = partPlaceOf(edit);
    const beside = Object.values(place)[0] as string;
    const further = names.has(beside) ? placeFor(beside) : 'stays';
    return further === 'stays' ? place : further;
  };
  return new Map([...names].map(name => [name, placeFor(name)]));
}

/** Where an edit puts what it brings. */
const partPlaceOf = ({ before, after, into, replace, wrap }: AnatomyEditDocument): PartPlace => {
  if (wrap) return { after: wrap.at(-1)! };
  if (before !== undefined) return { before };
  if (into !== undefined) return { into };
  return { after: after ?? replace! };
};

/** Where what stood beside or in a part that is gone finds its place in another's anatomy: beside what is left, or in what was around it. */
function anchors(before: Anatomy, there: Anatomy, names: ReadonlySet<string>): Anchors {
  const stays = (part: Part): boolean => !names.has(writtenName(part)) && there.byName.has(writtenName(part));
  const placed = (name: string): PartPlace => {
    let part = before.byName.get(name)!;
    let outer = before.outer(part)!;
    while (names.has(writtenName(outer))) [part, outer] = [outer, before.outer(outer)!];
    const place = outer.children.indexOf(part);
    const ahead = outer.children.slice(0, place).findLast(stays);
    if (ahead) return { after: writtenName(ahead) };
    const behind = outer.children.slice(place + 1).find(stays);
    return behind ? { before: writtenName(behind) } : { into: writtenName(outer) };
  };
  return new Map([...names].map(name => [name, placed(name)]));
}
