import { By, Key, type WebDriver } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, find, named, openBrowser, stored, type Browser } from './support/browser';
import { storedComponent } from './support/making';
import { TIMEOUT } from './support/patience';

/** The behaviour of a field, seen, tried and changed in the tool. */

const application = new Application();
let address: string;
let browser: Browser;
let driver: WebDriver;

beforeAll(async () => {
  address = await application.start();
  browser = await openBrowser();
  ({ driver } = browser);
}, TIMEOUT);
afterAll(async () => {
  await browser.quit();
  await application.stop();
}, TIMEOUT);

const open = async (path: string): Promise<void> => {
  await driver.get(address + path);
  await find(driver, '.passage-plate .specimen');
};

const notes = (): Promise<string[]> =>
  driver.executeScript(`return [...document.querySelectorAll('.notes code')].map(each => each.textContent)`);

/** What the specimens of a strip show: validity after each act. */
const validities = (label: string): Promise<string[]> =>
  driver.executeScript(
    `return [...document.querySelectorAll('section[aria-label="' + arguments[0] + '"] .film li')].map(each =>
       each.querySelector('.specimen').shadowRoot.firstElementChild.dataset.validity)`,
    label,
  );

test(
  'a mistake and its mending are tried, and kept as a walkthrough',
  async () => {
    await open('/quayside/text-field/behaviour');
    await driver.executeScript(
      `document.querySelector('.tried > div').shadowRoot.querySelector('input').focus()`,
    );
    await driver.actions().sendKeys('osprey', Key.TAB).perform();
    await eventually(driver, `document.querySelector('.behaviour-side .now')?.textContent === 'invalid'`);
    await driver.executeScript(
      `document.querySelector('.tried > div').shadowRoot.querySelector('input').focus()`,
    );
    await driver.actions().sendKeys(Key.HOME, Key.DELETE, 'O', Key.TAB).perform();
    await eventually(driver, `document.querySelector('.behaviour-side .now')?.textContent === 'approved'`);
    expect(await notes()).toEqual([
      'press control',
      'type osprey',
      'key Tab',
      'press control',
      'key Home',
      'key Delete',
      'type O',
      'key Tab',
    ]);
    await (await named(driver, '.behaviour-side button', 'keep as a walkthrough')).click();
    await driver.actions().sendKeys('Mended by hand', Key.ENTER).perform();
    await find(driver, 'section[aria-label="Mended by hand"] .film li');
    await stored(driver);
    expect((await validities('Mended by hand')).slice(2)).toEqual([
      'none',
      'invalid',
      'invalid',
      'invalid',
      'invalid',
      'valid',
      'valid',
    ]);
    await stored(driver);
    const { walkthroughs = [] } = await storedComponent(address, 'text-field');
    expect(walkthroughs.at(-1)).toMatchObject({ title: 'Mended by hand' });
  },
  TIMEOUT,
);

test(
  'how one gets to a situation, and to a specimen of a plate',
  async () => {
    await open('/quayside/passphrase/behaviour');
    await (await named(driver, 'button.situation', 'Shown')).click();
    await find(driver, '.getting .film li');
    expect(
      await driver.executeScript(
        `return [...document.querySelectorAll('.getting code')].map(each => each.textContent)`,
      ),
    ).toEqual(['press frame', 'press reveal/button', 'point away']);
    // The way is numbered where it goes through the table.
    expect(
      await driver.executeScript(
        `return [...document.querySelectorAll('.passage-plate .step')].map(each => [each.textContent, each.closest('tr').querySelector('.situation').textContent])`,
      ),
    ).toEqual([
      ['2', 'Being filled'],
      ['1', 'Filled'],
    ]);
    await driver.get(`${address}/quayside/text-field`);
    const cell = await find(driver, '.plate [role="gridcell"]:has(.specimen)');
    await cell.click();
    await (await named(driver, '.scope-line a', 'how does one get here?')).click();
    await find(driver, '.getting h2');
    expect(await driver.findElements(By.css('.getting .fault'))).toHaveLength(0);
  },
  TIMEOUT,
);

test(
  'what moves between two situations is told, brought to any moment, and slowed by its token',
  async () => {
    await open('/quayside/text-field/behaviour');
    const motion = await find(driver, 'section[aria-label="Motion"] .motion-lists');
    expect(await motion.getText()).toContain('frame border-color 90 ms');
    /** Colours of the frame's line at the five moments. */
    const colours = (): Promise<string[]> =>
      driver.executeScript(
        `return [...document.querySelectorAll('.motion .film .specimen')].map(each =>
           getComputedStyle(each.shadowRoot.querySelector('[class$="-frame"]')).borderTopColor)`,
      );
    expect(new Set(await colours()).size).toBe(5);
    await driver.executeScript(
      `const range = document.querySelector('.motion input[type="range"]');
       Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(range, '45');
       range.dispatchEvent(new Event('input', { bubbles: true }))`,
    );
    const [, , middle] = await colours();
    await eventually(
      driver,
      `getComputedStyle(document.querySelector('.motion .stage .specimen').shadowRoot.querySelector('[class$="-frame"]')).borderTopColor === arguments[0]`,
      middle,
    );
    // The duration is a token: written anew here, it is so at once.
    await (await find(driver, '.motion-token .entry')).click();
    await driver
      .actions()
      .keyDown(Key.CONTROL)
      .sendKeys('a')
      .keyUp(Key.CONTROL)
      .sendKeys('400ms', Key.ENTER)
      .perform();
    await eventually(driver, `document.querySelector('.motion-lists')?.textContent.includes('400 ms')`);
    await (await named(driver, '.motion button', 'less motion')).click();
    await eventually(
      driver,
      `new Set([...document.querySelectorAll('.motion .film .specimen')].map(each =>
         getComputedStyle(each.shadowRoot.querySelector('[class$="-frame"]')).borderTopColor)).size === 1`,
    );
  },
  TIMEOUT,
);
