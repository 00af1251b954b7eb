import { canonicalText } from '../documents/canonical';
import { documentKind } from '../documents/document-kinds';
import { structureProblems } from '../documents/structure-problems';
import { compileSystem, type System } from '../components/system';
import { demoDocuments, demoSystem, demoTexts } from '../test/demo';
import { componentPage, exampleMarkup } from './page/component-page';
import { smallSystem } from '../test/small-system';
import { sampleText } from '../components/content/sample-text';
import { componentCssText, outputFiles, tokensCssText } from './outputs';
import { systemFolder } from './system-folder';
import { stylesheetText } from './stylesheet/stylesheet';
import { tokensStylesheet } from './tokens/tokens-css';
import { meaningProblems } from '../checks/meaning-problems';

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
  expect(meaningProblems(system).filter(({ severity }) => severity === 'error')).toEqual([]);
  return system;
}

/** The selector that a single rule on the frame gets. */
function selectorFor(when: object, limits: object[] = []): string {
  const system = systemOf([{ id: 'r', when, set: { frame: { opacity: '0.5' } } }], limits);
  const css = componentCssText(system, system.components[0]!);
  const [, selector] = /\*\/\n([^{}]*) \{\n {2}opacity: 0\.5;/.exec(css)!;
  return selector!.replace(/\(\s+/g, '(').replace(/\s+\)/g, ')').replace(/\s+/g, ' ');
}

describe('selectors', () => {
  const root = (condition: string): string => `.pre-field-frame:where(.pre-field${condition} *)`;

  test('options by attribute, the default by the absence of the others', () => {
    expect(selectorFor({ size: 'l' })).toBe(root('[data-size="l"]'));
    expect(selectorFor({ size: 'm' })).toBe(root(':not([data-size="l"], [data-size="s"])'));
    expect(selectorFor({})).toBe('.pre-field-frame');
  });

  test('rungs of a ladder need one test, exact ones two', () => {
    const over = ':has(.pre-field-control:hover)';
    expect(selectorFor({ pointer: 'over' })).toBe(root(over));
    expect(selectorFor({ pointer: ['over'] })).toBe(
      root(`${over}:not(:has(.pre-field-control:hover:active))`),
    );
    expect(selectorFor({ pointer: ['away'] })).toBe(root(`:not(${over})`));
    expect(selectorFor({ focus: 'keyboard', pointer: 'over' })).toBe(root(`${over}:has(:focus-visible)`));
  });

  test('a limit keeps a rule away where it would only seem to hold, and brings it where it counts', () => {
    const disabled = [{ while: { availability: 'disabled' }, holds: { pointer: 'away' } }];
    expect(selectorFor({ pointer: 'over' }, disabled)).toBe(
      root(':has(.pre-field-control:hover):not(:has(.pre-field-control:disabled))'),
    );
    expect(selectorFor({ pointer: ['away'] }, disabled)).toBe(
      '.pre-field-frame:where(.pre-field:not(:has(.pre-field-control:hover)) *, .pre-field:has(.pre-field-control:disabled) *)',
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
    expect(stylesheetText({ ...tokensStylesheet(compileSystem(documents)), head: [] })).toBe(`:root {
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

/* Where a page sets some of these to values of its own */
[data-pre-anew] {
  --pre-own-y: var(--pre-role-x);
  --pre-own-z: var(--pre-raw-b);
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
    expect(field!.plates).toHaveLength(3);
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
    expect(html).toMatch(/<label class="qs-text-field-label" for="vessel-control" id="vessel-label">/);
    expect(html).toMatch(/aria-labelledby="vessel-label"/);
    expect(html).toMatch(/<input [^>]*id="vessel-control"[^>]* disabled>/);
    expect(html).toMatch(/<span class="qs-text-field-message" id="vessel-message" role="alert"><\/span>/);
    expect(html).not.toMatch(/aria-describedby="[^"]*vessel-message/);
    const wrong = exampleMarkup(system, field!, { validity: 'invalid', content: 'filled' });
    expect(wrong).toMatch(/aria-describedby="[^"]*vessel-message/);
    expect(wrong).toMatch(/role="alert">Not on the register</);
  });
});

describe('markup', () => {
  const fieldOf = (anatomy: object, samples: object[] = [], rules: object[] = []): System => {
    const axes = ['pointer', 'focus', 'content', 'validity', 'requirement', 'availability'].map(id => ({
      id,
      kind: 'state',
    }));
    const document = {
      format: 'periwinkle-component/1',
      id: 'field',
      title: 'Field',
      anatomy,
      axes,
      samples,
      rules,
    };
    return compileSystem(new Map([['components/field.component.json', document]]));
  };

  test('a component whose content is all absent is an empty element, not a crash', () => {
    const system = fieldOf({
      part: 'root',
      kind: 'stack',
      children: [{ part: 'label', kind: 'label', content: 'label' }],
    });
    expect(exampleMarkup(system, system.components[0]!)).toBe('<div class="ds-field"></div>');
    expect(outputFiles(system).length).toBeGreaterThan(5);
  });

  test('a root that is itself the control bears its own states', () => {
    const rules = [
      { id: 'off', when: { availability: 'disabled' }, set: { root: { opacity: '0.5' } } },
      { id: 'ring', when: { focus: 'keyboard' }, set: { root: { 'outline-offset': '2px' } } },
      { id: 'filled', when: { content: 'filled' }, set: { root: { opacity: '0.9' } } },
    ];
    const system = fieldOf({ part: 'root', kind: 'control', element: 'input' }, [], rules);
    const css = componentCssText(system, system.components[0]!);
    expect(css).toContain('.ds-field:where(:disabled) {');
    expect(css).toContain('.ds-field:where(:focus-visible) {');
    expect(css).toContain('.ds-field:where(:not(:placeholder-shown)) {');
  });

  test('without a control the first action bears the states', () => {
    const anatomy = {
      part: 'root',
      kind: 'row',
      children: [{ part: 'press', kind: 'action', content: 'word' }],
    };
    const rules = [{ id: 'off', when: { availability: 'disabled' }, set: { press: { opacity: '0.5' } } }];
    const system = fieldOf(anatomy, [{ id: 's', content: { word: 'More' } }], rules);
    expect(componentCssText(system, system.components[0]!)).toContain(
      '.ds-field:has(.ds-field-press:disabled) *',
    );
    expect(exampleMarkup(system, system.components[0]!, { availability: 'disabled' })).toMatch(
      /<button [^>]* disabled>More</,
    );
  });

  test('a text follows the axis that has all its values, not another that has one of them', () => {
    const { samples, space } = field!;
    const sample = samples.find(each => each.id === 'vessel')!;
    const combination = { ...space.written(space.indices({})), validity: 'invalid', content: 'filled' };
    expect(sampleText(sample.content['value'], combination, space.axes)).toBe('Osprey of Murrow');
    expect(
      sampleText(sample.content['message'], { ...combination, validity: 'none' }, space.axes),
    ).toBeUndefined();
  });
  const [field] = demoSystem().components;
});

describe('what a stylesheet says of itself', () => {
  const system = demoSystem();
  const files = outputFiles(system);
  const text = (path: string): string => files.find(file => file.path === path)!.text;

  test('its use, its layer and its browsers at the head; each block its condition and note', () => {
    for (const path of [
      'css/text-field.css',
      'css/tokens.css',
      'css/index.css',
      'css/layered/text-field.css',
    ])
      expect(text(path)).toMatch(/^\/\* .*\n {3}Use: .*\n {3}Stands in .*\n {3}Browsers: .* \*\//);
    expect(text('css/text-field.css')).toContain(
      '/* Tinted (tinted). The line keeps its room, so that nothing moves when it appears. */',
    );
    expect(text('css/text-field.css')).not.toMatch(/@layer/);
    expect(text('css/layered/text-field.css')).toContain('@layer qs.text-field {');
    expect(text('css/index.css')).toMatch(/@import "tokens\.css";\n(@import "[a-z-]+\.css";\n)*$/);
  });

  test('no line is longer than 120 characters', () => {
    for (const { path, text: css } of files)
      if (path.endsWith('.css')) expect(css.split('\n').filter(line => line.length >= 120)).toEqual([]);
  });

  test('the page beside it names every attribute that an application sets', () => {
    const readme = text('README.md');
    for (const each of [
      'data-size="small"',
      'aria-invalid="true"',
      'data-validity="valid"',
      'disabled',
      'readonly',
      'required',
      'aria-busy="true"',
      'data-theme="night"',
      'data-qs-anew',
      '| `data-content="filled"` on the outermost element |',
      '`data-focus="keyboard"` on the outermost element',
      '| Accent | `--qs-icon-button-accent` | color | `{color.line.over}` |',
    ])
      expect(readme).toContain(each);
  });
});

describe('what is told to readers of a field', () => {
  const field = (samples: object[]): System =>
    smallSystem({
      component: {
        anatomy: {
          part: 'root',
          kind: 'stack',
          children: [
            { part: 'inner', kind: 'control' },
            { part: 'note', kind: 'text', content: 'note' },
            { part: 'message', kind: 'text', content: 'message' },
          ],
        },
        axes: [
          { id: 'validity', kind: 'state' },
          { id: 'requirement', kind: 'state' },
        ],
        rules: [
          { id: 'calm', when: {}, set: { message: { present: 'false' } } },
          {
            id: 'wrong',
            when: { validity: 'invalid' },
            set: { message: { present: 'true' }, note: { present: 'false' } },
          },
        ],
        samples,
      },
    });

  test('only the message is an alert, not what makes room for it', () => {
    const system = field([{ id: 'x', content: { note: 'As registered.', message: 'No such vessel.' } }]);
    const html = exampleMarkup(system, system.components[0]!, { validity: 'invalid' });
    expect(html.match(/<span[^>]*role="alert"[^>]*>[^<]*/g)).toEqual([
      expect.stringContaining('No such vessel.'),
    ]);
    expect(exampleMarkup(system, system.components[0]!, {})).toMatch(/<span class="p-f-note"[^>]*>As/);
  });

  test.each([
    ['required', true],
    [{ required: 'needed' }, true],
    [{ required: 'needed', optional: 'may be left out' }, false],
    ['optional', false],
  ])('a sample that is marked %j is told so: %s', (mark, isRequired) => {
    const system = field([{ id: 'x', title: 'X', content: { mark } }]);
    const page = componentPage(system, system.components[0]!);
    expect(/<input[^>]* required/.test(page)).toBe(isRequired);
  });
});
