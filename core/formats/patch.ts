import jsonPatch, { type Operation } from 'fast-json-patch';
import { current, isDraft, produce } from 'immer';
import { carryOrder, copyInOrder } from './key-order';
import { isObject, pointer, pointerSteps, valueAt } from './json';

/** An operation of a JSON Patch (RFC 6902). */
export type PatchOperation =
  | { readonly op: 'add' | 'replace'; readonly path: string; readonly value: unknown }
  | { readonly op: 'remove'; readonly path: string }
  | MoveOperation
  | { readonly op: 'copy'; readonly path: string; readonly from: string }
  | TestOperation;
/** What must be there for the rest of the patch to be applied. */
export interface TestOperation {
  readonly op: 'test';
  readonly path: string;
  readonly value: unknown;
}
export interface MoveOperation {
  readonly op: 'move';
  readonly path: string;
  readonly from: string;
}
export type Patch = readonly PatchOperation[];

/** A patch that cannot be applied: which operation, where, and why. */
export class PatchError extends Error {
  constructor(
    readonly index: number,
    readonly path: string,
    reason: string,
  ) {
    super(`Operation ${index} at “${path}”: ${reason}`);
    this.name = 'PatchError';
  }
}

/**
 * Applies a patch without touching `document`: what it does not change stays the same object, so that everything
 * computed from an untouched rule or token remains valid. Also returns the patch that takes it back.
 * Throws `PatchError`; then nothing has happened.
 */
export function applyPatch<T>(document: T, patch: Patch): { document: T; inverse: PatchOperation[] } {
  const inverse: PatchOperation[] = [];
  const next = produce({ root: document as unknown }, holder => {
    patch.forEach((operation, index) => inverse.unshift(...applyTo(holder, operation, index)));
  });
  return { document: carryOrder(document, next.root as T), inverse };
}

/**
 * Goes along a patch: `visit` sees each operation with the document as it is before it, and gives the one that is to be done in its
 * stead, if any. What it reads of the document holds only until it returns; `plain` copies it. Throws `PatchError`.
 */
export function alongPatch(
  document: unknown,
  patch: Patch,
  visit: (here: unknown, operation: PatchOperation) => PatchOperation | null,
): void {
  produce({ root: document }, holder => {
    patch.forEach((operation, index) => {
      const done = visit(holder.root, operation);
      if (done) applyTo(holder, done, index);
    });
  });
}

/** Does one operation in place; gives what takes it back. */
function applyTo(holder: { root: unknown }, operation: PatchOperation, index: number): PatchOperation[] {
  try {
    if (operation.op === 'move') return moveEntry(holder.root, operation, index);
    const inverse = inverseOf(holder.root, operation);
    if (operation.path === '' && operation.op !== 'test') {
      if (!('value' in operation)) throw new Error('the whole document can only be replaced');
      holder.root = copyInOrder(operation.value);
    } else applyOne(holder.root, copyInOrder(operation) as Operation, index);
    return inverse;
  } catch (error) {
    if (error instanceof PatchError) throw error;
    throw new PatchError(index, operation.path, reasonOf(error));
  }
}

const applyOne = (root: unknown, operation: Operation, index: number): unknown =>
  jsonPatch.applyOperation(root, operation, true, true, true, index);

/**
 * Moving is taking away and then putting in: the place that it goes to is one of the document without it (RFC 6902, section 4.4).
 * So a member that is moved to where it is becomes the last, by which inverses put members back in their order.
 */
function moveEntry(root: unknown, { from, path }: MoveOperation, index: number): PatchOperation[] {
  const entry = at(root, from);
  if (path === from && (entry === undefined || isInsertion(root, path))) return [];
  if (entry === undefined) throw new Error('nothing is there to be moved');
  if (path.startsWith(`${from}/`)) throw new Error('it cannot be moved into itself');
  const behind = membersBehind(root, from);
  applyOne(root, { op: 'remove', path: from }, index);
  const inverse: PatchOperation[] = [
    ...(path === from ? [] : movedBack(from, finalPath(root, path), entry)),
    ...behind,
    ...restored(root, path),
  ];
  applyOne(root, { op: 'add', path, value: entry }, index);
  return inverse;
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

/** A move onto an existing member of an object overwrites it: the inverse puts it back. */
function restored(document: unknown, path: string): PatchOperation[] {
  const before = isInsertion(document, path) ? undefined : at(document, path);
  return before === undefined ? [] : [{ op: 'add', path, value: plain(before) }];
}

function at(document: unknown, path: string): unknown {
  return valueAt(document, pointerSteps(path) ?? ['\u0000']);
}

function parentOf(document: unknown, path: string): { steps: string[]; parent: unknown; last: string } {
  const steps = pointerSteps(path) ?? [];
  return { steps, parent: valueAt(document, steps.slice(0, -1)), last: steps.at(-1) ?? '' };
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
export function plain(value: unknown): unknown {
  const now = isDraft(value) ? current(value) : value;
  return isObject(now) || Array.isArray(now) ? copyInOrder(now) : now;
}
