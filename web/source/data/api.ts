import { nanoid } from 'nanoid';
import { parseJson, writeJson } from '@periwinkle/core/json/json-text';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type {
  HistoryEnds,
  ListedChange,
  StoredEdit,
  SystemSummary,
  WholeSystem,
} from '@periwinkle/protocol/wire';
import { shortened } from '@periwinkle/core/text/shortened';
import type { PendingEdit } from '../synchronisation/working-copy';
import { ApiError } from './api-error';
import { asked, type Answered } from './asking';

/** Which page of the list of what was done: the newest, or what was made before or next after a change. */
export type ChangesPage = { readonly before: number } | { readonly after: number } | null;

async function call<T>(path: string, init: RequestInit = {}): Promise<T> {
  let response: Answered;
  try {
    response = await asked(`/api${path}`, {
      ...init,
      headers: { Accept: 'application/json', 'Periwinkle-Author': author(), ...init.headers },
    });
  } catch {
    throw new ApiError(0, 'The server does not answer.');
  }
  const { text } = response;
  try {
    if (response.ok) return (text === '' ? undefined : parseJson(text)) as T;
    const problem = parseJson(text) as { detail?: string } & ApiError['body'];
    throw new ApiError(response.status, problem.detail ?? response.statusText, problem);
  } catch (error) {
    if (error instanceof ApiError) throw error;
    throw new ApiError(response.status, foreignWords(response));
  }
}

/**
 * What is no answer of ours comes from something before the server: a proxy that wants one to sign in, or does not let so much through. What was
 * to be stored is kept, and sent again.
 */
function foreignWords({ status, statusText, text }: Answered): string {
  const [, title] = /<title[^>]*>([^<]*)<\/title>/i.exec(text) ?? [];
  const named = title?.trim() ? ` (“${shortened(title.trim(), 80)}”)` : '';
  if (/^\s*</.test(text))
    return `A page came instead of an answer${named}: something before the server may want you to sign in. Nothing is lost.`;
  return statusText || `The server answered ${status}.`;
}

/** The last edit that is known: its number, and its key, by which the server sees whether it is still the same. */
export interface KnownEdit {
  readonly id: number;
  readonly key: string;
}

const afterQuery = ({ id, key }: KnownEdit): string =>
  new URLSearchParams({ after: String(id), ...(key === '' ? {} : { key }) }).toString();

const at = (systemId: string): string => `/systems/${encodeURIComponent(systemId)}`;
const post = (body?: unknown): RequestInit => ({
  method: 'POST',
  ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: writeJson(body) }),
});

let name: string | null = null;

/** A name for this browser, so that edits say where they came from; of this page alone where the browser keeps nothing. */
export function author(): string {
  name ??= keptName();
  return name;
}

function keptName(): string {
  const key = 'periwinkle:author';
  const fresh = nanoid();
  try {
    const known = localStorage.getItem(key);
    if (known) return known;
    localStorage.setItem(key, fresh);
  } catch {
    // A browser that keeps nothing.
  }
  return fresh;
}

export const api = {
  systems: () => call<SystemSummary[]>('/systems'),
  system: (id: string) => call<WholeSystem>(at(id)),
  create: (documents: Record<string, unknown>) => call<SystemSummary>('/systems', post({ documents })),
  duplicate: (id: string, copy: { id: string; title: string }) =>
    call<SystemSummary>(`${at(id)}/duplicate`, post(copy)),
  remove: (id: string) => call<void>(at(id), { method: 'DELETE' }),
  restore: (id: string) => call<void>(`${at(id)}/restore`, post()),
  changes: (id: string, page: ChangesPage, most: number) =>
    call<ListedChange[]>(
      `${at(id)}/changes?${new URLSearchParams(Object.entries({ ...page, most }).map(([key, value]) => [key, String(value)]))}`,
    ),
  /** The next edits after one that is known, in order; none when there are no more. Status 410 where that is another by now. */
  editsAfter: (id: string, known: KnownEdit) => call<StoredEdit[]>(`${at(id)}/edits?${afterQuery(known)}`),
  history: (id: string) => call<HistoryEnds>(`${at(id)}/history`),
  /** A step through the history by one change; asked for again under the same key it is done once. */
  step: (id: string, direction: 'undo' | 'redo', change: string, key: string) => {
    const init = post({ change });
    return call<StoredEdit[]>(`${at(id)}/${direction}`, {
      ...init,
      headers: { ...init.headers, 'Idempotency-Key': key },
    });
  },
  /** Stores an edit, each part made on a revision of its document: all of it, or nothing. */
  edit: (id: string, { parts, changeId, label }: PendingEdit, revisions: readonly number[]) => {
    const init = post({
      parts: parts.map(({ key, path, patch }, index) => ({ key, path, revision: revisions[index], patch })),
    });
    // What waits since before labels were cut between letters is sent, too.
    const named = {
      'Periwinkle-Change': changeId,
      'Periwinkle-Label': encodeURIComponent(shortened(label, QUOTAS.titleLetters)),
    };
    return call<StoredEdit[]>(`${at(id)}/edits`, { ...init, headers: { ...init.headers, ...named } });
  },
};

export const systemUrl = (id: string): string => `/api${at(id)}`;
export const eventsUrl = (id: string, known: KnownEdit): string =>
  `/api${at(id)}/events?${afterQuery(known)}`;
