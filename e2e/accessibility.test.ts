import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, named, openBrowser } from './support/browser';
import { plateReady, press, scopeEntry } from './support/field-screen';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Every screen passes axe-core, also with what opens over it, and keeps to the width it is made for. */

const AXE = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');
let driver: WebDriver;
let address: string;

inBrowser(session => ({ address, driver } = session));

interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly target: unknown; readonly failureSummary: string }[];
}

/** Violations of our own interface; specimens show what their authors specified, and are checked by the core. */
async function violations(): Promise<string[]> {
  await driver.executeScript(AXE);
  const found = await driver.executeAsyncScript<Violation[]>(
    `const done = arguments[0];
     axe.run({ exclude: [['.specimen'], ['.try .ground'], ['.page .live']] }, { resultTypes: ['violations'] }).then(result => done(result.violations))`,
  );
  return found.flatMap(({ id, nodes }) =>
    nodes
      .slice(0, 3)
      .map(node => `${id}: ${JSON.stringify(node.target)} ${node.failureSummary.split('\n')[1] ?? ''}`),
  );
}

const scrollsSideways = (): Promise<boolean> =>
  driver.executeScript(`return document.documentElement.scrollWidth > innerWidth`);

const SCREENS: readonly [string, string, string][] = [
  ['shelf', '/', '.shelf .specimens'],
  ['fields', '/quayside', '.contents .specimen'],
  ['a component, nothing selected', '/quayside/text-field', '.plate .specimen'],
  [
    'a component, a column selected',
    '/quayside/text-field?rows=*&columns=pointed-at',
    '.ledger .scope-column',
  ],
  [
    'a plate of looks by night',
    '/quayside/text-field?plate=looks&in=theme:night&rows=above.small*above.medium&columns=boxed.none*tinted.none',
    '.ledger .scope-column',
  ],
  ['the lineup', '/quayside/lineup?size=small', '.lineup .specimen'],
  ['the lineup by night', '/quayside/lineup?in=theme:night', '.lineup .specimen'],
  ['a new field', '/quayside/new?from=count', '.way .specimen'],
  ['the removal of a field', '/quayside?do=remove&on=step-button', '.modal .touched'],
  ['a field renamed', '/quayside?do=rename&on=text-field', '.modal .name-fields'],
  ['the anatomy of a component', '/quayside/crew/anatomy?part=less', '.callout'],
  ['a parameter opened', '/quayside/icon-button/anatomy?open=parameter:accent', '.details .opened'],
  ['an anatomy by night', '/quayside/text-field/anatomy?part=control&in=theme:night', '.callout'],
  ['the space of a component', '/quayside/text-field/space', '.pairs svg'],
  ['the behaviour of a component', '/quayside/text-field/behaviour', '.passage-plate .specimen'],
  ['an option opened', '/quayside/text-field/space?open=axis:size', '.values'],
  ['a limit opened', '/quayside/berth/space?open=limit:1', '.condition-editor'],
  ['a situation opened', '/quayside/berth/space?open=situation:invalid', '.condition-editor'],
  ['the content of a component', '/quayside/harbour-dues/content?open=key:sign', '.stresses .specimen'],
  ['a sample opened', '/quayside/text-field/content?open=sample:vessel', '.sample-editor'],
  ['icons', '/quayside/icons', '.icons svg'],
  ['the rules of a component', '/quayside/text-field/rules', '.decisions'],
  ['tokens', '/quayside/tokens?token=color.line.over', '.reach-strip'],
  ['guide', '/quayside/guide/text-field', '.page .situation'],
  ['outputs', '/quayside/outputs', '.outputs .code'],
  ['a field that is not there', '/quayside/nothing', '.blank'],
  ['a system that is not there', '/nothing', '.blank h1'],
];

test.each(SCREENS)(
  '%s',
  async (_, path, css) => {
    await driver.get(address + path);
    await find(driver, css);
    expect(await violations()).toEqual([]);
    expect(await scrollsSideways()).toBe(false);
  },
  TIMEOUT,
);

test(
  'what opens over a screen',
  async () => {
    await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
    await plateReady(driver);
    await press(driver, '/');
    await find(driver, '[role=dialog] input');
    expect(await violations()).toEqual([]);
    await press(driver, 'p', 'o', 'i', 'n', 't');
    expect(await (await find(driver, '.completion li')).getText()).toMatch(/Pointed at/);
    await press(driver, Key.ESCAPE);
    await eventually(driver, `!document.querySelector('[role=dialog]')`);
    await press(driver, '?');
    await find(driver, '.shortcuts');
    expect(await violations()).toEqual([]);
    await press(driver, Key.ESCAPE);
    await eventually(driver, `!document.querySelector('[role=dialog]')`);
    await (await named(driver, '.band button', 'history')).click();
    await find(driver, '.history-list');
    expect(await violations()).toEqual([]);
    await press(driver, Key.ESCAPE);
    await eventually(driver, `!document.querySelector('[role=dialog]')`);
    await (await scopeEntry(driver, 'frame', 'border-color')).click();
    await find(driver, '.completion li');
    expect(await violations()).toEqual([]);
  },
  TIMEOUT,
);

test(
  'every menu opens where its word stands, and what is open passes too',
  async () => {
    for (const path of ['/quayside', '/quayside/text-field?rows=*&columns=focused', '/quayside/trials']) {
      await driver.get(address + path);
      await find(driver, '.word-toggle');
      const words = await driver.executeScript<number>(
        `return document.querySelectorAll('.word-toggle').length`,
      );
      for (let index = 0; index < Math.min(words, 12); index++) {
        const apart = await driver.executeAsyncScript<string>(
          `const done = arguments[1];
           const word = document.querySelectorAll('.word-toggle')[arguments[0]];
           word.scrollIntoView({ block: 'center' });
           word.focus();
           word.click();
           requestAnimationFrame(() => setTimeout(() => {
             const from = word.getBoundingClientRect();
             const menu = document.querySelector('.dropdown-menu.show').getBoundingClientRect();
             const isBeside = Math.min(Math.abs(menu.left - from.left), Math.abs(menu.right - from.right)) < 24;
             const isNext = Math.min(Math.abs(menu.top - from.bottom), Math.abs(menu.bottom - from.top)) < 12;
             const isInside = menu.top >= 0 && menu.bottom <= innerHeight && menu.left >= 0 && menu.right <= innerWidth;
             done(isBeside && isNext && isInside ? '' : word.textContent + ': ' + JSON.stringify([from, menu]));
           }, 60));`,
          index,
        );
        expect(apart).toBe('');
        if (index < 2) expect(await violations()).toEqual([]);
        await press(driver, Key.ESCAPE);
        await eventually(driver, `!document.querySelector('.dropdown-menu.show')`);
      }
    }
  },
  TIMEOUT,
);

test.each([
  [1024, 768],
  // 1280 by 800 at twice the size.
  [640, 400],
])(
  'at %d by %d nothing scrolls sideways but plates and ledgers in themselves',
  async (width, height) => {
    const narrow = await openBrowser(width, height);
    try {
      for (const [, path, css] of SCREENS) {
        await narrow.driver.get(address + path);
        await find(narrow.driver, css);
        expect(
          await narrow.driver.executeScript(
            `return document.documentElement.scrollWidth > innerWidth ? location.href : ''`,
          ),
        ).toBe('');
      }
    } finally {
      await narrow.quit();
    }
  },
  TIMEOUT,
);
