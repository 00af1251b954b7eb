import { compound, TRUE, type Formula } from './formula';

/** What must hold on the root, and on the roots of nested components that lie around a part. */
export interface ConditionScope {
  readonly root: Formula;
  /** By name of the part that uses the component, the outer ones first; none without a test. */
  readonly inner: readonly (readonly [part: string, formula: Formula])[];
}

/** Where a block holds: in any of some scopes. */
export type Condition = readonly ConditionScope[];

export const ALWAYS: Condition = [{ root: TRUE, inner: [] }];

export const isAlways = (condition: Condition): boolean =>
  condition.some(({ root, inner }) => root.kind === 'true' && inner.length === 0);

/** The condition as text: equal conditions have equal texts. */
export const conditionText = (condition: Condition): string =>
  condition
    .map(({ root, inner }) =>
      [compound(root), ...inner.map(([part, formula]) => `${part}${compound(formula)}`)].join(' '),
    )
    .join(', ');
