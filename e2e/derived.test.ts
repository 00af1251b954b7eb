import { By, Key, type WebDriver } from 'selenium-webdriver';
import { compileSystem, componentNamed } from '@periwinkle/core/components/system';
import { componentCssText } from '@periwinkle/core/output/outputs';
import { eventually, find, stored } from './support/browser';
import { ledgerUp, scopeEntry } from './support/field-screen';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Components derived from another: they follow their base, depart from it in the ledger and return to it. */

let driver: WebDriver;
let address: string;

inBrowser(session => ({ address, driver } = session));

const NOTES = '/quayside/notes?rows=medium&columns=at-rest';

/** A computed value of the frame in a cell of the plate. */
const frame = (property: string, cell = '[data-row="1"][data-column="0"]'): Promise<string> =>
  driver.executeScript<string>(
    `return getComputedStyle(document.querySelector('.cell${cell} .specimen').shadowRoot.querySelector('[class$="-frame"]')).getPropertyValue(arguments[0])`,
    property,
  );

const entry = (property: string, column: string) =>
  driver.findElement(By.css(`.entry[aria-label^="frame ${property}, ${column}:"]`));

async function write(property: string, column: string, text: string): Promise<void> {
  const found = await entry(property, column);
  await driver.executeScript(`arguments[0].scrollIntoView({ block: 'center' })`, found);
  await found.click();
  const input = await find(driver, '.editor input');
  await input.sendKeys(Key.chord(Key.CONTROL, 'a'), text, Key.ENTER);
  await stored(driver);
}

const open = async (path: string): Promise<void> => {
  await driver.get(address + path);
  await find(driver, '.cell .specimen');
  await ledgerUp(driver);
};

/** On the contents page: by component, whether some part of it has a corner, and whether some has another. */
const corners = (one: string, other: string): Promise<Record<string, [boolean, boolean]>> =>
  driver.executeScript(
    `return Object.fromEntries([...document.querySelectorAll('.contents .line')].map(line => {
       const parts = [...line.querySelector('.specimen').shadowRoot.querySelectorAll('*')];
       const found = new Set(parts.map(part => getComputedStyle(part).borderTopLeftRadius));
       return [line.querySelector('a').textContent, [found.has(arguments[0]), found.has(arguments[1])]];
     }))`,
    one,
    other,
  );

test(
  'one corner token repaints every field that is made with it, at once',
  async () => {
    const changed = (value: number): Promise<unknown> =>
      driver.executeScript(
        `periwinkle.edit('tokens/raw.tokens.json', [{ op: 'replace', path: '/raw/corner/soft/$value/value', value: ${value} }], 'corner')`,
      );
    await driver.get(`${address}/quayside`);
    await eventually(driver, `document.querySelectorAll('.contents .specimen').length === 17`);
    await changed(4);
    const before = await corners('4px', '9px');
    const withCorner = Object.keys(before).filter(name => before[name]![0]);
    expect(withCorner).toEqual(
      expect.arrayContaining(['Draught', 'Berth', 'Gate code', 'Passphrase', 'Step button', 'Code box']),
    );
    expect(Object.values(before).some(([, other]) => other)).toBe(false);
    await changed(9);
    const after = await corners('4px', '9px');
    expect(Object.keys(after).filter(name => after[name]![1])).toEqual(withCorner);
    expect(Object.keys(after).filter(name => after[name]![0])).toEqual([]);
    await changed(4);
    await stored(driver);
  },
  TIMEOUT,
);

test(
  'a change of the base reaches what is derived from it, and leaves departures alone',
  async () => {
    await open(NOTES);
    const height = await frame('height');
    await open('/quayside/text-field?rows=medium&columns=at-rest');
    await write('border-radius', 'always', '11px');
    await write('height', 'always', '51px');
    expect(await frame('height')).toBe('51px');
    await open(NOTES);
    expect(await frame('border-top-left-radius')).toBe('11px');
    expect(await frame('height')).toBe(height);
    const whole = (await (await fetch(`${address}/api/systems/quayside`)).json()) as {
      documents: { path: string; body: unknown }[];
    };
    const system = compileSystem(new Map(whole.documents.map(({ path, body }) => [path, body])));
    const css = componentCssText(system, componentNamed(system, 'notes')!);
    expect(css).toContain('border-radius: 11px');
    expect(css).not.toContain('height: 51px');
  },
  TIMEOUT,
);

test(
  'writing into a rule of the base departs from it here alone; taking it out again returns to the base',
  async () => {
    await open(NOTES);
    expect(await (await find(driver, 'th.overlaid .source')).getText()).toMatch(/departs from Text field/);
    await write('border-radius', 'always', '3px');
    expect(await frame('border-top-left-radius')).toBe('3px');
    expect(await (await entry('border-radius', 'always')).getAttribute('class')).toContain('departs');
    await open('/quayside/text-field?rows=medium&columns=at-rest');
    expect(await frame('border-top-left-radius')).toBe('11px');
    await open(NOTES);
    const departed = await entry('border-radius', 'always');
    await driver.executeScript(`arguments[0].focus()`, departed);
    await departed.sendKeys(Key.DELETE);
    await stored(driver);
    await eventually(
      driver,
      `!document.querySelector('.entry[aria-label^="frame border-radius, always:"]').classList.contains('departs')`,
    );
    expect(await frame('border-top-left-radius')).toBe('11px');
  },
  TIMEOUT,
);

test(
  'a rule of its own has the last word here, and is not in the base',
  async () => {
    await open('/quayside/notes?rows=small&columns=pointed-at');
    await (await scopeEntry(driver, 'frame', 'border-color')).click();
    await (await find(driver, '.editor input')).sendKeys('#123456', Key.ENTER);
    await stored(driver);
    expect(await frame('border-top-color', '[data-row="0"][data-column="1"]')).toBe('rgb(18, 52, 86)');
    await open('/quayside/text-field?rows=small&columns=pointed-at');
    expect(await frame('border-top-color', '[data-row="0"][data-column="1"]')).not.toBe('rgb(18, 52, 86)');
  },
  TIMEOUT,
);
