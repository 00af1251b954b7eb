import { createHash } from 'node:crypto';
import { and, asc, eq, gt, inArray, isNull, or } from 'drizzle-orm';
import { newErrors } from '@periwinkle/core/checks/new-errors';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { guarded } from '@periwinkle/core/formats/identity';
import { isSameJson } from '@periwinkle/core/formats/json';
import { parseJson, writeJson } from '@periwinkle/core/formats/json-text';
import { LIMITS } from '@periwinkle/core/formats/limits';
import type { Problem } from '@periwinkle/core/formats/problem';
import { applyPatch, PatchError, type Patch, type PatchOperation } from '@periwinkle/core/formats/patch';
import { noteEdit } from '../changes';
import { inTransaction, Overtaken, snapshot, type Database, type Transaction } from '../database';
import { asStored, EDIT_COLUMNS, editsJson, editsWhere, type StoredEdit } from '../edit-rows';
import { notFound, Refusal } from '../refusal';
import { documents, edits, systems } from '../schema';
import { computing } from './computing';
import {
  bodiesOf,
  bodyText,
  documentAt,
  readDocuments,
  remember,
  type StoredDocument,
} from './parsed-documents';
import { followed } from './placing-edits';
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
  /** Whether it is placed where documents have gone on since; otherwise it is stale. */
  readonly isPlaced: boolean;
}

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
async function lastEditOf(transaction: Transaction, systemId: string, isToWrite: boolean): Promise<number> {
  const asked = transaction
    .select({ lastEdit: systems.lastEdit })
    .from(systems)
    .where(and(eq(systems.id, systemId), isNull(systems.removedAt)));
  const [row] = await (isToWrite ? asked.for('update') : asked);
  if (!row) throw notFound(`There is no system “${systemId}”.`);
  return row.lastEdit;
}

/** What an edit comes to, as of the last edit before it. */
interface Plan {
  readonly lastEdit: number;
  readonly applied: readonly Applied[];
}

/**
 * Stores an edit, all its parts or none: documents and history in one transaction. Throws `Refusal`; then nothing has changed. What may take
 * long (`isHeavy`) is worked out before the system is held, and again only where others have written meanwhile.
 */
export async function storeEdit(
  db: Database,
  request: EditRequest,
  isHeavy: boolean,
): Promise<readonly StoredEdit[]> {
  const { systemId, parts } = request;
  const early = isHeavy ? await planned(db, request) : null;
  const { edits: stored, written } = await onSystem(db, systemId, async (transaction, lastEdit) => {
    const twins = await twinsOf(transaction, request);
    if (twins) return { edits: twins, written: [] };
    const { applied } = early?.lastEdit === lastEdit ? early : await planOn(transaction, request, lastEdit);
    const done: StoredEdit[] = [];
    for (const [index, { path, editKey }] of parts.entries()) {
      const place = { id: lastEdit + index + 1, path, editKey, kind: 'edit', target: null };
      const edit = await writeEdit(transaction, request, { ...applied[index]!, ...place });
      await noteEdit(transaction, systemId, edit);
      done.push(edit);
    }
    return { edits: done, written: applied.map(({ document }) => document) };
  });
  for (const document of written) remember(systemId, document);
  return stored;
}

/** An edit worked out on the system as it is at this moment; `null` where it is stored already. */
const planned = (db: Database, request: EditRequest): Promise<Plan | null> =>
  snapshot(db, async transaction =>
    (await twinsOf(transaction, request))
      ? null
      : planOn(transaction, request, await lastEditOf(transaction, request.systemId, false)),
  );

async function planOn(transaction: Transaction, request: EditRequest, lastEdit: number): Promise<Plan> {
  const { systemId, parts, isPlaced } = request;
  const before = await readDocuments(transaction, systemId);
  const current = parts.map(({ path }) => documentAt(before, path));
  const outdated = parts.filter(({ revision }, index) => current[index]!.revision !== revision);
  const following = isPlaced ? await followed(transaction, systemId, outdated, before) : new Map();
  if (outdated.some(part => !following.has(part))) throw await stale(transaction, systemId, outdated, before);
  return computing(() => {
    const done = parts.map((part, index) => patched(current[index]!, following.get(part) ?? part.patch));
    refuseNewErrors(
      before,
      done.map(({ document }) => document),
    );
    const applied = asWritten(before, done).map((each, index) => {
      const part = parts[index]!;
      return following.has(part) ? { ...each, sent: digestOf(part.patch) } : each;
    });
    return { lastEdit, applied };
  });
}

const digestOf = (patch: Patch): string => createHash('sha256').update(writeJson(patch)).digest('hex');

/**
 * The edits that are stored already where the same was sent again, because its answer was lost. Throws the refusal 422 where they say
 * something else: one key never names two.
 */
async function twinsOf(
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
    { path, revision, since: editsJson(since) },
  );
}

/** What a patch makes of a document, as it is to be checked. */
export interface Patched {
  readonly document: StoredDocument;
  readonly patch: Patch;
  readonly inverse: PatchOperation[];
}

/** The same as it is stored. */
export interface Applied extends Patched {
  /** The document. */
  readonly text: string | null;
  /** Digest of the patch as it was sent, where that was another. */
  readonly sent?: string;
}

/** Applies a patch to a document. Throws the refusal 404 where there is none, and 409 where the patch does not fit. */
export function patched(current: StoredDocument, patch: Patch): Patched {
  const { path, revision, body } = current;
  const isMade = patch.some(({ op, path: place }) => op === 'replace' && place === '');
  if (body === null && !isMade) throw notFound(`There is no document “${path}”.`);
  try {
    const isText = !documentKind(path)?.json;
    const result = body === null || isText ? replacedWhole(body, patch) : applyPatch(body, patch);
    if (isText && result.document !== null && typeof result.document !== 'string')
      throw new PatchError(0, '', `“${path}” holds a text`);
    return {
      document: { path, revision: revision + 1, body: result.document, letters: 0 },
      patch,
      inverse: result.inverse,
    };
  } catch (error) {
    if (!(error instanceof PatchError)) throw error;
    throw new Refusal(409, 'patch-failed', 'The edit does not fit', error.message);
  }
}

/**
 * Documents that have been checked, as they are stored: with their texts, and inverses that say what they rely on. Throws the refusal 413
 * for what is larger than it may be.
 */
export function asWritten(before: ReadonlyMap<string, StoredDocument>, all: readonly Patched[]): Applied[] {
  const now = new Map(before);
  const applied = all.map(each => {
    const { path, body } = each.document;
    const text = bodyText(path, body);
    const letters = text?.length ?? 0;
    if (letters > LIMITS.documentLetters)
      throw new Refusal(
        413,
        'too-large',
        'Too large',
        `“${path}” would have ${letters} letters; a document may have ${LIMITS.documentLetters}.`,
      );
    const document = { ...each.document, letters };
    now.set(path, document);
    return { ...each, document, text, inverse: guarded(body, each.inverse) };
  });
  refuseLonger(sizeOf(before.values()), sizeOf(now.values()));
  return applied;
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

/** Refuses documents that would bring in an error that was not there before, or be too many. */
export function refuseNewErrors(
  before: ReadonlyMap<string, StoredDocument>,
  changed: readonly StoredDocument[],
): void {
  const now = new Map(before);
  for (const document of changed) now.set(document.path, document);
  refuseMore(sizeOf(before.values()), sizeOf(now.values()));
  const added = newErrors(bodiesOf(before.values()), bodiesOf(now.values()));
  if (added.length > 0) throw invalid('The edit would break the system', added);
}

interface Size {
  readonly documents: number;
  readonly letters: number;
}

const sizeOf = (all: Iterable<StoredDocument>): Size => {
  const present = [...all].filter(({ body }) => body !== null);
  return { documents: present.length, letters: present.reduce((sum, { letters }) => sum + letters, 0) };
};

/** Refuses a system that grows beyond the documents that one may have. */
export function refuseMore(before: Size, now: Size): void {
  if (now.documents > LIMITS.documents && now.documents > before.documents)
    throw new Refusal(
      413,
      'too-many-documents',
      'Too many documents',
      `A system may have ${LIMITS.documents} documents; this would make ${now.documents}.`,
    );
}

/** Refuses a system whose documents grow beyond the letters that they may have. */
export function refuseLonger(before: Size, now: Size): void {
  if (now.letters > LIMITS.systemLetters && now.letters > before.letters)
    throw new Refusal(
      413,
      'too-large',
      'Too large',
      `The documents of a system may have ${LIMITS.systemLetters} letters together; this would make ${now.letters}.`,
    );
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
  const { document, text, inverse, sent, id, path, editKey, kind, target } = applied;
  const { revision } = document;
  const at = new Date();
  const isWritten = await writeDocument(transaction, systemId, { path, revision, body: text });
  const shelf = path === 'system.json' ? { title: titleOf(document.body, systemId) } : {};
  const [counted] = await transaction
    .update(systems)
    .set({ lastEdit: id, changedAt: at, ...shelf })
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
