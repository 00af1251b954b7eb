import { isObject, isSameJson, pointer, pointerSteps, valueAt } from '../json/json';
import type { Patch, PatchOperation, TestOperation } from './operations';
import { walkPatch, plain } from './patch';
import { besides, isEntry, placesOf, type OperationPlaces, type Steps } from './patch-places';

/** Members by which entries of lists are known: rules, situations, values and what else has an id; parts have a name. */
export const NAMES: readonly string[] = ['id', 'part'];

/** What an entry of a list is known by, with the member that says it: `id over`; `null` of one without a name. */
export function entryName(entry: unknown): string | null {
  const key = nameKey(entry);
  return key === undefined ? null : `${key} ${String((entry as Record<string, unknown>)[key])}`;
}

/** The member that names an entry. */
export const nameKey = (entry: unknown): string | undefined =>
  NAMES.find(key => isObject(entry) && typeof entry[key] === 'string');

/** Says of an entry of a list which one is meant, by its id, its part's name or, of a text, itself; `null` of one without a name. */
function nameTest(document: unknown, steps: Steps): TestOperation | null {
  const entry = valueAt(document, steps);
  if (typeof entry === 'string') return { op: 'test', path: pointer(...steps), value: entry };
  const name = nameKey(entry);
  return name === undefined
    ? null
    : { op: 'test', path: pointer(...steps, name), value: valueAt(entry, [name]) };
}

/**
 * A patch with `test` operations (RFC 6902, section 4.6) before each operation that say which entries of lists its indices mean. What
 * would be added over a member that is there replaces it, so that each `add` makes something new.
 */
export function identified(document: unknown, patch: Patch): PatchOperation[] {
  return withTests(document, patch, (here, operation) =>
    entriesOf(here, placesOf(here, operation)).flatMap(steps => nameTest(here, steps) ?? []),
  );
}

/**
 * The inverse of an edit with `test` operations that say all that it relies on: which entries are meant, what is there for it to take
 * back, and between which neighbours it puts an entry. `document` is as the edit has left it.
 */
export function guarded(document: unknown, inverse: Patch): PatchOperation[] {
  return withTests(document, inverse, (here, operation) => {
    const places = placesOf(here, operation);
    const { to, from } = places;
    const meant = entriesOf(here, places).map(steps => nameTest(here, steps) ?? contentTest(here, steps));
    const taken =
      operation.op === 'replace' || operation.op === 'remove' ? [contentTest(here, to.steps)] : [];
    return [
      ...meant,
      ...(to.isGap ? besides(to.steps, from ?? []).flatMap(steps => nameTest(here, steps) ?? []) : []),
      ...taken,
    ];
  });
}

const contentTest = (document: unknown, steps: Steps): TestOperation => ({
  op: 'test',
  path: pointer(...steps),
  value: plain(valueAt(document, steps)),
});

/** The entries of lists that the ways of an operation lead through. */
const entriesOf = (document: unknown, { to, from }: OperationPlaces): Steps[] =>
  [to.isGap ? to.steps.slice(0, -1) : to.steps, from ?? []]
    .flatMap(steps => steps.map((_, depth) => steps.slice(0, depth + 1)))
    .filter(place => isEntry(document, place));

/** Puts tests before each operation; of names each is said once as long as it holds. */
function withTests(
  document: unknown,
  patch: Patch,
  testsOf: (here: unknown, operation: PatchOperation) => readonly TestOperation[],
): PatchOperation[] {
  const result: PatchOperation[] = [];
  const said = new KnownTests();
  walkPatch(document, patch, (here, operation) => {
    const done = replacing(here, operation);
    for (const test of testsOf(here, done)) {
      if (said.has(test)) continue;
      result.push(test);
      said.add(test);
    }
    result.push(done);
    said.follow(here, done);
    return done;
  });
  return result;
}

/** Tests that were found true, by their paths, as far as they certainly still hold. */
export class KnownTests {
  private readonly byPath = new Map<string, TestOperation>();

  add(test: TestOperation): void {
    this.byPath.set(test.path, test);
  }

  at(path: string): TestOperation | undefined {
    return this.byPath.get(path);
  }

  has({ path, value }: TestOperation): boolean {
    const known = this.byPath.get(path);
    return known !== undefined && isSameJson(known.value, value);
  }

  /** Follows an operation on a document; `said` is the operation with the indices of the tests. */
  follow(document: unknown, operation: PatchOperation, said: PatchOperation = operation): void {
    if (operation.op === 'test') return;
    const { to, from } = placesOf(document, operation);
    const isOfList = [to.steps, from ?? []].some(steps => isEntry(document, steps));
    // Where a list changes, indices mean other entries.
    if (isOfList && operation.op !== 'replace') return this.byPath.clear();
    this.forget(said.path, document, to.steps);
    if (from && 'from' in said) this.forget(said.from, document, from);
  }

  /** Forgets what is said of a place, of what it is in, and of what was in it. */
  private forget(path: string, document: unknown, steps: Steps): void {
    for (let here = path; here !== ''; here = here.slice(0, here.lastIndexOf('/'))) this.byPath.delete(here);
    this.byPath.delete('');
    const before = valueAt(document, steps);
    if (!isObject(before) && !Array.isArray(before)) return;
    for (const known of this.byPath.keys()) if (known.startsWith(`${path}/`)) this.byPath.delete(known);
  }
}

function replacing(document: unknown, operation: PatchOperation): PatchOperation {
  if (operation.op === 'copy') {
    const value = plain(valueAt(document, pointerSteps(operation.from) ?? []));
    return replacing(document, { op: 'add', path: operation.path, value });
  }
  if (operation.op !== 'add') return operation;
  const { steps, isGap } = placesOf(document, operation).to;
  return isGap || valueAt(document, steps) === undefined ? operation : { ...operation, op: 'replace' };
}
