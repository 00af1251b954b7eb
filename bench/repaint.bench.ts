/**
 * From an edit to the repainted plate, of 648 text fields and of 120 open lists of eight entries, against a bare hand-written page
 * of the same fields on which one custom property is set. All three are measured in turn in one run of one browser, in the page, from the call to the
 * second animation frame after it (the first frame's work, layout and paint included, has then been done).
 */
import type { WebDriver } from 'selenium-webdriver';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { namesOf } from '@periwinkle/core/render/names';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { fieldHtml } from '@periwinkle/core/render/html';
import { tokensCssText } from '@periwinkle/core/output/outputs';
import { HELD } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText } from '@periwinkle/core/output/stylesheet/stylesheet';
import { arrangementOf, plateGrid, sampleNamed } from '@periwinkle/core/cascade/plates/plate-grid';
import { componentNamed } from '@periwinkle/core/components/system';
import { Application } from '../e2e/support/application';
import { openBrowser } from '../e2e/support/browser';
import { demoSystem } from '../e2e/support/demo';

const ROUNDS = 31;

interface Case {
  readonly words: string;
  readonly component: string;
  readonly layout: {
    readonly across: readonly string[];
    readonly down: readonly string[];
    readonly hold: Readonly<Record<string, string>>;
  };
  /** So many specimens at least. */
  readonly specimens: number;
  /** At most so many times the bare page. */
  readonly aims: { readonly token: number; readonly rule: number };
}

const CASES: readonly Case[] = [
  {
    words: 'Text fields',
    component: 'text-field',
    layout: {
      across: ['pointer', 'focus', 'content'],
      down: ['size', 'label-placement', 'leading', 'trailing'],
      hold: {},
    },
    specimens: 600,
    aims: { token: 1.5, rule: 2 },
  },
  {
    words: 'Open lists of eight entries',
    component: 'berth',
    layout: {
      across: ['content', 'validity'],
      down: ['size', 'appearance', 'label-placement'],
      hold: { disclosure: 'open', focus: 'keyboard', element: 'button' },
    },
    specimens: 120,
    aims: { token: 1.3, rule: 2 },
  },
];

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** Hand-written page: the same fields and the same stylesheet, nothing of ours around. */
function barePage({ component: id, layout }: Case): { html: string; css: string[] } {
  const system = demoSystem();
  const component = componentNamed(system, id)!;
  const grid = plateGrid(component, { ...arrangementOf(component, null), ...layout });
  const cells = grid.cells.flat().filter(cell => cell.never === null);
  const held = stylesheetText(componentStylesheet({ system, component, scheme: HELD }));
  const fields = cells.map((cell, index) =>
    fieldHtml(
      fieldTree({
        component,
        names: namesOf(system).component(component.id),
        icons: system.icons,
        sample: sampleNamed(component, null),
        combination: cell.combination,
        mode: 'held',
        id: `f${index}`,
      }),
    ),
  );
  const html = `<div id="fields" data-theme="day" style="display:grid;grid-template-columns:repeat(${grid.columns.length},146px)">${fields.map(field => `<div style="padding:9px 11px">${field}</div>`).join('')}</div>`;
  return { html, css: [tokensCssText(system), held] };
}

/** Script: time from `act()` until the frame that shows it has been made, in ms. */
const MEASURE = `
  window.measure = act => new Promise(resolve => {
    requestAnimationFrame(() => {
      const start = performance.now();
      act();
      const channel = new MessageChannel();
      // A task right after the frame's work: style, layout and paint of the change lie between.
      requestAnimationFrame(() => { channel.port1.onmessage = () => resolve(performance.now() - start); channel.port2.postMessage(0); });
    });
  });`;

const run = (driver: WebDriver, act: string): Promise<number> =>
  driver.executeAsyncScript<number>(
    `const done = arguments[arguments.length - 1]; measure(() => { ${act} }).then(done)`,
  );

const pathOf = (id: string): string => `components/${id}.component.json`;

async function repaint(driver: WebDriver, address: string, each: Case): Promise<void> {
  const { component, layout, words, aims } = each;
  const bare = barePage(each);
  await driver.get('about:blank');
  const barePageWindow = await driver.getWindowHandle();
  await driver.executeScript(
    `for (const text of arguments[1]) { const style = document.createElement('style'); style.textContent = text; document.head.append(style); }
     document.body.innerHTML = arguments[0]; ${MEASURE}`,
    bare.html,
    bare.css,
  );
  await driver.switchTo().newWindow('window');
  const plateWindow = await driver.getWindowHandle();
  const query = new URLSearchParams({
    across: layout.across.join(','),
    down: layout.down.join(','),
    hold: Object.entries(layout.hold)
      .map(pair => pair.join(':'))
      .join(','),
  });
  await driver.get(`${address}/quayside/${component}?${query.toString()}`);
  await driver.wait(
    () =>
      driver.executeScript(`return document.querySelectorAll('.cell .specimen').length >= ${each.specimens}`),
    30_000,
  );
  const specimens = await driver.executeScript<number>(
    `return document.querySelectorAll('.cell .specimen').length`,
  );
  await driver.executeScript(MEASURE);
  const path = pathOf('text-field');
  const stored = async (): Promise<unknown> =>
    driver.wait(
      () => driver.executeScript(`return document.querySelector('.storing').textContent === 'stored'`),
      15_000,
    );
  const setLine = (value: string): string =>
    `periwinkle.edit('${path}', [{ op: 'replace', path: '/rules/0/set/frame/border-color', value: '${value}' }], 'bench')`;

  /** Measures all three in turn and prints the ratios. */
  const compare = async (how: string): Promise<void> => {
    const timings = { bare: [] as number[], token: [] as number[], rule: [] as number[] };
    for (let round = 0; round < ROUNDS; round++) {
      const shade = (round * 7) % 90;
      await driver.switchTo().window(barePageWindow);
      timings.bare.push(
        await run(
          driver,
          `document.getElementById('fields').style.setProperty('--qs-color-line-rest', 'rgb(${shade} 10 10)')`,
        ),
      );
      await driver.switchTo().window(plateWindow);
      // The same calls as the screens make, from the edit on: store, compile, stylesheet, interface.
      timings.token.push(
        await run(
          driver,
          `periwinkle.edit('tokens/day.tokens.json', [{ op: 'replace', path: '/color/line/rest/$value', value: { colorSpace: 'srgb', components: [${shade / 255}, 0.04, 0.04] } }], 'bench')`,
        ),
      );
      timings.rule.push(await run(driver, setLine(`rgb(${shade}, 20, 20)`)));
      await stored();
      // The next token edit is to be seen again.
      await run(driver, setLine('{color.line.rest}'));
      await stored();
    }
    const base = median(timings.bare);
    process.stdout.write(
      `${words}, ${how}: repainting after an edit, ${specimens} specimens, against a bare page of as many fields (median of ${ROUNDS}, one run)\n`,
    );
    for (const kind of ['token', 'rule'] as const) {
      process.stdout.write(
        `  ${kind} edit: ${(median(timings[kind]) / base).toFixed(2)} times the bare page (aim ${aims[kind]})\n`,
      );
    }
  };
  await compare('cells out of sight not styled');
  await driver.switchTo().window(plateWindow);
  await driver.executeScript(
    `const all = new CSSStyleSheet(); all.replaceSync('.plate .cell { content-visibility: visible !important }');
     document.adoptedStyleSheets = [...document.adoptedStyleSheets, all];`,
  );
  await compare('every cell styled');
  await driver.close();
  await driver.switchTo().window(barePageWindow);
}

const application = new Application();
const address = await application.start();
const browser = await openBrowser();
try {
  for (const each of CASES) await repaint(browser.driver, address, each);
} finally {
  await browser.quit();
  await application.remove();
}
