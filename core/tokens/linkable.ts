import { isObject } from '../json/json';
import { readReference } from './references';
import { TOKEN_TYPES } from './token-types';

/**
 * The written value with those references kept that CSS can follow by `var()`, and everything else (numbers inside a colour,
 * pointers, weights by name) as resolved.
 */
export function linkable(type: string, raw: unknown, value: unknown): unknown {
  const reference = readReference(raw);
  if (reference) return reference.kind === 'alias' ? raw : value;
  const inner = TOKEN_TYPES[type]?.inner;
  const at = (step: string | number, item: unknown, resolved: unknown): unknown => {
    const expected = inner?.(step) ?? null;
    return expected === null ? resolved : linkable(expected, item, resolved);
  };
  if (!inner) return value;
  if (Array.isArray(raw) && Array.isArray(value))
    return raw.length === value.length ? raw.map((item, index) => at(index, item, value[index])) : value;
  if (isObject(raw) && isObject(value))
    return Object.fromEntries(Object.entries(raw).map(([name, item]) => [name, at(name, item, value[name])]));
  return value;
}
