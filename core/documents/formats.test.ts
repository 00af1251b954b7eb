import fc from 'fast-check';
import { lexer, parse } from 'css-tree';
import { canonicalText } from './canonical';
import { cssIdentifier, cssString, shortDecimal } from '../text/css-text';
import { documentKind, documentsOf } from './document-kinds';
import { escapeHtml } from '../text/html-text';
import { pointer, pointerSteps, valueAt } from '../json/json';
import { oneOf } from '../json/problem';
import { readJson } from '../json/read-json';
import { structureProblems } from './structure-problems';

describe('JSON Pointers', () => {
  test('any steps are written and read back', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'binary' })), steps => {
        expect(pointerSteps(pointer(...steps))).toEqual(steps);
      }),
    );
  });

  test('lead to own members only, and to entries by plain indices', () => {
    const document = { a: [{ b: 1 }], 'x/y': 2 };
    expect(valueAt(document, ['a', '0', 'b'])).toBe(1);
    expect(valueAt(document, ['x/y'])).toBe(2);
    for (const steps of [
      ['toString'],
      ['__proto__'],
      ['a', 'length'],
      ['a', '00'],
      ['a', '-'],
      ['a', '0', 'b', 'c'],
    ]) {
      expect(valueAt(document, steps)).toBeUndefined();
    }
    expect(pointerSteps('a/b')).toBeNull();
  });
});

describe('text inside CSS and HTML', () => {
  const anyText = fc.string({ unit: 'binary', maxLength: 40 });

  test('any name becomes one identifier', () => {
    fc.assert(
      fc.property(
        anyText.filter(text => text !== ''),
        text => {
          const tree = parse(`.${cssIdentifier(text)}`, {
            context: 'selector',
            onParseError: error => {
              throw error;
            },
          }) as unknown as { children: { size: number } };
          expect(tree.children.size).toBe(1);
        },
      ),
    );
  });

  test('any text becomes one string', () => {
    fc.assert(
      fc.property(anyText, text => {
        const tree = parse(cssString(text), {
          context: 'value',
          onParseError: error => {
            throw error;
          },
        }) as unknown as { children: { size: number; first: { type: string } } };
        expect(tree.children.size).toBe(1);
        expect(tree.children.first.type).toBe('String');
        expect(cssString(text)).not.toMatch(/<\//);
      }),
    );
  });

  test('markup characters are escaped, everything else is left', () => {
    expect(escapeHtml(`<a href="x" title='y'>&amp;</a> ü`)).toBe(
      '&lt;a href=&quot;x&quot; title=&#39;y&#39;&gt;&amp;amp;&lt;/a&gt; ü',
    );
  });

  test('decimals are short, plain and never minus zero', () => {
    expect([0.1 + 0.2, -0.00001, 12, 1.5, 1e-7, 100].map(value => shortDecimal(value))).toEqual([
      '0.3',
      '0',
      '12',
      '1.5',
      '0',
      '100',
    ]);
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), value => {
        expect(shortDecimal(value)).toMatch(/^-?\d+(\.\d{0,3}[1-9])?$/);
        expect(Math.abs(Number(shortDecimal(value)) - value)).toBeLessThanOrEqual(0.5001e-4);
      }),
    );
  });
});

describe('kinds of document', () => {
  test.each([
    ['system.json', 'system'],
    ['tokens/a.b.tokens.json', 'tokens'],
    ['tokens/a.resolver.json', 'resolver'],
    ['components/text-field.component.json', 'component'],
    ['icons/anchor.svg', 'icon'],
    ['guide/text-field.md', 'guide'],
  ])('%s is a %s', (path, kind) => expect(documentKind(path)?.kind).toBe(kind));

  test.each([
    'tokens.json',
    'tokens/../system.json',
    'components/x.json',
    'icons/a/b.svg',
    '/system.json',
    'guide/.md',
    `guide/${'x'.repeat(200)}.md`,
  ])('%.40s is none', path => expect(documentKind(path)).toBeUndefined());

  test('documents of a kind come in the order of their paths', () => {
    const documents = new Map<string, unknown>([
      ['icons/b.svg', 'b'],
      ['system.json', {}],
      ['icons/a.svg', 'a'],
    ]);
    expect(documentsOf(documents, 'icon')).toEqual([
      ['icons/a.svg', 'a'],
      ['icons/b.svg', 'b'],
    ]);
  });
});

describe('canonical text', () => {
  test('keys come in the order of the schema, also deep inside; unknown ones after, as they came', () => {
    const text = canonicalText('component', {
      surplus: 1,
      rules: [{ set: { frame: { b: '1', a: '2' } }, when: {}, id: 'r' }],
      anatomy: { children: [{ kind: 'row', part: 'p' }], kind: 'stack', part: 'root' },
      id: 'x',
      format: 'periwinkle-component/1',
    });
    expect([...text.matchAll(/"(\w+)":/g)].map(match => match[1])).toEqual([
      'format',
      'id',
      'anatomy',
      'part',
      'kind',
      'children',
      'part',
      'kind',
      'rules',
      'id',
      'when',
      'set',
      'frame',
      'b',
      'a',
      'surplus',
    ]);
    expect(text.endsWith('}\n')).toBe(true);
  });

  test('writing again changes nothing', () => {
    fc.assert(
      fc.property(fc.jsonValue(), value => {
        const once = canonicalText('component', value);
        expect(canonicalText('component', JSON.parse(once))).toBe(once);
      }),
    );
  });
});

describe('structure', () => {
  const codes = (path: string, document: unknown): string[] =>
    structureProblems(path, document).map(each => `${each.pointer} ${each.code}`);
  const component = { format: 'periwinkle-component/1', id: 'x', anatomy: { part: 'root', kind: 'stack' } };
  const PATH = 'components/x.component.json';

  test.each<[string, object, string[]]>([
    ['nothing but what is needed', {}, []],
    ['another format', { format: 'periwinkle-component/2' }, ['/format unknown-value']],
    ['an id that is none', { id: 'text field' }, ['/id bad-name']],
    [
      'a value that is no text',
      { rules: [{ id: 'r', when: {}, set: { frame: { height: 12 } } }] },
      ['/rules/0/set/frame/height wrong-type'],
    ],
    [
      'a kind of axis that is none',
      { axes: [{ id: 'a', kind: 'optional' }] },
      ['/axes/0/kind unknown-value'],
    ],
    [
      'an axis without values in its list',
      { axes: [{ id: 'a', kind: 'option', values: [] }] },
      ['/axes/0/values wrong-shape'],
    ],
    [
      'a part deep inside',
      { anatomy: { part: 'root', kind: 'stack', children: [{ part: 'a', kind: 'row', childs: [] }] } },
      ['/anatomy/children/0/childs unknown-key'],
    ],
    [
      'a condition that is no condition',
      { limits: [{ while: { a: 1 }, holds: {} }] },
      ['/limits/0/while/a wrong-type'],
    ],
  ])('%s', (_, change, expected) => expect(codes(PATH, { ...component, ...change })).toEqual(expected));

  test('text documents are text, and JSON documents are not', () => {
    expect(codes('guide/a.md', 'words')).toEqual([]);
    expect(codes('guide/a.md', { words: 1 })).toEqual([' wrong-type']);
    expect(codes(PATH, 'words')).toEqual([' wrong-type']);
    expect(codes('tokens/a.tokens.json', [])).toEqual([' wrong-type']);
  });
});

test('lists in messages read as sentences', () => {
  expect(oneOf(['a'])).toBe('a');
  expect(oneOf(['a', 'b', 'c'])).toBe('a, b or c');
  expect(oneOf(['a', 'b', 'c'], 2)).toBe('a, b and 1 more');
});

test('a byte order mark is let through, and the place of a fault is told', () => {
  expect(readJson('\uFEFF{"a": 1}')).toEqual({ ok: true, value: { a: 1 } });
  expect(readJson('{"a": 1,}')).toMatchObject({ ok: false, offset: 8 });
});

test('the CSS definitions are there that literals are matched with', () => {
  expect(lexer.matchProperty('border-color', 'red').matched).not.toBeNull();
});
