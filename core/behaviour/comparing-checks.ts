import { lengthOf } from '../text/graphemes';
import type { Bound, CheckDocument } from '../documents/behaviour-document';
import type { FieldState } from './field-state';
import type { Fails, Plan } from './plan';

/** Kinds of check that compare an entry with a number or with another field. */
export const COMPARING: Readonly<Record<string, Fails>> = {
  least: (plan, { value, others }, { least = plan.value.least }) =>
    (compared(value, boundOf(least, others)) ?? 0) < 0,
  most: (plan, { value, others }, { most = plan.value.most }) =>
    (compared(value, boundOf(most, others)) ?? 0) > 0,
  length: (plan, { value }, { length = ownLength(plan) }) => {
    const own = lengthOf(value);
    const { least = 0, most = Infinity } =
      typeof length === 'number' ? { least: length, most: length } : length;
    return own < least || own > most;
  },
  equals: (_, { value, others }, { equals = '' }) =>
    Object.hasOwn(others, equals) && others[equals] !== value,
};

/** Where a check says nothing of a length, that of the value counts. */
const ownLength = ({ value: { length, most } }: Plan): NonNullable<CheckDocument['length']> =>
  length ?? (most === undefined ? {} : { most });

const boundOf = (bound: Bound | undefined, others: FieldState['others']): string | undefined =>
  typeof bound === 'object' ? others[bound.field] : bound === undefined ? undefined : String(bound);

/** Numbers by size; times and days, which are written so that it is the same, by their letters. Nothing where there is nothing to compare with. */
function compared(value: string, bound: string | undefined): number | undefined {
  if (bound === undefined || bound === '') return undefined;
  const [one, other] = [Number(value), Number(bound)];
  if (!Number.isNaN(other)) return one - other;
  return value < bound ? -1 : value > bound ? 1 : 0;
}
