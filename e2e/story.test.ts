import { Key, type WebDriver } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, find, named, openBrowser, stored, type Browser } from './support/browser';
import { cell, plateReady, press, pressUntil, scopeEntry, specimenStyle } from './support/field-screen';
import { downloadedZip } from './support/zip';
import { TIMEOUT } from './support/patience';

/**
 * From one command to a delivered stylesheet: see the field in all its situations, change the pointed-at border for all
 * sizes at once, see it repaint, find it in the guide and in the zip, and find it still there after a restart.
 */

const SIZES = ['small', 'medium', 'large'];
let application: Application;
let browser: Browser;
let driver: WebDriver;
let address: string;

beforeEach(async () => {
  application = new Application();
  address = await application.start();
  browser = await openBrowser();
  driver = browser.driver;
}, TIMEOUT);
afterEach(async () => {
  await browser?.quit();
  await application?.remove();
}, TIMEOUT);

const borders = (column: string): Promise<string[]> =>
  Promise.all(SIZES.map(size => specimenStyle(driver, column, size, 'frame', 'border-top-color')));

/** The colour a token comes to, read from an element on the plate. */
async function tokenColor(token: string): Promise<string> {
  return driver.executeScript<string>(
    `const probe = document.createElement('span'); probe.style.color = 'var(--qs-' + arguments[0] + ')';
     document.querySelector('.surface').append(probe); const color = getComputedStyle(probe).color; probe.remove(); return color`,
    token,
  );
}

async function restart(): Promise<void> {
  expect(await application.stop()).toBe(0);
  address = await application.start();
}

test(
  'with the mouse',
  async () => {
    await driver.get(address);
    await (await named(driver, 'a', 'Quayside')).click();
    await (await named(driver, 'a', 'Text field')).click();
    await plateReady(driver);
    const right = await tokenColor('color-line-right');
    const others = await borders('Focused');
    expect(new Set(await borders('Pointed at'))).toEqual(new Set([await tokenColor('color-line-over')]));

    await (await named(driver, '[role=columnheader]', 'Pointed at')).click();
    await eventually(
      driver,
      `document.querySelector('.scope').textContent.startsWith('When pointed at, in any size: this reaches')`,
    );
    // Tinted is all that the edit will reach: the selected column, and what else is pointed at.
    expect(await driver.executeScript(`return document.querySelectorAll('.cell.reached').length`)).toBe(6);
    await (await scopeEntry(driver, 'frame', 'border-color')).click();
    const input = await find(driver, '.editor input');
    await input.sendKeys(Key.chord(Key.CONTROL, 'a'), 'line.right');
    await (await find(driver, '.completion li')).click();
    expect(new Set(await borders('Pointed at'))).toEqual(new Set([right]));
    expect(await borders('Focused')).toEqual(others);
    await stored(driver);

    await (await named(driver, 'nav.book a', 'Guide')).click();
    await (await named(driver, '.choices button', 'Stylesheet')).click();
    const shown = await (await find(driver, '.code')).getText();
    expect(shown).toMatch(/:hover[^{}]*\{\n\s+border-color: var\(--qs-color-line-right\);/);
    const inGuide = await driver.executeScript<string>(
      `const row = [...document.querySelectorAll('.situation')].find(each => each.textContent.includes('Pointed at'));
       return getComputedStyle(row.querySelector('.specimen').shadowRoot.querySelector('.qs-text-field-frame')).borderTopColor`,
    );
    expect(inGuide).toBe(right);

    await restart();
    await driver.get(`${address}/quayside/text-field`);
    await plateReady(driver);
    expect(new Set(await borders('Pointed at'))).toEqual(new Set([right]));
    await driver.get(`${address}/quayside/outputs`);
    await eventually(driver, `document.querySelector('.head .btn-primary')?.disabled === false`);
    await (await named(driver, 'button', 'Download quayside.zip')).click();
    const files = await downloadedZip(driver, browser.downloads);
    expect(files['css/text-field.css']).toMatch(
      /:hover[^{}]*\{\n\s+border-color: var\(--qs-color-line-right\);/,
    );
    expect(files['css/tokens.css']).toContain('--qs-color-line-right');
    expect(files['html/text-field.html']).toContain('<link rel="stylesheet" href="../css/text-field.css">');
    expect(files['quayside/components/text-field.component.json']).toContain(
      '"border-color": "{color.line.right}"',
    );

    // Undo reaches back over the restart.
    await driver.get(`${address}/quayside/text-field`);
    await plateReady(driver);
    await (await named(driver, '.band button', 'undo')).click();
    await eventually(driver, `document.querySelector('.notices').textContent.includes('Taken back')`);
    expect(new Set(await borders('Pointed at'))).toEqual(new Set([await tokenColor('color-line-over')]));
  },
  TIMEOUT,
);

test(
  'with the keyboard alone',
  async () => {
    await driver.get(address);
    await find(driver, '.shelf article a');
    await pressUntil(driver, Key.TAB, /^Quayside$/);
    await press(driver, Key.ENTER);
    await find(driver, '.contents a');
    await pressUntil(driver, Key.TAB, /^Text field$/);
    await press(driver, Key.ENTER);
    await plateReady(driver);
    await driver.wait(() => cell(driver, 'Pointed at', 'small'));
    const right = await tokenColor('color-line-right');

    await pressUntil(driver, Key.TAB, /^At rest, small:$/);
    await press(driver, Key.ARROW_RIGHT, Key.ARROW_UP);
    await pressUntil(driver, Key.TAB, /^Pointed at$/, 0);
    await press(driver, Key.ENTER);
    await eventually(
      driver,
      `document.querySelector('.scope').textContent.startsWith('When pointed at, in any size: this reaches')`,
    );
    await press(driver, Key.ENTER);
    await pressUntil(driver, Key.ARROW_DOWN, /^frame border-color, pointed at/);
    await press(driver, Key.ENTER);
    await find(driver, '.editor input');
    // What is chosen in the list is tried out; Escape restores.
    await press(driver, 'l', 'i', 'n', 'e', '.', 'r', 'i', 'g', 'h', 't', Key.ARROW_DOWN);
    expect(new Set(await borders('Pointed at'))).toEqual(new Set([right]));
    await press(driver, Key.ESCAPE);
    expect(new Set(await borders('Pointed at'))).toEqual(new Set([await tokenColor('color-line-over')]));
    await eventually(
      driver,
      `document.activeElement.getAttribute('aria-label')?.startsWith('frame border-color')`,
    );
    await press(driver, Key.ENTER);
    await find(driver, '.editor input');
    // A misspelt token is reported where it was written, with the likely one.
    for (const letter of '{color.line.rigth}') await press(driver, letter);
    await press(driver, Key.ENTER);
    expect(await (await find(driver, '#entry-fault')).getText()).toMatch(
      /There is no token \{color\.line\.rigth\}.*take \{color\.line\.right\}/s,
    );
    await driver.actions({ async: true }).keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
    for (const letter of 'color.line.right') await press(driver, letter);
    await press(driver, Key.ENTER);
    expect(new Set(await borders('Pointed at'))).toEqual(new Set([right]));
    await eventually(
      driver,
      `document.activeElement.getAttribute('aria-label')?.startsWith('frame border-color')`,
    );
    await stored(driver);
    await restart();

    await driver.get(`${address}/quayside/text-field`);
    await plateReady(driver);
    expect(new Set(await borders('Pointed at'))).toEqual(new Set([right]));
    await pressUntil(driver, Key.TAB, /^Outputs$/);
    await press(driver, Key.ENTER);
    await pressUntil(driver, Key.TAB, /^Download quayside\.zip$/);
    await press(driver, Key.ENTER);
    const files = await downloadedZip(driver, browser.downloads);
    expect(files['css/text-field.css']).toMatch(
      /:hover[^{}]*\{\n\s+border-color: var\(--qs-color-line-right\);/,
    );
  },
  TIMEOUT,
);
