import { distance } from 'fastest-levenshtein';

/** Words that people of the trade write for a property's or value's CSS name. */
const SPELLINGS: readonly (readonly [RegExp, string])[] = [
  [/colour/g, 'color'],
  [/grey/g, 'gray'],
  [/centre/g, 'center'],
];

/** Comparing letter by letter is given up after so many names; nobody reads thousands of suggestions. */
const MOST_COMPARED = 200_000;

interface Candidate {
  readonly name: string;
  readonly plain: string;
  readonly letters: number;
}
type ByLength = ReadonlyMap<number, readonly Candidate[]>;

/** Lists that stay are looked through once. */
const known = new WeakMap<object, ByLength>();

function indexOf(names: Iterable<string>): ByLength {
  const found = known.get(names);
  if (found) return found;
  const byLength = new Map<number, Candidate[]>();
  for (const name of names) {
    const plain = name.toLowerCase();
    const alike = byLength.get(plain.length) ?? [];
    alike.push({ name, plain, letters: lettersOf(plain) });
    byLength.set(plain.length, alike);
  }
  if (Object.isFrozen(names)) known.set(names, byLength);
  return byLength;
}

/** Finds the name that was probably meant among some, for as many misspelt ones as there may be. */
export class Suggestions {
  private readonly byLength: ByLength;
  private compared = 0;

  constructor(names: Iterable<string>) {
    this.byLength = indexOf(names);
  }

  /**
   * The nearest name, or `undefined` when none is near: at most a third of the letters differ (edit distance), British spellings
   * count as right, and case does not count. Only text is near to anything.
   */
  nearest(written: unknown): string | undefined {
    if (typeof written !== 'string' || written.length > 200 || this.compared > MOST_COMPARED)
      return undefined;
    const plain = SPELLINGS.reduce((text, [from, to]) => text.replace(from, to), written.toLowerCase());
    const letters = lettersOf(plain);
    let best: string | undefined;
    let bestDistance = Math.max(2, Math.floor(plain.length / 3)) + 1;
    // Names of nearly the same length first: the nearer a name is found, the fewer others need be compared.
    for (let off = 0; off < bestDistance; off++) {
      for (const length of off === 0 ? [plain.length] : [plain.length - off, plain.length + off]) {
        for (const each of this.byLength.get(length) ?? []) {
          // Each step changes at most two of the letters that occur.
          if (bitsIn(letters ^ each.letters) > 2 * (bestDistance - 1)) continue;
          this.compared++;
          const apart = distance(plain, each.plain);
          if (apart < bestDistance) [best, bestDistance] = [each.name, apart];
        }
      }
    }
    return best;
  }
}

/** The nearest of some names, for one that is misspelt. */
export const nearest = (written: unknown, names: Iterable<string>): string | undefined =>
  new Suggestions(names).nearest(written);

/** Which letters and digits occur, as bits; several share one. */
function lettersOf(text: string): number {
  let letters = 0;
  for (let at = 0; at < text.length; at++) letters |= 1 << (text.charCodeAt(at) & 31);
  return letters;
}

function bitsIn(mask: number): number {
  let count = 0;
  for (let rest = mask; rest !== 0; rest &= rest - 1) count++;
  return count;
}
