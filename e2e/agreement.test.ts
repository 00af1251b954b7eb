import { runsOf } from '@periwinkle/core/test/runs';
import { Origin, type WebDriver, type WebElement } from 'selenium-webdriver';
import { showsPlaceholder } from '@periwinkle/core/documents/part-kinds';
import { namesOf } from '@periwinkle/core/render/names';
import { componentStylesheet } from '@periwinkle/core/output/stylesheet/component-css';
import { fieldTree } from '@periwinkle/core/render/field-tree';
import { fieldHtml } from '@periwinkle/core/render/html';
import { componentCssText, tokensCssText } from '@periwinkle/core/output/outputs';
import { HELD, HOST } from '@periwinkle/core/output/stylesheet/selector-scheme';
import { stylesheetText } from '@periwinkle/core/output/stylesheet/stylesheet';
import { resolve } from '@periwinkle/core/cascade/resolve';
import type { Combination, Space } from '@periwinkle/core/space/space';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { differences, READ_STYLES, wantedFrom, type Styles } from './support/computed';
import { demoSystem } from './support/demo';
import { showFields } from './support/fields-page';
import { inBareBrowser } from './support/session';
import { TIMEOUT } from './support/patience';

/** Core, held stylesheet and shipped stylesheet agree with the browser, property by property. */

const system = demoSystem();
/** All contexts there are, two at a time, in which every modifier differs. */
const CONTEXTS = [
  [
    { theme: 'day', density: 'roomy' },
    { theme: 'night', density: 'compact' },
  ],
  [
    { theme: 'day', density: 'compact' },
    { theme: 'night', density: 'roomy' },
  ],
];
const contextsOf = (index: number) => CONTEXTS[index % CONTEXTS.length]!;
const attributesOf = (contexts: ContextInput): string =>
  Object.entries(contexts)
    .map(([modifier, context]) => `data-${modifier}="${context}"`)
    .join(' ');
let driver: WebDriver;

inBareBrowser(browser => ({ driver } = browser));

/** Spreads over the raw space evenly, reaching every value of every axis. */
function sampled(
  space: Space,
  count: number,
  skip: (combination: Combination) => boolean = () => false,
): Combination[] {
  const found: Combination[] = [];
  for (let number = 1; found.length < count; number++) {
    let rest = Math.floor(
      ((number * 0.6180339887498949) % 1) *
        Number(space.axes.reduce((product, axis) => product * axis.values.length, 1)),
    );
    const indices = space.axes.map(axis => {
      const index = rest % axis.values.length;
      rest = Math.floor(rest / axis.values.length);
      return index;
    });
    const combination = space.written(indices);
    if (!skip(combination)) found.push(combination);
  }
  return found;
}

async function showPage(css: readonly string[], body: string): Promise<void> {
  await driver.get('about:blank');
  await driver.executeScript(
    `document.head.innerHTML = '<meta charset=utf-8>';
     for (const text of arguments[0]) { const style = document.createElement('style'); style.textContent = text; document.head.append(style); }
     document.body.innerHTML = arguments[1];`,
    css,
    body,
  );
}

/** Brings a real field into a raw combination, with the means a person or an application has. */
async function bringAbout(
  space: Space,
  raw: Combination,
  field: WebElement,
  control: WebElement,
  frame: WebElement,
): Promise<void> {
  await driver.executeScript(
    `const [field, control, raw, axes] = arguments;
     control.blur();
     for (const axis of axes) field.setAttribute('data-' + axis, raw[axis]);
     if ('placeholder' in control) control.value = raw.content === 'filled' ? 'Osprey of Merrow' : '';
     else field.setAttribute('data-content', raw.content);
     const flag = (element, name, on, value = '') => on ? element.setAttribute(name, value) : element.removeAttribute(name);
     flag(control, 'aria-invalid', raw.validity === 'invalid', 'true');
     flag(field, 'data-validity', raw.validity === 'valid', 'valid');
     const isButton = control.localName === 'button';
     flag(control, isButton ? 'aria-required' : 'required', raw.requirement === 'required', 'true');
     flag(control, 'aria-expanded', raw.disclosure === 'open', 'true');
     flag(field, 'data-secret', raw.secret === 'shown', 'shown');
     flag(control, 'disabled', raw.availability === 'disabled');
     flag(control, isButton ? 'aria-readonly' : 'readonly', raw.availability === 'readonly', 'true');
     flag(field, 'aria-busy', raw.availability === 'busy', 'true');
     flag(field, 'data-range', raw.range === 'min' || raw.range === 'max', raw.range);
     if (raw.focus === 'keyboard') control.focus();`,
    field,
    control,
    raw,
    space.axes.filter(axis => axis.kind === 'option').map(axis => axis.id),
  );
  const actions = driver.actions({ async: true });
  // At once: on the way there is nothing to be seen here.
  const there =
    raw.pointer === 'away'
      ? actions.move({ x: 1, y: 590, origin: Origin.VIEWPORT, duration: 0 })
      : actions.move({ origin: frame, duration: 0 });
  await (raw.pointer === 'down' ? there.press() : there).perform();
}

/** Fields that share most with the first are tried in fewer combinations; what bears no states is tried where it is nested. */
const FIELDS = system.components
  .filter(({ anatomy }) => anatomy.bearer !== null)
  .map(component => {
    const of = (most: number): number => Math.ceil((most * runsOf('looks of the demo in a browser')) / 100);
    const [shown, pointings] = component.id === 'text-field' ? [300, 220] : [60, 30];
    return [component.id, component, { shown: of(shown), pointings: of(pointings) }] as const;
  });

/** What of the states a person cannot bring about. A text control that has the focus always shows it; a press brings the focus. */
const OUT_OF_REACH: Readonly<Record<'text' | 'button', (raw: Combination) => boolean>> = {
  text: raw =>
    raw['focus'] === 'in' ||
    (raw['pointer'] === 'down' && raw['focus'] === 'out' && raw['availability'] !== 'disabled') ||
    (raw['availability'] === 'disabled' && raw['focus'] === 'keyboard'),
  button: raw =>
    raw['element'] === 'select' ||
    raw['focus'] === 'keyboard' ||
    (raw['focus'] === 'in') !== (raw['pointer'] === 'down' && raw['availability'] !== 'disabled'),
};

describe.each(FIELDS)('%s', (_, component, { shown, pointings }) => {
  const { space, anatomy } = component;
  const bearer = anatomy.bearer!;
  const isTyped = showsPlaceholder(bearer.element, bearer.type);
  const classOf = (part: string): string => namesOf(system).component(component.id).part(part);
  const resolved = (combination: Combination, contexts: ContextInput) =>
    resolve(component, combination, {
      tokens: system.tokens.in(contexts),
      rootFontSize: system.rootFontSize,
    });

  const htmlOf = (combination: Combination, mode: 'held' | 'shipped', id: string): string =>
    fieldHtml(
      fieldTree({
        component,
        names: namesOf(system).component(component.id),
        icons: system.icons,
        sample: component.samples[0],
        combination,
        mode,
        id,
      }),
    );

  test(
    `the held stylesheet shows ${shown} combinations as the core resolves them, in all contexts`,
    async () => {
      const held = stylesheetText(componentStylesheet({ system, component, scheme: HELD }));
      const cells = sampled(space, shown).flatMap((raw, index) =>
        contextsOf(index).map(contexts => ({ contexts, ...resolved(raw, contexts) })),
      );
      const body = cells.map(
        (cell, index) =>
          `<div id="cell-${index}" ${attributesOf(cell.contexts)}>${htmlOf(cell.combination, 'held', `x${index}`)}</div>`,
      );
      await showPage([tokensCssText(system), held], body.join(''));
      const wanted = cells.map(cell => wantedFrom(cell.parts, classOf));
      const styles: Styles[] = [];
      // A slow machine must not run into the time that a script may take.
      for (let from = 0; from < wanted.length; from += 60) {
        styles.push(
          ...(await driver.executeScript<Styles[]>(
            `const read = new Function(${JSON.stringify(READ_STYLES)});
             return arguments[0].map((wanted, index) => read(document.getElementById('cell-' + (index + arguments[1])), wanted))`,
            wanted.slice(from, from + 60),
            from,
          )),
        );
      }
      const results = cells.map((cell, index) => ({ cell, ...differences(cell.parts, styles[index]!) }));
      expect(
        results
          .flatMap(({ cell, lines }) =>
            lines.map(
              line => `${line} in ${JSON.stringify(cell.contexts)} ${JSON.stringify(cell.combination)}`,
            ),
          )
          .slice(0, 20),
      ).toEqual([]);
      const compared = results.reduce((sum, each) => sum + each.compared, 0);
      expect(compared).toBeGreaterThan(shown * (component.derivation ? 60 : 20));
    },
    TIMEOUT,
  );

  test(
    'the stylesheet for shadow trees does the same by what the element around them bears',
    async () => {
      const css = stylesheetText(componentStylesheet({ system, component, scheme: HOST }));
      const isBorne = (raw: Combination): boolean =>
        (raw['pointer'] ?? 'away') === 'away' && (raw['focus'] ?? 'out') === 'out';
      const cells = sampled(space, shown / 5, raw => !isBorne(raw)).map((raw, index) => {
        const [contexts] = contextsOf(index);
        return { raw, contexts: contexts!, ...resolved(raw, contexts!) };
      });
      await showFields(
        driver,
        cells.map(({ raw, contexts }, index) => ({
          html: htmlOf(raw, 'shipped', `h${index}`),
          attributes: raw,
          contexts,
        })),
        { page: [tokensCssText(system)], inner: [css] },
      );
      const styles = await driver.executeScript<Styles[]>(
        `const read = new Function(${JSON.stringify(READ_STYLES)});
         return arguments[0].map((wanted, index) => read(document.getElementById('cell-' + index), wanted))`,
        cells.map(cell => wantedFrom(cell.parts, classOf)),
      );
      const lines = cells.flatMap((cell, index) =>
        differences(cell.parts, styles[index]!).lines.map(
          line => `${line} in ${JSON.stringify(cell.contexts)} ${JSON.stringify(cell.raw)}`,
        ),
      );
      expect(lines.slice(0, 20)).toEqual([]);
    },
    TIMEOUT,
  );

  test(
    'the shipped stylesheet follows real pointing, pressing, focusing, typing and disabling, in all contexts',
    async () => {
      const css = [tokensCssText(system), componentCssText(system, component), 'body { margin: 40px }'];
      await showPage(
        css,
        `<div id="outer" data-theme="day" data-density="roomy"><div id="inner">${htmlOf({ ...space.written(space.indices({})) }, 'shipped', 'real')}</div></div>`,
      );
      const field = await driver.findElement({ css: `.${classOf('root')}` });
      const control = await driver.findElement({ css: `.${classOf(bearer.name)}` });
      const pointed = anatomy.byName.get('frame') ?? bearer;
      const frame = await driver.findElement({ css: `.${classOf(pointed.name)}` });
      const isOut = OUT_OF_REACH[isTyped ? 'text' : 'button'];
      // The browser fills nothing in here.
      const cells = sampled(space, pointings, raw => raw['autofill'] === 'yes' || isOut(raw));
      const lines: string[] = [];
      let pointedAtDisabled = 0;
      for (const [index, raw] of cells.entries()) {
        await bringAbout(space, raw, field, control, frame);
        const wanted = contextsOf(index).map(contexts => {
          const { parts } = resolved(raw, contexts);
          return { contexts, parts, read: wantedFrom(parts, classOf) };
        });
        // Contexts are switched on an inner element: everything below it must follow.
        const styles = await driver.executeScript<Styles[]>(
          `const read = new Function(${JSON.stringify(READ_STYLES)});
           return arguments[1].map(({ contexts, read: wanted }) => {
             Object.assign(document.getElementById('inner').dataset, contexts);
             return read(arguments[0], wanted);
           })`,
          field,
          wanted.map(({ contexts, read }) => ({ contexts, read })),
        );
        for (const [place, { contexts, parts }] of wanted.entries())
          lines.push(
            ...differences(parts, styles[place]!).lines.map(
              line => `${line} in ${JSON.stringify(contexts)} ${JSON.stringify(raw)}`,
            ),
          );
        if (raw['pointer'] !== 'away' && raw['availability'] === 'disabled') pointedAtDisabled++;
        if (raw['pointer'] === 'down') await driver.actions({ async: true }).release().perform();
      }
      expect(lines.slice(0, 20)).toEqual([]);
      expect(pointedAtDisabled).toBeGreaterThanOrEqual(Math.floor(pointings / 30));
    },
    TIMEOUT,
  );

  if (!isTyped) return;

  test(
    'text typed by hand and taken out again changes the field as the core says',
    async () => {
      const css = [tokensCssText(system), componentCssText(system, component)];
      await showPage(css, htmlOf(space.written(space.indices({})), 'shipped', 'typed'));
      const field = await driver.findElement({ css: `.${classOf('root')}` });
      const control = await driver.findElement({ css: `.${classOf('control')}` });
      await driver.actions({ async: true }).move({ x: 5, y: 590, origin: Origin.VIEWPORT }).perform();
      const agreesAs = async (combination: Combination): Promise<string[]> => {
        const { parts } = resolved(combination, {});
        return differences(
          parts,
          await driver.executeScript<Styles>(READ_STYLES, field, wantedFrom(parts, classOf)),
        ).lines;
      };
      await control.sendKeys('a');
      expect(await agreesAs({ content: 'filled', focus: 'keyboard' })).toEqual([]);
      await control.sendKeys('\uE003');
      expect(await agreesAs({ content: 'empty', focus: 'keyboard' })).toEqual([]);
    },
    TIMEOUT,
  );
});
