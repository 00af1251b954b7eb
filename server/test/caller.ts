import Ajv from 'ajv';
import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { addressesOf, OPENAPI } from '../source/http/openapi';

/** An answer of the server, its body read as JSON where it is. */
export interface Answer {
  readonly status: number;
  readonly type: string;
  readonly etag: string | null;
  readonly body: Record<string, unknown> & {
    problems?: { pointer: string; code: string; suggestion?: string }[];
  };
}

export const FIELD = '/api/systems/quayside/documents/components/text-field.component.json';
export const RAW = '/api/systems/quayside/documents/tokens/raw.tokens.json';

const ajv = new Ajv({ strict: false });
ajv.addSchema({ $id: 'openapi', ...OPENAPI });
const escaped = (step: string): string => step.replaceAll('~', '~0').replaceAll('/', '~1');

/** What an answer has that the server's own description does not say; nothing of addresses that it does not describe. */
function undescribed(method: string, address: string, status: number, type: string, body: unknown): string[] {
  const path = address.split('?')[0]!;
  const found = Object.keys(OPENAPI.paths).find(template => addressesOf(template).test(path));
  const operation =
    found && (OPENAPI.paths[found]![method.toLowerCase()] as { responses: Record<string, object> });
  if (!operation) return [];
  const said = operation.responses[status] as { content?: Record<string, { schema: object }> } | undefined;
  if (!said) return [`${method} ${found}: ${status} is not described`];
  const media = type.split(';')[0]!.trim();
  if (!said.content || status === 304) return [];
  const isDocument = found.endsWith('{path}') && method === 'GET' && status === 200;
  if (isDocument) return [];
  if (!said.content[media]) return [`${method} ${found}: ${status} as ${media} is not described`];
  const at = ['paths', found, method.toLowerCase(), 'responses', String(status), 'content', media, 'schema'];
  const validate = ajv.compile({ $ref: `openapi#/${at.map(escaped).join('/')}` });
  return validate(body) ? [] : [`${method} ${found}: ${status}: ${ajv.errorsText(validate.errors)}`];
}

/** Speaks with a server as a client does, and holds its answers against its description. */
export class Caller {
  constructor(private readonly url: () => string) {}

  async call(
    method: string,
    path: string,
    body?: string,
    headers: Record<string, string> = {},
  ): Promise<Answer> {
    const response = await fetch(this.url() + path, {
      method,
      headers,
      ...(body === undefined ? {} : { body }),
    });
    const text = await response.text();
    const answer = {
      status: response.status,
      type: response.headers.get('content-type') ?? '',
      etag: response.headers.get('etag'),
      body: (text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : { text }) as Answer['body'],
    };
    const faults = undescribed(method, path, answer.status, answer.type, answer.body);
    if (faults.length > 0) throw new Error(faults.join('\n'));
    return answer;
  }

  async revision(path: string): Promise<string> {
    return (await this.call('GET', path)).etag!;
  }

  async patch(
    path: string,
    operations: readonly PatchOperation[],
    headers: Record<string, string> = {},
  ): Promise<Answer> {
    const match = headers['If-Match'] ?? (await this.revision(path));
    return this.call('PATCH', path, JSON.stringify(operations), {
      'Content-Type': 'application/json-patch+json',
      ...headers,
      'If-Match': match,
    });
  }
}
