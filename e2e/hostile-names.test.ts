import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, named, stored } from './support/browser';
import { line, storedComponent, storedProblems } from './support/making';
import { press } from './support/field-screen';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Whatever is typed where something is named: markup stays text, what cannot be a name is told beside it, nothing breaks the sheets. */

let driver: WebDriver;
let address: string;
inBrowser(session => ({ address, driver } = session));

const MARKUP = `<img src=x onerror="document.documentElement.dataset.hit=1"></script><script>document.documentElement.dataset.hit=1</script>`;
const LONG = 'Landungsbrücke'.repeat(700);
const ODD = 'a\u0000b\u0007c\u202ed\u200be';

/** Puts a text in a line as pasting does, and leaves it by a key. */
async function enter(label: string, text: string, key: string): Promise<void> {
  const input = await line(driver, label);
  await driver.executeScript(
    `const [input, text] = arguments;
     input.scrollIntoView({ block: 'center' });
     input.focus();
     input.select?.();
     document.execCommand('insertText', false, text);`,
    input,
    text,
  );
  await press(driver, key);
}
const fault = (): Promise<string> =>
  driver.executeScript<string>(`return document.querySelector('.fault[role=alert]')?.textContent ?? ''`);
/** Nothing was carried out, the page has its heading, and nothing stands beyond its edge. */
const isWhole = async (): Promise<void> => {
  await driver.executeScript(
    `return new Promise(resolve => requestAnimationFrame(() => requestAnimationFrame(resolve)))`,
  );
  expect(
    await driver.executeScript(
      `const isWide = document.documentElement.scrollWidth > innerWidth;
       return {
         hit: document.documentElement.dataset.hit ?? null,
         headed: document.querySelector('h1')?.textContent.length > 0,
         beyond: isWide
           ? [...document.querySelectorAll('main *')]
               .filter(each => each.getBoundingClientRect().right > innerWidth + 1)
               .map(each => each.tagName + '.' + each.className)
               .slice(0, 6)
           : [],
       }`,
    ),
  ).toEqual({ hit: null, headed: true, beyond: [] });
};

test.each([
  ['markup', MARKUP.slice(0, 120)],
  ['a long name', LONG],
])(
  'a field, its situation, its part and its sample bear %s as text',
  async (_, text) => {
    await driver.get(`${address}/quayside/new?from=empty`);
    await enter('title', text.slice(0, 120), Key.TAB);
    await enter('id', 'odd-field', Key.ENTER);
    await eventually(driver, `location.pathname === '/quayside/odd-field'`);
    await isWhole();
    await driver.get(`${address}/quayside/odd-field/space`);
    await (await named(driver, 'button', 'another option')).click();
    await enter('another option', 'Size', Key.ENTER);
    await enter('title of none', text.slice(0, 2000), Key.TAB);
    await (await named(driver, 'button', 'another situation')).click();
    await enter('another situation', text.slice(0, 120), Key.ENTER);
    await enter('means', text, Key.TAB);
    await stored(driver);
    await isWhole();
    await driver.get(`${address}/quayside/odd-field/anatomy?part=root`);
    await (await named(driver, '.part-acts button', 'into')).click();
    await enter('called', 'caption', Key.ENTER);
    await eventually(driver, `location.search.includes('part=caption')`);
    await enter('title', text, Key.TAB);
    await stored(driver);
    await isWhole();
    await driver.get(`${address}/quayside/odd-field/content`);
    await (await named(driver, 'button', 'another sample')).click();
    await enter('another sample', text.slice(0, 60), Key.ENTER);
    await find(driver, '.sample-editor');
    const label = await driver.executeScript<string>(
      `return document.querySelector('.samples .commit-field label').textContent`,
    );
    await enter(label, text, Key.TAB);
    await stored(driver);
    await isWhole();
    const made = await storedComponent(address, 'odd-field');
    expect(made.samples![0]!.content['caption']).toBe(text);
    for (const sheet of ['', '/rules', '/space', '/anatomy?part=caption']) {
      await driver.get(`${address}/quayside/odd-field${sheet}`);
      await find(driver, '.sheets');
      await isWhole();
    }
    await driver.get(`${address}/quayside/guide/odd-field`);
    await find(driver, 'h1');
    await isWhole();
    expect((await storedProblems(address)).filter(each => !each.includes('odd-field'))).toEqual([]);
    await driver.get(`${address}/quayside?do=remove&on=odd-field`);
    await (await named(driver, '[role=dialog] button', 'Remove')).click();
    await stored(driver);
  },
  TIMEOUT,
);

test(
  'what is no name is refused where it is written, and stays there to be mended',
  async () => {
    await driver.get(`${address}/quayside/notes/anatomy?part=control`);
    await (await named(driver, '.part-acts button', 'before')).click();
    for (const name of [ODD, MARKUP, LONG, 'a/b', '__proto__', '-', 'a--b', 'ключ ключ']) {
      await enter('called', name, Key.ENTER);
      await eventually(driver, `document.querySelector('.fault[role=alert]')`);
      const told = await fault();
      expect([name.slice(0, 20), told.length < 400 && told.length > 10]).toEqual([name.slice(0, 20), true]);
      expect(await driver.executeScript(`return document.activeElement.value.length`)).toBeGreaterThan(0);
    }
    await enter('called', 'sign', Key.ENTER);
    await eventually(driver, `location.search.includes('part=sign')`);
    await isWhole();
    expect(await storedProblems(address)).toEqual([]);
  },
  TIMEOUT,
);
