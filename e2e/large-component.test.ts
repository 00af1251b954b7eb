import { Key, type WebDriver } from 'selenium-webdriver';
import { generatedComponent, generatedSystem } from '../bench/support/generated';
import { eventually, find, named, stored } from './support/browser';
import { ledgerUp, press, pressUntil } from './support/field-screen';
import { PATIENCE, TIMEOUT } from './support/patience';
import { inBrowser } from './support/session';

/** Components of hundreds of rules and 10^12 combinations on the screens. */

let driver: WebDriver;
let address: string;

inBrowser(session => ({ address, driver } = session));

/** A system with one generated component; gives the path of its page. */
async function generated(axes: readonly number[], rules: number): Promise<string> {
  const component = generatedComponent({ id: 'harbour-form', axes, rules, limits: 4 }, 7);
  const system = generatedSystem([component]);
  system.set('system.json', { ...(system.get('system.json') as object), id: `system-${rules}` });
  const documents = Object.fromEntries(system);
  const response = await fetch(`${address}/api/systems`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ documents }),
  });
  expect(response.status).toBe(201);
  const { id } = (await response.json()) as { id: string };
  return `${address}/${id}/harbour-form`;
}

const many = (count: number, values: number): number[] => Array.from({ length: count }, () => values);

test(
  'more contests than one waits for: progress is told, looking can be stopped and taken up again',
  async () => {
    const page = await generated(many(20, 4), 350);
    const sheetSays = (text: string): Promise<unknown> =>
      eventually(driver, `document.querySelector('.rules-sheet')?.textContent.includes(arguments[0])`, text);
    await driver.get(`${page}/rules`);
    await sheetSays(' of ');
    await pressUntil(driver, Key.TAB, /^stop$/);
    await press(driver, Key.ENTER);
    await sheetSays('Stopped. Nothing has been found out yet.');
    await (await named(driver, '.rules-sheet button', 'look again')).click();
    await sheetSays(' of ');
    await sheetSays('350 rules for ');
    await eventually(driver, `document.querySelector('.rules-sheet').getAttribute('aria-busy') === 'false'`);
    const summary = await (await find(driver, '.summary')).getText();
    expect(Number(/([\d,]+) contests are open/.exec(summary)?.[1]?.replaceAll(',', ''))).toBeGreaterThan(
      1000,
    );
  },
  TIMEOUT,
);

test(
  'a ledger of thousands of entries: lines are drawn as they come near, and written in like any other',
  async () => {
    await driver.get(await generated(many(12, 10), 150));
    await ledgerUp(driver);
    const lines = (): Promise<{ all: number; whole: number; last: boolean }> =>
      driver.executeScript(
        `const lines = [...document.querySelectorAll('.ledger tbody tr')]; const isWhole = line => line.querySelector('.entry') !== null;
         return { all: lines.length, whole: lines.filter(isWhole).length, last: isWhole(lines.at(-1)) }`,
      );
    const first = await lines();
    expect(first.all).toBeGreaterThan(80);
    expect(first.whole).toBeLessThan(first.all / 2);
    expect(first.last).toBe(false);
    const row = await driver.executeScript<string>(
      `const line = document.querySelector('.ledger tbody tr:last-child'); line.scrollIntoView({ block: 'center' }); return line.dataset.property`,
    );
    await eventually(driver, `document.querySelector('.ledger tbody tr:last-child .entry') !== null`);

    // What is written shows, though only its own line is drawn anew.
    const written = (): Promise<string> =>
      driver.executeScript(
        `return document.querySelector('[data-property="' + arguments[0] + '"] .entry[data-column="0"]')?.getAttribute('aria-label') ?? ''`,
        row,
      );
    expect(await written()).toMatch(/, always: nothing/);
    await driver.executeScript(
      `document.querySelector('[data-property="' + arguments[0] + '"] .entry[data-column="0"]').click()`,
      row,
    );
    await find(driver, '.editor input');
    await press(driver, ...'3.5px', Key.ENTER);
    await driver.wait(
      async () => /, always: 3\.5px/.test(await written()),
      PATIENCE,
      `what was written for ${row} does not show`,
    );
    await stored(driver);
    await eventually(driver, `document.activeElement.closest('tr')?.dataset.property === arguments[0]`, row);

    // The arrow keys go on into lines that were not drawn.
    const at = (): Promise<number> =>
      driver.executeScript(`return Number(document.activeElement.dataset.row)`);
    const here = await at();
    await press(driver, ...Array.from({ length: 60 }, () => Key.ARROW_UP));
    expect(await at()).toBe(here - 60);
    // Nor does scrolling away take the focus.
    await driver.executeScript(`document.querySelector('.ledger-scroll').scrollTop = 1e6`);
    await eventually(driver, `document.querySelector('.ledger tbody tr:last-child .entry') !== null`);
    expect(await at()).toBe(here - 60);
  },
  TIMEOUT,
);
