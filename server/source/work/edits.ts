import { inTransaction, snapshot, type Database, type Transaction } from '../database';
import { noteEdit } from '../changes';
import type { StoredEdit } from '../edit-rows';
import { Refusal } from '../refusal';
import { computing } from './computing';
import { twinsOf, type EditRequest } from './edit-requests';
import { readDocuments, remember, type StoredDocument } from './parsed-documents';
import { asWritten, type Patched } from './patching';
import { planOn } from './planning';
import { refuseNewErrors } from './refusing';
import { inTurn } from './turns';
import { Unstored } from './unstored';
import { lastEditOf, writeEdit } from './writing';

/** An edit that waits for its turn. */
interface Waiting {
  readonly request: EditRequest;
  /** What it was found to come to before, and after which edit. */
  readonly early: { readonly lastEdit: number; readonly done: readonly Patched[] } | null;
  readonly resolve: (edits: readonly StoredEdit[]) => void;
  readonly reject: (error: unknown) => void;
}

/** So many edits are checked and stored together. */
const MOST_TOGETHER = 50;

const waiting = new Map<string, Waiting[]>();

/**
 * Stores an edit, all its parts or none: documents and history in one transaction. Throws `Refusal`; then nothing has changed. What may take
 * long (`isHeavy`) is worked out before the system is held, and again only where others have written meanwhile. Edits that come while others
 * are stored wait, and are then checked and stored together; each that does not simply fit is done by itself.
 */
export async function storeEdit(
  db: Database,
  request: EditRequest,
  isHeavy: boolean,
): Promise<readonly StoredEdit[]> {
  const { systemId } = request;
  const early = isHeavy ? await workedOut(db, request) : null;
  return new Promise((resolve, reject) => {
    const others = waiting.get(systemId);
    const own = { request, early, resolve, reject };
    if (others) others.push(own);
    else {
      waiting.set(systemId, [own]);
      storeWaiting(db, systemId);
    }
  });
}

/** An edit worked out and checked on the system as it is at this moment; `null` where it is stored already. */
const workedOut = (db: Database, request: EditRequest): Promise<Waiting['early']> =>
  snapshot(db, async transaction => {
    const { systemId } = request;
    const lastEdit = await lastEditOf(transaction, systemId, false);
    if (await twinsOf(transaction, request)) return null;
    const before = await readDocuments(transaction, systemId);
    return { lastEdit, done: await checkedOn(transaction, request, before) };
  });

async function checkedOn(
  transaction: Transaction,
  request: EditRequest,
  before: ReadonlyMap<string, StoredDocument>,
): Promise<readonly Patched[]> {
  const done = await planOn(transaction, request, new Unstored(before));
  computing(() => refuseNewErrors(before, documentsOf(done)));
  return done;
}

const documentsOf = (done: readonly Patched[]): StoredDocument[] => done.map(({ document }) => document);

/** Stores what waits, in its turn, until nothing does. */
function storeWaiting(db: Database, systemId: string): void {
  void inTurn(systemId, async () => {
    const all = waiting.get(systemId)!;
    const some = all.splice(0, togetherIn(all));
    const left = some.length > 1 ? await storedTogether(db, systemId, some) : some;
    for (const each of left) await storeAlone(db, each).then(each.resolve, each.reject);
    if (all.length > 0) storeWaiting(db, systemId);
    else waiting.delete(systemId);
  });
}

/** How many of those that wait, from the first on, may be stored together: none that was worked out by itself, and none sent twice. */
function togetherIn(all: readonly Waiting[]): number {
  const keys = new Set<string>();
  const end = all.findIndex(({ request, early }) =>
    [early !== null, ...request.parts.map(({ editKey }) => keys.size === keys.add(editKey).size)].some(
      Boolean,
    ),
  );
  return Math.min(MOST_TOGETHER, Math.max(1, end < 0 ? all.length : end));
}

/** Stores those of several edits that fit one after the other, if there is nothing to say against what they come to. Gives the others. */
async function storedTogether(
  db: Database,
  systemId: string,
  some: readonly Waiting[],
): Promise<readonly Waiting[]> {
  try {
    const stored = await inTransaction(db, async transaction => {
      const lastEdit = await lastEditOf(transaction, systemId, true);
      const before = await readDocuments(transaction, systemId);
      let state = new Unstored(before);
      const fitting: { each: Waiting; done: readonly Patched[] }[] = [];
      for (const each of some) {
        const done = await fittingOn(transaction, each.request, state);
        if (!done) continue;
        fitting.push({ each, done });
        state = state.with(done);
      }
      computing(() => refuseNewErrors(before, [...state.documents.values()]));
      const result = new Map<Waiting, Stored>();
      let [last, now] = [lastEdit, before];
      for (const { each, done } of fitting) {
        const written = await write(transaction, each.request, done, last, now);
        result.set(each, written);
        last += done.length;
        now = new Map([...now, ...written.documents.map(each => [each.path, each] as const)]);
      }
      return result;
    });
    for (const [{ request, resolve }, { edits, documents }] of stored) {
      for (const document of documents) remember(request.systemId, document);
      resolve(edits);
    }
    return some.filter(each => !stored.has(each));
  } catch (error) {
    if (error instanceof Refusal) return some;
    for (const { reject } of some) reject(error);
    return [];
  }
}

/** What an edit comes to among others; `null` where it has to be looked at by itself. */
async function fittingOn(
  transaction: Transaction,
  request: EditRequest,
  state: Unstored,
): Promise<readonly Patched[] | null> {
  try {
    return (await twinsOf(transaction, request)) ? null : await planOn(transaction, request, state);
  } catch (error) {
    if (error instanceof Refusal) return null;
    throw error;
  }
}

async function storeAlone(db: Database, { request, early }: Waiting): Promise<readonly StoredEdit[]> {
  const { systemId } = request;
  const { edits, documents } = await inTransaction(db, async (transaction): Promise<Stored> => {
    const lastEdit = await lastEditOf(transaction, systemId, true);
    const twins = await twinsOf(transaction, request);
    if (twins) return { edits: twins, documents: [] };
    const before = await readDocuments(transaction, systemId);
    const done = early?.lastEdit === lastEdit ? early.done : await checkedOn(transaction, request, before);
    return write(transaction, request, done, lastEdit, before);
  });
  for (const document of documents) remember(systemId, document);
  return edits;
}

interface Stored {
  readonly edits: readonly StoredEdit[];
  readonly documents: readonly StoredDocument[];
}

/** Writes an edit that has been checked, after the last one and the documents as that has left them. */
async function write(
  transaction: Transaction,
  request: EditRequest,
  done: readonly Patched[],
  lastEdit: number,
  before: ReadonlyMap<string, StoredDocument>,
): Promise<Stored> {
  const applied = computing(() => asWritten(before, done));
  const edits: StoredEdit[] = [];
  for (const [index, each] of applied.entries()) {
    const { editKey } = request.parts[index]!;
    const place = { id: lastEdit + index + 1, editKey, kind: 'edit', target: null };
    const edit = await writeEdit(transaction, request, { ...each, ...place });
    await noteEdit(transaction, request.systemId, edit);
    edits.push(edit);
  }
  return { edits, documents: documentsOf(applied) };
}
