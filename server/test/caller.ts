import type { PatchOperation } from '@periwinkle/core/formats/patch';

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

/** Speaks with a server as a client does. */
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
    return {
      status: response.status,
      type: response.headers.get('content-type') ?? '',
      etag: response.headers.get('etag'),
      body: (text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : { text }) as Answer['body'],
    };
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
