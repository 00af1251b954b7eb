import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, named, stored } from './support/browser';
import { line, storedComponent, storedDocuments } from './support/making';
import { TIMEOUT } from './support/patience';
import { inBrowser } from './support/session';

/** Fields together in a real form: done with keys and pointer, sent, answered, kept as a walkthrough, and made anew. */

const AXE = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');
let driver: WebDriver;
let address: string;

inBrowser(session => {
  ({ driver, address } = session);
});

async function open(trial: string, query = ''): Promise<void> {
  await driver.switchTo().defaultContent();
  await driver.get(`${address}/quayside/trials/${trial}${query}`);
  await find(driver, 'iframe.trial-page');
  await eventually(
    driver,
    `document.querySelector('iframe.trial-page').contentDocument.querySelector('form button[type="submit"]') !== null`,
  );
}

/** Does something in the page of the trial. */
async function inside<Result>(what: () => Promise<Result>): Promise<Result> {
  await driver.switchTo().frame(await find(driver, 'iframe.trial-page'));
  const result = await what();
  await driver.switchTo().defaultContent();
  return result;
}

const focus = (name: string): Promise<void> =>
  inside(() => driver.executeScript(`document.querySelector('[name="${name}"]').focus()`));
const press = (...keys: string[]): Promise<void> =>
  driver
    .actions()
    .sendKeys(...keys)
    .perform();
const send = (): Promise<void> => inside(async () => (await find(driver, 'button[type="submit"]')).click());

/** Names and values as they were sent last. */
const sent = (): Promise<string[][]> =>
  driver.executeScript(
    `return [...document.querySelectorAll('.sent > div')].map(each => [...each.children].map(part => part.textContent))`,
  );
const log = (): Promise<string[]> =>
  driver.executeScript(
    `return [...document.querySelectorAll('.trial-log li')].map(each => each.innerText.replace(/\\s+/g, ' ').trim())`,
  );

test(
  'a mistake and its mending are made in a trial, sent, kept as a walkthrough, and judged in another way',
  async () => {
    await open('arrival');
    await focus('vessel');
    await press('osprey', Key.TAB, '7.2', Key.TAB, Key.ARROW_UP, Key.TAB);
    await send();
    // The first that is wrong has the focus, and nothing is sent.
    expect(await inside(() => driver.executeScript(`return document.activeElement.name`))).toBe('vessel');
    expect(await sent()).toEqual([]);
    await press(Key.HOME, Key.DELETE, 'O', Key.ENTER);
    await eventually(driver, `document.querySelectorAll('.sent > div').length > 0`);
    // In the words of the sample.
    expect(
      await inside(() => driver.executeScript(`return document.querySelector('form').innerText`)),
    ).toContain('Registered in Merrow');
    expect(await sent()).toEqual([
      ['vessel', 'Osprey'],
      ['draught', '7.2'],
      ['crew', '1'],
      ['tide', 'empty'],
      ['notes', 'empty'],
    ]);
    expect(await log()).toEqual([
      'vessel press control',
      'type osprey',
      'key Tab',
      'draught press control',
      'type 7.2',
      'key Tab',
      'crew press control',
      'key ArrowUp',
      'key Tab',
      // Tab has come to the next one.
      'berth press control',
      'leave',
      'form send',
      'vessel press control',
      'key Home',
      'key Delete',
      'type O',
      'key Enter',
      'form send',
    ]);
    await (await named(driver, '.trial-side button', 'keep as a walkthrough')).click();
    await press('Mended in a form', Key.ENTER);
    await (await named(driver, '.trial-side a', 'Mended in a form')).click();
    const strip = 'section[aria-label="Mended in a form"] .film li';
    await find(driver, strip);
    const validities = (): Promise<string[]> =>
      driver.executeScript(
        `return [...document.querySelectorAll('${strip} .specimen')].map(each => each.shadowRoot.firstElementChild.dataset.validity)`,
      );
    expect(await validities()).toEqual([
      ...['none', 'none', 'none', 'invalid', 'invalid'],
      // Keeping it has left the page.
      ...['invalid', 'invalid', 'invalid', 'valid', 'valid', 'valid'],
    ]);
    // It complains while one types from now on, and the strip changes.
    await (await find(driver, '.judging .word')).click();
    await (await named(driver, '.dropdown-item', 'while typinginterrupts whoever has not finished')).click();
    await eventually(
      driver,
      `document.querySelectorAll('${strip}')[2].querySelector('.specimen').shadowRoot.firstElementChild.dataset.validity === 'invalid'`,
    );
    await stored(driver);
    const { behaviour, walkthroughs = [] } = await storedComponent(address, 'text-field');
    expect(behaviour!.judging!.complain).toBe('typing');
    expect(walkthroughs.at(-1)).toMatchObject({
      title: 'Mended in a form',
      sample: 'vessel',
      set: { requirement: 'required' },
    });
  },
  TIMEOUT,
);

test(
  'what is asked is answered after a while, refused and then accepted; the form is reset and begins again',
  async () => {
    await open('harbour-office');
    await (await named(driver, '.trial-side button', 'answer about the gate: accepts')).click();
    await (await named(driver, '.dropdown-item', 'refuses')).click();
    const delay = await line(driver, 'delay in milliseconds');
    await delay.clear();
    await delay.sendKeys('150');
    await focus('dues');
    await press('1240.5', Key.TAB, '493027', Key.TAB, 'brass lantern over water');
    await send();
    const complaint = `document.querySelector('iframe.trial-page').contentDocument.querySelector('[name="gate"]').getAttribute('aria-invalid') === 'true'`;
    await eventually(driver, complaint);
    expect(await sent()).toEqual([]);
    expect(await log()).toContain('gate answer gate rejected');
    await (await named(driver, '.trial-side button', 'answer about the gate: refuses')).click();
    await (await named(driver, '.dropdown-item', 'accepts')).click();
    await focus('gate');
    await press(Key.BACK_SPACE, '8');
    await send();
    await eventually(driver, `document.querySelectorAll('.sent > div').length > 0`);
    expect(await sent()).toEqual([
      ['vessel', 'empty'],
      ['dues', '1240.5'],
      ['gate', '493028'],
      ['passphrase', 'brass lantern over water'],
    ]);
    const acts = await log();
    expect(acts.filter(act => act.endsWith('send'))).toHaveLength(2);
    expect(acts).toContain('gate answer gate accepted');
    await (await named(driver, '.trial-side button', 'reset the form')).click();
    expect(
      await inside(() =>
        driver.executeScript(
          `return [...document.forms[0].elements].filter(each => each.name).map(each => each.value)`,
        ),
      ),
    ).toEqual(['', '', '', '']);
    await (await named(driver, '.trial-side button', 'start again')).click();
    expect(await log()).toEqual([]);
  },
  TIMEOUT,
);

test(
  'nothing is found by axe at any width, in any context and direction, at rest, complaining, open and filled',
  async () => {
    const clean = (what: string): Promise<void> =>
      inside(async () => {
        await driver.executeScript(AXE);
        const found = await driver.executeAsyncScript<string[]>(
          `const done = arguments[arguments.length - 1]; axe.run().then(({ violations }) => done(violations.map(each => each.id + ' ' + each.nodes[0].html)))`,
        );
        expect([what, ...found]).toEqual([what]);
      });
    for (const query of ['', '?in=theme:night,density:compact']) {
      await open('arrival', query);
      await clean(`arrival at rest ${query}`);
      await send();
      await eventually(driver, `document.querySelector('.trial-log li') !== null`);
      await clean(`arrival complaining ${query}`);
      await focus('berth');
      await press('s');
      await clean(`arrival open ${query}`);
      await press(Key.ENTER);
      await focus('vessel');
      await press('Osprey', Key.TAB, '7', Key.TAB, '40', Key.TAB, Key.TAB, '330p', Key.TAB, 'Dog aboard.');
      await clean(`arrival filled ${query}`);
      await open('harbour-office', query);
      await clean(`harbour office at rest ${query}`);
      await send();
      await focus('gate');
      await press('12', Key.TAB);
      await clean(`harbour office complaining ${query}`);
      await focus('dues');
      await press('1240.50', Key.TAB, '493027', Key.TAB, 'brass lantern over water');
      await send();
      await clean(`harbour office asking ${query}`);
      await eventually(driver, `document.querySelectorAll('.sent > div').length > 0`);
      await clean(`harbour office approved ${query}`);
    }
    // Too wide for its place it scrolls there; the edge makes it narrower, and the page is mirrored.
    const edge = await find(driver, '.edge');
    await edge.sendKeys(Key.HOME);
    await eventually(driver, `document.querySelector('.edge').ariaValueText === '160 px'`);
    await (await named(driver, '.trial-side button', 'the page')).click();
    await (await named(driver, '.trial-side button', 'direction: left to right')).click();
    await (await named(driver, '.dropdown-item', 'right to leftrtl')).click();
    await eventually(
      driver,
      `document.querySelector('iframe.trial-page').contentDocument.documentElement.dir === 'rtl'`,
    );
    await clean('harbour office, narrow and mirrored');
  },
  TIMEOUT,
);

test(
  'a trial of one’s own is made, changed, taken back and removed; what cannot be is said',
  async () => {
    await open('arrival');
    await (await named(driver, '.beside button', 'another trial')).click();
    await press('Leave the port', Key.ENTER);
    await eventually(driver, `location.pathname === '/quayside/trials/leave-the-port'`);
    for (const title of ['Text field', 'Crew aboard']) {
      await (await named(driver, '.trial-side button', 'another field: another field')).click();
      await (await named(driver, '.dropdown-item', title)).click();
    }
    const name = await line(driver, 'sent as');
    await name.clear();
    await name.sendKeys('text-field', Key.ENTER);
    await eventually(driver, `document.querySelector('.trial-side .fault')?.textContent.includes('already')`);
    await name.clear();
    await name.sendKeys('hands', Key.ENTER);
    await (await named(driver, '.trial-side button', 'requirement: optional')).click();
    await (await named(driver, '.dropdown-item', 'required')).click();
    await (await named(driver, '.trial-side button', 'earlier')).click();
    await stored(driver);
    expect((await storedDocuments(address)).get('trials/leave-the-port.trial.json')).toMatchObject({
      width: 375,
      fields: [
        { component: 'crew', name: 'hands', required: true },
        { component: 'text-field', name: 'text-field' },
      ],
    });
    expect(
      await inside(() =>
        driver.executeScript(`return [...document.forms[0].elements].flatMap(each => each.name || [])`),
      ),
    ).toEqual(['hands', 'text-field']);
    await (await named(driver, '.trial-side button', 'the page')).click();
    await (await named(driver, 'button', 'remove this trial: Leave the port')).click();
    await (await named(driver, '.considered button', 'remove this trial')).click();
    await eventually(driver, `location.pathname === '/quayside/trials/arrival'`);
    await stored(driver);
    expect((await storedDocuments(address)).has('trials/leave-the-port.trial.json')).toBe(false);
  },
  TIMEOUT,
);
