import { PatchError, type MoveOperation, type Patch, type PatchOperation } from './operations';
import { applyPatch } from './patch';
import { differenceOf } from './difference';
import { isSameJson, pointer, pointerSteps, valueAt } from '../json/json';
import { entryName } from './identity';
import { mergedValue } from './merge-values';
import {
  indexShift,
  isEntry,
  leadsTo,
  onlyOrders,
  placesOf,
  withoutMoved,
  type PatchPlace,
  type OperationPlaces,
  type Steps,
} from './patch-places';

/** Two edits that met: the place, and the operation on either side. */
export interface PatchConflict {
  readonly path: string;
  readonly mine: PatchOperation;
  readonly theirs: PatchOperation;
}

/** Both sides, each as it follows the other: applied in either order they come to the same document. */
interface RebasedSides {
  readonly ok: true;
  readonly mine: PatchOperation[];
  readonly theirs: PatchOperation[];
}

export type Rebased = RebasedSides | { readonly ok: false; readonly meeting: PatchConflict };

/**
 * Rewrites two patches that were made on the same `base` so that each can follow the other, operation by operation, each on the
 * document that it was made on. Indices follow what the other side put in, took out or moved; of two entries put in at one place
 * theirs comes first; two of one name become one. Where both did the same, nothing is left to do. Where both changed the same place, or one changed inside what the other replaced or took out, nothing is
 * decided: the meeting is returned.
 */
export function rebase(base: unknown, mine: Patch, theirs: Patch): Rebased {
  try {
    return { ok: true, ...follow(base, mine, theirs, false) };
  } catch (error) {
    if (error instanceof Met) return { ok: false, meeting: error.meeting };
    throw error;
  }
}

/**
 * Rewrites `mine` so that it follows `theirs` and stands, whatever they said of the same places; `null` where what it changes is
 * gone.
 */
export function rebaseInsisting(base: unknown, mine: Patch, theirs: Patch): PatchOperation[] | null {
  try {
    const standing = follow(base, mine, theirs, true).mine;
    // A move that would now lead into what it moves cannot be said.
    applyPatch(applyPatch(base, theirs).document, standing);
    return standing;
  } catch (error) {
    if (error instanceof Met || error instanceof PatchError) return null;
    throw error;
  }
}

/** Ends rebasing at the first meeting. */
class Met extends Error {
  constructor(readonly meeting: PatchConflict) {
    super(`Two edits meet at “${meeting.path}”.`);
  }
}

/** Whether mine can overrule theirs: not from below what they replaced or took out, nor where an entry is gone from its list or has been moved. */
function overrules(
  document: unknown,
  mine: PatchOperation,
  theirs: PatchOperation,
  relation: Relation,
): boolean {
  if (relation === 'below') return false;
  // What they moved out of it, or into it, is elsewhere by now.
  if (relation === 'above') return theirs.op !== 'move';
  if (theirs.op !== 'remove' || mine.op === 'remove') return true;
  return mine.op !== 'move' && !isEntry(document, pointerSteps(mine.path) ?? []);
}

function follow(
  base: unknown,
  mine: Patch,
  theirs: Patch,
  isInsisting: boolean,
): { mine: PatchOperation[]; theirs: PatchOperation[] } {
  let patch = plainly(base, mine);
  const others: PatchOperation[] = [];
  let before = base;
  for (const their of plainly(base, theirs)) {
    // What was only tested has been found true.
    if (their.op === 'test') continue;
    const sides = past(before, patch, [their], isInsisting);
    patch = sides.mine;
    others.push(...sides.theirs);
    before = applyPatch(before, [their]).document;
  }
  return { mine: patch, theirs: others };
}

interface Sides {
  readonly mine: PatchOperation[];
  readonly theirs: PatchOperation[];
}

/** Operations of both sides, made on the same document, each as it follows the other side's. */
function past(
  document: unknown,
  mine: readonly PatchOperation[],
  theirs: PatchOperation[],
  isInsisting: boolean,
): Sides {
  const result: PatchOperation[] = [];
  let others = theirs;
  let here = document;
  for (const my of mine) {
    if (others.length === 0) {
      result.push(my);
      continue;
    }
    const sides = onePast(here, my, others, isInsisting);
    result.push(...sides.mine);
    others = sides.theirs;
    here = applyPatch(here, [my]).document;
  }
  return { mine: result, theirs: others };
}

function onePast(
  document: unknown,
  my: PatchOperation,
  theirs: readonly PatchOperation[],
  isInsisting: boolean,
): Sides {
  const [their, ...rest] = theirs as [PatchOperation, ...PatchOperation[]];
  const first = oneByOne(document, my, their, isInsisting);
  if (rest.length === 0) return first;
  const after = past(applyPatch(document, [their]).document, first.mine, rest, isInsisting);
  return { mine: after.mine, theirs: [...first.theirs, ...after.theirs] };
}

/** Two operations made on the same document. Throws `Met`. */
function oneByOne(document: unknown, my: PatchOperation, their: PatchOperation, isInsisting: boolean): Sides {
  if (isSameChange(my, their)) return { mine: [], theirs: [] };
  const twins = twinsPut(document, my, their, isInsisting);
  if (twins) return twins;
  const mine = following(document, my, their, 'after');
  const theirs = following(document, their, my, 'before');
  const relation: Relation | null =
    relationOf(document, my, their) ?? (isIntoItself(mine) || isIntoItself(theirs) ? 'below' : null);
  if (relation === null) return { mine: [mine], theirs: [theirs] };
  if (!isInsisting || !overrules(document, my, their, relation))
    throw new Met({ path: conflictPlace(document, my, their), mine: my, theirs: their });
  const stands = my.op !== 'test' && !(my.op === 'remove' && their.op === 'remove');
  return { mine: stands ? [standing(document, my, mine)] : [], theirs: [] };
}

/** Whether both did the same to the same thing. */
function isSameChange(my: PatchOperation, their: PatchOperation): boolean {
  if (my.path !== their.path) return false;
  if (my.op === 'remove' || my.op === 'replace')
    return my.op === their.op && (my.op === 'remove' || isSameJson(my.value, (their as typeof my).value));
  return false;
}

/**
 * Both put something under one name into one place: one of both, if they say nothing else of the same; `null` where they did not. Two who
 * write for the same cells thus write into one rule. Throws `Met`.
 */
function twinsPut(
  document: unknown,
  my: PatchOperation,
  their: PatchOperation,
  isInsisting: boolean,
): Sides | null {
  if (my.op !== 'add' || their.op !== 'add') return null;
  const [to, there] = [placesOf(document, my).to, placesOf(document, their).to];
  const list = (place: PatchPlace): string => pointer(...place.steps.slice(0, -1));
  const isTwin = to.isGap
    ? there.isGap &&
      list(to) === list(there) &&
      entryName(my.value) !== null &&
      entryName(my.value) === entryName(their.value)
    : my.path === their.path && !there.isGap;
  if (!isTwin) return null;
  const merged = mergedValue(their.value, my.value, there.steps, isInsisting);
  if (!merged.ok) throw new Met({ path: pointer(...merged.place), mine: my, theirs: their });
  const ways = (before: unknown): PatchOperation[] => differenceOf(before, merged.value, there.steps);
  const order: PatchOperation[] =
    my.path === their.path ? [] : [{ op: 'move', from: my.path, path: their.path }];
  return { mine: ways(their.value), theirs: [...order, ...ways(my.value)] };
}

/** Whether my place is theirs, or lies below or above it. */
type Relation = 'same' | 'below' | 'above';

/** The same operations, every index said as a number and copies with what they copy. */
function plainly(base: unknown, patch: Patch): PatchOperation[] {
  let document = base;
  return patch.map(operation => {
    const there = operation.op === 'move' ? without(document, operation) : document;
    const path = ended(there, operation.path);
    const plain: PatchOperation =
      operation.op === 'copy'
        ? { op: 'add', path, value: valueAt(document, pointerSteps(operation.from) ?? []) }
        : { ...operation, path };
    document = applyPatch(document, [operation]).document;
    return plain;
  });
}

/** The document in which the end of a move is said: without what is moved. */
const without = (document: unknown, { from, path }: MoveOperation): unknown =>
  path.endsWith('/-') && valueAt(document, pointerSteps(from) ?? []) !== undefined
    ? applyPatch(document, [{ op: 'remove', path: from }]).document
    : document;

/** `/rules/-` is the place after the last entry. */
function ended(document: unknown, path: string): string {
  const steps = pointerSteps(path) ?? [];
  const list = valueAt(document, steps.slice(0, -1));
  return steps.at(-1) === '-' && Array.isArray(list) ? pointer(...steps.slice(0, -1), list.length) : path;
}

function relationOf(document: unknown, mine: PatchOperation, theirs: PatchOperation): Relation | null {
  if (onlyOrders(document, mine) || onlyOrders(document, theirs)) return null;
  const [my, their] = [placesOf(document, mine), placesOf(document, theirs)];
  // Each moved into what the other moved.
  if (my.from && their.from && leadsTo(my.from, their.to.steps) && leadsTo(their.from, my.to.steps))
    return 'below';
  // What is replaced is replaced wherever it has been moved.
  if (isReplaced(mine, their) || isReplaced(theirs, my)) return null;
  const pairs = placesIn(my).flatMap(a => placesIn(their).map(b => between(a, b)));
  return pairs.find(relation => relation !== null) ?? null;
}

const isReplaced = (operation: PatchOperation, { from }: OperationPlaces): boolean =>
  operation.op === 'replace' && from !== null && operation.path === pointer(...from);

interface Touched extends PatchPlace {
  /** What lies below is carried along. */
  readonly carries: boolean;
}

const placesIn = ({ to, from }: OperationPlaces): Touched[] => [
  ...(from ? [{ steps: from, isGap: false, carries: true }] : []),
  { ...to, carries: false },
];

function between(a: Touched, b: Touched): Relation | null {
  const isShorter = a.steps.length < b.steps.length;
  const [short, long] = isShorter ? [a, b] : [b, a];
  // A gap makes room: it meets nothing at or below its index.
  if (!leadsTo(short.steps, long.steps) || short.isGap) return null;
  if (a.steps.length === b.steps.length) return a.isGap || b.isGap ? null : 'same';
  if (short.carries) return null;
  return isShorter ? 'above' : 'below';
}

function conflictPlace(document: unknown, mine: PatchOperation, theirs: PatchOperation): string {
  const [my, their] = [placesIn(placesOf(document, mine)), placesIn(placesOf(document, theirs))];
  for (const a of my)
    for (const b of their)
      if (between(a, b)) return pointer(...(a.steps.length <= b.steps.length ? a : b).steps);
  return mine.path;
}

/** An operation as it is to be said after another one. Of two entries put in at one gap one comes `before`. */
function following(
  document: unknown,
  operation: PatchOperation,
  other: PatchOperation,
  among: 'before' | 'after',
): PatchOperation {
  const own = placesOf(document, operation);
  const past = placesOf(document, other);
  const carried = (place: PatchPlace): Steps => carriedPlace(document, place, other, past, among);
  const to = carried(own.to);
  if (operation.op !== 'move') return { ...operation, path: pointer(...to) };
  const from = carried({ steps: own.from!, isGap: false });
  const isListed = isEntry(document, own.from!);
  return {
    ...operation,
    from: pointer(...from),
    path: pointer(...(isListed ? withoutMoved(to, from) : to)),
  };
}

function carriedPlace(
  document: unknown,
  { steps, isGap }: PatchPlace,
  other: PatchOperation,
  past: OperationPlaces,
  among: 'before' | 'after',
): Steps {
  const gone = past.from ?? (other.op === 'remove' ? past.to.steps : null);
  if (past.from && leadsTo(past.from, steps) && (!isGap || steps.length > past.from.length))
    return [...(pointerSteps(other.path) ?? []), ...steps.slice(past.from.length)];
  const after = (depth: number): ((index: number) => boolean) => {
    const isThatGap = isGap && steps.length === depth;
    return index => index > 0 || (index === 0 && (!isThatGap || among === 'after'));
  };
  const put = past.to.isGap ? past.to.steps : null;
  const less = gone && isEntry(document, gone) ? indexShift(steps, gone, index => index > 0, -1) : null;
  const more = put ? indexShift(steps, put, after(put.length), 1) : null;
  return [less, more].reduce<Steps>(
    (result, shift) =>
      shift ? result.with(shift.depth, String(Number(result[shift.depth]) + shift.by)) : result,
    steps,
  );
}

/**
 * Where an entry is to go into the one behind it, its path begins like where it is; JSON Patch cannot say that (RFC 6902, section
 * 4.4).
 */
const isIntoItself = (operation: PatchOperation): boolean =>
  operation.op === 'move' && operation.path.startsWith(`${operation.from}/`);

/** An operation as it follows, made to stand whatever is there now: a member that is gone is put back. */
function standing(document: unknown, before: PatchOperation, operation: PatchOperation): PatchOperation {
  const steps = pointerSteps(before.path) ?? [];
  return operation.op === 'replace' && steps.length > 0 && !isEntry(document, steps)
    ? { op: 'add', path: operation.path, value: operation.value }
    : operation;
}
