import type { ConditionDocument } from '../documents/condition-document';
import { Names, type NameKind } from '../documents/names';
import { translated, type Shape } from '../documents/shape';
import { ObjectMemo } from '../json/object-memo';
import { nothingOf } from './nothing-of';
import { narrowedBindings } from './narrowed-bindings';
import type { Narrowing } from './narrowing';

/** Names of what a base has and a component that is derived from it has not, by what it is. */
export type Taken = { readonly [Kind in NameKind]?: ReadonlySet<string> };

/** What is left in a derived component of what its base names. */
export class RemainingNames extends Names {
  /** Says the same where the same is left. */
  private readonly key: string;

  constructor(
    private readonly narrowing: Narrowing,
    private readonly taken: Taken = {},
  ) {
    super();
    const sets = Object.entries(taken).map(([kind, names]) => `${kind} ${[...names].join(' ')}`);
    this.key = [narrowing.key, ...sets].join('\n');
  }

  now(kind: NameKind, name: string, axis?: string): string | null {
    if (this.taken[kind]?.has(name)) return null;
    if (kind === 'axis') return this.narrowing.isHeld(name) ? null : name;
    if (kind === 'value' && axis !== undefined) return this.narrowing.has(axis, name) ? name : null;
    return name;
  }

  condition(condition: ConditionDocument): ConditionDocument | null {
    return this.narrowing.condition(condition);
  }

  holds(condition: ConditionDocument): ConditionDocument | null {
    return this.narrowing.holds(condition);
  }

  bindings(bindings: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> {
    return narrowedBindings(bindings, this.narrowing);
  }

  /** What refers to a part that is gone finds nothing of it. */
  protected nothing(property: string): string {
    return nothingOf(property);
  }

  /** What is left of something that a base says; `null` where nothing is. */
  remainingOf<Type extends object>(shape: Shape<Type>, value: Type): Type | null {
    return this.once(value, () => translated(shape, value, { names: this }));
  }

  /** What something of a base comes to, worked out once where the same is left. */
  once<Type extends object>(value: Type, make: () => Type | null): Type | null {
    const known = left.of([value], () => new Map<string, object | null>()) as Map<string, Type | null>;
    let found = known.get(this.key);
    if (found === undefined) {
      if (known.size >= MAX_KEPT) known.clear();
      known.set(this.key, (found = make()));
    }
    return found;
  }
}

const left = new ObjectMemo<Map<string, object | null>>();

/** So many forms of one entry are remembered. */
const MAX_KEPT = 64;
