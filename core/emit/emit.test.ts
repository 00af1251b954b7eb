import { canonicalText } from '../formats/canonical';
import { documentKind } from '../formats/document-kinds';
import { structureProblems } from '../formats/structure';
import { compileSystem, type System } from '../rules/system';
import { demoDocuments, demoSystem, demoTexts } from '../test/demo';
import { componentCssText, exampleMarkup, outputFiles, systemFolder, tokensCssText } from './outputs';
import { meaningProblems } from '../checks/meaning';

const px = (value: number): object => ({ $value: { value, unit: 'px' } });

function systemOf(rules: object[], limits: object[] = []): System {
  const documents = new Map<string, unknown>([
    ['system.json', { format: 'periwinkle-system/1', id: 's', title: 'S', prefix: 'pre' }],
    [
      'components/field.component.json',
      {
        format: 'periwinkle-component/1',
        id: 'field',
        anatomy: {
          part: 'root',
          kind: 'stack',
          children: [{ part: 'frame', kind: 'row', children: [{ part: 'control', kind: 'control' }] }],
        },
        axes: [
          { id: 'size', kind: 'option', values: [{ id: 's' }, { id: 'm' }, { id: 'l' }], default: 'm' },
          { id: 'pointer', kind: 'state' },
          { id: 'focus', kind: 'state' },
          { id: 'availability', kind: 'state' },
        ],
        limits,
        rules,
      },
    ],
  ]);
  const system = compileSystem(documents);
  expect(meaningProblems(system)).toEqual([]);
  return system;
}

/** The selector that a single rule on the frame gets. */
function selectorFor(when: object, limits: object[] = []): string {
  const system = systemOf([{ id: 'r', when, set: { frame: { opacity: '0.5' } } }], limits);
  const css = componentCssText(system, system.components[0]!);
  return /\n {2}([^\n]*) \{\n {4}opacity: 0\.5;/.exec(css)![1]!;
}

describe('selectors', () => {
  const root = (condition: string): string => `.pre-field-frame:where(.pre-field${condition} *)`;

  test('options by attribute, the default by the absence of the others', () => {
    expect(selectorFor({ size: 'l' })).toBe(root('[data-size="l"]'));
    expect(selectorFor({ size: 'm' })).toBe(root(':not([data-size="l"], [data-size="s"])'));
    expect(selectorFor({})).toBe('.pre-field-frame');
  });

  test('rungs of a ladder need one test, exact ones two', () => {
    expect(selectorFor({ pointer: 'over' })).toBe(root(':hover'));
    expect(selectorFor({ pointer: ['over'] })).toBe(root(':hover:not(:active)'));
    expect(selectorFor({ pointer: ['away'] })).toBe(root(':not(:hover)'));
    expect(selectorFor({ focus: 'keyboard', pointer: 'over' })).toBe(root(':hover:has(:focus-visible)'));
  });

  test('a limit keeps a rule away where it would only seem to hold, and brings it where it counts', () => {
    const disabled = [{ while: { availability: 'disabled' }, holds: { pointer: 'away' } }];
    expect(selectorFor({ pointer: 'over' }, disabled)).toBe(
      root(':hover:not(:has(.pre-field-control:disabled))'),
    );
    expect(selectorFor({ pointer: ['away'] }, disabled)).toBe(
      '.pre-field-frame:where(.pre-field:not(:hover) *, .pre-field:has(.pre-field-control:disabled) *)',
    );
  });
});

describe('tokens.css', () => {
  const documents = new Map<string, unknown>([
    [
      'system.json',
      {
        format: 'periwinkle-system/1',
        id: 's',
        title: 'S',
        prefix: 'pre',
        resolver: 'tokens/r.resolver.json',
      },
    ],
    [
      'tokens/r.resolver.json',
      {
        version: '2025.10',
        sets: {
          base: {
            sources: [
              {
                raw: { $type: 'dimension', a: px(1), b: px(2), unused: px(9) },
                role: { $type: 'dimension', x: { $value: '{raw.a}' } },
                own: { $type: 'dimension', y: { $value: '{role.x}' }, z: { $value: '{raw.b}' } },
              },
            ],
          },
        },
        modifiers: {
          theme: {
            default: 'day',
            contexts: { day: [], night: [{ role: { $type: 'dimension', x: { $value: '{raw.b}' } } }] },
          },
        },
        resolutionOrder: [{ $ref: '#/sets/base' }, { $ref: '#/modifiers/theme' }],
      },
    ],
    [
      'components/f.component.json',
      {
        format: 'periwinkle-component/1',
        id: 'f',
        anatomy: { part: 'root', kind: 'stack' },
        rules: [{ id: 'r', when: {}, set: { root: { width: '{own.y}', height: '{own.z}' } } }],
      },
    ],
  ]);

  test('a context repeats what differs there and what depends on it, and nothing else', () => {
    expect(tokensCssText(compileSystem(documents))).toBe(`/* Tokens of S */
:root {
  --pre-raw-a: 1px;
  --pre-raw-b: 2px;
  --pre-role-x: var(--pre-raw-a);
  --pre-own-y: var(--pre-role-x);
  --pre-own-z: var(--pre-raw-b);
}

[data-theme="day"] {
  --pre-role-x: var(--pre-raw-a);
  --pre-own-y: var(--pre-role-x);
}

[data-theme="night"] {
  --pre-role-x: var(--pre-raw-b);
  --pre-own-y: var(--pre-role-x);
}
`);
  });

  test('paths that come to the same custom property are reported', () => {
    const system = compileSystem(
      new Map([
        [
          'tokens/a.tokens.json',
          { 'a-b': { $type: 'number', c: { $value: 1 } }, a: { $type: 'number', 'b-c': { $value: 2 } } },
        ],
      ]),
    );
    expect(meaningProblems(system)).toEqual([
      expect.objectContaining({ code: 'name-collision', pointer: '/a/b-c' }),
    ]);
  });
});

describe('the demo', () => {
  const system = demoSystem();
  const [field] = system.components;

  test('is sound, and as large as it is said to be', () => {
    for (const [path, document] of demoDocuments()) expect(structureProblems(path, document)).toEqual([]);
    expect(meaningProblems(system)).toEqual([]);
    expect(system.tokens.usual().byKey.size).toBeGreaterThanOrEqual(70);
    expect(field!.situations.length).toBeGreaterThanOrEqual(10);
    expect(field!.situations.every(situation => situation.means.length > 20)).toBe(true);
    expect(field!.samples).toHaveLength(3);
    expect(field!.plates).toHaveLength(2);
    expect(field!.document.limits!.every(limit => (limit.because ?? '').length > 20)).toBe(true);
  });

  test('is written canonically: reading and writing changes no byte', () => {
    for (const [path, text] of demoTexts()) {
      const row = documentKind(path)!;
      if (row.json) expect(canonicalText(row.kind, JSON.parse(text))).toBe(text);
    }
  });

  test('gives the same bytes every time, from documents read anew', () => {
    const once = [...outputFiles(system), ...systemFolder(system)];
    const again = demoSystem();
    expect([...outputFiles(again), ...systemFolder(again)]).toEqual(once);
  });

  test('every custom property that is used is declared', () => {
    const css = componentCssText(system, field!) + tokensCssText(system);
    const used = new Set([...css.matchAll(/var\((--[\w-]+)/g)].map(match => match[1]!));
    const declared = new Set([...css.matchAll(/^\s*(--[\w-]+):/gm)].map(match => match[1]!));
    expect([...used].filter(name => !declared.has(name))).toEqual([]);
  });

  test('markup names its label, describes its control and says its state', () => {
    const html = exampleMarkup(system, field!, { availability: 'disabled', size: 'large' });
    expect(html).toContain('data-size="large"');
    expect(html).toMatch(/<label class="qs-text-field-label" for="vessel-control">Vessel name<\/label>/);
    expect(html).toMatch(/<input [^>]*id="vessel-control"[^>]* disabled>/);
    expect(html).toMatch(/aria-describedby="vessel-message"/);
    expect(html).toMatch(/<span class="qs-text-field-message" id="vessel-message">/);
  });
});
