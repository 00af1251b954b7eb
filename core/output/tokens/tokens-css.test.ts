import { freshSeed, runsOf } from '../../test/runs';
import fc from 'fast-check';
import { compileSystem, type System } from '../../components/system';
import { smallSystem } from '../../test/small-system';
import { stylesheetText, type StyleBlock } from '../stylesheet/stylesheet';
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
    { numRuns: runsOf('nested contexts'), seed },
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
  expect(stylesheetText({ ...tokensStylesheet(system), head: [] })).toBe(`:root {
  --_in--theme--day: initial;
  --_in--theme--night: ;
  --p-a: 1;
  --p-b: 2;
  --p-both: var(--_in--theme--day, var(--p-a)) var(--_in--theme--night, var(--p-b));
  color-scheme: light;
}

@media (prefers-color-scheme:dark) {
  /* theme night, where the page names no context */
  :root {
    --_in--theme--day: ;
    --_in--theme--night: initial;
    --p-a: 10;
    color-scheme: dark;
  }
}

[data-theme="day"] {
  --_in--theme--day: initial;
  --_in--theme--night: ;
  --p-a: 1;
  color-scheme: light;
}

[data-theme="night"] {
  --_in--theme--day: ;
  --_in--theme--night: initial;
  --p-a: 10;
  color-scheme: dark;
}

[data-density="roomy"] {
  --p-b: 2;
}

[data-density="close"] {
  --p-b: 20;
}

@media print {
  /* On paper */
  :root, [data-theme] {
    --_in--theme--day: initial;
    --_in--theme--night: ;
    --p-a: 1;
    color-scheme: light;
  }
}

[data-theme], [data-density] {
  --p-both: var(--_in--theme--day, var(--p-a)) var(--_in--theme--night, var(--p-b));
}
`);
});

describe('what else tokens.css says', () => {
  const systemOf = (tokens: object, set: Record<string, string>): System =>
    smallSystem({ tokens, set: { root: set } });
  const css = (system: System): string => stylesheetText({ ...tokensStylesheet(system), head: [] });
  const number = (value: unknown): object => ({ $type: 'number', $value: value });

  test('references inside a value are put in, where CSS could not follow them', () => {
    const tokens = {
      n: number(12),
      half: number(0.5),
      size: { $type: 'dimension', $value: { value: '{n}', unit: 'px' } },
      ink: { $type: 'color', $value: { colorSpace: 'srgb', components: ['{half}', 0, 0], alpha: '{half}' } },
      curve: { $type: 'cubicBezier', $value: ['{half}', 0, 0, 1] },
      ramp: { $type: 'gradient', $value: [{ color: '{ink}', position: '{half}' }] },
    };
    const used = {
      width: '{size}',
      color: '{ink}',
      'transition-timing-function': '{curve}',
      'background-image': '{ramp}',
    };
    const text = css(systemOf(tokens, used));
    expect(text).toContain('--p-size: 12px;');
    expect(text).toContain('--p-ink: color(srgb 0.5 0 0 / 0.5);');
    expect(text).toContain('--p-curve: cubic-bezier(0.5, 0, 0, 1);');
    expect(text).toContain('--p-ramp: linear-gradient(var(--p-ink) 50%);');
  });

  test('a colour beyond sRGB has a stand-in, and stands where it can be shown', () => {
    const glow = {
      $type: 'color',
      $value: { colorSpace: 'display-p3', components: [1, 0, 0], hex: '#ff0000' },
    };
    expect(css(systemOf({ glow }, { color: '{glow}' }))).toBe(`:root {
  --p-glow: #ff0000;
}

@media (color-gamut: p3) {
  :root {
    --p-glow: color(display-p3 1 0 0);
  }
}
`);
  });

  test('descriptions stay, and cannot break out', () => {
    const ink = { ...number(1), $description: 'Words */ body { color: red } <b>' };
    expect(css(systemOf({ ink }, { opacity: '{ink}' }))).toContain('/* Words * / body { color: red } ‹b> */');
  });

  test('the host of a shadow tree has them where asked', () => {
    const text = stylesheetText({
      ...tokensStylesheet(systemOf({ a: number(1) }, { opacity: '{a}' }), ':host'),
      head: [],
    });
    expect(text).toBe(':host {\n  --p-a: 1;\n}\n');
  });
});

describe('where two modifiers meet', () => {
  const system = (night: object, close: object): System =>
    smallSystem({
      tokens: { base: { $type: 'number', x: { $value: 1 }, y: { $value: 2 } } },
      modifiers: { theme: { day: {}, night }, density: { roomy: {}, close } },
      set: { root: { opacity: '{more.x}' } },
    });
  const text = (own: System): string => stylesheetText({ ...tokensStylesheet(own), head: [] });

  test('members that a group has by extension follow both', () => {
    const own = system(
      { base: { $type: 'number', x: { $value: 10 } } },
      { more: { $extends: '{base}', y: { $type: 'number', $value: 7 } } },
    );
    expect(own.tokens.in({ theme: 'night', density: 'close' }).byKey.get('more.x')!.css).toBe('10');
    expect(text(own)).toMatch(
      /--p-more-x:\s+var\(--_in--theme--day, .*close, 1\)\)\s+var\(--_in--theme--night, .*close, 10\)\)/,
    );
  });

  test('so do pointers into other tokens', () => {
    const own = system(
      {
        base: { $type: 'number', x: { $value: 10 } },
        more: { $type: 'number', x: { $value: { $ref: '#/base/x/$value' } } },
      },
      {
        base: { $type: 'number', x: { $value: 20 } },
        more: { $type: 'number', x: { $value: { $ref: '#/base/x/$value' } } },
      },
    );
    const css = text(own);
    for (const each of ['10', '20']) expect(css).toMatch(new RegExp(`--p-more-x:[^;]*\\b${each}\\b`));
  });

  test('a circle that is there in one combination of contexts only is told', () => {
    const own = system(
      { base: { $type: 'number', x: { $value: '{base.y}' } } },
      { base: { $type: 'number', y: { $value: '{base.x}' } } },
    );
    expect(own.tokens.problems().map(problem => problem.code)).toContain('reference-cycle');
  });
});
