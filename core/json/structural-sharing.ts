import { keepOrder, keysInOrder } from './key-order';

/**
 * A value equal to `after` that shares with `before` whatever is equal in both, down to single members. Parts that are the
 * same object then need not be looked at again by whoever remembers what it made of them.
 */
export function shared(before: unknown, after: unknown): unknown {
  if (before === after || typeof before !== 'object' || typeof after !== 'object') return after;
  if (before === null || after === null) return after;
  if (Array.isArray(before) !== Array.isArray(after)) return after;
  if (Array.isArray(after)) {
    const old = before as unknown[];
    const items = after.map((item, index) => shared(old[index], item));
    if (items.length === old.length && items.every((item, index) => item === old[index])) return before;
    return items.every((item, index) => item === after[index]) ? after : items;
  }
  const old = before as Record<string, unknown>;
  const came = after as Record<string, unknown>;
  const keys = keysInOrder(after);
  const oldKeys = keysInOrder(old);
  const items = keys.map(key => (Object.hasOwn(old, key) ? shared(old[key], came[key]) : came[key]));
  const isOld = (key: string, place: number): boolean => oldKeys[place] === key && items[place] === old[key];
  if (oldKeys.length === keys.length && keys.every(isOld)) return before;
  if (keys.every((key, place) => items[place] === came[key])) return after;
  return keepOrder(Object.fromEntries(keys.map((key, place) => [key, items[place]])), keys);
}
