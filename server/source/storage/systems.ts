import { and, asc, count, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type { SystemSummary, WholeSystem } from '@periwinkle/protocol/wire';
import type { Database } from './open-database';
import { inTransaction, snapshot, type Transaction } from './database';
import { historyEnds } from './changes';
import { readTexts, type DocumentText } from './document-texts';
import { notFound, Refusal } from '../http/refusal';
import { edits, systems } from './schema';
import { inTurn } from '../worker/turns';

const SUMMARY_COLUMNS = {
  id: systems.id,
  title: systems.title,
  createdAt: systems.createdAt,
  changedAt: systems.changedAt,
};
type Row = { id: string; title: string; createdAt: Date; changedAt: Date };
export const summary = (row: Row): SystemSummary => ({
  id: row.id,
  title: row.title,
  createdAt: row.createdAt.toISOString(),
  changedAt: row.changedAt.toISOString(),
});

export async function listSystems(db: Database): Promise<SystemSummary[]> {
  const rows = await db
    .select(SUMMARY_COLUMNS)
    .from(systems)
    .where(isNull(systems.removedAt))
    .orderBy(asc(systems.createdAt), asc(systems.id));
  return rows.map(summary);
}

/** Ids of the systems that were worked on last. */
export async function latestSystems(db: Database): Promise<string[]> {
  const rows = await db
    .select({ id: systems.id })
    .from(systems)
    .where(isNull(systems.removedAt))
    .orderBy(desc(systems.changedAt))
    .limit(3);
  return rows.map(({ id }) => id);
}

/** The row of a system that is on the shelf. */
async function systemRow(db: Database | Transaction, id: string) {
  const [found] = await db
    .select({ ...SUMMARY_COLUMNS, lastEdit: systems.lastEdit, removedAt: systems.removedAt })
    .from(systems)
    .where(eq(systems.id, id));
  if (!found) throw notFound(`There is no system “${id}”.`);
  if (found.removedAt)
    throw new Refusal(
      404,
      'removed-system',
      'Removed',
      `The system “${found.title}” (${id}) was removed; it can be brought back.`,
    );
  return found;
}

/** The key of an edit by its number; empty where there is none. */
async function keyOfEdit(db: Database | Transaction, systemId: string, id: number): Promise<string> {
  const [row] = await db
    .select({ key: edits.editKey })
    .from(edits)
    .where(and(eq(edits.systemId, systemId), eq(edits.id, id)));
  return row?.key ?? '';
}

/**
 * Whether the edits up to a number are those that somebody knows, by the key of the last of them. Where a backup has been put back, others
 * have their numbers or nothing has.
 */
export const isSameHistory = async (
  db: Database,
  systemId: string,
  after: number,
  key: string | null,
): Promise<boolean> => key === null || after === 0 || (await keyOfEdit(db, systemId, after)) === key;

/** The number of the newest edit of a system. Throws the refusal 404 when there is no such system. */
export async function requireSystem(
  db: Database | Transaction,
  id: string,
): Promise<{ readonly lastEdit: number }> {
  return systemRow(db, id);
}

/** A system with all its documents, as of one moment, and what a person could take back in it. */
export async function wholeSystem(
  db: Database,
  id: string,
  author: string,
): Promise<WholeSystem<DocumentText>> {
  // What has to be read is read one system after the other: together they might be more than there is memory for.
  const found =
    (await textsNow(db, id, false)) ?? (await inTurn('systems', async () => (await textsNow(db, id, true))!));
  return {
    ...summary(found.row),
    documents: found.documents,
    history: await historyEnds(db, id, author),
    lastEdit: found.row.lastEdit,
    lastKey: found.lastKey,
  };
}

/** A system's row and documents as of one moment; `null` where documents are to be read, and must not be. */
const textsNow = (db: Database, id: string, mayRead: boolean) =>
  snapshot(db, async transaction => {
    const row = await systemRow(transaction, id);
    const documents = await readTexts(transaction, id, mayRead);
    return documents && { row, documents, lastKey: await keyOfEdit(transaction, id, row.lastEdit) };
  });

/** Refuses one more system where the shelf is full: who opens it gets a list of all. */
export async function refuseOneMore(transaction: Transaction): Promise<void> {
  const [shelf] = await transaction
    .select({ systems: count() })
    .from(systems)
    .where(isNull(systems.removedAt));
  if (shelf!.systems >= QUOTAS.systems)
    throw new Refusal(
      409,
      'too-many-systems',
      'The shelf is full',
      `There can be ${QUOTAS.systems} systems on a shelf; take one off it first.`,
    );
}

/** Takes a system off the shelf; `restoreSystem` puts it back. */
export async function removeSystem(db: Database, id: string): Promise<void> {
  await setRemoved(db, id, new Date());
}

/** Where it is on the shelf already, nothing is done. */
export const restoreSystem = (db: Database, id: string): Promise<void> =>
  inTransaction(db, async transaction => {
    const [removed] = await transaction
      .select({ id: systems.id })
      .from(systems)
      .where(and(eq(systems.id, id), isNotNull(systems.removedAt)));
    if (removed) await refuseOneMore(transaction);
    await setRemoved(transaction, id, null);
  });

async function setRemoved(db: Database | Transaction, id: string, removedAt: Date | null): Promise<void> {
  const [result] = await db.update(systems).set({ removedAt }).where(eq(systems.id, id));
  if (result.affectedRows === 0) throw notFound(`There is no system “${id}”.`);
}
