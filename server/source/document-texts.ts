import { and, eq, inArray } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { writeJson } from '@periwinkle/core/formats/json-text';
import type { Database, Transaction } from './database';
import { rawObject, RawJson } from './raw-json';
import { documents } from './schema';

/** A document as it is stored: JSON, or the text of an icon or a page; `null` of one that was removed. */
export interface DocumentText {
  readonly path: string;
  readonly revision: number;
  readonly text: string | null;
}

/** Only a cache: each use compares revisions with the database. In letters; readers of one system share its texts. */
const known = new LRUCache<string, DocumentText>({
  maxSize: 16_000_000,
  sizeCalculation: ({ text }) => (text?.length ?? 0) + 1,
});

/** Rows are asked for so many at a time, which no answer of the database is too long for. */
const AT_ONCE = 50;

/** All documents of a system in the order of their paths, removed ones too. */
export async function readTexts(db: Database | Transaction, systemId: string): Promise<DocumentText[]> {
  const revisions = await db
    .select({ path: documents.path, revision: documents.revision })
    .from(documents)
    .where(eq(documents.systemId, systemId))
    .orderBy(documents.path);
  const keyOf = (path: string): string => `${systemId}/${path}`;
  const found = new Map<string, DocumentText>();
  for (const { path, revision } of revisions) {
    const text = known.get(keyOf(path));
    if (text?.revision === revision) found.set(path, text);
  }
  const missing = revisions.filter(({ path }) => !found.has(path)).map(({ path }) => path);
  for (let first = 0; first < missing.length; first += AT_ONCE) {
    const rows = await db
      .select({ path: documents.path, revision: documents.revision, text: documents.body })
      .from(documents)
      .where(
        and(eq(documents.systemId, systemId), inArray(documents.path, missing.slice(first, first + AT_ONCE))),
      );
    for (const row of rows) {
      found.set(row.path, row);
      known.set(keyOf(row.path), row);
    }
  }
  return revisions.flatMap(({ path }) => found.get(path) ?? []);
}

export const documentJson = ({ path, revision, text }: DocumentText): RawJson =>
  rawObject({ path, revision, body: bodyJson(path, text) });

const bodyJson = (path: string, text: string | null): RawJson =>
  new RawJson(text !== null && documentKind(path)?.json ? text : writeJson(text));
