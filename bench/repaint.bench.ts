/**
 * From an edit to the repainted plate with 648 specimens, against a bare hand-written page of the same 648 fields on which
 * one custom property is set. All three are measured in turn in one run of one browser, in the page, from the call to the
 * second animation frame after it (the first frame's work, layout and paint included, has then been done).
 */
import type { WebDriver } from 'selenium-webdriver';
import { componentStylesheet } from '@periwinkle/core/emit/component-css';
import { namesOf } from '@periwinkle/core/emit/names';
import { fieldTree } from '@periwinkle/core/emit/field-tree';
import { fieldHtml } from '@periwinkle/core/emit/html';
import { tokensCssText } from '@periwinkle/core/emit/outputs';
import { HELD } from '@periwinkle/core/emit/selector-scheme';
import { stylesheetText } from '@periwinkle/core/emit/stylesheet';
import { arrangementOf, plateGrid, sampleNamed } from '@periwinkle/core/plates/plate-grid';
import { Application } from '../e2e/support/application';
import { openBrowser } from '../e2e/support/browser';
import { demoSystem } from '../e2e/support/demo';

const ROUNDS = 31;
/** 18 columns by 36 rows, every one a combination that can be: 648 specimens. */
const LAYOUT = {
  across: ['pointer', 'focus', 'content'],
  down: ['size', 'appearance', 'leading', 'trailing'],
};

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** Hand-written page: the same fields and the same stylesheet, nothing of ours around. */
function barePage(): { html: string; css: string[] } {
  const system = demoSystem();
  const component = system.components[0]!;
  const grid = plateGrid(component, { ...arrangementOf(component, null), ...LAYOUT });
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
  const html = `<div id="fields" data-theme="day" style="display:grid;grid-template-columns:repeat(18,146px)">${fields.map(field => `<div style="padding:9px 11px">${field}</div>`).join('')}</div>`;
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

const application = new Application();
const address = await application.start();
const browser = await openBrowser();
const { driver } = browser;
try {
  const bare = barePage();
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
  const query = new URLSearchParams({ across: LAYOUT.across.join(','), down: LAYOUT.down.join(',') });
  await driver.get(`${address}/quayside/text-field?${query.toString()}`);
  await driver.wait(
    () => driver.executeScript(`return document.querySelectorAll('.cell .specimen').length >= 600`),
    30_000,
  );
  const specimens = await driver.executeScript<number>(
    `return document.querySelectorAll('.cell .specimen').length`,
  );
  await driver.executeScript(MEASURE);

  /** Measures all three in turn and prints the ratios. */
  const compare = async (words: string): Promise<void> => {
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
      timings.rule.push(
        await run(
          driver,
          `periwinkle.edit('components/text-field.component.json', [{ op: 'replace', path: '/rules/0/set/frame/border-color', value: 'rgb(${shade}, 20, 20)' }], 'bench')`,
        ),
      );
      await driver.wait(
        () => driver.executeScript(`return document.querySelector('.storing').textContent === 'stored'`),
        15_000,
      );
      // The next token edit is to be seen again.
      await run(
        driver,
        `periwinkle.edit('components/text-field.component.json', [{ op: 'replace', path: '/rules/0/set/frame/border-color', value: '{color.line.rest}' }], 'bench')`,
      );
      await driver.wait(
        () => driver.executeScript(`return document.querySelector('.storing').textContent === 'stored'`),
        15_000,
      );
    }
    const base = median(timings.bare);
    process.stdout.write(
      `${words}: repainting after an edit, ${specimens} specimens, against a bare page of as many fields (median of ${ROUNDS}, one run)\n`,
    );
    for (const [kind, aim] of [
      ['token', 1.5],
      ['rule', 2],
    ] as const) {
      process.stdout.write(
        `  ${kind} edit: ${(median(timings[kind]) / base).toFixed(2)} times the bare page (aim ${aim})\n`,
      );
    }
  };
  await compare('As it is, cells out of sight not styled');
  await driver.switchTo().window(plateWindow);
  await driver.executeScript(
    `const all = new CSSStyleSheet(); all.replaceSync('.plate .cell { content-visibility: visible !important }');
     document.adoptedStyleSheets = [...document.adoptedStyleSheets, all];`,
  );
  await compare('With every cell styled');
} finally {
  await browser.quit();
  await application.remove();
}
