/**
 * Sizes of covering sets of pairs against the best known: bounds (the product of the two largest axes) and sizes published in
 * M. B. Cohen, P. B. Gibbons, W. B. Mugridge and C. J. Colbourn, "Constructing Test Suites for Interaction Testing" (2003),
 * and in the tables of covering arrays by C. J. Colbourn.
 */
import { coveringSet } from '@periwinkle/core/cascade/covering/covering-set';
import { ProblemList } from '@periwinkle/core/json/problem';
import { Space } from '@periwinkle/core/space/space';
import { demoSystem } from '@periwinkle/core/test/demo';
import { timed } from './support/generated';

const many = (count: number, size: number): number[] => Array.from({ length: count }, () => size);

const SHAPES: readonly (readonly [words: string, sizes: readonly number[], best: number])[] = [
  ['3^4', many(4, 3), 9],
  ['4^5', many(5, 4), 16],
  ['5^6', many(6, 5), 25],
  ['3^13', many(13, 3), 15],
  ['2^10', many(10, 2), 6],
  ['2^100', many(100, 2), 10],
  ['4 3^4 2^3', [4, ...many(4, 3), ...many(3, 2)], 12],
  ['5 3^8 2^2', [5, ...many(8, 3), 2, 2], 15],
  ['7 6 5 4^5 3^8 2^3', [7, 6, 5, ...many(5, 4), ...many(8, 3), ...many(3, 2)], 42],
  ['5 4^4 3^11 2^5', [5, ...many(4, 4), ...many(11, 3), ...many(5, 2)], 21],
  ['6 5 4^6 3^8 2^3', [6, 5, ...many(6, 4), ...many(8, 3), ...many(3, 2)], 30],
  ['4^15 3^17 2^29', [...many(15, 4), ...many(17, 3), ...many(29, 2)], 30],
  ['4 3^39 2^35', [4, ...many(39, 3), ...many(35, 2)], 21],
  ['10^20', many(20, 10), 155],
];

process.stdout.write('Covering sets of pairs: rows, against the best known (aim 1.15)\n');
for (const [words, sizes, best] of SHAPES) {
  const space = Space.read(
    {
      axes: sizes.map((size, axis) => ({
        id: `x${axis}`,
        kind: 'option',
        values: Array.from({ length: size }, (_, value) => ({ id: `v${value}` })),
      })),
    },
    new ProblemList(),
  );
  let rows = 0;
  const time = timed(() => (rows = coveringSet(space, { strength: 2 }).length));
  process.stdout.write(
    `  ${words}: ${rows} (${(rows / best).toFixed(2)} of ${best}), ${time.toFixed(0)} ms\n`,
  );
}
const { space } = demoSystem().components[0]!;
for (const strength of [2, 3] as const) {
  let rows = 0;
  const time = timed(() => (rows = coveringSet(space, { strength }).length));
  process.stdout.write(
    `  the demo's text field, strength ${strength}, with its limits: ${rows} of ${space.count()} combinations, ${time.toFixed(0)} ms\n`,
  );
}
