import { and, asc, eq, gt, sql } from 'drizzle-orm';
import { rebaseOverEdits, type DoneEdit } from '@periwinkle/core/patch/rebase-over-edits';
import { parseJson } from '@periwinkle/core/json/json-text';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { PatchError, type Patch } from '@periwinkle/core/patch/operations';
import type { Transaction } from '../storage/database';
import { edits } from '../storage/schema';
import { computing } from './computing';
import type { EditPart } from './edit-requests';
import { documentAt } from './parsed-documents';
import type { Unstored } from './unstored';

/** Pairs of operations that are looked at to have an edit follow others; whoever sent what takes more has to do it. */
const MOST_PAIRS = 50_000;

/**
 * Parts of an edit that were made on earlier states, as they follow what was stored since. Those are left out that meet any of it, were made
 * on a state that is none by now, or so long ago that the sender had better look at it anew.
 */
export async function followed(
  transaction: Transaction,
  systemId: string,
  outdated: readonly EditPart[],
  state: Unstored,
): Promise<Map<EditPart, Patch>> {
  const result = new Map<EditPart, Patch>();
  for (const part of outdated) {
    const { revision, body } = documentAt(state.documents, part.path);
    const behind = revision - part.revision;
    if (behind <= 0 || behind > QUOTAS.editsTold) continue;
    const stored = await doneSince(transaction, systemId, part);
    const unstored = state.done.filter(
      ({ document }) => document.path === part.path && document.revision > part.revision,
    );
    const since = stored && [...stored, ...unstored];
    const patch = since?.length === behind ? computing(() => followedPatch(body, since, part.patch)) : null;
    if (patch) result.set(part, patch);
  }
  return result;
}

/** The edits of a document after a revision; `null` where they hold more than is read at once. */
async function doneSince(
  transaction: Transaction,
  systemId: string,
  { path, revision }: EditPart,
): Promise<DoneEdit[] | null> {
  const where = and(eq(edits.systemId, systemId), eq(edits.path, path), gt(edits.revision, revision));
  const [size] = await transaction
    .select({
      letters: sql<number>`sum(char_length(${edits.patch}) + char_length(${edits.inverse}))`.mapWith(Number),
    })
    .from(edits)
    .where(where);
  if ((size?.letters ?? 0) > QUOTAS.lettersTold) return null;
  const rows = await transaction
    .select({ patch: edits.patch, inverse: edits.inverse })
    .from(edits)
    .where(where)
    .orderBy(asc(edits.revision));
  return computing(() =>
    rows.map(({ patch, inverse }) => ({
      patch: parseJson(patch) as Patch,
      inverse: parseJson(inverse) as Patch,
    })),
  );
}

function followedPatch(body: unknown, since: readonly DoneEdit[], patch: Patch): Patch | null {
  const pairs = since.reduce((sum, each) => sum + each.patch.length, 0) * patch.length;
  if (pairs > MOST_PAIRS) return null;
  try {
    const along = rebaseOverEdits(body, since, patch);
    return along.ok ? along.patch : null;
  } catch (error) {
    // It did not fit the state that it says it was made on; placed on the present one it is told why.
    if (error instanceof PatchError) return null;
    throw error;
  }
}
