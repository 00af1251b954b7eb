import { Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { eventually, find, named, stored } from './support/browser';
import { Keyboard, Mouse, type Hand } from './support/hands';
import { line as labelled, storedComponent, storedProblems } from './support/making';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Whole fields, made by hand from nothing; how much there was to do is printed. */

let driver: WebDriver;
let address: string;
let hand: Hand;

/** An item of the list that is open, by its first words. */
const listed = (item: string): Promise<WebElement> =>
  driver.wait(
    () =>
      driver.executeScript<WebElement | null>(
        `return [...document.querySelectorAll('.dropdown-menu.show .dropdown-item')].find(each => each.firstChild?.textContent === arguments[0]) ?? null`,
        item,
      ),
    20_000,
    `no item “${item}”`,
  ) as Promise<WebElement>;

const line = (label: string): Promise<WebElement> => labelled(driver, label);
const way = (start: string): Promise<WebElement> => named(driver, '.way label', start);
const partLine = (name: string): Promise<WebElement> => named(driver, '.parts .part code', name);

async function choose(word: string, item: string): Promise<void> {
  await hand.press(named(driver, 'button.word', word));
  await hand.press(listed(item));
}

const link = (text: string): Promise<WebElement> => named(driver, 'a', text);
const button = (text: string): Promise<WebElement> => named(driver, 'button', text);
const entry = (part: string, property: string, column = ''): Promise<WebElement> =>
  find(
    driver,
    column
      ? `.entry[aria-label^="${part} ${property}, ${column}:"]`
      : `.entry[data-scope][aria-label^="${part} ${property},"]`,
  );

const component = (id: string) => storedComponent(address, id);

describe.each([
  ['with the mouse', Mouse],
  ['with the keyboard alone', Keyboard],
])('%s', (how, Means) => {
  inBrowser(session => ({ address, driver } = session));
  beforeEach(() => {
    hand = new Means(driver);
  });

  async function ends(name: string, most: number): Promise<void> {
    await stored(driver);
    expect(await storedProblems(address)).toEqual([]);
    process.stderr.write(
      `${name}, ${how}: ${hand.interactions} interactions (aim ${most}), the focus moved ${hand.steps} times\n`,
    );
    expect(hand.interactions).toBeLessThan(most);
  }

  test(
    'a count from its starting point, restyled, with a situation of its own and two plates',
    async () => {
      await driver.get(`${address}/quayside`);
      await hand.press(link('New field'));
      await hand.press(way('Count'));
      await hand.write(line('title'), 'Containers', Key.ENTER);
      await eventually(driver, `location.pathname === '/quayside/containers'`);
      await find(driver, '[role=gridcell] .specimen');
      // Restyled: while it is pointed at, and its corner always.
      await hand.press(named(driver, '[role=columnheader]', 'Pointed at'));
      await hand.press(entry('frame', 'border-color'));
      await hand.keys('color.line.focus', Key.ARROW_DOWN, Key.ENTER);
      await hand.press(entry('frame', 'border-radius', 'always'));
      await hand.write(find(driver, '.editor input'), '0px', Key.ENTER);
      await stored(driver);
      // A situation of its own.
      await hand.press(link('Space'));
      await hand.press(button('another situation'));
      await hand.keys('Fully laden', Key.ENTER);
      await hand.press(line('when'));
      await hand.keys('at its most', Key.ENTER);
      await hand.write(line('means'), 'No more fit aboard: the step up is spent.', Key.TAB);
      await stored(driver);
      // Two plates: what the ends look like, and what is read only.
      await hand.press(link('Plates'));
      await choose('situations', 'range');
      await hand.press(button('keep'));
      await hand.press(listed('keep this as another plate'));
      await eventually(driver, `location.search.includes('plate=')`);
      await choose('range', 'availability');
      await hand.press(button('keep'));
      await hand.press(listed('keep this as another plate'));
      await stored(driver);
      const made = await component('containers');
      expect(made.plates!.map(({ across }) => across)).toEqual([['situation'], ['range'], ['availability']]);
      expect(made.situations!.at(-1)).toMatchObject({ title: 'Fully laden', when: { range: 'max' } });
      expect(JSON.stringify(made.rules)).toContain('"border-color":"{color.line.focus}"');
      expect(made.rules![0]!.set['frame']!['border-radius']).toBe('0px');
      await ends('count', 60);
    },
    TIMEOUT,
  );

  test(
    'an amount derived from the text field, its sign from sources, with a departure that is returned to the base',
    async () => {
      await driver.get(`${address}/quayside/new`);
      await hand.press(way('Derived'));
      await hand.write(line('title'), 'Pilotage', Key.ENTER);
      await eventually(driver, `location.pathname === '/quayside/pilotage'`);
      await find(driver, '[role=gridcell] .specimen');
      // The sign stands before what is entered.
      await hand.press(link('Anatomy'));
      await hand.press(partLine('control'));
      await hand.press(named(driver, '.part-acts button', 'before'));
      await hand.keys('sign', Key.ENTER);
      await eventually(driver, `location.search.includes('part=sign')`);
      // It comes from what is paid for and where.
      await hand.press(link('Content'));
      await hand.press(button('say more of sign'));
      await hand.write(line('sources'), 'due.currency, port.currency', Key.ENTER);
      await choose('it is given', 'currency-sign');
      await hand.write(line('else'), '¤', Key.ENTER);
      await hand.press(named(driver, '.samples button', 'Vessel name'));
      await hand.press(find(driver, '.sample-editor textarea'));
      await hand.keys('port.currency: EUR', Key.TAB);
      await stored(driver);
      // It departs from the base in one place, and returns.
      await hand.press(link('Plates'));
      await hand.press(button('draw the ledger up'));
      await hand.press(entry('frame', 'border-radius', 'always'));
      await hand.write(find(driver, '.editor input'), '0px', Key.ENTER);
      await stored(driver);
      expect(JSON.stringify((await component('pilotage')).rules)).toContain('"border-radius":"0px"');
      await hand.keys(Key.DELETE);
      await stored(driver);
      const made = await component('pilotage');
      expect(JSON.stringify(made.rules ?? [])).not.toContain('border-radius');
      expect(made.extends).toBe('text-field');
      expect(made.anatomyEdits).toEqual([
        { insert: { part: 'sign', kind: 'text', content: 'sign' }, before: 'control' },
      ]);
      expect(made.content).toEqual([
        { id: 'sign', kind: 'text', from: ['due.currency', 'port.currency'], as: 'currency-sign', else: '¤' },
      ]);
      await ends('amount', 40);
    },
    TIMEOUT,
  );

  test(
    'a position that no starting point knows: two fields and a hemisphere between them, from an empty component',
    async () => {
      const begin = async (start: string, title: string): Promise<void> => {
        await hand.press(link('Fields'));
        await hand.press(link('New field'));
        await hand.press(way(start));
        await hand.write(line('title'), title, Key.ENTER);
      };
      const insert = async (kind: string, uses: string | null, name: string): Promise<void> => {
        await hand.press(named(driver, '.part-acts button', 'into'));
        await choose('text', kind);
        if (uses !== null) {
          await hand.press(find(driver, '[aria-label^="component: "]'));
          await hand.press(listed(uses));
        }
        await hand.press(line('called'));
        await hand.keys(name, Key.ENTER);
        await eventually(driver, `location.search.includes('part=' + arguments[0])`, name);
      };
      const part = (name: string): Promise<void> => hand.press(partLine(name));
      await driver.get(`${address}/quayside`);
      await begin('Choice', 'Hemisphere');
      await eventually(driver, `location.pathname === '/quayside/hemisphere'`);
      await begin('Empty', 'Position');
      await eventually(driver, `location.pathname === '/quayside/position'`);
      await hand.press(link('Anatomy'));
      await part('root');
      await insert('row', null, 'pair');
      for (const [name, uses] of [
        ['latitude', 'Text field'],
        ['half', 'Hemisphere'],
        ['longitude', 'Text field'],
      ] as const) {
        await part('pair');
        await insert('a component', uses, name);
        const own = `${name}Label`;
        await hand.press(find(driver, `[aria-label^="label of ${name}: "]`));
        await hand.press(listed(own));
        await hand.press(find(driver, `[aria-label^="value of ${name}: "]`));
        await hand.press(listed(`${name}Value`));
      }
      // One size for all.
      await hand.press(link('Space'));
      await hand.press(button('another option'));
      await hand.keys('Size', Key.ENTER);
      await hand.write(line('id of none'), 'medium', Key.ENTER);
      await hand.write(line('title of medium'), 'medium', Key.ENTER);
      await hand.press(button('another value'));
      await hand.keys('small', Key.ENTER);
      await hand.press(link('Anatomy'));
      for (const name of ['latitude', 'half', 'longitude']) {
        await part(name);
        await hand.press(find(driver, `[aria-label^="Size of ${name}: "]`));
        await hand.press(listed('follows Size'));
      }
      // What it is drawn with, and a situation.
      await hand.press(link('Content'));
      await hand.press(button('another sample'));
      await hand.keys('Roads', Key.ENTER);
      for (const [key, text] of [
        ['latitudeLabel', 'Latitude'],
        ['latitudeValue', '54° 12′'],
        ['halfLabel', 'Hemisphere'],
        ['halfValue', 'north'],
        ['longitudeLabel', 'Longitude'],
        ['longitudeValue', '3° 40′'],
      ] as const)
        await hand.write(line(`${key} of Roads`), text, Key.TAB);
      await hand.press(link('Space'));
      await hand.press(button('another situation'));
      await hand.keys('At rest', Key.ENTER);
      await hand.write(line('means'), 'Nobody is at it.', Key.TAB);
      await stored(driver);
      const made = await component('position');
      expect(
        made.anatomy.children![0]!.children!.map(({ part: name, component: uses }) => [name, uses]),
      ).toEqual([
        ['latitude', 'text-field'],
        ['half', 'hemisphere'],
        ['longitude', 'text-field'],
      ]);
      expect(made.anatomy.children![0]!.children!.map(each => each.with)).toEqual([
        { size: 'size' },
        { size: 'size' },
        { size: 'size' },
      ]);
      expect(made.samples![0]!.content).toMatchObject({
        latitudeLabel: 'Latitude',
        longitudeValue: '3° 40′',
      });
      await ends('position', 120);
    },
    TIMEOUT,
  );
});
