import { and, eq, isNull, or, sql, type SQL } from 'drizzle-orm';
import { guarded } from '@periwinkle/core/patch/identity';
import { isObject } from '@periwinkle/core/json/json';
import { writeJson } from '@periwinkle/core/json/json-text';
import type { Database } from '../storage/open-database';
import { inTransaction, Overtaken, type Transaction } from '../storage/database';
import { asStored, type StoredEdit } from '../storage/edit-rows';
import { notFound, Refusal } from '../http/refusal';
import { documents, edits, systems } from '../storage/schema';
import { computing } from './computing';
import type { EditNames } from './edit-requests';
import { asTexts, type WrittenDocument, type Patched } from './patching';
import type { StoredDocument } from './parsed-documents';
import { inPieces } from './pieces';
import { noteFound, noteWritten } from './rivals';
import { inTurn } from './turns';

/** Work on a system in a transaction of its own, after what else waits for its turn. Gives the number of its last edit. */
export const onSystem = <T>(
  db: Database,
  systemId: string,
  work: (transaction: Transaction, lastEdit: number) => Promise<T>,
): Promise<T> =>
  inTurn(systemId, () =>
    inTransaction(db, async transaction => work(transaction, await lastEditOf(transaction, systemId, true))),
  );

/** The number of a system's last edit. Who is to write takes the row, so that writes to one system follow one another. */
export async function lastEditOf(
  transaction: Transaction,
  systemId: string,
  isToWrite: boolean,
): Promise<number> {
  const asked = transaction
    .select({ lastEdit: systems.lastEdit })
    .from(systems)
    .where(and(eq(systems.id, systemId), isNull(systems.removedAt)));
  const [row] = await (isToWrite ? asked.for('update') : asked);
  if (!row) throw notFound(`There is no system “${systemId}”.`);
  if (isToWrite) noteFound(systemId, row.lastEdit);
  return row.lastEdit;
}

/** What the shelf says of a system follows its manifest; its id is its address, and stays. */
export function titleOf(manifest: unknown, systemId: string): string | null {
  // One that is none is told of by the checks.
  if (!isObject(manifest)) return null;
  const { id, title } = manifest;
  if (id !== systemId) {
    throw new Refusal(
      422,
      'id-is-kept',
      'A system keeps its id',
      `Links lead to “${systemId}”; to have the system under another id, duplicate it.`,
    );
  }
  return String(title);
}

/** An edit to be written: who did what, and what it made of a document. */
export interface NewEdit extends EditNames {
  readonly done: Patched;
  readonly editKey: string;
  readonly kind: 'edit' | 'undo' | 'redo';
  readonly target: string | null;
}

export interface Written {
  readonly edits: readonly StoredEdit[];
  readonly documents: readonly StoredDocument[];
}

/**
 * Writes edits of a system that follow one another after its last one, and the documents as they leave them. Throws `Overtaken` where the
 * system or a document is not as it was read (`before`), and the refusal 413 where a document becomes larger than it may be.
 */
export async function writeEdits(
  transaction: Transaction,
  systemId: string,
  lastEdit: number,
  before: ReadonlyMap<string, StoredDocument>,
  all: readonly NewEdit[],
): Promise<Written> {
  const at = new Date();
  const { rows, texts } = computing(() => ({
    rows: all.map((edit, index) => rowOf(edit, lastEdit + index + 1, at)),
    texts: asTexts(
      before,
      all.map(({ done }) => done),
    ),
  }));
  await writeDocuments(transaction, systemId, texts);
  const manifest = texts.find(({ document }) => document.path === 'system.json');
  const title = manifest ? titleOf(manifest.document.body, systemId) : null;
  const [counted] = await transaction
    .update(systems)
    .set({ lastEdit: lastEdit + rows.length, changedAt: at, ...(title === null ? {} : { title }) })
    .where(and(eq(systems.id, systemId), eq(systems.lastEdit, lastEdit)));
  if (counted.affectedRows !== 1) throw new Overtaken();
  for (const some of inPieces(rows, ({ patch, inverse }) => patch.length + inverse.length))
    await transaction.insert(edits).values(some);
  noteWritten(systemId, lastEdit + rows.length);
  return {
    edits: rows.map(({ systemId: _, inverse: __, sent: ___, ...edit }) => asStored(edit)),
    documents: texts.map(({ document }) => document),
  };
}

function rowOf({ done, ...edit }: NewEdit, id: number, at: Date) {
  const { document, patch, inverse, sent = null } = done;
  const { path, revision, body } = document;
  const written = { patch: writeJson(patch), inverse: writeJson(guarded(body, inverse)) };
  return { ...edit, ...written, id, path, revision, sent, at };
}

/** Documents written in one statement, each of which looks through them for its own. */
const AT_ONCE = 50;

/** Writes documents, each on the revision that it was read at. Throws `Overtaken` where one is not at that any more. */
async function writeDocuments(
  transaction: Transaction,
  systemId: string,
  all: readonly WrittenDocument[],
): Promise<void> {
  const write = async (some: readonly WrittenDocument[], as: typeof insertDocuments): Promise<void> => {
    for (const piece of inPieces(some, ({ text }) => text?.length ?? 0, AT_ONCE))
      if ((await as(transaction, systemId, piece)) !== piece.length) throw new Overtaken();
  };
  await write(
    all.filter(({ from }) => from === 0),
    insertDocuments,
  );
  await write(
    all.filter(({ from }) => from > 0),
    updateDocuments,
  );
}

/** Gives how many were not there yet: another node may have made one meanwhile. */
async function insertDocuments(
  transaction: Transaction,
  systemId: string,
  all: readonly WrittenDocument[],
): Promise<number> {
  const rows = all.map(({ document: { path, revision }, text }) => ({
    systemId,
    path,
    revision,
    body: text,
  }));
  const [{ affectedRows }] = await transaction.insert(documents).ignore().values(rows);
  return affectedRows;
}

/** Gives how many were as they were read. */
async function updateDocuments(
  transaction: Transaction,
  systemId: string,
  all: readonly WrittenDocument[],
): Promise<number> {
  const byPath = (valueOf: (one: WrittenDocument) => SQL): SQL => {
    const cases = all.map(one => sql`when ${one.document.path} then ${valueOf(one)}`);
    return sql`case ${documents.path} ${sql.join(cases, sql` `)} end`;
  };
  const isAsRead = ({ document: { path }, from }: WrittenDocument): SQL | undefined =>
    and(eq(documents.path, path), eq(documents.revision, from));
  const [{ affectedRows }] = await transaction
    .update(documents)
    .set({
      body: byPath(({ text }) => sql`${sql.param(text, documents.body)}`),
      revision: byPath(({ document }) => sql`${document.revision}`),
    })
    .where(and(eq(documents.systemId, systemId), or(...all.map(isAsRead))));
  return affectedRows;
}
