import { type WebDriver, type WebElement } from 'selenium-webdriver';
import { eventually, find } from './browser';

/** What a person sees of one specimen on a plate: computed styles of a part, by column and row heading. */
export async function specimenStyle(
  driver: WebDriver,
  column: string,
  row: string,
  part: string,
  property: string,
): Promise<string> {
  return driver.executeScript<string>(
    `const [column, row, part, property] = arguments;
     const cell = document.querySelector('[role=gridcell][data-name="' + column + ', ' + row + '"]');
     const shadow = cell.querySelector('.specimen').shadowRoot;
     return getComputedStyle(shadow.querySelector('.qs-text-field-' + part)).getPropertyValue(property)`,
    column,
    row,
    part,
    property,
  );
}

export const cell = (driver: WebDriver, column: string, row: string): Promise<WebElement> =>
  find(driver, `[role=gridcell][data-name="${column}, ${row}"]`);

/** An entry of the ledger's column that edits go to. */
export const scopeEntry = (driver: WebDriver, part: string, property: string): Promise<WebElement> =>
  find(driver, `.entry[data-scope][aria-label^="${part} ${property},"]`);

export const plateReady = (driver: WebDriver): Promise<unknown> =>
  eventually(driver, `document.querySelectorAll('[role=gridcell] .specimen').length > 20`);

/** Presses keys wherever the focus is. */
export async function press(driver: WebDriver, ...keys: string[]): Promise<void> {
  await driver
    .actions({ async: true })
    .sendKeys(...keys)
    .perform();
}

/** Presses a key until the focused element's name is the wanted one; at most `most` times. */
export async function pressUntil(driver: WebDriver, key: string, name: RegExp, most = 60): Promise<void> {
  for (let times = 0; times <= most; times++) {
    const label = await driver.executeScript<string>(
      `const here = document.activeElement; return (here?.getAttribute('aria-label') ?? here?.textContent ?? '').trim()`,
    );
    if (name.test(label)) return;
    await press(driver, key);
  }
  throw new Error(`${name} was not reached`);
}

/** Draws the ledger up, which is down while nothing is selected. */
export async function ledgerUp(driver: WebDriver): Promise<void> {
  const button = await find(driver, '.scope-line button[aria-expanded]');
  if ((await button.getAttribute('aria-expanded')) === 'false') await button.click();
  await find(driver, '.ledger .entry');
}
