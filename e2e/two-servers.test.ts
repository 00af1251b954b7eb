import { createPool, type Pool } from 'mysql2/promise';
import type { WebDriver } from 'selenium-webdriver';
import { Application } from './support/application';
import { eventually, openBrowser, stored, type Browser } from './support/browser';
import { plateReady } from './support/field-screen';
import { TIMEOUT } from './support/patience';

/** Two servers on one database, a window on each: both come to the same, also when one of them is away for a while. */

const PATH = 'components/text-field.component.json';
let admin: Pool;
let name: string;
let servers: [Application, Application];
let browser: Browser;
let driver: WebDriver;
let addresses: [string, string];
let windows: [string, string];

beforeAll(async () => {
  const url = new URL(process.env['PERIWINKLE_TEST_DATABASE_URL']!);
  admin = createPool(url.href);
  name = `periwinkle_two_${process.pid}`;
  await admin.query(`create database ${name} character set utf8mb4 collate utf8mb4_bin`);
  url.pathname = `/${name}`;
  const environment = { PERIWINKLE_DATABASE_URL: url.href };
  servers = [new Application(undefined, environment), new Application(undefined, environment)];
  addresses = [await servers[0].start(), await servers[1].start()];
  browser = await openBrowser();
  driver = browser.driver;
  await driver.get(`${addresses[0]}/quayside/text-field?rows=*&columns=pointed-at`);
  const first = await driver.getWindowHandle();
  await driver.switchTo().newWindow('window');
  await driver.get(`${addresses[1]}/quayside/text-field?rows=*&columns=pointed-at`);
  windows = [first, await driver.getWindowHandle()];
}, TIMEOUT);
afterAll(async () => {
  await browser?.quit();
  for (const server of servers ?? []) await server.remove();
  await admin?.query(`drop database ${name}`);
  await admin?.end();
}, TIMEOUT);

async function inWindow(index: 0 | 1): Promise<void> {
  await driver.switchTo().window(windows[index]);
  await plateReady(driver);
}

/** Puts rules in, one after another as fast as the page can, each at the front. */
const put = (mark: string, count: number): Promise<unknown> =>
  driver.executeScript(
    `for (let number = 0; number < arguments[1]; number++) {
       const value = { id: arguments[0] + '-' + number, when: {}, set: { frame: { opacity: '1' } } };
       periwinkle.edit('${PATH}', [{ op: 'add', path: '/rules/0', value }], arguments[0] + ' ' + number);
     }`,
    mark,
    count,
  );

const SHOWN = `JSON.stringify(periwinkle.state().edited.documents.get('${PATH}').rules.map(rule => rule.id))`;
const shown = async (): Promise<string[]> =>
  JSON.parse(await driver.executeScript<string>(`return ${SHOWN}`)) as string[];
const storedIds = async (index: 0 | 1): Promise<string[]> => {
  const response = await fetch(`${addresses[index]}/api/systems/quayside/documents/${PATH}`);
  return ((await response.json()) as { rules: { id: string }[] }).rules.map(({ id }) => id);
};

/** Waits until both windows show what both servers have. */
async function agreed(): Promise<string[]> {
  for (const index of [0, 1] as const) {
    await inWindow(index);
    await stored(driver);
  }
  const ids = await storedIds(0);
  expect(await storedIds(1)).toEqual(ids);
  for (const index of [0, 1] as const) {
    await inWindow(index);
    await eventually(driver, `${SHOWN} === arguments[0]`, JSON.stringify(ids));
  }
  return ids;
}

test(
  'edits through both at once are all there, once, in one order',
  async () => {
    for (const round of [1, 2]) {
      await inWindow(0);
      await put(`a${round}`, 4);
      await inWindow(1);
      await put(`b${round}`, 4);
    }
    const ids = await agreed();
    const marks = ids.filter(id => /^[ab][12]-/.test(id));
    expect(new Set(marks).size).toBe(16);
    expect(marks).toHaveLength(16);
  },
  TIMEOUT,
);

test(
  'while one is away, what is made at its window waits, and what is made at the other is heard afterwards; each undoes their own',
  async () => {
    await servers[0].stop();
    await inWindow(0);
    await put('away', 2);
    await eventually(driver, `document.querySelector('.storing').textContent.endsWith('not stored')`);
    expect((await shown()).slice(0, 2)).toEqual(['away-1', 'away-0']);
    await inWindow(1);
    await put('here', 2);
    await stored(driver);
    expect(await servers[0].start()).toBe(addresses[0]);
    const ids = await agreed();
    expect(ids.filter(id => /^(away|here)-/.test(id)).sort()).toEqual([
      'away-0',
      'away-1',
      'here-0',
      'here-1',
    ]);

    await inWindow(1);
    await driver.executeScript(`return periwinkle.step('undo')`);
    expect((await agreed()).filter(id => /^(away|here)-/.test(id)).sort()).toEqual([
      'away-0',
      'away-1',
      'here-0',
    ]);
    await inWindow(0);
    await driver.executeScript(`return periwinkle.step('undo')`);
    expect((await agreed()).filter(id => /^(away|here)-/.test(id)).sort()).toEqual(['away-0', 'here-0']);
  },
  TIMEOUT,
);
