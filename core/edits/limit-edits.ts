import type { Component } from '../components/component';
import { compileSystem } from '../components/system';
import type { ConditionDocument } from '../documents/condition-document';
import type { LimitDocument } from '../documents/component-document';
import type { Box } from '../space/box';
import { excludingLimits } from '../space/excluding-limits';
import { changeEntry, removeEntry } from './entry-edits';
import { CannotRestructure, inTurn, theComponent, type StructuralEdit } from './restructure';

/** A value of an axis, by their ids. */
export interface AxisValue {
  readonly axis: string;
  readonly value: string;
}

/** So many limits, one behind the other, are made to admit a pair. */
const MOST_ROUNDS = 8;

/**
 * Lets two values occur together: limits that hold either apart from what the other brings allow it too. A limit that then holds nothing apart goes.
 */
export const allowTogether =
  (id: string, ...pair: readonly [AxisValue, AxisValue]): StructuralEdit =>
  system => {
    let here = system;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const component = theComponent(here, id);
      const limits = excludingLimits(component.space, regionOf(component, pair));
      if (limits.length === 0) return here.documents;
      const documents = admittedBy(component, limits, pair)(here);
      if (documents === here.documents) break;
      here = compileSystem(documents);
    }
    throw new CannotRestructure(
      'No limit names the two; they never meet because of what else would have to be.',
    );
  };

const regionOf = ({ space }: Component, pair: readonly AxisValue[]): Box =>
  space.full.map((mask, index) => {
    const axis = space.axes[index]!;
    const named = pair.find(each => each.axis === axis.id);
    return named ? 1 << axis.indexOf.get(named.value)! : mask;
  });

/** Has limits, by place, admit a pair. */
function admittedBy(
  component: Component,
  limits: readonly number[],
  pair: readonly AxisValue[],
): StructuralEdit {
  const changed = limits.flatMap(index => {
    const limit = component.document.limits![index]!;
    const next = admitting(component, limit, index, pair);
    return next === limit ? [] : [{ index, next }];
  });
  // From the last to the first: those before keep their places.
  return inTurn(
    ...changed
      .toSorted((a, b) => b.index - a.index)
      .map(({ index, next }) =>
        next ? changeEntry(component.id, 'limits', index, next) : removeEntry(component.id, 'limits', index),
      ),
  );
}

/** A limit that lets some values be, as far as it holds where they are; `null` where nothing is left for it to hold. */
function admitting(
  { space }: Component,
  limit: LimitDocument,
  index: number,
  pair: readonly AxisValue[],
): LimitDocument | null {
  const read = space.limits.find(each => each.index === index);
  const holdsThere = pair.every(({ axis, value }) => {
    const at = space.axisIndex(axis);
    const place = space.axes[at]!.indexOf.get(value)!;
    return read === undefined || ((read.region[at]! >> place) & 1) === 1;
  });
  if (!holdsThere) return limit;
  const holds = pair.reduce<ConditionDocument>((held, { axis, value }) => {
    if (!Object.hasOwn(held, axis)) return held;
    const allowed = [held[axis]!].flat();
    if (allowed.includes(value)) return held;
    const more = [...allowed, value];
    const { [axis]: _, ...rest } = held;
    const all = space.axes[space.axisIndex(axis)]!.values.length;
    return more.length === all ? rest : { ...held, [axis]: more };
  }, limit.holds);
  if (holds === limit.holds) return limit;
  return Object.keys(holds).length === 0 ? null : { ...limit, holds };
}
