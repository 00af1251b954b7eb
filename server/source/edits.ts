import { and, asc, eq, gt } from 'drizzle-orm';
import { checkSystem } from '@periwinkle/core/checks/check-system';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { guarded } from '@periwinkle/core/formats/identity';
import { applyPatch, PatchError, type Patch, type PatchOperation } from '@periwinkle/core/formats/patch';
import type { Problem } from '@periwinkle/core/formats/problem';
import { noteEdit } from './changes';
import { inTransaction, Overtaken, type Database, type Transaction } from './database';
import { asStored, EDIT_COLUMNS, type StoredEdit } from './edit-rows';
import { notFound, Refusal } from './refusal';
import { documents, edits, systems } from './schema';
import { bodyText, readDocuments, remember, type StoredDocument } from './system-documents';
import { inTurn } from './turns';

export interface EditRequest {
  readonly systemId: string;
  readonly path: string;
  /** Revision the patch was made on. */
  readonly revision: number;
  readonly patch: Patch;
  readonly editKey: string;
  readonly changeId: string;
  readonly label: string;
  readonly author: string;
}

/** Work on a system in a transaction of its own, after what else waits for its turn. Gives the number of its last edit. */
export const onSystem = <T>(
  db: Database,
  systemId: string,
  work: (transaction: Transaction, lastEdit: number) => Promise<T>,
): Promise<T> =>
  inTurn(systemId, () =>
    inTransaction(db, async transaction => work(transaction, await lockSystem(transaction, systemId))),
  );

/** Takes the system's row, so that writes to one system follow one another. Gives the number of its last edit. */
async function lockSystem(transaction: Transaction, systemId: string): Promise<number> {
  const [row] = await transaction
    .select({ lastEdit: systems.lastEdit, removedAt: systems.removedAt })
    .from(systems)
    .where(eq(systems.id, systemId))
    .for('update');
  if (!row || row.removedAt) throw notFound(`There is no system “${systemId}”.`);
  return row.lastEdit;
}

/** Stores an edit: document and history in one transaction. Throws `Refusal`; then nothing has changed. */
export async function storeEdit(db: Database, request: EditRequest): Promise<StoredEdit> {
  const { edit, document } = await onSystem(db, request.systemId, async (transaction, lastEdit) => {
    const [twin] = await transaction
      .select(EDIT_COLUMNS)
      .from(edits)
      .where(and(eq(edits.systemId, request.systemId), eq(edits.editKey, request.editKey)));
    // The same edit sent again, because its answer was lost: it is stored already.
    if (twin) return { edit: asStored(twin), document: null };
    const before = await readDocuments(transaction, request.systemId);
    const current = before.get(request.path);
    if (!current) throw notFound(`There is no document “${request.path}”.`);
    if (current.revision !== request.revision) throw await stale(transaction, request, current.revision);
    const applied = patched(before, current, request.patch);
    const edit = await writeEdit(transaction, request, {
      ...applied,
      id: lastEdit + 1,
      kind: 'edit',
      target: null,
    });
    await noteEdit(transaction, request.systemId, edit);
    return { edit, document: applied.document };
  });
  if (document) remember(request.systemId, document);
  return edit;
}

async function stale(transaction: Transaction, request: EditRequest, revision: number): Promise<Refusal> {
  const since = await transaction
    .select(EDIT_COLUMNS)
    .from(edits)
    .where(
      and(
        eq(edits.systemId, request.systemId),
        eq(edits.path, request.path),
        gt(edits.revision, request.revision),
      ),
    )
    .orderBy(asc(edits.revision));
  return new Refusal(
    412,
    'stale-revision',
    'The document has changed',
    `“${request.path}” is at revision ${revision}; the edit was made on ${request.revision}.`,
    { revision, since: since.map(asStored) },
  );
}

export interface Applied {
  readonly document: StoredDocument;
  readonly patch: Patch;
  readonly inverse: PatchOperation[];
}

/** Applies a patch and refuses what would bring in an error that was not there before. */
export function patched(
  all: ReadonlyMap<string, StoredDocument>,
  current: StoredDocument,
  patch: Patch,
): Applied {
  let result;
  try {
    result = documentKind(current.path)?.json
      ? applyPatch(current.body, patch)
      : replacedText(current.body, patch);
  } catch (error) {
    if (!(error instanceof PatchError)) throw error;
    throw new Refusal(409, 'patch-failed', 'The edit does not fit', error.message);
  }
  const document = { path: current.path, revision: current.revision + 1, body: result.document };
  const added = newErrors(all, document);
  if (added.length > 0) {
    const [first] = added;
    throw new Refusal(422, 'invalid-document', 'The edit would break the system', first!.message, {
      problems: added,
    });
  }
  return { document, patch, inverse: guarded(result.document, result.inverse) };
}

/** Text documents are replaced as a whole. */
function replacedText(body: unknown, patch: Patch): { document: unknown; inverse: PatchOperation[] } {
  const operations = patch.filter(operation => operation.op !== 'test');
  const [operation] = operations;
  if (
    operations.length !== 1 ||
    operation?.op !== 'replace' ||
    operation.path !== '' ||
    typeof operation.value !== 'string'
  ) {
    throw new PatchError(0, operation?.path ?? '', 'a text is replaced as a whole');
  }
  return { document: operation.value, inverse: [{ op: 'replace', path: '', value: body }] };
}

function newErrors(all: ReadonlyMap<string, StoredDocument>, changed: StoredDocument): Problem[] {
  const bodies = new Map([...all].map(([path, { body }]) => [path, body]));
  const key = (problem: Problem): string => `${problem.file} ${problem.code} ${problem.message}`;
  const errors = (documentsNow: ReadonlyMap<string, unknown>): Problem[] =>
    checkSystem(documentsNow).problems.filter(problem => problem.severity === 'error');
  const after = errors(new Map(bodies).set(changed.path, changed.body));
  if (after.length === 0) return [];
  const before = new Set(errors(bodies).map(key));
  return after.filter(problem => !before.has(key(problem)));
}

const MAX_TITLE = 200;

/** What the shelf says of a system follows its manifest; its id is its address, and stays. */
function titleOf(manifest: unknown, systemId: string): string {
  const { id, title } = manifest as { id: unknown; title: unknown };
  if (id !== systemId) {
    throw new Refusal(
      422,
      'id-is-kept',
      'A system keeps its id',
      `Links lead to “${systemId}”; to have the system under another id, duplicate it.`,
    );
  }
  return String(title).slice(0, MAX_TITLE);
}

/** Writes an edit and the document that it leaves. Throws `Overtaken` where either is not as it was read. */
export async function writeEdit(
  transaction: Transaction,
  request: Omit<EditRequest, 'revision' | 'patch'>,
  applied: Applied & { id: number; kind: string; target: string | null },
): Promise<StoredEdit> {
  const { document, patch, inverse, id, kind, target } = applied;
  const { systemId, path, editKey, changeId, label, author } = request;
  const { revision } = document;
  const at = new Date();
  const [written] = await transaction
    .update(documents)
    .set({ revision, body: bodyText(path, document.body) })
    .where(
      and(eq(documents.systemId, systemId), eq(documents.path, path), eq(documents.revision, revision - 1)),
    );
  const shelf = path === 'system.json' ? { title: titleOf(document.body, systemId) } : {};
  const [counted] = await transaction
    .update(systems)
    .set({ lastEdit: id, changedAt: at, ...shelf })
    .where(and(eq(systems.id, systemId), eq(systems.lastEdit, id - 1)));
  if (written.affectedRows !== 1 || counted.affectedRows !== 1) throw new Overtaken();
  const edit = { id, path, revision, patch, kind, changeId, target, editKey, label, author };
  await transaction.insert(edits).values({ ...edit, systemId, inverse, at });
  return { ...edit, at: at.toISOString() };
}
