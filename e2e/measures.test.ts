import type { WebDriver } from 'selenium-webdriver';
import type { Component } from '@periwinkle/core/components/component';
import { writtenName } from '@periwinkle/core/edits/part-edits';
import { namesOf } from '@periwinkle/core/render/names';
import { demoSystem } from './support/demo';
import { eventually } from './support/browser';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** The measures that the anatomy sheet gives are those of the browser: for every component, in each size and density. */

let driver: WebDriver;
let address: string;
inBrowser(session => ({ address, driver } = session));

/** Half a px. */
const LEAST = 0.5;

interface Measured {
  readonly caption: string;
  /** By part: what the sheet writes, and what the browser draws; px. */
  readonly parts: readonly {
    readonly part: string;
    readonly told: readonly [number, number];
    readonly drawn: readonly [number, number];
  }[];
}

/** The sheet compares all parts by itself; of so many one is chosen. A browser grants a page only some hundred addresses in a short time. */
const EACH = 4;

/** Chooses parts in turn, reads its lines, and measures the element on the stage. */
const MEASURE = `
  const [classes, first, done] = arguments;
  const frame = () => new Promise(resolve => requestAnimationFrame(resolve));
  const measure = async () => {
    const parts = [];
    const buttons = [...document.querySelectorAll('.parts .part')];
    for (const button of buttons.filter((_, index) => index % ${EACH} === first)) {
      button.click();
      while (button.getAttribute('aria-pressed') !== 'true') await frame();
      await frame();
      if (!document.querySelector('.chosen-part')) continue;
      const part = button.querySelector('code').textContent;
      const shadow = document.querySelector('.held-large .specimen').shadowRoot;
      const scale = document.querySelector('.held-large').getBoundingClientRect().width / 240;
      const { width, height } = shadow.querySelector('.' + CSS.escape(classes[part])).getBoundingClientRect();
      const told = axis =>
        parseFloat(document.querySelector('[data-dimension="' + axis + ' size"] text').textContent.replace('about ', ''));
      parts.push({ part, told: [told('x'), told('y')], drawn: [width / scale, height / scale] });
    }
    return { caption: document.querySelector('.caption span:last-child').textContent, parts };
  };
  measure().then(done, error => done({ caption: String(error), parts: [] }));
`;

const system = demoSystem();
/** Classes of a component's parts, by the names under which the sheet lists them. */
function classesOf({ id, anatomy }: Component): Record<string, string> {
  const names = namesOf(system).component(id);
  return Object.fromEntries(anatomy.parts.map(part => [writtenName(part), names.part(part.name)]).reverse());
}
const cases = system.components.flatMap(component => {
  const { space } = component;
  const sizes = space.axes.find(axis => axis.id === 'size')?.values.map(value => `size:${value.id}`) ?? [''];
  return sizes.flatMap(size => ['roomy', 'compact'].map(density => ({ component, size, density })));
});

test(
  'of every component in each size and density',
  async () => {
    let measured = 0;
    await driver.get(`${address}/quayside/${cases[0]!.component.id}/anatomy`);
    await eventually(driver, `document.fonts.status === 'loaded' && document.querySelector('.held-large')`);
    const wrong: string[] = [];
    for (const [index, { component, size, density }] of cases.entries()) {
      const { id } = component;
      // Within the page, as a link goes; only the first is loaded.
      await driver.executeScript(
        `history.pushState(null, '', arguments[0]); dispatchEvent(new PopStateEvent('popstate'))`,
        `/quayside/${id}/anatomy?shown=${size}&in=density:${density}`,
      );
      await eventually(
        driver,
        `document.querySelector('h1').textContent === arguments[0] &&
         document.querySelector('.held-large')?.closest('[data-density]').dataset.density === arguments[1] &&
         document.querySelector('.caption span:last-child').textContent !== ''`,
        component.title,
        density,
      );
      const { caption, parts } = await driver.executeAsyncScript<Measured>(
        MEASURE,
        classesOf(component),
        index % EACH,
      );
      const where = `${id} ${size} ${density}`;
      if (caption !== 'measured as the browser draws it') wrong.push(`${where}: ${caption}`);
      for (const { part, told, drawn } of parts) {
        measured++;
        for (const side of [0, 1] as const)
          if (!(Math.abs(told[side] - drawn[side]) <= LEAST))
            wrong.push(`${where} ${part}: ${told.join(' by ')} told, ${drawn.join(' by ')} drawn`);
      }
    }
    process.stderr.write(`measures: ${measured} parts on ${cases.length} sheets\n`);
    expect(wrong).toEqual([]);
    expect(measured).toBeGreaterThan(cases.length);
  },
  TIMEOUT * 2,
);
