import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, named, stored } from './support/browser';
import { press } from './support/field-screen';
import { line, storedComponent, storedProblems } from './support/making';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Two windows make one component over at the same moment: both are there, or its maker is told; what is stored is always whole. */

let driver: WebDriver;
let address: string;
let windows: [string, string];

inBrowser(async session => {
  ({ address, driver } = session);
  await driver.get(`${address}/quayside`);
  const first = await driver.getWindowHandle();
  await driver.switchTo().newWindow('window');
  windows = [first, await driver.getWindowHandle()];
});

/** What a person does on a sheet of the text field, or of the system where it begins with a slash. */
type Doing = { readonly sheet: string; readonly do: () => Promise<void> };

const write = async (label: string, text: string): Promise<void> => {
  const input = await line(driver, label);
  await driver.executeScript(
    `arguments[0].scrollIntoView({ block: 'center' }); arguments[0].focus(); arguments[0].select?.()`,
    input,
  );
  await press(driver, text, Key.ENTER);
};
const insert = (beside: string, name: string): Doing => ({
  sheet: `anatomy?part=${beside}`,
  do: async () => {
    await (await named(driver, '.part-acts button', 'before')).click();
    await write('called', name);
    await eventually(driver, `location.search.includes('part=' + arguments[0])`, name);
  },
});
const rename = (part: string, to: string): Doing => ({
  sheet: `anatomy?part=${part}`,
  do: async () => {
    await write('name', to);
    await eventually(driver, `location.search.includes('part=' + arguments[0])`, to);
  },
});
const takeOut = (part: string): Doing => ({
  sheet: `anatomy?part=${part}`,
  do: async () => {
    await (await named(driver, '.part-acts button', `take out: ${part}`)).click();
    await (await named(driver, '.considered button', 'take out')).click();
    await eventually(driver, `!location.search.includes('part=')`);
  },
});
const renameValue = (value: string, to: string): Doing => ({
  sheet: 'space?open=axis:size',
  do: async () => {
    await write(`id of ${value}`, to);
    await eventually(
      driver,
      `[...document.querySelectorAll('.values input')].some(each => each.value === arguments[0])`,
      to,
    );
  },
});
const valueOf = (row: string, column: string, property: string, text: string): Doing => ({
  sheet: `?rows=${row}&columns=${column}`,
  do: async () => {
    await (await find(driver, `.entry[data-scope][aria-label^="frame ${property},"]`)).click();
    const input = await find(driver, '.editor input');
    await input.sendKeys(Key.chord(Key.CONTROL, 'a'), text, Key.ENTER);
  },
});

/**
 * One window does something without the server, the other does something meanwhile; then the first one reaches it again. Gives what the first is
 * told, or nothing where both are stored.
 */
async function together(cutOff: Doing, meanwhile: Doing): Promise<string> {
  for (const [index, { sheet }] of [cutOff, meanwhile].entries()) {
    await driver.switchTo().window(windows[index]!);
    const isOfField = !sheet.startsWith('/');
    await driver.get(
      `${address}/quayside${isOfField ? `/text-field${sheet.startsWith('?') ? '' : '/'}` : ''}${sheet}`,
    );
    await find(driver, isOfField ? '.sheets' : '.modal');
  }
  await driver.switchTo().window(windows[0]);
  await driver.executeScript(
    `window.realFetch = window.fetch; window.fetch = () => Promise.reject(new TypeError('cut off'))`,
  );
  await cutOff.do();
  await driver.switchTo().window(windows[1]);
  await meanwhile.do();
  await stored(driver);
  await driver.switchTo().window(windows[0]);
  await driver.executeScript(`window.fetch = window.realFetch; window.dispatchEvent(new Event('online'))`);
  await eventually(
    driver,
    `document.querySelector('[role=dialog]') || document.querySelector('.storing').textContent === 'stored'`,
  );
  const told = await driver.executeScript<string>(
    `return (document.querySelector('[role=dialog]') ?? document.querySelector('.notices .error'))?.textContent ?? ''`,
  );
  await driver.executeScript(
    `[...document.querySelectorAll('[role=dialog] button')].find(each => each.textContent === 'Keep what is there')?.click()`,
  );
  await stored(driver);
  expect(await storedProblems(address)).toEqual([]);
  return told;
}

const text = async (): Promise<string> => JSON.stringify(await storedComponent(address, 'text-field'));

test(
  'what concerns different things is there twice over',
  async () => {
    expect(await together(insert('control', 'flag'), insert('message', 'badge'))).toBe('');
    const both = await text();
    expect(both).toContain('"part":"flag"');
    expect(both).toContain('"part":"badge"');
    // A part that is inserted beside one which is called otherwise by now stands beside it all the same.
    expect(await together(insert('unit', 'mast'), rename('unit', 'suffix'))).toBe('');
    const after = await text();
    expect(after).toContain('"part":"suffix"');
    expect(after).toContain('"part":"mast"');
  },
  TIMEOUT,
);

test(
  'what cannot both be is told to whoever comes second, and stands as the first has it',
  async () => {
    const holds = async (part: string): Promise<boolean> => (await text()).includes(part);
    const told = await together(takeOut('suffix'), rename('suffix', 'ending'));
    expect(await holds('"part":"ending"')).toBe(told !== '');
    // A rule is written for a value that is called otherwise in a window that nobody has heard of yet.
    const renamed = await together(
      renameValue('small', 'slight'),
      valueOf('small', 'pointed-at', 'border-color', '#123456'),
    );
    expect(renamed).not.toBe('');
    expect(await holds('#123456')).toBe(true);
    expect(await holds('slight')).toBe(false);
  },
  TIMEOUT,
);

test(
  'what was done without the server to a field that is called otherwise meanwhile is there under its new id',
  async () => {
    const rename: Doing = {
      sheet: '/?do=rename&on=text-field',
      do: async () => {
        await write('id', 'entry');
        await eventually(driver, `!document.querySelector('.modal')`);
      },
    };
    expect(await together(insert('message', 'pennant'), rename)).toBe('');
    expect(await storedComponent(address, 'text-field')).toBeUndefined();
    expect(JSON.stringify(await storedComponent(address, 'entry'))).toContain('"part":"pennant"');
    // The window that was cut off shows what it did, too.
    await driver.get(`${address}/quayside/entry/anatomy?part=pennant`);
    expect(await (await line(driver, 'name')).getAttribute('value')).toBe('pennant');
  },
  TIMEOUT,
);
