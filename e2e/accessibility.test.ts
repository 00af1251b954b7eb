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
  ['a component, nothing selected', '/quayside/text-field', '.ledger .entry'],
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
  'at 1024 wide nothing scrolls sideways but plates and ledgers in themselves',
  async () => {
    const narrow = await openBrowser(1024, 768);
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
