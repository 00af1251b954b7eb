import { documentKind, type Documents } from '../documents/document-kinds';
import { isObject, isSameJson } from '../json/json';
import { COMPONENT_LISTS, type ComponentList, type WrittenComponent } from '../documents/component-document';

/** What an edit does to one component's document, counted: entries that say something else, and entries that are gone. */
export interface TouchedComponent {
  readonly id: string;
  readonly title: string;
  /** Whether the component itself is new or gone. */
  readonly fate: 'changed' | 'made' | 'removed' | 'renamed';
  readonly lists: readonly TouchedList[];
}

interface TouchedList {
  readonly list: ComponentList;
  readonly changed: number;
  readonly gone: number;
}

/** What lies between two states of a system, component by component. */
export function touchedBetween(before: Documents, after: Documents): TouchedComponent[] {
  const paths = [...new Set([...before.keys(), ...after.keys()])].sort();
  const changed = paths.flatMap(path => {
    if (documentKind(path)?.kind !== 'component' || before.get(path) === after.get(path)) return [];
    return [{ was: componentAt(before, path), is: componentAt(after, path) }];
  });
  // Under another path and id it is the same component.
  const renamed = changed.filter(({ was, is }) => !was && is && changed.some(each => isRenamed(each, is)));
  return changed.flatMap(({ was, is }): TouchedComponent[] => {
    if (was && !is && renamed.some(each => isRenamed({ was, is }, each.is!))) return [];
    const { id, title } = (is ?? was)!;
    const named = { id, title: title ?? id };
    if (was && is) return [{ ...named, fate: 'changed', lists: touchedLists(was, is) }];
    const fate = !is ? 'removed' : renamed.some(each => each.is === is) ? 'renamed' : 'made';
    return [{ ...named, fate, lists: [] }];
  });
}

interface Between {
  readonly was: WrittenComponent | null;
  readonly is: WrittenComponent | null;
}

/** Whether one that is gone is what another is now, but for its id. */
const isRenamed = ({ was, is }: Between, now: WrittenComponent): boolean =>
  was !== null &&
  is === null &&
  was.title === now.title &&
  was.summary === now.summary &&
  was.rules === now.rules;

function componentAt(documents: Documents, path: string): WrittenComponent | null {
  const document = documents.get(path);
  return documentKind(path)?.kind === 'component' && isObject(document)
    ? (document as unknown as WrittenComponent)
    : null;
}

function touchedLists(before: WrittenComponent, after: WrittenComponent): TouchedList[] {
  return COMPONENT_LISTS.flatMap(list => {
    const was = (before[list] ?? []) as readonly unknown[];
    const is = (after[list] ?? []) as readonly unknown[];
    if (was === is) return [];
    const left = new Set(was);
    const come = is.filter(entry => !left.delete(entry));
    const different = come.filter(entry => ![...left].some(each => isSameJson(each, entry)));
    const gone = Math.max(0, was.length - is.length);
    const changed = Math.max(0, different.length - Math.max(0, is.length - was.length));
    return changed + gone === 0 ? [] : [{ list, changed, gone }];
  });
}
