import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, named, stored } from './support/browser';
import { plateReady, scopeEntry, specimenStyle } from './support/field-screen';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Two windows on one document: edits to different places merge, to the same place ask, and none is lost. */

let driver: WebDriver;
let address: string;
let windows: [string, string];

inBrowser(async session => {
  ({ address, driver } = session);
  await driver.get(`${address}/quayside/text-field?sel=r0c1-r2c1`);
  const first = await driver.getWindowHandle();
  await driver.switchTo().newWindow('window');
  await driver.get(`${address}/quayside/text-field?sel=r0c1-r2c1`);
  windows = [first, await driver.getWindowHandle()];
});

async function inWindow(index: 0 | 1): Promise<void> {
  await driver.switchTo().window(windows[index]);
  await plateReady(driver);
}

async function set(property: string, value: string): Promise<void> {
  await (await scopeEntry(driver, 'frame', property)).click();
  const input = await find(driver, '.editor input');
  await input.sendKeys(Key.chord(Key.CONTROL, 'a'), value, Key.ENTER);
}

/** Keeps the window from reaching the server, as a lost network would; it goes on trying. */
const cutOff = (): Promise<unknown> =>
  driver.executeScript(
    `window.realFetch ??= window.fetch; window.fetch = () => Promise.reject(new TypeError('cut off'))`,
  );
const reconnect = (): Promise<unknown> =>
  driver.executeScript(`window.fetch = window.realFetch; window.dispatchEvent(new Event('online'))`);

const shows = (property: string, value: string): Promise<unknown> =>
  eventually(
    driver,
    `document.querySelector('.entry[data-scope][aria-label^="frame ' + arguments[0] + ',"]').textContent === arguments[1]`,
    property,
    value,
  );

const entryText = async (property: string): Promise<string> =>
  (await scopeEntry(driver, 'frame', property)).getText();

test(
  'edits to different places merge, also when one was made without the server',
  async () => {
    await inWindow(0);
    await cutOff();
    await set('border-color', '#123456');
    expect(await specimenStyle(driver, 'Pointed at', 'small', 'frame', 'border-top-color')).toBe(
      'rgb(18, 52, 86)',
    );
    await eventually(driver, `document.querySelector('.storing').textContent === 'not stored'`);
    await inWindow(1);
    await set('background-color', '#fedcba');
    await stored(driver);
    await inWindow(0);
    await reconnect();
    await stored(driver);
    for (const index of [0, 1] as const) {
      await inWindow(index);
      await eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#123456' &&
         document.querySelector('.entry[data-scope][aria-label^="frame background-color,"]').textContent === '#fedcba'`,
      );
      expect(await specimenStyle(driver, 'Pointed at', 'large', 'frame', 'background-color')).toBe(
        'rgb(254, 220, 186)',
      );
    }
  },
  TIMEOUT,
);

/** Waits until what is not yet stored lies in the browser's storage. */
const keptHere = (): Promise<unknown> =>
  driver.wait(async () => ((await keptTexts()) as string[]).length > 0, TIMEOUT / 2, 'something is kept');

/** Runs a script with `store`, a transaction's store of what windows keep, and `done`. */
const withKept = (script: string): Promise<unknown> =>
  driver.executeAsyncScript(
    `const done = arguments[arguments.length - 1];
     const request = indexedDB.open('periwinkle-outbox');
     request.onsuccess = () => {
       const { result } = request;
       if (!result.objectStoreNames.contains('windows')) return done([]);
       const store = result.transaction('windows', 'readwrite').objectStore('windows');
       ${script}
     };`,
  );
const keptTexts = (): Promise<unknown> =>
  withKept(`const all = store.getAll(); all.onsuccess = () => done(all.result);`);
const changeKept = (change: string): Promise<unknown> =>
  withKept(
    `const cursor = store.openCursor();
     cursor.onsuccess = () => {
       if (!cursor.result) return done();
       const kept = JSON.parse(cursor.result.value);
       ${change}
       cursor.result.update(JSON.stringify(kept));
       cursor.result.continue();
     };`,
  );

/** Has both windows set the same, one of them without the server, which then comes back to it. */
async function meet(property: string, here: string, elsewhere: string): Promise<void> {
  await inWindow(0);
  await cutOff();
  await set(property, here);
  await inWindow(1);
  await set(property, elsewhere);
  await stored(driver);
  await inWindow(0);
  await reconnect();
}

test(
  'edits to the same place ask, showing both; the one chosen stands in both windows',
  async () => {
    await meet('border-color', '#aaaaaa', '#bbbbbb');
    const dialog = await find(driver, '[role=dialog]');
    const text = await dialog.getText();
    expect(text).toContain('#aaaaaa');
    expect(text).toContain('#bbbbbb');
    await (await named(driver, 'button', 'Put mine in its place')).click();
    await stored(driver);
    expect(await entryText('border-color')).toBe('#aaaaaa');
    await inWindow(1);
    await eventually(
      driver,
      `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#aaaaaa'`,
    );
  },
  TIMEOUT,
);

test(
  'an undecided meeting outlasts a reload, and nothing is written over before it is decided',
  async () => {
    await meet('border-color', '#ababab', '#cdcdcd');
    await find(driver, '[role=dialog]');
    await driver.navigate().refresh();
    const text = await (await find(driver, '[role=dialog]')).getText();
    expect(text).toContain('#ababab');
    expect(text).toContain('#cdcdcd');
    expect(await entryText('border-color')).toBe('#cdcdcd');
    await inWindow(1);
    expect(await entryText('border-color')).toBe('#cdcdcd');
    await inWindow(0);
    await (await named(driver, 'button', 'Put mine in its place')).click();
    await stored(driver);
    await inWindow(1);
    await eventually(
      driver,
      `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#ababab'`,
    );
  },
  TIMEOUT,
);

test(
  'an edit that could not be stored survives a reload of the window',
  async () => {
    await inWindow(0);
    await cutOff();
    await set('border-color', '#0f0f0f');
    const asks = (): Promise<boolean> =>
      driver.executeScript(
        `const leaving = new Event('beforeunload', { cancelable: true }); return !dispatchEvent(leaving)`,
      );
    expect(await asks()).toBe(true);
    await keptHere();
    await driver.navigate().refresh();
    await plateReady(driver);
    await shows('border-color', '#0f0f0f');
    await stored(driver);
    expect(await asks()).toBe(false);
    await inWindow(1);
    await eventually(
      driver,
      `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#0f0f0f'`,
    );
  },
  TIMEOUT,
);

test(
  'what a closed window could not store is stored by the next one that opens',
  async () => {
    await driver.switchTo().newWindow('window');
    await driver.get(`${address}/quayside/text-field?sel=r0c1-r2c1`);
    await plateReady(driver);
    await cutOff();
    await set('border-color', '#2f2f2f');
    await set('background-color', '#3f3f3f');
    await keptHere();
    await driver.close();
    await inWindow(1);
    expect(await entryText('border-color')).not.toBe('#2f2f2f');
    await driver.navigate().refresh();
    await plateReady(driver);
    for (const index of [1, 0] as const) {
      await inWindow(index);
      await eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#2f2f2f' &&
         document.querySelector('.entry[data-scope][aria-label^="frame background-color,"]').textContent === '#3f3f3f'`,
      );
      await stored(driver);
    }
    await eventually(driver, `document.querySelector('.band button[title^="Take back"]') !== null`);
    expect(await keptTexts()).toEqual([]);
  },
  TIMEOUT,
);

test(
  'an edit made on a later state than the server has by now, as after a backup was put back, is stored after a reload',
  async () => {
    await inWindow(0);
    await cutOff();
    await set('border-color', '#1e1e1e');
    await keptHere();
    await changeKept(`kept.bases.forEach(base => (base.revision += 1000)); kept.lastEdit += 1000;`);
    await driver.navigate().refresh();
    await plateReady(driver);
    await shows('border-color', '#1e1e1e');
    await stored(driver);
    await inWindow(1);
    await eventually(
      driver,
      `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#1e1e1e'`,
    );
  },
  TIMEOUT,
);

test(
  'more windows than a browser grants connections to one host all load, and all hear of edits, also when others close',
  async () => {
    const all = [...windows];
    while (all.length < 9) {
      await driver.switchTo().newWindow('window');
      await driver.get(`${address}/quayside/text-field?sel=r0c1-r2c1`);
      await plateReady(driver);
      all.push(await driver.getWindowHandle());
    }
    const hears = async (window: string, colour: string): Promise<void> => {
      await driver.switchTo().window(window);
      await eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === arguments[0]`,
        colour,
      );
    };
    await set('border-color', '#010203');
    await stored(driver);
    for (const window of all) await hears(window, '#010203');
    // Whichever of these listened to the server, another takes over; leaving for another page counts as closing.
    for (const window of all.slice(0, 3)) {
      await driver.switchTo().window(window);
      await driver.close();
    }
    await driver.switchTo().window(all[3]!);
    await driver.get(`${address}/`);
    await find(driver, '.shelf .specimens');
    await driver.switchTo().window(all.at(-1)!);
    await set('border-color', '#040506');
    await stored(driver);
    for (const window of all.slice(4)) await hears(window, '#040506');
    await driver.switchTo().window(all[3]!);
    await driver.navigate().back();
    await hears(all[3]!, '#040506');
    await driver.switchTo().window(all[4]!);
    await set('border-color', '#070809');
    await stored(driver);
    await hears(all[3]!, '#070809');
  },
  TIMEOUT,
);
