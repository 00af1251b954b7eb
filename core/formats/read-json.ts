import type { LocalProblem } from './problem';

/** A document deeper than this is refused: nothing real comes near, and every walk may then recurse. */
export const MAX_DEPTH = 64;

/** Names that would reach an object's prototype in careless code; no document may use them. */
const REFUSED_KEYS = new Set(['__proto__', 'constructor', 'prototype']);

export type ReadResult =
  | { ok: true; value: unknown }
  | { ok: false; problem: LocalProblem; /** 0-based offset in the text */ offset?: number };

const refusal = (code: string, message: string, pointer = ''): ReadResult => ({
  ok: false,
  problem: { pointer, severity: 'error', code, message },
});

/**
 * Parses JSON text (RFC 8259; a byte order mark is let through). Refuses text that is not JSON, nesting deeper than
 * `MAX_DEPTH`, and keys that name an object's prototype.
 */
export function readJson(text: string): ReadResult {
  let value: unknown;
  try {
    value = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    const message = (error as Error).message;
    const offset = /position (\d+)/.exec(message);
    const result = refusal('invalid-json', `This is not JSON: ${plainReason(message, text)}.`);
    return offset && !result.ok ? { ...result, offset: Number(offset[1]) } : result;
  }
  return refuseShape(value) ?? { ok: true, value };
}

function plainReason(message: string, text: string): string {
  if (text.trim() === '') return 'the file is empty';
  return message
    .replace(/^JSON\.parse: /, '')
    .replace(/ in JSON at position.*$/, '')
    .replace(/^Unexpected/, 'unexpected');
}

/** Looks at every member once, without recursion, so that no depth can overflow the stack. */
function refuseShape(root: unknown): ReadResult | null {
  const open: { value: unknown; depth: number; path: string }[] = [{ value: root, depth: 0, path: '' }];
  for (let next = open.pop(); next; next = open.pop()) {
    const { value, depth, path } = next;
    if (typeof value !== 'object' || value === null) continue;
    if (depth > MAX_DEPTH) {
      return refusal('too-deep', `Nested more than ${MAX_DEPTH} levels deep.`, path);
    }
    for (const key of Object.keys(value)) {
      const at = `${path}/${key.replace(/~/g, '~0').replace(/\//g, '~1')}`;
      if (REFUSED_KEYS.has(key))
        return refusal('refused-key', `The name “${key}” cannot be used as a key.`, at);
      open.push({ value: (value as Record<string, unknown>)[key], depth: depth + 1, path: at });
    }
  }
  return null;
}
