import fc from 'fast-check';
import { compileSystem, type System } from '../rules/system';
import { freshSeed } from '../test/seed';
import { tokensCssText } from './outputs';
import type { StyleBlock } from './stylesheet';
import { tokensStylesheet } from './tokens-css';
import { tokenProperty } from './token-names';

type Attributes = Readonly<Record<string, string>>;

const MODIFIERS: Readonly<Record<string, readonly string[]>> = {
  theme: ['day', 'night'],
  density: ['roomy', 'close', 'tight'],
  contrast: ['plain', 'high'],
};
const NAMES = ['a', 'b', 'c', 'd', 'e'];

/** Some tokens of one source; a token may refer only to those after it in the alphabet, so that none refers to itself. */
const source = fc
  .tuple(
    ...NAMES.map((_, index) =>
      fc.option(
        fc.oneof(
          fc.constantFrom('1', '2', '3', '4'),
          ...(index < NAMES.length - 1
            ? [fc.constantFrom(...NAMES.slice(index + 1)).map(name => `{t.${name}}`)]
            : []),
        ),
        { nil: undefined },
      ),
    ),
  )
  .map(values =>
    Object.fromEntries(
      values.flatMap((value, index) => (value === undefined ? [] : [[NAMES[index]!, value]])),
    ),
  );

const tree = (tokens: Record<string, string>): object => ({
  t: Object.fromEntries(
    Object.entries(tokens).map(([name, value]) => [
      name,
      { $type: 'number', $value: value.startsWith('{') ? value : Number(value) },
    ]),
  ),
});

const randomTokens: fc.Arbitrary<System> = fc
  .record({
    base: source.map(own => ({ ...Object.fromEntries(NAMES.map(name => [name, '0'])), ...own })),
    contexts: fc.record(
      Object.fromEntries(
        Object.entries(MODIFIERS).map(([name, contexts]) => [
          name,
          fc.record(Object.fromEntries(contexts.map(context => [context, source]))),
        ]),
      ),
    ),
    order: fc.shuffledSubarray(Object.keys(MODIFIERS), { minLength: 1 }),
    preset: fc.constantFrom('roomy', 'tight'),
  })
  .map(({ base, contexts, order, preset }) => {
    const modifiers = Object.fromEntries(
      order.map(name => [
        name,
        {
          default: name === 'density' ? preset : MODIFIERS[name]![0],
          contexts: Object.fromEntries(
            Object.entries(contexts[name] as Record<string, Record<string, string>>).map(([context, own]) => [
              context,
              [tree(own)],
            ]),
          ),
        },
      ]),
    );
    return compileSystem(
      new Map<string, unknown>([
        [
          'system.json',
          {
            format: 'periwinkle-system/1',
            id: 's',
            title: 'S',
            prefix: 'p',
            resolver: 'tokens/r.resolver.json',
          },
        ],
        [
          'tokens/r.resolver.json',
          {
            version: '2025.10',
            sets: { base: { sources: [tree(base)] } },
            modifiers,
            resolutionOrder: [
              { $ref: '#/sets/base' },
              ...order.map(name => ({ $ref: `#/modifiers/${name}` })),
            ],
          },
        ],
        [
          'components/f.component.json',
          {
            format: 'periwinkle-component/1',
            id: 'f',
            anatomy: { part: 'root', kind: 'stack' },
            rules: NAMES.map(name => ({ id: name, when: {}, set: { root: { opacity: `{t.${name}}` } } })),
          },
        ],
      ]),
    );
  });

/** Custom properties of an element, computed from what matches it and what it inherits (CSS Variables 1, sections 2 and 3). */
function computed(
  blocks: readonly StyleBlock[],
  attributes: Attributes,
  inherited: ReadonlyMap<string, string> | null,
): ReadonlyMap<string, string> {
  const declared = new Map<string, string>();
  for (const { selector, declarations } of blocks) {
    const matches = selector.split(', ').some(each => {
      if (each === ':root') return inherited === null;
      const [, name, value] = /^\[data-([\w-]+)(?:="([\w-]+)")?\]$/.exec(each)!;
      return name! in attributes && (value === undefined || attributes[name!] === value);
    });
    if (matches) for (const [name, value] of declarations) declared.set(name, value);
  }
  const result = new Map(inherited ?? []);
  /** `null`: guaranteed-invalid. */
  const valueOf = (name: string): string | null => {
    const own = declared.get(name);
    if (own === undefined) return inherited?.get(name) ?? null;
    return own === 'initial' ? null : substituted(own);
  };
  const substituted = (text: string): string | null => {
    const start = text.indexOf('var(');
    if (start < 0) return text.trim();
    let depth = 0;
    let end = start + 3;
    do {
      if (text[end] === '(') depth++;
      if (text[end] === ')') depth--;
      end++;
    } while (depth > 0);
    const inside = text.slice(start + 4, end - 1);
    const comma = inside.indexOf(',');
    const value = valueOf(comma < 0 ? inside : inside.slice(0, comma));
    const replaced = value ?? (comma < 0 ? null : substituted(inside.slice(comma + 1)));
    if (replaced === null) return null;
    return substituted(`${text.slice(0, start)}${replaced}${text.slice(end)}`);
  };
  for (const name of declared.keys()) {
    const value = valueOf(name);
    if (value === null) result.delete(name);
    else result.set(name, value);
  }
  return result;
}

const nesting = fc.array(
  fc.record(
    Object.fromEntries(
      Object.entries(MODIFIERS).map(([name, contexts]) => [name, fc.constantFrom(...contexts)]),
    ),
    { requiredKeys: [] },
  ) as fc.Arbitrary<Attributes>,
  { minLength: 1, maxLength: 4 },
);

test('whatever contexts are switched on elements inside one another, each token has its value there', () => {
  const seed = freshSeed('nested contexts');
  fc.assert(
    fc.property(randomTokens, nesting, (system, elements) => {
      const { blocks } = tokensStylesheet(system);
      const known = system.tokens.modifiers.map(modifier => modifier.name);
      let here: ReadonlyMap<string, string> | null = null;
      let contexts = system.tokens.usualInput();
      for (const attributes of elements) {
        const own = Object.fromEntries(Object.entries(attributes).filter(([name]) => known.includes(name)));
        here = computed(blocks, own, here);
        contexts = { ...contexts, ...own };
        const set = system.tokens.in(contexts);
        for (const name of NAMES) {
          const property = tokenProperty('p', `t.${name}`);
          expect([property, here.get(property)]).toEqual([property, set.byKey.get(`t.${name}`)!.css]);
        }
      }
    }),
    { numRuns: 2000, seed },
  );
}, 120_000);

test('what one modifier decides stands in its contexts; what two decide asks for both; a media query chooses where nobody does', () => {
  const number = (value: number | string): object => ({ $type: 'number', $value: value });
  const system = compileSystem(
    new Map<string, unknown>([
      [
        'system.json',
        {
          format: 'periwinkle-system/1',
          id: 's',
          title: 'S',
          prefix: 'p',
          resolver: 'tokens/r.resolver.json',
        },
      ],
      [
        'tokens/r.resolver.json',
        {
          version: '2025.10',
          sets: { base: { sources: [{ a: number(1), b: number(2), both: number('{a}') }] } },
          modifiers: {
            theme: {
              default: 'day',
              contexts: { day: [], night: [{ a: number(10), both: number('{b}') }] },
              $extensions: { periwinkle: { media: { night: '(prefers-color-scheme:  dark)' } } },
            },
            density: { default: 'roomy', contexts: { roomy: [], close: [{ b: number(20) }] } },
          },
          resolutionOrder: [
            { $ref: '#/sets/base' },
            { $ref: '#/modifiers/theme' },
            { $ref: '#/modifiers/density' },
          ],
        },
      ],
      [
        'components/f.component.json',
        {
          format: 'periwinkle-component/1',
          id: 'f',
          anatomy: { part: 'root', kind: 'stack' },
          rules: [{ id: 'r', when: {}, set: { root: { opacity: '{both}' } } }],
        },
      ],
    ]),
  );
  expect(tokensCssText(system)).toBe(`/* Tokens of S */
:root {
  --_theme-day: initial;
  --_theme-night: ;
  --p-a: 1;
  --p-b: 2;
  --p-both: var(--_theme-day, var(--p-a)) var(--_theme-night, var(--p-b));
}

@media (prefers-color-scheme:dark) {
  :root {
    --_theme-day: ;
    --_theme-night: initial;
    --p-a: 10;
  }
}

[data-theme="day"] {
  --_theme-day: initial;
  --_theme-night: ;
  --p-a: 1;
}

[data-theme="night"] {
  --_theme-day: ;
  --_theme-night: initial;
  --p-a: 10;
}

[data-density="roomy"] {
  --p-b: 2;
}

[data-density="close"] {
  --p-b: 20;
}

[data-theme], [data-density] {
  --p-both: var(--_theme-day, var(--p-a)) var(--_theme-night, var(--p-b));
}
`);
});
