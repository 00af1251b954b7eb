import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, named, stored } from './support/browser';
import { press } from './support/field-screen';
import { line, storedComponent, storedDocuments, storedProblems } from './support/making';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** A component is made in the tool, from a starting point, from another, by its parts and its space; all of it is one step back. */

let driver: WebDriver;
let address: string;
inBrowser(session => ({ address, driver } = session));

const documents = () => storedDocuments(address);
const component = (id: string) => storedComponent(address, id);
const problems = () => storedProblems(address);

/** Writes into a line that is stored when one leaves it. */
async function write(label: string, text: string): Promise<void> {
  const input = await line(driver, label);
  await driver.executeScript(
    `arguments[0].scrollIntoView({ block: 'center' }); arguments[0].focus(); arguments[0].select?.()`,
    input,
  );
  await press(driver, text);
}
const choose = async (word: string, item: string): Promise<void> => {
  await (await named(driver, 'button.word', word)).click();
  await (await named(driver, '.dropdown-menu.show .dropdown-item', item)).click();
};
/** Presses a key with Control. */
async function command(key: string, shift = false): Promise<void> {
  const actions = driver.actions({ async: true }).keyDown(Key.CONTROL);
  if (shift) actions.keyDown(Key.SHIFT);
  actions.sendKeys(key);
  if (shift) actions.keyUp(Key.SHIFT);
  await actions.keyUp(Key.CONTROL).perform();
}
/** Takes the last change back, and waits until that is said. */
async function undo(): Promise<void> {
  // What an earlier step has told may still stand there.
  await driver.executeScript(
    `document.activeElement?.blur(); document.querySelectorAll('.notices button').forEach(each => each.click())`,
  );
  await eventually(driver, `document.querySelector('.notices').childElementCount === 0`);
  await command('z');
  await eventually(driver, `/Taken back/.test(document.querySelector('.notices')?.textContent ?? '')`);
  await stored(driver);
}

test(
  'a field from a starting point stands on the system’s own tokens, and is taken back as one',
  async () => {
    const before = await documents();
    await driver.get(`${address}/quayside`);
    await (await named(driver, 'a', 'New field')).click();
    await find(driver, '.way .specimen');
    await (await find(driver, '.way input[type=radio]')).click();
    const count = await driver.executeScript<Awaited<ReturnType<typeof find>>>(
      `return [...document.querySelectorAll('.way label')].find(each => each.textContent.includes('Count'))`,
    );
    await count.click();
    await eventually(driver, `location.search.includes('from=count')`);
    await write('title', 'Fenders aboard');
    await (await named(driver, 'button', 'Make Fenders aboard')).click();
    await eventually(driver, `location.pathname === '/quayside/fenders-aboard'`);
    await eventually(driver, `document.querySelectorAll('[role=gridcell] .specimen').length > 5`);
    await stored(driver);
    const made = await component('fenders-aboard');
    expect(made).toMatchObject({ id: 'fenders-aboard', title: 'Fenders aboard' });
    expect(JSON.stringify(made)).toContain('{color.line.rest}');
    expect(await problems()).toEqual([]);
    await undo();
    await eventually(driver, `document.querySelector('.blank h1')?.textContent === 'No such field'`);
    expect(Object.fromEntries(await documents())).toEqual(Object.fromEntries(before));
    await command('z', true);
    await eventually(driver, `document.querySelectorAll('[role=gridcell] .specimen').length > 5`);
    await stored(driver);
    expect(await component('fenders-aboard')).toEqual(made);
  },
  TIMEOUT,
);

test(
  'its space: another value, a state fewer, a situation with its meaning, a limit',
  async () => {
    await driver.get(`${address}/quayside/fenders-aboard/space`);
    await (await named(driver, '.lines button', 'Size')).click();
    await (await named(driver, 'button', 'another value')).click();
    await write('another value', `huge${Key.ENTER}`);
    await find(driver, '[aria-label="huge earlier"]');
    await (await named(driver, 'button', 'take out: huge')).click();
    await find(driver, '.considered');
    await (await named(driver, '.considered button', 'leave it')).click();
    await write('id of small', `compact${Key.ENTER}`);
    await eventually(
      driver,
      `[...document.querySelectorAll('.values input')].some(each => each.value === 'compact')`,
    );
    await (await named(driver, 'button', 'another situation')).click();
    await write('another situation', `At the ends${Key.ENTER}`);
    await find(driver, '[aria-label="when"]');
    await write('when', 'at its least');
    await find(driver, '.completion li');
    await press(driver, Key.ENTER);
    await eventually(driver, `document.querySelector('.opened .term')?.textContent.includes('at its least')`);
    await write('means', 'There is nothing further down.');
    await press(driver, Key.TAB);
    await stored(driver);
    const made = await component('fenders-aboard');
    expect(made.axes![0]!.values!.map(({ id }) => id)).toEqual(['compact', 'medium', 'large', 'huge']);
    expect(made.rules!.find(({ id }) => id === 'small')!.when).toEqual({ size: 'compact' });
    expect(made.situations!.at(-1)).toEqual({
      id: 'at-the-ends',
      title: 'At the ends',
      when: { range: 'min' },
      means: 'There is nothing further down.',
    });
    expect(await problems()).toEqual([]);
  },
  TIMEOUT,
);

test(
  'its anatomy: a part inserted, bound, moved, renamed and taken out again, each one step',
  async () => {
    await driver.get(`${address}/quayside/fenders-aboard/anatomy?part=control`);
    await find(driver, '.callout');
    await (await named(driver, '.part-acts button', 'before')).click();
    await write('called', `unit${Key.ENTER}`);
    await eventually(driver, `location.search.includes('part=unit')`);
    await stored(driver);
    const frame = async () =>
      (await component('fenders-aboard')).anatomy.children![1]!.children!.map(({ part }) => part);
    expect(await frame()).toEqual(['less', 'unit', 'control', 'more']);
    await (await named(driver, '.part-acts button', 'down')).click();
    await stored(driver);
    expect(await frame()).toEqual(['less', 'control', 'unit', 'more']);
    // The same by dragging the line, past the middle of another.
    await driver
      .actions({ async: true })
      .move({ origin: await named(driver, '.parts .part', 'unit text unit') })
      .press()
      .move({ origin: await named(driver, '.parts .part code', 'less'), y: -6 })
      .move({ origin: await named(driver, '.parts .part code', 'less'), y: -8 })
      .release()
      .perform();
    await stored(driver);
    expect(await frame()).toEqual(['unit', 'less', 'control', 'more']);
    await undo();
    expect(await frame()).toEqual(['less', 'control', 'unit', 'more']);
    await write('name', `suffix${Key.ENTER}`);
    await eventually(driver, `location.search.includes('part=suffix')`);
    await stored(driver);
    expect(await frame()).toEqual(['less', 'control', 'suffix', 'more']);
    await (await named(driver, '.part-acts button', 'take out: suffix')).click();
    await (await named(driver, '.considered button', 'take out')).click();
    await stored(driver);
    await eventually(driver, `!location.search.includes('part=')`);
    expect(await frame()).toEqual(['less', 'control', 'more']);
    await undo();
    expect(await frame()).toEqual(['less', 'control', 'suffix', 'more']);
    // What a nested component follows is said in words.
    await driver.get(`${address}/quayside/fenders-aboard/anatomy?part=less`);
    await choose('has states of its own', 'is always pointed at');
    await stored(driver);
    const less = async () => (await component('fenders-aboard')).anatomy.children![1]!.children![0]!.with;
    expect(await less()).toMatchObject({ pointer: { is: 'over' } });
  },
  TIMEOUT,
);

test(
  'a component under another id is named everywhere by it; removed, what is derived from it stays as it looks',
  async () => {
    await driver.get(`${address}/quayside?do=rename&on=text-field`);
    await write('id', 'entry');
    await find(driver, '.modal .touched');
    expect(await (await find(driver, '.modal .touched')).getText()).toContain('Berth');
    await (await named(driver, '.modal button', 'Rename')).click();
    await eventually(driver, `!document.querySelector('.modal')`);
    await stored(driver);
    expect((await component('berth')).extends).toBe('entry');
    expect((await documents()).has('guide/entry.md')).toBe(true);
    expect(await problems()).toEqual([]);
    await undo();
    expect((await component('berth')).extends).toBe('text-field');
    await driver.get(`${address}/quayside?do=remove&on=draught`);
    await (await named(driver, '.modal button', 'Remove')).click();
    await eventually(driver, `!document.querySelector('.modal')`);
    await stored(driver);
    expect(await component('draught')).toBeUndefined();
    expect((await component('harbour-dues')).extends).toBeUndefined();
    expect(await problems()).toEqual([]);
    await undo();
    expect((await component('harbour-dues')).extends).toBe('draught');
  },
  TIMEOUT,
);

test(
  'lines of the contents are moved by keys, and into another group',
  async () => {
    await driver.get(`${address}/quayside`);
    const grip = await named(driver, '.grip', 'Move Gate code');
    await driver.executeScript(`arguments[0].focus()`, grip);
    // Each key once what the one before it did is said to those who do not see it.
    for (const [key, said] of [
      [Key.SPACE, 'Gate code is where it was'],
      [Key.ARROW_UP, 'Gate code is in the place of Passphrase'],
      [Key.SPACE, 'Gate code was put in the place of Passphrase'],
    ] as const) {
      await press(driver, key);
      await eventually(
        driver,
        `[...document.querySelectorAll('[role=status]')].some(each => each.textContent === arguments[0])`,
        said,
      );
    }
    await stored(driver);
    const order = ((await documents()).get('system.json') as { order: string[] }).order;
    expect(order.indexOf('gate-code')).toBeLessThan(order.indexOf('passphrase'));
  },
  TIMEOUT,
);

test(
  'a parameter is made, set to a token of its type, and refused what is none',
  async () => {
    await driver.get(`${address}/quayside/counter/anatomy`);
    await (await named(driver, 'button', 'another parameter')).click();
    await write('another parameter', `Tone${Key.ENTER}`);
    await find(driver, '[aria-label="default"]');
    await write('default', 'color.text.wrong');
    await find(driver, '.completion li');
    await press(driver, Key.ARROW_DOWN, Key.ENTER);
    await stored(driver);
    const parameters = async () => (await component('counter')).parameters;
    expect(await parameters()).toEqual([
      { id: 'tone', title: 'Tone', type: 'color', default: '{color.text.wrong}' },
    ]);
    await write('default', `12px${Key.ENTER}`);
    await press(driver, Key.TAB);
    await eventually(
      driver,
      `/is no color/.test(document.querySelector('.opened .fault')?.textContent ?? '')`,
    );
    expect((await parameters())![0]!.default).toBe('{color.text.wrong}');
    // As long as no rule reads it, that is told.
    expect((await problems()).join()).toMatch(
      /^components\/counter.component.json \/parameters\/0 No rule reads “@tone”/,
    );
  },
  TIMEOUT,
);
