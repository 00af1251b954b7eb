import Ajv, { type ValidateFunction } from 'ajv';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type { Patch } from '@periwinkle/core/patch/operations';
import type { LocalProblem } from '@periwinkle/core/json/problem';
import { readJson } from '@periwinkle/core/json/read-json';
import { SYSTEM_ID } from '@periwinkle/core/documents/system-document';
import { Refusal } from '../http/refusal';
import { computing } from './computing';

/** How a client names an edit, a change or a step: padding and letters' case must not make two of them one. */
export const KEY = `^[\\x21-\\x7e]{1,${QUOTAS.nameLetters}}$`;

const patch = {
  type: 'array',
  minItems: 1,
  maxItems: QUOTAS.operations,
  items: {
    type: 'object',
    required: ['op', 'path'],
    properties: {
      op: { enum: ['add', 'remove', 'replace', 'move', 'copy', 'test'] },
      path: { type: 'string' },
      from: { type: 'string' },
      value: {},
    },
    additionalProperties: false,
  },
} as const;

/** Schemas of request bodies; the OpenAPI document shows the same ones. */
export const BODY_SCHEMAS = {
  patch,
  edit: {
    type: 'object',
    required: ['parts'],
    properties: {
      parts: {
        type: 'array',
        minItems: 1,
        maxItems: 1000,
        items: {
          type: 'object',
          required: ['path', 'revision', 'patch', 'key'],
          properties: {
            path: { type: 'string', maxLength: 190 },
            revision: { type: 'integer', minimum: 0, maximum: 999_999_999 },
            patch,
            key: { type: 'string', pattern: KEY },
          },
          additionalProperties: false,
        },
      },
    },
    additionalProperties: false,
  },
  newSystem: {
    type: 'object',
    required: ['documents'],
    properties: { documents: { type: 'object', minProperties: 1, maxProperties: QUOTAS.documents } },
    additionalProperties: false,
  },
  step: {
    type: 'object',
    properties: { change: { type: 'string', pattern: KEY } },
    additionalProperties: false,
  },
  copy: {
    type: 'object',
    required: ['id', 'title'],
    properties: {
      id: { type: 'string', pattern: SYSTEM_ID },
      title: { type: 'string', minLength: 1, maxLength: QUOTAS.titleLetters },
    },
    additionalProperties: false,
  },
} as const;

// One fault of a body is enough: a patch of thousands would have thousands.
const ajv = new Ajv({ allErrors: false, strict: true, strictRequired: false });
const validators = new Map<string, ValidateFunction>();

/** Reads a body's text as JSON of a schema. Throws `Refusal` (400) with the first fault. */
export const readBody = <T>(name: keyof typeof BODY_SCHEMAS, text: string): T =>
  computing(() => bodyOf(name, text) as T);

function bodyOf(name: keyof typeof BODY_SCHEMAS, text: string): unknown {
  const read = readJson(text);
  if (!read.ok)
    throw new Refusal(statusOf(read.problem), read.problem.code, 'Not readable', read.problem.message, {
      pointer: read.problem.pointer,
    });
  if (!validators.has(name)) validators.set(name, ajv.compile(BODY_SCHEMAS[name]));
  const validate = validators.get(name)!;
  if (!validate(read.value)) {
    const [fault] = validate.errors ?? [];
    throw new Refusal(
      400,
      'wrong-shape',
      'Not of the right shape',
      `${fault?.instancePath || '/'} ${fault?.message ?? 'does not fit'}`,
    );
  }
  return read.value;
}

/** What is JSON and yet could not be written into a file is no fault of the request's form. */
const statusOf = ({ code }: LocalProblem): number => (code === 'lone-surrogate' ? 422 : 400);

export const readPatch = (text: string): Patch => readBody<Patch>('patch', text);
