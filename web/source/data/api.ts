import { nanoid } from 'nanoid';
import { parseJson, writeJson } from '@periwinkle/core/formats/json-text';
import type { Patch } from '@periwinkle/core/formats/patch';
import { ApiError } from './api-error';

/** What the server answers; see its OpenAPI document. */
export interface SystemSummary {
  readonly id: string;
  readonly title: string;
  readonly createdAt: string;
  readonly changedAt: string;
}

export interface StoredDocument {
  readonly path: string;
  readonly revision: number;
  readonly body: unknown;
}

export interface HistoryEnds {
  readonly undo: string | null;
  readonly redo: string | null;
}

export interface WholeSystem extends SystemSummary {
  readonly documents: readonly StoredDocument[];
  readonly history: HistoryEnds;
  readonly lastEdit: number;
}

export interface StoredEdit {
  readonly id: number;
  readonly path: string;
  readonly revision: number;
  readonly patch: Patch;
  readonly kind: 'edit' | 'undo' | 'redo';
  readonly changeId: string;
  readonly editKey: string;
  readonly label: string;
  readonly author: string;
  readonly at: string;
}

async function call<T>(path: string, init: RequestInit = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      ...init,
      headers: { Accept: 'application/json', ...init.headers },
    });
  } catch {
    throw new ApiError(0, 'The server does not answer.');
  }
  const text = await response.text();
  if (response.ok) return (text === '' ? undefined : parseJson(text)) as T;
  try {
    const problem = parseJson(text) as { detail?: string } & ApiError['body'];
    throw new ApiError(response.status, problem.detail ?? response.statusText, problem);
  } catch (error) {
    if (error instanceof ApiError) throw error;
    throw new ApiError(response.status, response.statusText || `The server answered ${response.status}.`);
  }
}

const at = (systemId: string): string => `/systems/${encodeURIComponent(systemId)}`;
const post = (body?: unknown): RequestInit => ({
  method: 'POST',
  ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: writeJson(body) }),
});

/** A name for this browser, so that edits say where they came from. */
function author(): string {
  const key = 'periwinkle:author';
  const known = localStorage.getItem(key);
  if (known) return known;
  const fresh = nanoid();
  localStorage.setItem(key, fresh);
  return fresh;
}

export interface EditToSend {
  readonly path: string;
  readonly revision: number;
  readonly patch: Patch;
  readonly key: string;
  readonly changeId: string;
  readonly label: string;
}

export const api = {
  systems: () => call<SystemSummary[]>('/systems'),
  system: (id: string) => call<WholeSystem>(at(id)),
  create: (documents: Record<string, unknown>) => call<SystemSummary>('/systems', post({ documents })),
  duplicate: (id: string, copy: { id: string; title: string }) =>
    call<SystemSummary>(`${at(id)}/duplicate`, post(copy)),
  remove: (id: string) => call<void>(at(id), { method: 'DELETE' }),
  restore: (id: string) => call<void>(`${at(id)}/restore`, post()),
  edits: (id: string) => call<StoredEdit[]>(`${at(id)}/edits?most=50`),
  /** The next edits after the one with an id, in order; none when there are no more. */
  editsAfter: (id: string, after: number) => call<StoredEdit[]>(`${at(id)}/edits?after=${after}`),
  history: (id: string) => call<HistoryEnds>(`${at(id)}/history`),
  /** A step through the history; asked for again under the same key it is done once. */
  step: (id: string, direction: 'undo' | 'redo', key: string) =>
    call<StoredEdit[]>(`${at(id)}/${direction}`, {
      ...post(),
      headers: { 'Periwinkle-Author': author(), 'Idempotency-Key': key },
    }),
  edit: (id: string, edit: EditToSend) =>
    call<StoredEdit>(`${at(id)}/documents/${edit.path}`, {
      method: 'PATCH',
      headers: {
        'Content-Type': 'application/json-patch+json',
        'If-Match': `"${edit.revision}"`,
        'Idempotency-Key': edit.key,
        'Periwinkle-Change': edit.changeId,
        'Periwinkle-Label': encodeURIComponent(edit.label),
        'Periwinkle-Author': author(),
      },
      body: writeJson(edit.patch),
    }),
};

export const eventsUrl = (id: string, after: number): string => `/api${at(id)}/events?after=${after}`;
