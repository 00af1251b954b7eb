import { freshSeed, runsOf } from '../../test/runs';
import fc from 'fast-check';
import { compileComponent } from '../../components/compile-component';
import { ProblemList } from '../../json/problem';
import { inBox, Space } from '../../space/space';
import { demoSystem } from '../../test/demo';
import { everyCombination, holdsIn, isAllowed, type Plain } from '../../test/naive';
import { randomSystem } from '../../test/random-system';
import { coveringSet } from './covering-set';
import { orthogonalRows } from './orthogonal';

/** Every tuple of so many axis values that occurs in some of these combinations. */
function tuplesOf(combinations: readonly Plain[], strength: number): Set<string> {
  const found = new Set<string>();
  for (const combination of combinations) {
    const values = Object.entries(combination).map(entry => entry.join('='));
    const grow = (from: number, chosen: readonly string[]): void => {
      if (chosen.length === Math.min(strength, values.length)) found.add(chosen.join(','));
      else for (let next = from; next < values.length; next++) grow(next + 1, [...chosen, values[next]!]);
    };
    grow(0, []);
  }
  return found;
}

const spaceOf = (sizes: readonly number[]): Space =>
  Space.read(
    {
      axes: sizes.map((size, axis) => ({
        id: `x${axis}`,
        kind: 'option',
        values: Array.from({ length: size }, (_, value) => ({ id: `v${value}` })),
      })),
    },
    new ProblemList(),
  );

test('shows exactly the tuples that can occur, in combinations that can, and every situation asked for', () => {
  const seed = freshSeed('covering sets');
  fc.assert(
    fc.property(
      randomSystem,
      fc.constantFrom(2 as const, 3 as const),
      ({ component: document }, strength) => {
        const component = compileComponent(document);
        if (component.problems.some(problem => problem.severity === 'error')) return;
        const { space, rules } = component;
        const situations = rules.map(rule => rule.region);
        const rows = coveringSet(space, { strength, situations, effort: 200 });
        const shown = rows.map(row => space.written(row) as Plain);
        const allowed = everyCombination(document).filter(each => isAllowed(document, each));
        expect(shown.every(each => isAllowed(document, each))).toBe(true);
        expect([...tuplesOf(shown, strength)].sort()).toEqual([...tuplesOf(allowed, strength)].sort());
        for (const [index, region] of situations.entries()) {
          const occurs = allowed.some(each => holdsIn(document.rules![index]!.when, each));
          expect(rows.some(row => inBox(region, row))).toBe(occurs);
        }
        expect(new Set(rows.map(row => row.join())).size).toBe(rows.length);
      },
    ),
    { numRuns: runsOf('covering sets'), seed },
  );
}, 120_000);

test('gives the same rows every time, and asks whether to go on', () => {
  const { space } = demoSystem().components[0]!;
  const rows = coveringSet(space, { strength: 2, effort: 500 });
  expect(coveringSet(space, { strength: 2, effort: 500 })).toEqual(rows);
  const told: number[] = [];
  const first = coveringSet(space, {
    strength: 2,
    effort: 500,
    onProgress: count => (told.push(count), false),
  });
  expect(told).toEqual([first.length]);
  expect(first.length).toBeGreaterThanOrEqual(rows.length);
});

test('comes to known sizes where these are bounds', () => {
  const size = (sizes: readonly number[]): number => coveringSet(spaceOf(sizes), { strength: 2 }).length;
  expect(size([3, 3, 3, 3])).toBe(9);
  expect(size([5, 5, 5, 5, 5, 5])).toBe(25);
  expect(size([2, 2, 2, 2, 2, 2, 2, 2, 2, 2])).toBe(6);
  expect(size([])).toBe(1);
  expect(size([4])).toBe(4);
});

test('orthogonal arrays show each pair of values once in each pair of columns', () => {
  const rows = orthogonalRows([5, 5, 5, 5, 5, 5])!;
  for (let a = 0; a < 6; a++)
    for (let b = 0; b < a; b++) expect(new Set(rows.map(row => `${row[a]} ${row[b]}`)).size).toBe(25);
  expect(orthogonalRows([3, 3, 3, 3, 3])).toBeNull();
});
