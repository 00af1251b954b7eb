import { dryRun } from './dry-run';
import { compileSystem, componentNamed } from '../components/system';
import type { LimitDocument } from '../documents/component-document';
import { spaceReport, type SpaceReport } from '../cascade/questions/space-report';
import type { Component } from '../components/component';
import { demoSystem } from '../test/demo';
import { smallSystem } from '../test/small-system';
import { allowTogether } from './limit-edits';

function reportOf(component: Component): SpaceReport {
  const steps = spaceReport(component);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

const option = (id: string, ...values: string[]) => ({
  id,
  kind: 'option',
  values: values.map(each => ({ id: each })),
});
const systemWith = (limits: readonly LimitDocument[]) =>
  smallSystem({
    documents: [
      [
        'components/field.component.json',
        {
          format: 'periwinkle-component/1',
          id: 'field',
          title: 'Field',
          anatomy: { part: 'root', kind: 'stack' },
          axes: [option('a', 'a1', 'a2', 'a3'), option('b', 'b1', 'b2'), option('c', 'c1', 'c2')],
          limits,
        },
      ],
    ],
  });

function allowing(limits: readonly LimitDocument[], one: [string, string], other: [string, string]) {
  const [a, b] = [one, other].map(([axis, value]) => ({ axis, value }));
  const tried = dryRun(systemWith(limits), allowTogether('field', a!, b!));
  return tried.ok
    ? ((tried.documents.get('components/field.component.json') as { limits?: LimitDocument[] }).limits ?? [])
    : tried.reason;
}

const narrow = { while: { c: 'c2' }, holds: { a: 'a2' }, because: 'Narrow.' };

test('what a limit holds has one more value', () => {
  expect(allowing([narrow], ['a', 'a3'], ['c', 'c2'])).toEqual([{ ...narrow, holds: { a: ['a2', 'a3'] } }]);
});

test('limits that keep the two apart, one behind the other, all admit them; one that holds nothing any more is gone', () => {
  const both: LimitDocument[] = [
    { while: { a: 'a1' }, holds: { b: 'b1', c: 'c1' } },
    { while: { b: 'b2' }, holds: { a: ['a2', 'a3'] } },
  ];
  expect(allowing(both, ['a', 'a1'], ['b', 'b2'])).toEqual([{ while: { a: 'a1' }, holds: { c: 'c1' } }]);
  // The other way about it is the same.
  expect(allowing(both, ['b', 'b2'], ['a', 'a1'])).toEqual([{ while: { a: 'a1' }, holds: { c: 'c1' } }]);
});

test('where one follows from the other by a third, the limit that names one of them admits it', () => {
  const chain: LimitDocument[] = [
    { while: { a: 'a1' }, holds: { c: 'c1' } },
    { while: { c: 'c1' }, holds: { b: 'b1' } },
  ];
  expect(allowing(chain, ['a', 'a1'], ['b', 'b2'])).toEqual([chain[0]]);
});

/** Of so many pairs one is tried. */
const EACH = 7;

test('a pair of the demo that never meets either meets afterwards or says why not', () => {
  const demo = demoSystem();
  let met = 0;
  let allowed = 0;
  for (const component of demo.components) {
    const { axes } = component.space;
    for (const {
      axes: [first, second],
      cells,
    } of reportOf(component).pairs)
      cells.forEach((row, b) =>
        row.forEach((pair, a) => {
          if (pair.status !== 'never' || met++ % EACH > 0) return;
          const value = (axis: number, at: number) => ({
            axis: axes[axis]!.id,
            value: axes[axis]!.values[at]!.id,
          });
          const tried = dryRun(demo, allowTogether(component.id, value(first!, a), value(second!, b)));
          if (!tried.ok) return;
          const { space } = componentNamed(compileSystem(tried.documents), component.id)!;
          const region = space.full.map((mask, axis) =>
            axis === first ? 1 << a : axis === second ? 1 << b : mask,
          );
          expect([component.id, a, b, space.extents.meets(space.allowed, region)]).toEqual([
            component.id,
            a,
            b,
            true,
          ]);
          allowed++;
        }),
      );
  }
  expect(allowed).toBeGreaterThan(10);
});
