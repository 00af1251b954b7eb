import { and, asc, desc, eq, gt, sql } from 'drizzle-orm';
import { checkSystem } from '@periwinkle/core/checks/check-system';
import { documentKind } from '@periwinkle/core/formats/document-kinds';
import { applyPatch, PatchError, type Patch, type PatchOperation } from '@periwinkle/core/formats/patch';
import type { Problem } from '@periwinkle/core/formats/problem';
import { inTransaction, type Database, type Transaction } from './database';
import { notFound, Refusal } from './refusal';
import { documents, edits, systems } from './schema';
import { bodyText, readDocuments, remember, type StoredDocument } from './system-documents';

/** A stored edit as other windows hear of it. */
export interface StoredEdit {
  readonly id: number;
  readonly path: string;
  readonly revision: number;
  readonly patch: Patch;
  readonly kind: string;
  readonly changeId: string;
  readonly editKey: string;
  readonly label: string;
  readonly author: string;
  readonly at: string;
}

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

/** What can be taken back or brought back, in words. */
export interface HistoryEnds {
  readonly undo: string | null;
  readonly redo: string | null;
}

const columns = {
  id: edits.id,
  path: edits.path,
  revision: edits.revision,
  patch: edits.patch,
  kind: edits.kind,
  changeId: edits.changeId,
  editKey: edits.editKey,
  label: edits.label,
  author: edits.author,
  at: edits.at,
};

type Row = Omit<StoredEdit, 'at' | 'patch'> & { at: Date; patch: unknown };
const asStored = (row: Row): StoredEdit => ({ ...row, patch: row.patch as Patch, at: row.at.toISOString() });

/** Takes the system's row, so that writes to one system follow one another. */
async function lockSystem(transaction: Transaction, systemId: string): Promise<void> {
  const [row] = await transaction
    .select({ id: systems.id, removedAt: systems.removedAt })
    .from(systems)
    .where(eq(systems.id, systemId))
    .for('update');
  if (!row || row.removedAt) throw notFound(`There is no system “${systemId}”.`);
}

/** Stores an edit: document and history in one transaction. Throws `Refusal`; then nothing has changed. */
export async function storeEdit(db: Database, request: EditRequest): Promise<StoredEdit> {
  const { edit, document } = await inTransaction(db, async transaction => {
    await lockSystem(transaction, request.systemId);
    const [twin] = await transaction
      .select(columns)
      .from(edits)
      .where(and(eq(edits.systemId, request.systemId), eq(edits.editKey, request.editKey)));
    // The same edit sent again, because its answer was lost: it is stored already.
    if (twin) return { edit: asStored(twin), document: null };
    const before = await readDocuments(transaction, request.systemId);
    const current = before.get(request.path);
    if (!current) throw notFound(`There is no document “${request.path}”.`);
    if (current.revision !== request.revision) throw await stale(transaction, request, current.revision);
    const applied = patched(before, current, request.patch);
    return write(transaction, request, { ...applied, kind: 'edit', target: null });
  });
  if (document) remember(request.systemId, document);
  return edit;
}

async function stale(transaction: Transaction, request: EditRequest, revision: number): Promise<Refusal> {
  const since = await transaction
    .select(columns)
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

interface Applied {
  readonly document: StoredDocument;
  readonly patch: Patch;
  readonly inverse: PatchOperation[];
}

/** Applies a patch and refuses what would bring in an error that was not there before. */
function patched(all: ReadonlyMap<string, StoredDocument>, current: StoredDocument, patch: Patch): Applied {
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
  return { document, patch, inverse: result.inverse };
}

/** Text documents are replaced as a whole. */
function replacedText(body: unknown, patch: Patch): { document: unknown; inverse: PatchOperation[] } {
  const [operation] = patch;
  if (
    patch.length !== 1 ||
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

async function write(
  transaction: Transaction,
  request: Omit<EditRequest, 'revision' | 'patch'>,
  applied: Applied & { kind: string; target: string | null },
): Promise<{ edit: StoredEdit; document: StoredDocument }> {
  const { document, patch, inverse, kind, target } = applied;
  const at = new Date();
  const { systemId, path, editKey, changeId, label, author } = request;
  await transaction
    .update(documents)
    .set({ revision: document.revision, body: bodyText(path, document.body) })
    .where(and(eq(documents.systemId, systemId), eq(documents.path, path)));
  const row = {
    systemId,
    path,
    revision: document.revision,
    patch,
    inverse,
    kind,
    changeId,
    target,
    editKey,
    label,
    author,
    at,
  };
  const [{ insertId }] = await transaction.insert(edits).values(row);
  const shelf = path === 'system.json' ? { title: titleOf(document.body, systemId) } : {};
  await transaction
    .update(systems)
    .set({ changedAt: at, ...shelf })
    .where(eq(systems.id, systemId));
  return {
    edit: {
      id: insertId,
      path,
      revision: document.revision,
      patch,
      kind,
      changeId,
      editKey,
      label,
      author,
      at: at.toISOString(),
    },
    document,
  };
}

/** Edits of a system after a given one, oldest first. */
export async function editsAfter(
  db: Database | Transaction,
  systemId: string,
  after: number,
  most = 500,
): Promise<StoredEdit[]> {
  const rows = await db
    .select(columns)
    .from(edits)
    .where(and(eq(edits.systemId, systemId), gt(edits.id, after)))
    .orderBy(asc(edits.id))
    .limit(most);
  return rows.map(asStored);
}

/** The newest edits, newest first, for the list of what was done. */
export async function latestEdits(db: Database, systemId: string, most: number): Promise<StoredEdit[]> {
  const rows = await db
    .select(columns)
    .from(edits)
    .where(eq(edits.systemId, systemId))
    .orderBy(desc(edits.id))
    .limit(most);
  return rows.map(asStored);
}

interface Candidate {
  readonly changeId: string;
  readonly label: string;
}

/** The newest change that was made and is not taken back at present. */
async function undoCandidate(db: Database | Transaction, systemId: string): Promise<Candidate | null> {
  const [rows] = await db.execute(sql`
    select e.change_id as changeId, e.label from edits e
    where e.system_id = ${systemId} and e.kind = 'edit'
      and coalesce((select a.kind from edits a where a.system_id = e.system_id and a.target = e.change_id order by a.id desc limit 1), 'redo') = 'redo'
    order by e.id desc limit 1`);
  return (rows as unknown as Candidate[])[0] ?? null;
}

/** The change taken back last and not brought back since, provided nothing new was done after. */
async function redoCandidate(db: Database | Transaction, systemId: string): Promise<Candidate | null> {
  const [rows] = await db.execute(sql`
    select u.target as changeId, u.label from edits u
    where u.system_id = ${systemId} and u.kind = 'undo'
      and u.id > coalesce((select max(e.id) from edits e where e.system_id = ${systemId} and e.kind = 'edit'), 0)
      and not exists (select 1 from edits a where a.system_id = u.system_id and a.target = u.target and a.id > u.id and a.kind = 'redo')
    order by u.id desc limit 1`);
  return (rows as unknown as Candidate[])[0] ?? null;
}

export async function historyEnds(db: Database, systemId: string): Promise<HistoryEnds> {
  const [undo, redo] = await Promise.all([undoCandidate(db, systemId), redoCandidate(db, systemId)]);
  return { undo: undo?.label ?? null, redo: redo?.label ?? null };
}

/** A step through the history. */
export interface StepRequest {
  readonly systemId: string;
  readonly direction: 'undo' | 'redo';
  readonly author: string;
  /** Names the step: asked for again, because its answer was lost, it is done once. */
  readonly stepKey: string;
}

/** Takes the last change back, or brings the last one taken back again. Both are edits of their own. */
export async function stepHistory(
  db: Database,
  { systemId, direction, author, stepKey }: StepRequest,
): Promise<StoredEdit[]> {
  const { known, written } = await inTransaction(db, async transaction => {
    await lockSystem(transaction, systemId);
    const before = await transaction
      .select(columns)
      .from(edits)
      .where(and(eq(edits.systemId, systemId), eq(edits.changeId, stepKey), eq(edits.kind, direction)))
      .orderBy(asc(edits.id));
    if (before.length > 0) return { known: before.map(asStored), written: [] };
    const find = direction === 'undo' ? undoCandidate : redoCandidate;
    const candidate = await find(transaction, systemId);
    if (!candidate) {
      const words =
        direction === 'undo' ? 'There is nothing to take back.' : 'There is nothing to bring back.';
      throw new Refusal(409, `nothing-to-${direction}`, 'Nothing to do', words);
    }
    const parts = await transaction
      .select({ path: edits.path, patch: edits.patch, inverse: edits.inverse })
      .from(edits)
      .where(
        and(eq(edits.systemId, systemId), eq(edits.changeId, candidate.changeId), eq(edits.kind, 'edit')),
      )
      .orderBy(direction === 'undo' ? desc(edits.id) : asc(edits.id));
    const done: { edit: StoredEdit; document: StoredDocument }[] = [];
    const all = await readDocuments(transaction, systemId);
    for (const part of parts) {
      const patch = (direction === 'undo' ? part.inverse : part.patch) as Patch;
      const applied = patched(all, all.get(part.path)!, patch);
      const request = {
        systemId,
        path: part.path,
        editKey: crypto.randomUUID(),
        changeId: stepKey,
        label: candidate.label,
        author,
      };
      const result = await write(transaction, request, {
        ...applied,
        kind: direction,
        target: candidate.changeId,
      });
      all.set(part.path, result.document);
      done.push(result);
    }
    return { known: [], written: done };
  });
  for (const { document } of written) remember(systemId, document);
  return [...known, ...written.map(({ edit }) => edit)];
}
