import { QUOTAS } from '@periwinkle/core/json/quotas';
import { BODY_SCHEMAS } from '../worker/request-bodies';

type Json = Record<string, unknown>;

const problem = (description: string, headers: Json = {}): Json => ({
  description,
  headers,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
});
const answer = (description: string, schema: Json, headers: Json = {}): Json => ({
  description,
  headers,
  content: { 'application/json': { schema } },
});
const parameter = (
  name: string,
  where: 'path' | 'query' | 'header',
  description: string,
  required = where === 'path',
): Json => ({
  name,
  in: where,
  required,
  description,
  schema: { type: 'string' },
});
const body = (schema: keyof typeof BODY_SCHEMAS, type = 'application/json'): Json => ({
  required: true,
  content: { [type]: { schema: BODY_SCHEMAS[schema] } },
});
const ref = (name: string): Json => ({ $ref: `#/components/schemas/${name}` });
const list = (items: Json): Json => ({ type: 'array', items });
const etag = { ETag: { description: 'The revision, in quotes', schema: { type: 'string' } } };
const systemId = parameter('systemId', 'path', 'Id of the system');
const path = parameter('path', 'path', 'Path of the document in the system’s folder');

const step = (direction: string, words: string): Json => ({
  post: {
    operationId: direction,
    summary: words,
    parameters: [
      systemId,
      parameter('Idempotency-Key', 'header', 'Names this step: sent again, it is done once'),
      parameter('Periwinkle-Author', 'header', 'Who did it'),
    ],
    requestBody: { ...body('step'), required: false },
    responses: {
      200: answer('The edits this made', list(ref('Edit'))),
      404: problem('No such system, or no such change'),
      409: problem('Nothing to do, or something stands in the way: `obstacle` names it'),
    },
  },
});

type Operation = Json & { readonly requestBody?: Json; readonly responses: Json };

interface Common {
  readonly status: number;
  readonly words: string;
  readonly headers?: Json;
  readonly isOf: (place: {
    readonly path: string;
    readonly method: string;
    readonly operation: Operation;
  }) => boolean;
}

const DESCRIPTION = '/api/openapi.json';

/** Answers that many requests can have. */
const COMMON: readonly Common[] = [
  {
    status: 400,
    words: 'Not readable; `detail` says what',
    isOf: ({ path, operation }) => path.includes('{') || operation.requestBody !== undefined,
  },
  { status: 403, words: 'Sent by a page of another origin', isOf: ({ method }) => method !== 'get' },
  {
    status: 413,
    words: 'More than a request may hold, a document or a system may come to, or may be worked out in one go',
    isOf: ({ operation }) => operation.requestBody !== undefined,
  },
  {
    status: 415,
    words: 'Not of the type, encoding or character set that is read here',
    isOf: ({ operation }) => operation.requestBody !== undefined,
  },
  { status: 421, words: 'For another host', isOf: () => true },
  {
    status: 500,
    words: 'Something went wrong here; `instance` is its id in the log',
    isOf: ({ path }) => path !== DESCRIPTION && path !== '/api/health',
  },
  {
    status: 503,
    words:
      'The database does not answer, too much was asked at once, or something else had to be given up; ask again in a moment',
    headers: {
      'Retry-After': { description: 'When to ask again, in seconds', schema: { type: 'integer' } },
    },
    isOf: ({ path }) => path !== DESCRIPTION,
  },
];

/** Operations with the answers that they share with others. */
const complete = (paths: Record<string, Record<string, Operation>>): Record<string, Json> =>
  Object.fromEntries(
    Object.entries(paths).map(([path, operations]) => [
      path,
      Object.fromEntries(
        Object.entries(operations).map(([method, operation]) => {
          const common = COMMON.filter(({ isOf }) => isOf({ path, method, operation }));
          const shared = Object.fromEntries(
            common.map(({ status, words, headers }) => [status, problem(words, headers)]),
          );
          return [method, { ...operation, responses: { ...shared, ...operation.responses } }];
        }),
      ),
    ]),
  );

/** Every route of the server; tests hold it against the routes that are really there, and against what they answer. */
export const OPENAPI: Json & { paths: Record<string, Json> } = {
  openapi: '3.1.0',
  info: { title: 'Periwinkle', version: '0.1.0', license: { name: 'MIT', identifier: 'MIT' } },
  paths: complete({
    '/api/health': {
      get: {
        operationId: 'health',
        summary: 'Whether the application and its database answer',
        responses: { 200: answer('Both answer', { type: 'object' }) },
      },
    },
    [DESCRIPTION]: {
      get: {
        operationId: 'openapi',
        summary: 'This document',
        responses: { 200: answer('OpenAPI 3.1', { type: 'object' }) },
      },
    },
    '/api/systems': {
      get: {
        operationId: 'listSystems',
        summary: 'The systems on the shelf',
        responses: { 200: answer('Summaries', list(ref('System'))) },
      },
      post: {
        operationId: 'createSystem',
        summary: 'Put a system in, all its documents at once',
        requestBody: body('newSystem'),
        responses: {
          201: answer('It is stored', ref('System')),
          409: problem('The id is taken, or the shelf is full'),
          422: problem('The system has errors; `problems` lists them'),
        },
      },
    },
    '/api/systems/{systemId}': {
      get: {
        operationId: 'readSystem',
        summary: 'A system with all its documents',
        parameters: [systemId, parameter('Periwinkle-Author', 'header', 'Whose steps `history` tells')],
        responses: {
          200: answer('All of it, as of one moment', ref('WholeSystem')),
          404: problem('No such system'),
        },
      },
      delete: {
        operationId: 'removeSystem',
        summary: 'Take a system off the shelf',
        parameters: [systemId],
        responses: { 204: { description: 'It can be restored' }, 404: problem('No such system') },
      },
    },
    '/api/systems/{systemId}/restore': {
      post: {
        operationId: 'restoreSystem',
        summary: 'Put a removed system back',
        parameters: [systemId],
        responses: {
          204: { description: 'It is back' },
          404: problem('No such system'),
          409: problem('The shelf is full'),
        },
      },
    },
    '/api/systems/{systemId}/duplicate': {
      post: {
        operationId: 'duplicateSystem',
        summary: 'Copy a system under another id',
        parameters: [systemId],
        requestBody: body('copy'),
        responses: {
          201: answer('The copy', ref('System')),
          404: problem('No such system'),
          409: problem('The id is taken, or the shelf is full'),
          422: problem('The copy would have errors; `problems` lists them'),
        },
      },
    },
    '/api/systems/{systemId}/documents/{path}': {
      get: {
        operationId: 'readDocument',
        summary: 'One document, written canonically',
        parameters: [systemId, path],
        responses: {
          200: answer('The document', {}, etag),
          304: { description: 'Not changed' },
          404: problem('No such document'),
        },
      },
      patch: {
        operationId: 'editDocument',
        summary: 'Change a document by a JSON Patch (RFC 6902)',
        parameters: [
          systemId,
          path,
          parameter('If-Match', 'header', 'The revision the patch was made on, in quotes', true),
          parameter('Idempotency-Key', 'header', 'Names this edit: sent again, it is stored once'),
          parameter('Periwinkle-Change', 'header', 'Edits of one change are undone together'),
          parameter('Periwinkle-Label', 'header', 'What was done, in words, percent-encoded'),
          parameter('Periwinkle-Author', 'header', 'Who did it'),
        ],
        requestBody: body('patch', 'application/json-patch+json'),
        responses: {
          200: answer('It is stored', ref('Edit'), etag),
          404: problem('No such document'),
          409: problem('The patch does not fit'),
          412: problem('The document has changed; `since` lists what happened first'),
          422: problem('The edit would break the system: `problems` says how; or its key names another edit'),
          428: problem('If-Match is missing'),
        },
      },
    },
    '/api/systems/{systemId}/undo': step(
      'undo',
      'Take a change back: the one that is named, or the last that the author made',
    ),
    '/api/systems/{systemId}/redo': step(
      'redo',
      'Bring a change back: the one that is named, or the last that the author took back',
    ),
    '/api/systems/{systemId}/edits': {
      get: {
        operationId: 'listEdits',
        summary: `The next edits after one that is known, oldest first: ${QUOTAS.editsTold} at most, fewer where they are long`,
        parameters: [
          systemId,
          parameter('after', 'query', 'Number of the last edit known'),
          parameter('key', 'query', 'Key of that edit'),
        ],
        responses: {
          200: answer('Edits', list(ref('Edit'))),
          404: problem('No such system'),
          410: problem('The edit of that number has another key: read the system anew'),
        },
      },
      post: {
        operationId: 'editTogether',
        summary:
          'Change several documents by a JSON Patch each, all or none; where a document has gone on since the revision that a patch was made on, it is placed by what it means; a document is made by replacing `null` as a whole at revision 0 or where it was removed, and removed by replacing it with `null`',
        parameters: [
          systemId,
          parameter('Periwinkle-Change', 'header', 'Edits of one change are undone together'),
          parameter('Periwinkle-Label', 'header', 'What was done, in words, percent-encoded'),
          parameter('Periwinkle-Author', 'header', 'Who did it'),
        ],
        requestBody: body('edit'),
        responses: {
          200: answer('All are stored', list(ref('Edit'))),
          404: problem('No such system, or no such document'),
          409: problem('A patch does not fit'),
          412: problem('A part meets what was stored since it was made; `since` lists that'),
          422: problem('The edit would break the system: `problems` says how; or its key names another edit'),
        },
      },
    },
    '/api/systems/{systemId}/changes': {
      get: {
        operationId: 'listChanges',
        summary: 'A page of what was done by anybody, newest first',
        parameters: [
          systemId,
          parameter('most', 'query', 'How many, 200 at most'),
          parameter('before', 'query', 'What was made before this number'),
          parameter('after', 'query', 'What was made next after this number'),
        ],
        responses: { 200: answer('Changes', list(ref('Change'))), 404: problem('No such system') },
      },
    },
    '/api/systems/{systemId}/history': {
      get: {
        operationId: 'readHistory',
        summary: 'What the author would take back or bring back next',
        parameters: [systemId, parameter('Periwinkle-Author', 'header', 'Whose steps')],
        responses: { 200: answer('Both ends', ref('HistoryEnds')), 404: problem('No such system') },
      },
    },
    '/api/systems/{systemId}/events': {
      get: {
        operationId: 'events',
        summary:
          'Server-sent events: `edit` with each edit as it is stored; `more` where one is too long for that, to be read from `/edits` after the number given; `anew` where the edit of that number is not the one that is known, as after a backup was put back: the system is to be read anew',
        parameters: [
          systemId,
          parameter('after', 'query', 'Number of the last edit known; `Last-Event-ID` goes before'),
          parameter('key', 'query', 'Key of that edit'),
        ],
        responses: {
          200: { description: 'A stream', content: { 'text/event-stream': { schema: { type: 'string' } } } },
          404: problem('No such system'),
        },
      },
    },
  } as Record<string, Record<string, Operation>>),
  components: {
    schemas: {
      Problem: {
        type: 'object',
        required: ['type', 'title', 'status', 'detail'],
        properties: {
          type: { type: 'string' },
          title: { type: 'string' },
          status: { type: 'integer' },
          detail: { type: 'string' },
          instance: { type: 'string', description: 'Of what went wrong here: its id in the log' },
          problems: list({ type: 'object' }),
          more: { type: 'integer', description: 'How many problems there are besides' },
          since: list(ref('Edit')),
          obstacle: { anyOf: [ref('NamedChange'), { type: 'null' }] },
        },
      },
      System: {
        type: 'object',
        required: ['id', 'title', 'createdAt', 'changedAt'],
        properties: {
          id: { type: 'string' },
          title: { type: 'string' },
          createdAt: { type: 'string' },
          changedAt: { type: 'string' },
        },
      },
      WholeSystem: {
        allOf: [
          ref('System'),
          {
            type: 'object',
            required: ['documents', 'history', 'lastEdit', 'lastKey'],
            properties: {
              documents: list({
                type: 'object',
                required: ['path', 'revision', 'body'],
                properties: {
                  path: { type: 'string' },
                  revision: { type: 'integer' },
                  body: { description: '`null` of a document that was removed' },
                },
              }),
              history: ref('HistoryEnds'),
              lastEdit: { type: 'integer' },
              lastKey: { type: 'string' },
            },
          },
        ],
      },
      HistoryEnds: {
        type: 'object',
        required: ['undo', 'redo'],
        properties: {
          undo: { anyOf: [ref('NamedChange'), { type: 'null' }] },
          redo: { anyOf: [ref('NamedChange'), { type: 'null' }] },
        },
      },
      NamedChange: {
        type: 'object',
        required: ['change', 'label'],
        properties: { change: { type: 'string' }, label: { type: 'string' } },
      },
      Change: {
        allOf: [
          ref('NamedChange'),
          {
            type: 'object',
            required: ['made', 'author', 'at', 'state'],
            properties: {
              made: { type: 'integer' },
              author: { type: 'string' },
              at: { type: 'string' },
              state: { enum: ['done', 'undone'] },
            },
          },
        ],
      },
      Edit: {
        type: 'object',
        required: [
          'id',
          'path',
          'revision',
          'patch',
          'kind',
          'changeId',
          'target',
          'editKey',
          'label',
          'author',
          'at',
        ],
        properties: {
          id: { type: 'integer' },
          path: { type: 'string' },
          revision: { type: 'integer' },
          patch: {
            ...BODY_SCHEMAS.patch,
            minItems: 0,
            description: 'Empty where a step had nothing to do there',
          },
          kind: { enum: ['edit', 'undo', 'redo'] },
          changeId: { type: 'string' },
          target: { type: ['string', 'null'] },
          editKey: { type: 'string' },
          label: { type: 'string' },
          author: { type: 'string' },
          at: { type: 'string' },
        },
      },
    },
  },
};

/** What addresses look like that a path of the description stands for. */
export const addressesOf = (path: string): RegExp =>
  new RegExp(`^${path.replace('{path}', '.+').replace(/\{\w+\}/g, '[^/]+')}$`);
