import type { ConditionDocument } from '../documents/condition-document';
import { pointer } from '../json/json';
import { ObjectMemo } from '../json/object-memo';
import { brief, oneOf, type ProblemList } from '../json/problem';
import { nearest } from '../text/suggestions';
import type { Axis } from './axis';
import { bits, isEmpty, type Box } from './box';

/**
 * Reads a condition into a box. One value of a ladder means "at least", unless `ladders` says otherwise; a list is exact. Gives `null`, with problems,
 * when an axis or a value does not exist or the condition can never hold.
 */
export function readCondition(
  document: ConditionDocument,
  axes: readonly Axis[],
  at: string,
  problems: ProblemList,
  ladders: 'at-least' | 'exact' = 'at-least',
): Box | null {
  const box = axes.map(axis => 2 ** axis.values.length - 1);
  let readableSoFar = true;
  for (const [id, wanted] of Object.entries(document)) {
    const here = at + pointer(id);
    const index = axes.findIndex(axis => axis.id === id);
    if (index < 0) {
      const { ids, told } = namesOf(axes);
      problems.error(
        here,
        'unknown-axis',
        `There is no axis “${brief(id)}” here; there is ${told}.`,
        nearest(id, ids),
        id,
      );
      readableSoFar = false;
      continue;
    }
    const mask = readMask(wanted, axes[index]!, ladders, here, problems);
    if (mask === null) readableSoFar = false;
    else box[index] = mask;
  }
  if (readableSoFar && isEmpty(box)) {
    problems.error(at, 'empty-condition', 'This condition names no value and can never hold.');
    return null;
  }
  return readableSoFar ? box : null;
}

interface AxisNames {
  /** The same list for the same axes or values, in which what is misspelt is soon found. */
  readonly ids: readonly string[];
  /** As a message lists them. */
  readonly told: string;
}
const known = new ObjectMemo<AxisNames>();

/** The names of axes, or of an axis's values. */
const namesOf = (named: readonly { readonly id: string }[]): AxisNames =>
  known.of([named], () => {
    const ids = Object.freeze(named.map(({ id }) => id));
    return { ids, told: oneOf(ids, 12) };
  });

function readMask(
  wanted: string | readonly string[],
  axis: Axis,
  ladders: 'at-least' | 'exact',
  at: string,
  problems: ProblemList,
): number | null {
  const { ids, told } = namesOf(axis.values);
  let mask = 0;
  let fine = true;
  [wanted].flat().forEach((id, index) => {
    const value = ids.indexOf(id);
    if (value >= 0) {
      mask |= 1 << value;
      return;
    }
    const here = Array.isArray(wanted) ? `${at}/${index}` : at;
    problems.error(
      here,
      'unknown-value',
      `“${brief(id)}” is no value of ${axis.id}; there is ${told}.`,
      nearest(id, ids),
      id,
    );
    fine = false;
  });
  if (!fine) return null;
  return axis.ladder && ladders === 'at-least' && typeof wanted === 'string'
    ? atLeast(mask, ids.length)
    : mask;
}

/** A single rung and all above it. */
const atLeast = (rung: number, count: number): number => (2 ** count - 1) & ~(rung - 1);

/** Writes a box as a condition: free axes left out, a rung with all above it as one word, one value as one word. */
export function writeCondition(box: Box, axes: readonly Axis[]): ConditionDocument {
  const condition: Record<string, string | string[]> = {};
  axes.forEach((axis, index) => {
    const mask = box[index]!;
    const all = 2 ** axis.values.length - 1;
    if (mask === all) return;
    const values = bits(mask);
    const ids = values.map(value => axis.values[value]!.id);
    const lowest = values[0];
    const isRung = axis.ladder && lowest !== undefined && mask === atLeast(1 << lowest, axis.values.length);
    condition[axis.id] = isRung || (!axis.ladder && ids.length === 1) ? ids[0]! : ids;
  });
  return condition;
}

/** Writes a box as a condition in which every named axis has an exact list, so that no ladder need be known to read it. */
export function writeExact(box: Box, axes: readonly Axis[]): Readonly<Record<string, readonly string[]>> {
  return Object.fromEntries(
    axes.flatMap((axis, index) => {
      const mask = box[index]!;
      if (mask === 2 ** axis.values.length - 1) return [];
      return [[axis.id, bits(mask).map(value => axis.values[value]!.id)]];
    }),
  );
}

/** One axis of a condition in words: `pointed at`, `small or large`, `not disabled`. */
export function maskWords(axis: Axis, mask: number): string {
  const values = bits(mask);
  const lowest = values[0]!;
  const words = (index: number): string => axis.values[index]!.words;
  if (axis.ladder) {
    if (mask === atLeast(1 << lowest, axis.values.length)) return words(lowest);
    if (values.length === 1 && lowest > 0) return `just ${words(lowest)}`;
  }
  const missing = axis.values.map((_, index) => index).filter(index => !values.includes(index));
  if (missing.length === 1 && values.length > (axis.kind === 'state' ? 1 : 2))
    return `not ${words(missing[0]!)}`;
  const first = axis.values[lowest]!;
  const namesAxis = first.words !== first.title;
  return oneOf(
    values.map((value, place) => (place > 0 && namesAxis ? axis.values[value]!.title : words(value))),
    20,
  );
}

/** A condition in words, axes in order, or `always`. */
export function conditionWords(box: Box, axes: readonly Axis[]): string {
  const parts = axes.flatMap((axis, index) =>
    box[index] === 2 ** axis.values.length - 1 ? [] : [maskWords(axis, box[index]!)],
  );
  return parts.length === 0 ? 'always' : parts.join(', ');
}
