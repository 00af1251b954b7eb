import { createPool, type Pool } from 'mysql2/promise';
import { Key } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, find, openBrowser, stored } from './support/browser';
import { plateReady, scopeEntry } from './support/field-screen';
import { Line } from './support/line';
import { TIMEOUT } from './support/patience';

/** The database is away for a while, its connections cut in the middle: nothing is taken back, and all goes on where it was. */

test(
  'edits made meanwhile stay and are stored afterwards, and the stream goes on',
  async () => {
    const url = new URL(process.env['PERIWINKLE_TEST_DATABASE_URL']!);
    const admin: Pool = createPool(url.href);
    const name = `periwinkle_away_${process.pid}`;
    await admin.query(`create database ${name} character set utf8mb4 collate utf8mb4_bin`);
    const line = new Line(url.hostname, Number(url.port));
    await line.open();
    url.host = `127.0.0.1:${line.port}`;
    url.pathname = `/${name}`;
    const application = new Application(undefined, { PERIWINKLE_DATABASE_URL: url.href });
    const browser = await openBrowser();
    const { driver } = browser;
    const shows = (value: string): Promise<unknown> =>
      eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]')?.textContent === '${value}'`,
      );
    try {
      const address = await application.start();
      await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
      await plateReady(driver);
      await line.cut();
      expect((await fetch(`${address}/api/systems/quayside`)).status).toBe(503);
      await (await scopeEntry(driver, 'frame', 'border-color')).click();
      await (await find(driver, '.editor input')).sendKeys(Key.chord(Key.CONTROL, 'a'), '#135246', Key.ENTER);
      await eventually(driver, `document.querySelector('.storing').textContent.endsWith('not stored')`);
      await shows('#135246');
      expect(await driver.executeScript(`return document.querySelectorAll('[role=alert]').length`)).toBe(0);
      await line.open();
      await stored(driver);
      await shows('#135246');
      const documentUrl = `${address}/api/systems/quayside/documents/components/text-field.component.json`;
      const { headers } = await fetch(documentUrl);
      const response = await fetch(documentUrl, {
        method: 'PATCH',
        headers: { 'Content-Type': 'application/json-patch+json', 'If-Match': headers.get('etag')! },
        body: JSON.stringify([{ op: 'replace', path: '/title', value: 'Said elsewhere' }]),
      });
      expect(response.status).toBe(200);
      await eventually(driver, `document.querySelector('h1').textContent === 'Said elsewhere'`);
    } finally {
      await browser.quit();
      await application.remove();
      await line.cut();
      await admin.query(`drop database ${name}`);
      await admin.end();
    }
  },
  TIMEOUT,
);
