import type { ComponentDocument, RuleDocument } from '../documents/component-document';
import type { ConditionDocument } from '../documents/condition-document';
import { stateAxis } from '../space/state-catalogue';
import { valuesOf } from './random-component';

/** The plain walk over all combinations, written from the model's words alone: the reference for the engine. */

export type Plain = Readonly<Record<string, string>>;

const restOf = (document: ComponentDocument): Plain =>
  Object.fromEntries((document.axes ?? []).map(axis => [axis.id, axis.default ?? valuesOf(axis)[0]!]));

export function everyCombination(document: ComponentDocument): Plain[] {
  return (document.axes ?? []).reduce<Plain[]>(
    (all, axis) =>
      all.flatMap(combination => valuesOf(axis).map(value => ({ ...combination, [axis.id]: value }))),
    [restOf(document)],
  );
}

/** One rung of a ladder means "at least"; a list is exact. */
export function holdsIn(condition: ConditionDocument, combination: Plain): boolean {
  return Object.entries(condition).every(([axis, wanted]) => {
    const row = stateAxis(axis);
    if (typeof wanted === 'string' && row?.ladder) {
      const order = row.values.map(value => value.id);
      return order.indexOf(combination[axis]!) >= order.indexOf(wanted);
    }
    return [wanted].flat().includes(combination[axis]!);
  });
}

/** Applies the limits until nothing changes; `null` when they never settle. */
export function settledPlain(document: ComponentDocument, raw: Plain): Plain | null {
  let here = raw;
  const seen = new Set<string>();
  while (!seen.has(JSON.stringify(here))) {
    seen.add(JSON.stringify(here));
    const limit = (document.limits ?? []).find(
      ({ while: condition, holds }) =>
        holdsIn(condition, here) &&
        Object.entries(holds).some(([axis, allowed]) => ![allowed].flat().includes(here[axis]!)),
    );
    if (!limit) return here;
    const next: Record<string, string> = { ...here };
    for (const [axis, allowed] of Object.entries(limit.holds)) {
      if (![allowed].flat().includes(here[axis]!)) next[axis] = [allowed].flat()[0]!;
    }
    here = next;
  }
  return null;
}

export const isAllowed = (document: ComponentDocument, combination: Plain): boolean =>
  JSON.stringify(settledPlain(document, combination)) === JSON.stringify(combination);

export const speakingRules = (document: ComponentDocument, combination: Plain): RuleDocument[] =>
  (document.rules ?? []).filter(rule => holdsIn(rule.when, combination));
