import type { CheckDocument } from '../documents/behaviour-document';
import type { FieldState } from './field-state';
import type { ValueKind } from './kinds/value-kind';
import type { PlanData } from './plan-data';

/** Whether a value fails a check that needs nobody's answer. Empty values fail `required` alone. */
export type Fails = (plan: Plan, state: FieldState, check: CheckDocument) => boolean;

/** What of a component the machine must know, with what its kind of value does. */
export interface Plan extends PlanData {
  readonly kind: ValueKind;
  /** Kinds of check that compare an entry, where it has any. */
  readonly comparing?: Readonly<Record<string, Fails>>;
}
