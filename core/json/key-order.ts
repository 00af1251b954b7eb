import { isObject } from './json';

/**
 * The order of keys as people wrote it. JavaScript puts names that look like whole numbers (`900`, `50`) before all others,
 * ascending; where that is not the order of the text, the order of the text is kept beside the object.
 */
const orders = new WeakMap<object, readonly string[]>();

/** The keys of an object in the order in which they were written; what came later is last. */
export function keysInOrder(object: object): readonly string[] {
  const order = orders.get(object);
  const keys = Object.keys(object);
  if (!order) return keys;
  const kept = order.filter(key => Object.hasOwn(object, key));
  return kept.length === keys.length ? kept : [...kept, ...keys.filter(key => !kept.includes(key))];
}

/** Keeps an order for an object, where it is not the one that the object has by itself. */
export function keepOrder<T extends object>(object: T, order: readonly string[]): T {
  const own = Object.keys(object);
  if (own.length !== order.length || own.some((key, index) => key !== order[index]))
    orders.set(object, order);
  return object;
}

/** Carries orders over to a later state of a document, which shares with the earlier what did not change. */
export function carryOrder<T>(before: unknown, after: T): T {
  if (before === after || typeof before !== 'object' || typeof after !== 'object') return after;
  if (before === null || after === null) return after;
  if (isObject(before) && isObject(after) && orders.has(before) && !orders.has(after))
    keepOrder(after as object, keysInOrder(withKeysOf(before, after)));
  for (const key of Object.keys(after as object)) {
    const then = (before as Record<string, unknown>)[key];
    if (then !== undefined) carryOrder(then, (after as Record<string, unknown>)[key]);
  }
  return after;
}

/** The later object's keys under the earlier one's order. */
function withKeysOf(before: object, after: object): object {
  const both = { ...after };
  orders.set(both, orders.get(before)!);
  return both;
}

/** A copy in which nothing is shared, orders kept. */
export function copyInOrder<T>(value: T): T {
  return carryOrder(value, structuredClone(value));
}
