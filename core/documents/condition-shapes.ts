import type { ConditionDocument } from './condition-document';
import { ID_SCHEMA, isEmptied, mapOf, text, written, type Scope } from './shape';

const CONDITION = {
  type: 'object',
  propertyNames: ID_SCHEMA,
  additionalProperties: { type: ['string', 'array'], items: { type: 'string' } },
};

export const condition = written<ConditionDocument>(CONDITION, (wanted, { names }) =>
  names.condition(wanted),
);

/** What a limit holds. */
export const held = written<ConditionDocument>(CONDITION, (wanted, { names }) => {
  const left = names.holds(wanted);
  return left && isEmptied(left, wanted) ? null : left;
});

const pair = (axis: string, value: string, { names }: Scope) => names.setting(axis, value);

/** One value for each of some axes. */
export const settings = mapOf(text, { pair });

/** The same where it says nothing when it is empty. */
export const settingsOrNone = mapOf(text, { pair, goesWith: 'last' });
