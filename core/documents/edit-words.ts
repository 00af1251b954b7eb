import { NAMES } from '../patch/identity';
import { isObject, pointerSteps, valueAt } from '../json/json';
import { ENTRY_WORDS } from './component-document';
import { entryWords } from './shape';
import { system } from './system-document';
import { trial } from './trial-document';
import { PatchError, type Patch, type PatchOperation } from '../patch/operations';
import { walkPatch } from '../patch/patch';

/** What a document's lists hold, one of it. */
const ONE: Readonly<Record<string, string>> = {
  ...ENTRY_WORDS,
  ...entryWords(trial.members),
  ...entryWords(system.members),
};
/** Members that say nothing to people where something within them is meant. */
const SILENT = new Set(['set', 'anatomy', 'documents']);

/** One thing that an edit does: where, in words, and what it puts there; `null` where it takes something out. */
export interface EditWord {
  readonly place: string;
  readonly value: string | null;
  /** Whether it only moves something. */
  readonly isMove?: boolean;
}

/** A place in a document in words: `rule over, frame, border-color`. Entries of lists are called by their titles, ids or parts' names. */
export function placeWords(document: unknown, steps: readonly string[]): string {
  const words = steps.flatMap((step, depth) => {
    const list = valueAt(document, steps.slice(0, depth));
    if (!Array.isArray(list)) return isListed(document, steps, depth) || SILENT.has(step) ? [] : [step];
    return [`${ONE[steps[depth - 1] ?? ''] ?? 'entry'} ${titleOf(list[Number(step)]) ?? Number(step) + 1}`];
  });
  return words.length > 0 ? words.join(', ') : 'the whole';
}

/** Whether a member is a list in which something is meant: that is called by what it holds. */
const isListed = (document: unknown, steps: readonly string[], depth: number): boolean =>
  depth < steps.length - 1 && Array.isArray(valueAt(document, steps.slice(0, depth + 1)));

/** What people call an entry. */
function titleOf(entry: unknown): string | null {
  if (typeof entry === 'string') return `“${entry}”`;
  if (!isObject(entry)) return null;
  const key = ['title', ...NAMES].find(each => typeof entry[each] === 'string');
  return key === undefined ? null : `“${String(entry[key])}”`;
}

/** What a patch does to the document that it was made on, in words. Where it does not fit that, places are said as far as they are there. */
export function editWords(document: unknown, patch: Patch): readonly EditWord[] {
  const words: EditWord[] = [];
  try {
    walkPatch(document, patch, (here, operation) => {
      if (operation.op !== 'test') words.push(wordOf(here, operation));
      return operation.op === 'test' ? null : operation;
    });
    return words;
  } catch (error) {
    if (!(error instanceof PatchError)) throw error;
    return patch.filter(({ op }) => op !== 'test').map(operation => wordOf(document, operation));
  }
}

function wordOf(here: unknown, operation: PatchOperation): EditWord {
  const steps = pointerSteps(operation.path) ?? [];
  if (operation.op === 'remove') return { place: placeWords(here, steps), value: null };
  if (operation.op === 'move' || operation.op === 'copy') {
    const from = placeWords(here, pointerSteps(operation.from) ?? []);
    return { place: from, value: `to ${placeWords(here, steps.slice(0, -1))}`, isMove: true };
  }
  const isNew = operation.op === 'add' && Array.isArray(valueAt(here, steps.slice(0, -1)));
  const place = isNew ? newEntryWords(here, steps, operation.value) : placeWords(here, steps);
  return { place, value: valueText(operation.value) };
}

function newEntryWords(here: unknown, steps: readonly string[], value: unknown): string {
  const outer = steps.slice(0, -2);
  const one = ONE[steps.at(-2) ?? ''] ?? 'entry';
  const name = titleOf(value);
  const whole = `${one}${name === null || typeof value === 'string' ? '' : ` ${name}`}`;
  return outer.length > 0 ? `${placeWords(here, outer)}, new ${whole}` : `new ${whole}`;
}

function valueText(value: unknown): string {
  return typeof value === 'string' ? value : JSON.stringify(value, null, 1);
}
