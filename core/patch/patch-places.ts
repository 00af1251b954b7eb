import { pointer, pointerSteps, valueAt } from '../json/json';
import type { PatchOperation } from './operations';

export type Steps = readonly string[];

/** A place in a document: something that is there or is written, or a gap of a list, before the entry of that index. */
export interface PatchPlace {
  readonly steps: Steps;
  readonly isGap: boolean;
}

/** The places of an operation in the document before it: where it writes, and from where it takes away. */
export interface OperationPlaces {
  readonly to: PatchPlace;
  readonly from: Steps | null;
}

export function placesOf(document: unknown, operation: PatchOperation): OperationPlaces {
  const said = pointerSteps(operation.path) ?? [];
  const from = operation.op === 'move' ? (pointerSteps(operation.from) ?? []) : null;
  // A move says where to in the document without what is moved.
  const steps = from && isEntry(document, from) ? withMoved(said, from) : said;
  const isGap = (operation.op === 'add' || operation.op === 'move') && isEntry(document, steps);
  return { to: { steps, isGap }, from };
}

/** Where a move writes, from the document without what it takes out of a list to the one with it, and back. */
export const withMoved = (to: Steps, from: Steps): Steps => shifted(to, from, index => index >= 0, 1);
export const withoutMoved = (to: Steps, from: Steps): Steps => shifted(to, from, index => index > 0, -1);

/** The entries on both sides of a gap, but for what is moved there (no steps: nothing). */
export function besides(gap: Steps, moved: Steps): readonly [Steps, Steps] {
  const index = Number(gap.at(-1));
  const beside = (place: number, next: number): Steps => {
    const steps = gap.with(-1, String(place));
    return pointer(...steps) === pointer(...moved) ? gap.with(-1, String(next)) : steps;
  };
  return [beside(index - 1, index - 2), beside(index, index + 1)];
}

/** Whether steps lead to a place in a list. */
export const isEntry = (document: unknown, steps: Steps): boolean =>
  steps.length > 0 && Array.isArray(valueAt(document, steps.slice(0, -1)));

export const leadsTo = (short: Steps, long: Steps): boolean =>
  short.every((step, index) => step === long[index]);

/** A member that is moved to where it is only becomes the last: that meets nothing, and is nothing where the member is gone. */
export const onlyOrders = (document: unknown, operation: PatchOperation): boolean =>
  operation.op === 'move' &&
  operation.from === operation.path &&
  !isEntry(document, pointerSteps(operation.from) ?? []);

/** Steps whose index in the list of another place is shifted where it stands in some way to the index there. */
function shifted(steps: Steps, other: Steps, wanted: (difference: number) => boolean, by: number): Steps {
  const shift = indexShift(steps, other, wanted, by);
  return shift ? steps.with(shift.depth, String(Number(steps[shift.depth]) + shift.by)) : steps;
}

export function indexShift(
  steps: Steps,
  other: Steps,
  wanted: (difference: number) => boolean,
  by: number,
): { depth: number; by: number } | null {
  const depth = other.length - 1;
  if (steps.length <= depth || !leadsTo(other.slice(0, depth), steps)) return null;
  return wanted(Number(steps[depth]) - Number(other[depth])) ? { depth, by } : null;
}
