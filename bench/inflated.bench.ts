import { QUOTAS } from '@periwinkle/core/json/quotas';
import { demoDocuments } from '../core/test/demo';
import { isOpen, many, placesIn, replaced, SlowChecks, valueAt, type Open } from './support/slow-checks';

/**
 * Every list and every object of the demo's documents, one at a time, made as long as it may be or much longer: how long the check of the system
 * takes, and whether it ends with problems and not with an exception. `PERIWINKLE_INFLATED` says which documents,
 * by a part of their paths: all together take a quarter of an hour.
 */

const only = process.env['PERIWINKLE_INFLATED'] ?? 'text-field';
const LENGTHS = [1_000, 20_000];

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

function longer(node: Open, length: number, filling: (first: unknown, index: number) => unknown): unknown {
  const first = Object.values(node)[0];
  if (Array.isArray(node)) return many(length, index => filling(first, index));
  return { ...node, ...Object.fromEntries(many(length, index => [`k${index}`, filling(first, index)])) };
}

const demo = demoDocuments();
const checks = new SlowChecks(demo);
for (const [path, document] of demo) {
  if (!path.endsWith('.json') || !path.includes(only)) continue;
  for (const place of placesIn(document, isOpen))
    for (const length of LENGTHS)
      for (const [what, filling] of Object.entries(FILLINGS)) {
        const inflated = replaced(document, place, longer(valueAt(document, place) as Open, length, filling));
        const letters = JSON.stringify(inflated).length;
        if (letters > QUOTAS.documentLetters) continue;
        checks.check(
          `${path} /${place.join('/')}, ${length} × ${what}`,
          new Map(demo).set(path, inflated),
          letters,
        );
      }
}
checks.tell();
