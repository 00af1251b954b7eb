import { and, asc, eq, gt, inArray, or } from 'drizzle-orm';
import { newErrors } from '@periwinkle/core/checks/new-errors';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { guarded } from '@periwinkle/core/formats/identity';
import { isSameJson } from '@periwinkle/core/formats/json';
import { LIMITS } from '@periwinkle/core/formats/limits';
import type { Problem } from '@periwinkle/core/formats/problem';
import { applyPatch, PatchError, type Patch, type PatchOperation } from '@periwinkle/core/formats/patch';
import { noteEdit } from './changes';
import { inTransaction, Overtaken, type Database, type Transaction } from './database';
import { asStored, EDIT_COLUMNS, editsWhere, type StoredEdit } from './edit-rows';
import { notFound, Refusal } from './refusal';
import { documents, edits, systems } from './schema';
import {
  bodiesOf,
  bodyText,
  documentAt,
  readDocuments,
  remember,
  type StoredDocument,
} from './system-documents';
import { inTurn } from './turns';

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

/** Stores an edit, all its parts or none: documents and history in one transaction. Throws `Refusal`; then nothing has changed. */
export async function storeEdit(db: Database, request: EditRequest): Promise<StoredEdit[]> {
  const { systemId, parts } = request;
  const { edits: stored, written } = await onSystem(db, systemId, async (transaction, lastEdit) => {
    const keys = parts.map(({ editKey }) => editKey);
    const twins = await transaction
      .select(EDIT_COLUMNS)
      .from(edits)
      .where(and(eq(edits.systemId, systemId), inArray(edits.editKey, keys)))
      .orderBy(asc(edits.id));
    // The same edit sent again, because its answer was lost: it is stored already.
    if (twins.length > 0) return { edits: sameEdits(parts, twins.map(asStored)), written: [] };
    const before = await readDocuments(transaction, systemId);
    const current = parts.map(({ path }) => documentAt(before, path));
    const outdated = parts.filter(({ revision }, index) => current[index]!.revision !== revision);
    if (outdated.length > 0) throw await stale(transaction, systemId, outdated, before);
    const applied = parts.map(({ patch }, index) => patched(current[index]!, patch));
    const written = applied.map(({ document }) => document);
    refuseNewErrors(before, written);
    const done: StoredEdit[] = [];
    for (const [index, { path, editKey }] of parts.entries()) {
      const place = { id: lastEdit + index + 1, path, editKey, kind: 'edit', target: null };
      const edit = await writeEdit(transaction, request, { ...applied[index]!, ...place });
      await noteEdit(transaction, systemId, edit);
      done.push(edit);
    }
    return { edits: done, written };
  });
  for (const document of written) remember(systemId, document);
  return stored;
}

/** Edits that are stored already, if they are the ones that were sent; one key never names two. */
function sameEdits(parts: readonly EditPart[], stored: readonly StoredEdit[]): StoredEdit[] {
  const isSame =
    stored.length === parts.length &&
    parts.every(({ editKey, path, patch }) =>
      stored.some(edit => edit.editKey === editKey && edit.path === path && isSameJson(edit.patch, patch)),
    );
  if (isSame) return [...stored];
  throw new Refusal(
    422,
    'key-reused',
    'The key names another edit',
    'An edit was stored under this Idempotency-Key that says something else; send each under a key of its own.',
  );
}

/** What was stored since an edit was made, of the documents that have gone on. */
async function stale(
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
    { path, revision, since },
  );
}

export interface Applied {
  readonly document: StoredDocument;
  readonly patch: Patch;
  readonly inverse: PatchOperation[];
}

/** Applies a patch to a document. Throws the refusal 404 where there is none, and 409 where the patch does not fit. */
export function patched(current: StoredDocument, patch: Patch): Applied {
  const { path, revision, body } = current;
  const isMade = patch.some(({ op, path: place }) => op === 'replace' && place === '');
  if (body === null && !isMade) throw notFound(`There is no document “${path}”.`);
  try {
    const isWhole = body === null || !documentKind(path)?.json;
    const result = isWhole ? replacedWhole(body, patch) : applyPatch(body, patch);
    return {
      document: { path, revision: revision + 1, body: result.document },
      patch,
      inverse: guarded(result.document, result.inverse),
    };
  } catch (error) {
    if (!(error instanceof PatchError)) throw error;
    throw new Refusal(409, 'patch-failed', 'The edit does not fit', error.message);
  }
}

/** Text documents, and those that are not there, are replaced as a whole. */
function replacedWhole(body: unknown, patch: Patch): { document: unknown; inverse: PatchOperation[] } {
  const operations = patch.filter(operation => operation.op !== 'test');
  const [operation] = operations;
  if (operations.length !== 1 || operation?.op !== 'replace' || operation.path !== '')
    throw new PatchError(0, operation?.path ?? '', 'it is replaced as a whole');
  return { document: operation.value, inverse: [{ op: 'replace', path: '', value: body }] };
}

/** Documents with errors, the first of them told one by one. */
export function invalid(title: string, errors: readonly Problem[]): Refusal {
  const problems = errors.slice(0, LIMITS.problemsTold);
  const rest = errors.length - problems.length;
  return new Refusal(422, 'invalid-document', title, errors[0]!.message, {
    problems,
    ...(rest > 0 ? { more: rest } : {}),
  });
}

/** Refuses documents that would bring in an error that was not there before, each kind of document what it holds. */
export function refuseNewErrors(
  before: ReadonlyMap<string, StoredDocument>,
  changed: readonly StoredDocument[],
): void {
  for (const { path, body } of changed) {
    if (body !== null && !documentKind(path)?.json && typeof body !== 'string')
      throw new Refusal(409, 'patch-failed', 'The edit does not fit', `“${path}” holds a text.`);
  }
  const now = new Map(before);
  for (const document of changed) now.set(document.path, document);
  const [bodies, then] = [bodiesOf(now.values()), bodiesOf(before.values())];
  if (bodies.size > LIMITS.documents && bodies.size > then.size)
    throw new Refusal(
      413,
      'too-many-documents',
      'Too many documents',
      `A system may have ${LIMITS.documents} documents; this would make ${bodies.size}.`,
    );
  const added = newErrors(then, bodies);
  if (added.length > 0) throw invalid('The edit would break the system', added);
}

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
  return String(title);
}

/** Writes an edit and the document that it leaves. Throws `Overtaken` where either is not as it was read. */
export async function writeEdit(
  transaction: Transaction,
  { systemId, changeId, label, author }: EditNames,
  applied: Applied & { id: number; path: string; editKey: string; kind: string; target: string | null },
): Promise<StoredEdit> {
  const { document, patch, inverse, id, path, editKey, kind, target } = applied;
  const { revision } = document;
  const at = new Date();
  const isWritten = await writeDocument(transaction, systemId, document);
  const shelf = path === 'system.json' ? { title: titleOf(document.body, systemId) } : {};
  const [counted] = await transaction
    .update(systems)
    .set({ lastEdit: id, changedAt: at, ...shelf })
    .where(and(eq(systems.id, systemId), eq(systems.lastEdit, id - 1)));
  if (!isWritten || counted.affectedRows !== 1) throw new Overtaken();
  const edit = { id, path, revision, patch, kind, changeId, target, editKey, label, author };
  await transaction.insert(edits).values({ ...edit, systemId, inverse, at });
  return { ...edit, at: at.toISOString() };
}

/** Whether the document could be written on the revision before it. */
async function writeDocument(
  transaction: Transaction,
  systemId: string,
  { path, revision, body }: StoredDocument,
): Promise<boolean> {
  const text = bodyText(path, body);
  if (text !== null && text.length > LIMITS.documentLetters)
    throw new Refusal(
      413,
      'too-large',
      'Too large',
      `“${path}” would have ${text.length} letters; a document may have ${LIMITS.documentLetters}.`,
    );
  const row = { revision, body: text };
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
