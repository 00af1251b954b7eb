import { Key, type WebDriver } from 'selenium-webdriver';
import type { ComponentDocument } from '@periwinkle/core/documents/component-document';
import { eventually, named, stored } from './support/browser';
import { cell, plateReady, press } from './support/field-screen';
import { storedComponent } from './support/making';
import { inBrowser } from './support/session';
import { PATIENCE, TIMEOUT } from './support/patience';

/** Content is written where it is drawn, is shared, and stays whatever one looks at. */

let driver: WebDriver;
let address: string;
inBrowser(session => ({ address, driver } = session));

const content = async (id: string, sample: string) =>
  ((await storedComponent(address, id)) as ComponentDocument).samples!.find(each => each.id === sample)!
    .content;

/** The middle of a part of a specimen in a cell, from the middle of the cell. */
const middleOf = (column: string, row: string, part: string): Promise<{ x: number; y: number }> =>
  driver.executeScript(
    `const [column, row, part] = arguments;
     const cell = document.querySelector('[role=gridcell][data-name="' + column + ', ' + row + '"]');
     const at = cell.getBoundingClientRect();
     const box = cell.querySelector('.specimen').shadowRoot.querySelector('.qs-text-field-' + part).getBoundingClientRect();
     return { x: Math.round(box.x + box.width / 2 - at.x - at.width / 2), y: Math.round(box.y + box.height / 2 - at.y - at.height / 2) };`,
    column,
    row,
    part,
  );

const writing = (): Promise<string> =>
  driver.executeScript(`return document.querySelector('textarea.writing')?.getAttribute('aria-label') ?? ''`);

test(
  'a text is written on the specimen, for the value that it is drawn with, and follows where it is shared',
  async () => {
    await driver.get(`${address}/quayside/text-field`);
    await plateReady(driver);
    await eventually(driver, `document.fonts.status === 'loaded'`);
    const invalid = await cell(driver, 'Invalid', 'small');
    await driver.executeScript(`arguments[0].scrollIntoView({ block: 'center', inline: 'center' })`, invalid);
    const { x, y } = await middleOf('Invalid', 'small', 'message');
    // Two presses are a double one only when they come soon enough after each other.
    await driver.wait(
      async () => {
        await driver.actions({ async: true }).move({ origin: invalid, x, y }).doubleClick().perform();
        return (await writing()) !== '';
      },
      PATIENCE,
      'nothing is written into',
    );
    expect(await writing()).toBe('message of Vessel name');
    await press(driver, 'No such vessel', Key.ENTER);
    await stored(driver);
    expect((await content('text-field', 'vessel'))['message']).toMatchObject({
      invalid: 'No such vessel',
      valid: 'Registered in Merrow',
    });
    // By keys, from text to text; Escape leaves the last as it was.
    await eventually(driver, `document.activeElement?.getAttribute('role') === 'gridcell'`);
    await press(driver, Key.F2);
    await eventually(driver, `document.activeElement?.matches('textarea.writing')`);
    expect(await writing()).toBe('label of Vessel name');
    await press(driver, 'Name of the vessel', Key.TAB);
    await eventually(driver, `document.activeElement?.getAttribute('aria-label') === 'mark of Vessel name'`);
    await press(driver, 'not this', Key.ESCAPE);
    await eventually(driver, `document.activeElement?.getAttribute('role') === 'gridcell'`);
    await stored(driver);
    expect(await content('text-field', 'vessel')).toMatchObject({
      label: 'Name of the vessel',
      mark: { optional: 'optional' },
    });
    await driver.actions({ async: true }).keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
    await eventually(driver, `/Taken back/.test(document.querySelector('.notices')?.textContent ?? '')`);
    await stored(driver);
    expect(await content('text-field', 'vessel')).toMatchObject({ label: 'Vessel name' });
  },
  TIMEOUT,
);

test(
  'a sample is given to the other fields of its group, and what is said alike is written once',
  async () => {
    await driver.get(`${address}/quayside/find-vessel/content?open=sample:osprey`);
    await (await named(driver, 'button', 'share it')).click();
    await (await named(driver, '.dropdown-menu.show .dropdown-item', 'all of Entry, Free text')).click();
    await stored(driver);
    const { label } = await content('find-vessel', 'osprey');
    expect(await content('text-field', 'osprey')).toMatchObject({ label });
    await driver.executeScript(
      `const line = [...document.querySelectorAll('.samples input')].find(each => each.value === arguments[0]);
       line.focus();
       line.select()`,
      label,
    );
    await press(driver, 'Which vessel?', Key.ENTER);
    await stored(driver);
    expect(await content('find-vessel', 'osprey')).toMatchObject({ label: 'Which vessel?' });
    expect(await content('text-field', 'osprey')).toMatchObject({ label: 'Which vessel?' });
    // What is derived has it from its base.
    await driver.get(`${address}/quayside/notes/content`);
    await eventually(
      driver,
      `[...document.querySelectorAll('.samples input')].some(each => each.value === 'Which vessel?')`,
    );
  },
  TIMEOUT,
);

test(
  'the chosen sample goes along to another plate and another field; what was typed in one stays in the next',
  async () => {
    await driver.get(`${address}/quayside/text-field?sample=pilot`);
    await plateReady(driver);
    const entered = (text: string): Promise<unknown> =>
      eventually(
        driver,
        `[...document.querySelectorAll('.try div')].map(each => each.shadowRoot).find(Boolean)?.querySelector('input, textarea')?.value === arguments[0]`,
        text,
      );
    await driver.executeScript(
      `[...document.querySelectorAll('.try div')].map(each => each.shadowRoot).find(Boolean).querySelector('input').focus()`,
    );
    await press(driver, 'Ladder to port');
    await entered('Ladder to port');
    await (await named(driver, 'a', 'Fields')).click();
    await (await named(driver, '.contents a', 'Notes')).click();
    await eventually(
      driver,
      `location.pathname === '/quayside/notes' && location.search.includes('sample=pilot')`,
    );
    await entered('Ladder to port');
  },
  TIMEOUT,
);
