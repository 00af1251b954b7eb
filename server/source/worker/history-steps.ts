import { and, asc, desc, eq, gt, gte, sql, type SQL } from 'drizzle-orm';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { parseJson } from '@periwinkle/core/json/json-text';
import type { Patch } from '@periwinkle/core/patch/operations';
import { applyPatch } from '@periwinkle/core/patch/patch';
import { relocated, type RelocationFault } from '@periwinkle/core/patch/relocate';
import type { NamedChange } from '@periwinkle/protocol/wire';
import { changeNamed, nextRedo, nextUndo, setChange, type ChangeRow } from '../storage/changes';
import type { Database } from '../storage/open-database';
import type { Transaction } from '../storage/database';
import { asStored, EDIT_COLUMNS, type StoredEdit } from '../storage/edit-rows';
import { asRefusal, notFound, Refusal } from '../http/refusal';
import { edits } from '../storage/schema';
import { computing, reading } from './computing';
import { documentAt, readDocuments, remember, type StoredDocument } from './parsed-documents';
import { patched, type Patched } from './patching';
import { refuseNewErrors } from './refusing';
import { onSystem, writeEdits } from './writing';

type Direction = 'undo' | 'redo';

/** A step through the history. */
export interface StepRequest {
  readonly systemId: string;
  readonly direction: Direction;
  readonly author: string;
  /** The change that is meant, anybody's; without one, the next in the history of the author. */
  readonly change: string | null;
  /** Names the step: asked for again, because its answer was lost, it is done once. */
  readonly stepKey: string;
}

interface DirectionRow {
  readonly from: ChangeRow['state'];
  readonly to: ChangeRow['state'];
  readonly next: typeof nextUndo;
  readonly nothing: string;
  readonly already: string;
  readonly cannot: string;
}

const DIRECTIONS: Readonly<Record<Direction, DirectionRow>> = {
  undo: {
    from: 'done',
    to: 'undone',
    next: nextUndo,
    nothing: 'There is nothing of yours to take back.',
    already: 'has been taken back already',
    cannot: 'cannot be taken back',
  },
  redo: {
    from: 'undone',
    to: 'done',
    next: nextRedo,
    nothing: 'There is nothing to bring back.',
    already: 'stands already',
    cannot: 'cannot be brought back',
  },
};

type Outcome =
  | { readonly edits: readonly StoredEdit[]; readonly written: readonly StoredDocument[] }
  | { readonly refusal: Refusal };

/**
 * Takes a change back, or brings it back again, however much others have done since: what its last edits did is undone where it is by
 * now. The edits of the step are edits of their own. Throws `Refusal` that says what stands in the way; the next step then goes on
 * behind that change.
 */
export async function stepHistory(db: Database, request: StepRequest): Promise<readonly StoredEdit[]> {
  const { systemId, direction, stepKey } = request;
  const outcome = await onSystem(db, systemId, async (transaction, lastEdit): Promise<Outcome> => {
    const before = await transaction
      .select(EDIT_COLUMNS)
      .from(edits)
      .where(and(eq(edits.systemId, systemId), eq(edits.changeId, stepKey), eq(edits.kind, direction)))
      .orderBy(asc(edits.id));
    if (before.length > 0) return { edits: before.map(asStored), written: [] };
    const change = await changeMeant(transaction, request);
    const steps = await stepsOf(transaction, change, direction);
    if (steps instanceof Refusal) {
      await setChange(transaction, change, { holder: null });
      return { refusal: steps };
    }
    const names = { systemId, changeId: stepKey, label: change.label, author: request.author };
    const { edits: done, documents } = await writeEdits(
      transaction,
      systemId,
      lastEdit,
      steps.before,
      steps.done.map(each => ({
        ...names,
        done: each,
        editKey: crypto.randomUUID(),
        kind: direction,
        target: change.id,
      })),
    );
    await setChange(transaction, change, {
      state: DIRECTIONS[direction].to,
      act: stepKey,
      position: lastEdit + done.length,
      holder: direction === 'undo' ? request.author : change.author,
    });
    return { edits: done, written: documents };
  });
  if ('refusal' in outcome) throw outcome.refusal;
  for (const document of outcome.written) remember(systemId, document);
  return outcome.edits;
}

/** The change that a step is about. Throws `Refusal` where there is none, or where it has been done already. */
async function changeMeant(
  transaction: Transaction,
  { systemId, direction, author, change }: StepRequest,
): Promise<ChangeRow> {
  const { next, nothing, from, already } = DIRECTIONS[direction];
  if (change === null) {
    const row = await next(transaction, systemId, author);
    if (!row) throw new Refusal(409, `nothing-to-${direction}`, 'Nothing to do', nothing);
    return row;
  }
  const row = await changeNamed(transaction, systemId, change);
  if (!row) throw notFound(`There is no change “${change}”.`);
  if (row.state !== from)
    throw new Refusal(409, `nothing-to-${direction}`, 'Nothing to do', `“${row.label}” ${already}.`);
  return row;
}

/** What a step does to documents as they were read. */
interface Steps {
  readonly before: ReadonlyMap<string, StoredDocument>;
  readonly done: readonly Patched[];
}

/** To take a part back takes as long as to read so many letters. */
const PART_LETTERS = 10_000;

/** What a step does, edit by edit, or why it cannot be taken. */
async function stepsOf(
  transaction: Transaction,
  change: ChangeRow,
  direction: Direction,
): Promise<Steps | Refusal> {
  const { systemId, label, act } = change;
  const { cannot } = DIRECTIONS[direction];
  const inTheWay = (reason: string, extra: Refusal['extra'] = {}): Refusal =>
    new Refusal(409, 'in-the-way', 'Something stands in the way', `“${label}” ${cannot}: ${reason}`, extra);
  if (act === null) return inTheWay('it was made before what an edit relies on was kept.');
  const parts = await transaction
    .select({ id: edits.id, path: edits.path, inverse: edits.inverse })
    .from(edits)
    .where(and(eq(edits.systemId, systemId), eq(edits.changeId, act), actOf(change)))
    .orderBy(desc(edits.id));
  // Each is placed, checked and written.
  const letters = parts.reduce((sum, { inverse }) => sum + 5 * inverse.length + PART_LETTERS, 0);
  reading(letters, 'request');
  const before = await readDocuments(transaction, systemId);
  const all = new Map(before);
  const done: Patched[] = [];
  for (const { id, path, inverse: text } of parts) {
    const current = documentAt(all, path);
    const inverse = computing(() => parseJson(text) as Patch);
    const found = computing(() => relocated(current.body, inverse));
    if (!found.ok) {
      const obstacle = await obstacleOf(transaction, systemId, { id, path, inverse }, current.body);
      return inTheWay(wordsFor(found, path, obstacle), { obstacle });
    }
    const step = computing(() => refusalOr(() => patched(current, found.patch)));
    if (step instanceof Refusal) return inTheWay(step.detail, step.extra);
    done.push(step);
    all.set(path, step.document);
  }
  const refusal = computing(() => refusalOr(() => refuseNewErrors(before, [...all.values()])));
  return refusal instanceof Refusal ? inTheWay(refusal.detail, refusal.extra) : { before, done };
}

function refusalOr<Result>(work: () => Result): Result | Refusal {
  try {
    return work();
  } catch (error) {
    return asRefusal(error);
  }
}

/** Tells the edits of a change's last act from others under the same name. */
const actOf = ({ id, act }: ChangeRow): SQL => (act === id ? eq(edits.kind, 'edit') : eq(edits.target, id));

const HINDRANCES: Readonly<Record<RelocationFault, string>> = {
  gone: 'is gone',
  changed: 'has been changed since',
  taken: 'is taken by something else',
};

function wordsFor(
  { place, reason }: { place: string; reason: RelocationFault },
  path: string,
  obstacle: NamedChange | null,
): string {
  const by = obstacle ? `, by “${obstacle.label}”` : '';
  return `${place === '' ? path : `${place} in ${path}`} ${HINDRANCES[reason]}${by}.`;
}

/** How many edits are looked through for the one that stands in the way, unless they have too many letters before. */
const LOOKED_THROUGH = 500;

/** The edit since which an inverse no longer has its place: the document is followed back to where it still had. */
async function obstacleOf(
  transaction: Transaction,
  systemId: string,
  part: { readonly id: number; readonly path: string; readonly inverse: Patch },
  body: unknown,
): Promise<NamedChange | null> {
  const later = and(eq(edits.systemId, systemId), eq(edits.path, part.path), gt(edits.id, part.id));
  const sizes = await transaction
    .select({ id: edits.id, letters: sql<number>`char_length(${edits.inverse})`.mapWith(Number) })
    .from(edits)
    .where(later)
    .orderBy(desc(edits.id))
    .limit(LOOKED_THROUGH);
  let letters = 0;
  const first = sizes.filter(each => (letters += each.letters) <= QUOTAS.lettersTold).at(-1);
  if (!first) return null;
  const since = await transaction
    .select({ label: edits.label, changeId: edits.changeId, target: edits.target, inverse: edits.inverse })
    .from(edits)
    .where(and(later, gte(edits.id, first.id)))
    .orderBy(desc(edits.id));
  return computing(() => {
    let before = body;
    for (const { label, changeId, target, inverse } of since) {
      before = applyPatch(before, parseJson(inverse) as Patch).document;
      if (relocated(before, part.inverse).ok) return { change: target ?? changeId, label };
    }
    return null;
  });
}
