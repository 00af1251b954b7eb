import { isObject, pointerSteps } from '../json/json';

/** A reference inside a token's value. */
export type Reference =
  /** `{group.token}`: the whole value of a token, named by the dotted key. */
  | { readonly kind: 'alias'; readonly key: string; readonly text: string }
  /** `{ "$ref": "#/…" }`: any value in the merged document. */
  | { readonly kind: 'pointer'; readonly steps: readonly string[]; readonly text: string };

/** Reads a value as a reference; `null` when it is an ordinary value. */
export function readReference(value: unknown): Reference | null {
  if (typeof value === 'string') {
    const match = /^\{([^{}]+)\}$/.exec(value.trim());
    return match ? { kind: 'alias', key: match[1]!, text: value } : null;
  }
  if (isObject(value) && typeof value['$ref'] === 'string') {
    const text = value['$ref'];
    return { kind: 'pointer', steps: text.startsWith('#') ? fragmentSteps(text) : [], text };
  }
  return null;
}

/** The steps of a JSON Pointer in a URI fragment (RFC 6901, section 6), with or without its `#`; none where it is no pointer. */
export const fragmentSteps = (text: string): readonly string[] =>
  pointerSteps(decoded(text.replace(/^#/, ''))) ?? [];

/** Percent-encoded text decoded; as it is where it is not encoded rightly. */
export function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** Every reference in a value, at any depth, each with the steps that lead to it. */
export function referencesIn(
  value: unknown,
  at: readonly (string | number)[] = [],
): { reference: Reference; at: readonly (string | number)[] }[] {
  const reference = readReference(value);
  if (reference) return [{ reference, at }];
  if (Array.isArray(value)) return value.flatMap((item, index) => referencesIn(item, [...at, index]));
  if (isObject(value))
    return Object.entries(value).flatMap(([key, item]) => referencesIn(item, [...at, key]));
  return [];
}
