import { and, asc, eq, isNull } from 'drizzle-orm';
import { checkSystem } from '@periwinkle/core/checks/check-system';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { isObject } from '@periwinkle/core/formats/json';
import { inTransaction, type Database, type Transaction } from './database';
import { historyEnds, type HistoryEnds } from './changes';
import { invalid } from './edits';
import { notFound, Refusal } from './refusal';
import { documents, systems } from './schema';
import { bodiesOf, bodyText, forget, readDocuments, type StoredDocument } from './system-documents';

export interface SystemSummary {
  readonly id: string;
  readonly title: string;
  readonly createdAt: string;
  readonly changedAt: string;
}

export interface WholeSystem extends SystemSummary {
  readonly documents: readonly StoredDocument[];
  readonly history: HistoryEnds;
  /** Id of the newest edit the documents contain; events go on from here. */
  readonly lastEdit: number;
}

const columns = {
  id: systems.id,
  title: systems.title,
  createdAt: systems.createdAt,
  changedAt: systems.changedAt,
};
type Row = { id: string; title: string; createdAt: Date; changedAt: Date };
const summary = (row: Row): SystemSummary => ({
  id: row.id,
  title: row.title,
  createdAt: row.createdAt.toISOString(),
  changedAt: row.changedAt.toISOString(),
});

export async function listSystems(db: Database): Promise<SystemSummary[]> {
  const rows = await db
    .select(columns)
    .from(systems)
    .where(isNull(systems.removedAt))
    .orderBy(asc(systems.createdAt), asc(systems.id));
  return rows.map(summary);
}

/** The row of a system that is on the shelf. */
async function systemRow(db: Database | Transaction, id: string) {
  const [found] = await db
    .select({ ...columns, lastEdit: systems.lastEdit })
    .from(systems)
    .where(and(eq(systems.id, id), isNull(systems.removedAt)));
  if (!found) throw notFound(`There is no system “${id}”.`);
  return found;
}

/** The number of the newest edit of a system. Throws the refusal 404 when there is no such system. */
export async function requireSystem(db: Database, id: string): Promise<{ readonly lastEdit: number }> {
  return systemRow(db, id);
}

/** A system with all its documents, as of one moment, and what a person could take back in it. */
export async function wholeSystem(db: Database, id: string, author: string): Promise<WholeSystem> {
  const { row, stored } = await db.transaction(
    async transaction => ({
      row: await systemRow(transaction, id),
      stored: await readDocuments(transaction, id),
    }),
    { isolationLevel: 'repeatable read', withConsistentSnapshot: true },
  );
  return {
    ...summary(row),
    documents: [...stored.values()],
    history: await historyEnds(db, id, author),
    lastEdit: row.lastEdit,
  };
}

/** Puts a new system in. Documents with errors are refused as a whole, with every problem. */
export async function createSystem(
  db: Database,
  bodies: ReadonlyMap<string, unknown>,
): Promise<SystemSummary> {
  const unknown = [...bodies.keys()].filter(path => !documentKind(path));
  if (unknown.length > 0) {
    throw new Refusal(
      422,
      'unknown-file',
      'Files that are no documents',
      `“${unknown[0]}” is no document of a system.`,
    );
  }
  const { problems } = checkSystem(bodies);
  const errors = problems.filter(problem => problem.severity === 'error');
  if (errors.length > 0) throw invalid('The system has errors', errors);
  const manifest = bodies.get('system.json');
  if (!isObject(manifest))
    throw new Refusal(422, 'missing-file', 'No system.json', 'A system needs a system.json.');
  const id = String(manifest['id']);
  const now = new Date();
  const row = { id, title: String(manifest['title']), createdAt: now, changedAt: now };
  await inTransaction(db, async transaction => {
    const [twin] = await transaction
      .select({ removedAt: systems.removedAt })
      .from(systems)
      .where(eq(systems.id, id))
      .for('update');
    if (twin) {
      const words = twin.removedAt
        ? 'was removed and can be brought back; choose another id'
        : 'is there already; choose another id';
      throw new Refusal(409, 'duplicate-id', 'The id is taken', `A system “${id}” ${words}.`);
    }
    await transaction.insert(systems).values({ ...row, removedAt: null });
    const rows = [...bodies].map(([path, body]) => ({
      systemId: id,
      path,
      revision: 1,
      body: bodyText(path, body),
    }));
    await transaction.insert(documents).values(rows);
  });
  return summary(row);
}

/** Copies the documents of a system under another id and title; the history begins anew. */
export async function duplicateSystem(
  db: Database,
  from: string,
  id: string,
  title: string,
): Promise<SystemSummary> {
  const { documents: stored } = await wholeSystem(db, from, '');
  const bodies = bodiesOf(stored);
  bodies.set('system.json', { ...(bodies.get('system.json') as object), id, title });
  return createSystem(db, bodies);
}

/** Takes a system off the shelf; `restoreSystem` puts it back. */
export async function removeSystem(db: Database, id: string): Promise<void> {
  await setRemoved(db, id, new Date());
  forget(id);
}

export async function restoreSystem(db: Database, id: string): Promise<void> {
  await setRemoved(db, id, null);
}

async function setRemoved(db: Database, id: string, removedAt: Date | null): Promise<void> {
  const [result] = await db.update(systems).set({ removedAt }).where(eq(systems.id, id));
  if (result.affectedRows === 0) throw notFound(`There is no system “${id}”.`);
}
