import type { PatchOperation, MoveOperation, Patch } from './operations';
import { PatchError } from './operations';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { carryOrder, copyInOrder, keepOrder, keysInOrder } from '../json/key-order';
import { isObject, isSameJson, pointer, pointerSteps, valueAt } from '../json/json';
import { QUOTAS } from '../json/quotas';
import { onlyOrders, placesOf, type Steps } from './patch-places';
import { REFUSED_KEYS } from '../json/read-json';

/**
 * Applies a patch without touching `document`: what it does not change stays the same object, so that everything
 * computed from an untouched rule or token remains valid. Also returns the patch that takes it back.
 * Throws `PatchError`, also where more would come of it than `QUOTAS` allow; then nothing has happened.
 */
export function applyPatch<T>(document: T, patch: Patch): { document: T; inverse: PatchOperation[] } {
  const inverses: PatchOperation[][] = [];
  let steps = 0;
  const next = new Working(document);
  const note = (inverse: PatchOperation[], { path }: PatchOperation, index: number): void => {
    steps += inverse.length;
    if (steps > QUOTAS.inverseOperations)
      throw new PatchError(
        index,
        path,
        `taking it back would take more than ${QUOTAS.inverseOperations} operations; do it in several edits`,
      );
    inverses.push(inverse);
  };
  let order: Reordered | null = null;
  patch.forEach((operation, index) => {
    const reordered = holderOrdered(next.root, operation);
    if (order && operation.op !== 'test' && order.holder !== reordered) {
      note(order.inverse(next.root), operation, index);
      order = null;
    }
    if (reordered === null) return note(applyTo(next, operation, index), operation, index);
    order ??= new Reordered(reordered, next.root);
    makeLast(next, operation.path, index);
  });
  const left = order as Reordered | null;
  if (left) note(left.inverse(next.root), patch.at(-1)!, patch.length - 1);
  return { document: carryOrder(document, next.root as T), inverse: inverses.reverse().flat() };
}

/** The object whose members an operation only brings into another order: one of them becomes the last. */
function holderOrdered(document: unknown, operation: PatchOperation): string | null {
  const { path } = operation;
  if (path === '' || !onlyOrders(document, operation) || at(document, path) === undefined) return null;
  return path.slice(0, path.lastIndexOf('/'));
}

/**
 * Members of an object that several operations bring into another order, one after the other. They are taken back together: by themselves
 * each would need moves of all members behind it, and those again so many each.
 */
class Reordered {
  private readonly before: readonly string[];

  constructor(
    readonly holder: string,
    document: unknown,
  ) {
    this.before = this.keysIn(document);
  }

  /** As many of the first members as are in their order stay, the others become the last in turn. */
  inverse(document: unknown): PatchOperation[] {
    let kept = 0;
    for (const key of this.keysIn(document)) if (key === this.before[kept]) kept++;
    return this.before.slice(kept).map(key => {
      const place = this.holder + pointer(key);
      return { op: 'move', from: place, path: place };
    });
  }

  private keysIn(document: unknown): readonly string[] {
    return Object.keys(at(document, this.holder) as object);
  }
}

function makeLast(holder: Working, path: string, index: number): void {
  const value = at(holder.root, path);
  applyOne(holder, { op: 'remove', path }, index);
  applyOne(holder, { op: 'add', path, value }, index);
}

/**
 * Goes along a patch: `visit` sees each operation with the document as it is before it, and gives the one that is to be done in its
 * stead, if any. What it reads of the document holds only until it returns; `plain` copies it. Throws `PatchError`.
 */
export function walkPatch(
  document: unknown,
  patch: Patch,
  visit: (here: unknown, operation: PatchOperation) => PatchOperation | null,
): void {
  const next = new Working(document);
  patch.forEach((operation, index) => {
    const done = visit(next.root, operation);
    if (!done) return;
    if (holderOrdered(next.root, done) === null) applyTo(next, done, index);
    else makeLast(next, done.path, index);
  });
}

/** A document that is being changed: containers are copied, each once, on the way to what changes; all else is shared with what it was. */
class Working {
  /** Letters that have been copied within the document so far. */
  copied = 0;
  private readonly own = new WeakSet<object>();

  constructor(public root: unknown) {}

  /** Has the containers on the way to the parent of a place be of this document alone. */
  open(path: string): void {
    const steps = (pointerSteps(path) ?? []).slice(0, -1);
    let here = this.taken(this.root);
    this.root = here;
    for (const step of steps) {
      const inner = valueAt(here, [step]);
      if (!isContainer(inner)) return;
      const next = this.taken(inner);
      (here as Record<string, unknown>)[step] = next;
      here = next;
    }
  }

  private taken(container: unknown): unknown {
    if (!isContainer(container) || this.own.has(container)) return container;
    const copy = Array.isArray(container)
      ? [...(container as unknown[])]
      : keepOrder({ ...container }, keysInOrder(container));
    this.own.add(copy);
    return copy;
  }
}

const isContainer = (value: unknown): value is object => typeof value === 'object' && value !== null;

/** Does one operation in place; gives what takes it back. */
function applyTo(holder: Working, operation: PatchOperation, index: number): PatchOperation[] {
  try {
    if (operation.op !== 'test' && operation.op !== 'remove') refuseName(operation.path);
    if (
      operation.op !== 'move' &&
      operation.path !== '' &&
      !isContainer(parentOf(holder.root, operation.path).parent)
    )
      throw new Error('nothing is there that could hold it');
    if (
      (operation.op === 'remove' || operation.op === 'replace') &&
      at(holder.root, operation.path) === undefined
    )
      throw new Error('nothing is there');
    if (operation.op === 'move') return moveEntry(holder, operation, index);
    if (operation.op !== 'test') refuseIndex(holder.root, operation.path);
    const inverse = inverseOf(holder.root, operation);
    if (operation.op === 'copy') {
      const value = at(holder.root, operation.from);
      if (value === undefined) throw new Error('nothing is there to be copied');
      holder.copied += lettersIn(value);
      if (holder.copied > QUOTAS.copiedLetters)
        throw new Error(`more than ${QUOTAS.copiedLetters} letters would be copied`);
      put(holder, { op: 'add', path: operation.path, value }, index);
    } else if (operation.op === 'add' || operation.op === 'replace') put(holder, operation, index);
    else if (operation.op === 'remove') applyOne(holder, operation, index);
    else if (!isSameJson(at(holder.root, operation.path), operation.value))
      throw new Error('something else is there than the test says');
    return inverse;
  } catch (error) {
    if (error instanceof PatchError) throw error;
    throw new PatchError(index, operation.path, reasonOf(error));
  }
}

/** Puts a copy of a value in its place. */
function put(
  holder: Working,
  operation: { readonly op: 'add' | 'replace'; readonly path: string; readonly value: unknown },
  index: number,
): void {
  refuseDepth(operation.path, operation.value);
  if (operation.path === '') holder.root = copyInOrder(operation.value);
  else applyOne(holder, { ...operation, value: copyInOrder(operation.value) }, index);
}

/** No member may be called what no document may name. */
function refuseName(path: string): void {
  const name = pointerSteps(path)?.at(-1) ?? '';
  if (REFUSED_KEYS.has(name)) throw new Error(`the name “${name}” cannot be used as a key`);
}

/** An entry of a list goes by a whole number, `-` is the place after the last (RFC 6901, section 4). */
function refuseIndex(document: unknown, path: string): void {
  const { parent, last } = parentOf(document, path);
  if (!Array.isArray(parent) || last === '-') return;
  if (!/^(?:0|[1-9]\d*)$/.test(last) || Number(last) > parent.length)
    throw new Error(`“${last}” is no place in a list`);
}

function refuseDepth(path: string, value: unknown): void {
  const steps = pointerSteps(path) ?? [];
  if (steps.length + depthOf(value) > QUOTAS.depth + 1)
    throw new Error(`it would be nested more than ${QUOTAS.depth} levels deep`);
}

/** Containers within one another in a value. */
const depthOf = (value: unknown): number =>
  isContainer(value)
    ? 1 + Object.values(value).reduce<number>((most, each) => Math.max(most, depthOf(each)), 0)
    : 0;

/** About as many letters as a value has when it is written. */
const lettersIn = (value: unknown): number =>
  typeof value === 'string'
    ? value.length + 2
    : isContainer(value)
      ? Object.entries(value).reduce((sum, [key, each]) => sum + key.length + 3 + lettersIn(each), 2)
      : 4;

function applyOne(holder: Working, operation: Operation, index: number): void {
  holder.open(operation.path);
  // Another document, where it is the whole of it that is put or taken away.
  holder.root = jsonPatch.applyOperation(holder.root, operation, true, true, true, index).newDocument;
}

/**
 * Moving is taking away and then putting in: the place that it goes to is one of the document without it (RFC 6902, section 4.4).
 * So a member that is moved to where it is becomes the last, by which inverses put members back in their order.
 */
function moveEntry(holder: Working, { from, path }: MoveOperation, index: number): PatchOperation[] {
  const { root } = holder;
  const entry = at(root, from);
  const isNowhere = path.endsWith('/-') && isInsertion(root, path);
  if (path === from && !isNowhere) return [];
  if (entry === undefined) throw new Error('nothing is there to be moved');
  if (path.startsWith(`${from}/`)) throw new Error('it cannot be moved into itself');
  const behind = membersBehind(root, from);
  const isOntoItsHolder = from.startsWith(`${path}/`) && !isInsertion(root, path);
  const holderBefore = isOntoItsHolder ? plain(at(root, path)) : undefined;
  if (path.split('/').length > from.split('/').length) refuseDepth(path, entry);
  const overwritten = restored(root, placesOf(root, { op: 'move', from, path }).to.steps);
  applyOne(holder, { op: 'remove', path: from }, index);
  refuseIndex(holder.root, path);
  const final = finalPath(holder.root, path);
  applyOne(holder, { op: 'add', path, value: entry }, index);
  if (isOntoItsHolder) return [{ op: 'replace', path, value: holderBefore }];
  return [...movedBack(from, final, entry), ...overwritten, ...behind];
}

/** Where an entry would go into the one that takes its place, it is taken out and put in: a move cannot say that. */
const movedBack = (path: string, from: string, entry: unknown): PatchOperation[] =>
  path.startsWith(`${from}/`)
    ? [
        { op: 'remove', path: from },
        { op: 'add', path, value: plain(entry) },
      ]
    : [{ op: 'move', path, from }];

function reasonOf(error: unknown): string {
  const text = error instanceof Error ? error.message : String(error);
  return text.split('\n')[0] ?? text;
}

/** What undoes one operation that moves nothing, on the document as it is before. */
function inverseOf(document: unknown, operation: Exclude<PatchOperation, MoveOperation>): PatchOperation[] {
  const { path } = operation;
  switch (operation.op) {
    case 'test':
      return [];
    case 'remove':
      if (path === '') return [{ op: 'replace', path, value: plain(document) }];
      return [{ op: 'add', path, value: plain(at(document, path)) }, ...membersBehind(document, path)];
    case 'replace':
      return [{ op: 'replace', path, value: plain(at(document, path)) }];
    default:
      return isInsertion(document, path) || at(document, path) === undefined
        ? [{ op: 'remove', path: finalPath(document, path) }]
        : [{ op: 'replace', path, value: plain(at(document, path)) }];
  }
}

/** Moves that put the members of an object behind one in their places again, once that is back as the last. */
function membersBehind(document: unknown, path: string): PatchOperation[] {
  const { steps, parent, last } = parentOf(document, path);
  if (!isObject(parent)) return [];
  const keys = Object.keys(parent);
  return keys.slice(keys.indexOf(last) + 1).map(key => {
    const place = pointer(...steps.slice(0, -1), key);
    return { op: 'move', from: place, path: place };
  });
}

/** A move onto an existing member of an object overwrites it: the inverse puts it back in its place, once what was moved is where it was. */
function restored(document: unknown, steps: Steps): PatchOperation[] {
  const path = pointer(...steps);
  const before = isInsertion(document, path) ? undefined : at(document, path);
  return before === undefined
    ? []
    : [{ op: 'add', path, value: plain(before) }, ...membersBehind(document, path)];
}

function at(document: unknown, path: string): unknown {
  return valueAt(document, pointerSteps(path) ?? ['\u0000']);
}

function parentOf(document: unknown, path: string): { steps: string[]; parent: unknown; last: string } {
  const steps = pointerSteps(path) ?? [];
  // The whole is in nothing.
  const parent = steps.length === 0 ? undefined : valueAt(document, steps.slice(0, -1));
  return { steps, parent, last: steps.at(-1) ?? '' };
}

function isInsertion(document: unknown, path: string): boolean {
  return Array.isArray(parentOf(document, path).parent);
}

/** `/rules/-` names the place after the last entry; afterwards that entry has an index. */
function finalPath(document: unknown, path: string): string {
  const { steps, parent, last } = parentOf(document, path);
  return last === '-' && Array.isArray(parent) ? pointer(...steps.slice(0, -1), parent.length) : path;
}

/** A copy of what is read while a patch is done. */
export const plain = (value: unknown): unknown => (isContainer(value) ? copyInOrder(value) : value);
