import type { WebDriver } from 'selenium-webdriver';
import { checkSystem } from '@periwinkle/core/checks/check-system';
import { componentNamed } from '@periwinkle/core/components/system';
import { componentCssText, tokensCssText } from '@periwinkle/core/output/outputs';
import { exampleMarkup } from '@periwinkle/core/output/page/component-page';
import { resolve } from '@periwinkle/core/cascade/resolve';
import { smallDocuments } from '@periwinkle/core/test/small-system';
import { inBareBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Parameters on a page: by default as the core says, set on a root or above it, taken over and handed on. */

let driver: WebDriver;

inBareBrowser(browser => ({ driver } = browser));

const color = (...components: number[]): object => ({
  $type: 'color',
  $value: { colorSpace: 'srgb', components },
});
const anatomy = (...children: object[]): object => ({
  part: 'root',
  kind: 'stack',
  children: [{ part: 'frame', kind: 'row', children: [...children, { part: 'inner', kind: 'control' }] }],
});
const PARAMETERS = [
  { id: 'accent', type: 'color', default: '{t.ink}' },
  { id: 'room', type: 'dimension', default: '4px' },
];
const RULES = [
  {
    id: 'a',
    when: {},
    set: {
      frame: { color: '@accent', 'min-height': 'calc(@room * 2 + 1px)', 'border-top-color': '@accent' },
    },
  },
];
const component = (id: string, more: object): readonly [string, object] => [
  `components/${id}.component.json`,
  { format: 'periwinkle-component/1', id, ...more },
];
const { system, problems } = checkSystem(
  smallDocuments({
    tokens: { t: { ink: color(0, 0, 1), sea: color(0, 1, 0) } },
    documents: [
      component('line', { anatomy: anatomy(), parameters: PARAMETERS, rules: RULES }),
      component('longer', { extends: 'line' }),
      component('pair', {
        anatomy: anatomy(
          { part: 'given', kind: 'use', component: 'line', parameters: { accent: '{t.sea}', room: '10px' } },
          { part: 'handed', kind: 'use', component: 'line', parameters: { accent: '@accent' } },
        ),
        parameters: PARAMETERS,
        rules: RULES,
      }),
      // What a use gives is heard through what the nested component, and what the outer one, calculate from it.
      component('step', {
        anatomy: anatomy(),
        parameters: PARAMETERS.slice(1),
        rules: [
          {
            id: 'a',
            when: {},
            set: {
              root: { 'padding-inline-start': '@room' },
              frame: { 'min-height': 'calc(@root.padding-inline-start * 3)' },
            },
          },
        ],
      }),
      component('through', {
        anatomy: anatomy({ part: 'side', kind: 'use', component: 'step', parameters: { room: '@room' } }),
        parameters: PARAMETERS.slice(1),
        rules: [
          {
            id: 'a',
            when: {},
            set: { frame: { 'min-height': 'calc(@side/root.padding-inline-start + 1px)' } },
          },
        ],
      }),
      component('further', {
        anatomy: anatomy({ part: 'side', kind: 'use', component: 'through', parameters: { room: '2px' } }),
        rules: [
          {
            id: 'a',
            when: {},
            set: { frame: { 'min-height': 'calc(@side/side/root.padding-inline-start + 2px)' } },
          },
        ],
      }),
    ],
  }),
);

/** Colour, line and least height of a part, as the browser has them. */
async function shown(id: string, part: string, style: string, around = ''): Promise<string[]> {
  const found = componentNamed(system, id)!;
  const markup = exampleMarkup(system, found, {}, undefined, 'f').replace('<div ', `<div style="${style}" `);
  const css = [tokensCssText(system), ...system.components.map(each => componentCssText(system, each))];
  await driver.get('about:blank');
  return driver.executeScript<string[]>(
    `const [css, html, around, part] = arguments;
     for (const text of css) { const style = document.createElement('style'); style.textContent = text; document.head.append(style); }
     document.body.innerHTML = '<div style="' + around + '">' + html + '</div>';
     const style = getComputedStyle(document.querySelector(part));
     return [style.color, style.borderTopColor, style.minHeight];`,
    css,
    markup,
    around,
    part,
  );
}

const INK = 'rgb(0, 0, 255)';
const SEA = 'rgb(0, 255, 0)';
const RED = 'rgb(255, 0, 0)';

test('is sound', () => expect(problems).toEqual([]));

test.each([
  ['line', '.p-line-frame', '', '', [INK, INK, '9px']],
  ['line', '.p-line-frame', '--p-line-accent: red; --p-line-room: 3px', '', [RED, RED, '7px']],
  ['line', '.p-line-frame', '', '--p-line-accent: red; --p-line-room: 0px', [RED, RED, '1px']],
  // A derived one reads its own name, then its base's.
  ['longer', '.p-longer-frame', '--p-longer-accent: red', '--p-line-accent: lime', [RED, RED, '9px']],
  ['longer', '.p-longer-frame', '', '--p-line-accent: red', [RED, RED, '9px']],
  // What a use gives holds against what stands around.
  ['pair', '.p-pair-given--frame', '', '--p-line-accent: red; --p-line-room: 3px', [SEA, SEA, '21px']],
  ['pair', '.p-pair-handed--frame', '--p-pair-accent: red', '', [RED, RED, '9px']],
  ['pair', '.p-pair-handed--frame', '', '', [INK, INK, '9px']],
])(
  '%s, %s with “%s” on it and “%s” around it',
  async (id, part, style, around, wanted) => {
    expect(await shown(id, part, style, around)).toEqual(wanted);
  },
  TIMEOUT,
);

test.each([
  ['through', '.p-through-side--frame', '', '12px'],
  ['through', '.p-through-frame', '', '5px'],
  ['through', '.p-through-side--frame', '--p-through-room: 7px', '21px'],
  ['through', '.p-through-frame', '--p-through-room: 7px', '8px'],
  ['further', '.p-further-side--side--frame', '', '6px'],
  ['further', '.p-further-side--frame', '', '3px'],
  ['further', '.p-further-frame', '', '4px'],
])(
  '%s, %s with “%s”: calculations refer through what uses give',
  async (id, part, style, wanted) => expect((await shown(id, part, style))[2]).toBe(wanted),
  TIMEOUT,
);

test.each(['through', 'further'])('%s: the core says the same', id => {
  const found = componentNamed(system, id)!;
  const { parts } = resolve(found, {}, { tokens: system.tokens.usual(), rootFontSize: 16 });
  const heights = Object.fromEntries(
    Object.entries(parts).flatMap(([name, own]) =>
      own['min-height'] ? [[name, own['min-height'].value]] : [],
    ),
  );
  expect(heights).toEqual(
    id === 'through'
      ? { frame: '5px', 'side/frame': '12px' }
      : { frame: '4px', 'side/frame': '3px', 'side/side/frame': '6px' },
  );
});

test.each(['line', 'longer', 'pair'])('%s: by default the browser shows what the core says', async id => {
  const found = componentNamed(system, id)!;
  const { parts } = resolve(found, {}, { tokens: system.tokens.usual(), rootFontSize: 16 });
  for (const [name, own] of Object.entries(parts)) {
    const css = `.p-${id}-${name.replaceAll('/', '--')}`;
    const [text, , height] = await shown(id, css, '');
    const hex = own['color']!.value;
    expect(text).toBe(`rgb(${[1, 3, 5].map(at => parseInt(hex.slice(at, at + 2), 16)).join(', ')})`);
    expect(height).toBe(own['min-height']!.value);
  }
});
