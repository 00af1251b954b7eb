import { and, eq, isNull } from 'drizzle-orm';
import { isObject } from '@periwinkle/core/formats/json';
import { writeJson } from '@periwinkle/core/formats/json-text';
import { inTransaction, Overtaken, type Database, type Transaction } from '../database';
import { asStored, type StoredEdit } from '../edit-rows';
import { notFound, Refusal } from '../refusal';
import { documents, edits, systems } from '../schema';
import type { EditNames } from './edit-requests';
import type { Applied } from './patching';
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

/** Writes an edit and the document that it leaves. Throws `Overtaken` where either is not as it was read. */
export async function writeEdit(
  transaction: Transaction,
  { systemId, changeId, label, author }: EditNames,
  applied: Applied & { id: number; editKey: string; kind: string; target: string | null },
): Promise<StoredEdit> {
  const { document, text, inverse, sent, id, editKey, kind, target } = applied;
  const { path, revision } = document;
  const at = new Date();
  const isWritten = await writeDocument(transaction, systemId, { path, revision, body: text });
  const title = path === 'system.json' ? titleOf(document.body, systemId) : null;
  const [counted] = await transaction
    .update(systems)
    .set({ lastEdit: id, changedAt: at, ...(title === null ? {} : { title }) })
    .where(and(eq(systems.id, systemId), eq(systems.lastEdit, id - 1)));
  if (!isWritten || counted.affectedRows !== 1) throw new Overtaken();
  const patch = writeJson(applied.patch);
  const edit = { id, path, revision, patch, kind, changeId, target, editKey, label, author };
  await transaction
    .insert(edits)
    .values({ ...edit, systemId, inverse: writeJson(inverse), sent: sent ?? null, at });
  return asStored({ ...edit, at });
}

/** Whether the document could be written on the revision before it. */
async function writeDocument(
  transaction: Transaction,
  systemId: string,
  { path, ...row }: { path: string; revision: number; body: string | null },
): Promise<boolean> {
  const { revision } = row;
  if (revision === 1) {
    // Another node may have made it meanwhile: then nothing changes.
    const [made] = await transaction
      .insert(documents)
      .ignore()
      .values({ systemId, path, ...row });
    return made.affectedRows === 1;
  }
  const [written] = await transaction
    .update(documents)
    .set(row)
    .where(
      and(eq(documents.systemId, systemId), eq(documents.path, path), eq(documents.revision, revision - 1)),
    );
  return written.affectedRows === 1;
}
