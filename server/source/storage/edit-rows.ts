import { and, asc, eq, gt, lte, sql, type SQL } from 'drizzle-orm';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type * as wire from '@periwinkle/protocol/wire';
import type { Database } from './open-database';
import type { Transaction } from './database';
import { rawList, rawObject, RawJson } from '../http/raw-json';
import { edits } from './schema';

/** A stored edit with its JSON Patch as text. */
export type StoredEdit = wire.StoredEdit<string, string>;

export const EDIT_COLUMNS = {
  id: edits.id,
  path: edits.path,
  revision: edits.revision,
  patch: edits.patch,
  kind: edits.kind,
  changeId: edits.changeId,
  target: edits.target,
  editKey: edits.editKey,
  label: edits.label,
  author: edits.author,
  at: edits.at,
};

export const asStored = <Row extends { readonly at: Date }>(row: Row): Omit<Row, 'at'> & { at: string } => ({
  ...row,
  at: row.at.toISOString(),
});

export const editJson = (edit: StoredEdit): RawJson => rawObject({ ...edit, patch: new RawJson(edit.patch) });
export const editsJson = (edits: readonly StoredEdit[]): RawJson => rawList(edits.map(editJson));

/**
 * Edits in their order, no more of them than one answer may tell, but at least one where there is any: who asks goes on from the last.
 */
export async function editsWhere(
  db: Database | Transaction,
  where: SQL | undefined,
  most: number = QUOTAS.editsTold,
): Promise<StoredEdit[]> {
  const sizes = await db
    .select({ id: edits.id, letters: sql<number>`char_length(${edits.patch})`.mapWith(Number) })
    .from(edits)
    .where(where)
    .orderBy(asc(edits.id))
    .limit(most);
  let letters = 0;
  const fitting = sizes.filter(
    (each, place) => (letters += each.letters) <= QUOTAS.lettersTold || place === 0,
  );
  const last = fitting.at(-1);
  if (!last) return [];
  const rows = await db
    .select(EDIT_COLUMNS)
    .from(edits)
    .where(and(where, lte(edits.id, last.id)))
    .orderBy(asc(edits.id));
  return rows.map(asStored);
}

/** Edits of a system after a given one, oldest first. */
export const editsAfter = (
  db: Database | Transaction,
  systemId: string,
  after: number,
): Promise<StoredEdit[]> => editsWhere(db, and(eq(edits.systemId, systemId), gt(edits.id, after)));

/** An edit as listeners are told of it: without a patch that is too long for that. */
export type ToldEdit = Omit<StoredEdit, 'patch'> & { readonly patch: string | null };

/** So many at once come to no more letters than any answer may tell. */
const EVENTS_AT_ONCE = Math.floor(QUOTAS.lettersTold / QUOTAS.eventLetters);

/** What listeners who know of a given edit are to be told next, oldest first. */
export async function eventsAfter(
  db: Database,
  systemId: string,
  after: number,
): Promise<readonly ToldEdit[]> {
  const { patch } = edits;
  const short = sql<
    string | null
  >`case when char_length(${patch}) <= ${QUOTAS.eventLetters} then ${patch} end`;
  const rows = await db
    .select({ ...EDIT_COLUMNS, patch: short })
    .from(edits)
    .where(and(eq(edits.systemId, systemId), gt(edits.id, after)))
    .orderBy(asc(edits.id))
    .limit(EVENTS_AT_ONCE);
  return rows.map(asStored);
}
