import type { AxisChangeDocument, AxisDocument } from '../documents/component-document';
import type { ProblemList } from '../json/problem';
import { oneOf } from '../json/problem';
import { defaultOf, heldAt, leftValues, Narrowing, valueIds } from './narrowing';
import { entriesOf, listOf, member, membersOf, objectOf, originOf, traced, type Traced } from './origin';

/** The axes of a derived component, and what becomes of its base's conditions by them. */
export interface DerivedAxes {
  readonly axes: readonly Traced<AxisDocument>[];
  readonly narrowing: Narrowing;
}

/** Axes of the base in their order, as far as they are not left out, with what differs; then those of its own. */
export function deriveAxes(
  base: readonly Traced<AxisDocument>[],
  own: readonly Traced<AxisChangeDocument>[],
  without: readonly string[],
  problems: ProblemList,
): DerivedAxes {
  const changes = new Map<string, Traced<AxisChangeDocument>>();
  const added: Traced<AxisDocument>[] = [];
  for (const axis of own) {
    const { id } = axis.value;
    if (!changes.has(id) && base.some(({ value }) => value.id === id)) changes.set(id, axis);
    else if (axis.value.kind === undefined)
      problems.error(axis.origin.pointer, 'missing-key', '“kind” is missing.', undefined, 'kind');
    else added.push(axis as Traced<AxisDocument>);
  }
  const left = new Map<string, ReturnType<typeof leftValues | typeof heldAt>>();
  const kept = base.flatMap(axis => {
    const { id } = axis.value;
    const change = changes.get(id);
    if (without.includes(id) && !change) {
      left.set(id, heldAt(axis.value));
      return [];
    }
    if (!change) return axis;
    const changed = changedAxis(axis, change, problems);
    left.set(id, leftValues(changed.value));
    return changed;
  });
  return { axes: [...kept, ...added], narrowing: new Narrowing(left) };
}

/** An axis of the base with what differs: other words, another default, a new list of values. */
function changedAxis(
  base: Traced<AxisDocument>,
  change: Traced<AxisChangeDocument>,
  problems: ProblemList,
): Traced<AxisDocument> {
  const { id, kind } = base.value;
  const at = change.origin;
  if (change.value.kind !== undefined && change.value.kind !== kind)
    problems.error(
      originOf(at, 'kind').pointer,
      'fixed-member',
      `In the base ${id} is of kind ${kind}.`,
      kind,
    );
  const ids = valueIds(change.value.values ? (change.value as AxisDocument) : base.value);
  const order = kind === 'state' && change.value.values ? valueIds({ id, kind }) : null;
  if (order && ids.some((value, index) => order.indexOf(value) < order.indexOf(ids[index - 1] ?? '')))
    problems.error(
      originOf(at, 'values').pointer,
      'reordered-state',
      `The values of ${id} have their order, which is their meaning: ${oneOf(order.filter(value => ids.includes(value)))}.`,
    );
  const preset = defaultOf(base.value);
  if (kind === 'option' && change.value.default === undefined && !ids.includes(preset))
    problems.error(
      originOf(at, 'values').pointer,
      'lost-default',
      `The base's default, “${preset}”, is no longer among the values; name another as “default”.`,
    );
  const members: Record<string, Traced<unknown>> = {
    ...membersOf(base),
    ...membersOf(change),
    kind: member(base, 'kind')!,
  };
  if (change.value.values) members['values'] = changedValues(base, change);
  if (kind === 'option' && change.value.default === undefined) {
    // Where the base leaves its default to the order of its values, another order must not change it.
    if (ids.includes(preset)) members['default'] = member(base, 'default') ?? traced(preset, base.origin);
    else delete members['default'];
  }
  return objectOf<AxisDocument>(members, at);
}

/** The new list of values; the words of those that the base has too follow the base. */
function changedValues(base: Traced<AxisDocument>, change: Traced<AxisChangeDocument>) {
  const before = new Map(entriesOf(member(base, 'values')).map(value => [value.value.id, value]));
  const values = entriesOf(member(change, 'values')).map(value => {
    const known = before.get(value.value.id);
    return known
      ? objectOf<typeof value.value>({ ...membersOf(known), ...membersOf(value) }, value.origin)
      : value;
  });
  return listOf(values, member(base, 'values'), originOf(change.origin, 'values'));
}
