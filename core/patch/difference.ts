import { entryName, nameKey } from './identity';
import { isObject, isSameJson, pointer, type Step } from '../json/json';
import { keysInOrder } from '../json/key-order';
import type { PatchOperation } from './operations';

/**
 * The patch that leads from one state of a document to another. Entries of lists are known by their names (`id`, `part`, a text
 * itself), so that what is moved, renamed or changed inside stays the same entry for edits that are made elsewhere meanwhile.
 * Members come to stand in the order of the later state. `at` are the steps to both, where they are a part of a document.
 */
export function differenceOf(before: unknown, after: unknown, at: Steps = []): PatchOperation[] {
  const operations: PatchOperation[] = [];
  compare(before, after, at, operations);
  return operations;
}

type Steps = readonly Step[];

function compare(before: unknown, after: unknown, at: Steps, operations: PatchOperation[]): void {
  if (before === after) return;
  if (isObject(before) && isObject(after)) compareMembers(before, after, at, operations);
  else if (Array.isArray(before) && Array.isArray(after)) compareEntries(before, after, at, operations);
  else if (!isSameJson(before, after)) operations.push({ op: 'replace', path: pointer(...at), value: after });
}

function compareMembers(
  before: Readonly<Record<string, unknown>>,
  after: Readonly<Record<string, unknown>>,
  at: Steps,
  operations: PatchOperation[],
): void {
  const path = (key: string): string => pointer(...at, key);
  const wanted = keysInOrder(after);
  let keys = [...keysInOrder(before)];
  const renamed = renamedKeys(before, after);
  for (const key of [...keys]) {
    if (Object.hasOwn(after, key)) continue;
    const to = renamed.get(key);
    if (to === undefined) operations.push({ op: 'remove', path: path(key) });
    else operations.push({ op: 'move', from: path(key), path: path(to) });
    keys = keys.filter(each => each !== key);
    if (to !== undefined) keys.push(to);
  }
  const former = new Map([...renamed].map(([from, to]) => [to, from]));
  for (const key of wanted) {
    if (!keys.includes(key)) {
      operations.push({ op: 'add', path: path(key), value: after[key] });
      keys.push(key);
    } else compare(before[former.get(key) ?? key], after[key], [...at, key], operations);
  }
  const first = wanted.findIndex((key, index) => key !== keys[index]);
  // A member that is moved to where it is becomes the last.
  for (const key of first < 0 ? [] : wanted.slice(first))
    operations.push({ op: 'move', from: path(key), path: path(key) });
}

/** Members that have another name but say the same, or stand in the place of one that is gone where as many came. */
function renamedKeys(
  before: Readonly<Record<string, unknown>>,
  after: Readonly<Record<string, unknown>>,
): Map<string, string> {
  const gone = keysInOrder(before).filter(key => !Object.hasOwn(after, key));
  const come = keysInOrder(after).filter(key => !Object.hasOwn(before, key));
  const renamed = new Map<string, string>();
  for (const key of gone) {
    const isFree = (to: string): boolean => ![...renamed.values()].includes(to);
    const to = come.find(each => isFree(each) && isSameJson(before[key], after[each]));
    if (to !== undefined) renamed.set(key, to);
  }
  const left = gone.filter(key => !renamed.has(key));
  const rest = come.filter(key => ![...renamed.values()].includes(key));
  // Only what can be compared is the same thing under another name.
  if (left.length === rest.length)
    left.forEach((key, index) => {
      if (isObject(before[key]) && isObject(after[rest[index]!])) renamed.set(key, rest[index]!);
    });
  return renamed;
}

/** Where each entry of the later list stood in the earlier one; `null` for those that are new. */
function counterparts(before: readonly unknown[], after: readonly unknown[]): (number | null)[] {
  const free = new Set(before.keys());
  const take = (index: number | undefined): number | null => {
    if (index === undefined) return null;
    free.delete(index);
    return index;
  };
  const byName = new Map<string, number[]>();
  before.forEach((entry, index) => {
    const name = nameOf(entry);
    byName.set(name, [...(byName.get(name) ?? []), index]);
  });
  const found = after.map(entry => take(byName.get(nameOf(entry))?.shift()));
  const pair = (isIt: (mine: unknown, theirs: unknown) => boolean): void => {
    after.forEach((entry, index) => {
      if (found[index] !== null) return;
      found[index] = take([...free].find(each => isIt(before[each], entry)));
    });
  };
  pair((mine, theirs) => isNamed(mine) && isNamed(theirs) && isSameJson(unnamed(mine), unnamed(theirs)));
  const open = found.filter(each => each === null).length;
  if (open === free.size) pair((mine, theirs) => isObject(mine) === isObject(theirs));
  return found;
}

const nameOf = (entry: unknown): string => entryName(entry) ?? JSON.stringify(entry);
const isNamed = (entry: unknown): boolean => nameKey(entry) !== undefined;

function unnamed(entry: unknown): unknown {
  const { [nameKey(entry)!]: _, ...rest } = entry as Record<string, unknown>;
  return rest;
}

function compareEntries(
  before: readonly unknown[],
  after: readonly unknown[],
  at: Steps,
  operations: PatchOperation[],
): void {
  const found = counterparts(before, after);
  const kept = new Set(found);
  const now = [...before.keys()];
  for (let index = now.length - 1; index >= 0; index--) {
    if (kept.has(index)) continue;
    operations.push({ op: 'remove', path: pointer(...at, index) });
    now.splice(index, 1);
  }
  const staying = longestRise(found);
  // Entries by where they stood before, new ones by where they are to stand, below zero.
  const marks = found.map((from, index) => from ?? -1 - index);
  marks.forEach((mark, index) => {
    if (staying.has(mark)) return;
    const here = now.indexOf(mark);
    if (here >= 0) now.splice(here, 1);
    // Right behind what comes before it in the later list.
    const to = index === 0 ? 0 : now.indexOf(marks[index - 1]!) + 1;
    now.splice(to, 0, mark);
    const path = pointer(...at, to);
    if (here < 0) operations.push({ op: 'add', path, value: after[index] });
    else if (here !== to) operations.push({ op: 'move', from: pointer(...at, here), path });
  });
  found.forEach((from, index) => {
    if (from !== null) compare(before[from], after[index], [...at, index], operations);
  });
}

/** The most of some numbers that already rise, which need not be moved (longest increasing subsequence). */
function longestRise(numbers: readonly (number | null)[]): Set<number> {
  // By length: the smallest end of a rise of that length, with what comes before it.
  const ends: { value: number; before: number[] }[] = [];
  for (const value of numbers) {
    if (value === null) continue;
    const at = ends.findIndex(end => end.value >= value);
    const place = at < 0 ? ends.length : at;
    const before = place === 0 ? [] : [...ends[place - 1]!.before, ends[place - 1]!.value];
    ends[place] = { value, before };
  }
  const last = ends.at(-1);
  return new Set(last ? [...last.before, last.value] : []);
}
