import { and, eq, inArray } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { documentKind } from '@periwinkle/core/documents/document-kinds';
import { writeJson } from '@periwinkle/core/json/json-text';
import type { Database } from './open-database';
import type { Transaction } from './database';
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

/** Texts that are being handed out, whether or not the cache still has them: as long as anybody holds one, nobody reads it again. */
const lent = new Map<string, WeakRef<DocumentText>>();
const returned = new FinalizationRegistry<string>(key => {
  if (lent.get(key)?.deref() === undefined) lent.delete(key);
});

function keep(key: string, text: DocumentText): void {
  known.set(key, text);
  lent.set(key, new WeakRef(text));
  returned.register(text, key);
}

/** Rows are asked for so many at a time, which no answer of the database is too long for. */
const AT_ONCE = 50;

/**
 * All documents of a system in the order of their paths, removed ones too. Gives `null` where some are not known here and `mayRead` says that it
 * is not the time to read them.
 */
export async function readTexts(
  db: Database | Transaction,
  systemId: string,
  mayRead: boolean,
): Promise<DocumentText[] | null> {
  const revisions = await db
    .select({ path: documents.path, revision: documents.revision })
    .from(documents)
    .where(eq(documents.systemId, systemId))
    .orderBy(documents.path);
  const keyOf = (path: string): string => `${systemId}/${path}`;
  const found = new Map<string, DocumentText>();
  for (const { path, revision } of revisions) {
    const text = known.get(keyOf(path)) ?? lent.get(keyOf(path))?.deref();
    if (text?.revision === revision) found.set(path, text);
  }
  const missing = revisions.filter(({ path }) => !found.has(path)).map(({ path }) => path);
  if (missing.length > 0 && !mayRead) return null;
  for (let first = 0; first < missing.length; first += AT_ONCE) {
    const rows = await db
      .select({ path: documents.path, revision: documents.revision, text: documents.body })
      .from(documents)
      .where(
        and(eq(documents.systemId, systemId), inArray(documents.path, missing.slice(first, first + AT_ONCE))),
      );
    for (const row of rows) {
      found.set(row.path, row);
      keep(keyOf(row.path), row);
    }
  }
  return revisions.flatMap(({ path }) => found.get(path) ?? []);
}

/** Letters that are written at once; some such pieces are made ahead for each reader. */
export const PIECE_LETTERS = 32_000;

/** A document as JSON, in pieces: whoever reads slowly holds no more of it than one. */
export function* documentPieces({ path, revision, text }: DocumentText): Generator<string> {
  yield `{"path":${writeJson(path)},"revision":${revision},"body":`;
  if (text === null) yield 'null';
  else if (documentKind(path)?.json) yield* sliced(text);
  else {
    yield '"';
    for (const piece of sliced(text)) yield writeJson(piece).slice(1, -1);
    yield '"';
  }
  yield '}';
}

function* sliced(text: string): Generator<string> {
  for (let at = 0; at < text.length; at += PIECE_LETTERS) yield text.slice(at, at + PIECE_LETTERS);
}
