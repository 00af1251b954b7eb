import { demoSystem } from '../../test/demo';
import { componentNamed } from '../../components/system';
import type { Component } from '../../components/component';
import { inBox } from '../../space/space';
import { smallSystem } from '../../test/small-system';
import { spaceReport, type SpaceReport } from './space-report';

function reportOf(component: Component): SpaceReport {
  const steps = spaceReport(component);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** Every raw combination, one by one. */
function* everyRaw({ space }: Component): Generator<number[]> {
  const counts = space.axes.map(({ values }) => values.length);
  const all = counts.reduce((product, count) => product * count, 1);
  for (let number = 0; number < all; number++) {
    let rest = number;
    yield counts.map(count => {
      const value = rest % count;
      rest = Math.floor(rest / count);
      return value;
    });
  }
}

test.each(['berth', 'step-button', 'gate-code', 'list-entry', 'counter'])(
  'the report of %s is what a walk through all combinations finds',
  id => {
    const component = componentNamed(demoSystem(), id)!;
    const { space, situations } = component;
    const report = reportOf(component);
    const raw = [...everyRaw(component)];
    const allowed = raw.filter(each =>
      space.settled(each).combination.every((value, axis) => value === each[axis]),
    );
    const namedBy = (each: number[]): number => situations.filter(({ region }) => inBox(region, each)).length;
    expect(report.raw).toBe(BigInt(raw.length));
    expect(report.allowed).toBe(BigInt(allowed.length));
    expect(report.named).toBe(BigInt(allowed.filter(each => namedBy(each) > 0).length));
    expect(report.situations).toEqual(
      situations.map(({ region }) => {
        const within = allowed.filter(each => inBox(region, each));
        return {
          names: BigInt(within.length),
          alone: BigInt(within.filter(each => namedBy(each) === 1).length),
        };
      }),
    );
    const nameless = allowed.filter(each => namedBy(each) === 0);
    const told = report.nameless.filter(({ combinations }) => combinations > 0n);
    for (const each of nameless) expect(told.some(({ region }) => inBox(region, each))).toBe(true);
    for (const { axes, cells } of report.pairs)
      cells.forEach((row, second) =>
        row.forEach(({ status, because }, first) => {
          const occurs = allowed.some(each => each[axes[0]] === first && each[axes[1]] === second);
          expect(status !== 'never').toBe(occurs);
          if (status === 'never') expect(because.length).toBeGreaterThan(0);
        }),
      );
  },
);

test('a pair that never occurs is led back to the limit that says so; one that has a rule of its own, to that', () => {
  const system = smallSystem({
    component: {
      axes: [
        { id: 'focus', kind: 'state' },
        { id: 'validity', kind: 'state' },
        { id: 'availability', kind: 'state', values: [{ id: 'enabled' }, { id: 'disabled' }] },
      ],
      limits: [
        { while: { validity: 'valid' }, holds: { availability: 'enabled' } },
        { while: { availability: 'disabled' }, holds: { focus: 'out' }, because: 'It is off.' },
      ],
      rules: [
        { id: 'r', when: {}, set: {} },
        { id: 'both', when: { focus: 'in', validity: ['invalid'] }, set: { frame: { opacity: '0.5' } } },
      ],
    },
  });
  const { pairs, ruledOut } = reportOf(system.components[0]!);
  const cell = (axes: string, second: number, first: number) =>
    pairs.find(pair => pair.axes.join() === axes)!.cells[second]![first];
  expect(cell('0,2', 1, 1)).toEqual({ status: 'never', because: [1] });
  expect(cell('0,2', 1, 0)).toEqual({ status: 'occurs', because: [] });
  expect(cell('0,1', 1, 2)).toEqual({ status: 'own', because: ['both'] });
  expect(cell('0,1', 1, 0)!.status).toBe('occurs');
  expect(cell('1,2', 1, 2)).toEqual({ status: 'never', because: [0] });
  expect(ruledOut).toEqual([3n, 6n]);
});
