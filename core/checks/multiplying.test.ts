import type { ComponentDocument, RuleDocument } from '../documents/component-document';
import { tokensCssText } from '../output/outputs';
import { resolve } from '../cascade/resolve';
import { compileSystem } from '../components/system';
import { NodeStore } from '../space/node-store';
import { checkSystem } from './check-system';

/** Small documents that stand for enormous ones, by things that refer twice to things that refer twice to things. */

const LEVELS = 40;
const levels = Array.from({ length: LEVELS }, (_, level) => level);
const px = (value: number): object => ({ value, unit: 'px' });
const RESOLVER = {
  version: '2025.10',
  sets: { base: { sources: [{ $ref: 'base.tokens.json' }] } },
  resolutionOrder: [{ $ref: '#/sets/base' }] as object[],
};

function systemWith(
  tokens: object,
  rules: RuleDocument[] = [],
  { resolver = RESOLVER, parts = 0 }: { resolver?: object; parts?: number } = {},
): Map<string, unknown> {
  const component: ComponentDocument = {
    format: 'periwinkle-component/1',
    id: 'field',
    anatomy: {
      part: 'root',
      kind: 'stack',
      children: [
        { part: 'frame', kind: 'row', children: [{ part: 'control', kind: 'control' }] },
        ...Array.from({ length: parts }, (_, index) => ({ part: `p${index}`, kind: 'row', children: [] })),
      ],
    },
    axes: [],
    rules,
  };
  return new Map<string, unknown>([
    [
      'system.json',
      {
        format: 'periwinkle-system/1',
        id: 's',
        title: 'S',
        prefix: 'p',
        resolver: 'tokens/s.resolver.json',
      },
    ],
    ['tokens/base.tokens.json', tokens],
    ['tokens/s.resolver.json', resolver],
    ['components/field.component.json', component],
  ]);
}

const told = (documents: Map<string, unknown>): string[] =>
  checkSystem(documents)
    .problems.filter(({ severity }) => severity === 'error')
    .map(({ pointer, code }) => `${pointer} ${code}`);

const height = (id: string, part: string, value: string): RuleDocument => ({
  id,
  when: {},
  set: { [part]: { height: value } },
});

test('tokens that refer to tokens by the thousand, in a row and in a circle', () => {
  const chain = (last: unknown): object => ({
    $type: 'dimension',
    ...Object.fromEntries(
      Array.from({ length: 20_000 }, (_, index) => [
        `t${index}`,
        { $value: index < 19_999 ? `{t${index + 1}}` : last },
      ]),
    ),
  });
  expect(told(systemWith(chain(px(1))))[0]).toBe('/t499/$value too-deep');
  expect(told(systemWith(chain('{t0}')))[0]).toBe('/t499/$value too-deep');
  // The end of the row is sound.
  const { tokens } = compileSystem(systemWith(chain(px(1))));
  expect(tokens.usual().byKey.get('t19998')?.css).toBe('1px');
});

test('groups that extend the one before twice', () => {
  const groups = Object.fromEntries(
    levels.map(level => [
      `g${level}`,
      level === 0
        ? { $type: 'number', a: { $value: 1 } }
        : { left: { $extends: `{g${level - 1}}` }, right: { $extends: `{g${level - 1}}` } },
    ]),
  );
  const errors = told(systemWith(groups));
  expect(errors).toHaveLength(1);
  expect(errors[0]).toMatch(/^\/g\d+\/(left|right)\/\$extends too-many-tokens$/);
});

test('sets that name the one before twice are read once', () => {
  const sets = Object.fromEntries(
    levels.map(level => [
      `s${level}`,
      {
        sources: [level === 0 ? { a: { $type: 'number', $value: 1 } } : { $ref: `#/sets/s${level - 1}` }, {}],
      },
    ]),
  );
  for (const level of levels.slice(1)) sets[`s${level}`]!.sources[1] = { $ref: `#/sets/s${level - 1}` };
  const resolver = { version: '2025.10', sets, resolutionOrder: [{ $ref: `#/sets/s${LEVELS - 1}` }] };
  const documents = systemWith({}, [], { resolver });
  expect(told(documents)).toEqual([]);
  expect(compileSystem(documents).tokens.usual().byKey.get('a')?.css).toBe('1');
});

test('a file of many tokens in sources by the hundred is laid over itself once', () => {
  const many = Object.fromEntries(
    Array.from({ length: 5_000 }, (_, index) => [`t${index}`, { $type: 'number', $value: index }]),
  );
  const sources = Array.from({ length: 900 }, (_, index) =>
    index % 3 === 0 ? { [`own${index}`]: { $type: 'number', $value: 1 } } : { $ref: 'base.tokens.json' },
  );
  const documents = systemWith(many, [], { resolver: { ...RESOLVER, sets: { base: { sources } } } });
  expect(told(documents)).toEqual([]);
  expect(compileSystem(documents).tokens.usual().byKey.size).toBe(5_300);
});

test('many tokens in many contexts: those beyond what may be are told and left out, never the usual one', () => {
  const tokens = Object.fromEntries(
    Array.from({ length: 10_000 }, (_, index) => [`t${index}`, { $type: 'number', $value: index }]),
  );
  const contexts = Object.fromEntries(
    Array.from({ length: 100 }, (_, index) => [`c${index}`, [{ t0: { $type: 'number', $value: -index } }]]),
  );
  const resolver = {
    ...RESOLVER,
    modifiers: { tide: { contexts, default: 'c99' }, berth: { contexts } },
    resolutionOrder: [
      ...RESOLVER.resolutionOrder,
      { $ref: '#/modifiers/tide' },
      { $ref: '#/modifiers/berth' },
    ],
  };
  const documents = systemWith(tokens, [], { resolver });
  expect(told(documents)).toEqual(['/modifiers/tide/contexts too-many']);
  const { tokens: model } = compileSystem(documents);
  expect(model.modifiers.map(({ contexts: left }) => left.length)).toEqual([20, 1]);
  expect(model.usualInput()).toEqual({ tide: 'c99', berth: 'c0' });
});

describe('a token that twenty modifiers declare', () => {
  const names = Array.from({ length: 20 }, (_, index) => `m${index}`);
  const resolver = {
    ...RESOLVER,
    modifiers: Object.fromEntries(
      names.map((name, index) => [
        name,
        {
          default: 'off',
          contexts: { off: [], on: [{ size: { $type: 'dimension', $value: px(index + 2) } }] },
        },
      ]),
    ),
    resolutionOrder: [...RESOLVER.resolutionOrder, ...names.map(name => ({ $ref: `#/modifiers/${name}` }))],
  };
  const tokens = { size: { $type: 'dimension', $value: px(1) } };

  test('is an error where it is used, and its stylesheet stays small', () => {
    const documents = systemWith(tokens, [height('a', 'frame', '{size}')], { resolver });
    expect(told(documents)).toEqual(['/size too-many-contexts']);
    const css = tokensCssText(compileSystem(documents));
    expect(css.length).toBeLessThan(5000);
    expect(css).toContain('[data-m19="on"]');
  });

  test('is an error too where only members of a composite are used, once', () => {
    const edge = (width: number): object => ({
      edge: { $type: 'border', $value: { color: '{ink}', width: px(width), style: 'solid' } },
    });
    const modifiers = Object.fromEntries(
      names.map((name, index) => [name, { default: 'off', contexts: { off: [], on: [edge(index + 2)] } }]),
    );
    const ink = { $type: 'color', $value: { colorSpace: 'srgb', components: [0, 0, 0] } };
    const rule = { id: 'a', when: {}, set: { frame: { border: '{edge}' } } };
    const documents = systemWith({ ink, ...edge(1) }, [rule], { resolver: { ...resolver, modifiers } });
    expect(told(documents)).toEqual(['/edge too-many-contexts']);
  });

  test('is none where nobody uses it', () => {
    expect(told(systemWith(tokens, [], { resolver }))).toEqual([]);
  });
});

describe('components within components', () => {
  const within = (id: string, inner: string | null, times: number) => ({
    format: 'periwinkle-component/1',
    id,
    anatomy: {
      part: 'root',
      kind: 'row',
      children: Array.from({ length: times }, (_, index) =>
        inner === null
          ? { part: `p${index}`, kind: 'row' }
          : { part: `p${index}`, kind: 'use', component: inner },
      ),
    },
    rules: [{ id: 'a', when: {}, set: { root: { height: '1px' } } }],
  });
  const system = (...components: readonly { readonly id: string }[]): Map<string, unknown> =>
    new Map<string, unknown>([
      ...systemWith({}),
      ...components.map(each => [`components/${each.id}.component.json`, each] as const),
    ]);

  test('of which each holds the one before four times: where they are too many, none of them is taken in', () => {
    const components = Array.from({ length: 8 }, (_, level) =>
      within(`c${level}`, level === 0 ? null : `c${level - 1}`, 4),
    );
    const documents = system(...components);
    const errors = checkSystem(documents).problems.filter(({ code }) => code === 'too-many');
    expect(errors).toEqual([
      expect.objectContaining({
        file: 'components/c4.component.json',
        pointer: '/anatomy/children/2/component',
        message: 'With this one, more than 1,000 parts lie in the components within this one.',
      }),
    ]);
    const sizes = new Map(
      compileSystem(documents).components.map(({ id, anatomy }) => [id, anatomy.everyPart.length]),
    );
    expect([0, 1, 2, 3, 4, 5].map(level => sizes.get(`c${level}`))).toEqual([5, 21, 85, 341, 5, 21]);
  });

  const using = (id: string, inner: string, times: number, own: object = {}, parameters = {}) => ({
    ...within(id, null, 1),
    anatomy: {
      part: 'root',
      kind: 'row',
      children: Array.from({ length: times }, (_, index) => ({
        part: `u${index}`,
        kind: 'use',
        component: inner,
        parameters,
      })),
    },
    ...own,
  });

  test.each([
    ['parameters', 5_000, (id: string) => ({ id, type: 'color', default: '#ffffff' })],
    ['axes', 2_000, (id: string) => ({ id, kind: 'option', values: [{ id: 'off' }, { id: 'on' }] })],
  ] as const)('with %s by the hundred, used by the hundred', (what, most, make) => {
    const own = { [what]: Array.from({ length: 200 }, (_, index) => make(`p${index}`)) };
    const inner = { ...within('inner', null, 1), ...own };
    const told = checkSystem(system(inner, using('outer', 'inner', 100))).problems;
    expect(told.find(({ code }) => code === 'too-many')).toMatchObject({
      pointer: `/anatomy/children/${most / 200}/component`,
      message: `With this one, more than ${most.toLocaleString('en')} ${what} lie in the components within this one.`,
    });
  });

  test('that hand a parameter on by the hundred, each as often: it ends, and is told at each', () => {
    const own = {
      parameters: [{ id: 'x', type: 'color', default: '#ffffff' }],
      rules: [{ id: 'a', when: {}, set: { root: { color: '@x' } } }],
    };
    const components = Array.from({ length: 6 }, (_, level) =>
      level === 0
        ? { ...within('c0', null, 1), ...own }
        : using(`c${level}`, `c${level - 1}`, 1, own, { x: '@x '.repeat(1_300) }),
    );
    const told = checkSystem(system(...components)).problems.map(({ pointer, code }) => `${pointer} ${code}`);
    expect(new Set(told)).toEqual(new Set(['/anatomy/children/0/parameters/x unknown-parameter']));
    expect(told).toHaveLength(5);
  });

  test('of which many are large: all of them together have a limit', () => {
    const inner = within('inner', null, 200);
    const components = Array.from({ length: 30 }, (_, index) => within(`c${index + 10}`, 'inner', 2));
    const told = checkSystem(system(inner, ...components)).problems.filter(({ code }) => code === 'too-many');
    expect(told[0]!.message).toBe(
      'With this one, more than 5,000 parts lie in components within others, in all of this system.',
    );
    // Twelve of them hold 402 parts each, and there is no room for another 201.
    expect(told.map(({ file, pointer }) => `${file} ${pointer}`)[0]).toBe(
      'components/c22.component.json /anatomy/children/0/component',
    );
  });
});

describe('components derived from others', () => {
  const base = (own: object) => ({
    format: 'periwinkle-component/1',
    id: 'base',
    anatomy: { part: 'root', kind: 'row' },
    ...own,
  });
  const situations = (length: number, name: string) =>
    Array.from({ length }, (_, index) => ({ id: `${name}-${index}`, title: 'S', when: {} }));
  const problems = (...components: readonly { readonly id: string }[]): string[] =>
    checkSystem(
      new Map<string, unknown>([
        ...systemWith({}),
        ...components.map(each => [`components/${each.id}.component.json`, each] as const),
      ]),
    ).problems.map(({ file, pointer, code }) => `${file.split(/[/.]/)[1]!} ${pointer} ${code}`);
  const derived = (id: string, from: string, own: object = {}) => ({
    format: 'periwinkle-component/1',
    id,
    extends: from,
    ...own,
  });

  test('by the thousand from one that is large: those beyond what may be are told', () => {
    const many = Array.from({ length: 1_000 }, (_, index) => derived(`d${index}`, 'base'));
    const found = problems(base({ situations: situations(300, 's') }), ...many);
    expect(new Set(found.map(each => each.slice(each.indexOf(' ') + 1)))).toEqual(
      new Set(['/extends too-many']),
    );
    expect(found.length).toBeGreaterThan(500);
  });

  test('each with as much again: more than one component may have is told', () => {
    expect(
      problems(
        base({ situations: situations(600, 's') }),
        derived('d', 'base', { situations: situations(600, 'd') }),
        derived('e', 'd'),
        derived('small', 'base'),
      ),
    ).toEqual(['d /extends too-many']);
  });
});

describe('calculations', () => {
  const around = (documents: Map<string, unknown>) => {
    const system = compileSystem(documents);
    return { system, here: { tokens: system.tokens.usual(), rootFontSize: 16 } };
  };
  const heightOf = (documents: Map<string, unknown>, part: string): string => {
    const { system, here } = around(documents);
    return resolve(system.components[0]!, {}, here).parts[part]!['height']!.value;
  };
  /** Each part's height from the next part's. */
  const row = (parts: number, value: (next: string) => string, last: string): Map<string, unknown> =>
    systemWith(
      {},
      Array.from({ length: parts }, (_, index) =>
        height(`r${index}`, `p${index}`, index < parts - 1 ? value(`@p${index + 1}.height`) : last),
      ),
      { parts },
    );

  test('that refer to the next twice: amounts are worked out, texts that depend on where they are used end somewhere', () => {
    const twice = (next: string): string => `calc(${next} + ${next})`;
    expect(heightOf(row(10, twice, '1px'), 'p0')).toBe('512px');
    expect(told(row(10, twice, '50%'))).toEqual(['/rules/0/set/p0/height too-deep']);
    const large = row(LEVELS, twice, '50%');
    expect(heightOf(large, 'p0')).toBe('');
    expect(heightOf(large, `p${LEVELS - 2}`)).toBe('calc(50% + 50%)');
  });

  test('by the thousand in a row', () => {
    const one = (next: string): string => `calc(${next} + 1px)`;
    expect(told(row(65, one, '1px'))).toEqual([]);
    expect(heightOf(row(65, one, '1px'), 'p0')).toBe('65px');
    expect(told(row(66, one, '1px'))).toEqual(['/rules/0/set/p0/height too-deep']);
    const long = row(3000, one, '1px');
    expect(heightOf(long, 'p0')).toBe('');
    expect(heightOf(long, 'p2990')).toBe('10px');
  });

  test('rules that never hold together make no circle and end', () => {
    const documents = systemWith({}, [
      height('a', 'frame', 'calc(@control.height + 1px)'),
      height('b', 'control', 'calc(@frame.height + 1px)'),
      height('c', 'control', '4px'),
    ]);
    expect(told(documents)).toEqual([]);
    expect(heightOf(documents, 'frame')).toBe('5px');
  });
});

describe('rules that overlap in more ways than can be worked out', () => {
  const usual = NodeStore.most;
  beforeAll(() => (NodeStore.most = 2000));
  afterAll(() => (NodeStore.most = usual));

  test('are an error at the property, and the rest is checked', () => {
    const axes = Array.from({ length: 30 }, (_, index) => ({
      id: `x${index}`,
      kind: 'option' as const,
      values: ['v0', 'v1', 'v2'].map(id => ({ id })),
    }));
    const rules = axes.map((axis, index) => ({
      ...height(`r${index}`, 'frame', `${index}px`),
      when: { [axis.id]: 'v1', [`x${(index * 7) % axes.length}`]: 'v2' },
    }));
    const documents = systemWith({}, [...rules, height('last', 'frame', '{size}')]);
    const path = 'components/field.component.json';
    documents.set(path, { ...(documents.get(path) as ComponentDocument), axes });
    expect(told(documents)).toEqual([
      `/rules/${rules.length}/set/frame/height unknown-token`,
      '/rules/0/set/frame/height tangled-rules',
    ]);
  });
});
