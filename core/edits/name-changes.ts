import type { Component } from '../components/component';
import { nothingOf } from '../derivation/derive-rules';
import type { Narrowing } from '../derivation/narrowing';
import type { ConditionDocument } from '../documents/component-document';

/** What has a name in a system or in one of its components. */
export type NameKind =
  | 'component'
  | 'icon'
  | 'part'
  | 'axis'
  | 'value'
  | 'rule'
  | 'limit'
  | 'situation'
  | 'sample'
  | 'plate'
  | 'content'
  | 'parameter'
  | 'walkthrough';

/** Something by its name; of a value with its axis. */
interface Named {
  readonly kind: NameKind;
  readonly name: string;
  readonly axis?: string;
}

/** Something that has another name by now; `null` where it is gone. */
export interface NameChange extends Named {
  readonly to: string | null;
}

/** What is meant by whom: things of a component and of all that are derived from it, or of the whole system. */
export interface NameLookup {
  /** Ids of the components whose things have other names; `null` for things of the system. */
  readonly of: ReadonlySet<string> | null;
  readonly changes: readonly NameChange[];
  /** What becomes of conditions where axes or values are gone. */
  readonly narrowing?: Narrowing;
}

const keyOf = ({ kind, name, axis }: Named): string => `${kind} ${axis ?? ''} ${name}`;

/** `@part.property`, and `@parameter`, in the text of a value. */
const REFERENCE = /@([A-Za-z][\w-]*(?:\/[A-Za-z][\w-]*)*(?:::[a-z-]+)?)(\.[a-z-]+)?/g;

/** Says of every name what it is by now, as documents of a component refer to it. */
export class NameReader {
  private readonly byKey: ReadonlyMap<string, string | null>;

  constructor(
    private readonly names: NameLookup,
    /** The component whose document is read, as it was before. */
    readonly component: Component,
  ) {
    this.byKey = new Map(names.changes.map(change => [keyOf(change), change.to]));
  }

  /** A thing of the component by its name now; `null` where it is gone. */
  now(kind: NameKind, name: string, axis?: string): string | null {
    const { of } = this.names;
    if (of !== null && !of.has(this.component.id)) return name;
    const to = this.byKey.get(keyOf({ kind, name, ...(axis === undefined ? {} : { axis }) }));
    return to === undefined ? name : to;
  }

  /** Reads names of the component that a part uses; `null` where the part uses none that is there. */
  inside(part: string): NameReader | null {
    const nested = this.component.nested.find(({ name }) => name === part);
    return nested ? new NameReader(this.names, nested.component) : null;
  }

  /** Reads names of another component of the system. */
  about(component: Component): NameReader {
    return new NameReader(this.names, component);
  }

  /** What holds of a condition; `null` where it holds nowhere any more. */
  condition(condition: ConditionDocument): ConditionDocument | null {
    const left = this.narrowing ? this.narrowing.condition(condition) : condition;
    return left && this.renamed(left);
  }

  /** What a limit still holds; `null` where nothing is left for an axis. */
  holds(condition: ConditionDocument): ConditionDocument | null {
    const left = this.narrowing ? this.narrowing.holds(condition) : condition;
    return left && this.renamed(left);
  }

  /** Where axes or values of this component are gone. */
  get narrowing(): Narrowing | undefined {
    return this.names.of?.has(this.component.id) ? this.names.narrowing : undefined;
  }

  private renamed(condition: ConditionDocument): ConditionDocument {
    return mapMembers(condition, (axis, wanted) => {
      const id = this.now('axis', axis) ?? axis;
      const value = (each: string): string => this.now('value', each, axis) ?? each;
      return [id, typeof wanted === 'string' ? value(wanted) : mapEntries(wanted, value)];
    });
  }

  /** A part's name with the way to it and what a browser draws in it: `less/frame`, `control::placeholder`. */
  path(path: string): string | null {
    const [way, pseudo] = path.split('::') as [string, string?];
    const [first, ...rest] = way.split('/') as [string, ...string[]];
    const here = this.now('part', first);
    if (here === null) return null;
    const end = pseudo === undefined ? '' : `::${pseudo}`;
    if (rest.length === 0) return here + end;
    const below = this.inside(first)?.path(rest.join('/')) ?? (this.inside(first) ? null : rest.join('/'));
    return below === null ? null : `${here}/${below}${end}`;
  }

  /** A rule's id, of a nested component with the way to it. */
  rule(id: string): string | null {
    const [first, ...rest] = id.split('/') as [string, ...string[]];
    if (rest.length === 0) return this.now('rule', first);
    const part = this.now('part', first);
    const inside = this.inside(first);
    const below = inside ? inside.rule(rest.join('/')) : rest.join('/');
    return part === null || below === null ? null : `${part}/${below}`;
  }

  /**
   * The text of a value. What a calculation asks of a part that is gone is nothing, 0px; a parameter that is gone is its default. `null` where
   * nothing can be said any more.
   */
  value(text: string): string | null {
    if (!text.includes('@')) return text;
    let isLost = false;
    const result = text.replace(REFERENCE, (whole, name: string, property: string | undefined) => {
      if (property !== undefined) {
        const path = this.path(name);
        if (path !== null) return `@${path}${property}`;
        if (!text.includes('calc(')) isLost = true;
        return nothingOf(property.slice(1));
      }
      const parameter = this.now('parameter', name);
      if (parameter !== null) return `@${parameter}`;
      return this.component.document.parameters?.find(({ id }) => id === name)?.default ?? whole;
    });
    return isLost ? null : result;
  }
}

/** A list with its entries changed, or left out where they come to `null`; the same list where nothing differs. */
export function mapEntries<Entry>(
  list: readonly Entry[],
  change: (entry: Entry, index: number) => Entry | null,
): readonly Entry[] {
  const changed = list.map(change);
  if (changed.every((entry, index) => entry === list[index])) return list;
  return changed.filter(entry => entry !== null);
}

/** An object with its members changed, or left out where they come to `null`; the same object where nothing differs. */
export function mapMembers<Members extends object>(
  object: Members,
  change: (key: string, value: Members[keyof Members]) => readonly [string, unknown] | null,
): Members {
  const entries = Object.entries(object) as [string, Members[keyof Members]][];
  const changed = entries.map(([key, value]) => change(key, value));
  const isSame = changed.every(
    (entry, index) => entry && entry[0] === entries[index]![0] && entry[1] === entries[index]![1],
  );
  if (isSame) return object;
  return Object.fromEntries(changed.filter(entry => entry !== null)) as Members;
}

/** An object with some of its members. */
export const keptMembers = <Members extends object>(
  object: Members,
  isKept: (key: string) => boolean,
): Members => mapMembers(object, (key, value) => (isKept(key) ? [key, value] : null));

/** An object with one member changed, if it is there; `undefined` takes it out. The same object where nothing differs. */
export function withMember<Members extends object, Key extends keyof Members>(
  object: Members,
  key: Key,
  change: (value: NonNullable<Members[Key]>) => Members[Key] | undefined,
): Members {
  const before = object[key];
  if (before === undefined || before === null) return object;
  const after = change(before);
  if (after === before) return object;
  if (after !== undefined) return { ...object, [key]: after };
  const { [key]: _, ...rest } = object;
  return rest as Members;
}
