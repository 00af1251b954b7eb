import { pointer, type Step } from './json';
import { halfIn } from './lone-surrogates';
import { parseJson, stringEnd, walkJson } from './json-text';
import { QUOTAS } from './quotas';
import type { LocalProblem } from './problem';

/** Names that would reach an object's prototype in careless code; no document may use them. */
export const REFUSED_KEYS: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);

export type ReadResult =
  | { ok: true; value: unknown }
  | { ok: false; problem: LocalProblem; /** 0-based offset in the text */ offset?: number };

const refusal = (code: string, message: string, pointer: string, offset: number): ReadResult => ({
  ok: false,
  problem: { pointer, severity: 'error', code, message },
  offset,
});

/**
 * Parses JSON text (RFC 8259; a byte order mark is let through), keys in their order. Refuses text that is not JSON, nesting
 * deeper than `QUOTAS.depth`, more than `LIMITS.members` in one list or object, and keys that name an object's prototype.
 */
export function readJson(text: string): ReadResult {
  const plain = text.replace(/^\uFEFF/, '');
  // Before anything that might recurse sees it.
  const refused = isSurelyPlain(plain) ? null : refusedShape(plain);
  if (refused) return refused;
  try {
    const value = parseJson(plain);
    const half = halfIn(value, plain);
    if (half)
      return refusal(
        'lone-surrogate',
        'A text holds half of a character (a lone surrogate), which no file in UTF-8 can; it may have been cut in two.',
        pointer(...half),
        0,
      );
    return { ok: true, value };
  } catch (error) {
    const message = (error as Error).message;
    const offset = /position (\d+)/.exec(message);
    const told = `This is not JSON: ${plainReason(message, text)}.`;
    const problem = { pointer: '', severity: 'error', code: 'invalid-json', message: told } as const;
    return { ok: false, problem, ...(offset ? { offset: Number(offset[1]) } : {}) };
  }
}

/** What a refused name can be part of, and how any name can be written without its letters. */
const DOUBTFUL = /__proto__|constructor|prototype|\\u/;

/**
 * Whether a look at each sign is enough, which takes a tenth of the time: no refused name anywhere, and never too many brackets open, or too
 * many members in one pair.
 */
function isSurelyPlain(text: string): boolean {
  let depth = 0;
  /** Members of what is open, by depth. */
  const members = [1];
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === QUOTE) at = stringEnd(text, at);
    else if (code === COMMA) {
      if (++members[depth]! > QUOTAS.members) return false;
    } else if (code === OPEN_LIST || code === OPEN_OBJECT) {
      if (++depth > QUOTAS.depth) return false;
      members[depth] = 1;
    } else if (code === CLOSE_LIST || code === CLOSE_OBJECT) depth--;
  }
  return !DOUBTFUL.test(text);
}

const [QUOTE, COMMA, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [...'",[]{}'].map(sign =>
  sign.charCodeAt(0),
);

/**
 * Names that stand twice in one object, of which only the last is read: each with the pointer to its object and its offset in the text. JSON
 * leaves open what becomes of them (RFC 8259, section 4).
 */
export function repeatedKeys(text: string): readonly (LocalProblem & { readonly offset: number })[] {
  const steps: Step[] = [];
  const seen: (Set<string> | null)[] = [];
  const found: (LocalProblem & { offset: number })[] = [];
  walkJson(text, {
    open(_, isList) {
      steps.push(isList ? 0 : '');
      seen.push(isList ? null : new Set());
      return undefined;
    },
    comma() {
      const index = steps.at(-1);
      if (typeof index === 'number') steps[steps.length - 1] = index + 1;
      return undefined;
    },
    key(name, offset) {
      const names = seen.at(-1)!;
      steps[steps.length - 1] = name;
      if (names.has(name))
        found.push({
          pointer: pointer(...steps),
          severity: 'warning',
          code: 'repeated-key',
          message: `“${name}” stands twice in one object; only what is said last is read.`,
          offset,
        });
      names.add(name);
      return undefined;
    },
    close() {
      steps.pop();
      seen.pop();
    },
  });
  return found;
}

function plainReason(message: string, text: string): string {
  if (text.trim() === '') return 'the file is empty';
  return message
    .replace(/^JSON\.parse: /, '')
    .replace(/ in JSON at position.*$/, '')
    .replace(/^Unexpected/, 'unexpected');
}

function refusedShape(text: string): ReadResult | null {
  const steps: Step[] = [];
  const members: number[] = [];
  let found: ReadResult | null = null;
  let depth = 0;
  walkJson(text, {
    open(offset, isList) {
      depth++;
      steps[depth - 1] = isList ? 0 : '';
      members[depth - 1] = 1;
      // The value itself is not a level yet.
      if (depth > QUOTAS.depth + 1)
        found = refusal(
          'too-deep',
          `Nested more than ${QUOTAS.depth} levels deep.`,
          pointer(...steps.slice(0, QUOTAS.depth)),
          offset,
        );
      return found === null;
    },
    comma(offset) {
      const index = steps[depth - 1];
      if (typeof index === 'number') steps[depth - 1] = index + 1;
      if (++members[depth - 1]! > QUOTAS.members)
        found = refusal(
          'too-many',
          `More than ${QUOTAS.members} members.`,
          pointer(...steps.slice(0, depth - 1)),
          offset,
        );
      return found === null;
    },
    key(name, offset) {
      steps[depth - 1] = name;
      if (REFUSED_KEYS.has(name))
        found = refusal(
          'refused-key',
          `The name “${name}” cannot be used as a key.`,
          pointer(...steps.slice(0, depth)),
          offset,
        );
      return found === null;
    },
    close: () => void depth--,
  });
  return found;
}
