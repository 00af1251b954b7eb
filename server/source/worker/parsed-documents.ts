import { and, eq, type SQL } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { parseJson, writeJson } from '@periwinkle/core/json/json-text';
import type { Database } from '../storage/open-database';
import type { Transaction } from '../storage/database';
import { notFound } from '../http/refusal';
import { documents } from '../storage/schema';
import { computing, reading } from './computing';

export interface StoredDocument {
  readonly path: string;
  readonly revision: number;
  /** `null` of one that is not there: it was removed, or never was and has revision 0. */
  readonly body: unknown;
  /** Of its text. */
  readonly letters: number;
}

/**
 * Parsed documents by system and path, as long as the stored revision is the same. Keeping the same objects also keeps what the core has
 * computed from them. Only a cache: each use compares revisions with the database. In letters of the texts; what is made of them takes
 * several times as much.
 */
const parsed = new LRUCache<string, StoredDocument>({
  maxSize: 32_000_000,
  sizeCalculation: ({ letters }) => letters + 1,
});

export function bodyText(path: string, body: unknown): string | null {
  if (body === null) return null;
  return documentKind(path)?.json ? writeJson(body) : String(body);
}

function parsedBody(path: string, text: string | null): unknown {
  if (text === null) return null;
  return documentKind(path)?.json ? computing(() => parseJson(text)) : text;
}

/** The bodies of the documents that are there, by path. */
export const bodiesOf = (stored: Iterable<StoredDocument>): Map<string, unknown> =>
  new Map([...stored].flatMap(({ path, body }) => (body === null ? [] : [[path, body]])));

/** A document of those that were read. Throws the refusal 404 for a path that can be no document's. */
export function documentAt(all: ReadonlyMap<string, StoredDocument>, path: string): StoredDocument {
  if (!documentKind(path)) throw notFound(`There is no document “${path}”.`);
  return all.get(path) ?? { path, revision: 0, body: null, letters: 0 };
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
    const document = known(systemId, path, revision) ?? (await readDocument(db, systemId, path));
    if (document) result.set(path, document);
  }
  return result;
}

/** A document as it is by now; `undefined` where none ever was. */
export async function documentNow(
  db: Database,
  systemId: string,
  path: string,
): Promise<StoredDocument | undefined> {
  const [row] = await db.select({ revision: documents.revision }).from(documents).where(isAt(systemId, path));
  return row && (known(systemId, path, row.revision) ?? readDocument(db, systemId, path));
}

const isAt = (systemId: string, path: string): SQL | undefined =>
  and(eq(documents.systemId, systemId), eq(documents.path, path));

function known(systemId: string, path: string, revision: number): StoredDocument | undefined {
  const document = parsed.get(`${systemId}/${path}`);
  return document?.revision === revision ? document : undefined;
}

/** To ask for a document takes as long as to read so many letters. */
const ROW_LETTERS = 500;

async function readDocument(
  db: Database | Transaction,
  systemId: string,
  path: string,
): Promise<StoredDocument | undefined> {
  const [row] = await db
    .select({ revision: documents.revision, body: documents.body })
    .from(documents)
    .where(isAt(systemId, path));
  if (!row) return undefined;
  const { revision, body: text } = row;
  reading((text?.length ?? 0) + ROW_LETTERS, 'system');
  const document = { path, revision, body: parsedBody(path, text), letters: text?.length ?? 0 };
  remember(systemId, document);
  return document;
}

/** Call once a document is committed. */
export function remember(systemId: string, document: StoredDocument): void {
  parsed.set(`${systemId}/${document.path}`, document);
}
