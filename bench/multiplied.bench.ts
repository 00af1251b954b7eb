import { demoDocuments } from '../core/test/demo';
import { many, SlowChecks, type Open } from './support/slow-checks';

/** Systems that are short as they are written and stand for much: things that take things of others, or hold many of them. How long each takes to be checked. */

const demo = demoDocuments();
const field = demo.get('components/text-field.component.json') as Open;
const resolverFile = [...demo.keys()].find(path => path.endsWith('.resolver.json'))!;
const MANIFEST = { format: 'periwinkle-system/1', id: 's', title: 'S', prefix: 's' };
type File = readonly [string, unknown];

const component = (id: string, own: object): File => [
  `components/${id}.component.json`,
  { format: 'periwinkle-component/1', id, title: id, ...own },
];
const ROOT = { anatomy: { part: 'root', kind: 'row' } };
const uses = (inner: string, times: number, parameters: object = {}) => ({
  anatomy: {
    part: 'root',
    kind: 'row',
    children: many(times, index => ({ part: `u${index}`, kind: 'use', component: inner, parameters })),
  },
});
const option = (id: string, values = ['x', 'y', 'z']) => ({
  id,
  kind: 'option',
  values: values.map(each => ({ id: each })),
});
const color = (id: string) => ({ id, type: 'color', default: '#ffffff' });

/** Lists of a component by the hundred. */
const LISTS: Readonly<Record<string, (length: number) => object>> = {
  rules: length => ({
    rules: many(length, index => ({ id: `r${index}`, when: {}, set: { root: { width: `${index}px` } } })),
  }),
  parameters: length => ({ parameters: many(length, index => color(`p${index}`)) }),
  content: length => ({ content: many(length, index => ({ id: `k${index}`, kind: 'text' })) }),
  samples: length => ({ samples: many(length, index => ({ id: `s${index}`, title: 'S', content: {} })) }),
  situations: length => ({ situations: many(length, index => ({ id: `s${index}`, title: 'S', when: {} })) }),
  axes: length => ({ axes: many(Math.min(60, length), index => option(`a${index}`)) }),
  limits: length => ({
    axes: [option('a')],
    limits: many(length, () => ({ while: { a: 'x' }, holds: { a: 'x' } })),
  }),
};

const px = (value: number) => ({ $type: 'dimension', $value: { value, unit: 'px' } });
const tokens = (length: number, make: (index: number) => unknown) =>
  Object.fromEntries(many(length, index => [`t${index}`, make(index)]));
/** Rows of tokens that each refer to the one before, all of them in the end to the first. */
const inRows = (length: number) => ({
  $type: 'dimension',
  ...tokens(length, index => (index === 0 ? px(1) : { $value: `{t${index % 400 === 0 ? 0 : index - 1}}` })),
});
/** A resolver over one file, with so many modifiers of so many contexts. */
const resolved = (
  file: unknown,
  modifiers: number,
  contexts: number,
  sources: (context: number, modifier: number) => readonly unknown[],
  base: readonly unknown[] = [{ $ref: 'a.tokens.json' }],
): readonly File[] => [
  ['system.json', { ...MANIFEST, resolver: 'tokens/r.resolver.json' }],
  ['tokens/a.tokens.json', file],
  [
    'tokens/r.resolver.json',
    {
      version: '2025.10',
      sets: { base: { sources: base } },
      modifiers: Object.fromEntries(
        many(modifiers, modifier => [
          `m${modifier}`,
          {
            default: 'c0',
            contexts: Object.fromEntries(
              many(contexts, context => [`c${context}`, sources(context, modifier)]),
            ),
          },
        ]),
      ),
      resolutionOrder: [
        { $ref: '#/sets/base' },
        ...many(modifiers, modifier => ({ $ref: `#/modifiers/m${modifier}` })),
      ],
    },
  ],
];
/** The demo with further modifiers. */
function demoWith(modifiers: number, contexts: number): readonly File[] {
  const resolver = structuredClone(demo.get(resolverFile)) as { modifiers: Open; resolutionOrder: unknown[] };
  for (const modifier of many(modifiers, index => `z${index}`)) {
    const sources = (context: number) => [{ raw: { line: { hair: px(1 + (context % 9)) } } }];
    resolver.modifiers[modifier] = {
      default: 'c0',
      contexts: Object.fromEntries(many(contexts, context => [`c${context}`, sources(context)])),
    };
    resolver.resolutionOrder.push({ $ref: `#/modifiers/${modifier}` });
  }
  return [...demo, [resolverFile, resolver]];
}
const fieldWith = (own: object): readonly File[] => [
  ...demo,
  ['components/text-field.component.json', { ...field, ...own }],
];
const axesBeside = many(60, index => option(`a${index}`));
const own = (list: string): readonly unknown[] => field[list] as readonly unknown[];

const SYSTEMS: Readonly<Record<string, () => readonly File[]>> = {
  ...Object.fromEntries(
    Object.entries(LISTS).flatMap(([list, make]) => [
      [
        `1,500 components derived from one of 900 ${list}`,
        () => [
          ['system.json', MANIFEST],
          component('c0', { ...ROOT, ...make(900) }),
          ...many(1_500, index => component(`d${index}`, { extends: 'c0' })),
        ],
      ],
      [
        `12 components that each use one of 900 ${list} 400 times`,
        () => [
          ['system.json', MANIFEST],
          component('inner', { ...ROOT, ...make(900) }),
          ...many(12, index => component(`o${index}`, uses('inner', 400))),
        ],
      ],
    ]),
  ),
  'a parameter handed on 1,300 times in each of six levels': () => [
    ['system.json', MANIFEST],
    ...many(6, level =>
      component(`c${level}`, {
        ...(level === 0 ? ROOT : uses(`c${level - 1}`, 1, { x: '@x '.repeat(1_300) })),
        parameters: [color('x')],
        rules: [{ id: 'r', when: {}, set: { root: { color: '@x' } } }],
      }),
    ),
  ],
  '20,000 tokens in each of 250 contexts': () =>
    resolved(tokens(20_000, px), 1, 250, () => [{ $ref: 'a.tokens.json' }]),
  '20,000 tokens that differ in each of 250 contexts': () =>
    resolved(inRows(20_000), 1, 250, context => [{ t0: px(context) }]),
  '20,000 tokens that differ by 125 modifiers': () =>
    resolved(inRows(20_000), 125, 2, (context, modifier) => [{ t0: px(context * 1_000 + modifier) }]),
  '20,000 tokens in 900 sources': () =>
    resolved(
      tokens(20_000, px),
      1,
      2,
      () => [],
      many(900, index => (index % 2 ? { $ref: 'a.tokens.json' } : { [`own${index}`]: px(1) })),
    ),
  'the demo in 240 contexts more': () => demoWith(1, 240),
  'the demo with 120 modifiers more': () => demoWith(120, 2),
  '100 text fields in 240 contexts': () => [
    ...demoWith(1, 240),
    ...many(100, index => component(`x${index}`, { ...structuredClone(field), id: `x${index}` })),
  ],
  '400 text fields': () => [
    ...demo,
    ...many(400, index => component(`x${index}`, { ...structuredClone(field), id: `x${index}` })),
  ],
  '300 components derived from the text field': () => [
    ...demo,
    ...many(300, index => component(`x${index}`, { extends: 'text-field' })),
  ],
  '200 components that use the text field': () => [
    ...demo,
    ...many(200, index => component(`x${index}`, uses('text-field', 1))),
  ],
  '60 limits that each hold 59 axes': () =>
    fieldWith({
      axes: [...own('axes'), ...axesBeside],
      limits: many(60, index => ({
        while: { [`a${index}`]: 'x' },
        holds: Object.fromEntries(many(59, step => [`a${(index + step + 1) % 60}`, ['x', 'y']])),
      })),
    }),
  '900 limits of one axis each': () =>
    fieldWith({
      axes: [...own('axes'), ...axesBeside],
      limits: many(900, index => ({
        while: { [`a${index % 60}`]: 'x' },
        holds: { [`a${(index * 7 + 1) % 60}`]: ['x', 'y'] },
      })).filter(({ while: condition, holds }) => !(Object.keys(condition)[0]! in holds)),
    }),
  '120 rules of 30 axes each': () =>
    fieldWith({
      axes: [...own('axes'), ...axesBeside],
      rules: [
        ...own('rules'),
        ...many(120, index => ({
          id: `z${index}`,
          when: Object.fromEntries(
            many(30, step => [
              `a${(index * 7 + step) % 60}`,
              ['x', 'y', 'z'].filter((_, value) => value !== (index + step) % 3),
            ]),
          ),
          set: { frame: { 'border-radius': `${index}px` } },
        })),
      ],
    }),
  '500 rules of the same parts': () =>
    fieldWith({
      rules: [
        ...own('rules'),
        ...many(500, index => ({
          id: `z${index}`,
          when: { size: index % 2 ? 'small' : 'large' },
          set: { frame: { 'border-radius': `${index}px`, color: '#123456' }, control: { color: '#123456' } },
        })),
      ],
    }),
  '1,500 trials of 50 fields': () => [
    ...demo,
    ...many(
      1_500,
      index =>
        [
          `trials/x${index}.trial.json`,
          {
            format: 'periwinkle-trial/1',
            id: `x${index}`,
            title: 'X',
            fields: many(50, each => ({ name: `f${each}`, component: 'text-field' })),
          },
        ] as const,
    ),
  ],
  '60 drawings of 90,000 letters': () => [
    ...demo,
    ...many(
      60,
      index =>
        [
          `icons/x${index}.svg`,
          `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><path d="${'M1 1h3'.repeat(15_000)}"/></svg>`,
        ] as const,
    ),
  ],
};

const checks = new SlowChecks(demo);
for (const [what, files] of Object.entries(SYSTEMS)) {
  const documents = new Map(files());
  const letters = [...documents.values()].reduce<number>((sum, each) => sum + JSON.stringify(each).length, 0);
  checks.check(what, documents, letters);
}
checks.tell();
