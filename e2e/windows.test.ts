import { Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { eventually, find, named, stored } from './support/browser';
import { plateReady, scopeEntry, specimenStyle } from './support/field-screen';
import { inBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Two windows on one document: edits to different places merge, to the same place ask, and none is lost. */

let driver: WebDriver;
let address: string;
let windows: [string, string];

inBrowser(async session => {
  ({ address, driver } = session);
  await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
  const first = await driver.getWindowHandle();
  await driver.switchTo().newWindow('window');
  await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
  windows = [first, await driver.getWindowHandle()];
});

async function inWindow(index: 0 | 1): Promise<void> {
  await driver.switchTo().window(windows[index]);
  await plateReady(driver);
}

async function set(property: string, value: string): Promise<void> {
  await (await scopeEntry(driver, 'frame', property)).click();
  const input = await find(driver, '.editor input');
  await input.sendKeys(Key.chord(Key.CONTROL, 'a'), value, Key.ENTER);
}

/** Keeps the window from reaching the server, as a lost network would; it goes on trying. */
const cutOff = (): Promise<unknown> =>
  driver.executeScript(
    `window.realFetch ??= window.fetch; window.fetch = () => Promise.reject(new TypeError('cut off'))`,
  );
const reconnect = (): Promise<unknown> =>
  driver.executeScript(`window.fetch = window.realFetch; window.dispatchEvent(new Event('online'))`);

const shows = (property: string, value: string): Promise<unknown> =>
  eventually(
    driver,
    `document.querySelector('.entry[data-scope][aria-label^="frame ' + arguments[0] + ',"]').textContent === arguments[1]`,
    property,
    value,
  );

const entryText = async (property: string): Promise<string> =>
  (await scopeEntry(driver, 'frame', property)).getText();

test(
  'edits to different places merge, also when one was made without the server',
  async () => {
    await inWindow(0);
    await cutOff();
    await set('border-color', '#123456');
    expect(await specimenStyle(driver, 'Pointed at', 'small', 'frame', 'border-top-color')).toBe(
      'rgb(18, 52, 86)',
    );
    await eventually(driver, `document.querySelector('.storing').textContent.endsWith('not stored')`);
    await inWindow(1);
    await set('background-color', '#fedcba');
    await stored(driver);
    await inWindow(0);
    await reconnect();
    await stored(driver);
    for (const index of [0, 1] as const) {
      await inWindow(index);
      await eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#123456' &&
         document.querySelector('.entry[data-scope][aria-label^="frame background-color,"]').textContent === '#fedcba'`,
      );
      expect(await specimenStyle(driver, 'Pointed at', 'large', 'frame', 'background-color')).toBe(
        'rgb(254, 220, 186)',
      );
    }
  },
  TIMEOUT,
);

/** Waits until values that are not yet stored lie, all of them, in the browser's storage. */
const keptHere = (...values: readonly string[]): Promise<unknown> =>
  driver.wait(
    async () => {
      const kept = ((await keptTexts()) as string[]).join();
      return values.every(value => kept.includes(value));
    },
    TIMEOUT / 2,
    `${values.join(', ')} are kept`,
  );

/** Runs a script with `store`, a transaction's store of what windows keep, and `done`. */
const withKept = (script: string): Promise<unknown> =>
  driver.executeAsyncScript(
    `const done = arguments[arguments.length - 1];
     const request = indexedDB.open('periwinkle-outbox-2');
     request.onsuccess = () => {
       const { result } = request;
       if (!result.objectStoreNames.contains('windows')) return done([]);
       const store = result.transaction('windows', 'readwrite').objectStore('windows');
       ${script}
     };`,
  );
const keptTexts = (): Promise<unknown> =>
  withKept(`const all = store.getAll(); all.onsuccess = () => done(all.result);`);
const changeKept = (change: string): Promise<unknown> =>
  withKept(
    `const cursor = store.openCursor();
     cursor.onsuccess = () => {
       if (!cursor.result) return done();
       const kept = JSON.parse(cursor.result.value);
       ${change}
       cursor.result.update(JSON.stringify(kept));
       cursor.result.continue();
     };`,
  );

const DOCUMENT = 'components/text-field.component.json';

/** An edit by somebody else, through the interface for programs. */
async function elsewhere(label: string, patch: readonly PatchOperation[]): Promise<void> {
  const url = `${address}/api/systems/quayside/documents/${DOCUMENT}`;
  const { headers } = await fetch(url);
  const response = await fetch(url, {
    method: 'PATCH',
    headers: {
      'Content-Type': 'application/json-patch+json',
      'If-Match': headers.get('etag')!,
      'Periwinkle-Label': encodeURIComponent(label),
      'Periwinkle-Author': 'somebody',
    },
    body: JSON.stringify(patch),
  });
  expect(response.status).toBe(200);
}

interface Rule {
  readonly id: string;
  readonly set: Record<string, Record<string, string>>;
}
const storedDocument = (): Promise<Response> =>
  fetch(`${address}/api/systems/quayside/documents/${DOCUMENT}`);
const storedRules = async (): Promise<Rule[]> =>
  ((await (await storedDocument()).json()) as { rules: Rule[] }).rules;
/** How often the document has been edited. */
const storedRevision = async (): Promise<number> =>
  Number((await storedDocument()).headers.get('ETag')?.replaceAll('"', ''));

/** Has both windows set the same, one of them without the server, which then comes back to it. */
async function meet(property: string, here: string, elsewhere: string): Promise<void> {
  await inWindow(0);
  await cutOff();
  await set(property, here);
  await inWindow(1);
  await set(property, elsewhere);
  await stored(driver);
  await inWindow(0);
  await reconnect();
}

test(
  'edits to the same place ask, showing both; the one chosen stands in both windows',
  async () => {
    await meet('border-color', '#aaaaaa', '#bbbbbb');
    const dialog = await find(driver, '[role=dialog]');
    const text = await dialog.getText();
    expect(text).toContain('#aaaaaa');
    expect(text).toContain('#bbbbbb');
    await (await named(driver, 'button', 'Put mine in its place')).click();
    await stored(driver);
    expect(await entryText('border-color')).toBe('#aaaaaa');
    await inWindow(1);
    await eventually(
      driver,
      `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#aaaaaa'`,
    );
  },
  TIMEOUT,
);

test(
  'an undecided meeting outlasts a reload, and nothing is written over before it is decided',
  async () => {
    await meet('border-color', '#ababab', '#cdcdcd');
    await find(driver, '[role=dialog]');
    await driver.navigate().refresh();
    const text = await (await find(driver, '[role=dialog]')).getText();
    expect(text).toContain('#ababab');
    expect(text).toContain('#cdcdcd');
    expect(await entryText('border-color')).toBe('#cdcdcd');
    await inWindow(1);
    expect(await entryText('border-color')).toBe('#cdcdcd');
    await inWindow(0);
    await (await named(driver, 'button', 'Put mine in its place')).click();
    await stored(driver);
    await inWindow(1);
    await eventually(
      driver,
      `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#ababab'`,
    );
  },
  TIMEOUT,
);

/** Has the window not say that it is there, nor hear what others have decided, as one that sleeps. */
const sleep = (...unheard: readonly string[]): Promise<unknown> =>
  driver.executeScript(
    `const { channel } = periwinkle.outbox; const { onmessage } = channel; const unheard = arguments[0];
     channel.onmessage = event => unheard.some(name => name in event.data) || onmessage(event);`,
    unheard,
  );

test.each([
  ['is told of it', '#a1a1a1', ['ask']],
  ['hears of the edit alone', '#c3c3c3', ['ask', 'decided']],
])(
  'a meeting that another window took up from one that slept is decided once: the sleeper %s',
  async (_, mine, unheard) => {
    await meet('border-color', mine, '#b2b2b2');
    await find(driver, '[role=dialog]');
    await keptHere(mine);
    await sleep(...unheard);
    await inWindow(1);
    await driver.navigate().refresh();
    await find(driver, '[role=dialog]');
    const before = await storedRevision();
    await (await named(driver, 'button', 'Put mine in its place')).click();
    await stored(driver);
    await driver.switchTo().window(windows[0]);
    await eventually(driver, `document.querySelector('[role=dialog]') === null`);
    await stored(driver);
    await shows('border-color', mine);
    expect(await storedRevision()).toBe(before + 1);
    expect(await driver.executeScript(`return periwinkle.state().unplaced.length`)).toBe(0);
    await driver.navigate().refresh();
    await plateReady(driver);
  },
  TIMEOUT,
);

test(
  'an edit that could not be stored survives a reload of the window',
  async () => {
    await inWindow(0);
    await cutOff();
    await set('border-color', '#0f0f0f');
    const asks = (): Promise<boolean> =>
      driver.executeScript(
        `const leaving = new Event('beforeunload', { cancelable: true }); return !dispatchEvent(leaving)`,
      );
    expect(await asks()).toBe(true);
    await keptHere('#0f0f0f');
    await driver.navigate().refresh();
    await plateReady(driver);
    await shows('border-color', '#0f0f0f');
    await stored(driver);
    expect(await asks()).toBe(false);
    await inWindow(1);
    await eventually(
      driver,
      `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#0f0f0f'`,
    );
  },
  TIMEOUT,
);

test(
  'what a closed window could not store is stored by the next one that opens',
  async () => {
    await driver.switchTo().newWindow('window');
    await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
    await plateReady(driver);
    await cutOff();
    await set('border-color', '#2f2f2f');
    await set('background-color', '#3f3f3f');
    await keptHere('#2f2f2f', '#3f3f3f');
    await driver.close();
    await inWindow(1);
    expect(await entryText('border-color')).not.toBe('#2f2f2f');
    await driver.navigate().refresh();
    await plateReady(driver);
    for (const index of [1, 0] as const) {
      await inWindow(index);
      await eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#2f2f2f' &&
         document.querySelector('.entry[data-scope][aria-label^="frame background-color,"]').textContent === '#3f3f3f'`,
      );
      await stored(driver);
    }
    await eventually(driver, `document.querySelector('.band button[title^="Take back"]') !== null`);
    expect(await keptTexts()).toEqual([]);
  },
  TIMEOUT,
);

test(
  'what is selected and what is tried out stay where they were meant when another puts something before them',
  async () => {
    await inWindow(0);
    await (await scopeEntry(driver, 'frame', 'border-color')).click();
    const input = await find(driver, '.editor input');
    await input.sendKeys(Key.chord(Key.CONTROL, 'a'), '#112233');
    await elsewhere('A situation and a rule before all others', [
      { op: 'add', path: '/situations/0', value: { id: 'first', title: 'First of all', when: {} } },
      { op: 'add', path: '/rules/0', value: { id: 'first', when: {}, set: { frame: { opacity: '1' } } } },
    ]);
    await eventually(
      driver,
      `document.querySelector('[role=columnheader][data-column="0"]').textContent.includes('First')`,
    );
    const heading = `document.querySelector('[role=columnheader].on').textContent`;
    expect(await driver.executeScript(`return ${heading}`)).toBe('Pointed at');
    await input.sendKeys(Key.ENTER);
    await stored(driver);
    const rules = await storedRules();
    expect(rules.find(({ id }) => id === 'over')!.set['frame']!['border-color']).toBe('#112233');
    expect(rules[0]).toMatchObject({ id: 'first', set: { frame: { opacity: '1' } } });
  },
  TIMEOUT,
);

test(
  'undo and redo concern what this person did, however others have edited since',
  async () => {
    await inWindow(0);
    const before = await entryText('border-color');
    await set('border-color', '#445566');
    await stored(driver);
    await elsewhere('Somebody’s rule', [
      { op: 'add', path: '/rules/0', value: { id: 'theirs', when: {}, set: { frame: { opacity: '1' } } } },
    ]);
    await elsewhere('Somebody’s summary', [{ op: 'replace', path: '/summary', value: 'Of somebody.' }]);
    await eventually(
      driver,
      `periwinkle.state().edited.documents.get('${DOCUMENT}').summary === 'Of somebody.'`,
    );
    const press = async (name: string): Promise<void> => (await named(driver, '.band button', name)).click();
    await press('undo');
    await shows('border-color', before);
    expect((await storedRules()).map(({ id }) => id)).toContain('theirs');
    await press('redo');
    await shows('border-color', '#445566');
    // It is shown before it is stored, and what comes elsewhere would be made on an earlier state.
    await stored(driver);

    // What another has changed since stands in the way, and is named; nothing happens.
    const index = (await storedRules()).findIndex(({ id }) => id === 'over');
    await elsewhere('Somebody’s colour', [
      { op: 'replace', path: `/rules/${index}/set/frame/border-color`, value: '#778899' },
    ]);
    await shows('border-color', '#778899');
    await press('undo');
    await eventually(
      driver,
      `document.querySelector('.notices').textContent.includes('“Somebody’s colour”')`,
    );
    expect(await entryText('border-color')).toBe('#778899');

    // The history takes back any single change, also of others; then one's own can be taken back.
    await press('history');
    const entry = (words: string): Promise<WebElement> =>
      find(driver, `.history-list button[aria-label="${words}"]`);
    await (await entry('take back: Somebody’s colour')).click();
    await entry('bring back: Somebody’s colour');
    await (await find(driver, '.modal .btn-close')).click();
    await shows('border-color', '#445566');
  },
  TIMEOUT,
);

test(
  'what is taken out and brought back stands where it stood, to the byte',
  async () => {
    await inWindow(0);
    const url = `${address}/api/systems/quayside/documents/${DOCUMENT}`;
    const before = await (await fetch(url)).text();
    const index = (await storedRules()).findIndex(({ set }) => Object.keys(set['frame'] ?? {}).length > 2);
    const [property] = Object.keys((await storedRules())[index]!.set['frame']!);
    await driver.executeScript(
      `periwinkle.edit('${DOCUMENT}', [{ op: 'remove', path: '/rules/${index}/set/frame/${property}' }], 'Taken out')`,
    );
    await stored(driver);
    expect(await (await fetch(url)).text()).not.toBe(before);
    await driver.executeScript(`periwinkle.step('undo')`);
    await stored(driver);
    expect(await (await fetch(url)).text()).toBe(before);
  },
  TIMEOUT,
);

test(
  'a part of a change that comes after the change was taken back is told, and nothing of it stays',
  async () => {
    const part = (summary: string): Promise<unknown> =>
      driver.executeScript(
        `periwinkle.edit('${DOCUMENT}', [{ op: 'replace', path: '/summary', value: '${summary}' }], '${summary}', 'in-two-parts')`,
      );
    await inWindow(0);
    await part('Part one.');
    await stored(driver);
    await cutOff();
    await part('Part two.');
    await eventually(driver, `document.querySelector('.storing').textContent.endsWith('not stored')`);
    await inWindow(1);
    await eventually(driver, `periwinkle.state().history.undo?.change === 'in-two-parts'`);
    await driver.executeScript(`periwinkle.step('undo')`);
    await stored(driver);
    await inWindow(0);
    await reconnect();
    // The one met what the other has taken back: a person decides, and what is kept is a change of its own.
    await eventually(
      driver,
      `document.querySelector('[role=dialog]') !== null || document.querySelector('.notices').textContent.includes('taken back')`,
    );
    const dialogs = await driver.findElements({ css: '[role=dialog]' });
    if (dialogs.length > 0) await (await named(driver, 'button', 'Keep what is there')).click();
    await stored(driver);
    const response = await fetch(`${address}/api/systems/quayside/documents/${DOCUMENT}`);
    expect(await response.text()).not.toContain('Part ');
  },
  TIMEOUT,
);

test(
  'a step whose answer is lost is one step, shown at once',
  async () => {
    await inWindow(0);
    await set('border-color', '#0a0a0a');
    await set('border-color', '#0b0b0b');
    await set('border-color', '#0c0c0c');
    await stored(driver);
    await driver.executeScript(
      `window.realFetch ??= window.fetch;
       window.fetch = async (url, init) => {
         const response = await window.realFetch(url, init);
         if (!String(url).endsWith('/undo')) return response;
         window.fetch = window.realFetch;
         throw new TypeError('the answer is lost');
       };
       document.querySelector('.band button[title^="Take back"]').click();`,
    );
    expect(await entryText('border-color')).toBe('#0b0b0b');
    await eventually(driver, 'window.fetch === window.realFetch');
    await stored(driver);
    expect((await storedRules()).find(({ id }) => id === 'over')!.set['frame']!['border-color']).toBe(
      '#0b0b0b',
    );
    await inWindow(1);
    await shows('border-color', '#0b0b0b');
  },
  TIMEOUT,
);

test(
  'without the server, undo takes back what was done last when it was asked for, and the band says what waits',
  async () => {
    await inWindow(0);
    const before = await entryText('border-color');
    const other = await entryText('background-color');
    await cutOff();
    const undo = (): Promise<unknown> =>
      driver.executeScript(`document.querySelector('.band button[title^="Take back"]').click()`);
    // The first of them has been sent, and nobody knows whether it has come there; the second has not.
    await set('border-color', '#1a1a1a');
    await eventually(driver, `document.querySelector('.storing').textContent === '1 edit not stored'`);
    await set('background-color', '#2a2a2a');
    await undo();
    expect(await entryText('background-color')).toBe(other);
    await undo();
    expect(await entryText('border-color')).toBe(before);
    expect(await driver.executeScript(`return document.querySelector('.storing').title`)).toContain(
      'taking back',
    );
    await set('border-color', '#3a3a3a');
    await reconnect();
    await stored(driver);
    expect(await entryText('border-color')).toBe('#3a3a3a');
    const frame = (await storedRules()).find(({ id }) => id === 'over')!.set['frame']!;
    expect([frame['border-color'], frame['background-color']]).toEqual(['#3a3a3a', other]);
  },
  TIMEOUT,
);

test(
  'two who set different things of the same cells without a rule for them make one rule of it',
  async () => {
    const rule = (set: Record<string, string>): string =>
      JSON.stringify([
        { op: 'add', path: '/rules/-', value: { id: 'both', when: { size: 'large' }, set: { frame: set } } },
      ]);
    await inWindow(0);
    await cutOff();
    await driver.executeScript(`periwinkle.edit('${DOCUMENT}', ${rule({ 'row-gap': '3px' })}, 'A gap')`);
    await driver.executeScript(
      `const { rules } = periwinkle.state().edited.documents.get('${DOCUMENT}');
       periwinkle.edit('${DOCUMENT}', [{ op: 'replace', path: '/rules/' + (rules.length - 1) + '/set/frame/row-gap', value: '5px' }], 'Another gap')`,
    );
    await inWindow(1);
    await driver.executeScript(`periwinkle.edit('${DOCUMENT}', ${rule({ opacity: '0.5' })}, 'Fainter')`);
    await stored(driver);
    await inWindow(0);
    await reconnect();
    await stored(driver);
    const both = (await storedRules()).filter(({ id }) => id === 'both');
    expect(both.map(({ set: said }) => said['frame'])).toEqual([{ opacity: '0.5', 'row-gap': '5px' }]);
    expect(await driver.executeScript(`return periwinkle.state().unplaced.length`)).toBe(0);
  },
  TIMEOUT,
);

test(
  'a rename carries along what waits elsewhere, also where it names the thing anew',
  async () => {
    await inWindow(0);
    await cutOff();
    await driver.executeScript(
      `periwinkle.edit('${DOCUMENT}', [{ op: 'add', path: '/rules/-', value: { id: 'waits', when: { size: 'large' }, set: { frame: { 'column-gap': '7px' } } } }], 'A rule that waits')`,
    );
    await inWindow(1);
    await driver.get(`${address}/quayside/text-field/anatomy?part=frame`);
    const name = await find(driver, '.details input.mono');
    await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'casing', Key.ENTER);
    await stored(driver);
    await driver.switchTo().window(windows[0]);
    await reconnect();
    await stored(driver);
    const waits = (await storedRules()).find(({ id }) => id === 'waits')!;
    expect(Object.keys(waits.set)).toEqual(['casing']);
    expect(await driver.executeScript(`return periwinkle.state().unplaced.length`)).toBe(0);
    await driver.switchTo().window(windows[1]);
    await (
      await find(driver, '.details input.mono')
    ).sendKeys(Key.chord(Key.CONTROL, 'a'), 'frame', Key.ENTER);
    await stored(driver);
    await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
  },
  TIMEOUT,
);

test(
  'what cannot be stored is kept with what it says, and can be placed after all',
  async () => {
    await inWindow(0);
    await driver.executeScript(
      `periwinkle.edit('${DOCUMENT}', [{ op: 'add', path: '/rules/-', value: { id: 'wrong', when: { size: 'enormous' }, set: { frame: { 'row-gap': '9px' } } } }], 'A wrong rule')`,
    );
    await (await named(driver, '.band button', '1 not placed')).click();
    const text = await (await find(driver, '.unplaced-list')).getText();
    expect(text).toContain('A wrong rule');
    expect(text).toContain('enormous');
    expect(text).toContain('9px');
    await keptHere('enormous');
    // Another window that opens meanwhile leaves it to the one that comes again.
    await driver.switchTo().window(windows[1]);
    await driver.executeScript('location.reload()');
    await driver.switchTo().window(windows[0]);
    await driver.navigate().refresh();
    await plateReady(driver);
    await (await named(driver, '.band button', '1 not placed')).click();
    await (await find(driver, 'button[aria-label="put away: A wrong rule"]')).click();
    await eventually(driver, `document.querySelector('.unplaced-list') === null`);
    await (await find(driver, '.modal .btn-close')).click();
  },
  TIMEOUT,
);

test(
  'what is being typed stays when another changes the place, and a later Enter asks first',
  async () => {
    await inWindow(0);
    await (await scopeEntry(driver, 'frame', 'border-color')).click();
    const input = await find(driver, '.editor input');
    await input.sendKeys(Key.chord(Key.CONTROL, 'a'), '#515151');
    const index = (await storedRules()).findIndex(({ id }) => id === 'over');
    await elsewhere('Somebody’s border', [
      { op: 'replace', path: `/rules/${index}/set/frame/border-color`, value: '#616161' },
    ]);
    const note = await find(driver, '.fault.moved');
    expect(await note.getText()).toContain('#616161');
    expect(await input.getAttribute('value')).toBe('#515151');
    await input.sendKeys(Key.ENTER);
    await eventually(driver, `document.querySelector('.fault.moved').textContent.includes('once more')`);
    expect((await storedRules())[index]!.set['frame']!['border-color']).toBe('#616161');
    await input.sendKeys(Key.ENTER);
    await stored(driver);
    expect((await storedRules())[index]!.set['frame']!['border-color']).toBe('#515151');
  },
  TIMEOUT,
);

test(
  'what is typed and not yet put in is kept in every way of leaving',
  async () => {
    await inWindow(0);
    const color = async (): Promise<string | undefined> =>
      (await storedRules()).find(({ id }) => id === 'over')!.set['frame']!['border-color'];
    const typeIn = async (value: string): Promise<void> => {
      await (await scopeEntry(driver, 'frame', 'border-color')).click();
      await (await find(driver, '.editor input')).sendKeys(Key.chord(Key.CONTROL, 'a'), value);
    };
    await typeIn('#717171');
    await driver.executeScript(`dispatchEvent(new Event('beforeunload', { cancelable: true }))`);
    await stored(driver);
    expect(await color()).toBe('#717171');
    await (await named(driver, '.band nav a', 'Fields')).click();
    await (await named(driver, 'main a', 'Text field')).click();
    const here = await driver.getCurrentUrl();
    await driver.navigate().back();
    await driver.navigate().back();
    await plateReady(driver);
    expect(await driver.getCurrentUrl()).not.toBe(here);
    await typeIn('#727272');
    await driver.executeScript('history.forward()');
    await eventually(driver, `document.querySelector('.editor') === null`);
    await stored(driver);
    expect(await color()).toBe('#727272');
    await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
  },
  TIMEOUT,
);

test(
  'an edit made on a later state than the server has by now, as after a backup was put back, is stored after a reload',
  async () => {
    await inWindow(0);
    await cutOff();
    await set('border-color', '#1e1e1e');
    await keptHere('#1e1e1e');
    await changeKept(`kept.bases.forEach(base => (base.revision += 1000)); kept.lastEdit += 1000;`);
    await driver.navigate().refresh();
    await plateReady(driver);
    await shows('border-color', '#1e1e1e');
    await stored(driver);
    await inWindow(1);
    await eventually(
      driver,
      `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === '#1e1e1e'`,
    );
  },
  TIMEOUT,
);

test(
  'an edit that is too long to be told is read, by the window that listens for both, before what comes after it',
  async () => {
    const path = 'components/text-field.component.json';
    const field = `${address}/api/systems/quayside/documents/${path}`;
    const rules = ((await (await fetch(field)).json()) as { rules: object[] }).rules.length;
    const at = `/rules/${rules}`;
    const value = (color: string): object => ({ id: 'from-afar', when: {}, set: { frame: { color } } });
    const long: PatchOperation[] = [
      { op: 'add', path: at, value: value('#000000') },
      ...Array.from({ length: 1_000 }, (_, step): PatchOperation => ({
        op: 'replace',
        path: `${at}/set/frame/color`,
        value: `#${String(100_000 + step)}`,
      })),
    ];
    expect(JSON.stringify(long).length).toBeGreaterThan(QUOTAS.eventLetters);
    const edits: [PatchOperation[], string][] = [
      [long, '#100999'],
      [[{ op: 'replace', path: `${at}/set/frame/color`, value: '#7a7b7c' }], '#7a7b7c'],
    ];
    for (const [patch, color] of edits) {
      const revision = Number((await fetch(field)).headers.get('etag')!.replaceAll('"', ''));
      const { status } = await fetch(`${address}/api/systems/quayside/edits`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ parts: [{ path, revision, key: `afar-${revision}`, patch }] }),
      });
      expect(status).toBe(200);
      for (const index of [0, 1] as const) {
        await inWindow(index);
        await eventually(
          driver,
          `[...document.querySelectorAll('.entry')].some(entry => entry.textContent === arguments[0])`,
          color,
        );
      }
    }
    for (const index of [0, 1] as const) {
      await inWindow(index);
      await set('border-color', `#0${index}0${index}0${index}`);
      await stored(driver);
    }
  },
  TIMEOUT,
);

test(
  'more windows than a browser grants connections to one host all load, and all hear of edits, also when others close',
  async () => {
    const all = [...windows];
    while (all.length < 9) {
      await driver.switchTo().newWindow('window');
      await driver.get(`${address}/quayside/text-field?rows=*&columns=pointed-at`);
      await plateReady(driver);
      all.push(await driver.getWindowHandle());
    }
    const hears = async (window: string, colour: string): Promise<void> => {
      await driver.switchTo().window(window);
      await eventually(
        driver,
        `document.querySelector('.entry[data-scope][aria-label^="frame border-color,"]').textContent === arguments[0]`,
        colour,
      );
    };
    await set('border-color', '#010203');
    await stored(driver);
    for (const window of all) await hears(window, '#010203');
    // Whichever of these listened to the server, another takes over; leaving for another page counts as closing.
    for (const window of all.slice(0, 3)) {
      await driver.switchTo().window(window);
      await driver.close();
    }
    await driver.switchTo().window(all[3]!);
    await driver.get(`${address}/`);
    await find(driver, '.shelf .specimens');
    await driver.switchTo().window(all.at(-1)!);
    await set('border-color', '#040506');
    await stored(driver);
    for (const window of all.slice(4)) await hears(window, '#040506');
    await driver.switchTo().window(all[3]!);
    await driver.navigate().back();
    await hears(all[3]!, '#040506');
    await driver.switchTo().window(all[4]!);
    await set('border-color', '#070809');
    await stored(driver);
    await hears(all[3]!, '#070809');
  },
  TIMEOUT,
);
