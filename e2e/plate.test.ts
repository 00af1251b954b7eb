import { Key, Origin, type WebDriver, type WebElement } from 'selenium-webdriver';
import { eventually, find, named, openBrowser, stored } from './support/browser';
import { cell, plateReady, press, scopeEntry, specimenStyle } from './support/field-screen';
import { inBrowser } from './support/session';
import { PATIENCE, TIMEOUT } from './support/patience';

/** The component's screen as a practitioner uses it: laying out, selecting, narrowing, writing, making a token, trying. */

let driver: WebDriver;
let address: string;

inBrowser(session => ({ address, driver } = session), { width: 1400, height: 1000 });

async function open(query = ''): Promise<void> {
  await driver.get(`${address}/quayside/text-field${query}`);
  await plateReady(driver);
}

const count = (css: string): Promise<number> =>
  driver.executeScript(`return document.querySelectorAll(arguments[0]).length`, css);
const selected = (many: number): Promise<unknown> =>
  eventually(driver, `document.querySelectorAll('.cell.selected').length === ${many}`);
const sentence = (): Promise<string> =>
  driver.executeScript(`return document.querySelector('.scope').textContent`);
const choose = async (word: WebElement, item: string): Promise<void> => {
  await word.click();
  const found = await driver.wait(
    () =>
      driver.executeScript<WebElement | null>(
        `return [...document.querySelectorAll('.dropdown-menu.show .dropdown-item')].find(each => each.firstChild.textContent === arguments[0]) ?? null`,
        item,
      ),
    PATIENCE,
    `no choice “${item}”`,
  );
  await found!.click();
};
const replaceWith = async (...keys: string[]): Promise<void> => {
  const input = await find(driver, '.editor input');
  await input.sendKeys(Key.chord(Key.CONTROL, 'a'), ...keys);
};

describe('plates first', () => {
  test(
    'with nothing selected the ledger is one line, and eight situations in three sizes are seen whole at 1280 by 800',
    async () => {
      const narrow = await openBrowser(1280, 800);
      try {
        await narrow.driver.get(`${address}/quayside/text-field`);
        await plateReady(narrow.driver);
        const seen = await narrow.driver.executeScript<{ whole: number; ledger: number }>(
          `const line = document.querySelector('.drawer').getBoundingClientRect();
           const frame = document.querySelector('.plate-frame').getBoundingClientRect();
           const whole = [...document.querySelectorAll('.cell .specimen')].filter(each => {
             const box = each.getBoundingClientRect();
             return box.bottom <= Math.min(line.top, frame.bottom) && box.right <= frame.right;
           });
           return { whole: whole.length, ledger: line.height };`,
        );
        expect(seen.whole).toBeGreaterThanOrEqual(24);
        expect(seen.ledger).toBeLessThan(70);
      } finally {
        await narrow.quit();
      }
    },
    TIMEOUT,
  );

  test(
    'the ledger comes up with a selection, as high as one has made it, also after a reload',
    async () => {
      await open('?rows=*&columns=pointed-at');
      const height = (): Promise<number> =>
        driver.executeScript(`return document.querySelector('.drawer').offsetHeight`);
      const before = await height();
      const handle = await find(driver, '[role=separator]');
      await handle.sendKeys(Key.ARROW_UP, Key.ARROW_UP);
      const drawn = await height();
      expect(drawn).toBe(before + 48);
      await driver.navigate().refresh();
      await plateReady(driver);
      expect(await height()).toBe(drawn);
      await driver
        .actions()
        .doubleClick(await find(driver, '[role=separator]'))
        .perform();
      await eventually(driver, `document.querySelector('.drawer').offsetHeight === ${before}`);
    },
    TIMEOUT,
  );

  test(
    'rows are as high as fields at rest: an open list lies over the rows below',
    async () => {
      await driver.get(`${address}/quayside/berth`);
      await plateReady(driver);
      const over = await driver.executeScript<{ row: number; specimen: number; count: number }>(
        `const all = [...document.querySelectorAll('.cell.over')];
         const [first] = all;
         return { row: first.offsetHeight, specimen: first.querySelector('.specimen').offsetHeight, count: all.length };`,
      );
      expect(over.count).toBeGreaterThan(0);
      expect(over.specimen).toBeGreaterThan(over.row);
    },
    TIMEOUT,
  );

  test(
    'an edit where an option is held at another value than usual is about that value, unless one widens it',
    async () => {
      await open('?hold=appearance:underlined&rows=*&columns=pointed-at');
      expect(await sentence()).toMatch(/^When pointed at, in .*underlined/);
      await choose(await named(driver, '.scope .word', 'underlined'), 'any appearance');
      await eventually(driver, `/any appearance/.test(document.querySelector('.scope').textContent)`);
    },
    TIMEOUT,
  );
});

describe('selecting', () => {
  test(
    'a cell, a block with shift, a row, a block by dragging, nothing by Escape; the address keeps it',
    async () => {
      await open();
      expect(await sentence()).toMatch(/^The whole component/);
      await (await cell(driver, 'Focused', 'medium')).click();
      await selected(1);
      await driver
        .actions()
        .keyDown(Key.SHIFT)
        .click(await cell(driver, 'Pointed at', 'small'))
        .keyUp(Key.SHIFT)
        .perform();
      await selected(6);
      await (await named(driver, '[role=rowheader]', 'large')).click();
      await selected(14);
      await eventually(
        driver,
        `/^In large: this reaches 8,800 of 26,400 combinations/.test(document.querySelector('.scope').textContent)`,
      );
      await driver.executeScript(
        `window.written = 0;
         const write = history.replaceState;
         history.replaceState = function (...all) { window.written++; return write.apply(this, all); }`,
      );
      const actions = driver.actions({ async: true });
      await actions
        .move({ origin: await cell(driver, 'At rest', 'small') })
        .press()
        .perform();
      await actions.move({ origin: await cell(driver, 'Pressed', 'medium'), duration: 300 }).perform();
      // What is drawn shows at once; the address is written when it is let go, wherever that is.
      await selected(6);
      expect(await driver.executeScript('return window.written')).toBe(0);
      await actions
        .move({ origin: await find(driver, 'h1') })
        .release()
        .perform();
      await selected(6);
      await eventually(driver, 'window.written === 1');
      const link = await driver.getCurrentUrl();
      await press(driver, Key.ESCAPE);
      await selected(0);
      await driver.get(link);
      await plateReady(driver);
      await selected(6);
    },
    TIMEOUT,
  );

  test(
    'a situation that is found is selected, and nothing by Escape',
    async () => {
      await open();
      await press(driver, '/');
      await (await find(driver, '[role=dialog] input')).sendKeys('Pressed, Text', Key.ENTER);
      await selected(3);
      await press(driver, Key.ESCAPE);
      await selected(0);
      expect(await sentence()).toMatch(/^The whole component/);
    },
    TIMEOUT,
  );

  test(
    'with arrow keys and shift, from the cursor; headings are the edge',
    async () => {
      await open();
      await (await cell(driver, 'Pointed at', 'medium')).click();
      await driver
        .actions({ async: true })
        .keyDown(Key.SHIFT)
        .sendKeys(Key.ARROW_RIGHT, Key.ARROW_DOWN)
        .keyUp(Key.SHIFT)
        .perform();
      await selected(4);
      await press(driver, Key.ARROW_UP, Key.ARROW_UP, Key.ARROW_UP, Key.ENTER);
      await eventually(driver, `/^When pressed, focused/.test(document.querySelector('.scope').textContent)`);
    },
    TIMEOUT,
  );
});

describe('laying out', () => {
  test(
    'axes are added, moved and held; what cannot be is hatched and says why',
    async () => {
      await open();
      await choose(await named(driver, 'button', 'Runs across: situations'), 'pointer');
      await choose(await named(driver, 'button', 'Runs down: size'), 'availability');
      await eventually(driver, `document.querySelectorAll('[role=gridcell]').length === 12`);
      expect(await count('.cell.never')).toBe(3);
      expect(await (await find(driver, '.cell.never[data-row="3"]')).getText()).toContain(
        'A disabled control takes no focus and answers no pointer.',
      );
      await choose(await named(driver, 'button', 'Add what runs down: +'), 'size');
      await eventually(driver, `document.querySelectorAll('[role=gridcell]').length === 36`);
      await choose(await named(driver, 'button', 'Appearance: boxed'), 'underlined');
      await eventually(
        driver,
        `getComputedStyle(document.querySelector('.cell .specimen').shadowRoot.querySelector('.qs-text-field-frame')).borderTopWidth === '0px'`,
      );
      await driver.navigate().refresh();
      await eventually(driver, `document.querySelectorAll('[role=gridcell]').length === 36`);
    },
    TIMEOUT,
  );
});

test(
  'a plate of thousands of cells is laid out beside the page, and says what it has left off',
  async () => {
    const across = 'pointer,focus,content,validity,availability';
    await driver.get(
      `${address}/quayside/text-field?across=${across}&down=size,leading,label-placement,trailing`,
    );
    await eventually(driver, `document.querySelectorAll('[role=gridcell]').length > 3000`);
    const caption = await driver.executeScript<string>(
      `return document.querySelector('.caption').textContent`,
    );
    expect(caption).toMatch(/Left off, since a plate holds no more: trailing\./);
    await (await find(driver, '[role=gridcell][data-row="0"][data-column="0"]')).click();
    await selected(1);
  },
  TIMEOUT,
);

describe('writing', () => {
  test(
    'a narrower scope makes a rule of its own that reaches no further',
    async () => {
      await open('?rows=*&columns=pointed-at');
      await choose(await named(driver, 'button', 'Narrow: narrower'), 'tinted');

      // The plate holds the boxed look: nothing on it is reached, and the sentence says so.
      await eventually(
        driver,
        `/ 0 of them on this plate/.test(document.querySelector('.scope').textContent)`,
      );
      await choose(await named(driver, 'button', 'Appearance: boxed'), 'tinted');
      await (await scopeEntry(driver, 'frame', 'border-color')).click();
      await replaceWith('#00ff00', Key.ENTER);
      await stored(driver);
      expect(await specimenStyle(driver, 'Pointed at', 'small', 'frame', 'border-top-color')).toBe(
        'rgb(0, 255, 0)',
      );
      await choose(await named(driver, 'button', 'Appearance: tinted'), 'boxed');
      await driver.wait(
        async () =>
          (await specimenStyle(driver, 'Pointed at', 'small', 'frame', 'border-top-color')) !==
          'rgb(0, 255, 0)',
        PATIENCE,
      );
    },
    TIMEOUT,
  );

  test(
    'a number is stepped with the arrow keys, and shown at once; a covered entry is marked',
    async () => {
      await open('?rows=large&columns=filled');
      await choose(await named(driver, 'button', 'Size: large'), 'large');
      await (await find(driver, '.entry[aria-label^="frame height, always"]')).click();
      await replaceWith('50px', Key.ARROW_UP, Key.ARROW_UP);
      // The rule for large covers it: the large field keeps its height, the medium one follows.
      expect(await specimenStyle(driver, 'Filled', 'medium', 'frame', 'height')).toBe('52px');
      expect(await specimenStyle(driver, 'Filled', 'large', 'frame', 'height')).toBe('40px');
      await press(driver, Key.ESCAPE);
      expect(await specimenStyle(driver, 'Filled', 'medium', 'frame', 'height')).toBe('34px');
      expect(await count('.entry.covered[aria-label^="frame height, always"]')).toBe(1);
    },
    TIMEOUT,
  );

  test(
    'a misspelt property is reported where it was written, with the likely one',
    async () => {
      await open('?rows=*&columns=pointed-at');
      await (await find(driver, '.add-property input')).sendKeys('border-colour', Key.ENTER);
      const fault = await find(driver, '.add-property .fault');
      expect(await fault.getText()).toMatch(
        /There is no property “border-colour”; did you mean border-color\?/,
      );
      await (await named(driver, '.add-property .fault button', 'take border-color')).click();
      expect(await (await find(driver, '.add-property input')).getAttribute('value')).toBe('border-color');
    },
    TIMEOUT,
  );

  test(
    'a missing token is made right there, for both themes, and is undone together with its use',
    async () => {
      await open('?rows=*&columns=focused');
      await (await scopeEntry(driver, 'frame', 'box-shadow')).click();
      await press(driver, Key.ESCAPE);
      await (await find(driver, '.add-property input')).sendKeys('outline-color', Key.ENTER);
      await replaceWith('color.line.hail', Key.chord(Key.CONTROL, Key.ENTER));
      await find(driver, '[role=dialog]');
      await press(driver, ...'#ff8800', Key.TAB, ...'{raw.tide.20}', Key.ENTER);
      await stored(driver);
      expect(await specimenStyle(driver, 'Focused', 'small', 'frame', 'outline-color')).toBe(
        'rgb(255, 136, 0)',
      );
      await (await named(driver, '.pick button', 'night')).click();
      await driver.wait(
        async () =>
          (await specimenStyle(driver, 'Focused', 'small', 'frame', 'outline-color')) !== 'rgb(255, 136, 0)',
        PATIENCE,
      );
      await (await named(driver, '.band button', 'undo')).click();
      await eventually(driver, `document.querySelector('.notices').textContent.includes('Taken back')`);
      const tokens = await (
        await fetch(`${address}/api/systems/quayside/documents/tokens/day.tokens.json`)
      ).text();
      const field = await (
        await fetch(`${address}/api/systems/quayside/documents/components/text-field.component.json`)
      ).text();
      expect(tokens + field).not.toContain('hail');
    },
    TIMEOUT,
  );

  test(
    'rules change places and are taken out from their heading',
    async () => {
      await open('?rows=small&columns=correcting');
      const order = (): Promise<string[]> =>
        driver.executeScript(
          `return [...document.querySelectorAll('.ledger thead .word')].map(each => each.textContent)`,
        );
      const before = await order();
      expect(before.slice(-2)).toEqual(['invalid', 'focused visibly, invalid']);
      await choose(await named(driver, 'button', 'Rule: focused visibly, invalid'), 'remove the rule');
      await eventually(
        driver,
        `![...document.querySelectorAll('.ledger thead .word')].some(each => each.textContent === 'focused visibly, invalid')`,
      );
      await stored(driver);
      await (await named(driver, '.band button', 'undo')).click();
      await eventually(
        driver,
        `[...document.querySelectorAll('.ledger thead .word')].some(each => each.textContent === 'focused visibly, invalid')`,
      );
    },
    TIMEOUT,
  );
});

describe('trying', () => {
  /** Something of the try field, inside its shadow tree. */
  const inTry = <T>(expression: string): Promise<T> =>
    driver.executeScript<T>(
      `const root = document.querySelector('.try .ground > div').shadowRoot; return ${expression}`,
    );

  test(
    'the real thing is typed into, pointed at and made invalid; what was typed stays',
    async () => {
      await open();
      const frame = await inTry<WebElement>(`root.querySelector('.qs-text-field-frame')`);
      const border = (): Promise<string> =>
        inTry<string>(
          `(root.getAnimations().forEach(each => each.finish()), getComputedStyle(root.querySelector('.qs-text-field-frame')).borderTopColor)`,
        );
      const rest = await border();
      await driver.actions({ async: true }).move({ origin: frame }).perform();
      expect(await border()).not.toBe(rest);
      await driver.actions({ async: true }).click().perform();
      await press(driver, ...'Osprey');
      expect(await inTry<string>(`root.querySelector('input').value`)).toBe('Osprey');
      await (await named(driver, '.try button', 'invalid')).click();
      expect(
        await inTry<string>(`getComputedStyle(root.querySelector('.qs-text-field-footer')).display`),
      ).toBe('flex');
      expect(await inTry<string>(`root.querySelector('input').value`)).toBe('Osprey');
      await (await named(driver, '.try button', 'disabled')).click();
      expect(await inTry<boolean>(`root.querySelector('input').disabled`)).toBe(true);
      await driver.actions({ async: true }).move({ x: 5, y: 500, origin: Origin.VIEWPORT }).perform();
      const off = await border();
      await driver.actions({ async: true }).move({ origin: frame }).perform();
      expect(await border()).toBe(off);
      expect(await inTry<string>(`root.querySelector('input').value`)).toBe('Osprey');
    },
    TIMEOUT,
  );
});
