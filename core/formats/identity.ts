import { isObject, isSameJson, pointer, pointerSteps, valueAt } from './json';
import { applyPatch, type Patch, type PatchOperation, type TestOperation } from './patch';
import { besides, isEntry, placesOf, type Places, type Steps } from './places';

/** Members by which entries of lists are known: rules, situations, values and what else has an id; parts have a name. */
export const NAMES: readonly string[] = ['id', 'part'];

/** Says of an entry of a list which one is meant, by its id, its part's name or, of a text, itself; `null` of one without a name. */
export function nameTest(document: unknown, steps: Steps): TestOperation | null {
  const entry = valueAt(document, steps);
  if (typeof entry === 'string') return { op: 'test', path: pointer(...steps), value: entry };
  const name = NAMES.find(key => isObject(entry) && typeof entry[key] === 'string');
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
  value: valueAt(document, steps),
});

/** The entries of lists that the ways of an operation lead through. */
const entriesOf = (document: unknown, { to, from }: Places): Steps[] =>
  [to.isGap ? to.steps.slice(0, -1) : to.steps, from ?? []]
    .flatMap(steps => steps.map((_, depth) => steps.slice(0, depth + 1)))
    .filter(place => isEntry(document, place));

/** Puts tests before each operation, each said once as long as it holds. */
function withTests(
  document: unknown,
  patch: Patch,
  testsOf: (here: unknown, operation: PatchOperation) => readonly TestOperation[],
): PatchOperation[] {
  const result: PatchOperation[] = [];
  let said: readonly TestOperation[] = [];
  let here = document;
  for (const operation of patch) {
    const plain = replacing(here, operation);
    const tests = testsOf(here, plain).filter(test => !said.some(each => isSameJson(each, test)));
    result.push(...tests, plain);
    said = stillTrue(here, plain, [...said, ...tests]);
    here = applyPatch(here, [plain]).document;
  }
  return result;
}

/** Of tests that held before an operation those that certainly hold afterwards; `said` is the operation with the tests' indices. */
export function stillTrue(
  document: unknown,
  operation: PatchOperation,
  tests: readonly TestOperation[],
  said: PatchOperation = operation,
): readonly TestOperation[] {
  const { to, from } = placesOf(document, operation);
  const isOfList =
    operation.op !== 'replace' && [to.steps, from ?? []].some(steps => isEntry(document, steps));
  // Where a list changes, indices mean other entries.
  if (isOfList) return [];
  const changed = [said.path, ...('from' in said ? [said.from] : [])];
  return tests.filter(({ path }) => !changed.some(each => isWithin(path, each) || isWithin(each, path)));
}

const isWithin = (path: string, other: string): boolean => path === other || path.startsWith(`${other}/`);

function replacing(document: unknown, operation: PatchOperation): PatchOperation {
  if (operation.op === 'copy') {
    const value = valueAt(document, pointerSteps(operation.from) ?? []);
    return replacing(document, { op: 'add', path: operation.path, value });
  }
  if (operation.op !== 'add') return operation;
  const { steps, isGap } = placesOf(document, operation).to;
  return isGap || valueAt(document, steps) === undefined ? operation : { ...operation, op: 'replace' };
}
