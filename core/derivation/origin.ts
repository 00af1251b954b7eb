import { pointer, pointerSteps } from '../json/json';
import type { SourcePlace } from './expansion';

/** Where something was written. What lies in it lies there too, but for members that were written elsewhere. */
export interface Origin extends SourcePlace {
  readonly inside?: (step: string) => Origin | undefined;
}

/** Where a member of something was written, or an entry by its index. */
export const originOf = ({ file, pointer: at, inside }: Origin, step: string | number): Origin =>
  inside?.(String(step)) ?? { file, pointer: at + pointer(step) };

/** Where something further inside was written. */
export const originAt = (origin: Origin, at: string): Origin =>
  (pointerSteps(at) ?? []).reduce(originOf, origin);

/** A value of a document with where it was written. */
export interface Traced<Value> {
  readonly value: Value;
  readonly origin: Origin;
}

export const traced = <Value>(value: Value, origin: Origin): Traced<Value> => ({ value, origin });

/** A member of something traced; `undefined` where it has none. */
export function member<Value extends object, Key extends keyof Value & string>(
  whole: Traced<Value>,
  key: Key,
): Traced<NonNullable<Value[Key]>> | undefined {
  const value = whole.value[key];
  return value === undefined || value === null ? undefined : traced(value, originOf(whole.origin, key));
}

/** The entries of a list; none where there is no list. */
export const entriesOf = <Value>(list: Traced<readonly Value[]> | undefined): Traced<Value>[] =>
  (list?.value ?? []).map((value, index) => traced(value, originOf(list!.origin, index)));

/** A list of entries from anywhere; the same list as before where no entry differs, by which others know that nothing changed. */
export function listOf<Value>(
  entries: readonly Traced<Value>[],
  before: Traced<readonly Value[]> | undefined,
  near: Origin,
): Traced<readonly Value[]> {
  const isSame =
    before !== undefined &&
    before.value.length === entries.length &&
    entries.every(({ value }, index) => value === before.value[index]);
  const inside = (step: string): Origin | undefined => entries[Number(step)]?.origin;
  return traced(isSame ? before.value : entries.map(({ value }) => value), { ...near, inside });
}

/** An object of members from anywhere. */
export const objectOf = <Value extends object>(
  members: Readonly<Record<string, Traced<unknown>>>,
  near: Origin,
): Traced<Value> =>
  traced(Object.fromEntries(Object.entries(members).map(([key, { value }]) => [key, value])) as Value, {
    ...near,
    inside: step => (Object.hasOwn(members, step) ? members[step]!.origin : undefined),
  });

/** The members of an object, by name. */
export const membersOf = (whole: Traced<object>): Record<string, Traced<unknown>> =>
  Object.fromEntries(
    Object.entries(whole.value).map(([key, value]) => [
      key,
      traced<unknown>(value, originOf(whole.origin, key)),
    ]),
  );
