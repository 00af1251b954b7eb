import fc from 'fast-check';
import type { WebDriver } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { partClass } from '@periwinkle/core/emit/class-names';
import { componentStylesheet } from '@periwinkle/core/emit/component-css';
import { fieldTree } from '@periwinkle/core/emit/field-tree';
import { fieldHtml } from '@periwinkle/core/emit/html';
import { tokensCssText } from '@periwinkle/core/emit/outputs';
import { HELD, HOST, PART, SHIPPED, type SelectorScheme } from '@periwinkle/core/emit/selector-scheme';
import { stylesheetText } from '@periwinkle/core/emit/stylesheet';
import { resolve, type Resolution } from '@periwinkle/core/rules/resolve';
import { compileSystem, type System } from '@periwinkle/core/rules/system';
import type { Combination } from '@periwinkle/core/space/space';
import { everyCombination } from '@periwinkle/core/test/naive';
import { randomSystem } from '@periwinkle/core/test/random-system';
import { freshSeed } from '@periwinkle/core/test/seed';
import { openBrowser, type Browser } from './support/browser';
import { differences, READ_STYLES, wantedFrom, type Styles } from './support/computed';
import { TIMEOUT } from './support/patience';

/**
 * Random components with random limits, ladders, tokens in two contexts, composites, inheritance and calculations: what the
 * core says against what the browser computes, in every scheme of selectors.
 */

const MOST_A_SYSTEM = 20;
let browser: Browser;
let driver: WebDriver & Driver;

beforeAll(async () => {
  browser = await openBrowser();
  driver = browser.driver as WebDriver & Driver;
  await driver.sendDevToolsCommand('DOM.enable', {});
  await driver.sendDevToolsCommand('CSS.enable', {});
}, TIMEOUT);
afterAll(() => browser?.quit());

interface Cell extends Resolution {
  readonly raw: Combination;
  readonly theme: string;
}

/** Systems with some of their raw combinations, in every context, so many combinations in all. */
function* sampledSystems(seed: number, combinations: number): Generator<{ system: System; cells: Cell[] }> {
  let left = combinations;
  for (const { component: document, documents, contexts } of fc.sample(randomSystem, {
    seed,
    numRuns: 600,
  })) {
    if (left <= 0) return;
    const system = compileSystem(documents);
    const component = system.components[0]!;
    if (component.rules.length < 2 || component.problems.some(problem => problem.severity === 'error'))
      continue;
    const all = everyCombination(document);
    const step = Math.max(1, Math.floor(all.length / MOST_A_SYSTEM));
    const chosen = all.filter((_, index) => index % step === 0).slice(0, Math.min(MOST_A_SYSTEM, left));
    left -= chosen.length;
    yield {
      system,
      cells: chosen.flatMap(raw =>
        Object.keys(contexts).map(theme => ({
          raw,
          theme,
          ...resolve(component, raw, { tokens: system.tokens.in({ theme }), rootFontSize: 16 }),
        })),
      ),
    };
  }
}

const SAMPLE = { id: 'x', content: { label: 'Berth', value: 'North quay' } };

/** How a field in a raw combination stands on the page, and where its states are forced. */
interface Setting {
  readonly scheme: SelectorScheme;
  /** Whether the field stands in the shadow tree of an element that bears options and states. */
  readonly shadow: boolean;
  readonly combinationOf: (cell: Cell) => Combination;
}

const SETTINGS: Readonly<Record<string, Setting>> = {
  held: { scheme: HELD, shadow: false, combinationOf: cell => cell.combination },
  shipped: { scheme: SHIPPED, shadow: false, combinationOf: cell => cell.raw },
  host: { scheme: HOST, shadow: true, combinationOf: cell => cell.raw },
  part: { scheme: PART, shadow: true, combinationOf: cell => cell.raw },
};

/** Builds the page: each field under its theme; in a shadow tree, on a host with every axis as an attribute. */
const BUILD = `
  const [css, inner, fields, shadow] = arguments;
  document.adoptedStyleSheets = css.map(text => { const sheet = new CSSStyleSheet(); sheet.replaceSync(text); return sheet; });
  const own = inner.map(text => { const sheet = new CSSStyleSheet(); sheet.replaceSync(text); return sheet; });
  document.body.innerHTML = '';
  fields.forEach(({ html, theme, attributes }, index) => {
    const outer = document.createElement('div');
    outer.dataset.theme = theme;
    let place = outer;
    if (shadow) {
      const host = document.createElement('p-specimen');
      for (const [name, value] of Object.entries(attributes)) host.setAttribute('data-' + name, value);
      outer.append(host);
      place = host.attachShadow({ mode: 'open' });
      place.adoptedStyleSheets = own;
    }
    const field = document.createElement('div');
    field.innerHTML = html;
    place.append(field.firstElementChild);
    place.querySelectorAll('[class]').forEach(part =>
      part.setAttribute('part', part.className === 'p-specimen' ? 'root' : part.className.replace('p-specimen-', '')));
    (shadow ? outer.firstElementChild : outer).id = 'cell-' + index;
    document.body.append(outer);
  });`;

async function build(system: System, cells: readonly Cell[], setting: Setting): Promise<void> {
  const component = system.components[0]!;
  const { scheme, shadow } = setting;
  const sheet = componentStylesheet({ component, prefix: 'p', tokens: system.tokens.usual(), scheme });
  const reset = componentStylesheet({ component, prefix: 'p', tokens: system.tokens.usual(), scheme: HOST });
  const css = stylesheetText(sheet);
  const ground = stylesheetText({
    ...reset,
    blocks: reset.blocks.filter(block => block.key.startsWith('reset')),
  });
  const inside = scheme === PART ? ground : css;
  const tokens = tokensCssText(system);
  const fields = cells.map((cell, index) => ({
    html: fieldHtml(
      fieldTree({
        component,
        prefix: 'p',
        icons: system.icons,
        sample: SAMPLE,
        combination: setting.combinationOf(cell),
        mode: scheme === HELD ? 'held' : 'shipped',
        id: `f${index}`,
      }),
    ),
    theme: cell.theme,
    attributes: cell.raw,
  }));
  await driver.executeScript(
    BUILD,
    shadow && scheme === HOST ? [tokens] : [tokens, css],
    [inside],
    fields,
    shadow,
  );
}

/** Pseudo-classes that a combination asks for on the element that bears the states, and on the control. */
const FORCED: Readonly<Record<string, { bearer: string[]; control: string[] }>> = {
  over: { bearer: ['hover'], control: [] },
  down: { bearer: ['hover', 'active'], control: [] },
  in: { bearer: ['focus-within'], control: [] },
  keyboard: { bearer: ['focus-within'], control: ['focus-visible'] },
};

const command = (name: string, parameters: object): Promise<Record<string, never>> =>
  driver.sendAndGetDevToolsCommand(name, parameters) as Promise<never>;

/** Has the browser treat elements as pointed at, pressed or focused. */
async function force(cells: readonly Cell[], { scheme, shadow }: Setting): Promise<void> {
  if (scheme === HELD) return;
  const { root } = (await command('DOM.getDocument', { depth: 0 })) as unknown as {
    root: { nodeId: number };
  };
  const nodeAt = async (selector: string): Promise<number> =>
    ((await command('DOM.querySelector', { nodeId: root.nodeId, selector })) as unknown as { nodeId: number })
      .nodeId;
  for (const [index, { raw }] of cells.entries()) {
    const wanted = [raw['pointer'], raw['focus']].flatMap(value => FORCED[value ?? ''] ?? []);
    const bearer = wanted.flatMap(each => each.bearer);
    const control = wanted.flatMap(each => each.control);
    const at = shadow ? `#cell-${index}` : `#cell-${index} > .p-specimen`;
    if (bearer.length > 0)
      await command('CSS.forcePseudoState', { nodeId: await nodeAt(at), forcedPseudoClasses: bearer });
    if (control.length > 0 && !shadow)
      await command('CSS.forcePseudoState', {
        nodeId: await nodeAt(`#cell-${index} .p-specimen-control`),
        forcedPseudoClasses: control,
      });
  }
}

/** A box is never drawn lower than its own border, so of a small height the browser tells something else. */
const isSquashed = (property: string, value: string): boolean =>
  property === 'height' && parseFloat(value) < 20;

/** What can be compared: without what depends on the page around. */
const told = ({ parts }: Resolution): Resolution['parts'] =>
  Object.fromEntries(
    Object.entries(parts).map(([part, outcomes]) => [
      part,
      Object.fromEntries(
        Object.entries(outcomes).filter(
          ([property, { value }]) => value !== '' && value !== 'inherit' && !isSquashed(property, value),
        ),
      ),
    ]),
  );

test.each([
  ['held', 1000],
  ['shipped', 1000],
  ['host', 300],
  ['part', 300],
] as const)(
  'stylesheet %s: %d combinations of random components, in all contexts',
  async (name, combinations) => {
    const setting = SETTINGS[name]!;
    await driver.get('about:blank');
    let compared = 0;
    const lines: string[] = [];
    for (const { system, cells } of sampledSystems(freshSeed(`${name} in the browser`), combinations)) {
      const component = system.components[0]!;
      await build(system, cells, setting);
      await force(cells, setting);
      const wanted = cells.map(cell => wantedFrom(told(cell), part => partClass('p', component, part)));
      const styles = await driver.executeScript<Styles[]>(
        `const read = new Function(${JSON.stringify(READ_STYLES)});
         return arguments[0].map((wanted, index) => read(document.getElementById('cell-' + index), wanted))`,
        wanted,
      );
      cells.forEach((cell, index) => {
        const found = differences(told(cell), styles[index]!);
        compared += found.compared;
        lines.push(
          ...found.lines.map(
            line =>
              `${line} in ${cell.theme} ${JSON.stringify(cell.raw)} of ${JSON.stringify(component.document.rules)} ${JSON.stringify(component.document.limits)}`,
          ),
        );
      });
      if (lines.length > 0) break;
    }
    expect(lines.slice(0, 3)).toEqual([]);
    expect(compared).toBeGreaterThan(combinations);
  },
  TIMEOUT,
);
