import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, find, openBrowser } from './support/browser';

/** Pictures of the main views for the README, from the demo data, at 1280 by 800. */

const FOLDER = join(process.cwd(), 'docs/screenshots');

interface View {
  readonly name: string;
  readonly path: string;
  readonly ready: string;
  readonly prepare?: (driver: WebDriver) => Promise<void>;
}

async function writeValue(driver: WebDriver): Promise<void> {
  await driver.findElement(By.css('.entry[data-scope][aria-label^="frame border-color,"]')).click();
  await find(driver, '.editor input');
  await driver
    .actions()
    .sendKeys('line', Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN)
    .perform();
}

/** A form with two mistakes, and a list that lies open. */
async function fillIn(driver: WebDriver): Promise<void> {
  await driver.switchTo().frame(await find(driver, '.trial-page'));
  const control = await find(driver, '[name="vessel"]');
  await control.click();
  const press = (...keys: string[]): Promise<void> =>
    driver
      .actions()
      .sendKeys(...keys)
      .perform();
  await press('osprey', Key.TAB, '7.2', Key.TAB, '40', Key.TAB, 's');
  await driver.switchTo().defaultContent();
}

const VIEWS: readonly View[] = [
  { name: 'shelf', path: '/', ready: '.shelf .specimens .specimen' },
  { name: 'fields', path: '/quayside', ready: '.contents .holds' },
  { name: 'plates', path: '/quayside/text-field?rows=*&columns=pointed-at', ready: '.ledger .scope-column' },
  {
    name: 'ledger',
    path: '/quayside/text-field?rows=*&columns=pointed-at',
    ready: '.ledger .scope-column',
    prepare: writeValue,
  },
  {
    name: 'derived',
    path: '/quayside/notes?rows=small&columns=pointed-at',
    ready: '.ledger .scope-column',
    prepare: driver =>
      driver.executeScript(
        `document.querySelector('[data-property="frame.height"]').scrollIntoView({ block: 'center' }); scrollTo(0, 0)`,
      ),
  },
  {
    name: 'nested',
    path: '/quayside/crew?rows=medium&columns=pointed-at',
    ready: '.ledger .scope-column',
    prepare: driver =>
      driver.executeScript(
        `document.querySelector('[data-property="less/button.width"]').scrollIntoView({ block: 'center', inline: 'start' });
         document.querySelector('.ledger-scroll').scrollLeft = 0;
         scrollTo(0, 0)`,
      ),
  },
  {
    name: 'list',
    path: '/quayside/berth?plate=lists&rows=small&columns=button',
    ready: '.ledger .scope-column',
  },
  { name: 'starting', path: '/quayside/new?from=count', ready: '.way .specimen' },
  {
    name: 'anatomy',
    path: '/quayside/crew/anatomy?shown=content:filled,validity:invalid&part=less',
    ready: '.callout',
  },
  { name: 'space', path: '/quayside/text-field/space', ready: '.pairs svg' },
  { name: 'content', path: '/quayside/text-field/content', ready: '.stresses .specimen' },
  {
    name: 'behaviour',
    path: '/quayside/text-field/behaviour',
    ready: '.passage-plate .specimen',
  },
  {
    name: 'motion',
    path: '/quayside/passphrase/behaviour',
    ready: '.motion-lists',
    prepare: driver =>
      driver.executeScript(`document.querySelector('.motion').scrollIntoView({ block: 'start' })`),
  },
  { name: 'trial', path: '/quayside/trials/arrival', ready: '.trial-page', prepare: fillIn },
  { name: 'lineup', path: '/quayside/lineup?size=medium', ready: '.lineup .specimen' },
  { name: 'rules', path: '/quayside/text-field/rules', ready: '.decisions' },
  { name: 'tokens', path: '/quayside/tokens?token=color.line.over', ready: '.reach-strip .specimen' },
  { name: 'guide', path: '/quayside/guide/text-field', ready: '.page .situation .specimen' },
  { name: 'outputs', path: '/quayside/outputs', ready: '.outputs .code' },
];

const application = new Application();
const address = await application.start();
const browser = await openBrowser();
try {
  for (const { name, path, ready, prepare } of VIEWS) {
    await browser.driver.get(address + path);
    await find(browser.driver, ready);
    await eventually(browser.driver, `document.fonts.status === 'loaded'`);
    await prepare?.(browser.driver);
    await browser.driver.executeScript(
      `return new Promise(resolve => requestAnimationFrame(() => requestAnimationFrame(resolve)))`,
    );
    writeFileSync(join(FOLDER, `${name}.png`), await browser.driver.takeScreenshot(), 'base64');
  }
} finally {
  await browser.quit();
  await application.remove();
}
