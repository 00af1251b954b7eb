import type { Database } from '../storage/open-database';
import { inTransaction, isPassing, snapshot, type Transaction } from '../storage/database';
import { noteEdits } from '../storage/changes';
import type { StoredEdit } from '../storage/edit-rows';
import { asRefusal, Refusal } from '../http/refusal';
import { computing, onBehalfOf, requestsHere, type Requests } from './computing';
import { twinsOf, type EditRequest } from './edit-requests';
import { readDocuments, remember, type StoredDocument } from './parsed-documents';
import type { Patched } from './patching';
import { planOn } from './planning';
import { refuseNewErrors } from './refusing';
import { inTurn } from './turns';
import { givenWay } from './rivals';
import { Unstored } from './unstored';
import { lastEditOf, writeEdits, type NewEdit, type Written } from './writing';

/** An edit that waits for its turn. */
interface QueuedEdit {
  readonly request: EditRequest;
  /** Who asked for it: whose turn it is stored in may be another's. */
  readonly asker: Requests;
  /** What it was found to come to before, and after which edit. */
  readonly early: { readonly lastEdit: number; readonly done: readonly Patched[] } | null;
  readonly resolve: (edits: readonly StoredEdit[]) => void;
  readonly reject: (error: unknown) => void;
}

/** So many edits are checked and stored together. */
const MOST_TOGETHER = 50;

/** What waits on one system. */
interface Queue {
  readonly all: QueuedEdit[];
  /** So many may be stored together: fewer where others write through another node meanwhile, so that who needs long is not always overtaken. */
  together: number;
}

const waiting = new Map<string, Queue>();

/**
 * Stores an edit, all its parts or none: documents and history in one transaction. Throws `Refusal`; then nothing has changed. What may take
 * long (`isAlone`) is worked out before the system is held, and again only where others have written meanwhile. Edits that come while others
 * are stored wait, and are then checked and stored together; each that does not simply fit is done by itself.
 */
export async function storeEdit(
  db: Database,
  request: EditRequest,
  isAlone: boolean,
): Promise<readonly StoredEdit[]> {
  const { systemId } = request;
  const early = isAlone ? await workedOut(db, request) : null;
  return new Promise((resolve, reject) => {
    const queue = waiting.get(systemId);
    const own = { request, asker: requestsHere(), early, resolve, reject };
    if (queue) queue.all.push(own);
    else {
      waiting.set(systemId, { all: [own], together: MOST_TOGETHER });
      storeWaiting(db, systemId);
    }
  });
}

/** An edit worked out and checked on the system as it is at this moment; `null` where it is stored already. */
const workedOut = (db: Database, request: EditRequest): Promise<QueuedEdit['early']> =>
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
    const queue = waiting.get(systemId)!;
    const { all } = queue;
    const began = performance.now();
    const some = all.splice(0, togetherIn(queue));
    const askers = some.flatMap(({ asker }) => asker);
    const left = some.length > 1 ? await onBehalfOf(askers, () => storedTogether(db, systemId, some)) : some;
    if (left === 'overtaken') {
      all.unshift(...some);
      queue.together = Math.ceil(some.length / 2);
    } else {
      queue.together = Math.min(MOST_TOGETHER, queue.together * 2);
      for (const each of left)
        await onBehalfOf(each.asker, () => storeAlone(db, each)).then(each.resolve, each.reject);
      await givenWay(systemId, performance.now() - began);
    }
    if (all.length > 0) storeWaiting(db, systemId);
    else waiting.delete(systemId);
  });
}

/** How many of those that wait, from the first on, may be stored together: none that was worked out by itself, and none sent twice. */
function togetherIn({ all, together }: Queue): number {
  const keys = new Set<string>();
  const end = all.findIndex(({ request, early }) => {
    const isKnown = request.parts.some(({ editKey }) => keys.has(editKey));
    for (const { editKey } of request.parts) keys.add(editKey);
    return isKnown || early !== null;
  });
  return Math.min(together, Math.max(1, end < 0 ? all.length : end));
}

/**
 * Stores those of several edits that fit one after the other, if there is nothing to say against what they come to; refuses those that do not
 * fit on what is stored. Gives the others, or that somebody else was quicker and nothing is stored.
 */
async function storedTogether(
  db: Database,
  systemId: string,
  some: readonly QueuedEdit[],
): Promise<readonly QueuedEdit[] | 'overtaken'> {
  try {
    const work = async (transaction: Transaction) => {
      const lastEdit = await lastEditOf(transaction, systemId, true);
      const before = await readDocuments(transaction, systemId);
      let state = new Unstored(before);
      const fitting: { each: QueuedEdit; done: readonly Patched[] }[] = [];
      const refused = new Map<QueuedEdit, Refusal>();
      for (const each of some) {
        const done = await onBehalfOf(each.asker, () => fittingOn(transaction, each.request, state));
        if (done instanceof Refusal) {
          // Behind others that are not stored yet it does not know of these.
          if (fitting.length === 0) refused.set(each, done);
        } else if (done) {
          fitting.push({ each, done });
          state = state.with(done);
        }
      }
      if (fitting.length === 0) return { fitting: [], refused, edits: [], documents: [] };
      computing(() => refuseNewErrors(before, [...state.documents.values()]));
      const all = fitting.flatMap(({ each, done }) => newEdits(each.request, done));
      const written = await write(transaction, systemId, lastEdit, before, all);
      return { fitting: fitting.map(({ each }) => each), refused, ...written };
    };
    const stored = await inTransaction(db, work, 1);
    for (const document of stored.documents) remember(systemId, document);
    let place = 0;
    for (const { request, resolve } of stored.fitting)
      resolve(stored.edits.slice(place, (place += request.parts.length)));
    for (const [{ reject }, refusal] of stored.refused) reject(refusal);
    return some.filter(each => !stored.fitting.includes(each) && !stored.refused.has(each));
  } catch (error) {
    if (error instanceof Refusal) return some;
    if (isPassing(error)) return 'overtaken';
    for (const { reject } of some) reject(error);
    return [];
  }
}

/** What an edit comes to among others, or why it does not fit; `null` where it was stored before. */
async function fittingOn(
  transaction: Transaction,
  request: EditRequest,
  state: Unstored,
): Promise<readonly Patched[] | Refusal | null> {
  try {
    return (await twinsOf(transaction, request)) ? null : await planOn(transaction, request, state);
  } catch (error) {
    return asRefusal(error);
  }
}

async function storeAlone(db: Database, { request, early }: QueuedEdit): Promise<readonly StoredEdit[]> {
  const { systemId } = request;
  const { edits, documents } = await inTransaction(db, async (transaction): Promise<Written> => {
    const lastEdit = await lastEditOf(transaction, systemId, true);
    const twins = await twinsOf(transaction, request);
    if (twins) return { edits: twins, documents: [] };
    const before = await readDocuments(transaction, systemId);
    const done = early?.lastEdit === lastEdit ? early.done : await checkedOn(transaction, request, before);
    return write(transaction, systemId, lastEdit, before, newEdits(request, done));
  });
  for (const document of documents) remember(systemId, document);
  return edits;
}

const newEdits = (
  { parts, systemId, changeId, label, author }: EditRequest,
  done: readonly Patched[],
): NewEdit[] =>
  done.map((each, index) => ({
    ...{ systemId, changeId, label, author, target: null },
    kind: 'edit',
    editKey: parts[index]!.editKey,
    done: each,
  }));

/** Writes edits that have been checked, and counts each to its change. */
async function write(
  transaction: Transaction,
  systemId: string,
  lastEdit: number,
  before: ReadonlyMap<string, StoredDocument>,
  all: readonly NewEdit[],
): Promise<Written> {
  const written = await writeEdits(transaction, systemId, lastEdit, before, all);
  await noteEdits(transaction, systemId, written.edits);
  return written;
}
