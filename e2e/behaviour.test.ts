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
    `return [...document.querySelectorAll('section[aria-label="' + arguments[0] + '"] .strip li')].map(each =>
       each.querySelector('.specimen').shadowRoot.firstElementChild.dataset.validity)`,
    label,
  );

test(
  'a mistake and its mending are tried, kept as a walkthrough, and judged in another way',
  async () => {
    await open('/quayside/text-field/behaviour');
    await driver.executeScript(
      `document.querySelector('.tried > div').shadowRoot.querySelector('input').focus()`,
    );
    await driver.actions().sendKeys('osprey', Key.TAB).perform();
    await eventually(driver, `document.querySelector('.notes .now')?.textContent === 'invalid'`);
    await driver.executeScript(
      `document.querySelector('.tried > div').shadowRoot.querySelector('input').focus()`,
    );
    await driver.actions().sendKeys(Key.HOME, Key.DELETE, 'O', Key.TAB).perform();
    await eventually(driver, `document.querySelector('.notes .now')?.textContent === 'approved'`);
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
    await find(driver, 'section[aria-label="Mended by hand"] .strip li');
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
    // It complains while one types from now on, and the strip changes.
    await (await find(driver, '.judging .word')).click();
    await (await named(driver, '.dropdown-item', 'while typinginterrupts whoever has not finished')).click();
    await eventually(
      driver,
      `document.querySelectorAll('section[aria-label="Mended by hand"] .strip li')[2]
         ?.querySelector('.specimen').shadowRoot.firstElementChild.dataset.validity === 'invalid'`,
    );
    await stored(driver);
    const { behaviour, walkthroughs = [] } = await storedComponent(address, 'text-field');
    expect(behaviour!.judging!.complain).toBe('typing');
    expect(walkthroughs.at(-1)).toMatchObject({ title: 'Mended by hand' });
  },
  TIMEOUT,
);

test(
  'how one gets to a situation, and to a specimen of a plate',
  async () => {
    await open('/quayside/passphrase/behaviour');
    await (await named(driver, 'button.situation', 'Shown')).click();
    await find(driver, '.getting .strip li');
    expect(
      await driver.executeScript(
        `return [...document.querySelectorAll('.getting code')].map(each => each.textContent)`,
      ),
    ).toEqual(['press frame', 'press reveal/button', 'point away']);
    await driver.get(`${address}/quayside/text-field`);
    const cell = await find(driver, '.plate [role="gridcell"]:has(.specimen)');
    await cell.click();
    await (await named(driver, '.scope-line a', 'how does one get here?')).click();
    await find(driver, '.getting h2');
    expect(await driver.findElements(By.css('.getting .fault'))).toHaveLength(0);
  },
  TIMEOUT,
);
