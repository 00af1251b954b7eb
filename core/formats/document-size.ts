import { isObject, pointer, type Step } from './json';
import { LIMITS } from './limits';
import type { LocalProblem } from './problem';

export interface TooLarge {
  readonly problems: readonly LocalProblem[];
  /** The document without what is too large in it; `null` where that is all of it. */
  readonly rest: { readonly document: unknown } | null;
}

/**
 * Says where a document has more than may be, before anybody looks at what it is: a short text can stand for much work. Tokens are counted by
 * themselves, as there may be many; a walk ends where it is known that there are too many.
 */
export function tooLarge(kind: string, document: unknown): TooLarge {
  const isTokens = kind === 'tokens';
  const whole: LocalProblem[] = [];
  const tokens = isTokens ? tokensIn(document) : 0;
  if (tokens > LIMITS.tokens)
    whole.push(
      problem(
        '',
        'too-many-tokens',
        `A file can have ${LIMITS.tokens} tokens at most; these are ${tokens}. Part them into several sets.`,
      ),
    );
  const parts = kind === 'component' && isObject(document) ? partsIn(document['anatomy']) : 0;
  if (parts > LIMITS.parts) whole.push(tooMany(['anatomy'], 'parts', LIMITS.parts, parts));
  const most = isTokens ? LIMITS.tokenValues : LIMITS.values;
  // A group may have all the tokens there are.
  const { count, long } = walked(document, most, isTokens ? Infinity : LIMITS.entries);
  if (count > most)
    whole.push(problem('', 'too-many', `This file can have ${most} values at most, and has more.`));
  const within = long.map(({ steps, what, size }) => tooMany(steps, what, LIMITS.entries, size));
  if (whole.length > 0 || long.length > MOST_LONG)
    return { problems: [...whole, ...within.slice(0, MOST_LONG)], rest: null };
  return {
    problems: within,
    rest: { document: long.reduce((rest, { steps }) => shortened(rest, steps), document) },
  };
}

/** Where so much of a document is too long nobody looks at the rest. */
const MOST_LONG = 100;

interface Long {
  readonly steps: readonly Step[];
  readonly what: 'entries' | 'members';
  readonly size: number;
}

/** Counts values, as far as to know that there are more than `most`; what has more members than `mostWithin` counts as one and is told. */
function walked(document: unknown, most: number, mostWithin: number): { count: number; long: Long[] } {
  const long: Long[] = [];
  const steps: Step[] = [];
  let count = 0;
  const visit = (node: unknown): void => {
    count++;
    if (typeof node !== 'object' || node === null) return;
    const isList = Array.isArray(node);
    const names: readonly unknown[] = isList ? node : Object.keys(node);
    if (names.length > mostWithin) {
      long.push({ steps: [...steps], what: isList ? 'entries' : 'members', size: names.length });
      return;
    }
    for (let index = 0; index < names.length && count <= most; index++) {
      const step = isList ? index : (names[index] as string);
      steps.push(step);
      visit((node as Record<Step, unknown>)[step]);
      steps.pop();
    }
  };
  visit(document);
  return { count, long };
}

/** The document with the first member alone of what stands at a place. */
function shortened(node: unknown, [step, ...inner]: readonly Step[]): unknown {
  if (Array.isArray(node))
    return step === undefined
      ? node.slice(0, 1)
      : node.map((each, index) => (index === step ? shortened(each, inner) : each));
  const members = Object.entries(node as object);
  if (step === undefined) return Object.fromEntries(members.slice(0, 1));
  return Object.fromEntries(
    members.map(([name, each]) => [name, name === step ? shortened(each, inner) : each]),
  );
}

const problem = (at: string, code: string, message: string): LocalProblem => ({
  pointer: at,
  severity: 'error',
  code,
  message,
});

const tooMany = (at: readonly Step[], what: string, most: number, count: number): LocalProblem =>
  problem(pointer(...at), 'too-many', `There can be ${most} ${what} here at most; these are ${count}.`);

/** How many tokens a file declares; groups deeper than any document are not looked into. */
function tokensIn(group: unknown, depth = 0): number {
  if (!isObject(group) || depth > LIMITS.depth) return 0;
  if (Object.hasOwn(group, '$value')) return 1;
  return Object.values(group).reduce<number>((sum, each) => sum + tokensIn(each, depth + 1), 0);
}

/** How many parts an anatomy has, or says that it adds to that of a base. */
function partsIn(node: unknown): number {
  if (Array.isArray(node)) return node.reduce<number>((sum, each) => sum + partsIn(each), 0);
  if (!isObject(node)) return 0;
  return 1 + partsIn(node['children']);
}
