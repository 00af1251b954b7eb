import { randomly } from '../test/runs';
import fc from 'fast-check';
import { everyCombination, holdsIn, isAllowed, settledPlain } from '../test/naive';
import { randomComponent, valuesOf } from '../test/random-component';
import type { ComponentDocument } from '../documents/component-document';
import { ProblemList } from '../json/problem';
import { conditionWords, readCondition, writeCondition } from './condition';
import { bitCount, subtract, type Box } from './box';
import { Extents } from './extent';
import { Space } from './space';

const read = (document: ComponentDocument): { space: Space; problems: ProblemList } => {
  const problems = new ProblemList();
  return { space: Space.read(document, problems), problems };
};

const component = (rest: Partial<ComponentDocument>): ComponentDocument => ({
  format: 'periwinkle-component/1',
  id: 'x',
  anatomy: { part: 'root', kind: 'stack' },
  ...rest,
});

describe('a space against the plain walk', () => {
  test('limits, counts and preimages agree in random components', () => {
    fc.assert(
      fc.property(randomComponent, document => {
        const { space, problems } = read(document);
        const all = everyCombination(document);
        const restless = all.some(raw => settledPlain(document, raw) === null);
        // Limits that depend on their order are applied in it; that they are reported is tested by itself.
        const codes = problems.problems
          .map(each => each.code)
          .filter(code => code !== 'order-dependent-limits');
        expect(codes).toEqual(restless ? ['unsettled-limits'] : []);
        if (restless) return;
        for (const raw of all) {
          expect(space.written(space.settled(space.indices(raw)).combination)).toEqual(
            settledPlain(document, raw),
          );
        }
        expect(space.count()).toBe(BigInt(all.filter(each => isAllowed(document, each)).length));
        for (const rule of document.rules ?? []) {
          const region = readCondition(rule.when, space.axes, '', problems)!;
          const inside = all.filter(each => isAllowed(document, each) && holdsIn(rule.when, each));
          expect(space.count(region)).toBe(BigInt(inside.length));
          const reached = space.reachedFrom(region);
          for (const raw of all) {
            const expected = holdsIn(rule.when, settledPlain(document, raw)!);
            expect(space.extents.has(reached, space.indices(raw))).toBe(expected);
          }
        }
      }),
      randomly('spaces'),
    );
  });

  test('a condition written back means the same', () => {
    fc.assert(
      fc.property(randomComponent, document => {
        const { space, problems } = read(document);
        for (const rule of document.rules ?? []) {
          const box = readCondition(rule.when, space.axes, '', problems)!;
          expect(readCondition(writeCondition(box, space.axes), space.axes, '', problems)).toEqual(box);
        }
      }),
    );
  });

  test('a component of 10^12 combinations is counted at once', () => {
    const axes = 'abcdefghijkl'.split('').map(id => ({
      id,
      kind: 'option' as const,
      values: Array.from({ length: 10 }, (_, index) => ({ id: `v${index}` })),
    }));
    const limits = [{ while: { a: 'v0' }, holds: { b: ['v1', 'v2'] } }];
    const { space } = read(component({ axes, limits }));
    expect(space.count()).toBe(10n ** 12n - 8n * 10n ** 10n);
  });
});

describe('boxes', () => {
  const volume = (box: Box): bigint => box.reduce((product, mask) => product * BigInt(bitCount(mask)), 1n);
  const box = fc.array(fc.integer({ min: 0, max: 15 }), { minLength: 3, maxLength: 3 });

  test('subtraction leaves what is outside, without overlap', () => {
    fc.assert(
      fc.property(box, box, (a, b) => {
        const pieces = subtract(a, b);
        const both = a.map((mask, axis) => mask & b[axis]!);
        expect(pieces.reduce((sum, piece) => sum + volume(piece), 0n)).toBe(
          volume(a) - (both.includes(0) ? 0n : volume(both)),
        );
        const extents = new Extents([15, 15, 15]);
        const covered = extents.union([...pieces, b].map(piece => extents.of(piece)));
        expect(extents.minus(extents.of(a), covered)).toBe(0);
      }),
    );
  });
});

describe('what is wrong with a space', () => {
  const codes = (rest: Partial<ComponentDocument>): string[] =>
    read(component(rest)).problems.problems.map(each => `${each.pointer} ${each.code}`);

  test('misspelt states, values and defaults are placed', () => {
    expect(codes({ axes: [{ id: 'pointr', kind: 'state' }] })).toEqual(['/axes/0/id unknown-state']);
    expect(codes({ axes: [{ id: 'focus', kind: 'state', values: [{ id: 'out' }, { id: 'inn' }] }] })).toEqual(
      ['/axes/0/values/1/id unknown-value'],
    );
    expect(codes({ axes: [{ id: 'size', kind: 'option', values: [{ id: 's' }], default: 'm' }] })).toEqual([
      '/axes/0/default unknown-value',
    ]);
  });

  test('limits that push each other round are named with an example', () => {
    const { problems } = read(
      component({
        axes: ['a', 'b'].map(id => ({ id, kind: 'option' as const, values: [{ id: 'x' }, { id: 'y' }] })),
        limits: [
          { while: { a: 'x' }, holds: { b: 'y' } },
          { while: { b: 'y' }, holds: { a: 'y' } },
          { while: { a: 'y' }, holds: { b: 'x' } },
          { while: { b: 'x' }, holds: { a: 'x' } },
        ],
      }),
    );
    expect(problems.problems).toHaveLength(1);
    expect(problems.problems[0]).toMatchObject({ code: 'unsettled-limits' });
    expect(problems.problems[0]!.message).toMatch(/for example at a [xy], b [xy]/);
  });
});

describe('conditions in words', () => {
  const { space } = read(
    component({
      axes: [
        { id: 'size', kind: 'option', values: [{ id: 'small' }, { id: 'medium' }, { id: 'large' }] },
        { id: 'pointer', kind: 'state' },
        { id: 'availability', kind: 'state' },
      ],
    }),
  );
  const words = (when: Record<string, string | string[]>): string =>
    conditionWords(readCondition(when, space.axes, '', new ProblemList())!, space.axes);

  test('ladders, lists and exceptions', () => {
    expect(words({})).toBe('always');
    expect(words({ pointer: 'over', size: 'small' })).toBe('small, pointed at');
    expect(words({ pointer: ['over'] })).toBe('just pointed at');
    expect(words({ size: ['small', 'large'] })).toBe('small or large');
    expect(words({ availability: ['enabled', 'readonly', 'busy'] })).toBe('not disabled');
    expect(valuesOf({ id: 'pointer', kind: 'state' })).toEqual(['away', 'over', 'down']);
  });

  test('a word that two axes have in common says which it means', () => {
    const option = (id: string, ...values: string[]) => ({
      id,
      kind: 'option' as const,
      values: values.map(value => ({ id: value })),
    });
    const { axes } = read(
      component({ axes: [option('icon', 'none', 'before'), option('unit', 'none', 'before', 'after')] }),
    ).space;
    const said = (when: Record<string, string | string[]>): string =>
      conditionWords(readCondition(when, axes, '', new ProblemList())!, axes);
    expect(said({ icon: 'none', unit: 'after' })).toBe('icon none, after');
    expect(said({ unit: ['none', 'after'] })).toBe('unit none or after');
    expect(axes[1]!.values.map(value => value.title)).toEqual(['none', 'before', 'after']);
  });
});
