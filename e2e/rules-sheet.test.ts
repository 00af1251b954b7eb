import { By, Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { eventually, find, named, stored } from './support/browser';
import { press, pressUntil } from './support/field-screen';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** The rules of a component as a sheet: contests with their regions, shown on a plate and settled. */

let driver: WebDriver;
let address: string;

const PATH = '/api/systems/quayside/documents/components/text-field.component.json';

inBrowser(async session => {
  ({ address, driver } = session);
  await openAgain(['underlined', 'disabled']);
});

/** The demo leaves nothing open: all decisions but those up to a pair of rules are taken back. */
async function openAgain(last: readonly string[]): Promise<void> {
  const response = await fetch(address + PATH);
  const { decisions } = (await response.json()) as { decisions: { rules: string[] }[] };
  const kept = decisions.findIndex(({ rules }) => rules.join() === last.join()) + 1;
  const { status } = await fetch(address + PATH, {
    method: 'PATCH',
    headers: {
      'Content-Type': 'application/json-patch+json',
      'If-Match': response.headers.get('etag')!,
      'Idempotency-Key': 'open-again',
    },
    body: JSON.stringify([{ op: 'replace', path: '/decisions', value: decisions.slice(0, kept) }]),
  });
  expect(status).toBe(200);
}

const openSheet = async (): Promise<void> => {
  await driver.get(`${address}/quayside/text-field/rules`);
  await find(driver, '.contests');
};

/** Number of open contests, once the sheet is up to date. */
async function openContests(): Promise<number> {
  await eventually(driver, `document.querySelector('.rules-sheet')?.getAttribute('aria-busy') === 'false'`);
  const summary = await (await find(driver, '.summary')).getText();
  return Number(/([\d,]+) contests? (?:is|are) open/.exec(summary)?.[1]?.replaceAll(',', '') ?? 0);
}

const group = (earlier: string, later: string): Promise<WebElement> =>
  named(driver, '.contests button', `settle ${earlier} and ${later}`);

const summaryHas = (text: string): Promise<unknown> =>
  eventually(driver, `document.querySelector('.rules-sheet').textContent.includes(arguments[0])`, text);

test(
  'a contested region is shown on a plate with one click: its cells are tinted, the sentence says it, the ledger is at the property',
  async () => {
    await openSheet();
    const row = await driver.findElement(
      By.xpath(`//tr[td[1]="frame.background-color"][td[4]//a="tinted, pointed at, enabled"]`),
    );
    const combinations = await row.findElement(By.css('td.number')).getText();
    const link = await row.findElement(By.css('a'));
    await driver.executeScript(`arguments[0].scrollIntoView({ block: 'center' })`, link);
    await link.click();
    await find(driver, '.cell.reached .specimen');
    const names = await driver.executeScript<string[]>(
      `return [...document.querySelectorAll('.cell.reached')].map(each => each.dataset.name)`,
    );
    expect(names.length).toBeGreaterThan(0);
    expect(names.every(name => /tinted/.test(name) && /pointed at|pressed/.test(name))).toBe(true);
    expect(names.every(name => !/not pointed at/.test(name))).toBe(true);
    const sentence = await (await find(driver, '.scope')).getText();
    expect(sentence).toContain('pointed at');
    expect(sentence).toContain(`this reaches ${combinations} of 26,400`);
    const shown = await driver.executeScript<boolean>(
      `const row = document.querySelector('[data-property="frame.background-color"]').getBoundingClientRect();
       const ledger = document.querySelector('.ledger-scroll').getBoundingClientRect();
       return ledger.top <= row.top && row.bottom <= ledger.bottom`,
    );
    expect(shown).toBe(true);
    await driver.navigate().back();
    await find(driver, '.contests');
  },
  TIMEOUT,
);

test(
  'a decision needs a reason, settles the contest, and can be taken back; all from the keyboard',
  async () => {
    await openSheet();
    const before = await openContests();
    await pressUntil(driver, Key.TAB, /^settle empty and disabled$/, 200);
    await press(driver, Key.ENTER);
    await eventually(driver, `document.activeElement?.matches('.settle input[type=radio]')`);
    await press(driver, Key.ENTER);
    expect(await (await find(driver, '.settle .fault')).getText()).toMatch(/Say why/);
    await press(driver, Key.TAB, 'Nobody is asked to enter anything.');
    await pressUntil(driver, Key.TAB, /^Record it$/);
    await press(driver, Key.ENTER);
    await summaryHas('Nobody is asked to enter anything.');
    await eventually(driver, `!document.querySelector('.modal')`);
    expect(await openContests()).toBe(before - 1);
    await stored(driver);
    await driver.navigate().refresh();
    await find(driver, '.contests');
    expect(await openContests()).toBe(before - 1);
    const takeBack = await driver.findElement(
      By.xpath(`//li[contains(., "Nobody is asked to enter anything.")]//button`),
    );
    await driver.executeScript(`arguments[0].scrollIntoView({ block: 'center' })`, takeBack);
    await takeBack.click();
    await eventually(
      driver,
      `!document.querySelector('.rules-sheet').textContent.includes('Nobody is asked')`,
    );
    expect(await openContests()).toBe(before);
    await stored(driver);
  },
  TIMEOUT,
);

test(
  'a rule of its own settles a contest where both hold, refuses what is no value, and is undone in one step',
  async () => {
    await openSheet();
    const before = await openContests();
    const settle = await group('tinted', 'busy');
    await driver.executeScript(`arguments[0].scrollIntoView({ block: 'center' })`, settle);
    await settle.click();
    const ways = await driver.findElements(By.css('.settle input[type=radio]'));
    await ways[1]!.click();
    const value = await find(driver, '.settle .values input');
    await value.sendKeys(Key.chord(Key.CONTROL, 'a'), '12px', Key.ENTER);
    expect(await (await find(driver, '.settle .fault')).getText()).toMatch(/frame\.background-color: “12px”/);
    await value.sendKeys(Key.chord(Key.CONTROL, 'a'), '{color.surface.tinted}', Key.ENTER);
    await eventually(driver, `!document.querySelector('.modal')`);
    await summaryHas('26 rules');
    const names = await driver.executeScript<string[]>(
      `return [...document.querySelectorAll('.contests button')].map(each => each.textContent)`,
    );
    expect(names).not.toContain('settle tinted and busy');
    await stored(driver);
    expect(await driver.executeScript(`return document.activeElement.className`)).toBe('contests');
    await (await named(driver, '.band button', 'undo')).click();
    await summaryHas('25 rules');
    expect(await openContests()).toBe(before);
  },
  TIMEOUT,
);
