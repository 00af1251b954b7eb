import { KnownTests, NAMES } from './identity';
import { isObject, isSameJson, pointer, pointerSteps, valueAt } from '../json/json';
import type { MoveOperation, Patch, PatchOperation, TestOperation } from './operations';
import { walkPatch } from './patch';
import { besides, isEntry, leadsTo, withMoved, withoutMoved, type Steps } from './patch-places';

/** Why a patch has no place in a document: what it speaks of is gone or is another by now, or something is there already. */
export type RelocationFault = 'gone' | 'changed' | 'taken';

export type Relocated =
  | { readonly ok: true; readonly patch: PatchOperation[] }
  | { readonly ok: false; readonly reason: RelocationFault; readonly place: string };

/**
 * Finds the places that a patch means in another document than the one it was made on: its tests (`identified`, `guarded`) say which
 * entries its indices stand for and what it relies on. The patch comes back as it is to be applied there, without tests. Costs what the
 * patch touches, however much has happened in between.
 */
export function relocated(document: unknown, patch: Patch): Relocated {
  try {
    return { ok: true, patch: place(document, patch) };
  } catch (error) {
    if (error instanceof NoPlace) return { ok: false, reason: error.reason, place: error.place };
    throw error;
  }
}

class NoPlace extends Error {
  constructor(
    readonly reason: RelocationFault,
    readonly place: string,
  ) {
    super(`The place “${place}” is ${reason}.`);
  }
}

function place(document: unknown, patch: Patch): PatchOperation[] {
  const result: PatchOperation[] = [];
  const known = new KnownTests();
  // What is yet to be found true.
  let unread: TestOperation[] = [];
  walkPatch(document, patch, (here, operation) => {
    if (operation.op === 'test') {
      known.add(operation);
      unread.push(operation);
      return null;
    }
    const found = operationIn(here, operation, known, unread);
    unread = [];
    if (!found) return null;
    result.push(found);
    known.follow(here, found, operation);
    return found;
  });
  return result;
}

/** An operation as it is said in the document; `null` where it only orders what is gone. */
function operationIn(
  here: unknown,
  operation: PatchOperation,
  known: KnownTests,
  unread: readonly TestOperation[],
): PatchOperation | null {
  if (operation.op === 'move') return moveIn(here, operation, known);
  const said = pointerSteps(operation.path) ?? [];
  const steps = stepsIn(here, said, known, operation.op === 'add' ? [] : null);
  const path = pointer(...steps);
  const present = valueAt(here, steps);
  const isFresh = operation.op === 'add';
  if (isFresh && !isEntry(here, steps) && present !== undefined) throw new NoPlace('taken', path);
  if (isFresh ? !holds(here, steps) : present === undefined) throw new NoPlace('gone', path);
  const relied = unread.find(test => test.path === operation.path);
  if (relied && !isFresh && !isSameJson(present, relied.value)) throw new NoPlace('changed', path);
  return { ...operation, path };
}

function moveIn(here: unknown, { from, path }: MoveOperation, known: KnownTests): PatchOperation | null {
  const said = pointerSteps(from) ?? [];
  if (from === path) return orderIn(here, said, known);
  const source = stepsIn(here, said, known, null);
  if (valueAt(here, source) === undefined) throw new NoPlace('gone', pointer(...source));
  const isListed = isEntry(here, source);
  const target = pointerSteps(path) ?? [];
  const gap = isListed ? withMoved(target, said) : target;
  const steps = stepsIn(here, gap, known, isListed ? said : []);
  const to = isListed ? withoutMoved(steps, source) : steps;
  if (!isEntry(here, steps) && valueAt(here, steps) !== undefined)
    throw new NoPlace('taken', pointer(...steps));
  if (!holds(here, steps) || leadsTo(source, steps)) throw new NoPlace('gone', pointer(...steps));
  // Into the entry behind it: its path would begin like where it is, which JSON Patch cannot say (RFC 6902, section 4.4).
  if (leadsTo(source, to) && to.length > source.length) throw new NoPlace('changed', pointer(...steps));
  return { op: 'move', from: pointer(...source), path: pointer(...to) };
}

/** A member that becomes the last. */
function orderIn(here: unknown, said: Steps, known: KnownTests): PatchOperation | null {
  try {
    const path = pointer(...stepsIn(here, said, known, null));
    return { op: 'move', from: path, path };
  } catch (error) {
    if (error instanceof NoPlace) return null;
    throw error;
  }
}

/** Whether something can be put at a place: in a list, or into an object. */
const holds = (here: unknown, steps: Steps): boolean => {
  const parent = valueAt(here, steps.slice(0, -1));
  return steps.length > 0 && (Array.isArray(parent) || isObject(parent));
};

/**
 * Steps as they lead to the same entries here. `gap` says that the last of them, in a list, is a place between entries, and leaves out
 * the entry that is to be moved there (no steps: none).
 */
function stepsIn(here: unknown, said: Steps, known: KnownTests, gap: Steps | null): Steps {
  const steps: string[] = [];
  said.forEach((step, depth) => {
    const list = valueAt(here, steps);
    const isLast = depth === said.length - 1;
    if (!Array.isArray(list)) steps.push(step);
    else if (isLast && gap) steps.push(String(gapIn(list, said, known, gap)));
    else steps.push(String(indexIn(list, said.slice(0, depth + 1), known)));
  });
  return steps;
}

/** The index by now of the entry that stood at a place. */
function indexIn(list: readonly unknown[], said: Steps, known: KnownTests): number {
  const name = nameOf(said, known);
  if (!name) return Number(said.at(-1));
  const index = indexOf(list, name, Number(said.at(-1)));
  if (index === null) throw new NoPlace(isText(name) ? 'gone' : 'changed', pointer(...said));
  return index;
}

/** Where a gap is by now: behind the entry that stood before it, or else before the one that stood behind it. */
function gapIn(list: readonly unknown[], said: Steps, known: KnownTests, moved: Steps): number {
  const wanted = said.at(-1) === '-' ? list.length : Number(said.at(-1));
  const [before, behind] = besides(said, moved).map(steps => {
    const name = nameOf(steps, known);
    return name && indexOf(list, name, Number(steps.at(-1)));
  });
  if (typeof before === 'number') return before + 1;
  return behind ?? Math.min(wanted, list.length);
}

interface Name {
  /** Steps from the entry to what names it. */
  readonly within: Steps;
  readonly value: unknown;
}

const isText = ({ value }: Name): boolean => typeof value === 'string';

/** What is known of the name of the entry at a place: a name before what it holds. */
function nameOf(said: Steps, known: KnownTests): Name | null {
  const entry = pointer(...said);
  const whole = known.at(entry);
  const name = NAMES.find(each => known.at(`${entry}/${each}`) !== undefined);
  if (typeof whole?.value === 'string') return { within: [], value: whole.value };
  if (name !== undefined) return { within: [name], value: known.at(`${entry}/${name}`)!.value };
  return whole ? { within: [], value: whole.value } : null;
}

/** The index of the entry of a name; where several have it, first the one at its old place. */
function indexOf(list: readonly unknown[], { within, value }: Name, wanted: number): number | null {
  const isIt = (entry: unknown): boolean => entry !== undefined && isSameJson(valueAt(entry, within), value);
  if (isIt(list[wanted])) return wanted;
  const index = list.findIndex(isIt);
  return index < 0 ? null : index;
}
