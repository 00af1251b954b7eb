import { createServer, type Server } from 'node:http';
import { once } from 'node:events';
import { Key } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, find, openBrowser, stored } from './support/browser';
import { plateReady, scopeEntry } from './support/field-screen';
import { TIMEOUT } from './support/patience';

/** Something else answers in the server's place for a while: nothing is taken back, and the window goes on where it was. */

const PATH = '/api/systems/quayside/documents/components/text-field.component.json';

async function listening(server: Server, port: number): Promise<void> {
  server.listen(port, '127.0.0.1');
  await once(server, 'listening');
}

async function closed(server: Server): Promise<void> {
  server.closeAllConnections();
  server.close();
  await once(server, 'close');
}

test(
  'an edit made meanwhile stays and is stored afterwards, and edits from elsewhere are heard again',
  async () => {
    const inItsPlace = createServer((_, response) => response.writeHead(500).end('broken'));
    const application = new Application();
    const browser = await openBrowser();
    const { driver } = browser;
    const shows = (property: string, value: string): Promise<unknown> =>
      eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame ${property},"]').textContent === '${value}'`,
      );
    try {
      const address = await application.start();
      await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
      await plateReady(driver);
      await application.stop();
      await listening(inItsPlace, Number(new URL(address).port));
      await (await scopeEntry(driver, 'frame', 'border-color')).click();
      await (await find(driver, '.editor input')).sendKeys(Key.chord(Key.CONTROL, 'a'), '#123456', Key.ENTER);
      await eventually(driver, `document.querySelector('.storing').textContent.endsWith('not stored')`);
      await shows('border-color', '#123456');
      expect(await driver.executeScript(`return document.querySelectorAll('[role=alert]').length`)).toBe(0);
      await closed(inItsPlace);
      expect(await application.start()).toBe(address);
      await stored(driver);
      await shows('border-color', '#123456');
      const { headers } = await fetch(address + PATH);
      const response = await fetch(address + PATH, {
        method: 'PATCH',
        headers: {
          'Content-Type': 'application/json-patch+json',
          'If-Match': headers.get('etag')!,
          'Idempotency-Key': 'elsewhere',
        },
        body: JSON.stringify([
          {
            op: 'add',
            path: '/rules/-',
            value: { id: 'elsewhere', when: { pointer: 'over' }, set: { frame: { opacity: '0.5' } } },
          },
        ]),
      });
      expect(response.status).toBe(200);
      await eventually(driver, `document.querySelector('.ledger').textContent.includes('opacity')`);
    } finally {
      await browser.quit();
      await application.remove();
    }
  },
  TIMEOUT,
);
