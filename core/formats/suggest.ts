import { distance } from 'fastest-levenshtein';

/** Words that people of the trade write for a property's or value's CSS name. */
const SPELLINGS: readonly (readonly [RegExp, string])[] = [
  [/colour/g, 'color'],
  [/grey/g, 'gray'],
  [/centre/g, 'center'],
];

/**
 * The name that was probably meant, or `undefined` when none is near: at most a third of the letters differ
 * (edit distance), British spellings count as right, and case does not count. Only text is near to anything.
 */
export function nearest(written: unknown, names: Iterable<string>): string | undefined {
  if (typeof written !== 'string' || written.length > 200) return undefined;
  const plain = SPELLINGS.reduce((text, [from, to]) => text.replace(from, to), written.toLowerCase());
  let best: string | undefined;
  let bestDistance = Math.max(2, Math.floor(plain.length / 3)) + 1;
  for (const name of names) {
    if (Math.abs(name.length - plain.length) >= bestDistance) continue;
    const apart = distance(plain, name.toLowerCase());
    if (apart < bestDistance) [best, bestDistance] = [name, apart];
  }
  return best;
}
