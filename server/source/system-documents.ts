import { and, eq } from 'drizzle-orm';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { parseJson, writeJson } from '@periwinkle/core/formats/json-text';
import type { Database, Transaction } from './database';
import { notFound } from './refusal';
import { documents } from './schema';

export interface StoredDocument {
  readonly path: string;
  readonly revision: number;
  /** `null` of one that is not there: it was removed, or never was and has revision 0. */
  readonly body: unknown;
}

/**
 * Parsed documents by system and path, kept as long as the stored revision is the same. Keeping the same objects also
 * keeps what the core has computed from them. Only a cache: each use compares revisions with the database.
 */
const parsed = new Map<string, StoredDocument>();
const CACHE_SIZE = 2000;

export function bodyText(path: string, body: unknown): string | null {
  if (body === null) return null;
  return documentKind(path)?.json ? writeJson(body) : String(body);
}

function parsedBody(path: string, text: string | null): unknown {
  if (text === null) return null;
  return documentKind(path)?.json ? parseJson(text) : text;
}

/** The bodies of the documents that are there, by path. */
export const bodiesOf = (stored: Iterable<StoredDocument>): Map<string, unknown> =>
  new Map([...stored].flatMap(({ path, body }) => (body === null ? [] : [[path, body]])));

/** A document of those that were read. Throws the refusal 404 for a path that can be no document's. */
export function documentAt(all: ReadonlyMap<string, StoredDocument>, path: string): StoredDocument {
  if (!documentKind(path)) throw notFound(`There is no document “${path}”.`);
  return all.get(path) ?? { path, revision: 0, body: null };
}

/** All documents of a system, by path, removed ones too. */
export async function readDocuments(
  db: Database | Transaction,
  systemId: string,
): Promise<Map<string, StoredDocument>> {
  const revisions = await db
    .select({ path: documents.path, revision: documents.revision })
    .from(documents)
    .where(eq(documents.systemId, systemId))
    .orderBy(documents.path);
  const result = new Map<string, StoredDocument>();
  for (const { path, revision } of revisions) {
    const known = parsed.get(`${systemId}/${path}`);
    const document = known?.revision === revision ? known : await readDocument(db, systemId, path);
    if (document) result.set(path, document);
  }
  return result;
}

export async function readDocument(
  db: Database | Transaction,
  systemId: string,
  path: string,
): Promise<StoredDocument | undefined> {
  const [row] = await db
    .select({ revision: documents.revision, body: documents.body })
    .from(documents)
    .where(and(eq(documents.systemId, systemId), eq(documents.path, path)));
  if (!row) return undefined;
  const document = { path, revision: row.revision, body: parsedBody(path, row.body) };
  remember(systemId, document);
  return document;
}

/** Call once a document is committed. */
export function remember(systemId: string, document: StoredDocument): void {
  if (parsed.size >= CACHE_SIZE) parsed.clear();
  parsed.set(`${systemId}/${document.path}`, document);
}

export function forget(systemId: string): void {
  for (const key of parsed.keys()) if (key.startsWith(`${systemId}/`)) parsed.delete(key);
}
