import { freshSeed, runsOf } from '@periwinkle/core/test/runs';
import fc from 'fast-check';
import type { WebDriver } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { compileSystem, componentNamed, type System } from '@periwinkle/core/components/system';
import type { Component } from '@periwinkle/core/components/component';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { fieldHtml } from '@periwinkle/core/render/html';
import { namesOf } from '@periwinkle/core/render/names';
import { HELD, HOST, SHIPPED } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText } from '@periwinkle/core/output/stylesheet/stylesheet';
import type { Resolution } from '@periwinkle/core/cascade/outcome';
import { resolve } from '@periwinkle/core/cascade/resolve';
import type { Combination } from '@periwinkle/core/space/space';
import { everyCombination } from '@periwinkle/core/test/naive';
import { freeAxes } from '@periwinkle/core/test/naive-nesting';
import { randomNested, randomNestedWithParameters } from '@periwinkle/core/test/random-nested';
import { smallDocuments } from '@periwinkle/core/test/small-system';
import { componentCssText, tokensCssText } from '@periwinkle/core/output/outputs';
import { showFields } from './support/fields-page';
import { inBareBrowser } from './support/session';
import { demoSystem } from './support/demo';
import { differences, READ_STYLES, wantedFrom, type Styles } from './support/computed';
import { TIMEOUT } from './support/patience';

/**
 * Random components within components within others: what the core says of all their parts against what the browser computes,
 * each nested one in states of its own.
 */

const MOST_A_SYSTEM = 12;
let driver: WebDriver & Driver;

inBareBrowser(async browser => {
  driver = browser.driver as WebDriver & Driver;
  await driver.sendDevToolsCommand('DOM.enable', {});
  await driver.sendDevToolsCommand('CSS.enable', {});
});

interface Cell extends Resolution {
  readonly raw: Combination;
}

/** Systems with some raw combinations of the outermost component and all that is free in it. */
function* sampledSystems(
  libraries: typeof randomNested,
  seed: number,
  most: number,
): Generator<{ system: System; cells: Cell[] }> {
  let left = most;
  for (const library of fc.sample(libraries, { seed, numRuns: 1000 })) {
    if (left <= 0) return;
    const system = compileSystem(
      smallDocuments({
        documents: [...library].map(
          ([id, document]) => [`components/${id}.component.json`, document] as const,
        ),
      }),
    );
    if (system.components.some(({ problems }) => problems.some(each => each.severity === 'error'))) continue;
    const component = componentNamed(system, 'outer')!;
    const outer = library.get('outer')!;
    const free = freeAxes(outer, library);
    const own = everyCombination(outer);
    const all = Array.from({ length: 200 }, (_, number) => ({
      ...own[number % own.length],
      ...Object.fromEntries(
        free.map(([name, values], place) => [
          name,
          values[(number * 7 + place * 3 + (number >> 3)) % values.length]!,
        ]),
      ),
    }));
    const chosen = all.filter(raw => isPlain(component, raw)).slice(0, Math.min(MOST_A_SYSTEM, left));
    left -= chosen.length;
    const context = { tokens: system.tokens.usual(), rootFontSize: 16 };
    yield { system, cells: chosen.map(raw => ({ raw, ...resolve(component, raw, context) })) };
  }
}

/** Whether limits of nested components change nothing but the pointer, which alone the browser is made to believe. */
function isPlain(component: Component, raw: Combination): boolean {
  const { space } = component;
  const within = (outer: Component, indices: readonly number[]): boolean =>
    outer.nested.every(({ component: nested, reading }) => {
      const { raw: before, settled } = reading.indices(indices);
      const same = nested.space.axes.every(
        (axis, index) => axis.id === 'pointer' || before[index] === settled[index],
      );
      return same && within(nested, settled);
    });
  return within(component, space.settled(space.indices(raw)).combination);
}

/** Pseudo-classes of a pointer. */
const FORCED: Readonly<Record<string, string[]>> = { over: ['hover'], down: ['hover', 'active'] };

const command = (name: string, parameters: object): Promise<Record<string, never>> =>
  driver.sendAndGetDevToolsCommand(name, parameters) as Promise<never>;

/** A node as the browser's tools describe it, what is in shadow trees included. */
interface ToolNode {
  readonly nodeId: number;
  readonly attributes?: readonly string[];
  readonly children?: readonly ToolNode[];
  readonly shadowRoots?: readonly ToolNode[];
}

const attributeOf = ({ attributes = [] }: ToolNode, name: string): string | undefined =>
  attributes.find((_, index) => index % 2 === 1 && attributes[index - 1] === name);

const everyNode = (node: ToolNode): ToolNode[] => [
  node,
  ...[...(node.children ?? []), ...(node.shadowRoots ?? [])].flatMap(everyNode),
];

/** Has the browser treat parts as pointed at or pressed; in a shadow tree the element around it bears the outermost states. */
async function force(
  cells: readonly Cell[],
  component: Component,
  classOf: (part: string) => string,
  borneAround: boolean,
): Promise<void> {
  const { root } = (await command('DOM.getDocument', { depth: -1, pierce: true })) as unknown as {
    root: ToolNode;
  };
  const fields = new Map(everyNode(root).map(node => [attributeOf(node, 'id'), node]));
  for (const [index, { raw }] of cells.entries()) {
    const around = fields.get(`cell-${index}`)!;
    const byClass = new Map(everyNode(around).map(node => [attributeOf(node, 'class'), node.nodeId]));
    const bearing = (way: readonly string[]): (number | undefined)[] =>
      way.length === 0 && borneAround
        ? [around.nodeId]
        : ['root', 'bearer'].map(part =>
            byClass.get(classOf(component.anatomy.byName.get([...way, part].join('/'))!.name)),
          );
    for (const [name, value] of Object.entries(raw)) {
      const forcedPseudoClasses = name.endsWith('pointer') ? FORCED[value] : undefined;
      if (!forcedPseudoClasses) continue;
      for (const nodeId of bearing(name.split('/').slice(0, -1)))
        await command('CSS.forcePseudoState', { nodeId, forcedPseudoClasses });
    }
  }
}

const SETTINGS = {
  held: { scheme: HELD, mode: 'held' },
  shipped: { scheme: SHIPPED, mode: 'shipped' },
  host: { scheme: HOST, mode: 'shipped' },
} as const;

const total = { values: 0 };

const share = (all: number): number => Math.ceil((all * runsOf('nested looks in a browser')) / 100);

test.each([
  ['held', 800, 'plain', randomNested],
  ['shipped', 500, 'plain', randomNested],
  ['host', 200, 'plain', randomNested],
  ['held', 400, 'with parameters', randomNestedWithParameters],
  ['shipped', 300, 'with parameters', randomNestedWithParameters],
] as const)(
  'stylesheet %s: %d combinations of random nested components, %s',
  async (name, all, words, libraries) => {
    const combinations = share(all);
    const { scheme, mode } = SETTINGS[name];
    const lines: string[] = [];
    for (const { system, cells } of sampledSystems(
      libraries,
      freshSeed(`nested ${name} ${words}`),
      combinations,
    )) {
      const component = componentNamed(system, 'outer')!;
      const names = namesOf(system).component(component.id);
      const css = stylesheetText(componentStylesheet({ system, component, scheme }));
      const fields = cells.map((cell, index) => {
        const tree = fieldTree({
          component,
          names,
          icons: system.icons,
          sample: { id: 'x', content: { value: 'North quay' } },
          combination: mode === 'held' ? cell.combination : cell.raw,
          mode,
          id: `f${index}`,
        });
        const attributes = Object.entries(cell.raw).filter(([axis]) => !axis.includes('/'));
        return { html: fieldHtml(tree), attributes: Object.fromEntries(attributes) };
      });
      await showFields(driver, fields, scheme === HOST ? { page: [], inner: [css] } : { page: [css] });
      if (mode === 'shipped') await force(cells, component, names.part, scheme === HOST);
      const styles = await driver.executeScript<Styles[]>(
        `const read = new Function(${JSON.stringify(READ_STYLES)});
         return arguments[0].map((wanted, index) => read(document.getElementById('cell-' + index), wanted))`,
        cells.map(cell => wantedFrom(cell.parts, names.part)),
      );
      cells.forEach((cell, index) => {
        const found = differences(cell.parts, styles[index]!);
        total.values += found.compared;
        lines.push(
          ...found.lines.map(
            line =>
              `${line} in ${JSON.stringify(cell.raw)} of ${JSON.stringify(system.components.map(each => each.document))} ${css}`,
          ),
        );
      });
      if (lines.length > 0) break;
    }
    expect(lines.slice(0, 1)).toEqual([]);
  },
  TIMEOUT,
);

test('that were thousands of values', () => expect(total.values).toBeGreaterThanOrEqual(share(5000)));

describe('crew aboard, under a real hand', () => {
  const system = demoSystem();
  const component = componentNamed(system, 'crew')!;
  const names = namesOf(system).component('crew');
  const SHOWN = { content: 'filled' };
  const READ = `return new Function(${JSON.stringify(READ_STYLES)})(document.querySelector('.${names.root}'), arguments[0])`;

  /** What is different from the core in a combination, as the page stands. */
  async function lines(combination: Combination): Promise<string[]> {
    const { parts } = resolve(component, combination, { tokens: system.tokens.usual(), rootFontSize: 16 });
    return differences(parts, await driver.executeScript<Styles>(READ, wantedFrom(parts, names.part))).lines;
  }

  beforeAll(async () => {
    const tree = fieldTree({
      component,
      names,
      icons: system.icons,
      sample: component.samples[0],
      combination: component.space.written(component.space.indices(SHOWN)),
      mode: 'shipped',
      id: 'crew',
    });
    await driver.get('about:blank');
    await driver.executeScript(
      `document.head.innerHTML = '<style></style><style></style>';
       document.querySelectorAll('style').forEach((style, index) => (style.textContent = arguments[0][index]));
       document.body.innerHTML = arguments[1];`,
      [tokensCssText(system), componentCssText(system, component)],
      fieldHtml(tree),
    );
  }, TIMEOUT);

  const step = (part: 'less' | 'more') => driver.findElement({ css: `.${names.part(`${part}/button`)}` });

  // Whoever points into a label points at its control, too (HTML, 4.16.3).
  test('each step answers the pointer by itself, within a field that is pointed at', async () => {
    await driver
      .actions({ async: true })
      .move({ origin: step('less') })
      .perform();
    expect(await lines({ ...SHOWN, pointer: 'over', 'less/pointer': 'over' })).toEqual([]);
    await driver
      .actions({ async: true })
      .move({ origin: step('more') })
      .press()
      .perform();
    const pressed = { pointer: 'over', focus: 'in', 'more/pointer': 'down', 'more/focus': 'in' };
    expect(await lines({ ...SHOWN, ...pressed })).toEqual([]);
    await driver.actions({ async: true }).release().move({ x: 5, y: 590 }).perform();
  });

  test('at an end the step that leads further is spent, for eyes and for readers', async () => {
    await driver.executeScript(
      `document.activeElement.blur();
       document.querySelector('.${names.root}').dataset.range = 'min';
       arguments[0].disabled = true;`,
      await step('less'),
    );
    expect(await lines({ ...SHOWN, range: 'min' })).toEqual([]);
    await driver
      .actions({ async: true })
      .move({ origin: step('less') })
      .perform();
    expect(await lines({ ...SHOWN, pointer: 'over', range: 'min', 'less/pointer': 'over' })).toEqual([]);
  });

  test('the markup of an end has that step disabled, and only that one', () => {
    const combination = component.space.written(component.space.indices({ ...SHOWN, range: 'max' }));
    const html = fieldHtml(
      fieldTree({
        component,
        names,
        icons: system.icons,
        sample: component.samples[0],
        combination,
        mode: 'shipped',
        id: 'x',
      }),
    );
    expect(html.match(/<button [^>]*disabled[^>]*>/g)).toEqual([
      '<button class="qs-crew-more--button" type="button" disabled>',
    ]);
  });
});
