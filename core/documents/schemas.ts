import { COMPLAINING, CONTENT_KINDS, FORGIVING, WITHOUT_LISTS } from './component-document';
import type { DocumentKind } from './document-kinds';
import { QUOTAS } from '../json/quotas';
import { TRIAL_DIRECTIONS, TRIAL_WIDTHS } from './trial-document';

/**
 * JSON Schemas (draft 2020-12 vocabulary) of our documents. The order of `properties` is the canonical order of keys.
 * Meaning that a schema cannot say (does that axis exist?) is checked in `checks/`.
 */
export interface Schema {
  readonly [keyword: string]: unknown;
}

const id = {
  type: 'string',
  pattern: '^[A-Za-z][A-Za-z0-9_-]{0,63}$',
  description: 'letters, digits, - and _',
};
const path = {
  type: 'string',
  pattern: '^[A-Za-z][A-Za-z0-9_-]{0,63}(/[A-Za-z][A-Za-z0-9_-]{0,63}){0,8}(::[a-z-]{1,32})?$',
  description: 'names joined by /, with :: before what a browser draws in a part',
};
const line = { type: 'string' };
const object = (properties: Schema, required: readonly string[] = [], more: Schema = {}): Schema => ({
  type: 'object',
  properties,
  required,
  additionalProperties: false,
  ...more,
});
const list = (items: Schema, more: Schema = {}): Schema => ({
  type: 'array',
  items,
  maxItems: QUOTAS.entries,
  ...more,
});
const mapOf = (value: Schema, keys: Schema = id): Schema => ({
  type: 'object',
  propertyNames: keys,
  additionalProperties: value,
});

const condition = mapOf({ type: ['string', 'array'], items: { type: 'string' } });

const part = object(
  {
    part: id,
    kind: id,
    title: line,
    description: line,
    content: { ...id, type: ['string', 'object'], additionalProperties: line },
    element: line,
    elements: list(line, { minItems: 1 }),
    type: line,
    component: id,
    with: { type: 'object' },
    parameters: mapOf(line),
    repeat: line,
    children: list({ $ref: '#/$defs/part' }),
  },
  ['part', 'kind'],
);

const content = object(
  {
    id,
    kind: { enum: [...CONTENT_KINDS] },
    title: line,
    required: { type: 'boolean' },
    from: list(line, { minItems: 1 }),
    as: line,
    else: line,
    text: line,
    entry: list({ $ref: '#/$defs/content' }),
  },
  ['id'],
);

/** What a sample gives, or an entry of a list in it, by key: a text, one for each value of an axis, or a list. */
const given = mapOf({
  type: ['string', 'object', 'array'],
  additionalProperties: line,
  items: { $ref: '#/$defs/given' },
});

/** A number, or the value of another field. */
const bound = {
  type: ['number', 'object'],
  properties: { field: line },
  required: ['field'],
  additionalProperties: false,
};

const partReference = { $ref: '#/$defs/part' };

const anatomyEdit = object({
  insert: partReference,
  remove: line,
  move: line,
  replace: line,
  by: partReference,
  change: line,
  to: {
    type: 'object',
    properties: {
      kind: id,
      ...Object.fromEntries(
        Object.entries({ title: line, description: line, content: id, element: line, type: line }).map(
          ([key, schema]) => [key, { ...schema, type: ['string', 'null'] }],
        ),
      ),
      elements: list(line, { type: ['array', 'null'], minItems: 1 }),
      component: id,
      with: { type: ['object', 'null'] },
      parameters: { type: ['object', 'null'] },
      repeat: { type: ['string', 'null'] },
      // Whoever tries to change these is told so at more length.
      part: {},
      children: {},
    },
    additionalProperties: false,
  },
  wrap: list(line, { minItems: 1 }),
  in: partReference,
  before: line,
  after: line,
  into: line,
});

const component = {
  ...object(
    {
      format: { const: 'periwinkle-component/1' },
      id,
      title: line,
      group: line,
      summary: line,
      extends: { type: ['string', 'null'] },
      content: list({ $ref: '#/$defs/content' }),
      parameters: list(
        object({ id, title: line, type: line, default: line, description: line }, ['id', 'type', 'default']),
      ),
      anatomy: partReference,
      anatomyEdits: list(anatomyEdit),
      axes: list(
        object(
          {
            id,
            kind: { enum: ['option', 'state'] },
            title: line,
            description: line,
            values: list(object({ id, title: line, description: line }, ['id']), { minItems: 1 }),
            default: line,
          },
          ['id'],
        ),
      ),
      limits: list(object({ id, while: condition, holds: condition, because: line }, ['while', 'holds'])),
      rules: list(
        object(
          {
            id,
            when: condition,
            after: line,
            set: mapOf(mapOf({ type: ['string', 'null'] }), path),
            note: line,
          },
          ['id'],
        ),
        { maxItems: QUOTAS.rules },
      ),
      situations: list(object({ id, title: line, when: condition, means: line }, ['id', 'when'])),
      samples: list(
        object(
          {
            id,
            title: line,
            content: { $ref: '#/$defs/given' },
            sources: { type: 'object' },
            wrong: mapOf(line),
          },
          ['id', 'content'],
        ),
      ),
      plates: list(
        object(
          {
            id,
            title: line,
            across: list(id),
            down: list(id),
            hold: mapOf(line),
            values: mapOf(list(line, { minItems: 1 })),
            sample: id,
            caption: line,
          },
          ['id', 'across', 'down'],
        ),
      ),
      decisions: list(
        object({ rules: list(line, { minItems: 2, maxItems: 2 }), properties: list(line), because: line }, [
          'rules',
          'because',
        ]),
      ),
      behaviour: object({
        value: object(
          {
            kind: line,
            least: { type: 'number' },
            most: { type: 'number' },
            stop: { type: 'boolean' },
            step: { type: 'number', exclusiveMinimum: 0 },
            length: { type: 'integer', minimum: 1, maximum: 64 },
            of: line,
            several: { type: 'boolean' },
          },
          ['kind'],
        ),
        parts: mapOf(line),
        checks: list(
          object(
            {
              id,
              kind: line,
              pattern: line,
              least: bound,
              most: bound,
              length: {
                type: ['integer', 'object'],
                minimum: 0,
                properties: {
                  least: { type: 'integer', minimum: 0 },
                  most: { type: 'integer', minimum: 0 },
                },
                additionalProperties: false,
              },
              equals: line,
              ask: line,
              message: line,
              because: line,
            },
            ['id', 'kind'],
          ),
        ),
        judging: object({
          complain: { enum: [...COMPLAINING] },
          forgive: { enum: [...FORGIVING] },
          approve: { type: 'boolean' },
        }),
        moves: list(
          object({ id, on: line, when: condition, do: list(line, { minItems: 1 }), because: line }, [
            'id',
            'on',
            'do',
          ]),
        ),
      }),
      walkthroughs: list(
        object({ id, title: line, sample: id, set: mapOf(line), acts: list(line), shows: line }, [
          'id',
          'acts',
        ]),
      ),
      guide: mapOf(line),
      without: object(Object.fromEntries(WITHOUT_LISTS.map(name => [name, list(line)]))),
    },
    ['format', 'id'],
  ),
  // A component without a base says everything itself. Types are told above, once.
  if: { properties: { extends: { type: 'string' } }, required: ['extends'] },
  else: {
    required: ['anatomy'],
    properties: {
      axes: { items: { required: ['kind'] } },
      rules: {
        items: {
          required: ['when', 'set'],
          properties: { set: { additionalProperties: { additionalProperties: line } } },
        },
      },
    },
  },
  $defs: { part, content, given },
};

/** What a system may be called, as a pattern: it stands in addresses. */
export const SYSTEM_ID = '^[a-z][a-z0-9-]{0,63}$';

const system = object(
  {
    format: { const: 'periwinkle-system/1' },
    id: { ...id, pattern: SYSTEM_ID },
    title: { type: 'string', maxLength: QUOTAS.titleLetters },
    subtitle: line,
    prefix: { type: 'string', pattern: '^[a-z][a-z0-9-]{0,31}$' },
    rootFontSize: { type: 'number', exclusiveMinimum: 0, maximum: 1000 },
    resolver: line,
    page: object({ surface: line, ink: line }),
    order: list(id),
  },
  ['format', 'id', 'title', 'prefix'],
);

const trial = object(
  {
    format: { const: 'periwinkle-trial/1' },
    id,
    title: line,
    description: line,
    width: { type: 'number', minimum: TRIAL_WIDTHS[0], maximum: TRIAL_WIDTHS[1] },
    direction: { enum: [...TRIAL_DIRECTIONS] },
    locale: line,
    fields: list(
      object(
        {
          component: id,
          name: { type: 'string', minLength: 1, maxLength: 190 },
          set: mapOf(line),
          sample: id,
          required: { type: 'boolean' },
        },
        ['component', 'name'],
      ),
    ),
    send: line,
  },
  ['format', 'id', 'fields'],
);

const sources = list({ type: 'object' });
const setBody = { description: line, sources, $extensions: { type: 'object' } };
const modifierBody = {
  description: line,
  default: line,
  contexts: { type: 'object', additionalProperties: sources, minProperties: 1 },
  $extensions: { type: 'object' },
};

/** Resolver documents: Design Tokens Community Group, resolver module 2025.10. */
const resolver = object(
  {
    $schema: line,
    version: { const: '2025.10' },
    name: line,
    description: line,
    sets: { type: 'object', additionalProperties: object(setBody, ['sources']) },
    modifiers: { type: 'object', additionalProperties: object(modifierBody, ['contexts']) },
    resolutionOrder: list({ type: 'object' }),
    $defs: { type: 'object' },
    $extensions: { type: 'object' },
  },
  ['version', 'resolutionOrder'],
);

/** Token files are read by `tokens/`, which reports with more sense than a schema can; here only the outermost shape. */
const tokens = { type: 'object' };

export const SCHEMAS: Partial<Record<DocumentKind, Schema>> = { system, component, resolver, tokens, trial };

/** How validators are made of them; every error knows the schema and the data it is about. */
export const VALIDATION = {
  allErrors: true,
  strict: true,
  allowUnionTypes: true,
  strictRequired: false,
  strictTypes: false,
  verbose: true,
} as const;
