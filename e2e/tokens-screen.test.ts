import { tokenReach } from '@periwinkle/core/cascade/questions/token-reach';
import { demoSystem } from './support/demo';
import { withManyTokens } from './support/many-tokens';
import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, stored } from './support/browser';
import { plateReady, specimenStyle } from './support/field-screen';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Tokens as a table with a column per context, editable, repainting the plates. */

let driver: WebDriver;
let address: string;

inBrowser(session => ({ address, driver } = session));

const row = (key: string): string => `tr[data-token="${key}"]`;

/** Leaves out what is not called like a token, as a person does who looks for it. */
async function reveal(key: string): Promise<void> {
  const filter = await find(driver, '.name-filter');
  await filter.sendKeys(Key.chord(Key.CONTROL, 'a'), key);
  await find(driver, row(key));
}

async function write(key: string, column: number, ...keys: string[]): Promise<void> {
  await reveal(key);
  const entry = await find(driver, `${row(key)} td:nth-child(${column}) .entry`);
  await entry.click();
  const input = await find(driver, `${row(key)} .editor input`);
  await input.sendKeys(Key.chord(Key.CONTROL, 'a'), ...keys);
}

const stripBorder = (): Promise<string> =>
  driver.executeScript(
    `return getComputedStyle(document.querySelector('.reach-strip .specimen').shadowRoot.querySelector('.qs-text-field-frame')).borderTopColor`,
  );

test(
  'a value written for one context repaints the strip while it is typed, and the plates; the other context keeps its own',
  async () => {
    const reached = tokenReach(demoSystem(), 'color.line.over').combinations;
    await driver.get(`${address}/quayside/tokens`);
    await write('color.line.over', 3, '#c0ffee');
    await find(driver, '.reach-strip .specimen');
    expect(await (await find(driver, '.reach-strip')).getText()).toMatch(
      new RegExp(`reaches 11 fields, 3 rules, ${reached.toLocaleString('en')} combinations`),
    );
    expect(await stripBorder()).toBe('rgb(192, 255, 238)');
    const input = await find(driver, '.editor input');
    await input.sendKeys(Key.ESCAPE);
    expect(await stripBorder()).not.toBe('rgb(192, 255, 238)');
    await write('color.line.over', 3, '#c0ffee', Key.ENTER);
    await stored(driver);
    await driver.get(`${address}/quayside/text-field`);
    await plateReady(driver);
    expect(await specimenStyle(driver, 'Pointed at', 'small', 'frame', 'border-top-color')).toBe(
      'rgb(192, 255, 238)',
    );
    await driver.get(`${address}/quayside/text-field?in=theme:night`);
    await plateReady(driver);
    expect(await specimenStyle(driver, 'Pointed at', 'small', 'frame', 'border-top-color')).not.toBe(
      'rgb(192, 255, 238)',
    );
  },
  TIMEOUT,
);

test(
  'what cannot be is refused where it is written, and nothing changes',
  async () => {
    await driver.get(`${address}/quayside/tokens`);
    const before = await (
      await fetch(`${address}/api/systems/quayside/documents/tokens/raw.tokens.json`)
    ).text();
    // The gap refers to `raw.space.1` in one density only.
    for (const [key, text, message] of [
      ['raw.space.1', 'wide', /“wide” is no dimension; write 12px/],
      ['raw.space.1', '{raw.spice.2}', /There is no token \{raw\.spice\.2\}/],
      ['raw.space.1', '{raw.quaystone.10}', /is a color; this is a dimension/],
      ['raw.space.1', '{field.gap.outside}', /would be a circle/],
      ['raw.space.7', '{field.gap.outside}', null],
    ] as const) {
      await write(key, 3, text, Key.ENTER);
      if (message) {
        expect(await (await find(driver, `${row(key)} .fault`)).getText()).toMatch(message);
        await (await find(driver, '.editor input')).sendKeys(Key.ESCAPE);
      } else {
        await stored(driver);
      }
    }
    // The last one was fine; turning the other end back to it would be a circle.
    await write('raw.space.2', 3, '{raw.space.7}', Key.ENTER);
    expect(await (await find(driver, `${row('raw.space.2')} .fault`)).getText()).toMatch(/would be a circle/);
    await (await find(driver, '.editor input')).sendKeys(Key.ESCAPE);
    const after = await (
      await fetch(`${address}/api/systems/quayside/documents/tokens/raw.tokens.json`)
    ).text();
    const expected = JSON.parse(before) as { raw: { space: Record<string, { $value: unknown }> } };
    expected.raw.space['7']!.$value = '{field.gap.outside}';
    expect(JSON.parse(after)).toEqual(expected);
  },
  TIMEOUT,
);

test(
  'a link leads to a token; typing part of a name leaves the others out',
  async () => {
    await driver.get(`${address}/quayside/tokens?token=field.ring.both`);
    await eventually(
      driver,
      `document.querySelector('tr[data-token="field.ring.both"]')?.getBoundingClientRect().top < innerHeight`,
    );
    expect(await (await find(driver, '.reach-strip')).getText()).toMatch(/reaches 9 fields, 1 rule/);
    await (await find(driver, '.strip input')).sendKeys('ring');
    await eventually(driver, `document.querySelectorAll('tr[data-token]').length === 3`);
  },
  TIMEOUT,
);

test(
  'each modifier has columns of its own, filled where it chooses; a value written in one changes that context alone',
  async () => {
    await driver.get(`${address}/quayside/tokens`);
    await reveal('field.height.medium');
    expect(
      await driver.executeScript(
        `return [...document.querySelectorAll('.tokens-table th')].map(cell => cell.textContent)`,
      ),
    ).toEqual(['name', 'type', 'theme day', 'night', 'density roomy', 'compact']);
    const filled = async (key: string): Promise<number[]> => {
      await reveal(key);
      return driver.executeScript(
        `let column = 0;
         return [...document.querySelectorAll(arguments[0] + ' td')].flatMap(cell => {
           const at = column;
           column += cell.colSpan;
           return cell.querySelector('.entry') ? [at, cell.colSpan] : [];
         })`,
        row(key),
      );
    };
    // From which column on, over how many.
    expect(await filled('field.height.medium')).toEqual([4, 1, 5, 1]);
    expect(await filled('color.line.over')).toEqual([2, 1, 3, 1]);
    expect(await filled('raw.space.1')).toEqual([2, 4]);
    const tokens = async (file: string): Promise<unknown> =>
      (await fetch(`${address}/api/systems/quayside/documents/tokens/${file}.tokens.json`)).json();
    const roomy = await tokens('roomy');
    // After the theme's empty cell.
    await write('field.height.medium', 5, '30px', Key.ENTER);
    await stored(driver);
    expect(await tokens('roomy')).toEqual(roomy);
    expect(await tokens('compact')).toMatchObject({
      field: { height: { medium: { $value: { value: 30, unit: 'px' } } } },
    });
  },
  TIMEOUT,
);

test(
  'of thousands of tokens those in sight are drawn; a link, the wheel and the filter lead to any of them',
  async () => {
    const made = await fetch(`${address}/api/systems`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ documents: withManyTokens('many', 5000) }),
    });
    expect(made.status).toBe(201);
    const inSight = (key: string): Promise<unknown> =>
      eventually(
        driver,
        `(box => box && box.top > 0 && box.bottom < innerHeight)(document.querySelector('tr[data-token="${key}"]')?.getBoundingClientRect())`,
      );
    await driver.get(`${address}/many/tokens?token=raw.many.g30.t70`);
    await inSight('raw.many.g30.t70');
    expect(
      await driver.executeScript(`return document.querySelectorAll('tr[data-token]').length < 120`),
    ).toBe(true);
    await driver.executeScript(`window.scrollTo(0, document.documentElement.scrollHeight)`);
    await eventually(
      driver,
      `document.querySelector('.tokens-table tbody tr:nth-last-child(2)[data-token]') !== null`,
    );
    await write('raw.many.g41.t7', 3, '8px', Key.ENTER);
    await stored(driver);
    await write('raw.many.g41.t7', 3, 'g12 t99');
    await (await find(driver, '.completion li')).click();
    await stored(driver);
    const { raw } = (await (
      await fetch(`${address}/api/systems/many/documents/tokens/raw.tokens.json`)
    ).json()) as { raw: { many: Record<string, Record<string, { $value: unknown }>> } };
    expect(raw.many['g41']!['t7']!.$value).toBe('{raw.many.g12.t99}');
  },
  TIMEOUT,
);
