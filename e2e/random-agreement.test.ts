import { freshSeed, runsOf } from '@periwinkle/core/test/runs';
import fc from 'fast-check';
import type { WebDriver } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { checkSystem } from '@periwinkle/core/checks/check-system';
import type { System } from '@periwinkle/core/components/system';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { fieldHtml } from '@periwinkle/core/render/html';
import { namesOf } from '@periwinkle/core/render/names';
import {
  HELD,
  HOST,
  PART,
  SHIPPED,
  type SelectorScheme,
} from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText } from '@periwinkle/core/output/stylesheet/stylesheet';
import { tokensStylesheet } from '@periwinkle/core/output/tokens/tokens-css';
import type { Resolution } from '@periwinkle/core/cascade/outcome';
import { resolve } from '@periwinkle/core/cascade/resolve';
import type { Combination } from '@periwinkle/core/space/space';
import { PROPERTIES } from '@periwinkle/core/css/property-registry';
import { readValue } from '@periwinkle/core/css/value-syntax';
import { everyCombination } from '@periwinkle/core/test/naive';
import { LITERALS, LOOKS_SAMPLE, randomLooks } from '@periwinkle/core/test/random-looks';
import { inBareBrowser } from './support/session';
import { differences, READ_STYLES, wantedFrom, type Styles } from './support/computed';
import { TIMEOUT } from './support/patience';

/**
 * Random components that say everything that can be said of every property, with random limits, ladders and tokens in contexts
 * that meet: what the core says against what the browser computes, in every scheme of selectors.
 */

const MOST_A_SYSTEM = 8;
const CONTEXTS = ['day', 'night'].flatMap(theme => ['roomy', 'close'].map(density => ({ theme, density })));
let driver: WebDriver & Driver;

inBareBrowser(async browser => {
  driver = browser.driver as WebDriver & Driver;
  await driver.sendDevToolsCommand('DOM.enable', {});
  await driver.sendDevToolsCommand('CSS.enable', {});
});

interface Cell extends Resolution {
  readonly raw: Combination;
  readonly contexts: (typeof CONTEXTS)[number];
}

/** Systems with some of their raw combinations, each in some context, so many in all. */
function* sampledSystems(seed: number, most: number): Generator<{ system: System; cells: Cell[] }> {
  let left = most;
  for (const { component: document, documents } of fc.sample(randomLooks, { seed, numRuns: 1000 })) {
    if (left <= 0) return;
    const { system, problems } = checkSystem(documents);
    if (problems.some(problem => problem.severity === 'error')) continue;
    const component = system.components[0]!;
    const all = everyCombination(document);
    const step = Math.max(1, Math.floor(all.length / MOST_A_SYSTEM));
    const chosen = all.filter((_, index) => index % step === 0).slice(0, Math.min(MOST_A_SYSTEM, left));
    left -= chosen.length;
    yield {
      system,
      cells: chosen.map((raw, index) => {
        const contexts = CONTEXTS[index % CONTEXTS.length]!;
        const context = { tokens: system.tokens.in(contexts), rootFontSize: 16 };
        return { raw, contexts, ...resolve(component, raw, context) };
      }),
    };
  }
}

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

/**
 * Builds the page: each field in its contexts, switched on elements inside one another; in a shadow tree, on a host with every
 * axis as an attribute. Nothing is laid out, so that lengths are read as computed and not as used.
 */
const BUILD = `
  const [css, inner, fields, shadow] = arguments;
  document.adoptedStyleSheets = css.map(text => { const sheet = new CSSStyleSheet(); sheet.replaceSync(text); return sheet; });
  const own = inner.map(text => { const sheet = new CSSStyleSheet(); sheet.replaceSync(text); return sheet; });
  document.body.innerHTML = '';
  document.body.style.display = 'none';
  fields.forEach(({ html, contexts, attributes }, index) => {
    const around = document.createElement('div');
    const outer = document.createElement('div');
    const [first, second] = index % 2 === 0 ? [around, outer] : [outer, around];
    first.dataset.theme = contexts.theme;
    second.dataset.density = contexts.density;
    around.append(outer);
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
    document.body.append(around);
  });`;

async function build(system: System, cells: readonly Cell[], setting: Setting): Promise<void> {
  const component = system.components[0]!;
  const { scheme, shadow } = setting;
  const names = namesOf(system).component(component.id);
  const css = stylesheetText(componentStylesheet({ system, component, scheme }));
  const reset = componentStylesheet({ system, component, scheme: HOST });
  const ground = stylesheetText({
    ...reset,
    blocks: reset.blocks.filter(block => block.key.startsWith('reset')),
  });
  const tokens = stylesheetText(tokensStylesheet(system));
  const fields = cells.map((cell, index) => ({
    html: fieldHtml(
      fieldTree({
        component,
        names,
        icons: system.icons,
        sample: LOOKS_SAMPLE,
        combination: setting.combinationOf(cell),
        mode: scheme === HELD ? 'held' : 'shipped',
        id: `f${index}`,
      }),
    ),
    contexts: cell.contexts,
    attributes: cell.raw,
  }));
  await driver.executeScript(
    BUILD,
    shadow && scheme === HOST ? [tokens] : [tokens, css],
    [scheme === PART ? ground : css],
    fields,
    shadow,
  );
}

/** Pseudo-classes that a combination asks for: on the host or the root, and on the control. */
const FORCED: Readonly<Record<string, { root: string[]; control: string[] }>> = {
  over: { root: ['hover'], control: ['hover'] },
  down: { root: ['hover', 'active'], control: ['hover', 'active'] },
  in: { root: ['focus-within'], control: [] },
  keyboard: { root: ['focus-within'], control: ['focus-visible'] },
};

const command = (name: string, parameters: object): Promise<Record<string, never>> =>
  driver.sendAndGetDevToolsCommand(name, parameters) as Promise<never>;

/** Has the browser treat elements as pointed at, pressed or focused. */
async function force(cells: readonly Cell[], { scheme, shadow }: Setting): Promise<void> {
  if (scheme === HELD) return;
  const { root } = (await command('DOM.getDocument', { depth: 0 })) as unknown as {
    root: { nodeId: number };
  };
  const forceOn = async (selector: string, forcedPseudoClasses: string[]): Promise<void> => {
    if (forcedPseudoClasses.length === 0) return;
    const found = await command('DOM.querySelector', { nodeId: root.nodeId, selector });
    const { nodeId } = found as unknown as { nodeId: number };
    await command('CSS.forcePseudoState', { nodeId, forcedPseudoClasses });
  };
  for (const [index, { raw }] of cells.entries()) {
    const wanted = [raw['pointer'], raw['focus']].flatMap(value => FORCED[value ?? ''] ?? []);
    await forceOn(
      shadow ? `#cell-${index}` : `#cell-${index} > .p-specimen`,
      wanted.flatMap(each => each.root),
    );
    if (!shadow)
      await forceOn(
        `#cell-${index} .p-specimen-control`,
        wanted.flatMap(each => each.control),
      );
  }
}

/** Texts of every kind, for themselves, two side by side and parted by a slash. */
function literals(): string[] {
  const single = Object.values(LITERALS).flat();
  const lengths = LITERALS['length']!;
  const pairs = lengths.flatMap(a => lengths.flatMap(b => [`${a} ${b}`, `${a}/${b}`, `${a} auto`]));
  return [
    ...single,
    ...new Set(pairs),
    '0 0 -1px',
    '0 0 1px -1px',
    '0 -1px 0',
    '1 -1 0',
    '-1%',
    '-1em',
    '1e-7px',
    '+3px',
    '.5',
    '1.',
    '1E3px',
  ];
}

test(
  'whatever the core takes as CSS, the browser takes',
  async () => {
    await driver.get('about:blank');
    const taken = PROPERTIES.filter(({ kind }) => kind !== 'presence').flatMap(property =>
      [...property.keywords, ...literals()].flatMap(text => {
        const read = readValue(property, text);
        return read.ok && read.value.kind === 'literal' ? [[property.name, read.value.css]] : [];
      }),
    );
    expect(taken.length).toBeGreaterThan(2_000);
    const refused = await driver.executeScript<string[][]>(
      'return arguments[0].filter(([name, css]) => !CSS.supports(name, css))',
      taken,
    );
    expect(refused).toEqual([]);
  },
  TIMEOUT,
);

const TOTAL = { values: 0 };

const share = (all: number): number => Math.ceil((all * runsOf('looks in a browser')) / 100);

test.each([
  ['held', 700],
  ['shipped', 700],
  ['host', 200],
  ['part', 200],
] as const)(
  'stylesheet %s: %d combinations of random components, in contexts that meet',
  async (name, all) => {
    const combinations = share(all);
    const setting = SETTINGS[name]!;
    await driver.get('about:blank');
    const lines: string[] = [];
    for (const { system, cells } of sampledSystems(freshSeed(`${name} in the browser`), combinations)) {
      const component = system.components[0]!;
      const names = namesOf(system).component(component.id);
      await build(system, cells, setting);
      await force(cells, setting);
      const wanted = cells.map(cell => wantedFrom(cell.parts, names.part));
      const styles = await driver.executeScript<Styles[]>(
        `const read = new Function(${JSON.stringify(READ_STYLES)});
         return arguments[0].map((wanted, index) => read(document.getElementById('cell-' + index), wanted))`,
        wanted,
      );
      cells.forEach((cell, index) => {
        const found = differences(cell.parts, styles[index]!);
        TOTAL.values += found.compared;
        lines.push(
          ...found.lines.map(
            line =>
              `${line} in ${JSON.stringify(cell.contexts)} ${JSON.stringify(cell.raw)} of ${JSON.stringify(component.document.rules)} ${JSON.stringify(component.document.limits)}`,
          ),
        );
      });
      if (lines.length > 0) break;
    }
    expect(lines.slice(0, 3)).toEqual([]);
  },
  TIMEOUT,
);

test('that were thousands of values', () => expect(TOTAL.values).toBeGreaterThanOrEqual(share(20_000)));
