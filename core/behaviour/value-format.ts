import type { FieldState } from './field-state';
import type { ValueFormat } from './kinds/value-kind';
import type { Plan } from './plan';
import { combinationAt } from './derived-states';

/** How a value is written in a field as it stands. */
export function valueFormatOf(plan: Plan, state: FieldState): ValueFormat {
  const { value: document, clock, isHalfApart } = plan;
  const hours = clock && clock.hours[combinationAt(plan, state)[clock.axis]!]!;
  return { document, locale: state.locale, hours, isHalfApart };
}

/** What stands in the control while nobody edits it. */
export const shownText = (plan: Plan, state: FieldState): string =>
  plan.kind.shown?.(state.value, valueFormatOf(plan, state)) ?? state.value;
