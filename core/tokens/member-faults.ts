import type { JsonObject, Step } from '../json/json';
import { oneOf } from '../json/problem';
import { nearest } from '../text/suggestions';
import { TOKEN_TYPES } from './token-types';

/** What is wrong with what a token or a group says of itself; its value is looked at with its type. */
export interface MemberFault {
  readonly at: readonly Step[];
  readonly severity: 'error' | 'warning';
  readonly code: string;
  readonly message: string;
  readonly suggestion?: string;
}

const isText = (value: unknown): boolean => typeof value === 'string';

/** Members of tokens and groups with what they must be (Format Module 2025.10, sections 5 and 6). */
const MEMBERS: Readonly<
  Record<string, { readonly is: (value: unknown) => boolean; readonly words: string }>
> = {
  $description: { is: isText, words: 'a text' },
  $deprecated: { is: value => isText(value) || typeof value === 'boolean', words: 'true, false or a reason' },
  $type: { is: isText, words: 'the name of a type' },
};

/** Those that are read elsewhere, or are nobody's business. */
const OF_TOKENS = ['$value', '$ref', '$extensions', ...Object.keys(MEMBERS)];
const OF_GROUPS = ['$extends', '$root', '$ref', '$extensions', ...Object.keys(MEMBERS)];
/** Of whole files: the schema by which an editor checks them, and definitions that references lead to. */
const OF_FILES = ['$schema', '$defs'];

const REFERENCE = /\{[^{}]+\}/;

/** Texts in a value that hold a reference and something beside it. */
function* mixedTexts(value: unknown, at: readonly Step[]): Generator<readonly Step[]> {
  if (typeof value === 'string') {
    if (REFERENCE.test(value) && !/^\{[^{}]+\}$/.test(value.trim())) yield at;
  } else if (Array.isArray(value))
    for (const [index, item] of value.entries()) yield* mixedTexts(item, [...at, index]);
  else if (typeof value === 'object' && value !== null)
    for (const [name, item] of Object.entries(value)) yield* mixedTexts(item, [...at, name]);
}

export function* memberFaults(
  body: JsonObject,
  kind: 'token' | 'group' | 'file',
): Generator<MemberFault, void, undefined> {
  const known = kind === 'token' ? OF_TOKENS : kind === 'file' ? [...OF_GROUPS, ...OF_FILES] : OF_GROUPS;
  for (const [name, value] of Object.entries(body)) {
    const row = Object.hasOwn(MEMBERS, name) ? MEMBERS[name] : undefined;
    if (row && !row.is(value))
      yield { at: [name], severity: 'error', code: 'wrong-type', message: `“${name}” must be ${row.words}.` };
    else if (kind === 'token' && !name.startsWith('$'))
      yield {
        at: [name],
        severity: 'error',
        code: 'token-with-members',
        message: `A token holds no other: “${name}” must stand in a group, beside it.`,
      };
    else if (name.startsWith('$') && !known.includes(name)) {
      const near = nearest(name, known);
      const message = `“${name}” is no member of a ${kind}; it is kept, and means nothing.`;
      yield {
        at: [name],
        severity: 'warning',
        code: 'unknown-member',
        message,
        ...(near === undefined ? {} : { suggestion: near }),
      };
    }
  }
  if (kind !== 'token' && typeof body['$type'] === 'string' && !Object.hasOwn(TOKEN_TYPES, body['$type'])) {
    const names = Object.keys(TOKEN_TYPES);
    const near = nearest(body['$type'], names);
    yield {
      at: ['$type'],
      severity: 'warning',
      code: 'unknown-type',
      message: `“${body['$type']}” is no type; there are ${oneOf(names, 20)}.`,
      ...(near === undefined ? {} : { suggestion: near }),
    };
  }
  if (kind === 'token')
    for (const at of mixedTexts(body['$value'], ['$value']))
      yield {
        at,
        severity: 'error',
        code: 'wrong-reference',
        message: 'A reference stands alone: what is written beside it belongs into a calculation of a rule.',
      };
}
