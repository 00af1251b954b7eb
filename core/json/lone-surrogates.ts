import type { Step } from './json';

/** Halves of characters that stand alone, which no text in UTF-8 can hold (Unicode, section 3.8). */
const LONE_SURROGATE = /\p{Surrogate}/u;

export const hasLoneSurrogate = (text: string): boolean => LONE_SURROGATE.test(text);

/** How half of a character can stand in JSON text that is UTF-8. */
const ESCAPED = /\\u[dD][89a-fA-F]/;

/**
 * Where a value holds half of a character (a lone surrogate), read from a text: steps to it, or to the object that has a name with one; `null`
 * where none does. No text in UTF-8 can hold one, so that it could not be written into a file as it is.
 */
export const halfIn = (value: unknown, text: string): readonly Step[] | null =>
  ESCAPED.test(text) ? find(value, []) : null;

function find(value: unknown, at: readonly Step[]): readonly Step[] | null {
  if (typeof value === 'string') return hasLoneSurrogate(value) ? at : null;
  if (typeof value !== 'object' || value === null) return null;
  for (const [name, item] of Object.entries(value)) {
    const found = hasLoneSurrogate(name) ? at : find(item, [...at, name]);
    if (found) return found;
  }
  return null;
}
