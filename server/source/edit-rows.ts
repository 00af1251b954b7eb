import { and, asc, eq, gt } from 'drizzle-orm';
import type { Patch } from '@periwinkle/core/formats/patch';
import type { Database, Transaction } from './database';
import { edits } from './schema';

/** A stored edit as other windows hear of it. */
export interface StoredEdit {
  /** Number among the edits of its system; the next one has the next number. */
  readonly id: number;
  readonly path: string;
  readonly revision: number;
  readonly patch: Patch;
  readonly kind: string;
  readonly changeId: string;
  /** Of a step through the history: the change that it takes back or brings back. */
  readonly target: string | null;
  readonly editKey: string;
  readonly label: string;
  readonly author: string;
  readonly at: string;
}

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

type Row = Omit<StoredEdit, 'at' | 'patch'> & { at: Date; patch: unknown };
export const asStored = (row: Row): StoredEdit => ({
  ...row,
  patch: row.patch as Patch,
  at: row.at.toISOString(),
});

/** Edits of a system after a given one, oldest first. */
export async function editsAfter(
  db: Database | Transaction,
  systemId: string,
  after: number,
  most = 500,
): Promise<StoredEdit[]> {
  const rows = await db
    .select(EDIT_COLUMNS)
    .from(edits)
    .where(and(eq(edits.systemId, systemId), gt(edits.id, after)))
    .orderBy(asc(edits.id))
    .limit(most);
  return rows.map(asStored);
}
