import { entryName } from './identity';
import { isObject, isSameJson, type Step } from '../json/json';

/** Members that say one thing as a whole: a condition with a part of another one means neither. */
const WHOLE = new Set(['when', 'while', 'holds', 'is', '$value']);

export type Merged =
  { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly place: readonly Step[] };

/**
 * One value of two that were put into the same place: objects with the members of both, lists of named entries with the entries of both.
 * Where both say something else of one thing there is none, and its place is given; or what `mine` says, if that `wins`. `at` are the steps
 * to the place.
 */
export function mergedValue(
  theirs: unknown,
  mine: unknown,
  at: readonly Step[],
  wins: boolean = false,
): Merged {
  try {
    return { ok: true, value: merge(theirs, mine, at, wins) };
  } catch (error) {
    if (error instanceof Apart) return { ok: false, place: error.place };
    throw error;
  }
}

class Apart extends Error {
  constructor(readonly place: readonly Step[]) {
    super('Both say something else of one thing.');
  }
}

function merge(theirs: unknown, mine: unknown, at: readonly Step[], wins: boolean): unknown {
  if (isSameJson(theirs, mine)) return theirs;
  if (!at.some(step => WHOLE.has(String(step)))) {
    if (isObject(theirs) && isObject(mine)) return mergeMembers(theirs, mine, at, wins);
    const [names, others] = [namesOf(theirs), namesOf(mine)];
    if (names && others) return mergeEntries(theirs as unknown[], names, mine as unknown[], others, at, wins);
  }
  if (wins) return mine;
  throw new Apart(at);
}

function mergeMembers(
  theirs: Readonly<Record<string, unknown>>,
  mine: Readonly<Record<string, unknown>>,
  at: readonly Step[],
  wins: boolean,
): unknown {
  const entries = Object.keys(mine).map(key => [
    key,
    Object.hasOwn(theirs, key) ? merge(theirs[key], mine[key], [...at, key], wins) : mine[key],
  ]);
  return { ...theirs, ...Object.fromEntries(entries) };
}

function mergeEntries(
  theirs: readonly unknown[],
  names: readonly string[],
  mine: readonly unknown[],
  others: readonly string[],
  at: readonly Step[],
  wins: boolean,
): unknown[] {
  const both = theirs.map((entry, index) => {
    const other = others.indexOf(names[index]!);
    return other < 0 ? entry : merge(entry, mine[other], [...at, index], wins);
  });
  return [...both, ...mine.filter((_, index) => !names.includes(others[index]!))];
}

/** What names each entry of a list; `null` where it is none, or one of its entries has no name of its own. */
function namesOf(list: unknown): readonly string[] | null {
  if (!Array.isArray(list)) return null;
  const names = list.map(entryName);
  return names.every(name => name !== null) && new Set(names).size === names.length ? names : null;
}
