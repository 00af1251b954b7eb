import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { Origin, type WebDriver } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { compileSystem } from '@periwinkle/core/components/system';
import { componentCssText } from '@periwinkle/core/output/outputs';
import { exampleMarkup } from '@periwinkle/core/output/page/component-page';
import { geometry } from '@periwinkle/core/layout/geometry';
import type { Combination } from '@periwinkle/core/space/space';
import { smallDocuments } from '@periwinkle/core/test/small-system';
import { openBrowser, type Browser } from './support/browser';
import { Delivery } from './support/delivery';
import { demoSystem } from './support/demo';
import { TIMEOUT } from './support/patience';

/** The delivered page as people meet it: by ear, by pointer, in their own colours and sizes. */

const system = demoSystem();
const component = system.components[0]!;
const delivery = new Delivery(system);
let browser: Browser;
let driver: WebDriver & Driver;

beforeAll(async () => {
  browser = await openBrowser();
  driver = browser.driver as WebDriver & Driver;
  await driver.sendDevToolsCommand('Accessibility.enable', {});
}, TIMEOUT);
afterAll(async () => {
  delivery.remove();
  await browser?.quit();
}, TIMEOUT);

const command = (name: string, parameters: object): Promise<unknown> =>
  driver.sendAndGetDevToolsCommand(name, parameters) as Promise<unknown>;

interface AxNode {
  readonly ignored: boolean;
  readonly role?: { readonly value: string };
  readonly name?: { readonly value: string };
  readonly description?: { readonly value: string };
  readonly properties?: readonly { readonly name: string; readonly value: { readonly value: unknown } }[];
}

/** What readers are told of the page, from the browser's own tree. */
async function tree(): Promise<AxNode[]> {
  const { nodes } = (await command('Accessibility.getFullAXTree', {})) as { nodes: AxNode[] };
  return nodes.filter(node => !node.ignored);
}

async function openField(markup: string, attributes = ''): Promise<void> {
  const address = delivery.write(
    'page.html',
    `<!doctype html><html lang="en" ${attributes}><head><meta charset="utf-8"><title>Arrivals</title>
<meta name="viewport" content="width=device-width, initial-scale=1">
<link rel="stylesheet" href="css/index.css"></head><body><main><h1>Arrivals</h1>${markup}</main></body></html>`,
  );
  await driver.get(address);
}

describe('readers are told the truth', () => {
  /** By situation: description, required, invalid, disabled, read-only, what is announced. */
  const TOLD: Readonly<Record<string, readonly [string, boolean, string, boolean, boolean, string]>> = {
    'at-rest': ['optional', false, 'false', false, false, ''],
    'pointed-at': ['optional', false, 'false', false, false, ''],
    pressed: ['optional', false, 'false', false, false, ''],
    focused: ['optional', false, 'false', false, false, ''],
    typing: ['optional', false, 'false', false, false, ''],
    filled: ['optional', false, 'false', false, false, ''],
    'filled-by-browser': ['optional', false, 'false', false, false, ''],
    invalid: ['optional Not on the register', false, 'true', false, false, 'Not on the register'],
    correcting: ['optional Not on the register', false, 'true', false, false, 'Not on the register'],
    'left-empty': ['required Not on the register', true, 'true', false, false, 'Not on the register'],
    approved: ['optional Registered in Merrow', false, 'false', false, false, 'Registered in Merrow'],
    readonly: ['optional', false, 'false', false, true, ''],
    busy: ['optional', false, 'false', false, false, ''],
    disabled: ['optional', false, 'false', true, false, ''],
  };

  test('the table has all situations', () =>
    expect(Object.keys(TOLD).sort()).toEqual(component.situations.map(({ id }) => id).sort()));

  test.each(component.situations.map(({ id, when }) => [id, when] as const))(
    '%s',
    async (id, when) => {
      await openField(exampleMarkup(system, component, when, 'vessel'));
      const nodes = await tree();
      const fields = nodes.filter(node => node.role?.value === 'textbox');
      expect(fields).toHaveLength(1);
      const [field] = fields as [AxNode];
      const property = (name: string): unknown =>
        field.properties?.find(each => each.name === name)?.value.value;
      const alerts = nodes.filter(node => node.role?.value === 'alert');
      const texts = nodes.filter(node => node.role?.value === 'StaticText').map(node => node.name!.value);
      const announced = alerts.length === 0 ? '' : texts.find(text => /register/i.test(text));
      expect(field.name?.value).toBe('Vessel name');
      expect([
        field.description?.value ?? '',
        property('required') ?? false,
        property('invalid') ?? 'false',
        property('disabled') ?? false,
        property('readonly') ?? false,
        announced,
      ]).toEqual(TOLD[id]);
    },
    TIMEOUT,
  );

  const fieldOf = (id: string) => system.components.find(each => each.id === id)!;
  const property = (node: AxNode | undefined, name: string): unknown =>
    node?.properties?.find(each => each.name === name)?.value.value;
  const ofRole = (nodes: readonly AxNode[], role: string): AxNode[] =>
    nodes.filter(node => node.role?.value === role);
  const related = (node: AxNode | undefined, name: string): readonly (string | undefined)[] =>
    (
      (node?.properties?.find(each => each.name === name)?.value as { relatedNodes?: { idref?: string }[] })
        ?.relatedNodes ?? []
    ).map(({ idref }) => idref);

  test(
    'an open list of choices: what it belongs to, what is in it, what is chosen, where the keys stand',
    async () => {
      const open = { disclosure: 'open', content: 'filled', focus: 'keyboard' };
      await openField(exampleMarkup(system, fieldOf('berth'), open, 'berth', 'here'));
      // Left, it closes by itself.
      await driver.executeScript(`document.querySelector('[role=combobox]').focus()`);
      const nodes = await tree();
      const [box] = ofRole(nodes, 'combobox');
      const [list] = ofRole(nodes, 'listbox');
      expect([box?.name?.value, list?.name?.value]).toEqual(['Berth', 'Berth']);
      expect([property(box, 'expanded'), property(box, 'hasPopup')]).toEqual([true, 'listbox']);
      expect(related(box, 'controls')).toEqual(['here-list']);
      expect(related(box, 'activedescendant')).toEqual(['here-option--root-3']);
      const options = ofRole(nodes, 'option');
      expect(options.map(({ name }) => name?.value)).toEqual([
        'North quay 2 6.8 m',
        'North quay 4 8.2 m',
        'Salt wharf 8.4 m',
        'Lantern pier taken',
        'Rope walk 1 5.1 m',
        'Rope walk 2 5.1 m',
        'Tidal basin 9.0 m',
        'Outer roads 14.5 m',
      ]);
      expect(options.flatMap((each, index) => (property(each, 'selected') === true ? [index] : []))).toEqual([
        1,
      ]);
      expect(options.map(each => property(each, 'disabled') === true).indexOf(true)).toBe(3);
    },
    TIMEOUT,
  );

  test(
    'a closed list, and the platform’s own',
    async () => {
      await openField(exampleMarkup(system, fieldOf('berth'), { content: 'empty' }, 'berth'));
      let nodes = await tree();
      const [closed] = ofRole(nodes, 'combobox');
      expect([closed?.name?.value, property(closed, 'expanded')]).toEqual(['Berth', false]);
      expect(ofRole(nodes, 'option')).toEqual([]);
      await openField(
        exampleMarkup(system, fieldOf('berth'), { element: 'select', content: 'filled' }, 'berth'),
      );
      nodes = await tree();
      const [select] = ofRole(nodes, 'combobox');
      expect(select?.name?.value).toBe('Berth');
      expect(
        await driver.executeScript(
          `const select = document.querySelector('select');
           return [select.value, select.options.length, document.querySelectorAll('[role=combobox]').length]`,
        ),
      ).toEqual(['North quay 4', 8, 0]);
    },
    TIMEOUT,
  );

  test(
    'a code is one entry, whatever stands in its boxes; acts in a field have names',
    async () => {
      await openField(
        exampleMarkup(system, fieldOf('gate-code'), { content: 'filled', validity: 'invalid' }, 'gate', 'g') +
          exampleMarkup(system, fieldOf('passphrase'), { content: 'filled' }, 'harbour', 'p'),
      );
      const nodes = await tree();
      const [code] = ofRole(nodes, 'textbox');
      expect(code).toMatchObject({
        name: { value: 'Gate code' },
        description: { value: expect.stringMatching(/required|That code opens no gate today/) as string },
      });
      const texts = ofRole(nodes, 'StaticText').map(({ name }) => name?.value);
      expect(texts.filter(text => /^\d$/.test(text ?? ''))).toEqual([]);
      expect(ofRole(nodes, 'button').map(({ name }) => name?.value)).toEqual(['Show the passphrase']);
    },
    TIMEOUT,
  );

  test(
    'a hidden label still names; a unit describes; the same field twice keeps to itself',
    async () => {
      const options = { 'label-placement': 'hidden', trailing: 'unit' };
      await openField(
        ['a', 'b'].map(id => exampleMarkup(system, component, options, 'draught', id)).join('\n'),
      );
      const fields = (await tree()).filter(node => node.role?.value === 'textbox');
      expect(fields.map(({ name, description }) => [name?.value, description?.value])).toEqual([
        ['Draught', 'm At the deepest point, as loaded today.'],
        ['Draught', 'm At the deepest point, as loaded today.'],
      ]);
      const ids = await driver.executeScript<string[]>(
        `return [...document.querySelectorAll('[id]')].map(each => each.id)`,
      );
      expect(new Set(ids).size).toBe(ids.length);
    },
    TIMEOUT,
  );

  const AXE = readFileSync(createRequire(__filename).resolve('axe-core/axe.min.js'), 'utf8');
  test.each([
    ['day', 'data-theme="day"', []],
    ['night', 'data-theme="night"', []],
    ['a dark machine', '', [{ name: 'prefers-color-scheme', value: 'dark' }]],
    ['forced colours', '', [{ name: 'forced-colors', value: 'active' }]],
  ] as const)(
    'the page of markup has no violation: %s',
    async (_, attributes, features) => {
      await command('Emulation.setEmulatedMedia', { features });
      const markup = component.situations.map(({ when }, index) =>
        exampleMarkup(system, component, when, undefined, `s${index}`),
      );
      await openField(markup.join('\n'), attributes);
      await driver.executeScript(AXE);
      const found = await driver.executeAsyncScript<string[]>(
        `const done = arguments[0];
         document.getAnimations().forEach(each => each.finish());
         axe.run(document, { resultTypes: ['violations'] }).then(result =>
           done(result.violations.flatMap(({ id, nodes }) => nodes.map(node => id + ' ' + node.html.slice(0, 90) + ' ' + node.failureSummary))))`,
      );
      await command('Emulation.setEmulatedMedia', { features: [] });
      expect(found).toEqual([]);
    },
    TIMEOUT,
  );
});

test(
  'a press on icon, unit, padding, gap or label focuses the control, without script; beside it none does',
  async () => {
    await openField(
      `<div style="width: 360px; padding: 40px">${exampleMarkup(system, component, { leading: 'icon', trailing: 'unit' }, 'draught', 'x')}</div>`,
    );
    const at = (expression: string): Promise<{ x: number; y: number }> =>
      driver.executeScript(
        `const box = name => document.querySelector('.qs-text-field' + (name ? '-' + name : '')).getBoundingClientRect();
         const middle = rect => ({ x: Math.round(rect.x + rect.width / 2), y: Math.round(rect.y + rect.height / 2) });
         document.activeElement.blur();
         return ${expression}`,
      );
    const reacts = async (expression: string): Promise<[boolean, boolean, string]> => {
      const { x, y } = await at(expression);
      await driver.actions({ async: true }).move({ x, y, origin: Origin.VIEWPORT }).perform();
      const line = await driver.executeScript<string>(
        `document.getAnimations().forEach(each => each.finish());
         return getComputedStyle(document.querySelector('.qs-text-field-frame')).borderTopColor`,
      );
      await driver.actions({ async: true }).press().release().perform();
      const focused = await driver.executeScript<boolean>(`return document.activeElement.id === 'x-control'`);
      return [focused, line !== rest, line];
    };
    const rest = await driver.executeScript<string>(
      `return getComputedStyle(document.querySelector('.qs-text-field-frame')).borderTopColor`,
    );
    for (const place of [
      `middle(box('leading'))`,
      `middle(box('unit'))`,
      `({ x: Math.round(box('frame').x + 3), y: Math.round(box('frame').y + 5) })`,
      `({ x: Math.round((box('leading').right + box('control').x) / 2), y: Math.round(box('frame').y + 9) })`,
      `middle(box('label'))`,
      `middle(box('control'))`,
    ])
      expect([place, ...(await reacts(place)).slice(0, 2)]).toEqual([place, true, true]);
    expect((await reacts(`middle(box('help'))`)).slice(0, 2)).toEqual([false, false]);
  },
  TIMEOUT,
);

describe("the person's own settings", () => {
  const frameStyle = (property: string, id = 'x'): Promise<string> =>
    driver.executeScript(
      `document.getAnimations().forEach(each => each.finish());
       return getComputedStyle(document.getElementById('${id}-control').parentElement).getPropertyValue('${property}')`,
    );

  test(
    'forced colours keep focus, mistake and what is off',
    async () => {
      await command('Emulation.setEmulatedMedia', { features: [{ name: 'forced-colors', value: 'active' }] });
      const states: Combination[] = [
        {},
        { validity: 'invalid', content: 'filled' },
        { availability: 'disabled' },
      ];
      const fields = states.map((when, index) =>
        exampleMarkup(system, component, when, 'vessel', `f${index}`),
      );
      await openField(fields.join('\n'));
      expect(await frameStyle('outline-style', 'f0')).toBe('none');
      await driver.executeScript(`document.getElementById('f0-control').focus()`);
      expect([await frameStyle('outline-style', 'f0'), await frameStyle('outline-width', 'f0')]).toEqual([
        'solid',
        '2px',
      ]);
      expect(await frameStyle('border-top-style', 'f1')).toBe('dotted');
      await driver.executeScript(`document.getElementById('f1-control').focus()`);
      expect(await frameStyle('border-top-style', 'f1')).toBe('dotted');
      expect(await frameStyle('border-top-color', 'f2')).not.toBe(await frameStyle('border-top-color', 'f0'));
      await command('Emulation.setEmulatedMedia', { features: [] });
    },
    TIMEOUT,
  );

  test(
    'where less motion is asked for nothing moves',
    async () => {
      await openField(exampleMarkup(system, component, {}, 'vessel', 'x'));
      expect(await frameStyle('transition-property')).not.toBe('none');
      await command('Emulation.setEmulatedMedia', {
        features: [{ name: 'prefers-reduced-motion', value: 'reduce' }],
      });
      expect(await frameStyle('transition-property')).toBe('none');
      await command('Emulation.setEmulatedMedia', { features: [] });
    },
    TIMEOUT,
  );

  test(
    'a context paints its surface and ink and tells its scheme, wherever it is switched, and by the machine alone',
    async () => {
      const place = `<div id="bare" data-theme="night">by night</div>${exampleMarkup(system, component, {}, 'vessel', 'x')}`;
      const look = (id: string): Promise<string[]> =>
        driver.executeScript(
          `const style = getComputedStyle(${id === '' ? 'document.documentElement' : `document.getElementById('${id}')`});
           return [style.backgroundColor, style.color, style.colorScheme]`,
        );
      await openField(place);
      expect(await look('bare')).toEqual([
        'oklch(0.2214 0.0237 230.96)',
        'oklch(0.9479 0.0066 208.78)',
        'dark',
      ]);
      expect((await look(''))[2]).toBe('light');
      await command('Emulation.setEmulatedMedia', {
        features: [{ name: 'prefers-color-scheme', value: 'dark' }],
      });
      expect(await look('')).toEqual(await look('bare'));
      await command('Emulation.setEmulatedMedia', { media: 'print', features: [] });
      expect([await look(''), (await look('bare'))[2]]).toEqual([
        ['oklch(1 0 0)', 'oklch(0.2657 0.0271 229.26)', 'light'],
        'light',
      ]);
      await command('Emulation.setEmulatedMedia', { media: '', features: [] });
    },
    TIMEOUT,
  );

  test(
    'another value for a role in a part of the page reaches all that refers to it',
    async () => {
      const field = (id: string): string => exampleMarkup(system, component, {}, 'vessel', id);
      await openField(
        `${field('a')}<div data-qs-anew data-theme="day" style="--qs-raw-corner-soft: 11px; --qs-color-line-focus: rgb(1, 2, 3)">${field('b')}</div>`,
      );
      expect(await frameStyle('border-top-left-radius', 'a')).toBe('4px');
      expect(await frameStyle('border-top-left-radius', 'b')).toBe('11px');
      await driver.executeScript(`document.getElementById('b-control').focus()`);
      expect(await frameStyle('box-shadow', 'b')).toContain('rgb(1, 2, 3)');
    },
    TIMEOUT,
  );

  test(
    'what the browser fills in keeps the text and surface of the rules',
    async () => {
      await driver.sendDevToolsCommand('DOM.enable', {});
      await driver.sendDevToolsCommand('CSS.enable', {});
      await openField(exampleMarkup(system, component, { content: 'filled' }, 'vessel', 'x'));
      const { root } = (await command('DOM.getDocument', { depth: 0 })) as { root: { nodeId: number } };
      const found = (await command('DOM.querySelector', {
        nodeId: root.nodeId,
        selector: '#x-control',
      })) as { nodeId: number };
      await command('CSS.forcePseudoState', { nodeId: found.nodeId, forcedPseudoClasses: ['autofill'] });
      const style = await driver.executeScript<string[]>(
        `document.getAnimations().forEach(each => each.finish());
         const style = getComputedStyle(document.getElementById('x-control'));
         return [style.webkitTextFillColor, style.backgroundClip]`,
      );
      expect(style).toEqual(['oklch(0.2657 0.0271 229.26)', 'text']);
      expect(await frameStyle('background-color')).toBe('oklch(0.9718 0.0348 94.55)');
    },
    TIMEOUT,
  );

  test.each([
    ['textarea', { height: '80px' }, 80],
    ['textarea', { height: '80px', 'flex-basis': '0px' }, 0],
    ['input', { height: '80px' }, 80],
    ['select', { 'min-height': '50px' }, 50],
    ['textarea', { height: '120px', 'max-height': '90px' }, 90],
  ])(
    'a %s in a stack is as high as it says: %j',
    async (element, set, height) => {
      const own = compileSystem(
        smallDocuments({
          component: {
            anatomy: {
              part: 'root',
              kind: 'stack',
              children: [{ part: 'inner', kind: 'control', element }],
            },
          },
          set: { inner: set, root: { width: '300px' } },
        }),
      );
      const field = own.components[0]!;
      await driver.get('about:blank');
      await driver.executeScript(
        `const sheet = new CSSStyleSheet(); sheet.replaceSync(arguments[0]); document.adoptedStyleSheets = [sheet];
         document.body.innerHTML = arguments[1];`,
        componentCssText(own, field),
        exampleMarkup(own, field, {}, undefined, 'x'),
      );
      const rectangle = `return document.getElementById('x-inner').getBoundingClientRect().height`;
      expect(await driver.executeScript<number>(rectangle)).toBe(height);
      const places = geometry({
        system: own,
        component: field,
        combination: {},
        sample: undefined,
        width: 300,
      });
      expect(places['inner']!.height).toBe(height);
    },
    TIMEOUT,
  );

  const SURFACE = String.raw`rgb\(253, 230, 138\) 0px 0px 0px \d+px inset`;
  test.each([
    ['', {}, `^${SURFACE}$`],
    [
      ', below its shadow',
      { 'box-shadow': '0 1px 2px #010203' },
      `^rgb\\(1, 2, 3\\) 0px 1px 2px 0px, ${SURFACE}$`,
    ],
    [', where it says that there is no shadow', { 'box-shadow': 'none' }, `${SURFACE}$`],
  ])(
    'a control with a surface of its own keeps it, too%s',
    async (_, shadows, wanted) => {
      const own = compileSystem(
        smallDocuments({
          set: {
            inner: { 'background-color': '#fde68a', 'min-height': '40px', width: '200px', ...shadows },
          },
        }),
      );
      const tinted = own.components[0]!;
      await driver.get('about:blank');
      await driver.sendDevToolsCommand('DOM.enable', {});
      await driver.sendDevToolsCommand('CSS.enable', {});
      await driver.executeScript(
        `const sheet = new CSSStyleSheet(); sheet.replaceSync(arguments[0]); document.adoptedStyleSheets = [sheet];
         document.body.innerHTML = arguments[1];`,
        componentCssText(own, tinted),
        exampleMarkup(own, tinted, {}, undefined, 'x'),
      );
      const { root } = (await command('DOM.getDocument', { depth: 0 })) as { root: { nodeId: number } };
      const found = (await command('DOM.querySelector', {
        nodeId: root.nodeId,
        selector: '#x-inner',
      })) as { nodeId: number };
      await command('CSS.forcePseudoState', { nodeId: found.nodeId, forcedPseudoClasses: ['autofill'] });
      const shadow = await driver.executeScript<string>(
        `return getComputedStyle(document.getElementById('x-inner')).boxShadow`,
      );
      expect(shadow).toMatch(new RegExp(wanted));
    },
    TIMEOUT,
  );

  test.each([
    ['text of twice the size', 'style="font-size: 200%"', 1280],
    ['a page 320 px wide', '', 320],
    ['from right to left, 320 px wide', 'dir="rtl"', 320],
  ])(
    '%s clips nothing',
    async (_, attributes, width) => {
      await command('Emulation.setDeviceMetricsOverride', {
        width,
        height: 800,
        deviceScaleFactor: 1,
        mobile: false,
      });
      const wants = component.space.axes
        .filter(axis => axis.kind === 'option')
        .flatMap(axis => axis.values.map(value => ({ [axis.id]: value.id })));
      const fields = wants.map((when, index) =>
        exampleMarkup(
          system,
          component,
          { validity: 'invalid', content: 'filled', ...when },
          'pilot',
          `f${index}`,
        ),
      );
      await openField(fields.join('\n'), attributes);
      const clipped = await driver.executeScript<string[]>(
        `return [...document.querySelectorAll('.qs-text-field *')].filter(each => {
           if (each.closest('svg') || each.tagName === 'INPUT' || getComputedStyle(each).clipPath !== 'none' || each.parentElement.closest('[style*=clip]')) return false;
           if (getComputedStyle(each.parentElement).clipPath !== 'none') return false;
           const own = each.getBoundingClientRect();
           return each.scrollHeight > each.clientHeight + 1 && getComputedStyle(each).display !== 'inline' && each.clientHeight > 0
             || own.right > innerWidth + 1 || own.left < -1;
         }).map(each => each.className + ' ' + each.scrollHeight + ' ' + each.clientHeight)
         .concat([...document.querySelectorAll('input')].filter(each => {
           const style = getComputedStyle(each);
           return parseFloat(style.height) < parseFloat(style.lineHeight) - 1;
         }).map(each => 'input lower than its line'))
         .concat(document.documentElement.scrollWidth > innerWidth ? ['the page scrolls sideways'] : [])`,
      );
      await command('Emulation.setDeviceMetricsOverride', {
        width: 1280,
        height: 800,
        deviceScaleFactor: 1,
        mobile: false,
      });
      expect(clipped).toEqual([]);
    },
    TIMEOUT,
  );
});
