import { applyPatch, type Patch, type PatchOperation } from './patch';
import { pointer, pointerSteps, valueAt } from './json';

/** Two edits that met: the place, and the operation on either side. */
export interface Meeting {
  readonly path: string;
  readonly mine: PatchOperation;
  readonly theirs: PatchOperation;
}

export type Rebased = { ok: true; patch: PatchOperation[] } | { ok: false; meetings: Meeting[] };

/**
 * Rewrites `mine`, made on `base`, so that it can follow `theirs`, made on the same `base`. Indices shift with entries
 * that the other side put in, took out or moved. Where both changed the same place, or one changed inside what the
 * other replaced, nothing is decided: the meetings are returned.
 */
export function rebasePatch(base: unknown, mine: Patch, theirs: Patch): Rebased {
  let patch: PatchOperation[] = [...mine];
  let document = base;
  const meetings: Meeting[] = [];
  for (const their of theirs) {
    for (const my of patch) {
      const path = meetingPlace(document, my, their);
      if (path !== null) meetings.push({ path, mine: my, theirs: their });
    }
    patch = patch.map(my => shifted(document, my, their));
    document = applyPatch(document, [their]).document;
  }
  return meetings.length > 0 ? { ok: false, meetings } : { ok: true, patch };
}

/** Paths an operation reads or writes, each with whether it only slips in beside what is there. */
function touched(document: unknown, operation: PatchOperation): { steps: string[]; inserts: boolean }[] {
  const steps = pointerSteps(operation.path) ?? [];
  const inArray = Array.isArray(valueAt(document, steps.slice(0, -1)));
  const inserts =
    inArray && operation.op !== 'replace' && operation.op !== 'remove' && operation.op !== 'test';
  const place = { steps, inserts };
  return 'from' in operation
    ? [{ steps: pointerSteps(operation.from) ?? [], inserts: false }, place]
    : [place];
}

function meetingPlace(document: unknown, mine: PatchOperation, theirs: PatchOperation): string | null {
  for (const a of touched(document, mine)) {
    for (const b of touched(document, theirs)) {
      const short = a.steps.length <= b.steps.length ? a : b;
      const long = short === a ? b : a;
      if (!short.steps.every((step, index) => step === long.steps[index])) continue;
      // An insertion makes room: it meets nothing that is at or below the same index.
      if (short.inserts || (long.inserts && long.steps.length === short.steps.length)) continue;
      // A moved entry carries what is inside it along: the other's edit below it is shifted, not lost.
      if (movesAlong(mine, theirs, a, b)) continue;
      return pointer(...short.steps);
    }
  }
  return null;
}

function movesAlong(
  mine: PatchOperation,
  theirs: PatchOperation,
  a: { steps: string[] },
  b: { steps: string[] },
): boolean {
  if (theirs.op === 'move') return a.steps.length > b.steps.length;
  return mine.op === 'move' && b.steps.length > a.steps.length;
}

function shifted(document: unknown, mine: PatchOperation, theirs: PatchOperation): PatchOperation {
  const path = shiftedPath(document, mine.path, theirs, mine.op !== 'add' && mine.op !== 'move');
  if ('from' in mine) return { ...mine, path, from: shiftedPath(document, mine.from, theirs, true) };
  return { ...mine, path };
}

function shiftedPath(document: unknown, path: string, theirs: PatchOperation, names: boolean): string {
  let steps = pointerSteps(path) ?? [];
  if (theirs.op === 'move') {
    const from = pointerSteps(theirs.from) ?? [];
    const to = pointerSteps(theirs.path) ?? [];
    if (from.every((step, index) => steps[index] === step) && (steps.length > from.length || names)) {
      return pointer(...to, ...steps.slice(from.length));
    }
    steps = afterRemoval(document, steps, from);
    return pointer(...afterInsertion(document, steps, to));
  }
  if (theirs.op === 'remove') steps = afterRemoval(document, steps, pointerSteps(theirs.path) ?? []);
  if (theirs.op === 'add' || theirs.op === 'copy') {
    steps = afterInsertion(document, steps, pointerSteps(theirs.path) ?? []);
  }
  return pointer(...steps);
}

const afterRemoval = (document: unknown, steps: string[], gone: string[]): string[] =>
  shiftIndex(document, steps, gone, (mine, theirs) => (mine > theirs ? mine - 1 : mine));

const afterInsertion = (document: unknown, steps: string[], put: string[]): string[] =>
  shiftIndex(document, steps, put, (mine, theirs) => (mine >= theirs ? mine + 1 : mine));

function shiftIndex(
  document: unknown,
  steps: string[],
  other: string[],
  shift: (mine: number, theirs: number) => number,
): string[] {
  const depth = other.length - 1;
  const list = valueAt(document, other.slice(0, depth));
  const sameList = other.slice(0, depth).every((step, index) => step === steps[index]);
  const mine = steps[depth];
  if (!Array.isArray(list) || !sameList || mine === undefined || mine === '-') return steps;
  const theirs = other[depth] === '-' ? list.length : Number(other[depth]);
  return [...steps.slice(0, depth), String(shift(Number(mine), theirs)), ...steps.slice(depth + 1)];
}
