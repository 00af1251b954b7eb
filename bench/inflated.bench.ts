import { checkSystem } from '@periwinkle/core/checks/check-system';
import { LIMITS } from '@periwinkle/core/formats/limits';
import { demoDocuments } from '../core/test/demo';

/**
 * Every list and every object of the demo's documents, one at a time, made as long as it may be or much longer: how long the check of the system
 * takes, and whether it ends with problems and not with an exception. `PERIWINKLE_INFLATED` says which documents,
 * by a part of their paths: all together take a quarter of an hour.
 */

const only = process.env['PERIWINKLE_INFLATED'] ?? 'text-field';
const LENGTHS = [1_000, 20_000];
const TOLD = 15;

type Place = readonly (string | number)[];
type Open = Record<string | number, unknown>;
const print = (line: string): void => void process.stdout.write(`${line}\n`);
const isOpen = (node: unknown): node is Open => typeof node === 'object' && node !== null;
const many = <Value>(length: number, make: (index: number) => Value): Value[] =>
  Array.from({ length }, (_, index) => make(index));

/** What a list or an object is filled up with, by what it begins with. */
const FILLINGS: Readonly<Record<string, (first: unknown, index: number) => unknown>> = {
  'the same': first => structuredClone(first) ?? 'x',
  'the same under other names': (first, index) =>
    isOpen(first) && !Array.isArray(first)
      ? { ...structuredClone(first), id: `n${index}`, part: `p${index}` }
      : `n${index}`,
  'empty objects': () => ({}),
  texts: (_, index) => `x${index}`,
};

/** The document with another value at a place. */
function replaced(node: unknown, [step, ...inner]: Place, value: unknown): unknown {
  if (step === undefined) return value;
  const copy = (Array.isArray(node) ? [...node] : { ...(node as Open) }) as Open;
  copy[step] = replaced(copy[step], inner, value);
  return copy;
}

function longer(node: Open, length: number, filling: (first: unknown, index: number) => unknown): unknown {
  const first = Object.values(node)[0];
  if (Array.isArray(node)) return many(length, index => filling(first, index));
  return { ...node, ...Object.fromEntries(many(length, index => [`k${index}`, filling(first, index)])) };
}

/** Places of lists and objects, those that differ in indices alone once. */
function* placesIn(node: unknown, place: Place, seen: Set<string>): Generator<Place> {
  if (!isOpen(node)) return;
  const shape = place.map(step => (typeof step === 'number' ? '#' : step)).join('/');
  if (!seen.has(shape)) yield place;
  seen.add(shape);
  for (const [key, each] of Object.entries(node))
    yield* placesIn(each, [...place, Array.isArray(node) ? Number(key) : key], seen);
}

const demo = demoDocuments();
// What has run twice runs faster.
for (let turn = 0; turn < 2; turn++) checkSystem(structuredClone(demo));
const checked: { ms: number; line: string }[] = [];
let thrown = 0;

for (const [path, document] of demo) {
  if (!path.endsWith('.json') || !path.includes(only)) continue;
  for (const place of placesIn(document, [], new Set()))
    for (const length of LENGTHS)
      for (const [what, filling] of Object.entries(FILLINGS)) {
        const node = place.reduce<unknown>((here, step) => (here as Open)[step], document) as Open;
        const inflated = replaced(document, place, longer(node, length, filling));
        const letters = JSON.stringify(inflated).length;
        if (letters > LIMITS.documentLetters) continue;
        const began = performance.now();
        let end = '';
        try {
          end = `${checkSystem(new Map(demo).set(path, inflated)).problems.length} problems`;
        } catch (error) {
          thrown++;
          end = String(error).slice(0, 100);
        }
        const ms = performance.now() - began;
        checked.push({
          ms,
          line: `${path} /${place.join('/')}, ${length} × ${what}, ${letters} letters: ${end}`,
        });
      }
}
print(`${checked.length} documents, ${thrown} exceptions; the slowest:`);
for (const { ms, line } of checked.toSorted((a, b) => b.ms - a.ms).slice(0, TOLD))
  print(`${ms.toFixed(0).padStart(6)} ms  ${line}`);
