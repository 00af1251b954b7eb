import type { WebDriver } from 'selenium-webdriver';
import { tokensCssText } from '@periwinkle/core/output/outputs';
import { compileSystem } from '@periwinkle/core/components/system';
import { inBareBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Tokens that two modifiers decide together, on elements inside one another, as the browser computes them. */

let driver: WebDriver;
inBareBrowser(browser => ({ driver } = browser));

const number = (value: number | string): object => ({ $type: 'number', $value: value });
const system = compileSystem(
  new Map<string, unknown>([
    [
      'system.json',
      { format: 'periwinkle-system/1', id: 's', title: 'S', prefix: 'p', resolver: 'tokens/r.resolver.json' },
    ],
    [
      'tokens/r.resolver.json',
      {
        version: '2025.10',
        sets: { base: { sources: [{ a: number(0.1), b: number(0.2), both: number('{a}') }] } },
        modifiers: {
          theme: {
            default: 'day',
            contexts: { day: [], night: [{ a: number(0.3), both: number('{b}') }] },
            $extensions: { periwinkle: { media: { night: '(prefers-color-scheme: dark)' } } },
          },
          density: {
            default: 'roomy',
            contexts: { roomy: [], close: [{ a: number(0.5), b: number(0.6) }] },
          },
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

/** Opacity of each of some elements inside one another, given their attributes. */
async function opacities(nesting: readonly Record<string, string>[]): Promise<number[]> {
  await driver.get('about:blank');
  return driver.executeScript<number[]>(
    `const [css, nesting] = arguments;
     const sheet = new CSSStyleSheet();
     sheet.replaceSync(css + ' div { opacity: var(--p-both) }');
     document.adoptedStyleSheets = [sheet];
     let place = document.body;
     return nesting.map(attributes => {
       const element = document.createElement('div');
       for (const [name, value] of Object.entries(attributes)) element.dataset[name] = value;
       place.append(element);
       place = element;
       return Number(getComputedStyle(element).opacity);
     });`,
    tokensCssText(system),
    nesting,
  );
}

const expected = (theme: string, density: string): number =>
  Number(system.tokens.in({ theme, density }).byKey.get('both')!.css);

test(
  'each element has the token of the contexts around it, whoever switched which',
  async () => {
    expect(
      await opacities([
        {},
        { theme: 'night' },
        { density: 'close' },
        { theme: 'day' },
        { density: 'roomy', theme: 'night' },
        { density: 'close' },
      ]),
    ).toEqual([
      expected('day', 'roomy'),
      expected('night', 'roomy'),
      expected('night', 'close'),
      expected('day', 'close'),
      expected('night', 'roomy'),
      expected('night', 'close'),
    ]);
  },
  TIMEOUT,
);

test(
  'where the page names no context the media query chooses, also for what is decided together',
  async () => {
    const prefer = (value: string): Promise<unknown> =>
      (
        driver as unknown as { sendDevToolsCommand(name: string, parameters: object): Promise<unknown> }
      ).sendDevToolsCommand('Emulation.setEmulatedMedia', {
        features: [{ name: 'prefers-color-scheme', value }],
      });
    await prefer('dark');
    expect(await opacities([{}, { density: 'close' }, { theme: 'day' }])).toEqual([
      expected('night', 'roomy'),
      expected('night', 'close'),
      expected('day', 'close'),
    ]);
    await prefer('light');
    expect(await opacities([{}])).toEqual([expected('day', 'roomy')]);
  },
  TIMEOUT,
);
