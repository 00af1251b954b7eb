import { freshSeed, runsOf } from '../test/runs';
import fc from 'fast-check';
import type { ComponentDocument, LimitDocument } from '../documents/component-document';
import { ProblemList } from '../json/problem';
import { everyCombination, holdsIn, settledPlain, type Plain } from '../test/naive';
import { entangledComponent } from '../test/random-system';
import { NOWHERE } from './extent';
import { Space } from './space';

const broken = ({ while: condition, holds }: LimitDocument, here: Plain): boolean =>
  holdsIn(condition, here) &&
  Object.entries(holds).some(([axis, allowed]) => ![allowed].flat().includes(here[axis]!));

function applied({ holds }: LimitDocument, here: Plain): Plain {
  const next: Record<string, string> = { ...here };
  for (const [axis, allowed] of Object.entries(holds))
    if (![allowed].flat().includes(here[axis]!)) next[axis] = [allowed].flat()[0]!;
  return next;
}

/** All that a raw combination can come to, whatever the order. */
function everyEnd(document: ComponentDocument, raw: Plain): Set<string> {
  const ends = new Set<string>();
  const seen = new Set<string>();
  const open = [raw];
  for (let here = open.pop(); here; here = open.pop()) {
    const text = JSON.stringify(here);
    if (seen.has(text)) continue;
    seen.add(text);
    const acting = (document.limits ?? []).filter(limit => broken(limit, here!));
    if (acting.length === 0) ends.add(text);
    open.push(...acting.map(limit => applied(limit, here!)));
  }
  return ends;
}

const problemsOf = (document: ComponentDocument): ProblemList => {
  const problems = new ProblemList();
  Space.read(document, problems);
  return problems;
};

test('limits whose result depends on their order are found, and no others', () => {
  const seed = freshSeed('limits');
  const tally = { fine: 0, order: 0, endless: 0 };
  fc.assert(
    fc.property(entangledComponent, document => {
      const all = everyCombination(document);
      const codes = problemsOf(document).problems.map(problem => problem.code);
      if (all.some(raw => settledPlain(document, raw) === null)) {
        tally.endless++;
        expect(codes).toEqual(['unsettled-limits']);
      } else if (all.some(raw => everyEnd(document, raw).size > 1)) {
        tally.order++;
        expect(codes).toContain('order-dependent-limits');
      } else {
        tally.fine++;
        expect(codes).toEqual([]);
      }
    }),
    { numRuns: runsOf('limits'), seed },
  );
  // Each kind has been met.
  expect(Math.min(...Object.values(tally))).toBeGreaterThan(5);
}, 60_000);

test('the report names the limits, a combination, and what it becomes either way', () => {
  const problems = problemsOf({
    format: 'periwinkle-component/1',
    id: 'x',
    anatomy: { part: 'root', kind: 'stack' },
    axes: [
      { id: 'a', kind: 'option', values: [{ id: 'one' }, { id: 'two' }] },
      { id: 'b', kind: 'option', values: [{ id: 'red' }, { id: 'blue' }, { id: 'green' }] },
    ],
    limits: [
      { while: { a: 'one' }, holds: { b: ['blue', 'green'] } },
      { while: { a: 'one' }, holds: { b: ['green', 'blue'] } },
    ],
  });
  expect(problems.problems).toEqual([
    {
      pointer: '/limits/1',
      severity: 'error',
      code: 'order-dependent-limits',
      message:
        'The result of limits 1 and 2 depends on which is applied first: a one, b red becomes b blue or b green.',
    },
  ]);
});

test('a limit without which the others never settle matters wherever they would not', () => {
  const option = (id: string, values: string[]) => ({
    id,
    kind: 'option' as const,
    values: values.map(value => ({ id: value })),
  });
  const problems = new ProblemList();
  const space = Space.read(
    {
      axes: [option('a', ['x', 'y']), option('b', ['p', 'q'])],
      limits: [
        { while: { b: 'p' }, holds: { a: 'x', b: 'q' } },
        { while: { a: 'x', b: 'p' }, holds: { a: 'y' } },
        { while: { a: 'y', b: 'p' }, holds: { a: 'x' } },
      ],
    },
    problems,
  );
  expect(problems.problems).toEqual([]);
  expect([...space.extents.boxesOf(space.effectOf(space.limits[0]!))]).toEqual([[0b11, 0b01]]);
  expect(space.effectOf(space.limits[1]!)).toBe(NOWHERE);
});

test('limits that have nothing to do with one another do not multiply', () => {
  const axes = Array.from({ length: 24 }, (_, index) => ({
    id: `x${index}`,
    kind: 'option' as const,
    values: [{ id: 'p' }, { id: 'q' }, { id: 'r' }],
  }));
  const limits = Array.from({ length: 12 }, (_, index) => ({
    while: { [`x${2 * index}`]: 'p' },
    holds: { [`x${2 * index + 1}`]: ['p', 'q'] },
  }));
  const problems = new ProblemList();
  const space = Space.read({ axes, limits }, problems);
  expect(problems.problems).toEqual([]);
  expect(space.count()).toBe(8n ** 12n);
  expect(space.extents.size).toBeLessThan(1000);
});

test('limits beyond all overview are refused, not pondered', () => {
  const axes = Array.from({ length: 24 }, (_, index) => ({
    id: `x${index}`,
    kind: 'option' as const,
    values: [{ id: 'p' }, { id: 'q' }, { id: 'r' }],
  }));
  const limits = Array.from({ length: 23 }, (_, index) => ({
    while: { [`x${index}`]: 'p' },
    holds: { [`x${index + 1}`]: ['q', 'r'] },
  }));
  const codes = problemsOf({
    format: 'periwinkle-component/1',
    id: 'x',
    anatomy: { part: 'root', kind: 'stack' },
    axes,
    limits,
  }).problems.map(problem => problem.code);
  expect(codes).toEqual(['tangled-limits']);
});

test.each([
  ['limits that hold almost all axes', 60, 58],
  ['a limit that holds twenty axes', 1, 20],
  ['limits by the hundred', 900, 1],
])('%s: entangled, not an exception', (_, count, held) => {
  const axes = Array.from({ length: 60 }, (_each, index) => ({
    id: `a${index}`,
    kind: 'option' as const,
    values: [{ id: 'x' }, { id: 'y' }, { id: 'z' }],
  }));
  const limits = Array.from({ length: count }, (_each, index) => ({
    while: { [`a${index % 60}`]: 'x' },
    holds: Object.fromEntries(
      Array.from({ length: held }, (_held, step) => [`a${(index * 7 + step + 1) % 60}`, ['x', 'y']]),
    ),
  }));
  const component: ComponentDocument = {
    format: 'periwinkle-component/1',
    id: 'x',
    anatomy: { part: 'root', kind: 'stack' },
    axes,
    limits: limits.filter(limit => !(Object.keys(limit.while)[0]! in limit.holds)),
  };
  expect(problemsOf(component).problems.map(({ code }) => code)).toEqual(['tangled-limits']);
});
