import type { AxisDocument } from '../documents/component-document';
import type { ConditionDocument } from '../documents/condition-document';
import { stateAxis } from '../space/state-catalogue';

/** What becomes of an axis of the base: the values that are left, or the one at which it is held. */
type Left = { readonly values: readonly string[] } | { readonly held: string };

/**
 * Conditions of a base as they hold in a component with fewer axes and values. What was taken away is no mistake in them: where
 * they ask for it they hold nowhere.
 */
export class Narrowing {
  /** Says the same of equal narrowings. */
  readonly key: string;

  constructor(private readonly left: ReadonlyMap<string, Left>) {
    this.key = JSON.stringify([...left]);
  }

  /** A condition; `null` where it holds nowhere. The same object where nothing differs. */
  condition(document: ConditionDocument): ConditionDocument | null {
    return this.narrowed(document, (axis, wanted) => atLeast(axis, wanted) ?? [wanted].flat());
  }

  /** What a limit holds; `null` where nothing of it is left for an axis. */
  holds(document: ConditionDocument): ConditionDocument | null {
    return this.narrowed(document, (_, wanted) => [wanted].flat());
  }

  /** Whether a value of an axis is still there. */
  has(axis: string, value: string): boolean {
    const left = this.left.get(axis);
    return left === undefined || ('values' in left && left.values.includes(value));
  }

  isHeld(axis: string): boolean {
    return this.heldAt(axis) !== null;
  }

  /** The value at which an axis is held that is left out; `null` where it is not. */
  heldAt(axis: string): string | null {
    const left = this.left.get(axis);
    return left && 'held' in left ? left.held : null;
  }

  /** The values that are left of an axis; `null` where it is as it was. */
  valuesLeft(axis: string): readonly string[] | null {
    const left = this.left.get(axis);
    return left && 'values' in left ? left.values : null;
  }

  private narrowed(
    document: ConditionDocument,
    valuesOf: (axis: string, wanted: string | readonly string[]) => readonly string[],
  ): ConditionDocument | null {
    const kept: Record<string, string | readonly string[]> = {};
    let same = true;
    for (const [axis, wanted] of Object.entries(document)) {
      const left = this.left.get(axis);
      const values = valuesOf(axis, wanted);
      if (left && 'held' in left) {
        if (!values.includes(left.held)) return null;
        same = false;
        continue;
      }
      const remaining = left ? values.filter(value => left.values.includes(value)) : values;
      if (remaining.length === 0) return null;
      const isAsWritten =
        typeof wanted === 'string' ? remaining[0] === wanted : remaining.length === wanted.length;
      if (!isAsWritten) same = false;
      kept[axis] = isAsWritten ? wanted : typeof wanted === 'string' ? remaining[0]! : remaining;
    }
    return same ? document : kept;
  }
}

/** On a ladder one value means itself and all rungs above it, in order. */
function atLeast(axis: string, wanted: string | readonly string[]): readonly string[] | null {
  const row = stateAxis(axis);
  if (!row?.ladder || typeof wanted !== 'string') return null;
  const rungs = row.values.map(value => value.id);
  const from = rungs.indexOf(wanted);
  return from < 0 ? null : rungs.slice(from);
}

/** The values of an axis as a document lists them, or all that the catalogue has. */
export const valueIds = ({ id, values }: AxisDocument): readonly string[] =>
  (values ?? stateAxis(id)?.values ?? []).map(value => value.id);

/** The value that holds where nobody chooses. */
export const defaultOf = (axis: AxisDocument): string => axis.default ?? valueIds(axis)[0] ?? '';

export const leftValues = (axis: AxisDocument): Left => ({ values: valueIds(axis) });
export const heldAt = (axis: AxisDocument): Left => ({ held: defaultOf(axis) });
