import { and, asc, desc, eq, gt, inArray, lt, type SQL } from 'drizzle-orm';
import type { HistoryEnds, ListedChange, NamedChange } from '@periwinkle/protocol/wire';
import type { Database } from './open-database';
import type { Transaction } from './database';
import type { StoredEdit } from './edit-rows';
import { Refusal } from '../http/refusal';
import { changes } from './schema';

type Reader = Database | Transaction;
export type ChangeRow = typeof changes.$inferSelect;

export async function changeNamed(db: Reader, systemId: string, id: string): Promise<ChangeRow | undefined> {
  const [row] = await db
    .select()
    .from(changes)
    .where(and(eq(changes.systemId, systemId), eq(changes.id, id)));
  return row;
}

/** Counts edits to their changes. Refuses a part that comes after its change was taken back: it would stand alone. */
export async function noteEdits(
  transaction: Transaction,
  systemId: string,
  edits: readonly StoredEdit[],
): Promise<void> {
  const named = new Map(edits.map(edit => [edit.changeId, edit]));
  const rows = await transaction
    .select()
    .from(changes)
    .where(and(eq(changes.systemId, systemId), inArray(changes.id, [...named.keys()])));
  const known = new Map(rows.map(row => [row.id, row]));
  const fresh: ChangeRow[] = [];
  for (const { id: made, changeId: id, label, author, at } of named.values()) {
    const row = known.get(id);
    const last = { made, position: made, at: new Date(at) };
    if (!row) fresh.push({ systemId, id, author, label, ...last, state: 'done', act: id, holder: author });
    else if (row.state === 'done' && row.act === id) await setChange(transaction, row, last);
    else
      throw new Refusal(
        409,
        'change-taken-back',
        'The change has been taken back',
        `“${label}” was taken back before this part of it arrived.`,
      );
  }
  if (fresh.length > 0) await transaction.insert(changes).values(fresh);
}

export async function setChange(
  transaction: Transaction,
  { systemId, id }: ChangeRow,
  parts: Partial<ChangeRow>,
): Promise<void> {
  await transaction
    .update(changes)
    .set(parts)
    .where(and(eq(changes.systemId, systemId), eq(changes.id, id)));
}

/** The newest change of a state that is within reach of a person's steps. */
async function newest(
  db: Reader,
  systemId: string,
  holder: string,
  state: ListedChange['state'],
): Promise<ChangeRow | undefined> {
  const [row] = await db
    .select()
    .from(changes)
    .where(and(eq(changes.systemId, systemId), eq(changes.holder, holder), eq(changes.state, state)))
    .orderBy(desc(changes.position))
    .limit(1);
  return row;
}

/** What a person would take back next: the newest that stands of what they did. */
export const nextUndo = (db: Reader, systemId: string, author: string): Promise<ChangeRow | undefined> =>
  newest(db, systemId, author, 'done');

/** What a person would bring back next: what they took back last, unless they have done something new since. */
export async function nextRedo(db: Reader, systemId: string, author: string): Promise<ChangeRow | undefined> {
  const row = await newest(db, systemId, author, 'undone');
  if (!row) return undefined;
  const [own] = await db
    .select({ made: changes.made })
    .from(changes)
    .where(and(eq(changes.systemId, systemId), eq(changes.author, author)))
    .orderBy(desc(changes.made))
    .limit(1);
  return own && own.made > row.position ? undefined : row;
}

const named = (row: ChangeRow | undefined): NamedChange | null =>
  row ? { change: row.id, label: row.label } : null;

export async function historyEnds(db: Database, systemId: string, author: string): Promise<HistoryEnds> {
  const [undo, redo] = await Promise.all([nextUndo(db, systemId, author), nextRedo(db, systemId, author)]);
  return { undo: named(undo), redo: named(redo) };
}

/** A page of the list of what was done, newest first: from the newest on, or what was made before or after a number. */
export async function listChanges(
  db: Database,
  systemId: string,
  { before, after, most }: { before: number | null; after: number | null; most: number },
): Promise<ListedChange[]> {
  const page = (where: SQL | undefined, order: SQL) =>
    db
      .select()
      .from(changes)
      .where(and(eq(changes.systemId, systemId), where))
      .orderBy(order)
      .limit(most);
  const rows =
    after === null
      ? await page(before === null ? undefined : lt(changes.made, before), desc(changes.made))
      : (await page(gt(changes.made, after), asc(changes.made))).reverse();
  return rows.map(row => ({
    change: row.id,
    label: row.label,
    made: row.made,
    author: row.author,
    at: row.at.toISOString(),
    state: row.state as ListedChange['state'],
  }));
}
