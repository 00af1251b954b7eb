import { TokenModel } from './token-model';
import { readTokenText, writeTokenText } from './token-text';
import { completeInput, ContextError } from './contexts';
import { colorCss, colorHex, cssColor, hexOf } from './color';

const px = (value: number): object => ({ value, unit: 'px' });

function model(files: Record<string, unknown>, resolver?: string): TokenModel {
  return new TokenModel(new Map(Object.entries(files)), resolver);
}
const single = (tree: unknown): TokenModel => model({ 'tokens/a.tokens.json': tree });
const css = (tree: unknown): Record<string, string> =>
  Object.fromEntries([...single(tree).usual().byKey.values()].map(token => [token.path, token.css]));
const problems = (tree: unknown): string[] =>
  single(tree)
    .problems()
    .map(problem => `${problem.pointer} ${problem.code}`);

const BLACK = { colorSpace: 'srgb', components: [0, 0, 0] };

describe('types', () => {
  test('every type has its CSS form', () => {
    const color = { colorSpace: 'srgb', components: [1, 0, 0.2], alpha: 0.4 };
    expect(
      css({
        c: { $type: 'color', $value: { colorSpace: 'oklch', components: [0.6, 0.1, 280] } },
        n: { $type: 'color', $value: { colorSpace: 'hsl', components: ['none', 0, 50] } },
        d: { $type: 'dimension', $value: { value: 1.5, unit: 'rem' } },
        t: { $type: 'duration', $value: { value: 0.15, unit: 's' } },
        f: { $type: 'fontFamily', $value: ['Some Face', 'serif'] },
        w: { $type: 'fontWeight', $value: 'semi-bold' },
        e: { $type: 'cubicBezier', $value: [0.2, 0, 0, 1] },
        x: { $type: 'number', $value: 1.25 },
        k: { $type: 'strokeStyle', $value: { dashArray: [px(2), px(4)], lineCap: 'round' } },
        b: { $type: 'border', $value: { color, width: px(1), style: 'solid' } },
        r: {
          $type: 'transition',
          $value: {
            duration: { value: 90, unit: 'ms' },
            delay: { value: 0, unit: 'ms' },
            timingFunction: [0, 0, 1, 1],
          },
        },
        s: {
          $type: 'shadow',
          $value: { color, offsetX: px(0), offsetY: px(2), blur: px(3), spread: px(0), inset: true },
        },
        g: {
          $type: 'gradient',
          $value: [
            { color, position: 0 },
            { color, position: 1 },
          ],
        },
        y: {
          $type: 'typography',
          $value: {
            fontFamily: 'serif',
            fontSize: px(14),
            fontWeight: 'bold',
            letterSpacing: px(0),
            lineHeight: 1.4,
          },
        },
      }),
    ).toEqual({
      c: 'oklch(0.6 0.1 280)',
      n: 'hsl(none 0% 50%)',
      d: '1.5rem',
      t: '0.15s',
      f: '"Some Face", serif',
      w: '600',
      e: 'cubic-bezier(0.2, 0, 0, 1)',
      x: '1.25',
      k: 'dashed',
      b: '1px solid #ff003366',
      r: '90ms cubic-bezier(0, 0, 1, 1) 0ms',
      s: 'inset 0px 2px 3px 0px #ff003366',
      g: 'linear-gradient(#ff003366 0%, #ff003366 100%)',
      y: '700 14px/1.4 serif',
    });
  });

  test.each([
    ['color', { colorSpace: 'srbg', components: [0, 0, 0] }, '/a/$value/colorSpace wrong-value'],
    ['color', { colorSpace: 'srgb', components: [0, 0] }, '/a/$value/components wrong-value'],
    ['color', '#ffffff', '/a/$value wrong-value'],
    ['dimension', { value: 1, unit: 'em' }, '/a/$value/unit wrong-value'],
    ['dimension', { value: '1', unit: 'px' }, '/a/$value/value wrong-value'],
    ['fontWeight', 'boldish', '/a/$value wrong-value'],
    ['fontWeight', 1001, '/a/$value wrong-value'],
    ['cubicBezier', [2, 0, 0, 1], '/a/$value/0 wrong-value'],
    ['strokeStyle', 'dasht', '/a/$value wrong-value'],
    ['border', { color: '{x}', width: { value: 1, unit: 'px' } }, '/a/$value wrong-value'],
    ['shadow', [], '/a/$value wrong-value'],
    [
      'shadow',
      { color: BLACK, offsetX: px(-1), offsetY: px(-1), blur: px(-2), spread: px(-1) },
      '/a/$value/blur wrong-value',
    ],
    ['border', { color: BLACK, width: px(-1), style: 'solid' }, '/a/$value/width wrong-value'],
    [
      'transition',
      { duration: { value: -1, unit: 'ms' }, delay: { value: -1, unit: 'ms' }, timingFunction: [0, 0, 1, 1] },
      '/a/$value/duration wrong-value',
    ],
    [
      'typography',
      { fontFamily: 'serif', fontSize: px(-1), lineHeight: 1 },
      '/a/$value/fontSize wrong-value',
    ],
    ['colour', 1, '/a/$type unknown-type'],
  ])('a wrong %s is placed', (type, value, expected) => {
    const found = problems({
      x: { $type: 'color', $value: { colorSpace: 'srgb', components: [0, 0, 0] } },
      a: { $type: type, $value: value },
    });
    expect(found).toContain(expected);
  });
});

describe('references', () => {
  test('types come from the token, what it refers to, or the nearest group, in this order', () => {
    const set = single({
      size: { $type: 'dimension', a: { $value: px(4) }, n: { $type: 'number', $value: 2 } },
      other: { $type: 'number', b: { $value: '{size.a}' }, c: { $value: 3 } },
    }).usual();
    expect([...set.byKey.values()].map(token => `${token.path} ${token.type}`)).toEqual([
      'size.a dimension',
      'size.n number',
      'other.b dimension',
      'other.c number',
    ]);
  });

  test('pointers lead into values, also through aliases', () => {
    const set = single({
      $type: 'color',
      a: { $value: { colorSpace: 'oklch', components: [0.5, 0.1, 200] } },
      b: { $value: '{a}' },
      c: {
        $value: {
          colorSpace: 'oklch',
          components: [0.9, { $ref: '#/b/$value/components/1' }, { $ref: '#/a/$value/components/2' }],
        },
      },
    }).usual();
    expect(set.byKey.get('c')!.css).toBe('oklch(0.9 0.1 200)');
  });

  test("a group's own token bears the group's path", () => {
    const set = single({
      $type: 'number',
      surface: { $root: { $value: 1 }, deep: { $value: '{surface.$root}' } },
    }).usual();
    expect([...set.byKey.values()].map(token => [token.path, token.css])).toEqual([
      ['surface', '1'],
      ['surface.deep', '1'],
    ]);
    expect(problems({ $type: 'number', s: { $root: { $value: 1 } }, t: { $value: '{s}' } })).toEqual([
      '/t/$value missing-token',
    ]);
  });

  test('extended groups are inherited deeply and may be overridden', () => {
    const set = single({
      $type: 'number',
      base: { a: { $value: 1 }, inner: { b: { $value: 2 }, c: { $value: 3 } } },
      more: { $extends: '{base}', inner: { c: { $value: 4 } } },
    }).usual();
    expect(set.byKey.get('more.a')!.css).toBe('1');
    expect(set.byKey.get('more.inner.b')!.css).toBe('2');
    expect(set.byKey.get('more.inner.c')!.css).toBe('4');
  });

  test('a circle names the whole chain, once; a missing target has the likely one', () => {
    const circle = single({
      $type: 'number',
      a: { $value: '{b}' },
      b: { $value: '{c}' },
      c: { $value: '{a}' },
      d: { $value: '{a}' },
    }).problems();
    expect(circle).toHaveLength(1);
    expect(circle[0]!.message).toContain('a → b → c → a');
    const missing = single({ $type: 'number', length: { $value: 1 }, b: { $value: '{lenght}' } }).problems();
    expect(missing).toEqual([
      expect.objectContaining({ pointer: '/b/$value', code: 'missing-token', suggestion: '{length}' }),
    ]);
    expect(problems({ a: { $extends: '{b}' }, b: { $extends: '{a}' } })).toContain(
      '/a/$extends reference-cycle',
    );
  });
});

describe('contexts', () => {
  const resolver = {
    version: '2025.10',
    sets: { base: { sources: [{ $ref: 'base.tokens.json' }] } },
    modifiers: {
      theme: { default: 'day', contexts: { day: [], night: [{ $ref: 'night.tokens.json' }] } },
      density: { contexts: { roomy: [{ size: { $type: 'dimension', $value: px(9) } }], compact: [] } },
    },
    resolutionOrder: [
      { $ref: '#/sets/base' },
      { $ref: '#/modifiers/theme' },
      { $ref: '#/modifiers/density' },
    ],
  };
  const files = {
    'tokens/r.resolver.json': resolver,
    'tokens/base.tokens.json': {
      ink: { $type: 'number', $value: 1 },
      role: { $type: 'number', $value: '{ink}' },
      size: { $type: 'dimension', $value: px(4) },
    },
    'tokens/night.tokens.json': { ink: { $type: 'number', $value: 7 } },
  };
  const tokens = model(files, 'tokens/r.resolver.json');

  test('aliases are followed after the merge, so a role follows its theme', () => {
    expect(tokens.in({ theme: 'night', density: 'compact' }).byKey.get('role')!.css).toBe('7');
    expect(tokens.in({ density: 'roomy' }).byKey.get('role')!.css).toBe('1');
    expect(tokens.in({ density: 'roomy' }).byKey.get('size')!.css).toBe('9px');
    expect(tokens.contextCount()).toBe(4);
  });

  test('a modifier without default must be chosen; unknown names have the likely one', () => {
    expect(() => completeInput(tokens.modifiers, {})).toThrow(ContextError);
    expect(() => completeInput(tokens.modifiers, { theme: 'nigth', density: 'roomy' })).toThrow(
      /“nigth” is no context of theme/,
    );
  });

  test('missing files, sets and wrong defaults are placed', () => {
    const broken = {
      ...resolver,
      sets: { base: { sources: [{ $ref: 'bse.tokens.json' }] } },
      modifiers: { theme: { default: 'dawn', contexts: { day: [] } } },
      resolutionOrder: [{ $ref: '#/sets/base' }, { $ref: '#/sets/bas' }, { $ref: '#/modifiers/theme' }],
    };
    const found = model({ ...files, 'tokens/r.resolver.json': broken }, 'tokens/r.resolver.json').problems();
    expect(found.map(problem => `${problem.pointer} ${problem.code}`)).toEqual([
      '/sets/base/sources/0/$ref missing-file',
      '/resolutionOrder/1/$ref missing-reference',
      '/modifiers/theme/default unknown-context',
    ]);
  });
});

describe('colours', () => {
  test('hex where 8 bits hold the colour, its own space otherwise; outside sRGB is clipped', () => {
    expect(colorCss({ colorSpace: 'srgb', components: [1, 0.5, 0] })).toBe('color(srgb 1 0.5 0)');
    expect(colorCss({ colorSpace: 'srgb', components: [1, 0.4, 0] })).toBe('#ff6600');
    expect(colorHex({ colorSpace: 'display-p3', components: [0, 1, 0] })).toBe('#00ff00');
    expect(colorHex({ colorSpace: 'srgb', components: [0, 0, 0], alpha: 0.5 })).toBe('#00000080');
    expect(hexOf(cssColor('transparent')!)).toBe('#00000000');
    expect(cssColor('currentcolor')).toBeNull();
  });
});

describe('typing a value', () => {
  test.each([
    ['color', '#5957aa'],
    ['color', 'oklch(0.55 0.15 280)'],
    ['dimension', '12px'],
    ['duration', '150ms'],
    ['number', '1.4'],
    ['fontWeight', '600'],
    ['fontFamily', 'Some Face, serif'],
    ['cubicBezier', '0.2, 0, 0, 1'],
    ['strokeStyle', 'dashed'],
    ['dimension', '{a.b}'],
  ])('%s %s is read and written back the same', (type, text) => {
    const read = readTokenText(type, text);
    if (!read.ok) throw new Error(read.message);
    expect(writeTokenText(type, read.value)).toBe(text);
  });

  test.each([
    ['color', 'reddish'],
    ['dimension', '12em'],
    ['dimension', 'wide'],
    ['cubicBezier', '3, 0, 0, 1'],
    ['shadow', '0 0 2px'],
  ])('%s “%s” says what can be written', (type, text) => {
    expect(readTokenText(type, text)).toMatchObject({
      ok: false,
      message: expect.stringContaining('write') as unknown,
    });
  });
});

test('after an edit only the tokens that depend on it are made anew, as if all were', () => {
  const value = (number: number): object => ({ $type: 'number', $value: number });
  const alias = (key: string): object => ({ $value: `{${key}}` });
  const shared = { b: value(2), far: alias('near'), near: alias('a'), other: alias('b') };
  const before = new TokenModel(new Map([['tokens/x.tokens.json', { a: value(1), ...shared }]]), undefined);
  const old = before.in().byKey;
  const documents = new Map([['tokens/x.tokens.json', { a: value(10), ...shared }]]);
  const after = new TokenModel(documents, undefined, before).in().byKey;
  expect([...after.values()].map(({ key, css }) => [key, css])).toEqual(
    [...new TokenModel(documents, undefined).in().byKey.values()].map(({ key, css }) => [key, css]),
  );
  expect([...after].filter(([key, token]) => old.get(key) === token).map(([key]) => key)).toEqual([
    'b',
    'other',
  ]);
});

const byKey = (tokens: object) => {
  const model = new TokenModel(new Map([['tokens/a.tokens.json', tokens]]), undefined);
  return { tokens: model.usual().byKey, problems: model.problems() };
};

describe('references and extension as far as they lead', () => {
  test('a group may extend one that is there only by extension', () => {
    const { tokens, problems } = byKey({
      a: { inner: { $type: 'dimension', x: { $value: px(3) } } },
      b: { $extends: '{a}' },
      c: { $extends: '{b.inner}' },
      d: { $extends: '#/c' },
    });
    expect(problems).toEqual([]);
    expect(tokens.get('c.x')!.css).toBe('3px');
    expect(tokens.get('d.x')!.css).toBe('3px');
  });

  test('a group cannot extend one that holds it, nor can what extends that one', () => {
    const tree = {
      raw: { $type: 'number', x: { $value: 1 }, deep: { $extends: '{raw}', y: { $value: 2 } } },
      role: { $extends: '{raw}', z: { $value: 3 } },
    };
    expect(new Set(problems(tree))).toEqual(new Set(['/raw/deep/$extends reference-cycle']));
    expect(css(tree)).toEqual({
      'raw.x': '1',
      'raw.deep.y': '2',
      'role.x': '1',
      'role.deep.y': '2',
      'role.z': '3',
    });
  });

  test('groups that extend each other through what they inherit end', () => {
    const { problems } = byKey({
      a: { $extends: '{b.inner}', inner: { $type: 'number', x: { $value: 1 } } },
      b: { $extends: '{a}' },
    });
    expect(problems.every(problem => /reference/.test(problem.code))).toBe(true);
  });

  test.each([['#/a/x'], ['#/a/x/$value']])('a pointer to a whole token (%s) has its type', pointer => {
    const { tokens, problems } = byKey({
      a: { x: { $type: 'dimension', $value: px(2) } },
      b: { $value: { $ref: pointer } },
    });
    expect(problems).toEqual([]);
    expect(tokens.get('b')).toMatchObject({ type: 'dimension', css: '2px' });
  });

  test('pointers may be percent-encoded', () => {
    const { tokens } = byKey({
      'grau ä': { x: { $type: 'number', $value: 4 } },
      b: { $type: 'number', $value: { $ref: '#/grau%20%C3%A4/x/$value' } },
    });
    expect(tokens.get('b')!.css).toBe('4');
  });

  test('lists may hold lists by reference', () => {
    const { tokens, problems } = byKey({
      stack: { $type: 'fontFamily', $value: ['Berth', 'serif'] },
      whole: { $type: 'fontFamily', $value: ['Port', '{stack}'] },
    });
    expect(problems).toEqual([]);
    expect(tokens.get('whole')!.css).toBe('Port, Berth, serif');
  });
});

test('the contexts of all modifiers together have a limit; those beyond are told and left out', () => {
  const contexts = (count: number) =>
    Object.fromEntries(Array.from({ length: count }, (_, index) => [`c${index}`, []]));
  const model = new TokenModel(
    new Map<string, unknown>([
      [
        'tokens/all.resolver.json',
        {
          version: '2025.10',
          modifiers: {
            some: { contexts: contexts(200) },
            many: { contexts: contexts(60) },
            more: { contexts: contexts(2) },
          },
          resolutionOrder: ['some', 'many', 'more'].map(name => ({ $ref: `#/modifiers/${name}` })),
        },
      ],
    ]),
    'tokens/all.resolver.json',
  );
  expect(model.modifiers.map(modifier => modifier.contexts.length)).toEqual([200, 50, 0]);
  expect(model.problems().map(({ pointer, code }) => `${pointer} ${code}`)).toEqual([
    '/modifiers/many/contexts too-many',
    '/modifiers/more/contexts too-many',
  ]);
});

test('sources may be a group of a file, or a tree that is defined in the resolver document; a value alone leaves the rest', () => {
  const number = (value: number): object => ({ $type: 'number', $value: value });
  const model = new TokenModel(
    new Map<string, object>([
      ['tokens/all.tokens.json', { day: { ink: number(1), line: { ...number(2), $description: 'Thin.' } } }],
      [
        'tokens/q.resolver.json',
        {
          version: '2025.10',
          $defs: { late: { line: { $value: 3 }, more: number(4) } },
          sets: { base: { sources: [{ $ref: 'all.tokens.json#/day' }, { $ref: '#/$defs/late' }] } },
          resolutionOrder: [{ $ref: '#/sets/base' }],
        },
      ],
    ]),
    'tokens/q.resolver.json',
  );
  expect(model.problems()).toEqual([]);
  const { byKey: tokens } = model.usual();
  expect([...tokens].map(([key, { css }]) => `${key} ${css}`)).toEqual(['ink 1', 'line 3', 'more 4']);
  expect(tokens.get('line')).toMatchObject({ type: 'number', description: 'Thin.' });
});

describe('what the report leaves open is read, what it does not is refused', () => {
  test('a reference in the place of a value or of a group', () => {
    const { tokens, problems } = byKey({
      raw: { $type: 'dimension', gap: { $value: px(4) }, wide: { $value: px(9) } },
      one: { $ref: '#/raw/gap' },
      two: { $description: 'Of the quay.', $ref: '#/raw/wide/$value' },
      role: { $ref: '#/raw', wide: { $value: px(8) } },
    });
    expect(problems).toEqual([]);
    expect(Object.fromEntries([...tokens].map(([key, { css }]) => [key, css]))).toEqual({
      'raw.gap': '4px',
      'raw.wide': '9px',
      one: '4px',
      two: '9px',
      'role.gap': '4px',
      'role.wide': '8px',
    });
    expect(tokens.get('two')).toMatchObject({ type: 'dimension', description: 'Of the quay.' });
  });

  test('references in the place of groups that lead round are told', () => {
    const { problems } = byKey({ a: { $ref: '#/b' }, b: { $ref: '#/a' }, c: { $ref: '#/none' } });
    expect(problems.map(({ code }) => code)).toEqual(
      expect.arrayContaining(['reference-cycle', 'missing-reference']),
    );
  });

  const color = (colorSpace: string, components: unknown, more: object = {}): object => ({
    x: { $type: 'color', $value: { colorSpace, components, ...more } },
  });

  test.each<[string, object, string, string]>([
    ['a component beyond its range', color('srgb', [1.2, 0, 0]), '/x/$value/components/0', 'wrong-value'],
    ['a hue of 400', color('oklch', [0.5, 0.1, 400]), '/x/$value/components/2', 'wrong-value'],
    ['a hue of 360', color('hsl', [360, 50, 50]), '/x/$value/components/0', 'wrong-value'],
    ['a negative chroma', color('lch', [50, -1, 0]), '/x/$value/components/1', 'wrong-value'],
    ['eight digits', color('srgb', [1, 0, 0], { hex: '#ff0000aa' }), '/x/$value/hex', 'wrong-value'],
    [
      'a reason that is a number',
      { x: { $type: 'number', $value: 1, $deprecated: 3 } },
      '/x/$deprecated',
      'wrong-type',
    ],
    [
      'typography without a member',
      { x: { $type: 'typography', $value: { fontFamily: 'Georgia', fontSize: px(12) } } },
      '/x/$value',
      'wrong-value',
    ],
    [
      'spaces within braces',
      { a: { $type: 'number', $value: 1 }, x: { $value: '{ a }' } },
      '/x/$value',
      'missing-token',
    ],
    [
      'a reference within a longer text',
      { a: { $type: 'fontFamily', $value: 'Georgia' }, x: { $type: 'fontFamily', $value: '{a}, serif' } },
      '/x/$value',
      'wrong-reference',
    ],
    [
      'a token within a token',
      { x: { $type: 'number', $value: 1, y: { $value: 2 } } },
      '/x/y',
      'token-with-members',
    ],
  ])('%s', (_, body, place, code) => {
    const { problems } = byKey(body as never);
    expect(problems).toContainEqual(expect.objectContaining({ pointer: place, code, severity: 'error' }));
  });

  test('what stands behind none of them is allowed', () => {
    const { problems } = byKey({
      a: { $type: 'color', $value: { colorSpace: 'lab', components: [50, -120, 'none'], hex: '#aabbcc' } },
      b: { $type: 'color', $value: { colorSpace: 'xyz-d65', components: [0.95, 1, 1.0888] } },
      c: {
        $type: 'number',
        $value: 1,
        $deprecated: 'Use gap.',
        $extensions: { 'org.merrow': { '{x} y': 1 } },
      },
    } as never);
    expect(problems).toEqual([]);
  });

  test('members that nobody knows are kept, and told with the nearest', () => {
    const { tokens, problems } = byKey({
      x: { $type: 'number', $value: 1, $descripton: 'A gap.' },
      g: { $typ: 'number' },
    } as never);
    expect(tokens.get('x')!.css).toBe('1');
    expect(problems).toEqual([
      expect.objectContaining({ pointer: '/x/$descripton', severity: 'warning', suggestion: '$description' }),
      expect.objectContaining({ pointer: '/g/$typ', severity: 'warning', suggestion: '$type' }),
    ]);
  });
});
