/** Resolving a plate of 648 specimens with trails, against the browser's style and layout of as many bare fields, in one run. */
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { namesOf } from '@periwinkle/core/render/names';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { fieldHtml } from '@periwinkle/core/render/html';
import { tokensCssText } from '@periwinkle/core/output/outputs';
import { HELD } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText } from '@periwinkle/core/output/stylesheet/stylesheet';
import { arrangementOf, plateGrid } from '@periwinkle/core/cascade/plates/plate-grid';
import { CombinationResolver } from '@periwinkle/core/cascade/resolve';
import { openBrowser } from '../e2e/support/browser';
import { demoSystem } from '../e2e/support/demo';
import { median, timed } from './support/generated';

const ROUNDS = 15;
const system = demoSystem();
const component = system.components[0]!;
const grid = plateGrid(component, {
  ...arrangementOf(component, null),
  across: ['pointer', 'focus', 'content'],
  down: ['size', 'appearance', 'leading', 'trailing'],
});
const cells = grid.cells.flat().filter(cell => cell.never === null);
const held = componentStylesheet({ system, component, scheme: HELD });
const fields = cells.map((cell, index) =>
  fieldHtml(
    fieldTree({
      component,
      names: namesOf(system).component(component.id),
      icons: system.icons,
      sample: component.samples[0],
      combination: cell.combination,
      mode: 'held',
      id: `f${index}`,
    }),
  ),
);
const browser = await openBrowser();
try {
  await browser.driver.get('about:blank');
  const layout: number[] = [];
  const resolving: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    layout.push(
      await browser.driver.executeScript<number>(
        `document.head.innerHTML = ''; document.body.innerHTML = '';
         for (const text of arguments[1]) { const style = document.createElement('style'); style.textContent = text; document.head.append(style); }
         document.body.innerHTML = arguments[0];
         const start = performance.now();
         document.body.getBoundingClientRect();
         return performance.now() - start;`,
        fields.map(field => `<div style="width:124px">${field}</div>`).join(''),
        [tokensCssText(system), stylesheetText(held)],
      ),
    );
    resolving.push(
      timed(() => {
        const resolver = new CombinationResolver(component, {
          tokens: system.tokens.usual(),
          rootFontSize: 16,
        });
        for (const { combination } of cells) resolver.resolve(combination);
      }),
    );
  }
  const ratio = median(resolving) / median(layout);
  process.stdout.write(
    `Resolving ${cells.length} specimens anew takes ${ratio.toFixed(2)} times the browser's style and layout of them (aim 1; median of ${ROUNDS})\n`,
  );
} finally {
  await browser.quit();
}
