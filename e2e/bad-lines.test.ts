import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key, type WebDriver } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, find, openBrowser, stored, type Browser } from './support/browser';
import { plateReady, scopeEntry } from './support/field-screen';
import { Line } from './support/line';
import { TIMEOUT } from './support/patience';

/** What may stand between a window and what it has said: sign-in pages, lines that die in silence, browsers that keep nothing, backups. */

const PLATE = 'quayside/text-field?rows=*&columns=pointed-at';
const DOCUMENT = 'components/text-field.component.json';

let application: Application;
let address: string;
let browser: Browser;
let driver: WebDriver;

beforeAll(async () => {
  application = new Application();
  address = await application.start();
  browser = await openBrowser();
  ({ driver } = browser);
}, TIMEOUT);
afterAll(async () => {
  await browser?.quit();
  await application?.remove();
}, TIMEOUT);

async function set(value: string): Promise<void> {
  await (await scopeEntry(driver, 'frame', 'border-color')).click();
  await (await find(driver, '.editor input')).sendKeys(Key.chord(Key.CONTROL, 'a'), value, Key.ENTER);
}
const shows = (value: string): Promise<unknown> =>
  eventually(
    driver,
    `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]')?.textContent === arguments[0]`,
    value,
  );
const storing = `document.querySelector('.storing')`;

async function storedColor(): Promise<string | undefined> {
  const response = await fetch(`${address}/api/systems/quayside/documents/${DOCUMENT}`);
  const { rules } = (await response.json()) as {
    rules: { id: string; set: Record<string, Record<string, string>> }[];
  };
  return rules.find(({ id }) => id === 'over')!.set['frame']!['border-color'];
}

async function edit(patch: readonly object[]): Promise<void> {
  const url = `${address}/api/systems/quayside/documents/${DOCUMENT}`;
  const { headers } = await fetch(url);
  const { status } = await fetch(url, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json-patch+json', 'If-Match': headers.get('etag')! },
    body: JSON.stringify(patch),
  });
  expect(status).toBe(200);
}

test.each([200, 401, 403, 413])(
  'a page that comes instead of an answer, with status %d, is told as one; the edit is stored once it is over',
  async status => {
    await driver.get(`${address}/${PLATE}`);
    await plateReady(driver);
    await driver.executeScript(
      `window.realFetch = window.fetch;
       window.fetch = async () => new Response('<!doctype html><title>Sign in to the port</title><form></form>', {
         status: arguments[0], headers: { 'Content-Type': 'text/html' },
       });`,
      status,
    );
    const color = `#${String(status)}${String(status)}`;
    await set(color);
    await eventually(driver, `${storing}.title.includes('Sign in to the port')`);
    expect(await driver.executeScript(`return ${storing}.textContent`)).toBe('1 edit not stored');
    await shows(color);
    await driver.executeScript(`window.fetch = window.realFetch; dispatchEvent(new Event('online'))`);
    await stored(driver);
    expect(await storedColor()).toBe(color);
  },
  TIMEOUT,
);

test(
  'a line that dies in silence is noticed, and what was said meanwhile is heard',
  async () => {
    const { hostname, port } = new URL(address);
    const line = new Line(hostname, Number(port));
    await line.open();
    try {
      await driver.get(`http://127.0.0.1:${line.port}/${PLATE}`);
      await plateReady(driver);
      await edit([{ op: 'replace', path: '/summary', value: 'Heard at once.' }]);
      const summary = `periwinkle.state().edited.documents.get('${DOCUMENT}').summary`;
      await eventually(driver, `${summary} === 'Heard at once.'`);
      line.fallSilent();
      await edit([{ op: 'replace', path: '/summary', value: 'Heard in the end.' }]);
      const from = Date.now();
      await eventually(driver, `${summary} === 'Heard in the end.'`);
      expect(Date.now() - from).toBeGreaterThan(1_000);
    } finally {
      await driver.get('about:blank');
      await line.cut();
    }
  },
  TIMEOUT,
);

test(
  'in a browser that keeps nothing all works, it is said what is not kept, and one is asked before it is lost',
  async () => {
    const bare = await openBrowser();
    const outer = driver;
    try {
      driver = bare.driver;
      const script = `
        for (const name of ['localStorage', 'sessionStorage', 'indexedDB', 'caches'])
          Object.defineProperty(window, name, { get() { throw new DOMException('Nothing is kept', 'SecurityError'); } });
        Object.defineProperty(navigator.locks, 'request', { value: () => Promise.reject(new DOMException('No', 'SecurityError')) });`;
      await (
        bare.driver as unknown as { sendDevToolsCommand(name: string, value: object): Promise<void> }
      ).sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: script });
      await driver.get(`${address}/${PLATE}`);
      await plateReady(driver);
      await set('#0d0d0d');
      await stored(driver);
      expect(await storedColor()).toBe('#0d0d0d');
      await driver.executeScript(
        `window.realFetch = window.fetch; window.fetch = () => Promise.reject(new TypeError('cut off'))`,
      );
      await set('#0e0e0e');
      await eventually(driver, `${storing}.textContent === '1 edit not stored, nor kept'`);
      const asks = `!dispatchEvent(new Event('beforeunload', { cancelable: true }))`;
      expect(await driver.executeScript(`return ${asks}`)).toBe(true);
      await edit([
        {
          op: 'replace',
          path: '/rules/' + String(await overAt()) + '/set/frame/border-color',
          value: '#0f0f0f',
        },
      ]);
      await driver.executeScript(`window.fetch = window.realFetch; dispatchEvent(new Event('online'))`);
      await find(driver, '[role=dialog]');
      expect(await driver.executeScript(`return ${asks}`)).toBe(true);
    } finally {
      driver = outer;
      await bare.quit();
    }
  },
  TIMEOUT,
);

async function overAt(): Promise<number> {
  const response = await fetch(`${address}/api/systems/quayside/documents/${DOCUMENT}`);
  return ((await response.json()) as { rules: { id: string }[] }).rules.findIndex(({ id }) => id === 'over');
}

test(
  'a backup that is put back is noticed by windows that stayed open; what they hold is placed on it',
  async () => {
    const copy = mkdtempSync(join(tmpdir(), 'periwinkle-backup-'));
    try {
      await driver.get(`${address}/${PLATE}`);
      await plateReady(driver);
      await set('#aa0001');
      await stored(driver);
      await application.stop();
      cpSync(application.folder, copy, { recursive: true });
      await application.start();
      await set('#aa0002');
      await stored(driver);
      await application.stop();
      rmSync(application.folder, { recursive: true });
      cpSync(copy, application.folder, { recursive: true });
      await driver.executeScript(
        `const { rules } = periwinkle.state().edited.documents.get('${DOCUMENT}');
         const at = rules.findIndex(({ id }) => id === 'over');
         periwinkle.edit('${DOCUMENT}', [{ op: 'replace', path: '/rules/' + at + '/set/frame/background-color', value: '#bb0003' }], 'Meanwhile')`,
      );
      await application.start();
      // Somebody goes on from the backup, so that numbers are taken again.
      await edit([{ op: 'replace', path: '/summary', value: 'After the backup.' }]);
      await shows('#aa0001');
      await stored(driver);
      await eventually(driver, `document.querySelector('.notices').textContent.includes('backup')`);
      const { rules, summary } = (await (
        await fetch(`${address}/api/systems/quayside/documents/${DOCUMENT}`)
      ).json()) as { rules: { id: string; set: Record<string, object> }[]; summary: string };
      expect(summary).toBe('After the backup.');
      expect(rules.find(({ id }) => id === 'over')!.set['frame']).toMatchObject({
        'border-color': '#aa0001',
        'background-color': '#bb0003',
      });
    } finally {
      rmSync(copy, { recursive: true, force: true });
    }
  },
  TIMEOUT,
);
