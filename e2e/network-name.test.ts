import { Key } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, find, openBrowser, stored } from './support/browser';
import { plateReady, scopeEntry } from './support/field-screen';
import { TIMEOUT } from './support/patience';

/** Over plain HTTP under a name of the network, where a browser offers neither locks nor random ids: everything works all the same. */

const NAME = 'quay.merrow.example';

test(
  'edits are stored, told to other windows, and outlast a window that is closed',
  async () => {
    const application = new Application(undefined, { PERIWINKLE_ALLOWED_HOSTS: NAME });
    const browser = await openBrowser(1280, 800, [`--host-resolver-rules=MAP ${NAME} 127.0.0.1`]);
    const { driver } = browser;
    const shows = (value: string): Promise<unknown> =>
      eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]')?.textContent === '${value}'`,
      );
    const set = async (value: string): Promise<void> => {
      await (await scopeEntry(driver, 'frame', 'border-color')).click();
      await (await find(driver, '.editor input')).sendKeys(Key.chord(Key.CONTROL, 'a'), value, Key.ENTER);
    };
    try {
      const { port } = new URL(await application.start());
      const address = `http://${NAME}:${port}/quayside/text-field?rows=*&columns=pointed-at`;
      await driver.get(address);
      await plateReady(driver);
      expect(await driver.executeScript('return window.isSecureContext')).toBe(false);
      const first = await driver.getWindowHandle();
      await driver.switchTo().newWindow('window');
      await driver.get(address);
      await plateReady(driver);
      await set('#123123');
      await stored(driver);
      const second = await driver.getWindowHandle();
      await driver.switchTo().window(first);
      await shows('#123123');

      await driver.switchTo().window(second);
      await driver.executeScript(`window.fetch = () => Promise.reject(new TypeError('cut off'))`);
      await set('#321321');
      await eventually(driver, `document.querySelector('.storing').textContent.endsWith('not stored')`);
      // Long enough for it to be written down.
      await driver.executeAsyncScript(
        `const done = arguments[arguments.length - 1];
         const look = () => {
           const request = indexedDB.open('periwinkle-outbox-2');
           request.onsuccess = () => {
             const all = request.result.transaction('windows').objectStore('windows').getAll();
             all.onsuccess = () => (all.result.length > 0 ? done() : setTimeout(look, 50));
           };
         };
         look();`,
      );
      await driver.close();
      await driver.switchTo().window(first);
      await shows('#123123');
      await driver.navigate().refresh();
      await plateReady(driver);
      await shows('#321321');
      await stored(driver);
    } finally {
      await browser.quit();
      await application.remove();
    }
  },
  TIMEOUT,
);
