import type { Component } from '../components/component';
import { componentNamed, type System } from '../components/system';
import { narrowedBindings } from '../derivation/narrowed-bindings';
import { nothingOf } from '../derivation/nothing-of';
import type { Narrowing } from '../derivation/narrowing';
import type { ConditionDocument } from '../documents/condition-document';
import { Names, type NameKind } from '../documents/names';
import type { AnatomyEditDocument } from '../documents/part-document';
import { mapEntries, mapMembers } from '../json/change-members';
import { renamedBindings } from './renamed-bindings';
import { renamedGiven } from './renamed-given';

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

/** Where a part goes: beside another, or as the last into a box. */
export type PartPlace = { readonly before: string } | { readonly after: string } | { readonly into: string };

/** Where what an edit of the anatomy puts beside or into a part that is gone finds its place; `stays` where the part goes only later. */
export type Anchors = ReadonlyMap<string, PartPlace | 'stays'>;

const NO_ANCHORS: Anchors = new Map();

const keyOf = ({ kind, name, axis }: Named): string => `${kind} ${axis ?? ''} ${name}`;

/** What everything is called by now in a system of which some things have got other names, or are gone. */
export class RenamedNames extends Names {
  /** What has gone because nothing is left for it to say. */
  readonly gone: NameChange[] = [];
  private readonly byKey: ReadonlyMap<string, string | null>;

  constructor(
    private readonly lookup: NameLookup,
    /** As things were called before. */
    private readonly system: System,
    /** The component whose document is read; `null` outside of all. */
    private readonly component: Component | null = null,
    private readonly anchors: Anchors = NO_ANCHORS,
  ) {
    super();
    this.byKey = new Map(lookup.changes.map(change => [keyOf(change), change.to]));
  }

  now(kind: NameKind, name: string, axis?: string): string | null {
    if (this.lookup.of !== null && !this.isMeant) return name;
    const to = this.byKey.get(keyOf({ kind, name, ...(axis === undefined ? {} : { axis }) }));
    return to === undefined ? name : to;
  }

  /** Whether things of this component have got other names. */
  private get isMeant(): boolean {
    return this.component !== null && (this.lookup.of?.has(this.component.id) ?? false);
  }

  /** Where axes or values of this component are gone. */
  private get narrowing(): Narrowing | undefined {
    return this.isMeant ? this.lookup.narrowing : undefined;
  }

  /** Names of another component of the system. */
  private about(component: Component): RenamedNames {
    return new RenamedNames(this.lookup, this.system, component);
  }

  override inside(part: string): RenamedNames | null {
    const nested = this.component?.nested.find(({ name }) => name === part);
    return nested ? this.about(nested.component) : null;
  }

  override of(id: string): RenamedNames | null {
    const component = componentNamed(this.system, id);
    return component ? this.about(component) : null;
  }

  condition(condition: ConditionDocument): ConditionDocument | null {
    const left = this.narrowing ? this.narrowing.condition(condition) : condition;
    return left && this.renamed(left);
  }

  holds(condition: ConditionDocument): ConditionDocument | null {
    const left = this.narrowing ? this.narrowing.holds(condition) : condition;
    return left && this.renamed(left);
  }

  private renamed(condition: ConditionDocument): ConditionDocument {
    return mapMembers(condition, (axis, wanted) => {
      const id = this.now('axis', axis) ?? axis;
      const value = (each: string): string => this.now('value', each, axis) ?? each;
      return [id, typeof wanted === 'string' ? value(wanted) : mapEntries(wanted, value)];
    });
  }

  bindings(
    bindings: Readonly<Record<string, unknown>>,
    used: Names | null,
  ): Readonly<Record<string, unknown>> {
    const left = this.narrowing ? narrowedBindings(bindings, this.narrowing) : bindings;
    return renamedBindings(left, this, used, this.component?.document.axes ?? []);
  }

  override given(key: string, given: unknown): unknown {
    return this.component ? renamedGiven(this.component, this, this.narrowing, key, given) : given;
  }

  override anatomyEdit(edit: AnatomyEditDocument): AnatomyEditDocument | null {
    const { replace, by } = edit;
    if (replace === undefined || this.now('part', replace) !== null) return this.placed(edit);
    // What came instead of a part that is gone comes where that was.
    const where = this.anchors.get(replace);
    return by && where && where !== 'stays' ? { insert: by, ...where } : null;
  }

  private placed(edit: AnatomyEditDocument): AnatomyEditDocument {
    for (const key of ['before', 'after', 'into'] as const) {
      const name = edit[key];
      if (name === undefined) continue;
      const now = this.now('part', name);
      if (now === name) return edit;
      const anchor = now === null ? this.anchors.get(name) : { [key]: now };
      if (anchor === 'stays') return edit;
      const { [key]: _, ...rest } = edit;
      return { ...rest, ...anchor };
    }
    return edit;
  }

  /** The rule before one that is gone, as far as a base has it; none for one of a nested component. */
  override ruleAhead(id: string): string | null {
    const ids = (this.component?.document.rules ?? []).map(rule => rule.id);
    const before = ids.slice(0, Math.max(0, ids.indexOf(id))).reverse();
    return before.map(each => this.rule(each)).find(each => each !== null) ?? null;
  }

  override lost(kind: NameKind, thing: { readonly id?: string; readonly when?: unknown }): void {
    // What lay over a base's rule leaves that as it was.
    const isOverlay = kind === 'rule' && thing.when === undefined;
    if (thing.id !== undefined && !isOverlay) this.gone.push({ kind, name: thing.id, to: null });
  }

  /** Nothing, in a calculation; elsewhere the value is gone. */
  protected nothing(property: string, text: string): string | null {
    return text.includes('calc(') ? nothingOf(property) : null;
  }

  protected override parameterLost(name: string): string | undefined {
    return this.component?.document.parameters?.find(({ id }) => id === name)?.default;
  }
}
