import { isObject, pointer, type JsonObject, type Step } from './json';
import { QUOTAS } from './quotas';
import { ObjectMemo } from './object-memo';
import type { LocalProblem } from './problem';

export interface TooLarge {
  readonly problems: readonly LocalProblem[];
  /** The document without what is too large in it; `null` where that is all of it. */
  readonly rest: { readonly document: unknown } | null;
}

/**
 * Says where a document has more than may be, before anybody looks at what it is: a short text can stand for much work. Tokens are counted by
 * themselves, as there may be many.
 */
export const tooLarge = (kind: string, document: unknown): TooLarge =>
  kind === 'tokens' ? tooManyTokens(document) : tooLong(kind, document);

function tooManyTokens(document: unknown): TooLarge {
  const { tokens, values } = countIn(document);
  const problems: LocalProblem[] = [];
  if (tokens > QUOTAS.tokens)
    problems.push(
      problem(
        '',
        'too-many-tokens',
        `A file can have ${QUOTAS.tokens} tokens at most; these are ${tokens}. Part them into several sets.`,
      ),
    );
  if (values > QUOTAS.tokenValues) problems.push(tooManyValues(QUOTAS.tokenValues));
  return { problems, rest: problems.length > 0 ? null : { document } };
}

function tooLong(kind: string, document: unknown): TooLarge {
  const whole: LocalProblem[] = [];
  const parts = kind === 'component' && isObject(document) ? partsIn(document['anatomy']) : 0;
  if (parts > QUOTAS.parts) whole.push(tooMany(['anatomy'], 'parts', QUOTAS.parts, parts));
  const { count, long } = walked(document);
  if (count > QUOTAS.values) whole.push(tooManyValues(QUOTAS.values));
  const within = long.map(({ steps, what, size }) => tooMany(steps, what, QUOTAS.entries, size));
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

/** Counts values, as far as to know that there are too many; what has too many members counts as one and is told. */
function walked(document: unknown): { count: number; long: Long[] } {
  const long: Long[] = [];
  const steps: Step[] = [];
  let count = 0;
  const visit = (node: unknown): void => {
    count++;
    if (typeof node !== 'object' || node === null) return;
    const isList = Array.isArray(node);
    const names: readonly unknown[] = isList ? node : Object.keys(node);
    if (names.length > QUOTAS.entries) {
      long.push({ steps: [...steps], what: isList ? 'entries' : 'members', size: names.length });
      return;
    }
    for (let index = 0; index < names.length && count <= QUOTAS.values; index++) {
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

const tooManyValues = (most: number): LocalProblem =>
  problem('', 'too-many', `This file can have ${most} values at most, and has more.`);

const tooMany = (at: readonly Step[], what: string, most: number, count: number): LocalProblem =>
  problem(pointer(...at), 'too-many', `There can be ${most} ${what} here at most; these are ${count}.`);

interface Count {
  readonly tokens: number;
  readonly values: number;
}
const counts = new ObjectMemo<Count>();

/** How much a file of tokens declares. What an edit has not changed is the same object, and is not counted again. */
const countIn = (group: unknown, depth = 0): Count =>
  isObject(group) && depth <= QUOTAS.depth
    ? counts.of([group], () => countAnew(group, depth))
    : { tokens: 0, values: valuesIn(group) };

function countAnew(group: JsonObject, depth: number): Count {
  if (Object.hasOwn(group, '$value')) return { tokens: 1, values: valuesIn(group) };
  let [tokens, values] = [0, 1];
  for (const each of Object.values(group)) {
    const inner = countIn(each, depth + 1);
    tokens += inner.tokens;
    values += inner.values;
  }
  return { tokens, values };
}

/** Lists, objects and what stands in them. */
export const valuesIn = (node: unknown): number =>
  typeof node === 'object' && node !== null
    ? Object.values(node).reduce<number>((sum, each) => sum + valuesIn(each), 1)
    : 1;

/** How many parts an anatomy has, or says that it adds to that of a base. */
function partsIn(node: unknown): number {
  if (Array.isArray(node)) return node.reduce<number>((sum, each) => sum + partsIn(each), 0);
  if (!isObject(node)) return 0;
  return 1 + partsIn(node['children']);
}
