import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, named, stored, type Browser } from './support/browser';
import { downloadedZip } from './support/zip';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** The shelf: new, import, duplicate, remove with undo; and a system of one's own from its first field to its zip. */

let browser: Browser;
let driver: WebDriver;
let address: string;

inBrowser(session => ({ address, browser, driver } = session));

const titles = (): Promise<string[]> =>
  driver.executeScript(`return [...document.querySelectorAll('.shelf h2')].map(each => each.textContent)`);

async function importZip(files: Record<string, string>): Promise<void> {
  const archive = join(browser.downloads, `import-${Math.random().toString(36).slice(2)}.archive`);
  writeFileSync(
    archive,
    zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)]))),
  );
  await (await driver.findElement({ css: 'input[type=file]' })).sendKeys(archive);
}

test(
  'a new system has a field to begin from, which is edited, delivered, and imported again as another',
  async () => {
    await driver.get(address);
    await (await named(driver, 'button', 'New system')).click();
    await (await find(driver, '#title')).sendKeys('Tide tables & buoys', Key.ENTER);
    await (await named(driver, 'a', 'Field')).click();
    await find(driver, '.cell .specimen');
    expect(await driver.getCurrentUrl()).toContain('/tide-tables-buoys/field');
    await (await find(driver, '[role=columnheader][data-column="1"]')).click();
    await (await find(driver, '.entry[data-scope][aria-label^="frame border-color,"]')).click();
    await (
      await find(driver, '.editor input')
    ).sendKeys(Key.chord(Key.CONTROL, 'a'), 'color.wrong', Key.ENTER);
    await stored(driver);
    await (await named(driver, 'nav.book a', 'Outputs')).click();
    await eventually(driver, `document.querySelector('.head .btn-primary')?.disabled === false`);
    await (await named(driver, 'button', 'Download tide-tables-buoys.zip')).click();
    const files = await downloadedZip(driver, browser.downloads);
    expect(files['css/field.css']).toMatch(/:hover[^{}]*\{\n\s+border-color: var\(--tide-color-wrong\);/);

    const own = Object.entries(files).filter(([path]) => path.startsWith('tide-tables-buoys/'));
    await driver.get(address);
    await find(driver, '.shelf article');
    await importZip(Object.fromEntries(own));
    const taken = await find(driver, '[role=dialog]');
    expect(await taken.getText()).toMatch(/is there already/);
    await (await find(driver, '[role=dialog] .btn-close')).click();
    await eventually(driver, `document.querySelector('[role=dialog]') === null`);
    const second = own.map(([path, text]) => [
      path,
      text.replace('"tide-tables-buoys"', '"second"').replace('Tide tables & buoys', 'The second'),
    ]);
    await importZip({ ...Object.fromEntries(second), 'css/old.css': 'a {}' });
    // What is no document is named before anything is taken in.
    expect(await (await find(driver, '.passed-over')).getText()).toBe('css/old.css');
    expect(await titles()).not.toContain('The second');
    await (await named(driver, 'button', 'Take them in')).click();
    await eventually(
      driver,
      `[...document.querySelectorAll('.shelf h2')].some(each => each.textContent === 'The second')`,
    );
  },
  TIMEOUT,
);

test(
  'a zip of a system that is there comes in as a new state of it, which can be taken back, or under another id',
  async () => {
    await driver.get(`${address}/`);
    const system = async (id: string): Promise<{ title: string; paths: string[] }> => {
      const { title, documents } = (await (await fetch(`${address}/api/systems/${id}`)).json()) as {
        title: string;
        documents: { path: string; body: unknown }[];
      };
      return { title, paths: documents.filter(({ body }) => body !== null).map(({ path }) => path) };
    };
    const before = await system('quayside');
    const files = {
      'system.json': JSON.stringify({
        format: 'periwinkle-system/1',
        id: 'quayside',
        title: 'Quayside anew',
        prefix: 'quay',
      }),
      'guide/note.md': 'A note.',
    };
    await importZip(files);
    await (await named(driver, 'button', 'Bring it in as a new state of that')).click();
    await eventually(driver, `document.querySelector('[role=dialog]') === null`);
    const after = await system('quayside');
    expect(after).toEqual({ title: 'Quayside anew', paths: ['guide/note.md', 'system.json'] });
    await driver.get(`${address}/quayside`);
    await (await named(driver, '.band button', 'undo')).click();
    await stored(driver);
    expect(await system('quayside')).toEqual(before);

    await driver.get(`${address}/`);
    await importZip(files);
    const input = await find(driver, '#taken-id-other');
    await input.sendKeys(Key.chord(Key.CONTROL, 'a'), 'quay-two', Key.ENTER);
    await eventually(driver, `document.querySelector('[role=dialog]') === null`);
    expect((await system('quay-two')).title).toBe('Quayside anew');
  },
  TIMEOUT,
);

test(
  'a broken import is refused as a whole, with the place and the likely word of each problem',
  async () => {
    await driver.get(address);
    await find(driver, '.shelf article');
    const before = await titles();
    await importZip({
      'x/system.json': JSON.stringify({
        format: 'periwinkle-system/1',
        id: 'broken',
        title: 'Broken',
        prefix: 'b',
      }),
      'x/components/f.component.json': JSON.stringify({
        format: 'periwinkle-component/1',
        id: 'f',
        anatomy: { part: 'root', kind: 'stack' },
        rules: [{ id: 'r', when: {}, set: { root: { 'border-colour': 'red' } } }],
      }),
    });
    const text = await (await find(driver, '.fault li')).getText();
    expect(text).toMatch(
      /components\/f\.component\.json\/rules\/0\/set\/root\/border-colour.*Perhaps border-color/,
    );
    await importZip({ 'notes.txt': 'nothing here' });
    await eventually(
      driver,
      `document.querySelector('.fault')?.textContent.includes('holds no system.json')`,
    );
    expect(await titles()).toEqual(before);
  },
  TIMEOUT,
);

test(
  'a system is duplicated, removed, and put back',
  async () => {
    await driver.get(address);
    await (await named(driver, 'button', 'Duplicate Quayside')).click();
    const title = await find(driver, '#title');
    await title.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Quayside for small craft', Key.ENTER);
    await eventually(
      driver,
      `[...document.querySelectorAll('.shelf h2')].some(each => each.textContent === 'Quayside for small craft')`,
    );
    await (await named(driver, 'button', 'Remove Quayside for small craft')).click();
    await eventually(
      driver,
      `![...document.querySelectorAll('.shelf h2')].some(each => each.textContent === 'Quayside for small craft')`,
    );
    await (await named(driver, 'button', 'Put it back')).click();
    await eventually(
      driver,
      `[...document.querySelectorAll('.shelf h2')].some(each => each.textContent === 'Quayside for small craft')`,
    );
    expect((await fetch(`${address}/api/systems/quayside-for-small-craft`)).status).toBe(200);
  },
  TIMEOUT,
);

test(
  'of a system that is large the shelf tells what is in it, and draws nothing',
  async () => {
    const small = (await (await fetch(`${address}/api/systems/quayside`)).json()) as {
      documents: { path: string; body: unknown }[];
    };
    const present = small.documents.filter(({ body }) => body !== null);
    const documents = Object.fromEntries(present.map(({ path, body }) => [path, body]));
    const manifest = documents['system.json'] as object;
    const words = 'Words about tides and pilots. '.repeat(120_000);
    const response = await fetch(`${address}/api/systems`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({
        documents: {
          ...documents,
          'system.json': { ...manifest, id: 'large', title: 'Large' },
          'guide/words.md': words,
        },
      }),
    });
    expect(response.status).toBe(201);
    await driver.get(address);
    const facts = (title: string): string =>
      `[...document.querySelectorAll('.shelf article')].find(each => each.querySelector('h2').textContent === '${title}')`;
    await eventually(
      driver,
      `${facts('Large')}?.querySelector('.facts').textContent.startsWith('17 fields')`,
    );
    await eventually(driver, `${facts('Quayside')}.querySelector('.specimens') !== null`);
    expect(await driver.executeScript(`return ${facts('Large')}.querySelector('.specimens')`)).toBeNull();
  },
  TIMEOUT,
);

test(
  'of many systems those are looked at that somebody comes to; one that is gone by then is said to be',
  async () => {
    const last = 'boat-39';
    for (let index = 0; index < 40; index++) {
      const manifest = {
        format: 'periwinkle-system/1',
        id: `boat-${index}`,
        title: `Boat ${index}`,
        prefix: 'b',
      };
      const response = await fetch(`${address}/api/systems`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ documents: { 'system.json': manifest } }),
      });
      expect(response.status).toBe(201);
    }
    await driver.get(address);
    await eventually(driver, `document.querySelectorAll('.shelf article').length >= 40`);
    const facts = `[...document.querySelectorAll('.shelf .facts')].at(-1).textContent`;
    await eventually(driver, `document.querySelector('.shelf .facts').textContent.includes('fields')`);
    expect(await driver.executeScript(`return ${facts}`)).toMatch(/^…/);
    await fetch(`${address}/api/systems/${last}`, { method: 'DELETE' });
    await driver.executeScript(`[...document.querySelectorAll('.shelf article')].at(-1).scrollIntoView()`);
    await eventually(driver, `${facts}.startsWith('could not be read')`);
    for (let index = 0; index < 39; index++)
      await fetch(`${address}/api/systems/boat-${index}`, { method: 'DELETE' });
  },
  TIMEOUT,
);
