import { freshSeed, runsOf } from '../test/runs';
import fc from 'fast-check';
import { demoDocuments } from '../test/demo';
import { fuzzText } from '../test/fuzz-text';
import { guarded, identified } from './identity';
import { isObject, pointer, type JsonObject } from '../json/json';
import { PatchError, type Patch, type PatchOperation } from './operations';
import { applyPatch } from './patch';

/**
 * Whatever a patch does to the demo's documents, what takes it back brings back every byte, also with all that it relies on, and taken
 * back and forth it does not grow.
 */

const RUNS = runsOf('undo');
const documents = [...demoDocuments().values()].filter(isObject);

interface DocumentPlace {
  readonly path: string;
  readonly value: unknown;
}

const placesIn = (value: unknown, steps: readonly string[] = []): DocumentPlace[] => [
  { path: pointer(...steps), value },
  ...(typeof value === 'object' && value !== null
    ? Object.entries(value).flatMap(([key, each]) => placesIn(each, [...steps, key]))
    : []),
];
const places = new Map(documents.map(document => [document, placesIn(document)]));
const everyPlace = [...places.values()].flat();

/** Members that every object seems to have, places that no list has, and one behind the last. */
const ODD = [
  'toString',
  'hasOwnProperty',
  'length',
  '-',
  '0',
  '',
  '01',
  '4294967296',
  '9'.repeat(400),
  '1.5',
];

const pathIn = (document: JsonObject): fc.Arbitrary<string> => {
  const path = fc.constantFrom(...places.get(document)!).map(place => place.path);
  const odd = fc.tuple(path, fc.oneof(fc.constantFrom(...ODD), fuzzText));
  return fc.oneof(
    { weight: 6, arbitrary: path },
    odd.map(([at, step]) => at + pointer(step)),
  );
};

const value: fc.Arbitrary<unknown> = fc.oneof(
  { weight: 2, arbitrary: fc.constantFrom(...everyPlace).map(place => place.value) },
  fuzzText,
  fc.constantFrom(null, 0, -0, 0.5, 1e300, true, false, [], {}),
  fc.dictionary(fc.oneof(fc.constantFrom(...ODD), fuzzText), fuzzText, { maxKeys: 4 }),
);

const operationIn = (document: JsonObject): fc.Arbitrary<PatchOperation> => {
  const path = pathIn(document);
  return fc.oneof(
    fc.record({ op: fc.constantFrom('add' as const, 'replace' as const), path, value }),
    fc.record({ op: fc.constant('remove' as const), path }),
    fc.record({ op: fc.constant('move' as const), path, from: path }),
    path.map(at => ({ op: 'move' as const, path: at, from: at })),
    fc.record({ op: fc.constant('copy' as const), path, from: path }),
  );
};

const edits = fc.constantFrom(...documents).chain(document =>
  fc.record({
    document: fc.constant<unknown>(document),
    patch: fc.array(operationIn(document), { minLength: 1, maxLength: 3 }),
  }),
);

/** What a patch makes; `null` where it does not fit. */
function made(document: unknown, patch: Patch) {
  try {
    return applyPatch(document, patch);
  } catch (error) {
    if (error instanceof PatchError) return null;
    throw error;
  }
}

test('what is taken back is as it was, to the byte and the order of members', () => {
  let fitting = 0;
  fc.assert(
    fc.property(edits, ({ document, patch }) => {
      const done = made(document, patch);
      if (!done) return;
      fitting++;
      const before = JSON.stringify(document);
      const after = JSON.stringify(done.document);
      const back = applyPatch(done.document, done.inverse);
      expect(JSON.stringify(back.document)).toBe(before);
      const relying = guarded(done.document, done.inverse);
      expect(JSON.stringify(applyPatch(done.document, relying).document)).toBe(before);
      expect(JSON.stringify(applyPatch(document, identified(document, patch)).document)).toBe(after);
      let again = back;
      for (let time = 0; time < 4; time++) again = applyPatch(again.document, again.inverse);
      expect(JSON.stringify(again.document)).toBe(before);
      expect(again.inverse.length).toBeLessThanOrEqual(2 * (patch.length + back.inverse.length));
    }),
    { numRuns: RUNS, seed: freshSeed('taking back'), endOnFailure: false },
  );
  expect(fitting).toBeGreaterThan(RUNS / 10);
}, 3_600_000);
