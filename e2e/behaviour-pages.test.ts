import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { Key, type WebDriver } from 'selenium-webdriver';
import { exampleMarkup } from '@periwinkle/core/output/page/component-page';
import { componentNamed } from '@periwinkle/core/components/system';
import { eventually, openBrowser, type Browser } from './support/browser';
import { Delivery } from './support/delivery';
import { demoSystem } from './support/demo';
import { TIMEOUT } from './support/patience';
import { serveFolder } from './support/serve-folder';

/** Shipped scripts on ordinary pages: in forms, beside handlers of the page, under composition, undo and fast hands. */

const AXE = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');
const system = demoSystem();
const delivery = new Delivery(system);
let browser: Browser;
let driver: WebDriver;
let server: Awaited<ReturnType<typeof serveFolder>>;

beforeAll(async () => {
  browser = await openBrowser();
  ({ driver } = browser);
  server = await serveFolder(delivery.folder);
}, TIMEOUT);
afterAll(async () => {
  await browser.quit();
  server.close();
  delivery.remove();
}, TIMEOUT);

/** A page with fields in a form, each under its id, with what the page itself does. */
async function openForm(ids: readonly string[], script = '', before = ''): Promise<void> {
  const fields = ids
    .map(id => {
      const markup = exampleMarkup(system, componentNamed(system, id)!, { content: 'empty' }, undefined, id);
      return markup.replace(/(<(?:input|textarea)|<button)([^>]*id="[\w-]+-control")/, `$1 name="${id}"$2`);
    })
    .join('\n');
  const styles = ids.map(id => `<link rel="stylesheet" href="css/${id}.css">`).join('');
  delivery.write(
    'form.html',
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Form</title>
<link rel="stylesheet" href="css/tokens.css">${styles}</head><body><main><h1>Form</h1>
<form id="form">${fields}<button id="send">Send</button></form></main>
<script type="module">
${ids.map((id, place) => `import { attach as attach${place} } from './behaviour/${id}.js';`).join('\n')}
const form = document.getElementById('form');
window.sent = [];
window.changes = [];
window.fields = {};
form.addEventListener('submit', event => { event.preventDefault(); sent.push([...new FormData(form)]); });
${before}
${ids
  .map(
    (id, place) =>
      `fields['${id}'] = attach${place}(form.children[${place}], { onChange: value => changes.push(['${id}', value]), ask: () => true });`,
  )
  .join('\n')}
${script}
window.ready = true;
</script></body></html>`,
  );
  await driver.get(`${server.address}/form.html`);
  await eventually(driver, 'window.ready === true');
}

const run = <Result>(script: string, ...args: unknown[]): Promise<Result> =>
  driver.executeScript<Result>(script, ...args);
const control = (id: string): string => `document.getElementById('${id}-control')`;

test(
  'a form sends names and values as kinds have them; nothing is sent while one is wrong, and the first wrong has the focus',
  async () => {
    await openForm(['text-field', 'harbour-dues', 'tide-time', 'berth']);
    await run(`fields['text-field'].value = 'osprey'; fields['harbour-dues'].value = '1240.50';
      fields['tide-time'].value = '15:30'; fields['berth'].value = 'Salt wharf'`);
    await run(`document.getElementById('send').click()`);
    expect(await run(`return [sent, document.activeElement.id]`)).toEqual([[], 'text-field-control']);
    await driver.actions().sendKeys(Key.HOME, Key.DELETE, 'O').perform();
    expect(await run(`return ${control('harbour-dues')}.value`)).toBe('1,240.50');
    await run(`document.getElementById('send').click()`);
    await eventually(driver, 'sent.length === 1');
    expect(await run(`return sent[0]`)).toEqual([
      ['text-field', 'Osprey'],
      ['harbour-dues', '1240.50'],
      ['tide-time', '15:30'],
      ['berth', 'Salt wharf'],
    ]);
    await run(`form.reset()`);
    expect(await run(`return Object.values(fields).map(({ value }) => value)`)).toEqual(['', '', '', '']);
  },
  TIMEOUT,
);

test(
  'handlers of the page come first, and what they prevent is not done',
  async () => {
    await openForm(
      ['crew'],
      '',
      `document.querySelector('input').addEventListener('keydown', event => event.key === 'ArrowUp' && event.preventDefault());`,
    );
    await run(`fields.crew.value = '3'; ${control('crew')}.focus()`);
    await driver.actions().sendKeys(Key.ARROW_UP, Key.ARROW_DOWN).perform();
    expect(await run(`return [fields.crew.value, changes.map(([, value]) => value)]`)).toEqual([
      '2',
      ['3', '2'],
    ]);
  },
  TIMEOUT,
);

test(
  'composition, undo and fast hands are the browser’s own',
  async () => {
    await openForm(['text-field', 'passphrase']);
    const devtools = driver as Driver;
    await run(`${control('text-field')}.focus()`);
    // Composed text is judged when it is settled, and not touched before.
    for (const text of ['に', 'にほ', 'にほん'])
      await devtools.sendDevToolsCommand('Input.imeSetComposition', {
        text,
        selectionStart: text.length,
        selectionEnd: text.length,
      });
    await devtools.sendDevToolsCommand('Input.insertText', { text: '日本' });
    expect(await run(`return fields['text-field'].value`)).toBe('日本');
    await run(`document.execCommand('undo')`);
    expect(await run(`return [${control('text-field')}.value, fields['text-field'].value]`)).toEqual([
      '',
      '',
    ]);
    // Thirty keys a second arrive whole.
    const typed = 'Osprey of Merrow, three masts, forty days out of the southern ice';
    for (const letter of typed) {
      const key = { key: letter, text: letter };
      void devtools.sendDevToolsCommand('Input.dispatchKeyEvent', { type: 'keyDown', ...key });
      void devtools.sendDevToolsCommand('Input.dispatchKeyEvent', { type: 'keyUp', ...key });
      await new Promise(resolve => setTimeout(resolve, 33));
    }
    await eventually(driver, `fields['text-field'].value.length === ${typed.length}`);
    expect(await run(`return fields['text-field'].value`)).toBe(typed);
    // Caret and selection survive revealing, judging and a change of option.
    await run(`${control('passphrase')}.focus()`);
    await driver.actions().sendKeys('brass lantern', Key.ARROW_LEFT, Key.ARROW_LEFT).perform();
    await driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_LEFT).keyUp(Key.SHIFT).perform();
    const selected = `const { selectionStart, selectionEnd, type } = ${control('passphrase')}; return [selectionStart, selectionEnd, type]`;
    expect(await run(selected)).toEqual([10, 11, 'password']);
    await run(`document.querySelector('.qs-passphrase-reveal--button').click()`);
    expect(await run(selected)).toEqual([10, 11, 'text']);
    await run(`fields.passphrase.send(); fields.passphrase.set('size', 'large')`);
    expect((await run<unknown[]>(selected)).slice(0, 2)).toEqual([10, 11]);
    expect(await run(`return document.querySelector('.qs-passphrase-message').textContent`)).toContain(
      'Sixteen',
    );
  },
  TIMEOUT,
);

test.each([
  ['gate-code', '１２', ''],
  ['gate-code', '4１7', '47'],
])(
  'what is composed goes through the filter of %s, and what is left out is read out: %s',
  async (id, text, value) => {
    await openForm([id]);
    const devtools = driver as Driver;
    await run(`${control(id)}.focus()`);
    await devtools.sendDevToolsCommand('Input.imeSetComposition', {
      text,
      selectionStart: text.length,
      selectionEnd: text.length,
    });
    await devtools.sendDevToolsCommand('Input.insertText', { text });
    expect(await run(`return [${control(id)}.value, fields['${id}'].value]`)).toEqual([value, value]);
    const said = await run<string>(`return document.querySelector('[role="status"]').textContent`);
    expect(said.trim()).not.toBe('');
    expect(await run(`return changes.map(([, each]) => each)`)).toEqual(value === '' ? [] : [value]);
  },
  TIMEOUT,
);

/** What readers hear of a control, as the browser's accessibility tree has it. */
async function heard(id: string): Promise<Record<string, unknown>> {
  const devtools = driver as Driver;
  const { root } = (await devtools.sendAndGetDevToolsCommand('DOM.getDocument', {})) as unknown as {
    root: { nodeId: number };
  };
  const { nodeId } = (await devtools.sendAndGetDevToolsCommand('DOM.querySelector', {
    nodeId: root.nodeId,
    selector: `#${id}-control`,
  })) as unknown as { nodeId: number };
  const { nodes } = (await devtools.sendAndGetDevToolsCommand('Accessibility.getPartialAXTree', {
    nodeId,
    fetchRelatives: false,
  })) as unknown as {
    nodes: {
      role: { value: string };
      name: { value: string };
      description?: { value: string };
      properties: { name: string; value: { value: unknown } }[];
    }[];
  };
  const [{ role, name, description, properties }] = nodes as [(typeof nodes)[number]];
  return {
    role: role.value,
    name: name.value,
    description: description?.value ?? '',
    ...Object.fromEntries(properties.map(each => [each.name, each.value.value])),
  };
}

test(
  'readers hear what is shown: roles, values, what is wrong; axe finds nothing in any state',
  async () => {
    await openForm(['crew', 'berth', 'gate-code', 'passphrase']);
    await run(AXE);
    const clean = async (): Promise<void> => {
      const found = await driver.executeAsyncScript<string[]>(
        `const done = arguments[arguments.length - 1]; axe.run().then(({ violations }) => done(violations.map(each => each.id + ' ' + each.nodes[0].target)))`,
      );
      expect(found).toEqual([]);
    };
    await clean();
    await run(`fields.crew.value = '40'; fields.crew.send()`);
    expect(await heard('crew')).toMatchObject({
      role: 'spinbutton',
      name: 'Crew aboard',
      valuemin: 1,
      valuemax: 24,
      invalid: 'true',
    });
    expect((await heard('crew'))['description']).toContain('certified for 24');
    await run(`${control('berth')}.focus()`);
    await driver.actions().sendKeys('s').perform();
    expect(await heard('berth')).toMatchObject({ role: 'combobox', name: 'Berth', expanded: true });
    expect(
      await run(
        `return document.getElementById(${control('berth')}.getAttribute('aria-activedescendant')).textContent`,
      ),
    ).toContain('Salt wharf');
    await clean();
    await driver.actions().sendKeys(Key.ENTER).perform();
    expect(await run(`return [fields.berth.value, ${control('berth')}.textContent]`)).toEqual([
      'Salt wharf',
      'Salt wharf',
    ]);
    await run(`fields['gate-code'].value = '12'; fields['gate-code'].send()`);
    await run(
      `fields.passphrase.value = 'brass'; document.querySelector('.qs-passphrase-reveal--button').click()`,
    );
    await clean();
    await run(`for (const field of Object.values(fields)) field.set('availability', 'disabled')`);
    await clean();
  },
  TIMEOUT,
);
