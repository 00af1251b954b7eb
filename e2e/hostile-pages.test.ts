import type { WebDriver } from 'selenium-webdriver';
import { exampleMarkup } from '@periwinkle/core/output/page/component-page';
import { openBrowser, type Browser } from './support/browser';
import { Delivery } from './support/delivery';
import { demoSystem } from './support/demo';
import { TIMEOUT } from './support/patience';

/** The delivered field on pages with stylesheets of their own: every computed value of every part is as on a clean page. */

const system = demoSystem();
const component = system.components[0]!;
const delivery = new Delivery(system);
let browser: Browser;
let driver: WebDriver;

beforeAll(async () => {
  browser = await openBrowser();
  driver = browser.driver;
}, TIMEOUT);
afterAll(async () => {
  delivery.remove();
  await browser?.quit();
}, TIMEOUT);

/** What pages say of all their elements. */
const FOREIGN: Readonly<Record<string, string>> = {
  'a reset of boxes': '* { margin: 0; padding: 0; box-sizing: content-box; min-width: auto }',
  'a reset of lines':
    '*, *::before, *::after { border: 0 solid; outline: 3px dotted lime; background: none } *::before { content: "x" }',
  'fonts of elements':
    'input, button, label, span, div { font: italic 20px/3 serif; letter-spacing: .2em; text-transform: uppercase; color: crimson }',
  'displays of elements':
    'main div { display: grid; gap: 30px; place-items: center } main span, main label { display: inline; float: left; width: 40% }',
  'a reset of controls':
    'input, label { appearance: auto; height: 50px; border: 2px inset red; border-radius: 12px; box-shadow: 0 0 9px red; width: auto }',
  'a reset of drawings':
    'svg { width: 24px; height: 24px; vertical-align: middle; fill: red; display: inline } svg * { stroke: blue; fill: yellow; transform: rotate(9deg) }',
  placeholders:
    '::placeholder { color: pink; font-style: italic; opacity: .4; letter-spacing: 3px } ::selection { background: red }',
  'what text inherits':
    'body { font: 22px/3 monospace; word-spacing: 1em; text-indent: 2em; white-space: pre; font-variant: small-caps; text-shadow: 1px 1px red; text-align: right; cursor: crosshair; letter-spacing: 4px; list-style: square }',
  'motion and place':
    '* { transition: all 2s; transform: rotate(1deg); filter: blur(1px); opacity: .5; position: relative; z-index: 3; float: left; overflow: hidden }',
  'states of elements':
    ':hover { background: yellow } :focus { outline: 3px solid red } :disabled { opacity: .3; cursor: wait } [type] { padding: 9px } label { user-select: none; margin-bottom: 8px }',
};

const situations = component.situations.slice(0, 10);

/** The page with a stylesheet of its own linked before ours, or after it where it speaks of elements alone. */
function page(foreign: string, after: boolean): string {
  const own = `<style>${foreign}</style>`;
  const ours = '<link rel="stylesheet" href="css/index.css">';
  const fields = situations.map(({ when }, index) =>
    exampleMarkup(system, component, { leading: 'icon', ...when }, undefined, `f${index}`),
  );
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Arrivals</title>${after ? ours + own : own + ours}</head>
<body><main><form>${fields
    .map(field => `<div class="place" style="all: unset; display: block; width: 300px">${field}</div>`)
    .join('\n')}</form></main></body></html>`;
}

/** By situation and part: its properties, a line each. */
type Computed = Record<string, string>;

/** Every computed value of every part at rest, its drawing and its placeholder. */
const READ = `
  document.getAnimations().forEach(each => each.finish());
  const all = style => [...style].map(property => property + ': ' + style.getPropertyValue(property)).join('\\n');
  return Object.fromEntries([...document.querySelectorAll('.place')].flatMap((place, index) =>
    [...place.querySelectorAll('*')].flatMap((element, at) => {
      const name = index + ' ' + at + ' ' + (element.getAttribute('class') ?? element.tagName);
      return [
        [name, all(getComputedStyle(element))],
        // A drawing generates no content.
        ...(element.closest('svg') ? [] : ['::before', '::after'].map(pseudo => [name + pseudo, getComputedStyle(element, pseudo).content])),
        ...(element.tagName === 'INPUT' ? [[name + '::placeholder', all(getComputedStyle(element, '::placeholder'))]] : []),
      ];
    })));`;

const linesOf = (text: string): string[] => text.split('\n');

/** Lines of a part that are not as they were. */
function changed(before: string, after: string): string[] {
  if (before === after) return [];
  const now = linesOf(after);
  return linesOf(before).flatMap((line, index) =>
    line === now[index] ? [] : [`${line} became ${now[index]}`],
  );
}

async function computed(name: string, foreign: string, after: boolean): Promise<Computed> {
  await driver.get(delivery.write(`${name}.html`, page(foreign, after)));
  return driver.executeScript<Computed>(READ);
}

describe.each([
  ['before ours', false],
  ['after ours', true],
] as const)('a foreign stylesheet %s', (_, after) => {
  let clean: Computed;
  beforeAll(async () => {
    clean = await computed('clean', '', after);
  }, TIMEOUT);

  // What a page says of states weighs as much as one class: there the order of the links decides.
  test.each(Object.entries(FOREIGN).filter(([name]) => !(after && name === 'states of elements')))(
    '%s',
    async (_, foreign) => {
      const found = await computed('foreign', foreign, after);
      expect(Object.keys(found)).toEqual(Object.keys(clean));
      const differing = Object.keys(clean).flatMap(part =>
        changed(clean[part]!, found[part]!).map(line => `${part} ${line}`),
      );
      expect(differing.slice(0, 20)).toEqual([]);
      expect(Object.values(clean).flatMap(linesOf).length).toBeGreaterThan(30_000);
    },
    TIMEOUT,
  );
});
