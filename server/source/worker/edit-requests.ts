import { createHash } from 'node:crypto';
import { and, asc, eq, gt, inArray, or } from 'drizzle-orm';
import { isSameJson } from '@periwinkle/core/json/json';
import { parseJson, writeJson } from '@periwinkle/core/json/json-text';
import type { Patch } from '@periwinkle/core/patch/operations';
import type { Transaction } from '../storage/database';
import { asStored, EDIT_COLUMNS, editsJson, editsWhere, type StoredEdit } from '../storage/edit-rows';
import { Refusal } from '../http/refusal';
import { edits } from '../storage/schema';
import { documentAt, type StoredDocument } from './parsed-documents';

/** What an edit does to one document. */
export interface EditPart {
  readonly path: string;
  /** Revision the patch was made on; 0 of a document that never was. */
  readonly revision: number;
  /** A document is made by replacing `null`, the whole of one that is not there, and removed by the reverse. */
  readonly patch: Patch;
  readonly editKey: string;
}

/** Who does what: the same for all edits of it. */
export interface EditNames {
  readonly systemId: string;
  readonly changeId: string;
  readonly label: string;
  readonly author: string;
}

export interface EditRequest extends EditNames {
  /** Each of a document of its own. */
  readonly parts: readonly EditPart[];
  /** Whether it is placed where documents have gone on since; otherwise it is stale. */
  readonly isPlaced: boolean;
}

/** By which a patch is known again that was stored as another. */
export const digestOf = (patch: Patch): string => createHash('sha256').update(writeJson(patch)).digest('hex');

/**
 * The edits that are stored already where the same was sent again, because its answer was lost. Throws the refusal 422 where they say
 * something else: one key never names two.
 */
export async function twinsOf(
  transaction: Transaction,
  { systemId, parts }: EditRequest,
): Promise<readonly StoredEdit[] | null> {
  const keys = parts.map(({ editKey }) => editKey);
  const twins = await transaction
    .select({ ...EDIT_COLUMNS, sent: edits.sent })
    .from(edits)
    .where(and(eq(edits.systemId, systemId), inArray(edits.editKey, keys)))
    .orderBy(asc(edits.id));
  if (twins.length === 0) return null;
  const isSame =
    twins.length === parts.length &&
    parts.every(({ editKey, path, patch }) =>
      twins.some(
        edit =>
          edit.editKey === editKey &&
          edit.path === path &&
          (edit.sent === digestOf(patch) || isSameJson(parseJson(edit.patch), patch)),
      ),
    );
  if (isSame) return twins.map(({ sent: _, ...edit }) => asStored(edit));
  throw new Refusal(
    422,
    'key-reused',
    'The key names another edit',
    'An edit was stored under this Idempotency-Key that says something else; send each under a key of its own.',
  );
}

/** What was stored since an edit was made, of the documents that have gone on. */
export async function stale(
  transaction: Transaction,
  systemId: string,
  outdated: readonly EditPart[],
  now: ReadonlyMap<string, StoredDocument>,
): Promise<Refusal> {
  const later = outdated.map(({ path, revision }) => and(eq(edits.path, path), gt(edits.revision, revision)));
  const since = await editsWhere(transaction, and(eq(edits.systemId, systemId), or(...later)));
  const [{ path, revision: made }] = outdated as [EditPart];
  const { revision } = documentAt(now, path);
  return new Refusal(
    412,
    'stale-revision',
    'The document has changed',
    `“${path}” is at revision ${revision}; the edit was made on ${made}.`,
    { path, revision, since: editsJson(since) },
  );
}
